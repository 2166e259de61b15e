"""How hard a story is by what it tells, whatever its numbers are. Common practice."""

from __future__ import annotations


def rung_of_story(situation: str, unknown: str, steps: int, *, more: bool, groups: bool, larger_second: bool) -> str:
    """The rung (S1 to S6) of a story of so many *steps*; *more* is a change of unit, or a number that is not needed.

    >>> rung_of_story("compare", "difference", 1, more=False, groups=False, larger_second=False)
    'S2'
    """
    if steps > 2 or more:
        return "S6"
    if groups:
        return "S5"
    if steps > 1:
        return "S4"
    if unknown in ("start", "change", "part"):
        return "S3"
    return "S2" if situation == "compare" or larger_second else "S1"
