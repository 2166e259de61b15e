"""Expressions in the notation of OpenDocument formulas (StarMath): the third printer over the core's tree.

A program that edits such a formula reads this rather than its MathML.
"""

from __future__ import annotations

from typing import assert_never

from keen_slate.core.expressions.text import DecimalMark
from keen_slate.core.expressions.tree import (
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
    Operator,
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
)

_SIGNS: dict[Operator, str] = {"+": "+", "-": "-", "×": "times", "÷": "div"}
_BOX = '"□"'


def starmath(expr: Expr, mark: DecimalMark = ".") -> str:
    """*expr* in StarMath, decimals with the class's *mark*.

    >>> starmath(Sum(Mixed(7, 1, 4), (("-", Frac(5, 6)),))), starmath(Dec(3, "75"), ",")
    ('{7 {1 over 4}} - {5 over 6}', '"3,75"')
    """
    match expr:
        case Whole(n):
            return str(n)
        case Frac(num, den) | OpenFrac(num, den):
            return f"{{{_or_box(num)} over {_or_box(den)}}}"
        case Mixed(whole, num, den):
            return f"{{{whole} {{{num} over {den}}}}}"
        case OpenMixed(whole, den):
            return f"{{{whole} {{{_BOX} over {den}}}}}"
        case Dec(whole, places, period):
            # A comma would part two numbers.
            plain = f"{whole}.{places}" if mark == "." and places else f'"{whole}{mark}{places}"'
            return f"{{{plain} overline {{{period}}}}}" if period else plain
        case Blank():
            return _BOX
        case Neg(inner):
            return f"{{-{starmath(inner, mark)}}}"
        case Bracket(inner):
            return f"left ( {starmath(inner, mark)} right )"
        case OverBar(top, den):
            return f"{{{{{starmath(top, mark)}}} over {den}}}"
        case Power(base, exponent):
            return f"{{{starmath(base, mark)}}}^{{{exponent}}}"
        case Sum(first, rest) | Product(first, rest):
            terms = [f" {_SIGNS[operator]} {starmath(term, mark)}" for operator, term in rest]
            return starmath(first, mark) + "".join(terms)
        case Equation(sides):
            return " = ".join([starmath(side, mark) for side in sides])
        case _:
            assert_never(expr)


def _or_box(n: int | None) -> str:
    return _BOX if n is None else str(n)
