"""Long division: how many digits a fraction has as a decimal, and which."""

from __future__ import annotations

from fractions import Fraction
from math import gcd

from ..errors import LimitError
from ..expressions.tree import Dec, Expr, Neg, Whole

# A longer decimal is no use to a class.
MOST_PLACES = 24


def only_twos_and_fives(n: int) -> bool:
    """Whether a fraction over *n*, in lowest terms, ends as a decimal."""
    for p in (2, 5):
        while n % p == 0:
            n //= p
    return n == 1


def decimal_length(den: int, most: int) -> tuple[int, int]:
    """How many digits after the point of a fraction over *den*, in lowest terms, do not recur, and how many do.

    With den = 2^a 5^b m the first are max(a, b), and the second the least t with 10^t = 1 modulo m (Hardy and Wright,
    An Introduction to the Theory of Numbers, chapter 9; from memory). Neither is looked for beyond *most* + 1.

    >>> decimal_length(6, 24), decimal_length(8, 24), decimal_length(7, 24)
    ((1, 1), (3, 0), (0, 6))
    """
    once = 0
    while (shared := gcd(den, 10)) > 1 and once <= most:
        den //= shared
        once += 1
    if den == 1:
        return once, 0
    period, power = 1, 10 % den
    while power != 1 and period <= most:
        period, power = period + 1, power * 10 % den
    return once, period


def long_division(num: int, den: int) -> tuple[str, str]:
    """The digits after the point of num/den (below 1): those that do not recur, and those that do.

    Raises `LimitError` past `MOST_PLACES` digits, before any of them is worked out.

    >>> long_division(1, 6), long_division(3, 4), long_division(1, 7)
    (('1', '6'), ('75', ''), ('', '142857'))
    """
    once, period = decimal_length(den // gcd(num, den), MOST_PLACES)
    if once + period > MOST_PLACES:
        message = f"As a decimal it has more than {MOST_PLACES} digits{' before they recur' if period else ''}."
        raise LimitError(message, 0, len(f"{num}/{den}"), f"Up to {MOST_PLACES} are written; keep the fraction.")
    digits = f"{num * 10 ** (once + period) // den:0{once + period}}" if once + period else ""
    return digits[:once], digits[once:]


def as_decimal(number: Fraction) -> Expr | None:
    """*number* as a whole or as a decimal that ends, with its sign; None where it does not end within `MOST_PLACES`.

    >>> as_decimal(Fraction(-5, 4)), as_decimal(Fraction(3)), as_decimal(Fraction(1, 3))
    (Neg(inner=Dec(whole=1, places='25', period='')), Whole(n=3), None)
    """
    whole, rest = divmod(abs(number.numerator), number.denominator)
    try:
        places, period = long_division(rest, number.denominator)
    except LimitError:
        return None
    if period:
        return None
    size: Expr = Dec(whole, places) if places else Whole(whole)
    return Neg(size) if number < 0 else size
