"""Sentences with mathematics in them. A `Voice` prints them: as text, in words, typeset."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from .tree import Expr
from .typeset import Drawing, Glyph


class Scaled:
    """Display only: a fraction whose top and bottom are multiplied or divided by the same number."""

    __slots__ = ("by", "den", "num", "operator")

    def __init__(self, num: int, den: int, operator: Literal["×", "÷"], by: int) -> None:
        self.num, self.den, self.operator, self.by = num, den, operator, by

    def __str__(self) -> str:
        return f"({self.num} {self.operator} {self.by})/({self.den} {self.operator} {self.by})"

    def glyph(self) -> Glyph:
        """The fraction with the factor written beside both its numbers."""
        top, bottom = (f"{n} {self.operator} {self.by}" for n in (self.num, self.den))
        return Glyph("fraction", top=top, bottom=bottom)


class Sketch:
    """Display only: something that is drawn beside the lines; *said* is the same in a line.

    It is drawn when it is looked at: of the many problems that a search works, nobody sees the drawings.
    """

    __slots__ = ("_draw", "said")

    def __init__(self, said: str, draw: Callable[[], Drawing]) -> None:
        self.said, self._draw = said, draw

    @property
    def drawing(self) -> Drawing:
        """What is drawn."""
        return self._draw()

    def __str__(self) -> str:
        return self.said

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Sketch) and other.said == self.said and other.drawing == self.drawing

    def __hash__(self) -> int:
        return hash(self.said)


Rich = tuple["str | Expr | Scaled | Sketch", ...]
