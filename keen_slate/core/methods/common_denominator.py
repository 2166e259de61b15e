"""Finding a common denominator and writing fractions in it.

First it is asked whether the denominators are the same, then whether one fits the others; only else is a
new one looked for, by the method of `Ways.common_denominator`.
"""

from __future__ import annotations

from functools import lru_cache
from math import gcd, lcm
from typing import Literal

from ..numbers import Frac
from ..wording import Rich, Scaled, parts_name

Relation = Literal["like", "one-fits", "shares-factor", "coprime"]

# A longer row of multiples is cut in the middle: the board has no room for it, and nobody would read it.
ROW_SHOWN = 12
# Classes use few denominators, so what is said of them is kept; the functions are pure.
CACHED = 8192


@lru_cache(maxsize=CACHED)
def relation(denominators: tuple[int, ...]) -> Relation | None:
    """How *denominators* stand to each other; None when there are none.

    >>> relation((4, 12)), relation((4, 6)), relation((4, 9)), relation((7, 7))
    ('one-fits', 'shares-factor', 'coprime', 'like')
    """
    distinct = set(denominators)
    if len(distinct) < 2:
        return "like" if distinct else None
    largest = max(distinct)
    if all(largest % d == 0 for d in distinct):
        return "one-fits"
    if all(gcd(a, b) == 1 for a in distinct for b in distinct if a < b):
        return "coprime"
    return "shares-factor"


@lru_cache(maxsize=CACHED)
def least(denominators: tuple[int, ...]) -> int:
    """The least common denominator."""
    return lcm(*denominators)


def _row(d: int, common: int) -> Rich:
    count = common // d
    if count <= ROW_SHOWN:
        shown = ", ".join([str(d * k) for k in range(1, count + 1)])
    else:
        shown = ", ".join([str(d * k) for k in range(1, ROW_SHOWN - 1)]) + f", …, {common}"
    return (f"multiples of {d}: {shown}",)


@lru_cache(maxsize=CACHED)
def listed_multiples(denominators: tuple[int, ...], common: int) -> tuple[Rich, ...]:
    """A row of multiples for each different denominator, as far as the first that all share."""
    return tuple([_row(d, common) for d in dict.fromkeys(denominators)])


@lru_cache(maxsize=CACHED)
def title(denominators: tuple[int, ...], common: int) -> Rich:
    """What a class says when it finds the common denominator."""
    pieces = parts_name(common, True)
    if relation(denominators) == "one-fits":
        return (f"{common} fits every denominator, so all pieces become {pieces}.",)
    return (f"Same size pieces first: {pieces}.",)


@lru_cache(maxsize=CACHED)
def reason(denominators: tuple[int, ...], common: int) -> Rich:
    """Why the fractions are rewritten."""
    start = "The pieces must be the same size before they are counted together."
    if relation(denominators) == "one-fits":
        changed = sum(d != common for d in denominators)
        only = "only one fraction changes" if changed == 1 else f"{changed} fractions change"
        return (f"{start} One denominator is a multiple of the others, so {only}.",)
    return (f"{start} {common} is the first number in every row of multiples.",)


@lru_cache(maxsize=CACHED)
def scaling(num: int, den: int, common: int) -> Rich:
    """How one fraction is scaled: what is done to the bottom is done to the top."""
    by = common // den
    return (Frac(num, den), " = ", Scaled(num, den, "×", by), " = ", Frac(num * by, common))
