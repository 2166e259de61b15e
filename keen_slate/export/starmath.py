"""Expressions in the notation of OpenDocument formulas (StarMath).

A program that edits such a formula reads this rather than its MathML.
"""

from __future__ import annotations

from collections.abc import Sequence

from keen_slate.core.expressions.text import DecimalMark
from keen_slate.core.expressions.tree import Expr, Operator

from .printer import BOX, Printer

_SIGNS: dict[Operator, str] = {"+": "+", "-": "-", "×": "times", "÷": "div"}


def starmath(expr: Expr, mark: DecimalMark = ".") -> str:
    """*expr* in StarMath, decimals with the class's *mark*.

    >>> from keen_slate.core.expressions.tree import Dec, Frac, Mixed, Sum
    >>> starmath(Sum(Mixed(7, 1, 4), (("-", Frac(5, 6)),))), starmath(Dec(3, "75"), ",")
    ('{7 {1 over 4}} - {5 over 6}', '"3,75"')
    """
    return _StarMath(mark).write(expr)


class _StarMath(Printer[str]):
    def whole(self, n: int | None) -> str:
        return f'"{BOX}"' if n is None else str(n)

    def fraction(self, top: str, bottom: str) -> str:
        # A sum over a number is kept together.
        return f"{{{{{top}}} over {bottom}}}" if " " in top else f"{{{top} over {bottom}}}"

    def mixed(self, whole: str, part: str) -> str:
        return f"{{{whole} {part}}}"

    def decimal(self, whole: int, places: str, period: str) -> str:
        # A comma would part two numbers.
        plain = f"{whole}.{places}" if self.mark == "." and places else f'"{whole}{self.mark}{places}"'
        return f"{{{plain} overline {{{period}}}}}" if period else plain

    def negative(self, inner: str) -> str:
        return f"{{-{inner}}}"

    def bracket(self, inner: str) -> str:
        return f"left ( {inner} right )"

    def power(self, base: str, exponent: str) -> str:
        return f"{{{base}}}^{{{exponent}}}"

    def chain(self, first: str, rest: Sequence[tuple[Operator, str]]) -> str:
        return first + "".join([f" {_SIGNS[operator]} {term}" for operator, term in rest])

    def equation(self, sides: Sequence[str]) -> str:
        return " = ".join(sides)
