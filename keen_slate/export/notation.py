"""Expressions and workings as MathML and as LaTeX."""

from __future__ import annotations

import re
from collections.abc import Sequence
from html import escape

from keen_slate.core.expressions.text import DecimalMark
from keen_slate.core.expressions.tree import Expr, Operator
from keen_slate.core.layouts.rows import lead
from keen_slate.core.ways.voices import mark_of
from keen_slate.core.working.proof import Working

from .printer import BOX, TRUE_SIGNS, Printer

_LATEX: dict[Operator, str] = {"+": "+", "-": "-", "×": r"\times", "÷": r"\div"}
NAMESPACE = "http://www.w3.org/1998/Math/MathML"


def latex(expr: Expr, mark: DecimalMark = ".") -> str:
    r"""*expr* as LaTeX, without the marks around it; decimals with the class's *mark*.

    >>> from keen_slate.core.expressions.tree import Frac, Mixed, Sum
    >>> latex(Sum(Mixed(2, 1, 3), (("-", Frac(3, 4)),)))
    '2\\frac{1}{3} - \\frac{3}{4}'
    """
    return _Latex(mark).write(expr)


class _Latex(Printer[str]):
    def whole(self, n: int | None) -> str:
        return r"\square" if n is None else str(n)

    def fraction(self, top: str, bottom: str) -> str:
        return rf"\frac{{{top}}}{{{bottom}}}"

    def mixed(self, whole: str, part: str) -> str:
        return whole + part

    def decimal(self, whole: int, places: str, period: str) -> str:
        point = "." if self.mark == "." else "{,}"
        return f"{whole}{point}{places}" + (rf"\overline{{{period}}}" if period else "")

    def negative(self, inner: str) -> str:
        return f"-{inner}"

    def bracket(self, inner: str) -> str:
        return rf"\left({inner}\right)"

    def power(self, base: str, exponent: str) -> str:
        return f"{{{base}}}^{{{exponent}}}"

    def chain(self, first: str, rest: Sequence[tuple[Operator, str]]) -> str:
        return first + "".join([f" {_LATEX[operator]} {term}" for operator, term in rest])

    def equation(self, sides: Sequence[str]) -> str:
        return " = ".join(sides)


def mathml(expr: Expr, mark: DecimalMark = ".") -> str:
    """*expr* as a MathML document of its own, decimals with the class's *mark*."""
    return f'<math xmlns="{NAMESPACE}">{_row(expr, mark)}</math>'


def _row(expr: Expr, mark: DecimalMark) -> str:
    return _MathML(mark).write(expr)


class _MathML(Printer[str]):
    def whole(self, n: int | None) -> str:
        return f"<mi>{BOX}</mi>" if n is None else _number(str(n))

    def fraction(self, top: str, bottom: str) -> str:
        return f"<mfrac>{top}{bottom}</mfrac>"

    def mixed(self, whole: str, part: str) -> str:
        return f"<mrow>{whole}{part}</mrow>"

    def decimal(self, whole: int, places: str, period: str) -> str:
        plain = _number(f"{whole}{self.mark}{places}")
        return f"<mrow>{plain}<mover>{_number(period)}<mo>&#xAF;</mo></mover></mrow>" if period else plain

    def negative(self, inner: str) -> str:
        return f"<mrow>{_sign(TRUE_SIGNS['-'])}{inner}</mrow>"

    def bracket(self, inner: str) -> str:
        return f"<mrow>{_sign('(')}{inner}{_sign(')')}</mrow>"

    def power(self, base: str, exponent: str) -> str:
        return f"<msup>{base}{exponent}</msup>"

    def chain(self, first: str, rest: Sequence[tuple[Operator, str]]) -> str:
        return f"<mrow>{first}{''.join([_sign(TRUE_SIGNS[operator]) + term for operator, term in rest])}</mrow>"

    def equation(self, sides: Sequence[str]) -> str:
        return f"<mrow>{_sign('=').join(sides)}</mrow>"


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
