"""What all notations of formulas share: the walk over the core's tree. A notation says what each node is written as."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from typing import Generic, TypeVar, assert_never

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

BOX = "\u25a1"  # for a number that is to be found
TRUE_SIGNS: dict[Operator, str] = {"+": "+", "-": "\u2212", "×": "\u00d7", "÷": "\u00f7"}
T = TypeVar("T")


class Printer(ABC, Generic[T]):
    """A notation; decimals have the class's *mark*. Where a number is to be found it is given as None."""

    def __init__(self, mark: DecimalMark = ".") -> None:
        self.mark = mark

    def write(self, expr: Expr) -> T:
        """*expr* in this notation."""
        match expr:
            case Whole(n):
                return self.whole(n)
            case Frac(num, den) | OpenFrac(num, den):
                return self.fraction(self.whole(num), self.whole(den))
            case Mixed(whole, num, den):
                return self.mixed(self.whole(whole), self.fraction(self.whole(num), self.whole(den)))
            case OpenMixed(whole, den):
                return self.mixed(self.whole(whole), self.fraction(self.whole(None), self.whole(den)))
            case Dec(whole, places, period):
                return self.decimal(whole, places, period)
            case Blank():
                return self.whole(None)
            case Neg(inner):
                return self.negative(self.write(inner))
            case Bracket(inner):
                return self.bracket(self.write(inner))
            case OverBar(top, den):
                return self.fraction(self.write(top), self.whole(den))
            case Power(base, exponent):
                return self.power(self.write(base), self.whole(exponent))
            case Sum(first, rest) | Product(first, rest):
                return self.chain(self.write(first), [(operator, self.write(term)) for operator, term in rest])
            case Equation(sides):
                return self.equation([self.write(side) for side in sides])
            case _:
                assert_never(expr)

    @abstractmethod
    def whole(self, n: int | None) -> T:
        """A whole number, or the box for one that is to be found."""

    @abstractmethod
    def fraction(self, top: T, bottom: T) -> T:
        """One over the other."""

    @abstractmethod
    def mixed(self, whole: T, part: T) -> T:
        """A whole and its fraction."""

    @abstractmethod
    def decimal(self, whole: int, places: str, period: str) -> T:
        """A decimal; the digits of its *period* recur."""

    @abstractmethod
    def negative(self, inner: T) -> T:
        """The opposite."""

    @abstractmethod
    def bracket(self, inner: T) -> T:
        """What is in brackets."""

    @abstractmethod
    def power(self, base: T, exponent: T) -> T:
        """A power."""

    @abstractmethod
    def chain(self, first: T, rest: Sequence[tuple[Operator, T]]) -> T:
        """A sum or a product."""

    @abstractmethod
    def equation(self, sides: Sequence[T]) -> T:
        """What is equal."""
