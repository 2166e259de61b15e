"""A problem as read, and its text with the label where a teacher writes it."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ..errors import LimitError, ReadError
from ..expressions.text import text as write
from ..expressions.tree import Dec, Equation, Expr, Frac, Mixed, OpenFrac, OpenMixed, OverBar, Power, Whole, value
from ..expressions.walks import children, has_blank, largest_integer, leaves
from ..limits import MAX_DIGITS, PRINTED, TOO_LARGE, Limits
from .kinds import Kind, Target, kind_of

CURRENCY = "$€£"
LONE_NUMBER = re.compile(r"-?[0-9_.,/\[\]]+(?: [0-9_]+/[0-9]+)?")


@dataclass(frozen=True, slots=True)
class Problem:
    """A problem as read: *expr* without its *label*, its *kind*, and for a conversion the form wanted."""

    expr: Expr
    label: str | None
    kind: Kind
    target: Target | None = None

    @property
    def text(self) -> str:
        """The problem in the input notation, with its label; it reads back as the same problem."""
        return labelled(write(self.expr), self.label)


def problem_of(expr: Expr, label: str | None = None, limits: Limits = PRINTED) -> Problem:
    """*expr* as a problem, as if it had been typed. Raises `ReadError` where it is none, `LimitError` past the
    *limits*.

    >>> problem_of(Frac(2, 4)).kind
    'simplify'
    """
    written = write(expr)
    for number in leaves(expr):
        refuse_beyond(number, limits, written)
    refuse_what_has_no_value(expr, written)
    kind, complaint = kind_of(expr)
    if complaint is not None:
        raise ReadError(complaint.message, 0, len(written), complaint.hint)
    return Problem(expr, label, kind)


def refuse_beyond(number: Expr, limits: Limits, written: str) -> None:
    """Raise `LimitError` where a *number* is larger or longer than the *limits*."""
    whole, top, bottom, places = 0, 0, 0, 0
    match number:
        case Whole(n):
            whole = n
        case Frac(num, den) | OpenFrac(num, den):
            top, bottom = num or 0, den or 0
        case Mixed(n, num, den):
            whole, top, bottom = n, num, den
        case OpenMixed(n, den):
            whole, bottom = n, den
        case OverBar(over, den):
            top, bottom = largest_integer(over), den
        case Dec(n, digits, period):
            whole, places = n, len(digits + period)
    if max(whole, top) > limits.whole or bottom > limits.denominator or places > limits.places:
        raise LimitError(f"{write(number)} is past the limits.", 0, len(written), "Use a smaller number.")


def refuse_what_has_no_value(expr: Expr, written: str) -> None:
    """Raise `ReadError` at a division by 0 and at 0^0, `LimitError` where a value has too many digits; blanks are
    passed over.
    """
    for inner in children(expr):
        refuse_what_has_no_value(inner, written)
    if isinstance(expr, Equation) or has_blank(expr):
        return
    if isinstance(expr, Power) and expr.exponent == 0 and value(expr.base) == 0:
        raise ReadError("0^0 has no agreed value.", 0, len(written), "Use another exponent or another base.")
    try:
        result = value(expr)
    except ZeroDivisionError:
        raise ReadError(
            "This divides by 0, which has no answer.", 0, len(written), "Divide by another number."
        ) from None
    if max(abs(result.numerator), result.denominator) >= TOO_LARGE:
        raise LimitError(f"{write(expr)} has more than {MAX_DIGITS} digits.", 0, len(written), "Use smaller numbers.")


_NUMBER = re.compile(r"\d+ \d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?")
_PLAIN_SUM = re.compile(rf"(?:{_NUMBER.pattern})(?: [-+] (?:{_NUMBER.pattern}))+")


def labelled(number: str, label: str | None) -> str:
    """*number* with its *label* as a teacher writes it.

    >>> labelled("41 3/8", "%"), labelled("5 3/8", "ft"), labelled("3.20", "$"), labelled("3.20 + 1.85", "$")
    ('41 3/8%', '5 3/8 ft', '$3.20', '$3.20 + $1.85')
    """
    if label is None:
        return number
    if label in CURRENCY and LONE_NUMBER.fullmatch(number):
        return f"-{label}{number[1:]}" if number.startswith("-") else f"{label}{number}"
    if label in CURRENCY and _PLAIN_SUM.fullmatch(number):
        return _NUMBER.sub(lambda found: f"{label}{found.group()}", number)
    return f"{number}{label}" if close_to_number(label) else f"{number} {label}"


def close_to_number(label: str) -> bool:
    """Whether a *label* stands against its number: 50%, 20°."""
    return label in "%°" + CURRENCY
