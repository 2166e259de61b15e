"""The rungs of the ladder (common practice: each adds one difficulty)."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import gcd, prod

from ..arithmetic.columns import add_columns, in_last_place, places_of, subtract_columns
from ..arithmetic.primes import prime_factors
from ..expressions.terms import parts, signed_terms, unsigned_terms
from ..expressions.tree import (
    Bracket,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    OpenFrac,
    OpenMixed,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
    make,
    value,
)
from ..expressions.walks import contains, has_sign, leaves
from ..reading.kinds import Kind
from ..stories.rung import rung_of_story
from ..stories.story import story_of
from ..working.methods.common_denominator import relation
from ..working.proof import Working
from ..working.step_kinds import REGROUP, SIMPLIFY

# In the order in which they are climbed.
RUNGS: dict[str, str] = {
    "W1": "<wholes>, nothing is carried",
    "W2": "<wholes>, a carry or an exchange between places",
    "W3": "<wholes> are multiplied or divided",
    "E1": "an equal fraction, one number missing",
    "E2": "a chain of equal fractions",
    "N1": "<lowest terms> in one step",
    "N2": "<lowest terms>, more than one prime is shared",
    "F1": "the pieces are the same size",
    "F2": "the answer can be simplified",
    "F3": "the answer reaches <one whole>",
    "F4": "one <denominator> fits the other",
    "F5": "the <denominators> share a factor",
    "F6": "the <denominators> share no factor",
    "F7": "three fractions or more, the pieces are the same size",
    "F8": "three fractions or more, one <denominator> fits the others",
    "F9": "three fractions or more, all pieces are cut again",
    "V1": "an improper fraction becomes a <mixed number>",
    "V2": "a <mixed number> becomes an improper fraction",
    "N3": "a <mixed number> in <lowest terms>",
    "N4": "a <mixed number> with an improper part",
    "M1": "<mixed numbers>, nothing is carried",
    "M2": "the fractions fill another <whole>",
    "M3": "<mixed numbers>, unlike pieces",
    "M4": "unlike pieces that fill another <whole>",
    "E5": "a <whole> of a <mixed number> is written as pieces",
    "M5": "<mixed numbers> are subtracted",
    "M6": "a fraction is taken from a <whole>",
    "M7": "a <whole> has to be cut up",
    "M8": "unlike pieces, and a <whole> cut up",
    "M9": "a <whole> cut up, and the answer simplified",
    "M10": "three <mixed numbers> or more are added",
    "M11": "three <mixed numbers> or more, some are subtracted",
    "E3": "a term is missing",
    "E4": "<numerators> are missing",
    "D1": "decimals, nothing is carried",
    "D2": "a carry or an exchange between places",
    "D3": "numbers with different places",
    "D4": "a zero has to be filled in and exchanged",
    "D5": "an exchange across a zero",
    "D6": "three decimals or more",
    "V3": "a decimal and a fraction, by place value",
    "V4": "a decimal that recurs",
    "P1": "a fraction is multiplied by a <whole>",
    "P2": "fractions are multiplied",
    "P3": "<mixed numbers> are multiplied",
    "P4": "fractions are divided",
    "P5": "decimals are multiplied",
    "P6": "decimals are divided",
    "O1": "two operations: which comes first?",
    "O2": "brackets or a power",
    "O3": "fractions among the operations",
    "O4": "decimals with fractions, or numbers below zero",
}
# Of stories; each has the rungs of its calculations, too.
STORY_RUNGS: dict[str, str] = {
    "S1": "a story: put together, or taken away",
    "S2": "a story that compares, or tells the larger number second",
    "S3": "a story whose start or change is to be found",
    "S4": "a story in two steps",
    "S5": "a story of equal groups, or of shares",
    "S6": "a story in three steps, with a change of unit, or with a number that is not needed",
}
ALL_RUNGS = RUNGS | STORY_RUNGS
UNLIKE = {"one-fits": "F4", "shares-factor": "F5", "coprime": "F6"}
THREE = {"like": "F7", "one-fits": "F8"}  # three terms or more; else "F9"


def rung_of(working: Working) -> str:
    """The rung of a *working* in the default ways; every problem that can be worked has one."""
    problem = working.problem
    if problem.kind in ("add-subtract", "decimal", "multiply-divide") and has_sign(problem.expr):
        return "O4"
    return _RULES[problem.kind](working)


def _sum_rung(working: Working) -> str:
    terms = unsigned_terms(working.problem.expr)
    if all(isinstance(term, Frac) for _, term in terms):
        return _fraction_rung(working, terms)
    if all(isinstance(term, Whole) for _, term in terms):
        return _whole_rung(terms)
    if len(terms) > 2:
        return "M10" if all(sign > 0 for sign, _ in terms) else "M11"
    return _mixed_rung(working, [(sign, _tidy(term)) for sign, term in terms])


def _whole_rung(terms: Sequence[tuple[int, Expr]]) -> str:
    """Two numbers in columns; a new column at the front is no carry."""
    (_, first), (sign, second) = terms
    numbers = parts(first)[0], parts(second)[0]
    if sign > 0:
        moved = any(c.carried and any(c.digits) for c in add_columns(numbers))
    else:
        moved = any(c.exchanged for c in subtract_columns(max(numbers), min(numbers)))
    return "W2" if moved else "W1"


def _tidy(term: Expr) -> Expr:
    """*term* without an improper part."""
    whole, num, den = parts(term)
    return term if isinstance(term, Whole) else make(whole + num // den, num % den, den)


def _relation(terms: Sequence[tuple[int, Expr]]) -> str | None:
    return relation(tuple([parts(term)[2] for _, term in terms if not isinstance(term, Whole)]))


def simplified_by(working: Working) -> int:
    """What top and bottom of the result are divided by in all; 1 where nothing is simplified.

    Terms that are simplified before they are added do not count.
    """
    unfinished = (Sum, Product, Power, Bracket)
    steps = [step for step in working.steps if step.kind is SIMPLIFY and not isinstance(step.after, unfinished)]
    return prod([step.facts[0][1] for step in steps if step.facts])


def _fraction_rung(working: Working, terms: Sequence[tuple[int, Expr]]) -> str:
    answer = abs(working.value)
    if len(terms) > 2:
        return THREE.get(_relation(terms) or "", "F9")
    if (unlike := UNLIKE.get(_relation(terms) or "")) is not None:
        return unlike
    if answer >= 1:
        return "F3"
    return "F2" if simplified_by(working) > 1 else "F1"


def _mixed_rung(working: Working, terms: Sequence[tuple[int, Expr]]) -> str:
    (_, a), (sign, b) = terms
    like = _relation(terms) == "like"
    if sign > 0:
        if isinstance(a, Whole) or isinstance(b, Whole):
            return "M1"
        (_, n, d), (_, m, e) = parts(a), parts(b)
        carry = n * e + m * d >= d * e
        return {(True, False): "M1", (True, True): "M2", (False, False): "M3", (False, True): "M4"}[like, carry]
    if value(a) < value(b):
        a, b = b, a
    if isinstance(a, Whole):
        return "M6"
    return _subtracting_rung(working, like)


def _subtracting_rung(working: Working, like: bool) -> str:
    if not any(step.kind is REGROUP for step in working.steps):
        return "M5"
    if like:
        return "M7"
    return "M9" if simplified_by(working) > 1 else "M8"


def _decimal_rung(working: Working) -> str:
    expr = working.problem.expr
    if any(isinstance(number, Dec) and number.period for number in leaves(expr)):
        return "V4"
    if isinstance(expr, Product):
        return "P6" if _divides(expr) else "P5"
    return _decimal_sum_rung(signed_terms(expr))


def _divides(expr: Product) -> bool:
    return any(operator == "÷" for operator, _ in expr.rest)


def _decimal_sum_rung(terms: Sequence[tuple[int, Expr]]) -> str:
    numbers = [term for _, term in terms if isinstance(term, (Whole, Dec))]
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
    return "D4" if any(c.exchanged for c in columns[:filled]) else "D3"


def _order_rung(working: Working) -> str:
    expr = working.problem.expr
    numbers = leaves(expr)
    decimals, fractions = [any(isinstance(n, t) for n in numbers) for t in (Dec, (Frac, Mixed))]
    below = any(has_sign(e) for e in (expr, *[step.after for step in working.steps]))
    if decimals or below:
        return "O4"
    if fractions:
        return "O3"
    return "O2" if contains(expr, Bracket, Power, OverBar) else "O1"


# Single numbers, products, blanks -------------------------------------------------------------------------------------


def _single_rung(working: Working) -> str:
    (number,) = leaves(working.problem.expr)
    target = working.problem.target
    if isinstance(number, Dec) or target == "decimal":
        (answer,) = leaves(working.answer)
        recurs = any(isinstance(one, Dec) and one.period for one in (number, answer))
        return "V4" if recurs else "V3"
    if target is not None:
        return "V1" if target == "mixed" else "V2"
    if isinstance(number, Whole):
        return "N1"
    _, num, den = parts(number)
    if isinstance(number, Mixed):
        return "N3" if num < den else "N4"
    if num >= den:
        return "V1"
    return "N2" if len(prime_factors(gcd(num, den))) > 1 else "N1"


def _product_rung(working: Working) -> str:
    expr = working.problem.expr
    numbers = leaves(expr)
    if all(isinstance(number, Whole) for number in numbers) and working.value.denominator == 1:
        return "W3"
    if isinstance(expr, Product) and _divides(expr):
        return "P4"
    if any(isinstance(number, Mixed) for number in numbers):
        return "P3"
    return "P1" if any(isinstance(number, Whole) for number in numbers) else "P2"


def _chain_rung(working: Working) -> str:
    expr = working.problem.expr
    if isinstance(expr, Equation) and len(expr.sides) == 2:
        return "E5" if renames(expr) else "E1"
    return "E2"


def renames(expr: Equation) -> bool:
    """Whether a whole of a number is to be written as pieces, or pieces as a whole: 6 5/9 = 5 _/9.

    >>> from ..reading.reader import read
    >>> [renames(read(each).expr) for each in ("6 5/9 = 5 _/9", "4 = 3 _/7", "6 1/3 = 6 _/9", "1/2 = _/4")]
    [True, True, False, False]
    """
    wholes = [
        parts(n)[0] if isinstance(n, (Whole, Mixed)) else n.whole if isinstance(n, OpenMixed) else None
        for n in expr.sides
    ]
    return any(isinstance(n, OpenMixed) for n in expr.sides) and None not in wholes and wholes[0] != wholes[1]


def _missing_rung(working: Working) -> str:
    return "E4" if any(isinstance(n, (OpenFrac, OpenMixed)) for n in leaves(working.problem.expr)) else "E3"


def _story_rung(working: Working) -> str:
    story = story_of(working.problem)
    assert story is not None, "only a story is of this kind"
    uses = [use for step in story.steps for use in step.uses]
    return rung_of_story(
        story.situation, story.unknown, len(story.steps),
        more=bool(story.unneeded) or any(use.kind == "units" for use in uses),
        groups=any(isinstance(part.problem.expr, Product) for part in working.parts),
        larger_second=[use.index for use in uses] != sorted([use.index for use in uses]),
    )  # fmt: skip


_RULES: dict[Kind, Callable[[Working], str]] = {
    "simplify": _single_rung,
    "convert": _single_rung,
    "equivalent": _chain_rung,
    "add-subtract": _sum_rung,
    "decimal": _decimal_rung,
    "multiply-divide": _product_rung,
    "order": _order_rung,
    "missing": _missing_rung,
    "story": _story_rung,
}
