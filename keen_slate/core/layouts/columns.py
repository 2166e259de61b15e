"""Decimals in columns: points under points, carries above, crossed-out digits with the new ones over them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import prod

from ..arithmetic.columns import (
    Added,
    Subtracted,
    add_columns,
    digits_of,
    in_last_place,
    partial_products,
    place_name,
    places_of,
    subtract_columns,
)
from ..expressions.spoken import words
from ..expressions.tree import Dec, Expr, Neg, Product, Sum, Whole, value
from ..expressions.typeset import TERM_ROLES, Role
from ..expressions.walks import leaves
from ..ways.voices import mark_of
from ..working.proof import Working
from ..working.step import Step
from ..working.step_kinds import COLUMN_ADD, COLUMN_SUBTRACT, FILL_ZEROS, MULTIPLY
from .cells import NUMBER_HEIGHT, SQUARE, Cell, Rule, Size, characters
from .rows import step_row
from .sheet import PROBLEM, Pen, Sheet


def columns_of(working: Working) -> Sheet | None:
    """All column calculations of a decimal problem under each other; None where there are none."""
    if working.problem.kind != "decimal":
        return None
    steps = [i for i, step in enumerate(working.steps) if step.kind.pictures == "columns" or _is_long_product(step)]
    if not steps:
        return None
    board = _Board(working)
    for i in steps:
        board.y += NUMBER_HEIGHT * (i != steps[0])
        board.place(i, first=i == steps[0], last=i == steps[-1])
    for i in range(steps[-1] + 1, len(working.steps)):
        board.line(i)
    spoken = f"In columns: {words(working.problem.expr)}. Under the rule: {words(working.steps[steps[-1]].after)}."
    return board.pen.sheet(board.width, board.y, spoken)


def _is_long_product(step: Step) -> bool:
    numbers = leaves(step.before)
    return (
        step.kind is MULTIPLY
        and isinstance(_core(step.before), Product)
        and len(numbers) == 2
        and all(isinstance(n, (Whole, Dec)) for n in numbers)
    )


def _core(expr: Expr) -> Expr:
    while not isinstance(expr, (Sum, Product)):
        inner = getattr(expr, "inner", None)
        if inner is None:
            return expr
        expr = inner
    return expr


class _Board:
    """Places one calculation after the other, from top to bottom; each is written in the order of the hand."""

    def __init__(self, working: Working) -> None:
        self.working = working
        self.mark = mark_of(working.ways)
        # What is still to be written: a result, once made, stands with all its zeros, a number with those that were
        # typed.
        self.made: list[Expr] = []
        self.typed: list[Expr] = [
            n for n in leaves(working.problem.expr) if isinstance(n, Whole) or (isinstance(n, Dec) and not n.period)
        ]
        self.pen = Pen(working)
        self.width = 0
        self.y = 0

    def place(self, index: int, first: bool, last: bool) -> None:
        """The calculation of step *index*. The first is the problem itself, written in columns."""
        step = self.working.steps[index]
        core = _core(step.before)
        if isinstance(core, Sum) and isinstance(core.first, Neg):  # a sum below zero, before other terms
            core = _core(core.first)
        numbers: Sequence[Expr] = leaves(core)
        if step.kind is COLUMN_ADD:
            count = len(numbers) - (len(leaves(step.after)) - 1)
            numbers = numbers[:count]
        elif step.kind is COLUMN_SUBTRACT:
            numbers = numbers[:2]
        result = leaves(step.after)[0]
        role: Role = "answer" if last else ""
        self.pen.moment(PROBLEM if first else index, ("Write it in columns.",))
        if step.kind is MULTIPLY:
            self._product(index, numbers, result, role)
        else:
            self._sum(index, numbers, result, role)
        self.made.append(result)

    def line(self, index: int) -> None:
        """A step that follows the calculations, as a line."""
        row = step_row(self.working, index)
        self.pen.moment(index, self.working.steps[index].title)
        self.pen.row(row, self.y + SQUARE)
        self.y += SQUARE + row.height
        self.width = max(self.width, row.width)

    def _sum(self, index: int, numbers: Sequence[Expr], result: Expr, role: Role) -> None:
        adds = self.working.steps[index].kind is COLUMN_ADD
        places = max(places_of(n) for n in numbers)
        amounts = [in_last_place(n, places) for n in numbers]
        made = digits_of(in_last_place(result, places), places + 1)
        longest = max(len(str(n)) for n in [*amounts, in_last_place(result, places)])
        frame = self._frame(max(longest, places + 1), places)
        added = add_columns(amounts) if adds else []
        at_once = self.working.ways.exchanges_at_once
        subtracted = [] if adds else subtract_columns(amounts[0], amounts[1], at_once)
        over = heights_over(subtracted)
        self.y += max([height for column in over for height in column], default=0 if subtracted else SQUARE)
        top = self.y
        filled = [self._filled(n, places) for n in numbers]
        for row, (amount, zeros) in enumerate(zip(amounts, filled, strict=True)):
            self._number(frame, amount, TERM_ROLES[row % len(TERM_ROLES)], first=zeros)
            if row == len(numbers) - 1:
                self.pen.sign(characters("+" if adds else "−", 0, self.y, "tall", ""))
            self.y += NUMBER_HEIGHT
        self._rule(frame)
        if any(filled):
            self._fill_zeros(frame, index, filled, top)
        for i, a in enumerate(added):
            self._say_added(frame, index, i, a)
            self._digit(frame, made, i, role)
            if a.carries and i + 1 < len(added) and any(added[i + 1].digits):
                self._small(frame, a.carries, i + 1, top - SQUARE)
        for i, s in enumerate(subtracted):
            self._exchange(frame, index, i, subtracted, over, top)
            if i < len(made):
                number = s.above[-1] if s.above else s.top
                self.pen.moment(index, (f"{frame.name(i)}: {number} - {s.bottom} = {s.written}.",))
                self._digit(frame, made, i, role)
        for i in range(len(added or subtracted), len(made)):
            self._digit(frame, made, i, role)
        self.y += NUMBER_HEIGHT

    def _fill_zeros(self, frame: _Frame, index: int, filled: Sequence[int], top: int) -> None:
        """The zeros that make all numbers end in the same place."""
        step = index - 1 if index and self.working.steps[index - 1].kind is FILL_ZEROS else index
        self.pen.moment(step, ("Fill in zeros, so that all end in the same place.",))
        below, self.y = self.y, top
        for zeros in filled:
            self._number(frame, 0, "carried", last=zeros, whole=zeros == frame.places)
            self.y += NUMBER_HEIGHT
        self.y = below

    def _say_added(self, frame: _Frame, index: int, i: int, column: Added) -> None:
        if not any(column.digits):
            self.pen.moment(index, (f"Write the {column.written} that was carried.",))
            return
        numbers = [*column.digits, *([column.carried] if column.carried else [])]
        total = 10 * column.carries + column.written
        more = f": write {column.written}, carry {column.carries}" if column.carries else ""
        self.pen.moment(index, (f"{frame.name(i)}: {' + '.join(map(str, numbers))} = {total}{more}.",))

    def _exchange(
        self, frame: _Frame, index: int, i: int, columns: Sequence[Subtracted], over: Sequence[Sequence[int]], top: int
    ) -> None:
        """What column *i* takes from the left, where it has too few: digits crossed out, the new ones above."""
        if not columns[i].exchanged:
            return
        self.pen.moment(
            index, (f"{frame.name(i)}: {self._top(columns[i], i)} is less than {columns[i].bottom}, so <regroup>.",)
        )
        for j, column in reversed(list(enumerate(columns))):
            x = frame.x(j)
            for k, (above, turn) in enumerate(zip(column.above, column.turns, strict=True)):
                if turn == i:
                    self.pen.strike_at(x, top if k == 0 else top - over[j][k - 1])
                    self._small(frame, above, j, top - over[j][k])

    @staticmethod
    def _top(column: Subtracted, turn: int) -> int:
        """The number over a column before its own exchange."""
        before = [above for above, own in zip(column.above, column.turns, strict=True) if own != turn]
        return before[-1] if before else column.top

    def _product(self, index: int, numbers: Sequence[Expr], result: Expr, role: Role) -> None:
        digits = [places_of(n) for n in numbers]
        amounts = [in_last_place(n, p) for n, p in zip(numbers, digits, strict=True)]
        places = sum(digits)
        made = prod(amounts)
        rows = partial_products(*amounts) if made else []
        # It is multiplied as whole numbers are: the points take no square, and the last one is set at the end.
        frame = self._frame(
            max(
                len(str(made)), places + 1, *[max(len(str(n)), p + 1) + 1 for n, p in zip(amounts, digits, strict=True)]
            ),
            0,
        )
        for row, (amount, p) in enumerate(zip(amounts, digits, strict=True)):
            self._whole(frame, amount, p, TERM_ROLES[row])
            if row:
                self.pen.sign(characters("×", 0, self.y, "tall", ""))
            self.y += NUMBER_HEIGHT
        self._rule(frame)
        if len(rows) > 1:
            for part in rows:
                self.pen.moment(index, (f"{amounts[0]} × {part // amounts[0]} = {part}.",))
                self._whole(frame, part, 0, "")
                self.y += NUMBER_HEIGHT
            self.pen.moment(index, ("Add them.",))
            self._rule(frame)
        else:
            self.pen.moment(index, ("Multiply.",))
        self._digits(frame, digits_of(made, places + 1), role)
        if places:
            self.pen.moment(
                index, (f"Set the point: {places} {'place' if places == 1 else 'places'}, as many as both have.",)
            )
            self._point_between(frame, places, role)
        self.y += NUMBER_HEIGHT

    def _whole(self, frame: _Frame, amount: int, places: int, role: Role) -> None:
        """The digits of *amount*, with a point between two squares where it counts a *places*-th place."""
        self._digits(frame, digits_of(amount, places + 1), role)
        if places:
            self._point_between(frame, places, role)

    def _digits(self, frame: _Frame, digits: Sequence[int], role: Role) -> None:
        for i, digit in enumerate(digits):
            self.pen.write(characters(str(digit), frame.x(i), self.y, "tall", role))

    def _point_between(self, frame: _Frame, places: int, role: Role) -> None:
        self.pen.sign(characters(self.mark, frame.x(places - 1) - SQUARE // 2, self.y, "tall", role))

    # One number -------------------------------------------------------------------------------------------

    def _frame(self, length: int, places: int) -> _Frame:
        """The place of a calculation *length* digits wide: one square is kept for the sign on the left."""
        right = SQUARE * (length + (places > 0))
        self.width = max(self.width, right + SQUARE)
        return _Frame(right, places)

    def _rule(self, frame: _Frame) -> None:
        self.pen.rule(Rule(0, self.y, frame.right + SQUARE, ""))

    def _filled(self, number: Expr, places: int) -> int:
        """How many zeros at the end of *number* were filled in: none where it was typed with them."""
        for left in (self.made, self.typed):
            same = next((n for n in left if places_of(n) <= places and value(n) == value(number)), None)
            if same is not None:
                left.remove(same)
                return places - places_of(same) if left is self.typed else 0
        return 0

    def _number(
        self, frame: _Frame, amount: int, role: Role, first: int = 0, last: int | None = None, whole: bool | None = None
    ) -> None:
        """The digits of *amount* from column *first* up to *last*, with the point where there are places before the
        whole part.
        """
        digits = digits_of(amount, frame.places + 1)
        point = frame.places and (first < frame.places if whole is None else whole)
        for i, digit in list(enumerate(digits))[first : last if last is not None else len(digits)]:
            self.pen.write(characters(str(digit), frame.x(i), self.y, "tall", role))
        if point:
            self._point(frame, role)

    def _point(self, frame: _Frame, role: Role) -> None:
        self.pen.sign(characters(self.mark, frame.right - SQUARE * frame.places, self.y, "tall", role))

    def _digit(self, frame: _Frame, made: Sequence[int], i: int, role: Role) -> None:
        """Digit *i* of a result, and the point that comes before it."""
        if i >= len(made):
            return
        if frame.places and i == frame.places:
            self._point(frame, role)
        self.pen.write(characters(str(made[i]), frame.x(i), self.y, "tall", role))

    def _small(self, frame: _Frame, number: int, column: int, y: int) -> None:
        size: Size = "small" if number > 9 else "half"
        self.pen.write([Cell(frame.x(column), y, str(number), size, "carried")])


@dataclass(frozen=True, slots=True)
class _Frame:
    """Where the digits of a calculation stand: the last one at *right*; a square is kept for the point before the last
    *places*.
    """

    right: int
    places: int

    def x(self, column: int) -> int:
        """Where the digit of a *column* from the right stands."""
        return self.right - SQUARE * (column + (self.places > 0 and column >= self.places))

    def name(self, column: int) -> str:
        """What a column is called, at the beginning of a sentence."""
        name = place_name(column, self.places)
        return name[0].upper() + name[1:]


def heights_over(columns: Sequence[Subtracted]) -> list[list[int]]:
    """How high the new numbers of each column stand over its digit, in half squares.

    Of two numbers with two digits that would stand side by side, squeezed, the one on the left is raised out of the
    way.
    """
    heights: list[list[int]] = []
    for j, column in enumerate(columns):
        right = [h for h, n in zip(heights[-1], columns[j - 1].above, strict=True) if n > 9] if j else []
        own: list[int] = []
        for number in column.above:
            height = (own[-1] if own else 0) + SQUARE
            while number > 9 and any(abs(height - other) < SQUARE for other in right):
                height += 1
            own.append(height)
        heights.append(own)
    return heights
