"""Counters in columns of place value: ten of one place are exchanged for one of the next, or one for ten."""

from __future__ import annotations

from collections.abc import Sequence

from ..arithmetic.columns import Added, Subtracted, add_columns, digits_of, in_last_place, places_of, subtract_columns
from ..expressions.tree import Dec, Expr, Neg, Sum, Whole
from ..expressions.typeset import TERM_ROLES, Role
from ..expressions.voice import MARK, in_sentence
from ..expressions.walks import leaves
from ..working.step import Step
from ..working.step_kinds import COLUMN_ADD, COLUMN_SUBTRACT, TO_FRACTION
from .display import WIDTH, Figure, Shape, When

_WIDEST = 22  # from counter to counter, at most
_ACROSS = 5  # counters side by side in a column
_HEAD = 28
_GAP = 10
_CAPTION = 26
_MOST_COLUMNS = 6
_MOST_NUMBERS = 4
_MONEY = {"$": ("$", "", "c"), "€": ("€", "", "c"), "£": ("£", "", "p")}


def can(step: Step) -> bool:
    """Whether a step is a column calculation with few enough columns and numbers, or writes one such decimal as a
    fraction.
    """
    if (decimal := _decimal(step)) is not None:
        return compared([(decimal, "first", "")]) is not None
    numbers = _numbers(step)
    if not 2 <= len(numbers) <= _MOST_NUMBERS:
        return False
    places = max(places_of(n) for n in numbers)
    return max(len(str(in_last_place(n, places))) for n in [*numbers, _result(step)]) <= _MOST_COLUMNS


def of_step(step: Step, label: str | None) -> Figure:
    """The counters of a column calculation before and after; the columns of money are headed by coins and notes.

    A decimal that becomes a fraction shows how many there are of each place.
    """
    if (decimal := _decimal(step)) is not None and (chart := compared([(decimal, "first", in_sentence(decimal))])):
        return chart
    numbers = _numbers(step)
    places = max(places_of(n) for n in numbers)
    amounts = [in_last_place(n, places) for n in numbers]
    if step.kind is COLUMN_ADD:
        return _Columns(places, add_columns(amounts), amounts, label).adding(numbers)
    return _Columns(places, subtract_columns(amounts[0], amounts[1]), amounts, label).taking(numbers)


def compared(rows: Sequence[tuple[Expr, Role, str]]) -> Figure | None:
    """Numbers under each other in the same columns, each with its caption; None where they have too many columns, or a
    sign.
    """
    numbers = [number for number, _, _ in rows]
    if not all(isinstance(n, (Whole, Dec)) and not (isinstance(n, Dec) and n.period) for n in numbers):
        return None
    places = max(places_of(n) for n in numbers)
    amounts = [in_last_place(n, places) for n in numbers]
    if max(len(str(amount)) for amount in [*amounts, 10**places]) > _MOST_COLUMNS:
        return None
    return _Columns(places, add_columns(amounts), amounts, None).under_each_other(rows)


def _decimal(step: Step) -> Dec | None:
    """The decimal that a step writes as a fraction, where it stands alone and ends."""
    number = step.before
    return number if step.kind is TO_FRACTION and isinstance(number, Dec) and not number.period else None


def _numbers(step: Step) -> list[Expr]:
    """The numbers of the calculation at the beginning of a step, without what waits after it."""
    if step.kind not in (COLUMN_ADD, COLUMN_SUBTRACT):
        return []
    inner = step.before
    while isinstance(inner, Neg) or (isinstance(inner, Sum) and isinstance(inner.first, Neg)):
        inner = inner.first if isinstance(inner, Sum) else inner.inner
    found: list[Expr] = [n for n in leaves(inner) if isinstance(n, (Whole, Dec))]
    waiting = len(leaves(step.after)) - 1
    return found[:2] if step.kind is COLUMN_SUBTRACT else found[: len(found) - waiting]


def _result(step: Step) -> Expr:
    return leaves(step.after)[0]


class _Columns:
    def __init__(
        self, places: int, columns: Sequence[Added] | Sequence[Subtracted], amounts: list[int], label: str | None
    ) -> None:
        self.columns = columns
        self.places = places
        self.amounts = amounts
        self.count = max(len(columns), places + 1)
        self.pitch = min(_WIDEST, (WIDTH // self.count - 10) // _ACROSS)
        self.size = self.pitch - 3
        self.wide = _ACROSS * self.pitch + 10
        self.shapes: list[Shape] = []
        self.heads = [_head(i - places, label) for i in range(self.count)]

    def _left(self, column: int) -> int:
        """Columns are counted from the right; the highest place stands on the left."""
        return (self.count - 1 - column) * self.wide

    def _counter(
        self, column: int, k: int, y: int, role: Role, when: When, before: tuple[int, int] | None = None
    ) -> None:
        x = self._left(column) + (k % _ACROSS) * self.pitch
        top = y + (k // _ACROSS) * self.pitch
        moved = (before[0] - x, before[1] - top, 0) if before else (0, 0, 0)
        square = (x, top, self.size, self.size)
        self.shapes.append(Shape("rect", "part", square, role, when, moved))
        self.shapes.append(Shape("rect", "whole", square, when=when, moved=moved))

    def _at(self, column: int, k: int, y: int) -> tuple[int, int]:
        return self._left(column) + (k % _ACROSS) * self.pitch, y + (k // _ACROSS) * self.pitch

    def _cross(self, column: int, k: int, y: int) -> None:
        x, top = self._at(column, k, y)
        self.shapes.append(Shape("line", "cross", (x, top + self.size, x + self.size, top), when="after"))

    def _frame(self, bottom: int) -> None:
        for column, head in enumerate(self.heads):
            middle = self._left(column) + (self.wide - 6) // 2
            self.shapes.append(Shape("text", "label", (middle, 18), text=head, anchor="middle"))
        for column in range(self.count - 1):
            x = self._left(column) - 4
            self.shapes.append(Shape("line", "thick" if column == self.places - 1 else "thin", (x, 4, x, bottom)))
        self.shapes.append(Shape("line", "thick", (0, _HEAD - 4, self.count * self.wide - 6, _HEAD - 4)))

    def adding(self, numbers: Sequence[Expr]) -> Figure:
        """A row of counters for each number; then all together, each ten crossed off for one of the next place."""
        y = _HEAD + 4
        tops = []
        for amount in self.amounts:
            tops.append(y)
            y += _rows(max(digits_of(amount))) * self.pitch + _GAP
        goal = y
        self.shapes.append(Shape("line", "thin", (0, goal - _GAP // 2, self.count * self.wide - 6, goal - _GAP // 2)))
        most = 0
        for i, column in enumerate(self.columns):
            if not isinstance(column, Added):
                raise TypeError("columns of a sum were expected")
            k = 0
            for row, digit in enumerate(column.digits):
                for n in range(digit):
                    self._counter(i, k, goal, TERM_ROLES[row], "", self._at(i, n, tops[row]))
                    k += 1
            for _ in range(column.carried):
                self._counter(i, k, goal, "carried", "after")
                k += 1
            for n in range(10 * column.carries):
                self._cross(i, n, goal)
            most = max(most, k)
        bottom = goal + _rows(most) * self.pitch
        self._frame(bottom)
        said = [f"{in_sentence(n)} is {self._said(a)}" for n, a in zip(numbers, self.amounts, strict=True)]
        carried = sum(c.carries for c in self.columns if isinstance(c, Added))
        alt = (
            f"Counters in columns for {', '.join(reversed(self.heads))}: {'; '.join(said)}. Then all of them stand "
            "together"
            f"{f', and ten are crossed off {_times(carried)} for one more on the left' if carried else ''}."
        )
        return Figure("place-value", WIDTH, bottom + 2, tuple(self.shapes), alt)

    def taking(self, numbers: Sequence[Expr]) -> Figure:
        """The counters of the first number; exchanged ones are crossed off for ten on the right, then the second is
        taken away.
        """
        y = _HEAD + 4
        most = 0
        for i, column in enumerate(self.columns):
            if not isinstance(column, Subtracted):
                raise TypeError("columns of a difference were expected")
            lent = _lends(self.columns, i)
            for k in range(column.top):
                self._counter(i, k, y, "first", "")
            have = column.top
            if _received(column):
                for k in range(10):
                    self._counter(i, have + k, y, "carried", "after")
                have += 10
            gone = column.bottom + lent
            for k in range(have - gone, have):
                self._cross(i, k, y)
            most = max(most, have)
        bottom = y + _rows(most) * self.pitch
        self._frame(bottom)
        exchanged = sum(map(_received, self.columns))
        alt = (
            f"Counters in columns for {', '.join(reversed(self.heads))}: {in_sentence(numbers[0])} is "
            f"{self._said(self.amounts[0])}. "
            f"Then {f'one is exchanged for ten on its right {_times(exchanged)}, and ' if exchanged else ''}"
            f"the counters of {in_sentence(numbers[1])} are crossed off."
        )
        return Figure("place-value", WIDTH, bottom + 2, tuple(self.shapes), alt)

    def under_each_other(self, rows: Sequence[tuple[Expr, Role, str]]) -> Figure:
        """A row of counters for each number, its caption above it."""
        y = _HEAD + 4
        for (_, role, caption), amount in zip(rows, self.amounts, strict=True):
            self.shapes.append(Shape("text", "label", (0, y + _CAPTION - 8), role, text=caption))
            y += _CAPTION
            digits = digits_of(amount, self.count)
            for column, digit in enumerate(digits):
                for k in range(digit):
                    self._counter(column, k, y, role, "")
            y += _rows(max(digits)) * self.pitch + _GAP
        self._frame(y)
        said = [
            f"{caption} is {self._said(amount)}" for (_, _, caption), amount in zip(rows, self.amounts, strict=True)
        ]
        alt = f"Counters in columns for {', '.join(reversed(self.heads))}: {'; '.join(said)}."
        return Figure("place-value", WIDTH, y + 2, tuple(self.shapes), alt)

    def _said(self, amount: int) -> str:
        digits = digits_of(amount, self.count)
        return ", ".join([str(d) for d in reversed(digits)])


def _lends(columns: Sequence[Added] | Sequence[Subtracted], i: int) -> int:
    """1 where column *i* gives one of its own to the column on its right, else 0."""
    if i == 0:
        return 0
    return int(_received(columns[i - 1]))


def _received(column: Added | Subtracted) -> bool:
    """Whether a column was given ten of its own for one from its left."""
    return isinstance(column, Subtracted) and any(number >= 10 for number in column.above)


def _rows(count: int) -> int:
    return max(1, -(-count // _ACROSS))


def _head(power: int, label: str | None) -> str:
    """What a column is worth: 10, 1, 0.1; of money, notes and coins."""
    if label in _MONEY and power >= -2:
        before, after, small = _MONEY[label]
        return f"{before}{10**power}{after}" if power >= 0 else f"{10 ** (power + 2)}{small}"
    return str(10**power) if power >= 0 else f"0{MARK}{'0' * (-power - 1)}1"


def _times(count: int) -> str:
    """How often something is done."""
    return {1: "once", 2: "twice"}.get(count, f"{count} times")
