"""What the sentences of a story say together: amounts, facts about them, what is asked, and the calculation that
follows.
"""
