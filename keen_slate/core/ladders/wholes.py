"""The whole numbers beside the fraction parts of two terms: which pairs there are, counted by what they make."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from itertools import accumulate
from random import Random

Pair = tuple[int, int]
ALL_UP_TO = 99
FEW = 13  # of the small wholes all are there

# Name of a pattern -> which pairs of wholes belong to it. What the pair makes is their sum or their difference.
PATTERNS: dict[str, Callable[[int, int], bool]] = {
    "none": lambda v, w: v == w == 0,
    "beside": lambda v, w: v + w > 0,  # adding, at least one mixed number
    "at least": lambda v, w: v >= max(w, 1),  # taking away, enough pieces
    "a whole": lambda v, w: v >= w >= 1,  # a whole number is taken away
    "more": lambda v, w: v > w,  # taking away, a whole is cut up
}


@dataclass(frozen=True)
class WholePairs:
    """All pairs of a pattern: *made* maps what a pair makes to the pairs, *up_to* counts those making 0 to k."""

    made: tuple[tuple[Pair, ...], ...]
    up_to: tuple[int, ...]

    def most(self, n: int, d: int, below: Fraction | None) -> int:
        """The most that a pair may make, where n/d is added to it and the answer stays *below*; -1 for nothing."""
        last = len(self.made) - 1
        if below is None:
            return last
        # k + n/d < p/q, so k < (pd - nq)/qd
        p, q = below.numerator, below.denominator
        return max(-1, min(last, -((n * q - p * d) // (q * d)) - 1))

    def count(self, most: int) -> int:
        """How many pairs make no more than *most*."""
        return self.up_to[most] if most >= 0 else 0

    def draw(self, dice: Random, most: int) -> Pair:
        """One of the pairs that make no more than *most*."""
        at = dice.randrange(self.up_to[most])
        k = next(k for k, count in enumerate(self.up_to) if at < count)
        return self.made[k][at - (self.up_to[k] - len(self.made[k]))]

    def typical(self, most: int) -> Iterator[Pair]:
        """Pairs that stand for all: little and more, with and without a second whole.

        Statuses do not depend on more.
        """
        seen: set[tuple[int, bool, bool]] = set()
        for k in range(most + 1):
            for pair in self.made[k]:
                kind = (min(k, 2), pair[0] > 0, pair[1] > 0)
                if kind not in seen:
                    seen.add(kind)
                    yield pair


@lru_cache(maxsize=64)
def some_wholes(largest: int) -> tuple[int, ...]:
    """The wholes from 0 to *largest*: all to `ALL_UP_TO`, then some by lot, so that pairs can be gone through."""
    if largest <= ALL_UP_TO:
        return tuple(range(largest + 1))
    larger = Random(largest).sample(range(FEW, largest), ALL_UP_TO - FEW)
    return tuple(sorted({*range(FEW), *larger, largest}))


@lru_cache(maxsize=256)
def pairs_of(pattern: str, sign: int, largest: int) -> WholePairs:
    """The pairs of the *pattern* from 0 to *largest*, added or subtracted by *sign*."""
    return collect(PATTERNS[pattern], sign, largest)


def collect(belongs: Callable[[int, int], bool], sign: int, largest: int) -> WholePairs:
    """The pairs from 0 to *largest* that belong, by their sum or difference (0 or more)."""
    made: list[list[Pair]] = [[] for _ in range(2 * largest + 1)]
    numbers = some_wholes(largest)
    for v in numbers:
        for w in numbers:
            if belongs(v, w) and v + sign * w >= 0:
                made[v + sign * w].append((v, w))
    return WholePairs(tuple(map(tuple, made)), tuple(accumulate(map(len, made))))
