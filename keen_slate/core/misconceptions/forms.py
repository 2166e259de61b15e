"""The right value, left in a form that is not accepted."""

from __future__ import annotations

from math import gcd

from ..numbers import Frac, Mixed, Neg, Whole, make
from .registry import Case, Wrong, misconception


@misconception(
    "left-improper-part",
    name="left an improper part beside the whole",
    reason="Has added correctly, but not looked whether the fraction part holds another whole.",
    question="How many of these pieces make a whole? Is there a whole hiding in the fraction?",
    kinds=("add-subtract", "simplify"),
    on_form=True,
)
def left_improper_part(case: Case) -> Wrong | None:
    raw = case.working.raw
    if not isinstance(raw, Mixed) or (raw.num or 0) < raw.den or _below_zero(case):
        return None
    return Wrong(raw, ((raw,),))


@misconception(
    "not-simplified",
    name="stopped before lowest terms",
    reason="Has the right amount, but not asked whether top and bottom share a factor.",
    question="Which number divides both the top and the bottom?",
    kinds=("add-subtract", "simplify"),
    on_form=True,
)
def not_simplified(case: Case) -> Wrong | None:
    raw = case.working.raw
    if isinstance(raw, Whole) or _below_zero(case):
        return None
    whole, num, den = (0, raw.num or 0, raw.den or 1) if isinstance(raw, Frac) else (raw.whole, raw.num or 0, raw.den)
    more, rest = divmod(num, den)
    if rest == 0 or gcd(rest, den) == 1:
        return None
    left = make(whole + more, rest, den)
    return Wrong(left, ((left,),))


def _below_zero(case: Case) -> bool:
    return isinstance(case.working.answer, Neg)
