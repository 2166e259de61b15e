"""The candidates of O1 to O4: forms with three numbers. Wholes go from 2 as far as the times table at most."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from functools import lru_cache
from itertools import product
from math import lcm
from random import Random

from ..expressions.tree import Bracket, Dec, Expr, Frac, Operator, Power, Product, Sum, Whole, ratio
from ..limits import MOST_PARTS, TIMES_TABLE
from ..searching.deadline import look
from .space import smaller
from .spec import TermLimits
from .written import is_written_within

_MOST_PARTS = 100  # all pairs of so many fractions are gone through; 2 to 14 make 91
_MOST_TIMES = 6  # fractions are multiplied and divided by no more than this
_Number = Whole | Frac | Dec
_Three = tuple[_Number, _Number, _Number]
_Form = Callable[[Expr, Expr, Expr], Expr]


def _sum(a: Expr, o: Operator, b: Expr) -> Sum:
    return Sum(a, ((o, b),))


def _times(a: Expr, o: Operator, b: Expr) -> Product:
    return Product(a, ((o, b),))


def _square(a: Expr) -> Power:
    return Power(a, 2)


# The forms of each rung; a, b and c are the three numbers.
FORMS: dict[str, tuple[_Form, ...]] = {
    "O1": (
        lambda a, b, c: _sum(a, "+", _times(b, "×", c)),
        lambda a, b, c: _sum(a, "-", _times(b, "×", c)),
        lambda a, b, c: _sum(_times(a, "×", b), "-", c),
        lambda a, b, c: _sum(a, "+", _times(b, "÷", c)),
        lambda a, b, c: _sum(a, "-", _times(b, "÷", c)),
        lambda a, b, c: Sum(a, (("-", b), ("+", c))),
        lambda a, b, c: Sum(a, (("-", b), ("-", c))),
        lambda a, b, c: Product(a, (("÷", b), ("×", c))),
        lambda a, b, c: Product(a, (("×", b), ("÷", c))),
    ),
    "O2": (
        lambda a, b, c: _times(a, "×", Bracket(_sum(b, "+", c))),
        lambda a, b, c: _times(a, "×", Bracket(_sum(b, "-", c))),
        lambda a, b, c: _times(Bracket(_sum(a, "+", b)), "÷", c),
        lambda a, b, c: _sum(a, "-", Bracket(_sum(b, "+", c))),
        lambda a, b, c: _sum(a, "-", Bracket(_sum(b, "-", c))),
        lambda a, b, c: Sum(a, (("+", _square(b)), ("-", c))),
        lambda a, b, c: Sum(_times(a, "×", _square(b)), (("-", c),)),
    ),
    "O3": (
        lambda a, b, c: _sum(a, "+", _times(b, "×", c)),
        lambda a, b, c: _sum(a, "-", _times(b, "÷", c)),
        lambda a, b, c: _times(Bracket(_sum(a, "+", b)), "×", c),
        lambda a, b, c: _times(Bracket(_sum(a, "-", b)), "÷", c),
    ),
    "O4": (
        lambda a, b, c: _times(c, "×", Bracket(_sum(a, "+", b))),
        lambda a, b, c: _times(c, "×", Bracket(_sum(a, "-", b))),
        lambda a, b, c: _sum(a, "+", _times(b, "×", c)),
    ),
}  # fmt: skip
RUNGS = tuple(FORMS)


class Forms:
    """The problems of one rung: every form with all numbers that keep each line whole (O1, O2) and not below zero."""

    def __init__(self, rung: str, limits: TermLimits) -> None:
        self.rung = self.family = rung
        self.limits = replace(limits, denominators=smaller(limits.denominators, _MOST_PARTS))
        self.sampled = rung in ("O3", "O4") and self.limits.denominators != limits.denominators
        self.exact = not limits.avoid & {"simplification", "large-facts"}
        self.considered = len(FORMS[rung]) * _how_many(rung, self.limits)

    @property
    def count(self) -> int:
        """How many problems, as written, satisfy the limits that can be told without working them."""
        return len(self._listed)

    @property
    def _listed(self) -> list[tuple[_Form, _Three]]:
        return _listed(self.rung, self.limits)

    def draw(self, dice: Random) -> Expr:
        """One of them by lot."""
        form, numbers = dice.choice(self._listed)
        return form(*numbers)

    def typical(self) -> Iterator[Expr]:
        """All of them: each may be of its own kind."""
        return self.all()

    def all(self) -> Iterator[Expr]:
        """All of them."""
        for form, numbers in self._listed:
            yield form(*numbers)


def _how_many(rung: str, limits: TermLimits) -> int:
    """How many choices of three numbers there are before any limit on what they make."""
    first, last = _first_and_last(rung, limits)
    return len(first) ** 2 * len(last)


def _first_and_last(rung: str, limits: TermLimits) -> tuple[list[_Number], list[_Number]]:
    """What the first two numbers may be, and the last."""
    wholes: list[_Number] = [Whole(n) for n in range(2, min(limits.largest_whole, TIMES_TABLE) + 1)]
    if rung in ("O1", "O2"):
        return wholes, wholes
    parts: list[_Number] = [Frac(n, d) for d in limits.denominators for n in range(1, d)]
    return parts, [Dec(0, str(n)) for n in range(1, 10)] if rung == "O4" else wholes[: _MOST_TIMES - 1]


def _numbers(rung: str, limits: TermLimits) -> Iterator[_Three]:
    parts, last = _first_and_last(rung, limits)
    if rung in ("O1", "O2"):
        yield from product(parts, parts, last)
        return
    for a in parts:
        for b in parts:
            if _allows(lcm(_den(a), _den(b)), limits):
                for c in last:
                    yield a, b, c


def _den(number: _Number) -> int:
    return number.den if isinstance(number, Frac) else 1


def _allows(common: int, limits: TermLimits) -> bool:
    most = limits.largest_common
    return (most is None or common <= most) and not ("large-pictures" in limits.avoid and common > MOST_PARTS)


@lru_cache(maxsize=4)
def _listed(rung: str, limits: TermLimits) -> list[tuple[_Form, _Three]]:
    answer_of = _whole_answer if rung in ("O1", "O2") else ratio
    listed = []
    for numbers in _numbers(rung, limits):
        look()
        for form in FORMS[rung]:
            problem = form(*numbers)
            answer = answer_of(problem)
            if answer is not None and _fits(*answer, limits) and is_written_within(problem, limits):
                listed.append((form, numbers))
    return listed


def _fits(n: int, d: int, limits: TermLimits) -> bool:
    """Whether the answer n/d may be: above 0 (in the forms with fractions, what is met on the way has its sign)."""
    if n <= 0 or (limits.below is not None and n >= limits.below * d):
        return False
    return not ("whole-answers" in limits.avoid and n % d == 0)


def _whole_answer(expr: Expr) -> tuple[int, int] | None:
    """The value over 1, or None where something met on the way is below zero or no whole number."""
    n = _whole(expr)
    return None if n is None else (n, 1)


def _whole(expr: Expr) -> int | None:
    match expr:
        case Sum(first, rest) | Product(first, rest):
            total = _whole(first)
            for operator, term in rest:
                n = _whole(term)
                if total is None or n is None or (operator == "÷" and (n == 0 or total % n)):
                    return None
                total = _OPERATIONS[operator](total, n)
                if total < 0:
                    return None
            return total
        case Bracket(inner):
            return _whole(inner)
        case Power(Whole(n), exponent):
            made: int = n**exponent
            return made
        case Whole(n):
            return n
    return None


_OPERATIONS: dict[Operator, Callable[[int, int], int]] = {
    "+": lambda a, b: a + b,
    "-": lambda a, b: a - b,
    "×": lambda a, b: a * b,
    "÷": lambda a, b: a // b,
}
