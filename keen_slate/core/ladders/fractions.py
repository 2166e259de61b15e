"""The candidates of F1 to F6 and M1 to M9: two terms, fractions or mixed numbers.

Each pair of fraction parts is gone through once; the wholes beside them are counted by their patterns. Whatever
is said here of a rung or a limit is said by the core's own features too: a test compares them on whole spaces.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from math import gcd, lcm

from ..features import TIMES_TABLE
from ..figures.scenes import MOST_PARTS
from ..methods.common_denominator import relation
from ..numbers import Expr, Whole, make
from ..rungs import UNLIKE
from .space import Shape, TwoTerms, smaller
from .spec import Limits
from .wholes import pairs_of

RUNGS = ("F1", "F2", "F3", "F4", "F5", "F6", "M1", "M2", "M3", "M4", "M5", "M6", "M7", "M8", "M9")
_MOST_PARTS = 545  # all pairs of so many fractions are gone through; with wholes to 12 there are 10^8 problems of them
_Part = tuple[int, int]  # numerator and denominator
_Shapes = dict[str, list[tuple[Shape, int, int]]]
_MET = {"whole-answers": 1, "simplification": 2, "large-pictures": 4, "large-facts": 8}


def space(rung: str, limits: Limits) -> TwoTerms:
    """The candidates of *rung* within *limits*."""
    gone_through = smaller(limits.denominators, _MOST_PARTS)
    parts = sum(d - 1 for d in gone_through)
    numbers = parts if rung.startswith("F") else parts * (limits.largest_whole + 1) + limits.largest_whole
    shapes = _within(rung, gone_through, limits)
    sampled = gone_through != limits.denominators
    return TwoTerms(rung[0], shapes, limits, 2 * numbers**2, pairs_of, _write, sampled)


def _write(whole: int, part: _Part | None) -> Expr:
    return Whole(whole) if part is None else make(whole, *part)


@lru_cache(maxsize=4)
def _shapes(denominators: tuple[int, ...]) -> _Shapes:
    """All shapes of every rung, each with its common denominator and, as bits, what is met in it that may be avoided."""
    found: _Shapes = {rung: [] for rung in RUNGS}
    for d in denominators:
        for rung, shape, left in _with_a_whole(d):
            found[rung].append((shape, d, _met(shape, left, d)))
        for e in denominators:
            common = lcm(d, e)
            for rung, shape, left in _pairs_of_parts(d, e, common):
                found[rung].append((shape, common, _met(shape, left, common)))
    return found


def _within(rung: str, denominators: tuple[int, ...], limits: Limits) -> list[Shape]:
    """The shapes of *rung* within the limits on common denominators and on what is met."""
    avoided = sum(bit for name, bit in _MET.items() if name in limits.avoid)
    most = limits.largest_common or lcm(*denominators)
    return [shape for shape, common, met in _shapes(denominators)[rung] if common <= most and not met & avoided]


def _met(shape: Shape, left: int, common: int) -> int:
    """What is met in a shape, as bits of `_MET`; *left* is the numerator of the answer's fraction part."""
    by = gcd(left, common) if left else 1
    met = 0 if left else _MET["whole-answers"]
    if by > 1:
        met |= _MET["simplification"]
    if common > MOST_PARTS:
        met |= _MET["large-pictures"]
    scaled = [part for part in (shape.first, shape.second) if part is not None and part[1] != common]
    facts = [(number, common // d) for n, d in scaled for number in (n, d)]
    if by > 1:
        facts += [(left // by, by), (common // by, by)]
    if any(max(fact) > TIMES_TABLE and min(fact) > 1 for fact in facts):
        met |= _MET["large-facts"]
    return met


def _pairs_of_parts(d: int, e: int, common: int) -> Iterator[tuple[str, Shape, int]]:
    """Rung, shape and what is left over the common denominator, for all pairs of proper fractions n/d and m/e."""
    how = relation((d, e))
    like = how == "like"
    unlike = UNLIKE.get(how or "")
    for n in range(1, d):
        a = n * common // d
        for m in range(1, e):
            b = m * common // e
            first, second = (n, d), (m, e)
            over, left = divmod(a + b, common)
            yield (
                unlike or ("F3" if over else "F2" if gcd(left, common) > 1 else "F1"),
                Shape(1, first, second, "none", a + b, common, False), left,
            )  # fmt: skip
            yield (
                ("M2" if over else "M1") if like else ("M4" if over else "M3"),
                Shape(1, first, second, "beside", a + b, common, False), left,
            )  # fmt: skip
            if a > b:
                shape = Shape(-1, first, second, "none", a - b, common, True)
                yield unlike or ("F2" if gcd(a - b, common) > 1 else "F1"), shape, a - b
            if a >= b:
                # An answer of 0 is no problem: with equal parts the wholes must differ.
                pattern = "at least" if a > b else "more"
                yield "M5", Shape(-1, first, second, pattern, a - b, common, True), a - b
            else:
                left = a + common - b
                rung = "M7" if like else "M9" if gcd(left, common) > 1 else "M8"
                yield rung, Shape(-1, first, second, "more", a - b, common, True), left


def _with_a_whole(d: int) -> Iterator[tuple[str, Shape, int]]:
    """A whole is taken from a mixed number (M5), or a fraction or mixed number from a whole (M6)."""
    for n in range(1, d):
        yield "M5", Shape(-1, (n, d), None, "a whole", n, d, True), n
        yield "M6", Shape(-1, None, (n, d), "more", -n, d, True), d - n
