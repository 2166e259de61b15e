"""Which module knows the candidates of a rung."""

from __future__ import annotations

from . import decimals, fractions, grids, order
from .several import ThreeDecimals, ThreeFractions
from .space import Space
from .spec import Limits


def space_of(rung: str, limits: Limits) -> Space:
    """The candidates of *rung* within *limits*."""
    if rung in fractions.RUNGS:
        return fractions.space(rung, limits)
    if rung in decimals.RUNGS:
        return decimals.space(rung, limits)
    if rung in grids.RUNGS:
        return grids.space(rung, limits)
    if rung in order.RUNGS:
        return order.Forms(rung, limits)
    return ThreeFractions(limits) if rung == "F7" else ThreeDecimals(limits)
