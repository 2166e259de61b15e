"""Expressions and workings as MathML and as LaTeX: two printers over the core's tree."""

from __future__ import annotations

from html import escape
from typing import assert_never

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
    Power,
    Product,
    Sum,
    Whole,
)
from keen_slate.core.layouts.rows import lead
from keen_slate.core.working.proof import Working

_LATEX: dict[Operator, str] = {"+": "+", "-": "-", "×": r"\times", "÷": r"\div"}
_MATHML: dict[Operator, str] = {"+": "+", "-": "\u2212", "×": "\u00d7", "÷": "\u00f7"}
_NAMESPACE = "http://www.w3.org/1998/Math/MathML"


def latex(expr: Expr) -> str:
    r"""*expr* as LaTeX, without the marks around it.

    >>> latex(Sum(Mixed(2, 1, 3), (("-", Frac(3, 4)),)))
    '2\\frac{1}{3} - \\frac{3}{4}'
    """
    match expr:
        case Whole(n):
            return str(n)
        case Frac(num, den) | OpenFrac(num, den):
            return rf"\frac{{{_or_box(num)}}}{{{_or_box(den)}}}"
        case Mixed(whole, num, den):
            return rf"{whole}\frac{{{num}}}{{{den}}}"
        case OpenMixed(whole, den):
            return rf"{whole}\frac{{{_or_box(None)}}}{{{den}}}"
        case Dec(whole, places, period):
            return f"{whole}.{places}" + (rf"\overline{{{period}}}" if period else "")
        case Blank():
            return r"\square"
        case Neg(inner):
            return f"-{latex(inner)}"
        case Bracket(inner):
            return rf"\left({latex(inner)}\right)"
        case Power(base, exponent):
            return f"{{{latex(base)}}}^{{{exponent}}}"
        case Sum(first, rest) | Product(first, rest):
            return latex(first) + "".join([f" {_LATEX[operator]} {latex(term)}" for operator, term in rest])
        case Equation(sides):
            return " = ".join(map(latex, sides))
        case _:
            assert_never(expr)


def _or_box(n: int | None) -> str:
    return r"\square" if n is None else str(n)


def mathml(expr: Expr) -> str:
    """*expr* as a MathML document of its own."""
    return f'<math xmlns="{_NAMESPACE}">{_row(expr)}</math>'


def _row(expr: Expr) -> str:
    match expr:
        case Whole(n):
            return _number(str(n))
        case Frac(num, den) | OpenFrac(num, den):
            return f"<mfrac>{_top(num)}{_top(den)}</mfrac>"
        case Mixed(whole, num, den):
            return f"<mrow>{_number(str(whole))}{_row(Frac(num, den))}</mrow>"
        case OpenMixed(whole, den):
            return f"<mrow>{_number(str(whole))}{_row(OpenFrac(None, den))}</mrow>"
        case Dec(whole, places, period):
            plain = _number(f"{whole}.{places}")
            return f"<mrow>{plain}<mover>{_number(period)}<mo>&#xAF;</mo></mover></mrow>" if period else plain
        case Blank():
            return "<mi>\u25a1</mi>"
        case Neg(inner):
            return f"<mrow>{_sign(_MATHML['-'])}{_row(inner)}</mrow>"
        case Bracket(inner):
            return f"<mrow>{_sign('(')}{_row(inner)}{_sign(')')}</mrow>"
        case Power(base, exponent):
            return f"<msup>{_row(base)}{_number(str(exponent))}</msup>"
        case Sum(first, rest) | Product(first, rest):
            terms = "".join([f"{_sign(_MATHML[operator])}{_row(term)}" for operator, term in rest])
            return f"<mrow>{_row(first)}{terms}</mrow>"
        case Equation(sides):
            return f"<mrow>{_sign('=').join(map(_row, sides))}</mrow>"
        case _:
            assert_never(expr)


def _top(n: int | None) -> str:
    return "<mi>\u25a1</mi>" if n is None else _number(str(n))


def _number(written: str) -> str:
    return f"<mn>{escape(written)}</mn>"


def _sign(written: str) -> str:
    return f"<mo>{written}</mo>"


# What stands before a line, in either notation; a blank where its calculation begins.
_LEADS_LATEX = {"": "", "=": "={}", "_=": r"\square ={}"}
_LEADS_MATHML = {"": "", "=": "<mo>=</mo>", "_=": "<mrow><mi>\u25a1</mi><mo>=</mo></mrow>"}


# Workings -----------------------------------------------------------------------------------------------------------


def working_latex(working: Working) -> str:
    """The working, a line each, equals signs under each other (package amsmath)."""
    rows = [f"  & {latex(working.start)} \\\\"]
    for i, step in enumerate(working.steps):
        before = _LEADS_LATEX[lead(working, i).strip()]
        rows.append(f"  {before} & {latex(step.after)} \\\\")
    return "\n".join([r"\begin{align*}", *rows, r"\end{align*}"])


def working_mathml(working: Working) -> str:
    """The working as a table of lines."""
    rows = [("", working.start)]
    rows += [(_LEADS_MATHML[lead(working, i).strip()], step.after) for i, step in enumerate(working.steps)]
    cells = "".join([f"<mtr><mtd>{sign}</mtd><mtd>{_row(line)}</mtd></mtr>" for sign, line in rows])
    return f'<math xmlns="{_NAMESPACE}" display="block"><mtable columnalign="right left">{cells}</mtable></math>'
