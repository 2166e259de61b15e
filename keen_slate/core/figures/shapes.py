"""What one whole looks like: a strip, a circle or a square, and how its equal parts are cut, shaded and crossed off."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Protocol

from ..expressions.typeset import Role
from .display import Length, Look, Shape, When


class Form(Protocol):
    """One whole of a figure. Parts are counted from 0; *x*, *y* is the upper left corner of the whole."""

    @property
    def noun(self) -> str:
        """What it is called."""
        ...

    @property
    def width(self) -> int:
        """In units."""
        ...

    @property
    def height(self) -> int:
        """In units."""
        ...

    def outline(self, x: Length, y: Length, when: When) -> Shape:
        """The edge of the whole."""
        ...

    def part(self, x: Length, y: Length, k: int, den: int, role: Role, when: When) -> Shape:
        """Part number *k* of *den* equal ones, shaded."""
        ...

    def cuts(self, x: Length, y: Length, den: int, old: int, look: Look, when: When) -> Iterator[Shape]:
        """The cuts between *den* equal parts, without those between *old* equal parts."""
        ...

    def cross(self, x: Length, y: Length, k: int, den: int, when: When) -> Iterator[Shape]:
        """The strokes that cross a part off."""
        ...


@dataclass(frozen=True, slots=True)
class Strip:
    """A strip, cut across."""

    width: int
    height: int = 34
    noun: str = "strip"

    def _at(self, k: int, den: int) -> Length:
        return exact(self.width * k, den)

    def outline(self, x: Length, y: Length, when: When) -> Shape:
        return Shape("rect", "whole", (x, y, self.width, self.height), when=when)

    def part(self, x: Length, y: Length, k: int, den: int, role: Role, when: When) -> Shape:
        return Shape("rect", "part", (x + self._at(k, den), y, self._at(1, den), self.height), role, when)

    def cuts(self, x: Length, y: Length, den: int, old: int, look: Look, when: When) -> Iterator[Shape]:
        for k in _new_cuts(den, old):
            at = x + self._at(k, den)
            yield Shape("line", look, (at, y, at, y + self.height), when=when)

    def cross(self, x: Length, y: Length, k: int, den: int, when: When) -> Iterator[Shape]:
        ends = (x + self._at(k, den), y + self.height, x + self._at(k + 1, den), y)
        yield Shape("line", "cross", ends, when=when)


@dataclass(frozen=True, slots=True)
class Circle:
    """A circle, cut from its middle; the first part begins at the top and the others follow clockwise."""

    width: int
    noun: str = "circle"

    @property
    def height(self) -> int:
        return self.width

    @property
    def _radius(self) -> int:
        return self.width // 2

    def outline(self, x: Length, y: Length, when: When) -> Shape:
        return Shape("ring", "whole", (x + self._radius, y + self._radius, self._radius), when=when)

    def part(self, x: Length, y: Length, k: int, den: int, role: Role, when: When) -> Shape:
        r = self._radius
        return Shape("sector", "part", (x + r, y + r, r, exact(k, den), exact(k + 1, den)), role, when)

    def cuts(self, x: Length, y: Length, den: int, old: int, look: Look, when: When) -> Iterator[Shape]:
        r = self._radius
        for k in _new_cuts(den, old, from_start=True):
            turn = exact(k, den)
            yield Shape("spoke", look, (x + r, y + r, turn, 0, turn, r), when=when)

    def cross(self, x: Length, y: Length, k: int, den: int, when: When) -> Iterator[Shape]:
        # A small cross near the rim, where a part is widest.
        r = self._radius
        if den == 1:
            for turn in (Fraction(1, 8), Fraction(3, 8)):
                yield Shape("spoke", "cross", (x + r, y + r, turn, r, turn + Fraction(1, 2), r), when=when)
            return
        middle, reach = Fraction(2 * k + 1, 2 * den), Fraction(1, max(4 * den, 18))
        for turn in (middle - reach, middle + reach):
            ends = (x + r, y + r, turn, r * 9 // 10, 2 * middle - turn, r * 11 // 20)
            yield Shape("spoke", "cross", ends, when=when)


@dataclass(frozen=True, slots=True)
class Square:
    """A square, cut down into *columns* or across into *rows*, or both ways into small equal rectangles.

    The small rectangles are counted column by column, or row by row where *across*.
    """

    width: int
    columns: int
    rows: int
    across: bool = False
    noun: str = "square"

    @property
    def height(self) -> int:
        return self.width

    def _cell(self, k: int, den: int) -> tuple[Length, Length, Length, Length]:
        columns, rows = self._cut(den)
        column, row = (k % columns, k // columns) if self.across else (k // rows, k % rows)
        w, h = exact(self.width, columns), exact(self.width, rows)
        return column * w, row * h, w, h

    def _cut(self, den: int) -> tuple[int, int]:
        if den == self.columns * self.rows:
            return self.columns, self.rows
        return (1, den) if self.across else (den, 1)

    def outline(self, x: Length, y: Length, when: When) -> Shape:
        return Shape("rect", "whole", (x, y, self.width, self.width), when=when)

    def part(self, x: Length, y: Length, k: int, den: int, role: Role, when: When) -> Shape:
        cx, cy, w, h = self._cell(k, den)
        return Shape("rect", "part", (x + cx, y + cy, w, h), role, when)

    def cuts(self, x: Length, y: Length, den: int, old: int, look: Look, when: When) -> Iterator[Shape]:
        (columns, rows), (old_columns, old_rows) = self._cut(den), self._cut(old)
        for k in _new_cuts(columns, old_columns):
            at = x + exact(self.width * k, columns)
            yield Shape("line", look, (at, y, at, y + self.width), when=when)
        for k in _new_cuts(rows, old_rows):
            at = y + exact(self.width * k, rows)
            yield Shape("line", look, (x, at, x + self.width, at), when=when)

    def cross(self, x: Length, y: Length, k: int, den: int, when: When) -> Iterator[Shape]:
        cx, cy, w, h = self._cell(k, den)
        yield Shape("line", "cross", (x + cx, y + cy + h, x + cx + w, y + cy), when=when)


def exact(n: int, d: int) -> Length:
    """n/d, as an int where it is whole: most lengths are, and ints are quicker.

    >>> exact(6, 3), exact(1, 3)
    (2, Fraction(1, 3))
    """
    return n // d if n % d == 0 else Fraction(n, d)


def _new_cuts(den: int, old: int, from_start: bool = False) -> list[int]:
    """The cuts k/den that are not among those of *old* parts; a circle has one at its start as well."""
    start = 0 if from_start else 1
    if den == 1:
        return []
    if old == 1:
        return list(range(start, den))
    return [k for k in range(start, den) if k * old % den]
