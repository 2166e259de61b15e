"""Expression -> words for reading aloud. It prints what is there and calculates nothing."""

from __future__ import annotations

from functools import lru_cache
from typing import assert_never

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
OPERATOR_WORDS = {"+": "plus", "-": "minus", "×": "times", "÷": "divided by"}

POWERS = {2: "squared", 3: "cubed"}


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
        return "<wholes>" if many else "<whole>"
    if den == 2:
        return "halves" if many else "half"
    if den == 4:
        return "<fourths>" if many else "<fourth>"
    name = ordinal(den)
    if den in (100, 1000, 10**6, 10**9):
        name = name.removeprefix("one ")
    return name.replace(" ", "-") + ("s" if many else "")


def over_words(num: int | None, den: int | None) -> str:
    """A fraction whose numerator or denominator is still to be found (None)."""
    return f"{'blank' if num is None else cardinal(num)} over {'blank' if den is None else cardinal(den)}"


def fraction_words(num: int, den: int) -> str:
    """A fraction by its name."""
    if num == den == 1:
        return "<one whole>"
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
            return fraction_words(num, den)
        case Mixed(whole, num, den):
            return f"{cardinal(whole)} and {fraction_words(num, den)}"
        case Sum(first, rest) | Product(first, rest):
            return words(first) + "".join([f" {OPERATOR_WORDS[o]} {words(inner)}" for o, inner in rest])
        case Neg(inner):
            return f"negative {words(inner)}"
        case Bracket(inner):
            return f"open bracket, {words(inner)}, close bracket"
        case Dec(whole, places, period):
            return decimal_words(whole, places, period)
        case Blank():
            return "blank"
        case OpenFrac(top, bottom):
            return over_words(top, bottom)
        case OpenMixed(whole, den):
            return f"{cardinal(whole)} and {over_words(None, den)}"
        case OverBar(above, den):
            return f"{words(above)}, all over {cardinal(den)}"
        case Power(base, exponent):
            return f"{words(base)} {POWERS.get(exponent) or f'to the power {cardinal(exponent)}'}"
        case Equation(sides):
            return " equals ".join(words(side) for side in sides)
        case _:
            assert_never(expr)


def decimal_words(whole: int, places: str, period: str = "") -> str:
    """A decimal by its name; one that recurs, digit by digit."""
    if period:
        digits = " ".join(cardinal(int(digit)) for digit in places)
        recurring = " ".join(cardinal(int(digit)) for digit in period)
        return f"{cardinal(whole)} point {digits}{' ' if digits else ''}{recurring} recurring"
    part = fraction_words(int(places), 10 ** len(places))
    return f"{cardinal(whole)} and {part}" if whole else part
