"""The rungs of the ladder (common practice: each adds one difficulty)."""

from __future__ import annotations

from math import prod

from ..arithmetic.columns import add_columns, in_last_place, places_of, subtract_columns
from ..expressions.terms import parts, signed_terms
from ..expressions.tree import Bracket, Dec, Expr, Frac, Mixed, Neg, Power, Sum, Whole, value
from ..expressions.walks import children, has_sign, leaves
from ..working.methods.common_denominator import relation
from ..working.proof import Working
from ..working.step_kinds import REGROUP, SIMPLIFY

RUNGS: dict[str, str] = {
    "F1": "the pieces are the same size",
    "F2": "the answer can be simplified",
    "F3": "the answer reaches <one whole>",
    "F4": "one <denominator> fits the other",
    "F5": "the <denominators> share a factor",
    "F6": "the <denominators> share no factor",
    "F7": "three terms or more",
    "M1": "<mixed numbers>, nothing is carried",
    "M2": "the fractions fill another <whole>",
    "M3": "<mixed numbers>, unlike pieces",
    "M4": "unlike pieces that fill another <whole>",
    "M5": "<mixed numbers> are subtracted",
    "M6": "a fraction is taken from a <whole>",
    "M7": "a <whole> has to be cut up",
    "M8": "unlike pieces, and a <whole> cut up",
    "M9": "a <whole> cut up, and the answer simplified",
    "D1": "decimals, nothing is carried",
    "D2": "a carry or an exchange between places",
    "D3": "numbers with different places",
    "D4": "a zero has to be filled in and exchanged",
    "D5": "an exchange across a zero",
    "D6": "three decimals or more",
    "O1": "two operations: which comes first?",
    "O2": "brackets or a power",
    "O3": "fractions among the operations",
    "O4": "decimals with fractions, or numbers below zero",
}
UNLIKE = {"one-fits": "F4", "shares-factor": "F5", "coprime": "F6"}


def rung_of(working: Working) -> str | None:
    """The rung of a worked sum or difference, None where it stands on none."""
    if working.problem.kind == "order":
        return _order_rung(working)
    terms = signed_terms(working.problem.expr)
    if working.problem.kind == "decimal":
        return _decimal_rung(terms)
    if working.problem.kind != "add-subtract":
        return None
    if any(isinstance(term, Neg) for _, term in terms):
        return None
    if all(_is_proper(term) for _, term in terms):
        return _fraction_rung(working, terms)
    if len(terms) == 2 and all(_is_tidy(term) for _, term in terms):
        return _mixed_rung(working, terms)
    return None


def _is_proper(term: Expr) -> bool:
    return isinstance(term, Frac) and parts(term)[1] < parts(term)[2]


def _is_tidy(term: Expr) -> bool:
    return isinstance(term, Whole) or parts(term)[1] < parts(term)[2]


def _relation(terms: list[tuple[int, Expr]]) -> str | None:
    return relation(tuple([parts(term)[2] for _, term in terms if not isinstance(term, Whole)]))


def simplified_by(working: Working) -> int:
    """What top and bottom of the result are divided by in all; 1 where nothing is simplified.

    Terms that are simplified before they are added do not count.
    """
    steps = [step for step in working.steps if step.kind is SIMPLIFY and not isinstance(step.after, Sum)]
    return prod([step.facts[0][1] for step in steps])


def _fraction_rung(working: Working, terms: list[tuple[int, Expr]]) -> str | None:
    answer = abs(working.value)
    if answer == 0 or len(terms) < 2:
        return None
    if len(terms) > 2:
        return "F7"
    if (unlike := UNLIKE.get(_relation(terms) or "")) is not None:
        return unlike
    if answer >= 1:
        return "F3"
    return "F2" if simplified_by(working) > 1 else "F1"


def _mixed_rung(working: Working, terms: list[tuple[int, Expr]]) -> str | None:
    (_, a), (sign, b) = terms
    like = _relation(terms) == "like"
    if sign > 0:
        if isinstance(a, Whole) or isinstance(b, Whole) or not (isinstance(a, Mixed) or isinstance(b, Mixed)):
            return None
        (_, n, d), (_, m, e) = parts(a), parts(b)
        carry = n * e + m * d >= d * e
        return {(True, False): "M1", (True, True): "M2", (False, False): "M3", (False, True): "M4"}[like, carry]
    if value(a) < value(b):
        a, b = b, a
    if isinstance(a, Whole):
        return None if isinstance(b, Whole) else "M6"
    return _subtracting_rung(working, like)


def _subtracting_rung(working: Working, like: bool) -> str:
    if not any(step.kind is REGROUP for step in working.steps):
        return "M5"
    if like:
        return "M7"
    return "M9" if simplified_by(working) > 1 else "M8"


def _decimal_rung(terms: list[tuple[int, Expr]]) -> str | None:
    numbers = [term for _, term in terms]
    if len(numbers) < 2 or not all(isinstance(n, Whole) or (isinstance(n, Dec) and not n.period) for n in numbers):
        return None
    if len(numbers) > 2:
        return "D6"
    places = [places_of(n) for n in numbers]
    like = places[0] == places[1]
    a, b = [in_last_place(n, max(places)) for n in numbers]
    if terms[1][0] > 0:
        if not like:
            return "D3"
        return "D2" if any(c.carried and any(c.digits) for c in add_columns([a, b])) else "D1"
    if a < b:
        a, b, places = b, a, places[::-1]
    columns = subtract_columns(a, b)
    filled = max(0, places[1] - places[0])  # zeros filled in above
    if any(c.exchanged for c in columns) and any(len(c.above) > 1 and c.above[0] == 10 for c in columns[filled:]):
        return "D5"
    if like:
        return "D2" if any(c.exchanged for c in columns) else "D1"
    return "D4" if any(c.exchanged for c in columns[:filled]) else None


def _order_rung(working: Working) -> str:
    expr = working.problem.expr
    numbers = list(leaves(expr))
    decimals, fractions = [any(isinstance(n, t) for n in numbers) for t in (Dec, (Frac, Mixed))]
    below = any(has_sign(e) for e in (expr, *[step.after for step in working.steps]))
    if decimals or below:
        return "O4"
    if fractions:
        return "O3"
    return "O2" if _has_bracket_or_power(expr) else "O1"


def _has_bracket_or_power(expr: Expr) -> bool:
    return isinstance(expr, (Bracket, Power)) or any(_has_bracket_or_power(part) for part in children(expr))
