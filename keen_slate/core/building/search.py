"""Number building, a warm-up: a handful of numbers and one to build from them with + - × ÷, each used at most once.

Values of every choice of numbers are found once, from smaller choices; a way is then put together backwards from the
number wanted. Nothing on the way falls below zero.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction
from itertools import combinations
from math import gcd

from ..expressions.text import text
from ..expressions.tree import Bracket, Expr, Operator, Product, Sum, value
from ..searching.deadline import EndedEarlyError, look, passed

_LISTED = 4  # of so many numbers all values are listed
MOST_WAYS = 24  # shown; all of them are counted as far as this
_Choice = int  # a bit for each number
_Ratio = tuple[int, int]  # numerator and denominator in lowest terms: quicker here than a Fraction


@dataclass(frozen=True, slots=True)
class Built:
    """The shortest ways to the number wanted, or, where there is none, to the nearest that can be built.

    *ended_early* says that the deadline came before everything was tried.
    """

    numbers: tuple[Expr, ...]
    wanted: Expr
    exact: bool
    nearest: Fraction
    ways: tuple[Expr, ...]
    ended_early: bool = False


def build(numbers: tuple[Expr, ...], wanted: Expr) -> Built:
    """All shortest ways from *numbers* to *wanted*, or to the nearest number that can be built.

    >>> from ..expressions.tree import Whole
    >>> built = build((Whole(2), Whole(3), Whole(4)), Whole(14))
    >>> built.exact, [text(way) for way in built.ways]
    (True, ['2 + 3 × 4', '(3 + 4) × 2'])
    """
    search = Search(ratios(numbers), list(numbers))
    goal = _ratio(wanted)
    try:
        if ways := search.shortest(goal):
            return Built(numbers, wanted, True, Fraction(*goal), ways, passed())
        near = search.nearest(goal)
        return Built(numbers, wanted, False, Fraction(*near), search.shortest(near))
    except EndedEarlyError:
        # A number that is given is always at hand.
        best = min(numbers, key=lambda number: (abs(value(number) - value(wanted)), text(number)))
        return Built(numbers, wanted, value(best) == value(wanted), value(best), (best,), ended_early=True)


def _ratio(number: Expr) -> _Ratio:
    return value(number).as_integer_ratio()


def ratios(numbers: tuple[Expr, ...]) -> list[_Ratio]:
    return [_ratio(number) for number in numbers]


def _choices(count: int, size: int) -> Iterator[_Choice]:
    for chosen in combinations(range(count), size):
        yield sum(1 << i for i in chosen)


def _splits(choice: _Choice) -> Iterator[tuple[_Choice, _Choice]]:
    """The ways to part a choice in two, each pair once."""
    part = (choice - 1) & choice
    while part:
        other = choice ^ part
        if part > other:
            yield part, other
        part = (part - 1) & choice


def _reduced(n: int, d: int) -> _Ratio:
    g = gcd(n, d)
    return n // g, d // g


def _results(a: _Ratio, b: _Ratio) -> Iterator[_Ratio]:
    (n, d), (m, e) = a, b
    across, back, below = n * e, m * d, d * e
    yield _reduced(across + back, below)
    yield _reduced(abs(across - back), below)
    yield _reduced(n * m, below)
    if m:
        yield _reduced(across, back)
    if n:
        yield _reduced(back, across)


def _partners(a: _Ratio, goal: _Ratio) -> Iterator[tuple[Operator, _Ratio, bool]]:
    """Every b, with an operator, that makes *goal* of a and b; the last says whether b stands first."""
    (n, d), (m, e) = a, goal
    across, back, below = n * e, m * d, d * e
    if back >= across:
        yield "+", _reduced(back - across, below), False
    if across >= back:
        yield "-", _reduced(across - back, below), False
    yield "-", _reduced(across + back, below), True
    if n:
        yield "×", _reduced(back, across), False
        yield "÷", _reduced(n * m, below), True
        if m:
            yield "÷", _reduced(across, back), False


@dataclass
class Search:
    numbers: list[_Ratio]
    written: list[Expr]
    known: dict[_Choice, frozenset[_Ratio]] = field(default_factory=dict)
    asked: dict[tuple[_Choice, _Ratio], bool] = field(default_factory=dict)

    def values(self, choice: _Choice) -> frozenset[_Ratio]:
        """All values that the numbers of *choice* make, all of them used."""
        if choice not in self.known:
            if choice & (choice - 1) == 0:
                self.known[choice] = frozenset([self.numbers[choice.bit_length() - 1]])
            else:
                found: set[_Ratio] = set()
                for part, other in _splits(choice):
                    for a in self.values(part):
                        for b in self.values(other):
                            look()
                            found.update(_results(a, b))
                self.known[choice] = frozenset(found)
        return self.known[choice]

    def reaches(self, choice: _Choice, goal: _Ratio) -> bool:
        """Whether *goal* can be made with all numbers of *choice*; large choices are not listed, but searched."""
        if choice.bit_count() <= 3:
            return goal in self.values(choice)
        if (choice, goal) not in self.asked:
            self.asked[choice, goal] = any(True for _ in self._pairs(choice, goal))
        return self.asked[choice, goal]

    def _pairs(
        self, choice: _Choice, goal: _Ratio
    ) -> Iterator[tuple[_Choice, _Ratio, Operator, _Choice, _Ratio, bool]]:
        """The last operations that make *goal*: of the smaller part every value is tried, and the other must reach its
        partner.
        """
        for part, other in _splits(choice):
            small, large = (part, other) if part.bit_count() <= other.bit_count() else (other, part)
            for a in self.values(small):
                look()
                for operator, b, swapped in _partners(a, goal):
                    if self.reaches(large, b):
                        yield small, a, operator, large, b, swapped

    def shortest(self, goal: _Ratio) -> tuple[Expr, ...]:
        """The ways to *goal* that need the fewest numbers; none where it cannot be made."""
        for size in range(1, len(self.numbers) + 1):
            choices = [choice for choice in _choices(len(self.numbers), size) if self.reaches(choice, goal)]
            if choices:
                return self.listed(choices, goal)
        return ()

    def listed(self, choices: list[_Choice], goal: _Ratio) -> tuple[Expr, ...]:
        """The different ways to *goal*: order and grouping that do not matter are not told apart."""
        found: dict[str, Expr] = {}
        for choice in choices:
            for way in self.ways(choice, goal):
                if found and passed():
                    break
                found.setdefault(text(way), way)
                if len(found) >= MOST_WAYS:
                    return tuple(found.values())
        return tuple(sorted(found.values(), key=lambda way: (len(text(way)), text(way))))

    def ways(self, choice: _Choice, goal: _Ratio) -> Iterator[Expr]:
        """The ways to *goal* that use all numbers of *choice*, in one form each."""
        if choice & (choice - 1) == 0:
            if goal in self.values(choice):
                yield self.written[choice.bit_length() - 1]
            return
        for small, a, operator, large, b, swapped in self._pairs(choice, goal):
            for left in self.ways(small, a):
                for right in self.ways(large, b):
                    yield _joined(right, operator, left) if swapped else _joined(left, operator, right)

    def nearest(self, goal: _Ratio) -> _Ratio:
        """The value nearest to *goal* that any of the numbers make."""
        count = len(self.numbers)
        found: set[_Ratio] = set()
        for size in range(1, min(count, _LISTED) + 1):
            for choice in _choices(count, size):
                found.update(self.values(choice))
        for size in range(_LISTED + 1, count + 1):  # of more numbers, only the values beside the partners of the goal
            for choice in _choices(count, size):
                look()
                found.update(self._near(choice, goal))
        return min(found, key=lambda v: (_distance(v, goal), v))

    def _near(self, choice: _Choice, goal: _Ratio) -> Iterator[_Ratio]:
        for part, other in _splits(choice):
            small, large = (part, other) if part.bit_count() <= other.bit_count() else (other, part)
            look()
            ordered = sorted([((n << 40) // d, (n, d)) for n, d in self.values(large)])
            for a in self.values(small):
                look()
                for operator, (n, d), swapped in _partners(a, goal):
                    at = bisect_left(ordered, ((n << 40) // d, (0, 0)))
                    for _, b in ordered[max(0, at - 1) : at + 2]:
                        yield _applied(b, operator, a) if swapped else _applied(a, operator, b)


def _distance(a: _Ratio, b: _Ratio) -> Fraction:
    return abs(Fraction(*a) - Fraction(*b))


def _applied(a: _Ratio, operator: Operator, b: _Ratio) -> _Ratio:
    (n, d), (m, e) = a, b
    if operator == "+":
        return _reduced(n * e + m * d, d * e)
    if operator == "-":
        return _reduced(abs(n * e - m * d), d * e)
    if operator == "×":
        return _reduced(n * m, d * e)
    return _reduced(n * e, d * m) if m else (0, 1)


def _joined(a: Expr, operator: Operator, b: Expr) -> Expr:
    """a and b joined, without needless brackets; what is added or multiplied stands in a fixed order."""
    if operator in ("+", "-"):
        terms = [*_terms(a), *[(s if operator == "+" else -s, t) for s, t in _terms(b)]]
        terms.sort(key=lambda pair: (-pair[0], text(pair[1])))
        (_, first), *rest = terms
        return Sum(first, tuple([("+" if s > 0 else "-", t) for s, t in rest]))
    factors = [*_factors(a), *[(s if operator == "×" else -s, f) for s, f in _factors(b)]]
    factors.sort(key=lambda pair: (-pair[0], text(pair[1])))
    (_, first), *rest = factors
    return Product(first, tuple([("×" if s > 0 else "÷", f) for s, f in rest]))


def _terms(expr: Expr) -> list[tuple[int, Expr]]:
    if not isinstance(expr, Sum):
        return [(1, expr)]
    return [(1, expr.first), *[(1 if o == "+" else -1, t) for o, t in expr.rest]]


def _factors(expr: Expr) -> list[tuple[int, Expr]]:
    if isinstance(expr, Product):
        return [(1, expr.first), *[(1 if o == "×" else -1, f) for o, f in expr.rest]]
    return [(1, Bracket(expr) if isinstance(expr, Sum) else expr)]
