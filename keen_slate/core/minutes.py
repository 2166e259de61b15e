"""How long a set takes in class (common practice): the first example of a kind is slow, further ones are quick, lines are read."""

from __future__ import annotations

from collections.abc import Sequence

FIRST, FURTHER, LINE = 180, 40, 10  # seconds


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
