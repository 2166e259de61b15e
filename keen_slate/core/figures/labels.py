"""Numbers as labels of a figure, their fraction bars level; and rows of labels that do not overlap."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from ..expressions.text import text
from ..expressions.tree import Dec, Expr, Frac, Mixed, Neg
from ..expressions.typeset import Role
from ..expressions.voice import MARK, in_sentence
from .display import DIGIT_WIDTH, TEXT_SIZE, WIDTH, Length, Shape, When

HEIGHT = 46  # of a label with a fraction; all labels take as much
_MINUS = "−"
_SPACE = 6


def number_width(number: Expr, sign: str = "") -> int:
    """The room that the label of *number* takes, in units."""
    wide = DIGIT_WIDTH * len(sign) + _SPACE
    match number:
        case Neg(inner):
            return number_width(inner, sign + _MINUS)
        case Frac(num, den):
            return wide + _SPACE * bool(sign) + DIGIT_WIDTH * max(len(str(num)), len(str(den)))
        case Mixed(whole, num, den):
            return wide + DIGIT_WIDTH * (len(str(whole)) + max(len(str(num)), len(str(den)))) + _SPACE
        case Dec(whole, places, period):
            return wide + DIGIT_WIDTH * len(f"{whole}.{places}{period}")
    return wide + DIGIT_WIDTH * len(text(number))


def number_label(
    number: Expr, x: Length, y: Length, role: Role = "", when: When = "", sign: str = ""
) -> Iterator[Shape]:
    """*number* after a *sign*, with its middle at *x*, in the `HEIGHT` units below *y*."""
    if isinstance(number, Neg):
        yield from number_label(number.inner, x, y, role, when, sign + _MINUS)
        return
    width = number_width(number, sign)
    middle = y + HEIGHT // 2 + TEXT_SIZE // 3
    whole = in_sentence(number)
    if isinstance(number, Frac):
        whole = ""
    elif isinstance(number, Mixed):
        whole = str(number.whole)
    elif isinstance(number, Dec) and number.period:
        yield from _recurring(number, x + width // 2 - _SPACE // 2, middle, role, when, sign)
        return
    left = x - width // 2 + _SPACE // 2
    if sign + whole:
        yield Shape("text", "label", (left, middle), role, when, text=sign + whole)
    if isinstance(number, (Frac, Mixed)):
        bar = DIGIT_WIDTH * max(len(str(number.num)), len(str(number.den)))
        right = x + width // 2 - _SPACE // 2
        centre = right - bar // 2
        yield Shape("text", "label", (centre, y + 18), role, when, text=str(number.num), anchor="middle")
        yield Shape("line", "bar", (right - bar, y + 24, right, y + 24), role, when)
        yield Shape("text", "label", (centre, y + 43), role, when, text=str(number.den), anchor="middle")


def _recurring(number: Dec, end: Length, foot: Length, role: Role, when: When, sign: str) -> Iterator[Shape]:
    """A decimal that recurs, up to *end*: a bar over the digits that come again."""
    bar = DIGIT_WIDTH * len(number.period)
    first = f"{sign}{number.whole}{MARK}{number.places}"
    yield Shape("text", "label", (end - bar, foot), role, when, text=first, anchor="end")
    yield Shape("text", "label", (end - bar // 2, foot), role, when, text=number.period, anchor="middle")
    yield Shape("line", "bar", (end - bar + 1, foot - TEXT_SIZE, end - 1, foot - TEXT_SIZE), role, when)


def within(x: Length, width: int) -> Length:
    """The middle nearest to *x* for a label of *width* that stays in the frame."""
    return max(width // 2, min(x, WIDTH - width // 2))


@dataclass(slots=True)
class Levels:
    """Gives each stretch of a line the lowest level on which nothing lies there yet."""

    taken: list[list[tuple[Length, Length]]] = field(default_factory=list)

    def level(self, start: Length, end: Length) -> int:
        """The level for what lies from *start* to *end*, which takes that place."""
        for i, row in enumerate(self.taken):
            if all(end <= s or e <= start for s, e in row):
                row.append((start, end))
                return i
        self.taken.append([(start, end)])
        return len(self.taken) - 1
