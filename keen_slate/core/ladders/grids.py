"""The candidates of the rungs where every form takes any number of its columns: W, E, N, V, P, M10 and M11.

They are counted before any limit on what they make, so their counts are upper bounds.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from functools import lru_cache
from itertools import accumulate, product
from math import gcd, prod
from random import Random
from typing import Any, NamedTuple

from ..arithmetic.columns import add_columns, subtract_columns
from ..arithmetic.division import only_twos_and_fives
from ..arithmetic.primes import prime_factors
from ..expressions.tree import (
    Blank,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    OpenFrac,
    OpenMixed,
    Operator,
    Product,
    Sum,
    Whole,
    make,
)
from ..expressions.tree import value as value_of
from ..limits import TIMES_TABLE
from ..searching.deadline import EndedEarlyError, look
from .decimals import parts_of
from .space import SEARCHED_WHOLE, smaller
from .spec import TermLimits
from .wholes import ALL_UP_TO, some_wholes
from .written import is_written_within, operations_of

_MOST_PAIRED = 100  # pairs of so many fractions are gone through
_MOST_PARTS = 545  # of a single column, as many as where two numbers meet
_MOST_WHOLES = 9  # wholes in an improper fraction
_TRIED = 400
_IN_VAIN = 300_000  # problems in a row that do not fit: some seconds of work
_TIMES = 5  # in a chain the last fraction is the first one scaled by no more than this


class Block(NamedTuple):
    """All problems that *form* makes of one entry of each column."""

    form: Callable[..., Expr]
    columns: tuple[Sequence[Any], ...]

    @property
    def size(self) -> int:
        """How many there are."""
        return prod(map(len, self.columns))

    @property
    def operations(self) -> frozenset[Operator]:
        """What they all ask for."""
        return operations_of(self.form(*[column[0] for column in self.columns])) if self.size else frozenset()


class RungGrid:
    """The problems of one rung: blocks, each with all entries of its columns."""

    exact = False

    def __init__(self, rung: str, blocks: Sequence[Block], limits: TermLimits, sampled: bool) -> None:
        self.family = rung
        self.blocks = [block for block in blocks if block.operations <= limits.operations]
        self.limits = limits
        self.tidy = replace(limits, lowest_terms=True)
        self._up_to = list(accumulate([block.size for block in self.blocks]))
        self.considered = self.count
        self.sampled = sampled or self.count >= SEARCHED_WHOLE

    @property
    def count(self) -> int:
        """How many problems there are at most."""
        return self._up_to[-1] if self._up_to else 0

    def draw(self, dice: Random) -> Expr:
        """One of them, of those within the limits where one is met, and at first without terms that can be
        simplified.
        """
        for tried in range(_TRIED):
            block = self.blocks[bisect_right(self._up_to, dice.randrange(self.count))]
            problem = block.form(*[dice.choice(column) for column in block.columns])
            if self._fits(problem) and (tried > _TRIED // 2 or is_written_within(problem, self.tidy)):
                break
        return problem

    def typical(self) -> Iterator[Expr]:
        """All of them: each may be of its own kind."""
        return self.all()

    def all(self) -> Iterator[Expr]:
        """All of them that are within the limits. Raises `EndedEarlyError` after too many in a row that are not."""
        in_vain = 0
        for block in self.blocks:
            for chosen in product(*block.columns):
                look()
                problem = block.form(*chosen)
                in_vain += 1
                if self._fits(problem):
                    in_vain = 0
                    yield problem
                elif in_vain >= _IN_VAIN:
                    raise EndedEarlyError

    def _fits(self, problem: Expr) -> bool:
        if not is_written_within(problem, self.limits):
            return False
        if isinstance(problem, Equation):
            return True
        answer = value_of(problem)
        return answer > 0 and (self.limits.below is None or answer < self.limits.below)


# What the columns hold ------------------------------------------------------------------------------------------------


@lru_cache(maxsize=4)
def _fractions(limits: TermLimits) -> Sequence[Frac]:
    """All proper fractions of the denominators; with *lowest_terms* only those that cannot be simplified."""
    every = [Frac(n, d) for d in limits.denominators for n in range(1, d)]
    return [f for f in every if gcd(f.num, f.den) == 1] if limits.lowest_terms else every


@lru_cache(maxsize=2)
def _mixed(limits: TermLimits) -> Sequence[Mixed]:
    wholes = [w for w in some_wholes(limits.largest_whole) if w]
    return [Mixed(w, f.num, f.den) for f in _fractions(limits) for w in wholes]


def _mixed_addends(limits: TermLimits) -> Sequence[Mixed]:
    """Mixed numbers that the answer still leaves room for when the two others of a sum are the least ones."""
    every = _mixed(limits)
    if limits.below is None or not every:
        return every
    most = limits.below - 2 * min(map(value_of, every))
    return [one for one in every if value_of(one) < most]


def _improper(limits: TermLimits) -> list[Frac]:
    most = min(_MOST_WHOLES, limits.largest_whole)
    return [Frac(w * d + n, d) for d in limits.denominators for w in range(1, most + 1) for n in range(1, d)]


def _factors(limits: TermLimits) -> list[Whole]:
    return [Whole(n) for n in range(2, min(limits.largest_whole, TIMES_TABLE) + 1)]


def _decimals(limits: TermLimits, largest: int) -> list[Dec]:
    return [Dec(w, part) for part in parts_of(limits.places) if part for w in some_wholes(largest)]


def _shared_primes(f: Frac) -> int:
    return len(prime_factors(gcd(f.num, f.den)))


# How problems are made of them ----------------------------------------------------------------------------------------


def _alone(number: Expr) -> Expr:
    return number


def _joined(operators: tuple[Operator, Operator]) -> Callable[..., Expr]:
    return lambda a, b, c: Sum(a, ((operators[0], b), (operators[1], c)))


def _times(a: Expr, b: Expr) -> Expr:
    return Product(a, (("×", b),))


def _shared(a: Expr, b: Expr) -> Expr:
    return Product(a, (("÷", b),))


def _shared_evenly(a: Whole, b: Whole) -> Expr:
    return _shared(Whole(a.n * b.n), b)


def _added(pair: tuple[int, int]) -> Expr:
    return Sum(Whole(pair[0]), (("+", Whole(pair[1])),))


def _subtracted(pair: tuple[int, int]) -> Expr:
    return Sum(Whole(pair[0]), (("-", Whole(pair[1])),))


def _equal(a: Frac, b: int) -> tuple[Frac, Frac]:
    return a, Frac(a.num * b // a.den, b)


def _top_missing(pair: tuple[Frac, Frac]) -> Expr:
    return Equation((pair[0], OpenFrac(None, pair[1].den)))


def _bottom_missing(pair: tuple[Frac, Frac]) -> Expr:
    return Equation((pair[0], OpenFrac(pair[1].num, None)))


def _chain(pair: tuple[Frac, Frac], by: int) -> Expr:
    return Equation((pair[0], OpenFrac(None, pair[1].den), OpenFrac(pair[0].num * by, None)))


def _addend_missing(pair: tuple[Frac, Frac]) -> Expr:
    part, total = pair
    return Equation((Sum(part, (("+", Blank()),)), total))


def _minuend_missing(pair: tuple[Frac, Frac]) -> Expr:
    part, total = pair
    return Equation((Sum(Blank(), (("-", part),)), total))


def _subtrahend_missing(pair: tuple[Frac, Frac]) -> Expr:
    part, total = pair
    return Equation((Sum(total, (("-", Blank()),)), part))


def _tops_missing(a: Frac, b: Frac) -> Expr:
    total = value_of(Sum(a, (("+", b),)))
    whole, left = divmod(total.numerator, total.denominator)
    opened = Sum(OpenFrac(None, a.den), (("+", OpenFrac(None, b.den)),))
    return Equation((opened, make(whole, left, total.denominator)))


# The rungs ------------------------------------------------------------------------------------------------------------


def _equal_pairs(limits: TermLimits) -> list[tuple[Frac, Frac]]:
    lowest = [f for f in _fractions(limits) if gcd(f.num, f.den) == 1]
    return [_equal(f, d) for f in lowest for d in limits.denominators if d > f.den and d % f.den == 0]


def _parts_of_totals(limits: TermLimits) -> list[tuple[Frac, Frac]]:
    fractions = _fractions(limits)
    return [(a, c) for a in fractions for c in fractions if a.num * c.den < c.num * a.den]


def _over_powers_of_ten(limits: TermLimits, want: bool) -> list[Frac]:
    return [f for f in _fractions(limits) if only_twos_and_fives(f.den // gcd(f.num, f.den)) is want]


def _quotients(limits: TermLimits) -> list[tuple[Dec, Whole]]:
    """Decimals that their divisor goes into, without more places."""
    pairs = []
    for dec in _decimals(limits, 0):
        for by in _factors(limits):
            digits = str(int(dec.places) * by.n).rjust(len(dec.places) + 1, "0")
            whole, places = digits[: -len(dec.places)], digits[-len(dec.places) :].rstrip("0")
            if places:
                pairs.append((Dec(int(whole), places), by))
    return pairs


def _pairs_of_wholes(limits: TermLimits, moved: bool) -> list[Block]:
    """Sums and differences of two whole numbers in which something is carried or exchanged, or nothing."""
    wholes = [n for n in some_wholes(limits.largest_whole) if n]
    pairs = [(a, b) for a in wholes for b in wholes]
    sums = [(a, b) for a, b in pairs if any(c.carried and any(c.digits) for c in add_columns([a, b])) is moved]
    differences = [(a, b) for a, b in pairs if a > b and any(c.exchanged for c in subtract_columns(a, b)) is moved]
    return [Block(_added, (sums,)), Block(_subtracted, (differences,))]


def _renamings(limits: TermLimits) -> list[tuple[Expr, Expr]]:
    """A mixed number with a blank numerator beside one, with one whole less: 6 5/9 = 5 _/9."""
    return [(m, OpenMixed(m.whole - 1, m.den)) for m in _mixed(limits) if m.whole > 1]


_RUNGS: dict[str, Callable[[TermLimits], list[Block]]] = {
    "W1": lambda at: _pairs_of_wholes(at, False),
    "W2": lambda at: _pairs_of_wholes(at, True),
    "W3": lambda at: [Block(_times, (_factors(at), _factors(at))), Block(_shared_evenly, (_factors(at), _factors(at)))],
    "E5": lambda at: [Block(Equation, (_renamings(at),))],
    "E1": lambda at: [Block(form, (_equal_pairs(at),)) for form in (_top_missing, _bottom_missing)],
    "E2": lambda at: [Block(_chain, (_equal_pairs(at), range(2, _TIMES + 1)))],
    "N1": lambda at: [Block(_alone, ([f for f in _fractions(at) if _shared_primes(f) == 1],))],
    "N2": lambda at: [Block(_alone, ([f for f in _fractions(at) if _shared_primes(f) > 1],))],
    "V1": lambda at: [Block(_alone, (_improper(at),))],
    "V2": lambda at: [Block(_alone, (_mixed(at),))],
    "N3": lambda at: [Block(_alone, ([m for m in _mixed(at) if gcd(m.num, m.den) > 1],))],
    "N4": lambda at: [
        Block(lambda w, f: Mixed(w.n, f.num, f.den), ([Whole(n) for n in range(1, 10)], _improper(at)))
    ],
    "M10": lambda at: [Block(_joined(("+", "+")), (_mixed_addends(at),) * 3)],
    "M11": lambda at: [Block(_joined(signs), (_mixed(at),) * 3) for signs in (("+", "-"), ("-", "+"), ("-", "-"))],
    "E3": lambda at: [
        Block(form, (_parts_of_totals(at),)) for form in (_addend_missing, _minuend_missing, _subtrahend_missing)
    ],
    "E4": lambda at: [Block(_tops_missing, (_fractions(at), _fractions(at)))],
    "V3": lambda at: [Block(_alone, (_over_powers_of_ten(at, True),)), Block(_alone, (_decimals(at, 2),))],
    "V4": lambda at: [
        Block(_alone, (_over_powers_of_ten(at, False),)),
        Block(_alone, ([Dec(0, "", str(n)) for n in range(1, 9)],)),
    ],
    "P1": lambda at: [Block(_times, (_fractions(at), _factors(at))), Block(_times, (_factors(at), _fractions(at)))],
    "P2": lambda at: [Block(_times, (_fractions(at), _fractions(at)))],
    "P3": lambda at: [Block(_times, (_mixed(at), other)) for other in (_factors(at), _fractions(at), _mixed(at))],
    "P4": lambda at: [
        Block(_shared, (_fractions(at), _factors(at))),
        Block(_shared, (_factors(at), _fractions(at))),
        Block(_shared, (_fractions(at), _fractions(at))),
        Block(_shared, (_mixed(at), _fractions(at))),
    ],
    "P5": lambda at: [Block(_times, (_decimals(at, 9), _factors(at))),
        Block(_times, (_decimals(at, 9), _decimals(at, 0)))],
    "P6": lambda at: [Block(lambda pair: _shared(*pair), (_quotients(at),))],
}  # fmt: skip
RUNGS = tuple(_RUNGS)
# Whose denominators are met in a pair or beside a whole, so that fewer of them are gone through.
_IN_PAIRS = {"E1", "E2", "E3"}


@lru_cache(maxsize=16)
def space(rung: str, limits: TermLimits) -> RungGrid:
    """The candidates of *rung* within *limits*."""
    kept = limits.with_denominators(smaller(limits.denominators, _MOST_PAIRED if rung in _IN_PAIRS else _MOST_PARTS))
    sampled = kept.denominators != limits.denominators or limits.largest_whole > ALL_UP_TO
    return RungGrid(rung, _RUNGS[rung](kept), limits, sampled)
