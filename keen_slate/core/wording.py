"""Expression -> text in the input notation, words for reading aloud, and tokens for typesetting.

Three printers over one tree. They print what is there and calculate nothing.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from typing import Literal, TypedDict, assert_never

from .numbers import (
    Blank,
    Bracket,
    Dec,
    Equation,
    Expr,
    Frac,
    Mixed,
    Neg,
    Power,
    Product,
    Sum,
    Whole,
)

# Text ----------------------------------------------------------------------------------------------------


def text(expr: Expr) -> str:
    """*expr* in the input notation; the reader reads it back as the same expression.

    >>> text(Sum(Mixed(7, 1, 4), (("-", Mixed(3, 5, 6)),)))
    '7 1/4 - 3 5/6'
    """
    match expr:
        case Whole(n):
            return str(n)
        case Frac(num, den):
            return f"{'_' if num is None else num}/{'_' if den is None else den}"
        case Mixed(whole, num, den):
            return f"{whole} {'_' if num is None else num}/{den}"
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
        case Power(base, exponent):
            return f"{text(base)}^{exponent}"
        case Equation(sides):
            return " = ".join(text(side) for side in sides)
        case _:
            assert_never(expr)


def _or_blank(n: int | None) -> str:
    return "_" if n is None else str(n)


# Words ---------------------------------------------------------------------------------------------------

_UNITS = [
    "zero",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
    "sixteen",
    "seventeen",
    "eighteen",
    "nineteen",
]
_TENS = ["_", "ten", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"]
_SCALES = ((10**12, "trillion"), (10**9, "billion"), (10**6, "million"), (1000, "thousand"), (100, "hundred"))
_ORDINALS = {
    "one": "first", "two": "second", "three": "third", "five": "fifth", "eight": "eighth", "nine": "ninth",
    "twelve": "twelfth",
}  # fmt: skip
_OPERATOR_WORDS = {"+": "plus", "-": "minus", "×": "times", "÷": "divided by"}


@lru_cache(maxsize=4096)
def cardinal(n: int) -> str:
    """The whole number *n* (0 or more) in words, without "and".

    >>> cardinal(418), cardinal(37), cardinal(2005)
    ('four hundred eighteen', 'thirty-seven', 'two thousand five')
    """
    if n < 20:
        return _UNITS[n]
    if n < 100:
        tens, units = divmod(n, 10)
        return _TENS[tens] + (f"-{_UNITS[units]}" if units else "")
    for scale, name in _SCALES:
        if n >= scale:
            head, rest = divmod(n, scale)
            return f"{cardinal(head)} {name}" + (f" {cardinal(rest)}" if rest else "")
    raise AssertionError("every n is below 20 or above a scale")


@lru_cache(maxsize=4096)
def ordinal(n: int) -> str:
    """The ordinal of *n* (1 or more) in words.

    >>> ordinal(31), ordinal(101), ordinal(20), ordinal(200)
    ('thirty-first', 'one hundred first', 'twentieth', 'two hundredth')
    """
    words = cardinal(n)
    cut = max(words.rfind(" "), words.rfind("-")) + 1
    head, last = words[:cut], words[cut:]
    if last in _ORDINALS:
        return head + _ORDINALS[last]
    return head + (last[:-1] + "ieth" if last.endswith("y") else last + "th")


@lru_cache(maxsize=4096)
def parts_name(den: int, many: bool) -> str:
    """What a part is called when a whole is cut into *den* equal parts; *many* for the plural.

    From 100 on the name is hyphenated, so that one hundredth (1/100) and one two-hundredth (1/200) are
    told apart by ear and eye.

    >>> parts_name(2, True), parts_name(31, True), parts_name(100, False), parts_name(200, False)
    ('halves', 'thirty-firsts', 'hundredth', 'two-hundredth')
    """
    if den == 1:
        return "wholes" if many else "whole"
    if den == 2:
        return "halves" if many else "half"
    name = ordinal(den)
    if den in (100, 1000, 10**6, 10**9):
        name = name.removeprefix("one ")
    return name.replace(" ", "-") + ("s" if many else "")


def _fraction_words(num: int | None, den: int | None) -> str:
    if num is None or den is None:
        return f"{'blank' if num is None else cardinal(num)} over {'blank' if den is None else cardinal(den)}"
    return f"{cardinal(num)} {parts_name(den, num != 1)}"


def words(expr: Expr) -> str:
    """*expr* as it is read aloud; "and" stands only between a whole and its fraction.

    >>> words(Mixed(2, 3, 5)), words(Dec(0, "418")), words(Frac(1, 200))
    ('two and three fifths', 'four hundred eighteen thousandths', 'one two-hundredth')
    """
    match expr:
        case Whole(n):
            return cardinal(n)
        case Frac(num, den):
            return _fraction_words(num, den)
        case Mixed(whole, num, den):
            return f"{cardinal(whole)} and {_fraction_words(num, den)}"
        case Sum(first, rest) | Product(first, rest):
            return words(first) + "".join([f" {_OPERATOR_WORDS[o]} {words(inner)}" for o, inner in rest])
        case Neg(inner):
            return f"negative {words(inner)}"
        case Bracket(inner):
            return f"open bracket, {words(inner)}, close bracket"
        case Dec(whole, places, period):
            return _decimal_words(whole, places, period)
        case Blank():
            return "blank"
        case Power(base, exponent):
            return f"{words(base)} to the power {cardinal(exponent)}"
        case Equation(sides):
            return " equals ".join(words(side) for side in sides)
        case _:
            assert_never(expr)


def _decimal_words(whole: int, places: str, period: str) -> str:
    if period:
        digits = " ".join(cardinal(int(digit)) for digit in places)
        recurring = " ".join(cardinal(int(digit)) for digit in period)
        return f"{cardinal(whole)} point {digits}{' ' if digits else ''}{recurring} recurring"
    part = _fraction_words(int(places), 10 ** len(places))
    return f"{cardinal(whole)} and {part}" if whole else part


# Typesetting ---------------------------------------------------------------------------------------------

Role = Literal["", "first", "second", "third", "fourth", "fifth", "sixth", "carried", "answer", "wrong"]
Roles = tuple[Role, ...]
TERM_ROLES: Roles = ("first", "second", "third", "fourth", "fifth", "sixth")


class Glyph(TypedDict, total=False):
    """A piece of typeset text: plain *text*, or a fraction of *top* over *bottom*; *role* gives its ink.

    A "recurring" piece has a bar over it. In a jotting, *key* names a number that may be made a *blank*.
    """

    kind: Literal["words", "number", "operator", "fraction", "power", "recurring"]
    text: str
    top: str
    bottom: str
    role: Role
    key: str
    blank: bool


def _number(text: str, role: Role) -> Glyph:
    return {"kind": "number", "text": text, "role": role}


def _operator(text: str) -> Glyph:
    return {"kind": "operator", "text": "−" if text == "-" else text, "role": ""}


def _fraction(top: int | None, bottom: int | None, role: Role) -> Glyph:
    return {"kind": "fraction", "top": _or_blank(top), "bottom": _or_blank(bottom), "role": role}


def glyphs(expr: Expr, roles: Roles = ()) -> list[Glyph]:
    """*expr* as pieces to be set in a line; *roles* colours its numbers from left to right."""
    return _glyphs(expr, iter(roles))


def _glyphs(expr: Expr, roles: Iterator[Role]) -> list[Glyph]:
    match expr:
        case Whole() | Blank():
            return [_number(text(expr), next(roles, ""))]
        case Dec(whole, places, period):
            ink: Role = next(roles, "")
            recurring: list[Glyph] = [{"kind": "recurring", "text": period, "role": ink}] if period else []
            return [_number(f"{whole}.{places}", ink), *recurring]
        case Frac(num, den):
            return [_fraction(num, den, next(roles, ""))]
        case Mixed(whole, num, den):
            role: Role = next(roles, "")
            return [_number(str(whole), role), _fraction(num, den, role)]
        case Sum(first, rest) | Product(first, rest):
            done = _glyphs(first, roles)
            for operator, inner in rest:
                done += [_operator(operator), *_glyphs(inner, roles)]
            return done
        case Neg(inner):
            return [_number("−", ""), *_glyphs(inner, roles)]
        case Bracket(inner):
            return [_number("(", ""), *_glyphs(inner, roles), _number(")", "")]
        case Power(base, exponent):
            return [*_glyphs(base, roles), {"kind": "power", "text": str(exponent), "role": ""}]
        case Equation(sides):
            sides_glyphs = [_glyphs(side, roles) for side in sides]
            return [glyph for i, side in enumerate(sides_glyphs) for glyph in ([_operator("=")] * (i > 0) + side)]
        case _:
            assert_never(expr)


# Sentences with mathematics in them ------------------------------------------------------------------------


class Scaled:
    """Display only: a fraction whose top and bottom are multiplied or divided by the same number."""

    __slots__ = ("by", "den", "num", "operator")

    def __init__(self, num: int, den: int, operator: Literal["×", "÷"], by: int) -> None:
        self.num, self.den, self.operator, self.by = num, den, operator, by

    def __str__(self) -> str:
        return f"({self.num} {self.operator} {self.by})/({self.den} {self.operator} {self.by})"

    def glyph(self) -> Glyph:
        """The fraction with the factor written beside both its numbers."""
        top, bottom = (f"{n} {self.operator} {self.by}" for n in (self.num, self.den))
        return {"kind": "fraction", "top": top, "bottom": bottom, "role": ""}


Rich = tuple["str | Expr | Scaled", ...]


def plain(rich: Rich) -> str:
    """A sentence as text.

    >>> plain(("Now ", Frac(3, 4), " is left."))
    'Now 3/4 is left.'
    """
    return "".join(
        [part if isinstance(part, str) else str(part) if isinstance(part, Scaled) else text(part) for part in rich]
    )


def spoken(rich: Rich) -> str:
    """A sentence with its mathematics in words."""
    return "".join(
        [part if isinstance(part, str) else str(part) if isinstance(part, Scaled) else words(part) for part in rich]
    )


def typeset(rich: Rich) -> list[Glyph]:
    """A sentence as pieces to be set in a line."""
    done: list[Glyph] = []
    for part in rich:
        if isinstance(part, str):
            done.append({"kind": "words", "text": part})
        elif isinstance(part, Scaled):
            done.append(part.glyph())
        else:
            done += glyphs(part)
    return done
