"""What is published. In: what the other rooms found.

Out: documents, as the command line prints and the server sends them.
"""
