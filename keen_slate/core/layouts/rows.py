"""Written lines in the squares: one expression each, the equals signs under each other."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..expressions.tree import Equation, Expr
from ..expressions.typeset import Glyph, Roles
from ..working.proof import Working
from ..working.step_kinds import INVERSE, THEN
from .cells import COLUMNS, NUMBER_HEIGHT, SQUARE, Cell, Row, Rule, Size, characters, fraction, together
from .labels import line_glyphs


def line(working: Working, columns: int = COLUMNS) -> list[Row]:
    """The problem and the end of every step; a line longer than *columns* squares goes on below.

    The first square of every row is kept for the equals sign.
    """
    problem = expression_row(None, working.start, working.problem_roles, "", working, columns)
    return [problem, *(step_row(working, i, columns) for i in range(len(working.steps)))]


def step_row(working: Working, i: int, columns: int = COLUMNS) -> Row:
    """What step *i* of the working ends in, after an equals sign; the answer in its own ink."""
    step = working.steps[i]
    roles: Roles = ("answer",) if i == len(working.steps) - 1 else step.roles
    return expression_row(i, step.after, roles, lead(working, i), working, columns)


def rows_of(working: Working, steps: Sequence[int], columns: int) -> tuple[Row, ...]:
    """The rows of some *steps*, by their indices."""
    return tuple([step_row(working, i, columns) for i in steps])


def lead(working: Working, i: int) -> str:
    """What stands before the end of step *i*: an equals sign; nothing before an equation; the blank where its
    calculation begins.
    """
    if isinstance(working.steps[i].after, Equation) or working.steps[i].kind is THEN:
        return ""
    if not isinstance(working.problem.expr, Equation):
        return "="
    return "_=" if working.steps[i].kind is INVERSE else " ="


def expression_row(
    step: int | None, expr: Expr, roles: Roles, before: str, working: Working, columns: int = COLUMNS
) -> Row:
    """*expr*, a line of *working*, in the squares, with what stands *before* it (an equals sign, or nothing) in the
    first ones.
    """
    placer = _Placer(columns * SQUARE, SQUARE * max(1, len(before)))
    placer.cells += [cell for cell in characters(before, 0, 0, "tall", "") if cell.text != " "]
    for piece in line_glyphs(working, expr, roles):
        placer.place(piece)
    return Row(step, placer.widest, placer.y + NUMBER_HEIGHT, tuple(placer.cells), tuple(placer.rules))


class _Placer:
    """Places pieces from left to right, and goes to a new line before an operator where the line is full."""

    def __init__(self, limit: int, start: int) -> None:
        self.limit = limit
        self.x = start
        self.y = 0
        self.widest = start
        self.units = 0
        self.cells: list[Cell] = []
        self.rules: list[Rule] = []
        self.break_at: tuple[int, int, int] = (0, 0, SQUARE)  # counts of cells and rules, and x, at the last operator

    def place(self, piece: Glyph) -> None:
        if piece.kind == "operator":
            self.break_at = (len(self.cells), len(self.rules), self.x)
        if piece.kind == "fraction":
            units = (self.units, self.units + 1)
            cells, bar = fraction(piece.top or "", piece.bottom or "", self.x, self.y, piece.role, units)
            self.cells += cells
            self.rules.append(bar)
            self.x += bar.w
        else:
            written = (piece.text or "").strip()
            unit = self.units if piece.numbers else -1
            self.x += (piece.text or "").startswith(" ")
            size: Size = "half" if piece.kind == "power" else "tall"
            air = SQUARE + 1 if piece.kind == "operator" else None
            cell = together(written, self.x, self.y, size, piece.role, air, unit)
            self.cells.append(cell)
            if piece.kind == "recurring":
                self.rules.append(Rule(self.x, self.y, cell.w, piece.role))
            self.x += cell.w
        self.units += piece.numbers
        if self.x > self.limit and self.break_at[2] > SQUARE:
            self._break()
        self.widest = max(self.widest, self.x)

    def _break(self) -> None:
        """Move everything from the last operator on to a new line."""
        cells, rules, x = self.break_at
        shift, drop = x - SQUARE, NUMBER_HEIGHT + SQUARE
        self.cells[cells:] = [replace(c, x=c.x - shift, y=c.y + drop) for c in self.cells[cells:]]
        self.rules[rules:] = [replace(r, x=r.x - shift, y=r.y + drop) for r in self.rules[rules:]]
        self.x -= shift
        self.y += drop
        self.break_at = (cells, rules, SQUARE)
