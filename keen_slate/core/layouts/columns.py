"""Decimals in columns: points under points, carries above, crossed-out digits with the new ones over them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from math import prod

from ..arithmetic.columns import add_columns, digits_of, in_last_place, partial_products, places_of, subtract_columns
from ..expressions.spoken import words
from ..expressions.tree import Dec, Expr, Neg, Product, Sum, Whole
from ..expressions.typeset import TERM_ROLES, Role
from ..expressions.walks import leaves
from ..ways.voices import mark_of
from ..working.proof import Working
from ..working.step import Step
from ..working.step_kinds import COLUMN_ADD, COLUMN_SUBTRACT, MULTIPLY, StepKind
from .cells import NUMBER_HEIGHT, SQUARE, Cell, Rule, characters
from .sheet import Sheet


def columns_of(working: Working) -> Sheet | None:
    """All column calculations of a decimal problem under each other; None where there are none."""
    if working.problem.kind != "decimal":
        return None
    steps = [step for step in working.steps if step.kind.pictures == "columns" or _is_long_product(step)]
    if not steps:
        return None
    board = _Board(working)
    for step in steps:
        board.y += NUMBER_HEIGHT * (step is not steps[0])
        board.place(step, last=step is steps[-1])
    spoken = f"In columns: {words(working.problem.expr)}. Under the rule: {words(steps[-1].after)}."
    return Sheet(board.width, board.y, tuple(board.cells), tuple(board.rules), spoken)


def _is_long_product(step: Step) -> bool:
    numbers = list(leaves(step.before))
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
    """Places one calculation after the other, from top to bottom."""

    def __init__(self, working: Working) -> None:
        self.mark = mark_of(working.ways)
        self.typed = list(leaves(working.problem.expr))
        self.cells: list[Cell] = []
        self.rules: list[Rule] = []
        self.width = 0
        self.y = 0

    def place(self, step: Step, last: bool) -> None:
        core = _core(step.before)
        if isinstance(core, Sum) and isinstance(core.first, Neg):  # a sum below zero, before other terms
            core = _core(core.first)
        numbers: list[Expr] = list(leaves(core))
        if step.kind is COLUMN_ADD:
            count = len(numbers) - (len(list(leaves(step.after))) - 1)
            numbers = numbers[:count]
        elif step.kind is COLUMN_SUBTRACT:
            numbers = numbers[:2]
        result = next(leaves(step.after))
        role: Role = "answer" if last else ""
        if step.kind is MULTIPLY:
            self._product(numbers, result, role)
        else:
            self._sum(step.kind, numbers, result, role)

    def _sum(self, kind: StepKind, numbers: Sequence[Expr], result: Expr, role: Role) -> None:
        places = max(places_of(n) for n in numbers)
        amounts = [in_last_place(n, places) for n in numbers]
        made = in_last_place(result, places)
        length = max(len(str(n)) for n in [*amounts, made])
        right = self._right(max(length, places + 1), places)
        top = self.y
        if kind is COLUMN_ADD:
            self.y += SQUARE
            for i, column in enumerate(add_columns(amounts)):
                if column.carried and any(column.digits):
                    self._small(str(column.carried), right, i, places, top)
        else:
            written = subtract_columns(*amounts)
            rows = max([len(c.above) for c in written])
            self.y += SQUARE * rows
            for i, subtracted in enumerate(written):
                for k, above in enumerate(subtracted.above):
                    struck = k < len(subtracted.above) - 1
                    self._small(str(above), right, i, places, self.y - SQUARE * (k + 1), struck)
        for row, (number, amount) in enumerate(zip(numbers, amounts, strict=True)):
            struck_at = set()
            if kind is COLUMN_SUBTRACT and row == 0:
                struck_at = {i for i, c in enumerate(subtract_columns(*amounts)) if c.above}
            ink: Role = TERM_ROLES[row % len(TERM_ROLES)]
            self._number(amount, places, right, ink, struck_at, placeholders=self._filled(number, places))
            if row == len(numbers) - 1:
                sign = "+" if kind is COLUMN_ADD else "−"
                self.cells += characters(sign, 0, self.y, "tall", "")
            self.y += NUMBER_HEIGHT
        self._rule(right)
        self._number(made, places, right, role)
        self.y += NUMBER_HEIGHT

    def _product(self, numbers: Sequence[Expr], result: Expr, role: Role) -> None:
        digits = [places_of(n) for n in numbers]
        amounts = [in_last_place(n, p) for n, p in zip(numbers, digits, strict=True)]
        places = sum(digits)
        made = prod(amounts)
        rows = partial_products(*amounts)
        right = self._right(max(len(str(made)), places + 1, *[len(str(n)) + 1 for n in amounts]), places)
        for row, (amount, p) in enumerate(zip(amounts, digits, strict=True)):
            self._number(amount, p, right, TERM_ROLES[row])
            if row:
                self.cells += characters("×", 0, self.y, "tall", "")
            self.y += NUMBER_HEIGHT
        self._rule(right)
        if len(rows) > 1:
            for part in rows:
                self._number(part, 0, right, "", point_at=places)
                self.y += NUMBER_HEIGHT
            self._rule(right)
        self._number(made, places, right, role)
        self.y += NUMBER_HEIGHT

    # One number -------------------------------------------------------------------------------------------

    def _right(self, length: int, places: int) -> int:
        """Where the last digit of a calculation stands: one square is kept for the sign on the left."""
        right = SQUARE * (length + (places > 0))
        self.width = max(self.width, right + SQUARE)
        return right

    def _x(self, right: int, column: int, places: int) -> int:
        return right - SQUARE * (column + (places > 0 and column >= places))

    def _rule(self, right: int) -> None:
        self.rules.append(Rule(0, self.y, right + SQUARE, ""))

    def _filled(self, number: Expr, places: int) -> int:
        """How many zeros at the end of *number* were filled in: none where it was typed with them."""
        amount = in_last_place(number, places)
        for typed in self.typed:
            if isinstance(typed, (Whole, Dec)) and not (isinstance(typed, Dec) and typed.period):
                p = places_of(typed)
                if p <= places and in_last_place(typed, places) == amount:
                    return places - p
        return 0

    def _number(
        self, amount: int, places: int, right: int, role: Role, struck: set[int] | None = None,
        placeholders: int = 0, point_at: int = 0,
    ) -> None:  # fmt: skip
        """The digits of *amount*, the point before its *places*; *point_at* keeps the square of a point free."""
        gap = places or point_at
        for i, digit in enumerate(digits_of(amount, places + 1)):
            ink: Role = "carried" if i < placeholders else role
            cell = characters(str(digit), self._x(right, i, gap), self.y, "tall", ink, struck=i in (struck or set()))
            self.cells += cell
        if places:
            whole_filled = placeholders == places
            self.cells += characters(
                self.mark, right - SQUARE * places, self.y, "tall", "carried" if whole_filled else role
            )

    def _small(self, number: str, right: int, column: int, places: int, y: int, struck: bool = False) -> None:
        size = replace(
            Cell(self._x(right, column, places), y, number, "half", "carried", struck=struck),
            size="small" if len(number) > 1 else "half",
        )
        self.cells.append(size)
