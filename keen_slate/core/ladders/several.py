"""The candidates of F7 to F9 (three proper fractions) and D6 (three decimals of up to two places)."""

from __future__ import annotations

from bisect import bisect_right
from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction
from functools import cache, cached_property, lru_cache
from itertools import accumulate, product
from math import gcd, lcm
from random import Random

from ..expressions.terms import operator_for
from ..expressions.tree import Dec, Expr, Frac, Sum, Whole
from ..grading.rungs import THREE
from ..limits import MOST_PARTS, TIMES_TABLE
from ..searching.deadline import look
from ..working.methods.common_denominator import relation
from .decimals import parts_of
from .space import SEARCHED_WHOLE, smaller
from .spec import TermLimits

_MOST_PARTS = 100  # all triples of so many fractions are gone through; 2 to 14 make 91
_SIGNS = ((1, 1), (1, -1), (-1, 1), (-1, -1))
_Triple = tuple[int, int, int]
_Group = tuple[_Triple, tuple[int, int]]  # three denominators, two signs


def _sum(numbers: list[Expr], signs: tuple[int, int]) -> Expr:
    first, *rest = numbers
    return Sum(first, tuple([(operator_for(s), n) for s, n in zip(signs, rest, strict=True)]))


@cache
def _rung_of(*dens: int) -> str:
    return THREE.get(relation(dens) or "", "F9")


class ThreeFractions:
    """F7 to F9, gone through by the denominators and signs: for each, the numerators are counted by what they make.

    None passes below zero on its way.
    """

    family = "F7"
    exact = True

    def __init__(self, rung: str, limits: TermLimits) -> None:
        self.rung = rung
        self.limits = replace(limits, denominators=smaller(limits.denominators, _MOST_PARTS))
        self.considered = len(_SIGNS) * sum(d - 1 for d in self.limits.denominators) ** 3
        self.sampled = self.limits.denominators != limits.denominators

    @cached_property
    def _groups(self) -> list[_Group]:
        return [
            ((d, e, f), signs)
            for d, e, f in product(self.limits.denominators, repeat=3)
            if _rung_of(d, e, f) == self.rung and self._allows(lcm(d, e, f))
            for signs in _SIGNS
            if {operator_for(sign) for sign in signs} <= self.limits.operations
        ]

    def _allows(self, common: int) -> bool:
        most = self.limits.largest_common
        return (most is None or common <= most) and not ("large-pictures" in self.limits.avoid and common > MOST_PARTS)

    @cached_property
    def _up_to(self) -> list[int]:
        return list(accumulate([self._many(group) for group in self._groups]))

    def _many(self, group: _Group) -> int:
        look()
        return sum(_made(*group, self.limits).values())

    @property
    def count(self) -> int:
        """How many problems, as written, satisfy the limits."""
        return self._up_to[-1] if self._up_to else 0

    def draw(self, dice: Random) -> Expr:
        """One of them: denominators and signs by the number of their problems, numerators tried until they fit."""
        group = self._groups[bisect_right(self._up_to, dice.randrange(self.count))]
        made = _made(*group, self.limits)
        while True:
            tops = tuple([dice.choice(_tops(d, lcm(*group[0]), self.limits)) for d in group[0]])
            if (found := self._problem(group, tops, made)) is not None:
                return found

    def typical(self) -> Iterator[Expr]:
        """All of them: each may be of its own kind."""
        return self.all()

    def all(self) -> Iterator[Expr]:
        """All of them."""
        for group in self._groups:
            made = _made(*group, self.limits)
            common = lcm(*group[0])
            for tops in product(*[_tops(d, common, self.limits) for d in group[0]]):
                look()
                if made and (found := self._problem(group, tops, made)) is not None:
                    yield found

    def _problem(self, group: _Group, tops: tuple[int, ...], made: Counter[int]) -> Expr | None:
        (d, e, f), signs = group
        common = lcm(d, e, f)
        a, b, c = [n * common // den for n, den in zip(tops, group[0], strict=True)]
        pair = a + signs[0] * b
        if pair < 0 or pair + signs[1] * c not in made:
            return None
        return _sum([Frac(n, den) for n, den in zip(tops, group[0], strict=True)], signs)


def _tops(d: int, common: int, limits: TermLimits) -> list[int]:
    by = common // d
    tops = [n for n in range(1, d) if not limits.lowest_terms or gcd(n, d) == 1]
    if "large-facts" not in limits.avoid or by == 1:
        return tops
    return [] if max(d, by) > TIMES_TABLE else [n for n in tops if max(n, by) <= TIMES_TABLE or n == 1]


@lru_cache(maxsize=4096)
def _made(triple: _Triple, signs: tuple[int, int], limits: TermLimits) -> Counter[int]:
    """What three numerators make in the common denominator, if it is within the limits -> how many do."""
    common = lcm(*triple)
    a, b, c = [[n * common // d for n in _tops(d, common, limits)] for d in triple]
    pairs = Counter(x + signs[0] * y for x in a for y in b)
    made: Counter[int] = Counter()
    for pair, count in pairs.items():
        if pair >= 0:
            for z in c:
                made[pair + signs[1] * z] += count
    return Counter({total: count for total, count in made.items() if _fits(total, common, limits.below, limits.avoid)})


def _fits(total: int, common: int, below: Fraction | None, avoid: frozenset[str]) -> bool:
    if not total or (total < 0 and "negatives" in avoid) or (below is not None and total >= below * common):
        return False
    whole, left = divmod(abs(total), common)
    by = gcd(left, common) if left else 1
    if ("whole-answers" in avoid and not left) or ("simplification" in avoid and by > 1):
        return False
    facts = [(whole, common), (left // by, by), (common // by, by)]
    return "large-facts" not in avoid or not any(max(fact) > TIMES_TABLE and min(fact) > 1 for fact in facts)


class ThreeDecimals:
    """D6: a + b + c and a + b - c. Counted whole; drawn by lot where there are too many to go through."""

    family = "D6"
    exact = True

    def __init__(self, limits: TermLimits) -> None:
        self.limits = limits
        every = parts_of(limits.places)
        self.numbers = [(w, part) for w in range(limits.largest_whole + 1) for part in every if w or part]
        self.signs = [sign for sign in (1, -1) if {"+", operator_for(sign)} <= limits.operations]
        self.considered = 2 * len(self.numbers) ** 3
        self.sampled = self.considered >= SEARCHED_WHOLE

    @cached_property
    def count(self) -> int:
        """How many problems, as written, satisfy the limits."""
        places = max(self.limits.places)
        unit: int = 10**places
        every = [unit * w + int(part.ljust(places, "0") or "0") for w, part in self.numbers]
        whole = [unit * w for w in range(1, self.limits.largest_whole + 1)]
        return sum(
            n
            for sign in self.signs
            for total, n in _difference(_made_by(every, sign), _made_by(whole, sign)).items()
            if self._fits(Fraction(total, unit))
        )

    def _fits(self, answer: Fraction) -> bool:
        if answer < 0 and "negatives" in self.limits.avoid:
            return False
        if answer.denominator == 1 and "whole-answers" in self.limits.avoid:
            return False
        return self.limits.below is None or answer < self.limits.below

    def draw(self, dice: Random) -> Expr:
        """One of them: three numbers tried until they fit."""
        while True:
            chosen = [dice.choice(self.numbers) for _ in range(3)]
            if (found := self._problem(chosen, dice.choice(self.signs))) is not None:
                return found

    def typical(self) -> Iterator[Expr]:
        """All of them: each may be of its own kind."""
        return self.all()

    def all(self) -> Iterator[Expr]:
        """All of them."""
        for chosen in product(self.numbers, repeat=3):
            look()
            for sign in self.signs:
                if (found := self._problem(list(chosen), sign)) is not None:
                    yield found

    def _problem(self, chosen: list[tuple[int, str]], sign: int) -> Expr | None:
        a, b, c = [w + Fraction(int(part or "0"), 10 ** len(part)) for w, part in chosen]
        if not any(part for _, part in chosen) or not self._fits(a + b + sign * c):
            return None
        return _sum([Dec(w, part) if part else Whole(w) for w, part in chosen], (1, sign))


_BITS = 48  # more than any count needs, so that the counts stand side by side in one large number


def _made_by(numbers: list[int], sign: int) -> Counter[int]:
    """a + b ± c of all *numbers* -> how often; their counts are multiplied as the digits of one large number."""
    if not numbers:
        return Counter()
    top = max(numbers)
    plain = sum(1 << (_BITS * n) for n in numbers)
    last = plain if sign > 0 else sum(1 << (_BITS * (top - n)) for n in numbers)
    counted = plain * plain * last
    offset = 0 if sign > 0 else top
    mask = (1 << _BITS) - 1
    raw = counted.to_bytes(counted.bit_length() // 8 + 1, "little")
    size = _BITS // 8
    counts = [int.from_bytes(raw[i : i + size], "little") & mask for i in range(0, len(raw), size)]
    return Counter({i - offset: n for i, n in enumerate(counts) if n})


def _difference(every: Counter[int], without: Counter[int]) -> Counter[int]:
    every.subtract(without)
    return every
