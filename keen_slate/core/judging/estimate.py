"""Can it be right? Each number rounded to a benchmark, and how far off the answer can then be at most.

- `half`: to the nearest half, by its size; the error of a term is at most 1/4 (usual for fractions);
- `whole`: to the nearest whole; at most 1/2 (usual for decimals);
- `between`: each term lies between its whole below and above, so the answer lies in an interval, ends included.

Of n terms the error is n times that of one. Products, quotients and mixed operations have no bound: only the size is
compared. A factor below 1 goes to the nearest of 1/10, 1/4, 1/2, 3/4 and 1, never to 0, and a half beside it stays
(common practice). A tie goes up or down as `Ways.ties` says, and is told. A problem that is its own estimate has none.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from ..arithmetic.division import as_decimal
from ..expressions.sentences import Rich
from ..expressions.terms import signed_terms
from ..expressions.tree import (
    Bracket,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    Power,
    Product,
    Sum,
    Whole,
    make,
    mixed,
    ratio,
    value,
)
from ..expressions.walks import children, leaves, map_numbers
from ..working.proof import Working

ERRORS = {"half": Fraction(1, 4), "whole": Fraction(1, 2)}  # of one term, at most
PARTS = (Fraction(1, 10), Fraction(1, 4), Fraction(1, 2), Fraction(3, 4), Fraction(1))  # what a factor below 1 goes to


@dataclass(frozen=True, slots=True)
class Estimate:
    """*rounded* holds the numbers after rounding, *ties* the indices of those that lay in the middle.

    The answer lies from *low* to *high*; both are None where there is no bound. *total* is None under `between`.
    """

    rule: str
    rounded: tuple[Expr, ...]
    total: Fraction | None
    bound: Fraction | None
    low: Fraction | None
    high: Fraction | None
    within: bool | None
    ties: tuple[int, ...]
    sum: Expr
    sentence: Rich
    tie: Rich

    def catches(self, answer: Fraction) -> bool:
        """Whether *answer* is certainly wrong: outside of what is possible."""
        return self.low is not None and self.high is not None and not self.low <= answer <= self.high


def rounded_to(expr: Expr, rule: str, ties: str) -> tuple[Expr, bool]:
    """The number *expr* to the nearest half, whole or part of one (*rule*) by its size, and whether it was a tie.

    >>> from ..expressions.tree import Mixed
    >>> rounded_to(Mixed(7, 1, 4), "half", "up"), rounded_to(Mixed(7, 1, 4), "half", "down")
    ((Mixed(whole=7, num=1, den=2), True), (Whole(n=7), True))
    """
    if isinstance(expr, Neg):
        size, tie = rounded_to(expr.inner, rule, ties)
        return (size if size == Whole(0) else Neg(size)), tie
    if rule == "part":
        return _to_a_part(expr, ties)
    n, d = ratio(expr)
    per = 2 if rule == "half" else 1
    # In units of 1/per the number is per*n/d; floor(x + 1/2) rounds it up at a tie, ceil(x - 1/2) down.
    tie = 2 * per * n % (2 * d) == d
    units = (2 * per * n + d) // (2 * d) if ties == "up" else -((d - 2 * per * n) // (2 * d))
    if isinstance(expr, Dec) and units % per:
        return Dec(units // per, "5"), tie
    return make(units // per, units % per, per), tie


def _to_a_part(expr: Expr, ties: str) -> tuple[Expr, bool]:
    """A factor below 1 to the nearest of the parts, and whether it was a tie."""
    number = value(expr)
    nearest = min(abs(number - part) for part in PARTS)
    near = [part for part in PARTS if abs(number - part) == nearest]
    part = near[-1] if ties == "up" else near[0]
    return (as_decimal(part) if isinstance(expr, Dec) else None) or mixed(part), len(near) > 1


def rules_in(expr: Expr, rule: str) -> list[str]:
    """By which rule each number of *expr* is rounded, from left to right, where *rule* is that of the whole.

    >>> factor = Dec(0, "6")
    >>> rules_in(Sum(Product(factor, (("×", Dec(2, "5")),)), (("+", factor),)), "whole")
    ['part', 'half', 'whole']
    """
    if not isinstance(expr, (Product, Power)):
        return [one for part in children(expr) for one in rules_in(part, rule)] or [rule]
    factors = [part.inner if isinstance(part, Neg) else part for part in children(expr)]
    beside = any(_is_below_one(factor) for factor in factors)
    found = []
    for factor in factors:
        found += rules_in(factor, rule) if children(factor) else [_rule_of_factor(factor, rule, beside)]
    return found


def _is_below_one(factor: Expr) -> bool:
    return isinstance(factor, (Frac, Dec)) and 0 < value(factor) < 1


def _rule_of_factor(factor: Expr, rule: str, beside: bool) -> str:
    """The rule for one number of a product; *beside* where one of them is below 1."""
    if _is_below_one(factor):
        return "part"
    return "half" if beside and (2 * value(factor)).denominator == 1 else rule


def rule_of(working: Working) -> str:
    """The rule that serves a working: the one that was chosen, or the usual one of its numbers."""
    chosen = working.ways.estimate
    numbers = leaves(working.problem.expr)
    decimals = any(isinstance(n, Dec) for n in numbers) and not any(isinstance(n, (Frac, Mixed)) for n in numbers)
    usual = "whole" if decimals else "half"
    return usual if chosen == "by-kind" else chosen


def estimated(working: Working) -> Expr | None:
    """What is estimated of a worked problem: itself, or what gives its missing number; None where nothing is
    calculated.
    """
    expr = working.problem.expr
    if not isinstance(expr, Equation):
        return expr
    return working.inverse


def estimate(working: Working) -> Estimate | None:
    """The estimate of a worked problem in its own ways; None where nothing is calculated (a chain, blank numerators),
    or nothing rounded.
    """
    expr = estimated(working)
    about = _estimate(working, expr) if expr is not None else None
    return None if about is None or about.sum == expr else about


def _estimate(working: Working, expr: Expr) -> Estimate | None:
    rule, ties = rule_of(working), working.ways.ties
    terms = _terms(expr) if working.parts else signed_terms(expr)
    plain = [term.inner if isinstance(term, Neg) else term for _, term in terms]
    if not all(isinstance(term, (Whole, Frac, Mixed, Dec)) for term in plain):
        return _of_any(working, expr, "whole" if rule == "between" else rule)
    if rule == "between":
        return _between(working, terms)
    rounds = [rounded_to(term, rule, ties) for _, term in terms]
    rounded = [number for number, _ in rounds]
    again = iter(rounded)
    joined = map_numbers(expr, lambda _: next(again)) if working.parts else _join([sign for sign, _ in terms], rounded)
    total, bound, answer = value(joined), len(terms) * ERRORS[rule], working.value
    within = abs(answer - total) <= bound
    tied = tuple([i for i, (_, tie) in enumerate(rounds) if tie])
    verdict = "Reasonable." if within else "Too far off."
    sentence: Rich = (
        "About ", written_like(working, total), ", from ", joined, ". ", working.answer,
        f" is {'at most' if within else 'more than'} ", written_like(working, bound), f" away. {verdict}",
    )  # fmt: skip
    tie = _tie(terms, tied, rule, ties)
    return Estimate(
        rule, tuple(rounded), total, bound, total - bound, total + bound, within, tied, joined, sentence, tie
    )


def _terms(expr: Expr, sign: int = 1) -> list[tuple[int, Expr]]:
    """The terms of a story's calculations, those in brackets among them: each is off by at most as much."""
    if isinstance(expr, Bracket):
        return _terms(expr.inner, sign)
    if isinstance(expr, Sum):
        return [found for one, term in signed_terms(expr) for found in _terms(term, sign * one)]
    return [(sign, expr)]


def written_like(working: Working, number: Fraction) -> Expr:
    """*number* as the problem is written: a decimal where it is one of decimals, else a whole, a fraction or a mixed
    number.
    """
    decimal = as_decimal(number) if working.ending.problem.kind == "decimal" else None
    return decimal or mixed(number)


def _join(signs: list[int], numbers: list[Expr]) -> Expr:
    rest = tuple([("+" if s > 0 else "-", n) for s, n in zip(signs[1:], numbers[1:], strict=True)])
    return Sum(numbers[0], rest) if rest else numbers[0]  # type: ignore[arg-type]


def _between(working: Working, terms: list[tuple[int, Expr]]) -> Estimate:
    ends = [(Fraction(value(t).__floor__()), Fraction(value(t).__ceil__())) for _, t in terms]
    low = sum([s * (a if s > 0 else b) for (s, _), (a, b) in zip(terms, ends, strict=True)], Fraction(0))
    high = sum([s * (b if s > 0 else a) for (s, _), (a, b) in zip(terms, ends, strict=True)], Fraction(0))
    within = low <= working.value <= high
    joined = _join(
        [s for s, _ in terms], [mixed(a if s > 0 else b) for (s, _), (a, b) in zip(terms, ends, strict=True)]
    )
    verdict = "It can be right." if within else "It cannot be right."
    side = "inside" if within else "outside"
    sentence: Rich = ("Between ", mixed(low), " and ", mixed(high), ". ", working.answer, f" is {side}. {verdict}")
    rounded = tuple([mixed(end) for pair in ends for end in dict.fromkeys(pair)])
    return Estimate("between", rounded, None, None, low, high, within, (), joined, sentence, ())


def _of_any(working: Working, expr: Expr, rule: str) -> Estimate | None:
    """Every number rounded first, then calculated; None where a divisor would be rounded to 0."""
    ties, rules = working.ways.ties, rules_in(expr, rule)
    tied: list[int] = []
    rounded: list[Expr] = []

    def change(number: Expr) -> Expr:
        near, tie = rounded_to(number, rules[len(rounded)], ties)
        if tie:
            tied.append(len(rounded))
        rounded.append(near)
        return near

    joined = map_numbers(expr, change)
    try:
        total = value(joined)
    except ZeroDivisionError:
        return None
    off = abs(working.value - total)
    side: Rich = (written_like(working, off), " more" if working.value > total else " less") if off else ("the same",)
    end = ". There is no bound here: compare the size."
    about = written_like(working, total)
    sentence: Rich = ("About ", about, ", from ", joined, ". ", working.answer, " is ", *side, end)
    return Estimate(rule, tuple(rounded), total, None, None, None, None, tuple(tied), joined, sentence, ())


def _tie(terms: list[tuple[int, Expr]], tied: tuple[int, ...], rule: str, ties: str) -> Rich:
    """Says that a term lay in the middle, and what the other choice gives; empty when none did."""
    if not tied:
        return ()
    other = "down" if ties == "up" else "up"
    names = [part for i in tied for part in (", ", terms[i][1])][1:]
    changed = value(_join([s for s, _ in terms], [rounded_to(t, rule, other)[0] for _, t in terms]))
    verb = "is a tie: it" if len(tied) == 1 else "are ties: they"
    return (*names, f" {verb} could go {other}, to about ", mixed(changed), ".")
