"""How hard a problem is. In: a `Working`.

Out: its features, rung, surprises, other ways, and the standards it serves.
"""
