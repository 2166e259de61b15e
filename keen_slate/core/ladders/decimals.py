"""The candidates of D1 to D5: two decimals of up to two places, or one of them a whole number.

The digits after the point decide what happens there, the wholes what happens before it; each pair of either is
worked in columns once, by the core's own column arithmetic.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from ..arithmetic.columns import Subtracted, add_columns, subtract_columns
from ..expressions.tree import Dec, Expr, Whole
from .space import Shape, TwoTerms
from .spec import Limits
from .wholes import Pairs, collect

RUNGS = ("D1", "D2", "D3", "D4", "D5")
MOST_PLACES = 2
# What may stand after the point, without zeros at its end; nothing for a whole number.
PARTS = (
    "",
    *[str(n) for n in range(1, 10)],
    *[f"{n:02}" for n in range(1, 100) if n % 10],
)


def space(rung: str, limits: Limits) -> TwoTerms:
    """The candidates of *rung* within *limits*."""
    shapes = _shapes()[rung]
    if "whole-answers" in limits.avoid:
        shapes = [shape for shape in shapes if shape.n % shape.d]
    numbers = len(PARTS) * (limits.largest_whole + 1)
    return TwoTerms("D", shapes, limits, 2 * numbers**2, _pairs_of, _write)


def _write(whole: int, part: str) -> Expr:
    return Dec(whole, part) if part else Whole(whole)


# What happens before the point -----------------------------------------------------------------------------------


@lru_cache(maxsize=256)
def _pairs_of(pattern: str, sign: int, largest: int) -> Pairs:
    """The pairs of a pattern: a carry or an exchange that comes from the places, and what the wholes do with it."""
    brought, wanted = int(pattern[0]), pattern[2:].removesuffix(", not 0")
    does = _adding if sign > 0 else _taking_away
    not_0 = pattern.endswith(", not 0")
    return collect(lambda v, w: not (not_0 and v == w) and _belongs(does(v, w, brought), wanted), sign, largest)


def _belongs(happens: str | None, wanted: str) -> bool:
    return happens is not None and (
        wanted == happens or (wanted == "any") or (wanted == "no across" and happens != "across")
    )


def _adding(v: int, w: int, carry: int) -> str:
    columns = add_columns([10 * v + 5 * carry, 10 * w + 5 * carry])[1:]
    return "carry" if any(c.carried and any(c.digits) for c in columns) else "plain"


def _taking_away(v: int, w: int, taken: int) -> str | None:
    if v - taken < w:
        return None
    columns = subtract_columns(10 * v + 5 * (1 - taken), 10 * w + 5 * taken)[1:]
    return "across" if _crosses(columns) else "exchange" if any(c.exchanged for c in columns) else "plain"


def _crosses(columns: list[Subtracted]) -> bool:
    return any(len(c.above) > 1 and c.above[0] == 10 for c in columns)


# What happens after it -------------------------------------------------------------------------------------------


@lru_cache(maxsize=1)
def _shapes() -> dict[str, list[Shape]]:
    found: dict[str, list[Shape]] = {rung: [] for rung in RUNGS}
    for first in PARTS:
        for second in PARTS:
            if first or second:
                for rung, shape in (*_sums(first, second), *_differences(first, second)):
                    found[rung].append(shape)
    return found


def _counted(part: str, places: int) -> int:
    return int(part.ljust(places, "0") or "0")


def _sums(first: str, second: str) -> Iterator[tuple[str, Shape]]:
    places = max(len(first), len(second))
    unit: int = 10**places
    a, b = _counted(first, places), _counted(second, places)
    brought = a + b >= unit

    def shape(pattern: str) -> Shape:
        return Shape(1, first, second, f"{int(brought)} {pattern}", a + b, unit, False)

    if len(first) != len(second):
        yield "D3", shape("any")
    elif any(c.carried and any(c.digits) for c in add_columns([a, b])):
        yield "D2", shape("any")
    else:
        yield "D1", shape("plain")
        yield "D2", shape("carry")


def _differences(first: str, second: str) -> Iterator[tuple[str, Shape]]:
    places = max(len(first), len(second))
    unit: int = 10**places
    a, b = _counted(first, places), _counted(second, places)
    taken = a < b
    columns = subtract_columns(a + unit * taken, b)[:places]
    filled = max(0, len(second) - len(first))

    def shape(pattern: str) -> Shape:
        return Shape(-1, first, second, f"{int(taken)} {pattern}", a - b, unit, True)

    if _crosses(columns[filled:]):
        yield "D5", shape("any")
        return
    yield "D5", shape("across")
    exchanged = any(c.exchanged for c in columns)
    if len(first) != len(second):
        if any(c.exchanged for c in columns[:filled]):
            yield "D4", shape("no across")
    elif exchanged:
        yield "D2", shape("no across")
    else:
        yield "D2", shape("exchange")
        yield "D1", shape("plain, not 0" if a == b else "plain")
