"""How long a set takes in class (common practice): the first example of a kind is slow, further ones are quick, lines
are read.
"""

from __future__ import annotations

from collections.abc import Sequence

FIRST, FURTHER, LINE = 180, 40, 10  # seconds
GLANCE = 30  # who shows an example for less has not worked it with the class


def own_time(days: Sequence[int]) -> int | None:
    """The teacher's own time for an example, from the seconds logged on each day: the last that was more than a glance.

    >>> own_time([95, 12]), own_time([4])
    (95, None)
    """
    return next((spent for spent in reversed(days) if spent >= GLANCE), None)


def seconds(kinds: Sequence[str], lines: Sequence[int], own: Sequence[int | None] = ()) -> list[int]:
    """The seconds planned for each example, from its kind and its number of written lines.

    Where the teacher's *own* time is known, it is planned instead.

    >>> seconds(["add-subtract", "add-subtract", "decimal"], [3, 4, 2], [None, 65, None])
    [210, 65, 200]
    """
    planned = []
    met: set[str] = set()
    for i, (kind, count) in enumerate(zip(kinds, lines, strict=True)):
        logged = own[i] if i < len(own) else None
        planned.append(logged or (FURTHER if kind in met else FIRST) + LINE * count)
        met.add(kind)
    return planned
