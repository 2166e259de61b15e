"""What all layouts are made of: characters and rules that sit in the squares of the paper.

Lengths are in half squares: a digit takes one square (2), a fraction's bar as many squares as its longer
number, the shorter number is centred over or under it. A number is two squares high; its bar lies in the middle.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..expressions.typeset import Role

SQUARE = 2
NUMBER_HEIGHT = 2 * SQUARE
COLUMNS = 14

Size = Literal["tall", "half", "small"]


@dataclass(frozen=True, slots=True)
class Cell:
    """One character: its top left corner, in half squares; "tall" is two squares high, "half" one; "small" is as "half", for two
    digits in one square.

    *below* says that it stands under a bar, *struck* that it is crossed out; *unit* counts the numbers of a line (-1 for
    what is no number), *blank* says that pupils fill it in.
    """

    x: int
    y: int
    text: str
    size: Size
    role: Role
    below: bool = False
    struck: bool = False
    unit: int = -1
    blank: bool = False


@dataclass(frozen=True, slots=True)
class Rule:
    """A fraction bar or the rule above an answer: from *x*, *w* wide, at height *y*."""

    x: int
    y: int
    w: int
    role: Role


@dataclass(frozen=True, slots=True)
class SheetCell(Cell):
    """A cell of a sheet: written at the moment *at* (0: it stands there from the start), crossed out at *struck_at*.

    *key* names it for blanks; a sign has none.
    """

    at: int = 0
    struck_at: int = 0
    key: str = ""


@dataclass(frozen=True, slots=True)
class SheetRule(Rule):
    """A bar or rule of a sheet, drawn at the moment *at*."""

    at: int = 0


@dataclass(frozen=True, slots=True)
class Row:
    """Something written; *step* is the index of the step it ends, None for the problem itself."""

    step: int | None
    width: int
    height: int
    cells: tuple[Cell, ...]
    rules: tuple[Rule, ...]


def characters(
    text: str, x: int, y: int, size: Size, role: Role, below: bool = False, struck: bool = False, unit: int = -1
) -> list[Cell]:
    """*text*, a square a character, from *x* on."""
    return [Cell(x + SQUARE * i, y, char, size, role, below, struck, unit) for i, char in enumerate(text)]


def fraction(
    top: str, bottom: str, x: int, y: int, role: Role, struck_top: bool = False, units: tuple[int, int] = (-1, -1)
) -> tuple[list[Cell], Rule]:
    """A fraction with its upper left corner at *x*, *y*; as wide as its longer number."""
    width = SQUARE * max(len(top), len(bottom))
    over = x + (width - SQUARE * len(top)) // 2
    under = x + (width - SQUARE * len(bottom)) // 2
    cells = characters(top, over, y, "half", role, struck=struck_top, unit=units[0])
    cells += characters(bottom, under, y + SQUARE, "half", role, below=True, unit=units[1])
    return cells, Rule(x, y + SQUARE, width, role)
