"""Expressions and workings as MathML and as LaTeX: two printers over the core's tree."""

from __future__ import annotations

import re
from html import escape
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
from keen_slate.core.layouts.rows import lead
from keen_slate.core.ways.voices import mark_of
from keen_slate.core.working.proof import Working

_LATEX: dict[Operator, str] = {"+": "+", "-": "-", "×": r"\times", "÷": r"\div"}
_MATHML: dict[Operator, str] = {"+": "+", "-": "\u2212", "×": "\u00d7", "÷": "\u00f7"}
NAMESPACE = "http://www.w3.org/1998/Math/MathML"


def latex(expr: Expr, mark: DecimalMark = ".") -> str:
    r"""*expr* as LaTeX, without the marks around it; decimals with the class's *mark*.

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
            point = "." if mark == "." else "{,}"
            return f"{whole}{point}{places}" + (rf"\overline{{{period}}}" if period else "")
        case Blank():
            return r"\square"
        case Neg(inner):
            return f"-{latex(inner, mark)}"
        case Bracket(inner):
            return rf"\left({latex(inner, mark)}\right)"
        case OverBar(top, den):
            return rf"\frac{{{latex(top, mark)}}}{{{den}}}"
        case Power(base, exponent):
            return f"{{{latex(base, mark)}}}^{{{exponent}}}"
        case Sum(first, rest) | Product(first, rest):
            terms = [f" {_LATEX[operator]} {latex(term, mark)}" for operator, term in rest]
            return latex(first, mark) + "".join(terms)
        case Equation(sides):
            return " = ".join([latex(side, mark) for side in sides])
        case _:
            assert_never(expr)


def _or_box(n: int | None) -> str:
    return r"\square" if n is None else str(n)


def mathml(expr: Expr, mark: DecimalMark = ".") -> str:
    """*expr* as a MathML document of its own, decimals with the class's *mark*."""
    return f'<math xmlns="{NAMESPACE}">{_row(expr, mark)}</math>'


def _row(expr: Expr, mark: DecimalMark) -> str:
    match expr:
        case Whole(n):
            return _number(str(n))
        case Frac(num, den) | OpenFrac(num, den):
            return f"<mfrac>{_top(num)}{_top(den)}</mfrac>"
        case Mixed(whole, num, den):
            return f"<mrow>{_number(str(whole))}{_row(Frac(num, den), mark)}</mrow>"
        case OpenMixed(whole, den):
            return f"<mrow>{_number(str(whole))}{_row(OpenFrac(None, den), mark)}</mrow>"
        case Dec(whole, places, period):
            plain = _number(f"{whole}{mark}{places}")
            return f"<mrow>{plain}<mover>{_number(period)}<mo>&#xAF;</mo></mover></mrow>" if period else plain
        case Blank():
            return "<mi>\u25a1</mi>"
        case Neg(inner):
            return f"<mrow>{_sign(_MATHML['-'])}{_row(inner, mark)}</mrow>"
        case Bracket(inner):
            return f"<mrow>{_sign('(')}{_row(inner, mark)}{_sign(')')}</mrow>"
        case OverBar(top, den):
            return f"<mfrac>{_row(top, mark)}{_top(den)}</mfrac>"
        case Power(base, exponent):
            return f"<msup>{_row(base, mark)}{_number(str(exponent))}</msup>"
        case Sum(first, rest) | Product(first, rest):
            terms = "".join([f"{_sign(_MATHML[operator])}{_row(term, mark)}" for operator, term in rest])
            return f"<mrow>{_row(first, mark)}{terms}</mrow>"
        case Equation(sides):
            return f"<mrow>{_sign('=').join([_row(side, mark) for side in sides])}</mrow>"
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


def mathml_with(expr: Expr, mark: DecimalMark, starmath: str) -> str:
    """*expr* as MathML, with the same in StarMath beside it for programs that edit formulas."""
    noted = f'<annotation encoding="StarMath 5.0">{escape(starmath)}</annotation>'
    shown = f"<semantics><mrow>{_row(expr, mark)}</mrow>{noted}</semantics>"
    return f'<math xmlns="{NAMESPACE}" display="block">{shown}</math>'


# With its label -------------------------------------------------------------------------------------------------------


def problem_latex(working: Working) -> str:
    """The problem of a *working* as LaTeX, in the class's decimal mark, with its label."""
    label = working.problem.label
    plain = latex(working.problem.expr, mark_of(working.ways))
    return plain if label is None else f"{plain}\\,\\text{{{_LATEX_TEXT.sub(_escaped, label)}}}"


def problem_mathml(working: Working) -> str:
    """The same as MathML."""
    label = working.problem.label
    shown = _row(working.problem.expr, mark_of(working.ways))
    said = f'<mspace width="0.2em"/><mtext>{escape(label)}</mtext>' if label else ""
    return f'<math xmlns="{NAMESPACE}"><mrow>{shown}{said}</mrow></math>'


_LATEX_TEXT = re.compile(r"[$%#&_{}]")


def _escaped(found: re.Match[str]) -> str:
    return "\\" + found[0]


# Workings -----------------------------------------------------------------------------------------------------------


def working_latex(working: Working) -> str:
    """The working, a line each, equals signs under each other (package amsmath)."""
    mark = mark_of(working.ways)
    rows = [f"  & {latex(working.start, mark)} \\\\"]
    for i, step in enumerate(working.steps):
        before = _LEADS_LATEX[lead(working, i).strip()]
        rows.append(f"  {before} & {latex(step.after, mark)} \\\\")
    return "\n".join([r"\begin{align*}", *rows, r"\end{align*}"])


def working_mathml(working: Working) -> str:
    """The working as a table of lines, the equals signs under each other."""
    mark = mark_of(working.ways)
    rows = [("", working.start)]
    rows += [(_LEADS_MATHML[lead(working, i).strip()], step.after) for i, step in enumerate(working.steps)]
    cells = "".join([f"<mtr><mtd>{sign}</mtd><mtd>{_row(line, mark)}</mtd></mtr>" for sign, line in rows])
    return f'<math xmlns="{NAMESPACE}" display="block"><mtable columnalign="right left">{cells}</mtable></math>'
