"""A sheet of squares as a table for an editor: each number in a cell of its own, at the place that it has on paper.

Lengths are in half squares. A decimal point gets a narrow column of its own, so that the digits beside it stay under
each other.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise, product

from keen_slate.core.layouts.cells import NUMBER_HEIGHT, SQUARE, SheetRule, Size
from keen_slate.core.layouts.sheet import Sheet

HALF_SQUARE = 2.75  # millimetres, as on paper
_MARKS = (".", ",")
_NARROW = 0.3  # half as wide as the column of a decimal point


@dataclass(frozen=True, slots=True)
class Spot:
    """A cell of the table: the first column and row that it takes, how many *across* and *down*, what stands in it;
    *blank*: a frame that pupils write in. A line is drawn *over* it or *under* it where a bar or a rule lies.
    """

    column: int
    row: int
    across: int = 1
    down: int = 1
    text: str = ""
    size: Size = "tall"
    struck: bool = False
    blank: bool = False
    over: bool = False
    under: bool = False


@dataclass(frozen=True, slots=True)
class SheetTable:
    """The table: how wide its columns and how high its rows are, its cells row by row, and what is *said* of it."""

    widths: tuple[float, ...]
    heights: tuple[float, ...]
    spots: tuple[Spot, ...]
    said: str

    def rows(self) -> Iterator[list[tuple[Spot, bool]]]:
        """Each row from left to right: the cells in it, and whether one begins there (else it comes from above)."""
        for row in range(len(self.heights)):
            here = [one for one in self.spots if one.row <= row < one.row + one.down]
            yield [(one, one.row == row) for one in sorted(here, key=lambda one: one.column)]


@dataclass(frozen=True, slots=True)
class _Placed:
    """Something at its place on the sheet."""

    left: float
    top: float
    right: float
    bottom: float
    spot: Spot


def grid(sheet: Sheet, said: str) -> SheetTable:
    """*sheet* as a table that is told as *said*; what is hidden on it is left out, with a frame in its place."""
    placed = [*_cells(sheet), *_frames(sheet)]
    rules = [rule for rule in sheet.rules if _seen(sheet, rule.at)]
    xs = _lines([0, sheet.width], [x for one in placed for x in (one.left, one.right)], _ends(rules))
    ys = _lines([0, sheet.height], [y for one in placed for y in (one.top, one.bottom)], [rule.y for rule in rules])
    taken: dict[tuple[int, int], Spot] = {}
    for one in placed:
        _take(taken, one, xs, ys)
    for column, row in product(range(len(xs) - 1), range(len(ys) - 1)):
        taken.setdefault((column, row), Spot(column, row))
    ruled = {(x, ys.index(rule.y)) for rule in rules for x in _between(xs, rule.x, rule.x + rule.w)}
    spots = sorted(set(taken.values()), key=lambda one: (one.row, one.column))
    return SheetTable(_steps(xs), _steps(ys), tuple([_ruled(one, ruled) for one in spots]), said)


def _seen(sheet: Sheet, at: int) -> bool:
    return not (at and sheet.moments[at - 1].hidden)


def _ends(rules: Iterable[SheetRule]) -> list[float]:
    return [x for rule in rules for x in (rule.x, rule.x + rule.w)]


def _lines(*some: Iterable[float]) -> list[float]:
    return sorted({place for each in some for place in each})


def _steps(lines: list[float]) -> tuple[float, ...]:
    return tuple([b - a for a, b in pairwise(lines)])


def _cells(sheet: Sheet) -> Iterator[_Placed]:
    """What is written, digits beside a decimal point a little narrower for it."""
    seen = [one for one in sheet.cells if _seen(sheet, one.at)]
    points = {one.x + 1 for one in seen if one.text in _MARKS}
    for one in seen:
        left, right = float(one.x), float(one.x + one.w)
        if one.text in _MARKS:
            left, right = one.x + 1 - _NARROW, one.x + 1 + _NARROW
        else:
            left, right = left + _NARROW * (one.x in points), right - _NARROW * (one.x + one.w in points)
        high = NUMBER_HEIGHT if one.size == "tall" else SQUARE
        struck = bool(one.struck_at) and _seen(sheet, one.struck_at)
        text = "" if one.blank else one.text
        yield _Placed(left, one.y, right, one.y + high, Spot(0, 0, 1, 1, text, one.size, struck, one.blank))


def _frames(sheet: Sheet) -> Iterator[_Placed]:
    for fill in sheet.fills:
        yield _Placed(fill.x, fill.y, fill.x + fill.w, fill.y + fill.h, Spot(0, 0, blank=True))


def _take(taken: dict[tuple[int, int], Spot], one: _Placed, xs: list[float], ys: list[float]) -> None:
    """Put *one* where nothing stands yet: what comes first keeps its place."""
    columns, rows = list(_between(xs, one.left, one.right)), list(_between(ys, one.top, one.bottom))
    free = [(c, r) for c, r in product(columns, rows) if (c, r) not in taken]
    if not free:
        return
    left, top = min(c for c, _ in free), min(r for _, r in free)
    right, bottom = max(c for c, _ in free), max(r for _, r in free)
    whole = list(product(range(left, right + 1), range(top, bottom + 1)))
    if any(place in taken for place in whole):
        (right, bottom), whole = (left, top), [(left, top)]
    made = replace(one.spot, column=left, row=top, across=right - left + 1, down=bottom - top + 1)
    taken.update(dict.fromkeys(whole, made))


def _between(lines: list[float], first: float, last: float) -> range:
    return range(lines.index(first), lines.index(last))


def _ruled(one: Spot, ruled: set[tuple[int, int]]) -> Spot:
    columns = range(one.column, one.column + one.across)
    return replace(
        one,
        over=any((c, one.row) in ruled for c in columns),
        under=any((c, one.row + one.down) in ruled for c in columns),
    )
