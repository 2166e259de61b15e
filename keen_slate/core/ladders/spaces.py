"""Which module knows the candidates of a rung."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache
from itertools import count, islice
from random import Random

from ..expressions.tree import Expr
from . import decimals, fractions, grids, order
from .several import ThreeDecimals, ThreeFractions
from .shapes import SHAPES
from .space import Space
from .spec import TermLimits

_TRIED = 100
_MOST_LISTED = 40_000  # candidates gone through for those of a rare shape


class OfShape:
    """The candidates of a space that have one shape: drawn until one has it, or listed where few have."""

    exact = False

    def __init__(self, space: Space, only: str) -> None:
        self.family = space.family
        self.considered = space.considered
        self.sampled = space.sampled
        self._space = space
        self._has = SHAPES[only].has
        dice = Random(0)
        hits = sum(self._has(space.draw(dice)) for _ in range(_TRIED)) if space.count else 0
        self._few = None if hits > _TRIED // 20 else list(filter(self._has, islice(space.all(), _MOST_LISTED)))
        self.count = space.count if self._few is None else len(self._few)

    def draw(self, dice: Random) -> Expr:
        """One by lot. The count is not 0."""
        if self._few is not None:
            return dice.choice(self._few)
        return next(filter(self._has, (self._space.draw(dice) for _ in count())))

    def typical(self) -> Iterator[Expr]:
        """Those of the problems that stand for all."""
        return iter(self._few) if self._few is not None else filter(self._has, self._space.typical())

    def all(self) -> Iterator[Expr]:
        """All of them."""
        return iter(self._few) if self._few is not None else filter(self._has, self._space.all())


@lru_cache(maxsize=32)
def _of_shape(rung: str, limits: TermLimits) -> OfShape:
    assert limits.only is not None, "it is asked for a shape"
    return OfShape(_space_of(rung, replace(limits, only=None)), limits.only)


def space_of(rung: str, limits: TermLimits) -> Space:
    """The candidates of *rung* within *limits*."""
    return _space_of(rung, limits) if limits.only is None else _of_shape(rung, limits)


def _space_of(rung: str, limits: TermLimits) -> Space:
    if rung in fractions.RUNGS:
        return fractions.space(rung, limits)
    if rung in decimals.RUNGS:
        return decimals.space(rung, limits)
    if rung in grids.RUNGS:
        return grids.space(rung, limits)
    if rung in order.RUNGS:
        return order.Forms(rung, limits)
    return ThreeDecimals(limits) if rung == "D6" else ThreeFractions(rung, limits)
