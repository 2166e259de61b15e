"""Cancelling: what a top and a bottom of a product share is divided out of both."""

from __future__ import annotations

from collections.abc import Sequence
from math import gcd

from ...expressions.sentences import Rich
from ...expressions.tree import Frac


def cancelled(fractions: Sequence[Frac]) -> tuple[list[Frac], tuple[Rich, ...]]:
    """The factors without what any top shares with any bottom, and a jotting for each pair that did.

    >>> factors, said = cancelled([Frac(2, 3), Frac(9, 10)])
    >>> factors
    [Frac(num=1, den=1), Frac(num=3, den=5)]
    >>> said
    (('2 above and 10 below share 2: 1 and 5',), ('9 above and 3 below share 3: 3 and 1',))
    """
    tops, bottoms = [f.num for f in fractions], [f.den for f in fractions]
    lines: list[Rich] = []
    for i, _ in enumerate(tops):
        for j, _ in enumerate(bottoms):
            shared = gcd(tops[i], bottoms[j])
            if shared > 1 and tops[i]:
                line = f"{tops[i]} above and {bottoms[j]} below share {shared}: "
                tops[i], bottoms[j] = tops[i] // shared, bottoms[j] // shared
                lines.append((f"{line}{tops[i]} and {bottoms[j]}",))
    return [Frac(n, d) for n, d in zip(tops, bottoms, strict=True)], tuple(lines)
