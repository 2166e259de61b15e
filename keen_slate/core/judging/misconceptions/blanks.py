"""What goes wrong where a number is missing."""

from __future__ import annotations

from ...expressions.tree import Equation, Frac, OpenFrac
from .registry import Case, Wrong, misconception


@misconception(
    "chain-added",
    name="added the same to top and bottom",
    reason="Sees how much is added to one number, and adds as much to the other.",
    question="If every piece is cut into as many, how many pieces come out of each?",
    kinds=("equivalent",),
    example="2/3 = _/12",
    often=3,
)
def chain_added(case: Case) -> Wrong | None:
    expr = case.working.problem.expr
    if not isinstance(expr, Equation):
        return None
    known = next((side for side in expr.sides if isinstance(side, Frac)), None)
    blank = next((side for side in expr.sides if isinstance(side, OpenFrac)), None)
    if known is None or blank is None:
        return None
    if blank.den is not None:
        more = blank.den - known.den
        filled = Frac(known.num + more, blank.den)
    elif blank.num is not None:
        more = blank.num - known.num
        filled = Frac(blank.num, known.den + more)
    else:
        return None
    if more == 0 or filled.num < 1 or filled.den < 1:
        return None
    sign = "+" if more > 0 else "-"
    lines = (
        (f"{known.num} {sign} {abs(more)} = {filled.num}",),
        (f"{known.den} {sign} {abs(more)} = {filled.den}",),
        (filled,),
    )
    return Wrong(filled, lines)
