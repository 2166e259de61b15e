"""What pupils wrote. In: a `Worked` problem and what was written.

Out: explanations, line by line too; what a set reveals; what to change.
"""
