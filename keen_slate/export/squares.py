"""A sheet in the squares of an exercise book, as SVG: a digit in a square, what pupils write in dashed frames."""

from __future__ import annotations

from collections.abc import Iterator
from html import escape

from keen_slate.core.expressions.typeset import Role
from keen_slate.core.figures.inks import INK, INKS
from keen_slate.core.layouts.cells import SQUARE, SheetCell
from keen_slate.core.layouts.sheet import Sheet

_HALF = 10  # half a square
_SIZES = {"tall": 31, "half": 23, "small": 15.5}
_MILLIMETRES = 2.75  # half a square on paper
_FONT = "Andika, 'DejaVu Sans', sans-serif"
_PAPER = "#d3dfe4"


def squares(sheet: Sheet) -> str:
    """*sheet* as an SVG document; moments that are hidden, and cells that are blanks, are left for pupils to write."""
    across, down = _across(sheet), _down(sheet)
    inner = "".join([*_paper(across, down), *_fills(sheet), *_rules(sheet), *_cells(sheet)])
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {_HALF * across} {_HALF * down}" '
        f'width="{_MILLIMETRES * across}mm" '
        f'height="{_MILLIMETRES * down}mm" font-family="{_FONT}" text-anchor="middle"><g transform="translate({_HALF} '
        f'{_HALF})">'
        f"{inner}</g></svg>"
    )


def size_of(sheet: Sheet) -> tuple[int, int, float]:
    """How wide and high the document of *sheet* is in its own units, and how wide in millimetres."""
    return _HALF * _across(sheet), _HALF * _down(sheet), _MILLIMETRES * _across(sheet)


def _across(sheet: Sheet) -> int:
    return sheet.width + sheet.width % SQUARE + SQUARE


def _down(sheet: Sheet) -> int:
    return sheet.height + sheet.height % SQUARE + SQUARE


def _paper(across: int, down: int) -> Iterator[str]:
    lines = [f"M{_HALF * x} {-_HALF}V{_HALF * down}" for x in range(1, across, SQUARE)]
    lines += [f"M{-_HALF} {_HALF * y}H{_HALF * across}" for y in range(1, down, SQUARE)]
    yield f'<path d="{"".join(lines)}" transform="translate({-_HALF} {-_HALF})" stroke="{_PAPER}" stroke-width="0.8"/>'


def _seen(sheet: Sheet, at: int) -> bool:
    return not (at and sheet.moments[at - 1].hidden)


def _fills(sheet: Sheet) -> Iterator[str]:
    for fill in sheet.fills:
        yield _frame(fill.x, fill.y, fill.w, fill.h)


def _frame(x: int, y: int, w: int, h: int) -> str:
    return (
        f'<rect x="{_HALF * x + 1}" y="{_HALF * y + 1}" width="{_HALF * w - 2}" height="{_HALF * h - 2}" fill="#fff" '
        f'stroke="#55656f" stroke-width="1.2" stroke-dasharray="4 3"/>'
    )


def _rules(sheet: Sheet) -> Iterator[str]:
    for rule in sheet.rules:
        if _seen(sheet, rule.at):
            yield (
                f'<path d="M{_HALF * rule.x + 1} {_HALF * rule.y}h{_HALF * rule.w - 2}" stroke="{_colour(rule.role)}" '
                f'stroke-width="1.8"/>'
            )


def _cells(sheet: Sheet) -> Iterator[str]:
    for cell in sheet.cells:
        if not _seen(sheet, cell.at):
            continue
        high = 2 * SQUARE if cell.size == "tall" else SQUARE
        if cell.blank:
            yield _frame(cell.x, cell.y, cell.w, high)
        else:
            yield _character(cell, high)
        if cell.struck_at and _seen(sheet, cell.struck_at):
            x, y = _HALF * cell.x, _HALF * cell.y
            yield (
                f'<path d="M{x + 1} {y + _HALF * high * 0.78:g}L{x + cell.w * _HALF - 1} {y + _HALF * high * 0.22:g}" '
                f'stroke="{_colour("carried")}" stroke-width="2"/>'
            )


def _character(cell: SheetCell, high: int) -> str:
    size = _SIZES[cell.size]
    base = _HALF * cell.y + _HALF * high / 2 + 0.36 * size + (1.5 if cell.below else 0)
    return (
        f'<text x="{_HALF * cell.x + _HALF * cell.w / 2:g}" y="{base:g}" font-size="{size}" '
        f'fill="{_colour(cell.role)}">'
        f"{escape(cell.text)}</text>"
    )


def _colour(role: Role) -> str:
    return INKS[role].colour if role else INK
