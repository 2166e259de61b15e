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
_Shapes = dict[str, list[Shape]]


def space(rung: str, limits: Limits) -> TwoTerms:
    """The candidates of *rung* within *limits*."""
    gone_through = smaller(limits.denominators, _MOST_PARTS)
    parts = sum(d - 1 for d in gone_through)
    numbers = parts if rung.startswith("F") else parts * (limits.largest_whole + 1) + limits.largest_whole
    shapes = _shapes(gone_through, limits.largest_common, limits.avoid - {"negatives"})
    sampled = gone_through != limits.denominators
    return TwoTerms(rung[0], shapes[rung], limits, 2 * numbers**2, pairs_of, _write, sampled)


def _write(whole: int, part: _Part | None) -> Expr:
    return Whole(whole) if part is None else make(whole, *part)


@lru_cache(maxsize=64)
def _shapes(denominators: tuple[int, ...], largest_common: int | None, avoid: frozenset[str]) -> _Shapes:
    """All shapes of every rung within the limits on denominators and on what is met."""
    found: _Shapes = {rung: [] for rung in RUNGS}
    for d in denominators:
        for e in denominators:
            common = lcm(d, e)
            too_large = largest_common is not None and common > largest_common
            if too_large or ("large-pictures" in avoid and common > MOST_PARTS):
                continue
            for rung, shape, left in _pairs_of_parts(d, e, common):
                if not _avoided(shape, left, common, avoid):
                    found[rung].append(shape)
    for d in denominators:
        if (largest_common is None or d <= largest_common) and not ("large-pictures" in avoid and d > MOST_PARTS):
            for rung, shape, left in _with_a_whole(d):
                if not _avoided(shape, left, d, avoid):
                    found[rung].append(shape)
    return found


def _avoided(shape: Shape, left: int, common: int, avoid: frozenset[str]) -> bool:
    """Whether something is met that is to be avoided; *left* is the numerator of the answer's fraction part."""
    if not avoid:
        return False
    by = gcd(left, common) if left else 1
    if ("whole-answers" in avoid and not left) or ("simplification" in avoid and by > 1):
        return True
    if "large-facts" not in avoid:
        return False
    scaled = [part for part in (shape.first, shape.second) if part is not None and part[1] != common]
    facts = [(number, common // d) for n, d in scaled for number in (n, d)]
    if by > 1:
        facts += [(left // by, by), (common // by, by)]
    return any(max(fact) > TIMES_TABLE and min(fact) > 1 for fact in facts)


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
