"""A class's answers to a set. In: problems as they were given, and what each pupil wrote.

Out: what happened, what pupils hold, what comes next.
"""
