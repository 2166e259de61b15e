"""Written numbers and expressions: a frozen tree that keeps the form in which a number was written.

A number has a value (an exact `fractions.Fraction`) and a form. 4/8 stays 4/8 until a step changes it.
All leaves are unsigned; a sign is the node `Neg` around them. Brackets are nodes as well, so a printer
never has to decide about them.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal, assert_never

Operator = Literal["+", "-", "×", "÷"]


class BlankValueError(ValueError):
    """A blank was asked for its value."""


@dataclass(frozen=True, slots=True)
class Whole:
    """A whole number, 0 or more."""

    n: int


@dataclass(frozen=True, slots=True)
class Frac:
    """A fraction as written, proper or improper."""

    num: int
    den: int


@dataclass(frozen=True, slots=True)
class Mixed:
    """A whole and a fraction side by side; the fraction part may be improper until it is tidied."""

    whole: int
    num: int
    den: int


@dataclass(frozen=True, slots=True)
class Dec:
    """A decimal: the whole part, the digits after the mark as written, and a recurring period."""

    whole: int
    places: str
    period: str = ""


@dataclass(frozen=True, slots=True)
class Blank:
    """A missing number."""


@dataclass(frozen=True, slots=True)
class OpenFrac:
    """A fraction with a blank (None) above or below the bar, the other of the two known."""

    num: int | None
    den: int | None


@dataclass(frozen=True, slots=True)
class OpenMixed:
    """A whole and a fraction whose numerator is a blank."""

    whole: int
    den: int


@dataclass(frozen=True, slots=True)
class OverBar:
    """A sum of whole numbers over one denominator: (5 + 8)/20."""

    top: Sum
    den: int


Open = Blank | OpenFrac | OpenMixed  # what has no value until it is filled
Number = Whole | Frac | Mixed | Dec | Open | OverBar


@dataclass(frozen=True, slots=True)
class Neg:
    """A sign before a number, a power or a bracket."""

    inner: Expr


@dataclass(frozen=True, slots=True)
class Sum:
    """Terms joined by + and -, worked from the left."""

    first: Expr
    rest: tuple[tuple[Operator, Expr], ...]


@dataclass(frozen=True, slots=True)
class Product:
    """Factors joined by × and ÷, worked from the left."""

    first: Expr
    rest: tuple[tuple[Operator, Expr], ...]


@dataclass(frozen=True, slots=True)
class Power:
    """A base with a small whole exponent."""

    base: Expr
    exponent: int


@dataclass(frozen=True, slots=True)
class Bracket:
    """An expression in round brackets."""

    inner: Expr


@dataclass(frozen=True, slots=True)
class Equation:
    """Two or more sides that are to be equal."""

    sides: tuple[Expr, ...]


Expr = Number | Neg | Sum | Product | Power | Bracket | Equation


def make(whole: int, num: int, den: int) -> Whole | Frac | Mixed:
    """The plainest form of *whole* + *num*/*den* that keeps the denominator.

    >>> make(3, 0, 4), make(0, 5, 4), make(2, 1, 3)
    (Whole(n=3), Frac(num=5, den=4), Mixed(whole=2, num=1, den=3))
    """
    if num == 0:
        return Whole(whole)
    return Mixed(whole, num, den) if whole else Frac(num, den)


def mixed(number: Fraction) -> Expr:
    """*number* as a whole, proper fraction or mixed number, with its sign.

    >>> mixed(Fraction(-7, 3))
    Neg(inner=Mixed(whole=2, num=1, den=3))
    """
    whole, rest = divmod(abs(number.numerator), number.denominator)
    size = make(whole, rest, number.denominator)
    return Neg(size) if number < 0 else size


def ratio(expr: Expr) -> tuple[int, int]:
    """Numerator and denominator of the exact value, not reduced, denominator above 0.

    Raises `BlankValueError` at a blank and ZeroDivisionError at a division by zero.

    >>> ratio(Mixed(2, 2, 4))
    (10, 4)
    """
    # The three plain numbers are nearly all that is ever asked for; they are quickest found without `match`.
    if isinstance(expr, Whole):
        return expr.n, 1
    if isinstance(expr, Mixed):
        return expr.whole * expr.den + expr.num, expr.den
    if isinstance(expr, Frac):
        return expr.num, expr.den
    match expr:
        case Sum(first, rest):
            return _ratio_of_sum(first, rest)
        case Neg(inner):
            n, d = ratio(inner)
            return -n, d
        case Bracket(inner):
            return ratio(inner)
        case Product(first, rest):
            return _ratio_of_product(first, rest)
        case Power(base, exponent):
            n, d = ratio(base)
            return n**exponent, d**exponent
        case OverBar(top, den):
            n, d = ratio(top)
            return n, d * den
        case Dec(whole, places, period):
            return _ratio_of_decimal(whole, places, period)
        case Blank() | OpenFrac() | OpenMixed() | Equation():
            raise BlankValueError("a blank has no value until it is filled")
        case _:
            assert_never(expr)


def _ratio_of_sum(first: Expr, rest: tuple[tuple[Operator, Expr], ...]) -> tuple[int, int]:
    n, d = ratio(first)
    for operator, term in rest:
        m, e = ratio(term)
        if operator == "-":
            m = -m
        n, d = (n + m, d) if d == e else (n * e + m * d, d * e)
    return n, d


def _ratio_of_product(first: Expr, rest: tuple[tuple[Operator, Expr], ...]) -> tuple[int, int]:
    n, d = ratio(first)
    for operator, factor in rest:
        m, e = ratio(factor)
        if operator == "÷":
            if m == 0:
                raise ZeroDivisionError("division by zero")
            m, e = (e, m) if m > 0 else (-e, -m)
        n, d = n * m, d * e
    return n, d


def _ratio_of_decimal(whole: int, places: str, period: str) -> tuple[int, int]:
    # x = 0.places[period]: with k places and a period of p digits, x * 10^k * (10^p - 1) is whole.
    scale: int = 10 ** len(places)
    n = whole * scale + int(places or "0")
    if not period:
        return n, scale
    nines: int = 10 ** len(period) - 1
    return n * nines + int(period), scale * nines


def value(expr: Expr) -> Fraction:
    """The exact value.

    Raises `BlankValueError` at a blank and ZeroDivisionError at a division by zero.

    >>> value(Dec(0, "1", "6"))
    Fraction(1, 6)
    """
    return Fraction(*ratio(expr))
