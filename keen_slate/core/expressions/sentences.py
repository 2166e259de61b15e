"""Sentences with mathematics in them, and their three printers: as text, in words, typeset."""

from __future__ import annotations

from typing import Literal

from .spoken import words
from .text import text
from .tree import Expr
from .typeset import Glyph, glyphs

# Sentences with mathematics in them ------------------------------------------------------------------------


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
        return {"kind": "fraction", "top": top, "bottom": bottom, "role": ""}


Rich = tuple["str | Expr | Scaled", ...]


def plain(rich: Rich) -> str:
    """A sentence as text.

    >>> plain(("Now ", Frac(3, 4), " is left."))
    'Now 3/4 is left.'
    """
    return "".join(
        [part if isinstance(part, str) else str(part) if isinstance(part, Scaled) else text(part) for part in rich]
    )


def spoken(rich: Rich) -> str:
    """A sentence with its mathematics in words."""
    return "".join(
        [part if isinstance(part, str) else str(part) if isinstance(part, Scaled) else words(part) for part in rich]
    )


def typeset(rich: Rich) -> list[Glyph]:
    """A sentence as pieces to be set in a line."""
    done: list[Glyph] = []
    for part in rich:
        if isinstance(part, str):
            done.append({"kind": "words", "text": part})
        elif isinstance(part, Scaled):
            done.append(part.glyph())
        else:
            done += glyphs(part)
    return done
