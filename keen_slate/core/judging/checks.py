"""The other checks that pupils use: is the sum more than its parts, above or below 1, does the inverse lead back."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from ..arithmetic.division import as_decimal, only_twos_and_fives
from ..arithmetic.lowest import why_lowest
from ..expressions.sentences import Rich
from ..expressions.terms import signed_terms
from ..expressions.tree import Dec, Equation, Expr, Frac, Mixed, Neg, Sum, Whole, value
from ..working.proof import Working
from ..working.step_kinds import SIMPLIFY

_PLAIN = (Whole, Frac, Mixed, Dec)
_MOST_PLACES = 4  # a longer decimal is no quick check


@dataclass(frozen=True, slots=True)
class Check:
    """A question that any answer can be held against, what it says of the right one, and a code to know it by."""

    code: str
    said: Rich


def checks(working: Working) -> list[Check]:
    """The checks that the problem allows: those of a sum or difference of positive numbers, and why the answer is in
    lowest terms.
    """
    return [*_of_sum(working), *_of_form(working)]


def _of_form(working: Working) -> list[Check]:
    """Why an answer past one, which nobody simplified, is in lowest terms all the same."""
    simplified = any(step.kind is SIMPLIFY for step in working.steps)
    if simplified or abs(working.value) < 1 or isinstance(working.answer, Equation):
        return []
    because = why_lowest(working.answer)
    return [Check("lowest-terms", (working.answer, f" is in <lowest terms>: {because}."))] if because else []


def _of_sum(working: Working) -> list[Check]:
    expr = working.problem.expr
    if isinstance(expr, Equation) or not isinstance(expr, Sum):
        return []
    terms = signed_terms(expr)
    if not all(isinstance(term, _PLAIN) and value(term) > 0 for _, term in terms) or working.value < 0:
        return []
    answer: Expr = working.answer
    made: list[Check] = []
    if all(sign > 0 for sign, _ in terms):
        largest = max([term for _, term in terms], key=value)
        made.append(Check("more-than-each", ("A sum is more than each of its parts: more than ", largest, ".")))
    elif len(terms) == 2:
        made.append(
            Check("less-than-start", ("A difference is less than what it was taken from: less than ", terms[0][1], "."))
        )
    if all(isinstance(term, Frac) and value(term) < 1 for _, term in terms) and len(terms) == 2:
        side = "exactly 1" if working.value == 1 else "above 1" if working.value > 1 else "below 1"
        made.append(
            Check("beside-one", ("Is it above or below 1? It is ", side, f", because {_why(terms, working.value)}."))
        )
    if len(terms) == 2:
        (_, a), (sign, b) = terms
        way = " - " if sign > 0 else " + "
        made.append(Check("inverse", ("Back again: ", answer, way, b, " = ", a, ".")))
    numbers = [term for _, term in terms]
    if all(_ends(term) for term in [*numbers, answer]) and any(isinstance(n, (Frac, Mixed)) for n in numbers):
        said: list[str | Expr] = ["In decimals: "]
        for i, (sign, term) in enumerate(terms):
            said += [(" + " if sign > 0 else " - ") if i else "", _decimal(term)]
        made.append(Check("decimals", (*said, " = ", _decimal(answer), ".")))
    return made


# Checks that are made at a glance, without calculating again, and what is said where one catches a wrong answer.
QUICK = {
    "more-than-each": "a sum is more than each of its parts: that catches it",
    "less-than-start": "a difference is less than the start: that catches it",
    "beside-one": "above or below 1: that catches it",
}


def caught_by(found: list[Check], working: Working, answer: Fraction) -> str | None:
    """What the first quick check says that a wrong *answer* does not pass; None where it passes them all."""
    return next((QUICK[c.code] for c in found if c.code in QUICK and not holds(c, working, answer)), None)


def holds(check: Check, working: Working, answer: Fraction) -> bool:
    """Whether a wrong *answer* passes *check*: one that does not pass is seen to be wrong."""
    terms = [value(term) for _, term in signed_terms(working.problem.expr)]
    if check.code == "more-than-each":
        return answer > max(terms) or answer == working.value
    if check.code == "less-than-start":
        return answer < terms[0]
    if check.code == "beside-one":
        return (answer > 1) == (working.value > 1) and (answer == 1) == (working.value == 1)
    return answer == working.value


def _why(terms: list[tuple[int, Expr]], total: Fraction) -> str:
    (_, _), (sign, _) = terms
    if sign < 0:
        return "something is taken from less than 1"
    half = Fraction(1, 2)
    sizes = [value(term) for _, term in terms]
    if all(size > half for size in sizes):
        return "both are more than a half"
    if all(size < half for size in sizes):
        return "both are less than a half"
    return "together they " + (
        "fill a <whole>" if total == 1 else "are more than a <whole>" if total > 1 else "do not fill a <whole>"
    )


def _ends(number: Expr) -> bool:
    inner = number.inner if isinstance(number, Neg) else number
    if isinstance(inner, Dec):
        return not inner.period
    d = value(inner).denominator
    return only_twos_and_fives(d) and 10**_MOST_PLACES % d == 0


def _decimal(number: Expr) -> Expr:
    """*number*, which ends as a decimal, as one."""
    return as_decimal(value(number)) or number
