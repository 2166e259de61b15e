"""How long a set takes in class (common practice): the first example of a kind is slow, further ones are quick, lines are read."""

from __future__ import annotations

from collections.abc import Sequence

FIRST, FURTHER, LINE = 180, 40, 10  # seconds


def seconds(kinds: Sequence[str], lines: Sequence[int]) -> list[int]:
    """The seconds planned for each example, from its kind and its number of written lines.

    >>> seconds(["add-subtract", "add-subtract", "decimal"], [3, 4, 2])
    [210, 80, 200]
    """
    planned = []
    met: set[str] = set()
    for kind, count in zip(kinds, lines, strict=True):
        planned.append((FURTHER if kind in met else FIRST) + LINE * count)
        met.add(kind)
    return planned
