"""The right value, left in a form that is not accepted; and what goes wrong while a result is tidied."""

from __future__ import annotations

from fractions import Fraction
from math import gcd

from ...arithmetic.primes import prime_factors
from ...expressions.tree import Expr, Frac, Mixed, make
from ...working.step_kinds import CARRY_WHOLE, JOIN, SIMPLIFY, TO_MIXED
from .registry import ENDS_IN_FRACTION, Case, Wrong, misconception

_TIDYING = (TO_MIXED, CARRY_WHOLE, SIMPLIFY, JOIN)


def _raw(case: Case) -> tuple[int, int, int] | None:
    """Whole, numerator and denominator of the last number before it was tidied; None where there is no fraction."""
    raw = case.working.raw
    if case.below_zero or case.working.problem.target == "decimal":
        return None
    if isinstance(raw, Mixed):
        return raw.whole, raw.num, raw.den
    return (0, raw.num, raw.den) if isinstance(raw, Frac) else None


@misconception(
    "left-improper",
    name="stopped at an improper fraction",
    reason="Has the right amount, but not asked how many <wholes> are in it.",
    question="How many of these pieces make a <whole>? Are there that many?",
    kinds=ENDS_IN_FRACTION,
    example="3/4 + 3/4",
    on_form=True,
    often=3,
)
def left_improper(case: Case) -> Wrong | None:
    raw = case.working.raw
    if case.working.problem.kind == "convert" or case.below_zero or not isinstance(raw, Frac):
        return None
    if raw.num < raw.den or case.answer_form == "simplest-improper":
        return None
    return Wrong(raw, ((raw,),))


@misconception(
    "left-improper-part",
    name="left an improper part beside the <whole>",
    reason="Has added correctly, but not looked whether the fraction part holds another <whole>.",
    question="How many of these pieces make a <whole>? Is there a <whole> hiding in the fraction?",
    kinds=ENDS_IN_FRACTION,
    example="2 3/4 + 1 5/6",
    on_form=True,
    often=3,
)
def left_improper_part(case: Case) -> Wrong | None:
    raw = case.working.raw
    if not isinstance(raw, Mixed) or raw.num < raw.den or case.below_zero or case.all_improper:
        return None
    return Wrong(raw, ((raw,),))


def _tidy(case: Case) -> tuple[int, int, int] | None:
    """As `_raw`, after tidying in the answer form; None where nothing is left to simplify by any number."""
    raw = _raw(case)
    if raw is None or case.working.problem.kind == "convert":
        return None
    whole, num, den = raw
    if case.answer_form == "simplest-improper":
        return (0, whole * den + num, den) if (whole * den + num) % den else None
    more, rest = divmod(num, den)
    return (whole + more, rest, den) if rest else None


@misconception(
    "not-simplified",
    name="stopped before <lowest terms>",
    reason="Has the right amount, but not asked whether top and bottom share a factor.",
    question="Which number divides both the top and the bottom?",
    kinds=ENDS_IN_FRACTION,
    example="1/6 + 1/3",
    on_form=True,
    often=3,
)
def not_simplified(case: Case) -> Wrong | None:
    tidy = _tidy(case)
    if tidy is None or gcd(tidy[1], tidy[2]) == 1:
        return None
    left = make(*tidy)
    return Wrong(left, ((left,),))


@misconception(
    "half-simplified",
    name="simplified once and stopped",
    reason="Divides top and bottom by a number that works, and does not ask whether there is another.",
    question="Is there still a number that divides both?",
    kinds=ENDS_IN_FRACTION,
    example="5/12 + 1/4",
    on_form=True,
)
def half_simplified(case: Case) -> Wrong | None:
    tidy = _tidy(case)
    if tidy is None:
        return None
    whole, num, den = tidy
    shared = gcd(num, den)
    if shared == 1 or shared > 10**6:
        return None
    prime = prime_factors(shared)[0]
    if prime == shared:
        return None
    left = make(whole, num // prime, den // prime)
    return Wrong(left, ((f"{num} ÷ {prime} = {num // prime}, {den} ÷ {prime} = {den // prime}",), (left,)))


def _beside_whole(case: Case) -> bool:
    """Whether a whole stands among the terms, or the lone number is a mixed one, and it is not worked all improper."""
    kind = case.working.problem.kind
    return (
        kind in ("add-subtract", "simplify")
        and any(not isinstance(t, Frac) for _, t in case.terms)
        and not case.all_improper
    )


@misconception(
    "carry-lost",
    name="forgot to add the <whole> that was made",
    reason="Turns the improper part into a <whole> and a rest, and writes only the rest beside the old <whole>.",
    question="The pieces made another <whole>: where did it go?",
    kinds=("add-subtract", "simplify"),
    example="2 3/4 + 1 5/6",
)
def carry_lost(case: Case) -> Wrong | None:
    raw = _raw(case)
    if raw is None or not _beside_whole(case) or raw[1] < raw[2]:
        return None
    whole, num, den = raw
    rest = num % den
    shared = gcd(rest, den)
    left = make(whole, rest // shared, den // shared)
    return Wrong(
        left,
        (
            (
                Frac(num, den),
                f": {num} ÷ {den} = {num // den} remainder {rest}",
            ),
            (left,),
        ),
    )


@misconception(
    "whole-lost",
    name="forgot to copy the whole number",
    reason="Works on the fraction alone and writes down only what comes of it.",
    question="How large was the number before you tidied its fraction?",
    kinds=("add-subtract", "simplify"),
    example="3 2/8 + 1 4/8",
    often=1,
)
def whole_lost(case: Case) -> Wrong | None:
    answer = case.working.answer
    changed = any(step.kind in _TIDYING for step in case.working.steps)
    if not isinstance(answer, Mixed) or not changed or case.all_improper or not case.terms:
        return None
    left = Frac(answer.num, answer.den)
    return Wrong(left, ((left,),))


def _divided(case: Case) -> tuple[int, int, int, int, int] | None:
    """Whole beside it, numerator, denominator, quotient and remainder of an improper part that is tidied; None without
    one.
    """
    raw = _raw(case)
    if raw is None or (raw[0] and case.all_improper) or case.answer_form == "simplest-improper":
        return None
    if case.answer_form == "any-equal" and not any(step.kind is TO_MIXED for step in case.working.steps):
        return None
    if case.working.problem.target not in (None, "mixed"):
        return None
    whole, num, den = raw
    quotient, rest = divmod(num, den)
    return (whole, num, den, quotient, rest) if quotient and rest else None


@misconception(
    "own-whole-forgotten",
    name="forgot the <whole> that stood there",
    reason="Turns the improper part into a <mixed number>, and writes that down as the answer.",
    question="Which <wholes> were there before the fraction was tidied?",
    kinds=("add-subtract", "simplify"),
    example="2 3/4 + 1 3/4",
)
def own_whole_forgotten(case: Case) -> Wrong | None:
    found = _divided(case)
    if found is None or not found[0]:
        return None
    _, num, den, quotient, rest = found
    answer = case.finished(Fraction(num, den))
    return Wrong(answer, ((Frac(num, den), " = ", make(quotient, rest, den)),))


@misconception(
    "quotient-remainder-swapped",
    name="swapped quotient and remainder",
    reason="Divides to find the <wholes>, then writes the remainder as the <whole> and the quotient as the "
    "<numerator>.",
    question="Which of the two numbers counts whole ones, and which counts pieces left over?",
    kinds=ENDS_IN_FRACTION,
    example="5/6 + 3/4",
    often=1,
)
def quotient_remainder_swapped(case: Case) -> Wrong | None:
    found = _divided(case)
    if found is None or found[3] == found[4]:
        return None
    whole, num, den, quotient, rest = found
    left = Mixed(whole + rest, quotient, den)
    return Wrong(left, ((f"{num} ÷ {den} = {quotient} remainder {rest}",), (left,)))


@misconception(
    "remainder-on-top",
    name="wrote the remainder over the old top",
    reason="Divides rightly, then puts what is left over the number that was divided.",
    question="What size are the pieces that are left over?",
    kinds=ENDS_IN_FRACTION,
    example="5/6 + 3/4",
    often=1,
)
def remainder_on_top(case: Case) -> Wrong | None:
    found = _divided(case)
    if found is None:
        return None
    whole, num, den, quotient, rest = found
    left = Mixed(whole + quotient, rest, num)
    return Wrong(left, ((f"{num} ÷ {den} = {quotient} remainder {rest}",), (left,)))


@misconception(
    "tidied-wrongly",
    name="took out one <whole> too many",
    reason="Has the right improper fraction, and counts the <wholes> in it wrongly.",
    question="How many pieces make that many <wholes>? Are there so many?",
    kinds=ENDS_IN_FRACTION,
    example="5/6 + 3/4",
)
def tidied_wrongly(case: Case) -> Wrong | None:
    found = _divided(case)
    if found is None:
        return None
    whole, num, den, quotient, rest = found
    shared = gcd(rest, den)
    left = make(whole + quotient + 1, rest // shared, den // shared)
    return Wrong(left, ((Frac(num, den), " is taken for ", make(quotient + 1, rest, den)), (left,)))


@misconception(
    "label-dropped",
    name="left the label off",
    reason="Has the right number and forgets what it counts.",
    question="Five what?",
    kinds=("add-subtract", "simplify", "convert", "decimal", "multiply-divide", "order"),
    example="5 3/8 - 2 1/8 ft",
    on_form=True,
    often=1,
)
def label_dropped(case: Case) -> Wrong | None:
    if case.working.problem.label is None:
        return None
    answer: Expr = case.working.answer
    return Wrong(answer, ((answer,),), labelled=False)
