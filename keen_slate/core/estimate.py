"""Can it be right? Each term rounded to a benchmark, and how far off the answer can then be at most.

Rule `half`: each term to the nearest half, by its size; the error of a term is at most 1/4, so of n terms
n × 1/4. A tie (a quarter, three quarters) goes up or down as `Ways.ties` says, and is told.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from .methods.terms import join_terms, signed_terms
from .numbers import Expr, Neg, Sum, Whole, make, ratio, value
from .wording import Rich, text
from .working import Working


@dataclass(frozen=True, slots=True)
class Estimate:
    """*rounded* holds the terms after rounding, *ties* the indices of those that lay in the middle."""

    rule: str
    rounded: tuple[Expr, ...]
    total: Fraction
    bound: Fraction
    within: bool
    ties: tuple[int, ...]
    sum: Expr
    sentence: str
    tie: Rich

    def catches(self, answer: Fraction) -> bool:
        """Whether *answer* is certainly wrong: farther from the estimate than the bound."""
        return abs(answer - self.total) > self.bound


def to_half(expr: Expr, ties: str) -> tuple[Expr, bool]:
    """The number *expr* to the nearest half by its size, and whether it was a tie.

    >>> from .numbers import Mixed
    >>> to_half(Mixed(7, 1, 4), "up"), to_half(Mixed(7, 1, 4), "down")
    ((Mixed(whole=7, num=1, den=2), True), (Whole(n=7), True))
    """
    if isinstance(expr, Neg):
        rounded, tie = to_half(expr.inner, ties)
        return (rounded if rounded == Whole(0) else Neg(rounded)), tie
    n, d = ratio(expr)
    # In halves the number is 2n/d; floor(2n/d + 1/2) rounds it up at a tie, ceil(2n/d - 1/2) down.
    tie = 4 * n % (2 * d) == d
    halves = (4 * n + d) // (2 * d) if ties == "up" else -((d - 4 * n) // (2 * d))
    return make(halves // 2, halves % 2, 2), tie


def mixed(number: Fraction) -> Expr:
    """*number* as a whole, proper fraction or mixed number, with its sign."""
    whole, rest = divmod(abs(number.numerator), number.denominator)
    size = make(whole, rest, number.denominator)
    return Neg(size) if number < 0 else size


def estimate(working: Working) -> Estimate:
    """The estimate of a sum or difference in the working's own ways."""
    terms = signed_terms(working.problem.expr)
    ties = working.ways.ties
    rounds = [to_half(term, ties) for _, term in terms]
    rounded = tuple([number for number, _ in rounds])
    bound = Fraction(len(terms), 4)
    joined = Sum(
        rounded[0], tuple([("+" if s > 0 else "-", r) for (s, _), r in zip(terms[1:], rounded[1:], strict=True)])
    )
    joined_expr: Expr = joined if joined.rest else joined.first
    total = value(joined_expr)
    answer = working.value
    within = abs(answer - total) <= bound
    tied = tuple([i for i, (_, tie) in enumerate(rounds) if tie])
    return Estimate(
        "half", rounded, total, bound, within, tied, joined_expr,
        _sentence(working, joined_expr, total, bound, within), _tie(terms, tied, ties),
    )  # fmt: skip


def _sentence(working: Working, joined: Expr, total: Fraction, bound: Fraction, within: bool) -> str:
    verdict = "Reasonable." if within else "Too far off."
    return (
        f"About {text(mixed(total))}, from {text(joined)}. {text(working.answer)} is "
        f"{'at most' if within else 'more than'} {text(mixed(bound))} away. {verdict}"
    )


def _tie(terms: list[tuple[int, Expr]], tied: tuple[int, ...], ties: str) -> Rich:
    """Says that a term lay in the middle, and what the other choice gives; empty when none did."""
    if not tied:
        return ()
    other = "down" if ties == "up" else "up"
    names = [part for i in tied for part in (", ", terms[i][1])][1:]
    changed = value(join_terms([(s, to_half(t, other)[0]) for s, t in terms]))  # type: ignore[misc]
    verb = "is a tie: it" if len(tied) == 1 else "are ties: they"
    return (*names, f" {verb} could go {other}, to about ", mixed(changed), ".")
