"""Working -> rows of cells that sit in the squares of the paper. Screen and handout only place them.

Lengths are in half squares: a digit takes one square (2), a fraction's bar as many squares as its longer
number, the shorter number is centred over or under it. A row is two squares high; the bar lies in its middle.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from .wording import Glyph, Role, Roles, glyphs
from .working import Working

SQUARE = 2
ROW_HEIGHT = 2 * SQUARE
COLUMNS = 14

Size = Literal["tall", "half"]


@dataclass(frozen=True, slots=True)
class Cell:
    """One character: its top left corner, in half squares; "tall" is two squares high, "half" one.

    *below* says that it stands under a bar.
    """

    x: int
    y: int
    text: str
    size: Size
    role: Role
    below: bool = False


@dataclass(frozen=True, slots=True)
class Rule:
    """A fraction bar: from *x*, *w* wide, at height *y*."""

    x: int
    y: int
    w: int
    role: Role


@dataclass(frozen=True, slots=True)
class Row:
    """One written line; *step* is the index of the step it ends, None for the problem itself."""

    step: int | None
    width: int
    height: int
    cells: tuple[Cell, ...]
    rules: tuple[Rule, ...]


def line(working: Working, columns: int = COLUMNS) -> list[Row]:
    """One expression a line, the equals signs under each other; a line longer than *columns* squares goes on below.

    The first square of every row is kept for the equals sign.
    """
    problem = _row(None, glyphs(working.problem.expr, working.problem_roles), "", columns)
    steps = [
        _row(i, glyphs(step.after, _answer_roles(working, i) or step.roles), "=", columns)
        for i, step in enumerate(working.steps)
    ]
    return [problem, *steps]


def _answer_roles(working: Working, i: int) -> Roles:
    return ("answer",) if i == len(working.steps) - 1 else ()


def _row(step: int | None, pieces: list[Glyph], lead: str, columns: int) -> Row:
    placer = _Placer(columns * SQUARE)
    if lead:
        placer.cells.append(Cell(0, 0, lead, "tall", ""))
    for piece in pieces:
        placer.place(piece)
    return Row(step, placer.widest, placer.y + ROW_HEIGHT, tuple(placer.cells), tuple(placer.rules))


class _Placer:
    """Places pieces from left to right, and goes to a new line before an operator where the line is full."""

    def __init__(self, limit: int) -> None:
        self.limit = limit
        self.x = SQUARE
        self.y = 0
        self.widest = SQUARE
        self.cells: list[Cell] = []
        self.rules: list[Rule] = []
        self.break_at: tuple[int, int, int] = (0, 0, SQUARE)  # counts of cells and rules, and x, at the last operator

    def place(self, piece: Glyph) -> None:
        if piece["kind"] == "operator":
            self.break_at = (len(self.cells), len(self.rules), self.x)
        if piece["kind"] == "fraction":
            self._fraction(piece["top"], piece["bottom"], piece["role"])
        else:
            self._characters(piece["text"], self.x, self.y, "tall", piece["role"])
            if piece["kind"] == "recurring":
                self.rules.append(Rule(self.x, self.y, SQUARE * len(piece["text"]), piece["role"]))
            self.x += SQUARE * len(piece["text"])
        if self.x > self.limit and self.break_at[2] > SQUARE:
            self._break()
        self.widest = max(self.widest, self.x)

    def _break(self) -> None:
        """Move everything from the last operator on to a new line."""
        cells, rules, x = self.break_at
        shift, drop = x - SQUARE, ROW_HEIGHT + SQUARE
        self.cells[cells:] = [replace(c, x=c.x - shift, y=c.y + drop) for c in self.cells[cells:]]
        self.rules[rules:] = [replace(r, x=r.x - shift, y=r.y + drop) for r in self.rules[rules:]]
        self.x -= shift
        self.y += drop
        self.break_at = (cells, rules, SQUARE)

    def _characters(self, text: str, x: int, y: int, size: Size, role: Role, below: bool = False) -> None:
        for i, char in enumerate(text):
            self.cells.append(Cell(x + SQUARE * i, y, char, size, role, below))

    def _fraction(self, top: str, bottom: str, role: Role) -> None:
        width = SQUARE * max(len(top), len(bottom))
        for text, below in ((top, False), (bottom, True)):
            x, y = self.x + (width - SQUARE * len(text)) // 2, self.y + SQUARE * below
            self._characters(text, x, y, "half", role, below)
        self.rules.append(Rule(self.x, self.y + SQUARE, width, role))
        self.x += width
