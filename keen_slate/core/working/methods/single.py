"""A lone number: brought to its simplest form, or converted to the form that is asked for."""

from __future__ import annotations

from dataclasses import replace
from math import gcd
from typing import cast, get_args

from ...arithmetic.division import long_division, only_twos_and_fives
from ...errors import ReadError
from ...expressions.sentences import Rich, Scaled
from ...expressions.spoken import parts_name
from ...expressions.terms import Unsigned, parts
from ...expressions.tree import Dec, Expr, Frac, Mixed, Neg, Whole, make
from ...expressions.walks import leaves
from ...reading.kinds import Target
from ...reading.problem import CURRENCY, Problem
from ...ways.settings import Ways
from ..proof import Working
from ..scribe import Scribe
from ..step_kinds import DROP_ZEROS, TO_DECIMAL, TO_FRACTION, TO_IMPROPER
from .forms import finish, improper_line, simplify, tidy_mixed, to_improper, to_mixed

TARGETS: tuple[str, ...] = get_args(Target)


def converting(problem: Problem, target: str) -> Problem:
    """*problem* as a conversion to *target*. Raises `ReadError` where it is not a single number.

    >>> from ...reading.reader import read
    >>> converting(read("4 3/7"), "improper").kind
    'convert'
    """
    if target not in TARGETS:
        raise ReadError(f"There is no form called {target}.", 0, len(target), f"Forms: {', '.join(TARGETS)}.")
    if problem.kind != "simplify":
        length = len(problem.text)
        raise ReadError("Only a single number is converted.", 0, length, "Type one number, like 4 3/7.")
    return replace(problem, kind="convert", target=cast("Target", target))


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
        reason: Rich = ("A whole number is that many <wholes>, each cut into 1 part.",)
        scribe.write(TO_IMPROPER, over_one, ("Write it over 1.",), reason, (improper_line(scribe, number),))
        return over_one
    return number


def _to_mixed(scribe: Scribe, number: Expr) -> Expr:
    return simplify(scribe, to_mixed(scribe, tidy_mixed(scribe, _as_fraction(scribe, number))))


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
    reason = TO_FRACTION.reason
    if number.period:
        nines: int = 10 ** len(number.period) - 1
        num, den = int(number.places + number.period) - num, scale * nines
        title = (f"It recurs after {len(number.period)} digit{'s' * (len(number.period) > 1)}.",)
        reason = "Taken from its own multiple, the part that recurs falls away."
        moved, still = scale * (nines + 1), f" − {scale} times" if scale > 1 else " − once"
        lines = ((f"{moved} times{still} the part after the point is {num}, so it is ", Frac(num, den)),)
    fraction = make(number.whole, num, den)
    scribe.write(TO_FRACTION, fraction, title, (reason,), lines)
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
        reason = f"Over {den * by}, the <numerator> tells the digits after the point."
    else:
        lines = ((f"{num} ÷ {den} = ", Dec(more, places, period) if places or period else Whole(more)),)
        reason = "A fraction is a division: the <numerator> by the <denominator>."
        if period:
            reason += f" A remainder comes back, so the {period} comes again and again."
    scribe.write(TO_DECIMAL, decimal, ("Divide the <numerator> by the <denominator>.",), (reason,), lines)
    return decimal


def drop_zeros(scribe: Scribe, number: Dec) -> Expr:
    """Write *number* without the zeros at the end of its places."""
    places = number.places.rstrip("0")
    if number.period or places == number.places:
        return number
    short = Dec(number.whole, places) if places else Whole(number.whole)
    scribe.write(DROP_ZEROS, short, ("Drop the zeros at the end.",), ())
    return short
