"""What all layouts are made of: characters and rules that sit in the squares of the paper.

Lengths are in half squares. The digits of one number stand together, under a bar 0.62 of a square apart, else 0.83;
where place value is worked in columns, each has a square of its own (2). A fraction's bar is as long as its longer
number, the shorter one is centred over or under it. A number is two squares high; its bar lies in the middle.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil
from typing import Literal

from ..expressions.typeset import Role

SQUARE = 2
NUMBER_HEIGHT = 2 * SQUARE
COLUMNS = 14

Size = Literal["tall", "half", "small"]
_APART: dict[Size, float] = {"tall": 1.66, "half": 1.24, "small": 0.9}  # from digit to digit, in half squares


@dataclass(frozen=True, slots=True)
class Cell:
    """A digit, a sign, or a number whose digits stand together: its top left corner and its width *w*, in half squares;
    "tall" is two squares high, "half" one; "small" is as "half", for two digits in one square.

    *below* says that it stands under a bar, *struck* that it is crossed out; *unit* counts the numbers of a line (-1
    for what is no number), *blank* says that pupils fill it in.
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
    w: int = SQUARE


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


def width_of(text: str, size: Size) -> int:
    """How wide a number is whose digits stand together, in half squares.

    >>> [width_of(text, "tall") for text in ("7", "12", "100")], [width_of(text, "half") for text in ("7", "12", "100")]
    ([2, 4, 5], [2, 3, 4])
    """
    return max(SQUARE, ceil(_APART[size] * len(text)))


def together(
    text: str, x: int, y: int, size: Size, role: Role, w: int | None = None, unit: int = -1, *, below: bool = False
) -> Cell:
    """*text* with its digits together from *x* on, in the middle of *w* half squares; as wide as it needs
    without them.
    """
    return Cell(x, y, text, size, role, below, unit=unit, w=width_of(text, size) if w is None else w)


def fraction(
    top: str, bottom: str, x: int, y: int, role: Role, units: tuple[int, int] = (-1, -1)
) -> tuple[list[Cell], Rule]:
    """A fraction with its upper left corner at *x*, *y*; as wide as its longer number."""
    width = max(width_of(top, "half"), width_of(bottom, "half"))
    over = together(top, x, y, "half", role, width, units[0])
    under = together(bottom, x, y + SQUARE, "half", role, width, units[1], below=True)
    return [over, under], Rule(x, y + SQUARE, width, role)
