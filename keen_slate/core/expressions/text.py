"""Expression -> text in the input notation. It prints what is there and calculates nothing."""

from __future__ import annotations

from fractions import Fraction
from typing import Literal, assert_never

from .tree import (
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
    OverBar,
    Power,
    Product,
    Sum,
    Whole,
)

DecimalMark = Literal[".", ","]


def text(expr: Expr) -> str:
    """*expr* in the input notation; the reader reads it back as the same expression.

    >>> text(Sum(Mixed(7, 1, 4), (("-", Mixed(3, 5, 6)),)))
    '7 1/4 - 3 5/6'
    """
    match expr:
        case Whole(n):
            return str(n)
        case Frac(num, den):
            return f"{num}/{den}"
        case Mixed(whole, num, den):
            return f"{whole} {num}/{den}"
        case Sum(first, rest) | Product(first, rest):
            return text(first) + "".join([f" {operator} {text(inner)}" for operator, inner in rest])
        case Neg(inner):
            return "-" + text(inner)
        case Bracket(inner):
            return f"({text(inner)})"
        case Dec(whole, places, period):
            return f"{whole}.{places}" + (f"[{period}]" if period else "")
        case Blank():
            return "_"
        case OpenFrac(top, bottom):
            return f"{'_' if top is None else top}/{'_' if bottom is None else bottom}"
        case OpenMixed(whole, den):
            return f"{whole} _/{den}"
        case OverBar(over, den):
            return f"({text(over)})/{den}"
        case Power(base, exponent):
            return f"{text(base)}^{exponent}"
        case Equation(sides):
            return " = ".join(text(side) for side in sides)
        case _:
            assert_never(expr)


def exact(number: Fraction) -> str:
    """A value as "n/d" in lowest terms, wholes as "n/1".

    >>> exact(Fraction(-6, 4)), exact(Fraction(3))
    ('-3/2', '3/1')
    """
    return f"{number.numerator}/{number.denominator}"
