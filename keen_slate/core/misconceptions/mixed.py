"""Misconceptions about the wholes when mixed numbers are subtracted by regrouping."""

from __future__ import annotations

from ..numbers import Frac, Mixed
from .registry import Case, Wrong, misconception


@misconception(
    "smaller-from-larger",
    name="turned the fractions round",
    reason="Takes the smaller numerator from the larger, whichever stands first.",
    question="Which fraction is taken away? Are there enough pieces to take it from?",
    kinds=("add-subtract",),
)
def smaller_from_larger(case: Case) -> Wrong | None:
    if len(case.terms) != 2 or case.fractions < 2 or case.answer_value < 0:
        return None
    if [sign for sign, _ in case.terms] != [1, -1] or case.working.ways.mixed_subtract != "regroup":
        return None
    (w1, n1, d1), (w2, n2, d2) = case.tidied()
    common = case.common
    a, b = n1 * common // d1, n2 * common // d2
    if a >= b:
        return None
    left = Mixed(w1 - w2, b - a, common) if w1 > w2 else Frac(b - a, common)
    lines = [(f"{b} - {a} = {b - a}",)]
    if w1:
        lines.append((f"{w1} - {w2} = {w1 - w2}",))
    return Wrong(left, tuple(lines))
