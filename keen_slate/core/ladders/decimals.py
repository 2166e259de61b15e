"""The candidates of D1 to D5: two decimals of up to two places (three, where they are asked for), or one of them a
whole number.

The digits after the point decide what happens there, the wholes what happens before it; each pair of either is
worked in columns once, by the core's own column arithmetic.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from ..arithmetic.columns import Subtracted, add_columns, subtract_columns
from ..expressions.terms import operator_for
from ..expressions.tree import Dec, Expr, Whole
from .space import TermPair, TwoTerms
from .spec import TermLimits
from .wholes import ALL_UP_TO, WholePairs, collect

RUNGS = ("D1", "D2", "D3", "D4", "D5")
_OF_THREE = 7  # of the parts with three places every so-manyth is there
# What may stand after the point, without zeros at its end, by its places.
_PARTS = {
    1: [str(n) for n in range(1, 10)],
    2: [f"{n:02}" for n in range(1, 100) if n % 10],
    3: [f"{n:03}" for n in range(1, 1000, _OF_THREE) if n % 10],
}


def parts_of(places: tuple[int, ...]) -> tuple[str, ...]:
    """What may stand after the point with these counts of *places*; nothing for a whole number."""
    return ("", *[part for count in places for part in _PARTS[count]])


def space(rung: str, limits: TermLimits) -> TwoTerms:
    """The candidates of *rung* within *limits*."""
    shapes = [one for one in _shapes(limits.places)[rung] if operator_for(one.sign) in limits.operations]
    if "whole-answers" in limits.avoid:
        shapes = [shape for shape in shapes if shape.n % shape.d]
    numbers = len(parts_of(limits.places)) * (limits.largest_whole + 1)
    sampled = 3 in limits.places or limits.largest_whole > ALL_UP_TO
    return TwoTerms("D", shapes, limits, 2 * numbers**2, _pairs_of, _write, sampled)


def _write(whole: int, part: str) -> Expr:
    return Dec(whole, part) if part else Whole(whole)


# What happens before the point -----------------------------------------------------------------------------------


@lru_cache(maxsize=256)
def _pairs_of(pattern: str, sign: int, largest: int) -> WholePairs:
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


@lru_cache(maxsize=4)
def _shapes(places: tuple[int, ...]) -> dict[str, list[TermPair]]:
    found: dict[str, list[TermPair]] = {rung: [] for rung in RUNGS}
    parts = parts_of(places)
    for first in parts:
        for second in parts:
            if first or second:
                for rung, shape in (*_sums(first, second), *_differences(first, second)):
                    found[rung].append(shape)
    return found


def _counted(part: str, places: int) -> int:
    return int(part.ljust(places, "0") or "0")


def _sums(first: str, second: str) -> Iterator[tuple[str, TermPair]]:
    places = max(len(first), len(second))
    unit: int = 10**places
    a, b = _counted(first, places), _counted(second, places)
    brought = a + b >= unit

    def shape(pattern: str) -> TermPair:
        return TermPair(1, first, second, f"{int(brought)} {pattern}", a + b, unit, False)

    if len(first) != len(second):
        yield "D3", shape("any")
    elif any(c.carried and any(c.digits) for c in add_columns([a, b])):
        yield "D2", shape("any")
    else:
        yield "D1", shape("plain")
        yield "D2", shape("carry")


def _differences(first: str, second: str) -> Iterator[tuple[str, TermPair]]:
    places = max(len(first), len(second))
    unit: int = 10**places
    a, b = _counted(first, places), _counted(second, places)
    taken = a < b
    columns = subtract_columns(a + unit * taken, b)[:places]
    filled = max(0, len(second) - len(first))

    def shape(pattern: str) -> TermPair:
        return TermPair(-1, first, second, f"{int(taken)} {pattern}", a - b, unit, True)

    if _crosses(columns[filled:]):
        yield "D5", shape("any")
        return
    yield "D5", shape("across")
    exchanged = any(c.exchanged for c in columns)
    if len(first) != len(second):
        if any(c.exchanged for c in columns[:filled]):
            yield "D4", shape("no across")
        else:
            yield "D3", shape("no across")
    elif exchanged:
        yield "D2", shape("no across")
    else:
        yield "D2", shape("exchange")
        yield "D1", shape("plain, not 0" if a == b else "plain")
