"""The rules of the job, pure Python: no web, no database, no clock, no files. A room lists what comes in and what goes
out.

The way of the data, a room a line; none imports from a room below its own (`tests/core/test_shape.py` has the order)::

    text -> reading -> Problem -> working -> Working -> judging, grading -> Worked
    Worked -> diagnosing: what a pupil wrote, explained
    Worked -> layouts, figures, teaching -> documents: what is published
    wishes -> ladders, building -> problems, from the text again
"""
