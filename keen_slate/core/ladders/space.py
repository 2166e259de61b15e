"""Every candidate of a rung: how many there are, one drawn by lot, all of them, and few that stand for all."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Iterator, Sequence
from functools import cached_property
from itertools import accumulate
from random import Random
from typing import Any, NamedTuple, Protocol

from ..expressions.terms import operator_for, pair
from ..expressions.tree import Expr
from .spec import TermLimits
from .wholes import WholePairs

SEARCHED_WHOLE = 10**8  # a space of fewer candidates is searched whole


def smaller(denominators: tuple[int, ...], most: int) -> tuple[int, ...]:
    """As many of the smaller *denominators* as have no more than *most* proper fractions; one at least.

    >>> smaller((2, 3, 4, 50), 10)
    (2, 3, 4)
    """
    up_to = list(accumulate([d - 1 for d in denominators]))
    return denominators[: max(1, bisect_right(up_to, most))]


class Space(Protocol):
    """The candidates of one rung within limits. *considered* counts those of its *family* before any limit is looked
    at.

    *exact* says that *count* is what satisfies the limits, and no upper bound; *sampled* that there are others which
    are not gone through (those with the larger denominators).
    """

    family: str
    considered: int
    exact: bool
    sampled: bool

    @property
    def count(self) -> int:
        """How many problems, as written, satisfy the limits."""

    def draw(self, dice: Random) -> Expr:
        """One of them, all equally likely. The count is not 0."""

    def typical(self) -> Iterator[Expr]:
        """Problems that stand for all: what none of them reveals, no problem of the space reveals."""

    def all(self) -> Iterator[Expr]:
        """All of them."""


class TermPair(NamedTuple):
    """Two terms without their wholes, which come from a pattern. n/d is what the parts make, d > 0.

    *mirrored*: the terms may also be taken in the other order, below zero.
    """

    sign: int
    first: Any
    second: Any
    pattern: str
    n: int
    d: int
    mirrored: bool


class TwoTerms:
    """A space of sums or differences of two numbers: shapes, each with its pairs of wholes."""

    exact = True

    def __init__(
        self, family: str, shapes: Sequence[TermPair], limits: TermLimits, considered: int,
        pairs: Callable[[str, int, int], WholePairs], write: Callable[[int, Any], Expr], sampled: bool = False,
    ) -> None:  # fmt: skip
        self.family = family
        self.sampled = sampled
        self.shapes = shapes
        self.limits = limits
        self.considered = considered
        self.pairs = pairs
        self.write = write
        self.below_zero = "negatives" not in limits.avoid

    def _pairs(self, shape: TermPair) -> WholePairs:
        return self.pairs(shape.pattern, shape.sign, self.limits.largest_whole)

    def _counts(self, shape: TermPair) -> tuple[int, int]:
        """How many problems a shape makes: as it stands, and mirrored below zero (where no answer is too large)."""
        pairs = self._pairs(shape)
        mirrored = pairs.up_to[-1] if shape.mirrored and self.below_zero else 0
        return pairs.count(pairs.most(shape.n, shape.d, self.limits.below)), mirrored

    @cached_property
    def _up_to(self) -> list[int]:
        return list(accumulate([sum(self._counts(shape)) for shape in self.shapes]))

    @property
    def count(self) -> int:
        """How many problems, as written, satisfy the limits."""
        return self._up_to[-1] if self._up_to else 0

    def draw(self, dice: Random) -> Expr:
        """One of them by lot."""
        at = dice.randrange(self.count)
        shape = self.shapes[bisect_right(self._up_to, at)]
        plain, mirrored = self._counts(shape)
        pairs = self._pairs(shape)
        if dice.randrange(plain + mirrored) >= plain:
            return self._problem(shape, pairs.draw(dice, len(pairs.made) - 1), mirrored=True)
        return self._problem(shape, pairs.draw(dice, pairs.most(shape.n, shape.d, self.limits.below)))

    def typical(self) -> Iterator[Expr]:
        """A few of each shape; of a sum only one order, since pupils go wrong in both alike."""
        for shape in self.shapes:
            if shape.sign > 0 and shape.first > shape.second:
                continue
            pairs = self._pairs(shape)
            for found in pairs.typical(pairs.most(shape.n, shape.d, self.limits.below)):
                yield self._problem(shape, found)

    def all(self) -> Iterator[Expr]:
        """Every problem of every shape."""
        for shape in self.shapes:
            pairs = self._pairs(shape)
            for made in pairs.made[: pairs.most(shape.n, shape.d, self.limits.below) + 1]:
                yield from [self._problem(shape, found) for found in made]
            if shape.mirrored and self.below_zero:
                for made in pairs.made:
                    yield from [self._problem(shape, found, mirrored=True) for found in made]

    def _problem(self, shape: TermPair, wholes: tuple[int, int], mirrored: bool = False) -> Expr:
        a, b = self.write(wholes[0], shape.first), self.write(wholes[1], shape.second)
        return pair(b, "-", a) if mirrored else pair(a, operator_for(shape.sign), b)
