"""What long searches share. In: a deadline from outside.

Out: whether it has passed; the fewest sets that cover something.
"""
