"""Written numbers and expressions. In: nothing of ours.

Out: the tree, walks over it, and its printers (text, words, pieces).
"""
