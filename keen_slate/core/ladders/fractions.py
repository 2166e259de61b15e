"""The candidates of F1 to F6 and M1 to M9: two terms, fractions or mixed numbers.

Each pair of fraction parts is gone through once; the wholes beside them are counted by their patterns. Whatever
is said here of a rung or a limit is said by the core's own features too: a test compares them on whole spaces.
"""

from __future__ import annotations

from array import array
from collections.abc import Iterator
from functools import lru_cache
from math import gcd, lcm

from ..expressions.terms import operator_for
from ..expressions.tree import Expr, Whole, make
from ..grading.rungs import UNLIKE
from ..limits import MOST_PARTS, TIMES_TABLE
from ..searching.deadline import look
from ..working.methods.common_denominator import relation
from .space import TermPair, TwoTerms, smaller
from .spec import TermLimits
from .wholes import ALL_UP_TO, pairs_of

RUNGS = ("F1", "F2", "F3", "F4", "F5", "F6", "M1", "M2", "M3", "M4", "M5", "M6", "M7", "M8", "M9")
_MOST_PARTS = 545  # all pairs of so many fractions are gone through; with wholes to 12 there are 10^8 problems of them
_Part = tuple[int, int]  # numerator and denominator
_MET = {"whole-answers": 1, "simplification": 2, "large-pictures": 4, "large-facts": 8}


class _Shapes:
    """The shapes of a rung, each with its common denominator and, as bits of `_MET`, what is met in it that may be
    avoided.

    There may be a million of them, so what belongs to them stands beside them in arrays.
    """

    def __init__(self) -> None:
        self.shapes: list[TermPair] = []
        self.commons = array("H")
        self.met = array("B")

    def add(self, shape: TermPair, common: int, met: int) -> None:
        self.shapes.append(shape)
        self.commons.append(common)
        self.met.append(met)

    def within(self, most: int, avoided: int) -> list[TermPair]:
        """Those with a common denominator of *most* at most in which nothing *avoided* is met."""
        known = zip(self.shapes, self.commons, self.met, strict=True)
        return [shape for shape, common, met in known if common <= most and not met & avoided]


def space(rung: str, limits: TermLimits) -> TwoTerms:
    """The candidates of *rung* within *limits*."""
    gone_through = smaller(limits.denominators, _MOST_PARTS)
    parts = sum(d - 1 for d in gone_through)
    numbers = parts if rung.startswith("F") else parts * (limits.largest_whole + 1) + limits.largest_whole
    shapes = _within(rung, gone_through, limits)
    shapes = [shape for shape in shapes if _is_written_within(shape, limits)] if limits.narrows_terms else shapes
    sampled = gone_through != limits.denominators or limits.largest_whole > ALL_UP_TO
    return TwoTerms(rung[0], shapes, limits, 2 * numbers**2, pairs_of, _write, sampled)


def _is_written_within(shape: TermPair, limits: TermLimits) -> bool:
    lowest = not limits.lowest_terms or all(part is None or gcd(*part) == 1 for part in (shape.first, shape.second))
    return lowest and operator_for(shape.sign) in limits.operations


def _write(whole: int, part: _Part | None) -> Expr:
    return Whole(whole) if part is None else make(whole, *part)


@lru_cache(maxsize=1)  # a million shapes take some 120 MB
def _shapes(denominators: tuple[int, ...]) -> dict[str, _Shapes]:
    """All shapes of every rung."""
    found = {rung: _Shapes() for rung in RUNGS}
    parts = {d: [(n, d) for n in range(d)] for d in denominators}
    met = {common: _met_after(common) for common in {lcm(d, e) for d in denominators for e in denominators}}
    for d in denominators:
        for rung, shape, left in _with_a_whole(parts[d]):
            found[rung].add(shape, d, met[d][left])
        for e in denominators:
            look()
            common = lcm(d, e)
            after = met[common]
            facts = _large_scaling(d, common), _large_scaling(e, common)
            for rung, shape, left in _pairs_of_parts(parts[d], parts[e], common):
                large = facts[0][shape.first[0]] | facts[1][shape.second[0]]
                found[rung].add(shape, common, after[left] | large)
    return found


def _within(rung: str, denominators: tuple[int, ...], limits: TermLimits) -> list[TermPair]:
    """The shapes of *rung* within the limits on common denominators and on what is met."""
    avoided = sum(bit for name, bit in _MET.items() if name in limits.avoid)
    return _shapes(denominators)[rung].within(limits.largest_common or lcm(*denominators), avoided)


def _is_large(a: int, b: int) -> bool:
    return max(a, b) > TIMES_TABLE and min(a, b) > 1


def _large_scaling(d: int, common: int) -> list[int]:
    """For each numerator over *d*: the bit for a large fact, where scaling to *common* needs one."""
    by = common // d
    large = _MET["large-facts"]
    return [large if by > 1 and (_is_large(n, by) or _is_large(d, by)) else 0 for n in range(d)]


def _met_after(common: int) -> list[int]:
    """For each numerator over *common* that the answer's fraction part may have: what is met from there on."""
    pictures = _MET["large-pictures"] if common > MOST_PARTS else 0
    found = [pictures | _MET["whole-answers"]]
    for left in range(1, common):
        by = gcd(left, common)
        met = pictures
        if by > 1:
            met |= _MET["simplification"]
            if _is_large(left // by, by) or _is_large(common // by, by):
                met |= _MET["large-facts"]
        found.append(met)
    return found


def _pairs_of_parts(firsts: list[_Part], seconds: list[_Part], common: int) -> Iterator[tuple[str, TermPair, int]]:
    """Rung, shape and what is left over the common denominator, for all pairs of proper fractions n/d and m/e."""
    d, e = len(firsts), len(seconds)
    how = relation((d, e))
    like = how == "like"
    unlike = UNLIKE.get(how or "")
    for n in range(1, d):
        a = n * common // d
        for m in range(1, e):
            b = m * common // e
            first, second = firsts[n], seconds[m]
            over, left = divmod(a + b, common)
            yield (
                unlike or ("F3" if over else "F2" if gcd(left, common) > 1 else "F1"),
                TermPair(1, first, second, "none", a + b, common, False), left,
            )  # fmt: skip
            yield (
                ("M2" if over else "M1") if like else ("M4" if over else "M3"),
                TermPair(1, first, second, "beside", a + b, common, False), left,
            )  # fmt: skip
            if a > b:
                shape = TermPair(-1, first, second, "none", a - b, common, True)
                yield unlike or ("F2" if gcd(a - b, common) > 1 else "F1"), shape, a - b
            if a >= b:
                # An answer of 0 is no problem: with equal parts the wholes must differ.
                pattern = "at least" if a > b else "more"
                yield "M5", TermPair(-1, first, second, pattern, a - b, common, True), a - b
            else:
                left = a + common - b
                rung = "M7" if like else "M9" if gcd(left, common) > 1 else "M8"
                yield rung, TermPair(-1, first, second, "more", a - b, common, True), left


def _with_a_whole(parts: list[_Part]) -> Iterator[tuple[str, TermPair, int]]:
    """A whole is taken from a mixed number (M5), or a fraction or mixed number from a whole (M6)."""
    for n, d in parts[1:]:
        yield "M5", TermPair(-1, (n, d), None, "a whole", n, d, True), n
        yield "M6", TermPair(-1, None, (n, d), "more", -n, d, True), d - n
