"""A lone number: brought to its simplest form, or converted to the form that is asked for."""

from __future__ import annotations

from dataclasses import replace
from math import gcd

from ..errors import LimitError, ReadError
from ..numbers import Dec, Expr, Frac, Mixed, Neg, Whole, leaves, make
from ..reading import CURRENCY, Problem
from ..ways import Ways
from ..wording import Rich, Scaled, parts_name
from ..working import Scribe, Working
from .forms import finish, improper_line, simplify, to_improper, to_mixed
from .terms import Unsigned, parts

TARGETS = ("improper", "mixed", "fraction", "decimal")
# A longer decimal is no use to a class.
MOST_PLACES = 24


def converting(problem: Problem, target: str) -> Problem:
    """*problem* as a conversion to *target*. Raises `ReadError` where it is not a single number.

    >>> from ..reading import read
    >>> converting(read("4 3/7"), "improper").kind
    'convert'
    """
    if target not in TARGETS:
        raise ReadError(f"There is no form called {target}.", 0, len(target), f"Forms: {', '.join(TARGETS)}.")
    if problem.kind != "simplify":
        length = len(problem.text)
        raise ReadError("Only a single number is converted.", 0, length, "Type one number, like 4 3/7.")
    return replace(problem, kind="convert", target=target)


def work(problem: Problem, ways: Ways) -> Working:
    """The working of a `simplify` or `convert` problem. Raises `LimitError`."""
    scribe = Scribe(problem.expr, ways)
    (typed,) = leaves(problem.expr)
    scribe.negative = isinstance(problem.expr, Neg)
    if problem.target is not None:
        return _proven(problem, scribe, _CONVERSIONS[problem.target](scribe, typed))
    if not isinstance(typed, Dec):
        return _proven(problem, scribe, finish(scribe, _plain(typed)))
    kept = problem.label in tuple(CURRENCY)
    return _proven(problem, scribe, typed if kept else drop_zeros(scribe, typed))


def _proven(problem: Problem, scribe: Scribe, number: Expr) -> Working:
    raw = problem.expr.inner if isinstance(problem.expr, Neg) else problem.expr
    answer = Neg(number) if scribe.negative else number
    kept = raw if isinstance(raw, (Whole, Frac, Mixed)) else Whole(0)
    return Working(problem, scribe.ways, tuple(scribe.steps), answer, kept, None, tuple(scribe.notes))


def _plain(number: Expr) -> Unsigned:
    if not isinstance(number, (Whole, Frac, Mixed)):
        raise TypeError(f"{number} is not a whole, a fraction or a mixed number")
    return number


# Conversions -----------------------------------------------------------------------------------------------------


def _as_fraction(scribe: Scribe, number: Expr) -> Unsigned:
    """A decimal by its place value; other numbers as they are."""
    return to_fraction(scribe, number) if isinstance(number, Dec) else _plain(number)


def _to_improper(scribe: Scribe, number: Expr) -> Expr:
    number = simplify(scribe, _as_fraction(scribe, number)) if isinstance(number, Dec) else _plain(number)
    if isinstance(number, Mixed):
        return to_improper(scribe, number)
    if isinstance(number, Whole):
        over_one = Frac(number.n, 1)
        reason: Rich = ("A whole number is that many wholes, each cut into 1 part.",)
        scribe.write("to-improper", over_one, ("Write it over 1.",), reason, (improper_line(scribe, number),))
        return over_one
    return number


def _to_mixed(scribe: Scribe, number: Expr) -> Expr:
    return simplify(scribe, to_mixed(scribe, _as_fraction(scribe, number)))


def _to_fraction(scribe: Scribe, number: Expr) -> Expr:
    if isinstance(number, Dec):
        return finish(scribe, to_fraction(scribe, number))
    return _to_improper(scribe, number)


def _to_decimal(scribe: Scribe, number: Expr) -> Expr:
    return number if isinstance(number, Dec) else to_decimal(scribe, _plain(number))


_CONVERSIONS = {"improper": _to_improper, "mixed": _to_mixed, "fraction": _to_fraction, "decimal": _to_decimal}


def to_fraction(scribe: Scribe, number: Dec) -> Unsigned:
    """A decimal as a fraction: by its last place, or over nines where it recurs."""
    scale: int = 10 ** len(number.places)
    num, den = int(number.places or "0"), scale
    lines: tuple[Rich, ...] = ((f"{num} {parts_name(scale, num != 1)}",),)
    title: Rich = (f"The last place counts {parts_name(den, True)}.",)
    reason = "A decimal is a fraction whose denominator is named by its last place."
    if number.period:
        nines: int = 10 ** len(number.period) - 1
        num, den = int(number.places + number.period) - num, scale * nines
        title = (f"It recurs after {len(number.period)} digit{'s' * (len(number.period) > 1)}.",)
        reason = "Taken from its own multiple, the part that recurs falls away."
        moved, still = scale * (nines + 1), f" − {scale} times" if scale > 1 else " − once"
        lines = ((f"{moved} times{still} the part after the point is {num}, so it is ", Frac(num, den)),)
    fraction = make(number.whole, num, den)
    scribe.write("to-fraction", fraction, title, (reason,), lines)
    return fraction


def to_decimal(scribe: Scribe, number: Unsigned) -> Expr:
    """A fraction as a decimal, exactly: terminating, or with its recurring digits. Raises `LimitError`."""
    whole, num, den = parts(number)
    if isinstance(number, Whole):
        return number
    g = gcd(num, den)
    terminates = only_twos_and_fives(den // g)
    if terminates and not only_twos_and_fives(den):
        number = simplify(scribe, number)
        whole, num, den = parts(number)
    more, rest = divmod(num, den)
    places, period = long_division(rest, den)
    decimal: Expr = Dec(whole + more, places, period) if places or period else Whole(whole + more)
    lines: tuple[Rich, ...]
    if terminates and not more and places:
        by = 10 ** len(places) // den
        lines = ((Frac(num, den), " = ", Scaled(num, den, "×", by), " = ", Frac(num * by, den * by)),)
        reason = f"Over {den * by}, the numerator tells the digits after the point."
    else:
        lines = ((f"{num} ÷ {den} = ", Dec(more, places, period) if places or period else Whole(more)),)
        reason = "A fraction is a division: the numerator by the denominator."
        if period:
            reason += f" A remainder comes back, so the {period} comes again and again."
    scribe.write("to-decimal", decimal, ("Divide the numerator by the denominator.",), (reason,), lines)
    return decimal


def only_twos_and_fives(n: int) -> bool:
    """Whether a fraction over *n*, in lowest terms, ends as a decimal."""
    for p in (2, 5):
        while n % p == 0:
            n //= p
    return n == 1


def decimal_length(den: int, most: int) -> tuple[int, int]:
    """How many digits after the point of a fraction over *den*, in lowest terms, do not recur, and how many do.

    With den = 2^a 5^b m the first are max(a, b), and the second the least t with 10^t = 1 modulo m (Hardy and Wright, An
    Introduction to the Theory of Numbers, chapter 9; from memory). Neither is looked for beyond *most* + 1.

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


def drop_zeros(scribe: Scribe, number: Dec) -> Expr:
    """Write *number* without the zeros at the end of its places."""
    places = number.places.rstrip("0")
    if number.period or places == number.places:
        return number
    short = Dec(number.whole, places) if places else Whole(number.whole)
    scribe.write(
        "drop-zeros", short, ("Drop the zeros at the end.",), ("They say that nothing of that place is there.",)
    )
    return short
