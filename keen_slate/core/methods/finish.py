"""From the last number of a calculation to the form the answer must have."""

from __future__ import annotations

from functools import lru_cache
from math import gcd, isqrt

from ..numbers import Frac, Mixed, Whole, make
from ..ways import Ways
from ..wording import Rich, Scaled, parts_name
from ..working import Scribe

# Factor lists beyond this are no help on a board; the greatest shared factor is then only named.
LISTED_UP_TO = 400


@lru_cache(maxsize=1024)
def factors(n: int) -> tuple[int, ...]:
    """All factors of *n* (1 or more), from the smallest.

    >>> factors(12)
    (1, 2, 3, 4, 6, 12)
    """
    low = [k for k in range(1, isqrt(n) + 1) if n % k == 0]
    return tuple(low + [n // k for k in reversed(low) if k * k != n])


def finish(scribe: Scribe, number: Mixed | Frac | Whole, ways: Ways) -> Mixed | Frac | Whole:
    """Write the steps that bring *number* into the answer form; returns the number they end in."""
    if (isinstance(number, Frac) and ways.answer_form == "simplest-mixed") or _is_whole(number):
        number = to_mixed(scribe, number)
    if ways.answer_form != "any-equal":
        number = simplify(scribe, number)
    if isinstance(number, Mixed) and ways.answer_form == "simplest-improper":
        number = to_improper(scribe, number)
    return number


def _is_whole(number: Mixed | Frac | Whole) -> bool:
    return isinstance(number, Frac) and number.num is not None and number.num % (number.den or 1) == 0


def to_mixed(scribe: Scribe, number: Mixed | Frac | Whole) -> Mixed | Frac | Whole:
    """Turn an improper fraction into a mixed or whole number, by dividing; others stay."""
    if not isinstance(number, Frac):
        return number
    num, den = number.num or 0, number.den or 1
    if 0 < num < den:
        return number
    whole, rest = divmod(num, den)
    tidy = make(whole, rest, den)
    scribe.write("to-mixed", tidy, *_to_mixed_words(number, whole, rest), facts=((whole, den),))
    return tidy


def _to_mixed_words(number: Frac, whole: int, rest: int) -> tuple[Rich, Rich, tuple[Rich, ...]]:
    den = number.den or 1
    division = f"{number.num} ÷ {den} = {whole}" + (f" remainder {rest}" if rest else "")
    if number.num == 0:
        return ("Nothing is left.",), (f"No {parts_name(den, True)} at all make 0.",), ()
    return (
        (f"Every {den} {parts_name(den, True)} make a whole.",),
        ("Count how many wholes are full, and keep what is left over as a fraction.",),
        ((division,),),
    )


def simplify(scribe: Scribe, number: Mixed | Frac | Whole) -> Mixed | Frac | Whole:
    """Bring the fraction part to lowest terms with one division by the greatest shared factor."""
    if isinstance(number, Whole):
        return number
    num, den = number.num or 0, number.den or 1
    g = gcd(num, den)
    if g == 1:
        return number
    simple = make(number.whole if isinstance(number, Mixed) else 0, num // g, den // g)
    lines: list[Rich] = []
    if den <= LISTED_UP_TO and num <= LISTED_UP_TO:
        lines += [(f"factors of {n}: {', '.join(map(str, factors(n)))}",) for n in (num, den)]
    lines.append((Frac(num, den), " = ", Scaled(num, den, "÷", g), " = ", Frac(num // g, den // g)))
    scribe.write(
        "simplify",
        simple,
        (f"Divide top and bottom by {g}.",),
        (f"{g} is the greatest factor that {num} and {den} share; fewer, larger pieces are the same amount.",),
        tuple(lines),
        facts=((num // g, g), (den // g, g)),
    )
    return simple


def to_improper(scribe: Scribe, number: Mixed) -> Frac:
    """Turn a mixed number into an improper fraction: the whole times the denominator, and the top added."""
    num = number.num or 0
    top = number.whole * number.den + num
    pieces = parts_name(number.den, True)
    scribe.write(
        "to-improper",
        Frac(top, number.den),
        (f"Count everything in {pieces}.",),
        (f"Each whole is {number.den} {pieces}.",),
        ((f"{number.whole} × {number.den} + {num} = {top}",),),
        facts=((number.whole, number.den),),
    )
    return Frac(top, number.den)
