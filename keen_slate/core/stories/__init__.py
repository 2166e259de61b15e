"""Word problems. In: a told text (and, after it in braces, how it is worked); or numbers and a scenario.

Out: a `Story`, told and linked.
"""
