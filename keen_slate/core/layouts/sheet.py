"""A whole working on one sheet, for the layouts that do not go line by line: what is written, and in which order."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, replace

from ..expressions.sentences import Rich
from ..working.keys import step_keys
from ..working.proof import Working
from .cells import Cell, Row, Rule, SheetCell, SheetRule

PROBLEM = -1  # in the place of a step's index


@dataclass(frozen=True, slots=True)
class Moment:
    """Something that is written at once: *step* is the index of the step that it belongs to, -1 for the problem;
    *title* says what.

    *hidden* says that pupils write it.
    """

    step: int
    title: Rich
    hidden: bool = False


@dataclass(frozen=True, slots=True)
class Fill:
    """A frame in the squares where pupils write."""

    x: int
    y: int
    w: int
    h: int


@dataclass(frozen=True, slots=True)
class Sheet:
    """Everything that is written with its *moments* from 1 on, the *fills*, and what a screen reader says of it."""

    width: int
    height: int
    cells: tuple[SheetCell, ...]
    rules: tuple[SheetRule, ...]
    moments: tuple[Moment, ...]
    spoken: str
    fills: tuple[Fill, ...] = ()


class Pen:
    """Writes on a sheet, moment by moment, and gives each cell its key for blanks."""

    def __init__(self, working: Working) -> None:
        self.keys = step_keys(working)
        self.cells: list[SheetCell] = []
        self.rules: list[SheetRule] = []
        self.moments: list[Moment] = []
        self._counts: Counter[str] = Counter()

    def moment(self, step: int, title: Rich) -> None:
        """Whatever is written from now on belongs to *step*, and is uncovered together."""
        self.moments.append(Moment(step, title))

    @property
    def step(self) -> int:
        """The step in hand."""
        return self.moments[-1].step if self.moments else PROBLEM

    @property
    def now(self) -> int:
        """The moment in hand."""
        return len(self.moments)

    def write(self, cells: Iterable[Cell], unit: int | None = None) -> list[str]:
        """Write *cells*; returns their keys.

        Together they are number *unit* of the step's own line; without one, each is its own.
        """
        owner = "problem" if self.step == PROBLEM else self.keys[self.step]
        keys = []
        for c in cells:
            if unit is None:
                keys.append(f"{owner} cell {self._counts[owner]}")
                self._counts[owner] += 1
            else:
                keys.append(f"{owner} {unit}")
            self.cells.append(
                SheetCell(c.x, c.y, c.text, c.size, c.role, c.below, w=c.w, at=self.now, key=keys[-1], unit=c.unit)
            )
        return keys

    def sign(self, cells: Iterable[Cell]) -> None:
        """Write *cells* that are no blanks: signs, equals signs."""
        self.cells += [SheetCell(c.x, c.y, c.text, c.size, c.role, w=c.w, at=self.now) for c in cells]

    def rule(self, rule: Rule) -> None:
        """Draw a bar or rule."""
        self.rules.append(SheetRule(rule.x, rule.y, rule.w, rule.role, at=self.now))

    def row(self, row: Row, y: int) -> None:
        """Write a line of the step in hand at the height *y*; its numbers have the keys that they have in the lines."""
        for cell in row.cells:
            moved = replace(cell, y=cell.y + y)
            if cell.unit < 0:
                self.sign([moved])
            else:
                self.write([moved], cell.unit)
        for rule in row.rules:
            self.rule(replace(rule, y=rule.y + y))

    def strike(self, key: str) -> None:
        """Cross out what has this *key*, now."""
        self.cells = [replace(c, struck=True, struck_at=self.now) if c.key == key else c for c in self.cells]

    def strike_at(self, x: int, y: int) -> None:
        """Cross out the digit that stands there, now."""
        here = max(i for i, c in enumerate(self.cells) if (c.x, c.y) == (x, y))
        self.cells[here] = replace(self.cells[here], struck=True, struck_at=self.now)

    def sheet(self, width: int, height: int, spoken: str) -> Sheet:
        """What was written."""
        return Sheet(width, height, tuple(self.cells), tuple(self.rules), tuple(self.moments), spoken)
