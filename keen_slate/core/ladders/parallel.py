"""One like this: a problem with the same features that reveals the same misconceptions, with other numbers of about the
same size.

A decimal answer that ends has an answer that ends, with no more places; one that recurs, one that recurs.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import gcd
from random import Random

from ..arithmetic.columns import places_of
from ..arithmetic.division import as_decimal
from ..errors import CoreError
from ..expressions.text import text
from ..expressions.tree import (
    Blank,
    Bracket,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    OpenFrac,
    OpenMixed,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
    value,
)
from ..expressions.walks import denominators, leaves
from ..grading.features import Features
from ..judging.misconceptions.registry import ENTRIES
from ..limits import TIMES_TABLE, TYPED
from ..reading.problem import labelled, problem_of
from ..searching.deadline import passed
from ..worked import Worked
from ..working.methods import work
from ..working.methods.common_denominator import relation
from ..working.methods.single import converting
from ..working.proof import Working
from .options import copy_key
from .story_around import story_like

_MOST_TRIED = 900
_DENOMINATORS = tuple(range(2, 13))
_SHORT_PERIOD = 2  # digits that recur, which any problem that recurs may have


@dataclass(frozen=True, slots=True)
class Parallel:
    """The nearest problem found, and what is *different* about it: names of features, and codes shown in only one of
    both.
    """

    worked: Worked
    different: tuple[str, ...]

    @property
    def said(self) -> tuple[str, ...]:
        """What is different about it, each in words."""
        return tuple([ENTRIES[name].name if name in ENTRIES else _FEATURES[name] for name in self.different])


_FEATURES = {
    "rung": "its rung",
    "denominators": "how the <denominators> stand to each other",
    "steps": "the number of steps",
    "carries": "the carries",
    "regroups": "the <regrouping>",
    "across_zeros": "an exchange across a zero",
    "simplify_by": "whether it is simplified",
    "sum_above_one": "whether the answer is above 1",
    "whole_answer": "whether the answer is a whole number",
    "large_facts": "facts beyond 12 × 12",
    "negatives": "numbers below zero",
}


def parallel(worked: Worked, seed: int, shunned: frozenset[str] = frozenset()) -> Parallel | None:
    """A problem like *worked*, found by lot from the *seed*; None where no other problem of its kind can be worked.

    *shunned* are texts not to be taken. The first one found that is alike in everything is taken, else the most alike
    (of those that are tried before the deadline).
    """
    if worked.working.parts:
        return _other_story(worked, seed, shunned)
    dice = Random(f"{seed} {worked.working.problem.text}")
    used = copy_key(worked.working.problem.expr)
    best: Parallel | None = None
    nearest = (0, 0)
    tried: set[Expr] = set()  # small numbers come again and again
    for expr in _varied(worked.working, dice):
        if passed():
            break
        if expr in tried:
            continue
        tried.add(expr)
        written = labelled(text(expr), worked.working.problem.label)
        if copy_key(expr) == used or written in shunned:
            continue
        shared = _shared(worked.working.problem.expr, expr)
        if best is not None and (_surely_unlike(worked.features, expr), shared) >= nearest:
            continue
        working = _worked(expr, worked)
        if working is None or not _as_hard(worked.working, working):
            continue
        found = Worked(working)
        if best is not None and (len(unlike(worked.features, found.features)), shared) >= nearest:
            continue  # whatever it reveals, it is no nearer
        different = differences(worked, found)
        if best is None or (len(different), shared) < nearest:
            best, nearest = Parallel(found, different), (len(different), shared)
        if nearest == (0, 0):
            break
    return best


def _other_story(worked: Worked, seed: int, shunned: frozenset[str]) -> Parallel | None:
    found = story_like(worked, seed, shunned)
    return Parallel(found, differences(worked, found)) if found else None


def _shared(one: Expr, other: Expr) -> int:
    """How many numbers stand in both, or twice in *other* alone."""
    a, b = leaves(one), leaves(other)
    return len(set(a) & set(b)) + max(0, (len(b) - len(set(b))) - (len(a) - len(set(a))))


def differences(one: Worked, other: Worked) -> tuple[str, ...]:
    """In what two problems are not alike: features by name, then codes of misconceptions that show in only one
    of them.
    """
    shown = [{found.entry.code for found in worked.likely if found.status == "reveals"} for worked in (one, other)]
    return (*unlike(one.features, other.features), *sorted(shown[0] ^ shown[1]))


def unlike(a: Features, b: Features) -> list[str]:
    """The names of the features in which two problems are not alike."""
    seen = {
        "rung": (a.rung, b.rung),
        "denominators": (a.denominators, b.denominators),
        "steps": (a.steps, b.steps),
        "carries": (a.carries, b.carries),
        "regroups": (a.regroups, b.regroups),
        "across_zeros": (a.across_zeros, b.across_zeros),
        "simplify_by": (a.simplify_by > 1, b.simplify_by > 1),
        "sum_above_one": (a.sum_above_one, b.sum_above_one),
        "whole_answer": (a.whole_answer, b.whole_answer),
        "large_facts": (a.large_facts > 0, b.large_facts > 0),
        "negatives": (a.negatives, b.negatives),
    }
    return [name for name, (x, y) in seen.items() if x != y]


def _surely_unlike(wanted: Features, expr: Expr) -> int:
    """In how many of the *wanted* features a problem is unlike, as far as it is seen before it is worked."""
    try:
        answer = value(expr)
    except (ValueError, ArithmeticError):  # blanks, or nothing to be worked
        return 0
    return (
        (relation(tuple(denominators(expr))) != wanted.denominators)
        + ((answer > 1) != wanted.sum_above_one)
        + ((answer.denominator == 1) != wanted.whole_answer)
        + (answer < 0 and not wanted.negatives)
    )


def _worked(expr: Expr, like: Worked) -> Working | None:
    problem = like.working.problem
    try:
        other = problem_of(expr, problem.label, TYPED)
        found = work(converting(other, problem.target) if problem.target else other, like.working.ways)
    except CoreError:
        return None
    return found if found.problem.kind == problem.kind else None


def _as_hard(one: Working, other: Working) -> bool:
    """Whether the answer of the *other* is written as that of the *one*, and its numbers are no more than twice as
    large, or half.
    """
    a, b = [w.answer.inner if isinstance(w.answer, Neg) else w.answer for w in (one, other)]
    if isinstance(a, Dec) or isinstance(b, Dec):
        places, recurs = [len(n.places) if isinstance(n, Dec) else 0 for n in (a, b)], [_period(n) for n in (a, b)]
        if bool(recurs[0]) != bool(recurs[1]) or places[1] > places[0] or recurs[1] > max(recurs[0], _SHORT_PERIOD):
            return False
    small, large = sorted([one.largest_number, other.largest_number])
    return large <= max(2 * small, TIMES_TABLE)


def _period(number: Expr) -> int:
    return len(number.period) if isinstance(number, Dec) else 0


def _varied(working: Working, dice: Random) -> Iterator[Expr]:
    """The problem with other numbers of the same forms and about the same sizes: first its own denominators, then
    others too.
    """
    expr, answer = working.problem.expr, working.answer
    if isinstance(expr, Product) and len(expr.rest) == 1 and expr.rest[0][0] == "÷" and not _period(answer):
        divisor = expr.rest[0][1]
        if all(isinstance(n, (Whole, Dec)) for n in (expr.first, divisor, answer)):
            yield from _quotients(expr.first, divisor, answer, dice)
            return
    own = denominators(expr)
    for tried in range(_MOST_TRIED):
        pool = own if own and tried < _MOST_TRIED // 3 else [*_DENOMINATORS, *own]
        swap = {d: dice.choice(pool) for d in dict.fromkeys(own)}
        yield _other(expr, swap, dice)


def _quotients(dividend: Expr, divisor: Expr, quotient: Expr, dice: Random) -> Iterator[Expr]:
    """Quotients that end, made from other numbers like the *divisor* and the *quotient*; none is divided by 1 or a
    power of ten.
    """
    for _ in range(_MOST_TRIED):
        by, made = _other(divisor, {}, dice), _other(quotient, {}, dice)
        shared = as_decimal(value(by) * value(made))
        if shared is not None and places_of(shared) == places_of(dividend) and text(by).strip("0.") != "1":
            yield Product(shared, (("÷", by),))


def _other(expr: Expr, dens: dict[int, int], dice: Random) -> Expr:
    match expr:
        case Whole(n):
            return Whole(_like(n, dice))
        case Frac(num, den):
            return Frac(_top(num, den, dens[den], dice), dens[den])
        case Mixed(whole, num, den):
            return Mixed(_like(whole, dice), _top(num, den, dens[den], dice), dens[den])
        case OpenFrac(num, den):
            return OpenFrac(None if num is None else _like(num, dice), None if den is None else dens[den])
        case OpenMixed(whole, den):
            return OpenMixed(_like(whole, dice), dens[den])
        case Dec(whole, places, period):
            return Dec(_like(whole, dice), _digits(places, dice), _digits(period, dice))
        case OverBar(top, den):
            over = _other(top, dens, dice)
            assert isinstance(over, Sum), "a sum stays a sum"
            return OverBar(over, dens[den])
        case Neg(inner):
            return Neg(_other(inner, dens, dice))
        case Bracket(inner):
            return Bracket(_other(inner, dens, dice))
        case Power(base, exponent):
            return Power(_other(base, dens, dice), exponent)
        case Sum(first, rest):
            return Sum(_other(first, dens, dice), tuple([(o, _other(n, dens, dice)) for o, n in rest]))
        case Product(first, rest):
            return Product(_other(first, dens, dice), tuple([(o, _other(n, dens, dice)) for o, n in rest]))
        case Equation(sides):
            return Equation(tuple([_other(side, dens, dice) for side in sides]))
        case Blank():
            return expr


def _like(n: int, dice: Random) -> int:
    """A whole number of about the size of *n*; 0 stays 0, and so does 1 with a length of its own."""
    return 0 if n == 0 else dice.randint(max(1, n - n // 2 - 3), n + n // 2 + 3)


def _top(num: int, den: int, other: int, dice: Random) -> int:
    """A numerator over *other* where *num* stood over *den*: proper and in lowest terms if that was, about as large if
    not.
    """
    if num < den:
        lowest = gcd(num, den) == 1
        return dice.choice([n for n in range(1, max(2, other)) if not lowest or gcd(n, other) == 1])
    return dice.randint(other, other * (num // den + 1))


def _digits(digits: str, dice: Random) -> str:
    """As many digits, the last of them not 0 unless it was; zeros inside stay zeros."""
    if not digits:
        return ""
    return "".join([d if d == "0" else str(dice.randint(1, 9)) for d in digits])
