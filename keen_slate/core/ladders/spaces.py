"""Which module knows the candidates of a rung."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from random import Random

from ..expressions.tree import Expr
from . import decimals, fractions, grids, order
from .several import ThreeDecimals, ThreeFractions
from .shapes import SHAPES
from .space import Space
from .spec import Limits

_TRIED = 400


class OfShape:
    """The candidates of a space that have one shape. How many those are is not known before all are gone through."""

    exact = False

    def __init__(self, space: Space, only: str) -> None:
        self.family = space.family
        self.considered = space.considered
        self.sampled = space.sampled
        self.count = space.count
        self._space = space
        self._has = SHAPES[only].has

    def draw(self, dice: Random) -> Expr:
        """One by lot, of those of the shape where one is met."""
        for _ in range(_TRIED):
            if self._has(problem := self._space.draw(dice)):
                break
        return problem

    def typical(self) -> Iterator[Expr]:
        """Those of the problems that stand for all."""
        return filter(self._has, self._space.typical())

    def all(self) -> Iterator[Expr]:
        """All of them."""
        return filter(self._has, self._space.all())


def space_of(rung: str, limits: Limits) -> Space:
    """The candidates of *rung* within *limits*."""
    space = _space_of(rung, replace(limits, only=None))
    return space if limits.only is None else OfShape(space, limits.only)


def _space_of(rung: str, limits: Limits) -> Space:
    if rung in fractions.RUNGS:
        return fractions.space(rung, limits)
    if rung in decimals.RUNGS:
        return decimals.space(rung, limits)
    if rung in grids.RUNGS:
        return grids.space(rung, limits)
    if rung in order.RUNGS:
        return order.Forms(rung, limits)
    return ThreeFractions(limits) if rung == "F7" else ThreeDecimals(limits)
