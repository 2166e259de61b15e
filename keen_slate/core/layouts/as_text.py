"""A layout in characters: two to a square, a line for each half square, what is crossed out with a stroke
through it.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from ..expressions.voice import Voice
from ..working.proof import Working
from .cells import Cell, Row, Rule
from .laying import lay
from .registry import Box
from .rows import line

_STROKE = "\u0336"
_DOWN = {"tall": 2, "half": 1, "small": 1}  # half squares from the top of a character to the line that it is printed in


def layout_text(working: Working, voice: Voice) -> list[str]:
    """The lines that show *working* in the layout of its class."""
    _, laid = lay(working)
    if laid.sheet is not None:
        return _printed(laid.sheet.cells, laid.sheet.rules)
    if laid.boxes:
        return [printed for box in laid.boxes for printed in _box(box, voice)]
    return _rows(line(working))


def _box(box: Box, voice: Voice) -> list[str]:
    answer = f"  [{voice.said(box.answer)}]" if box.answer else ""
    jotted = [f"    {voice.plain(one.rich)}" for one in box.jottings]
    return [f"{box.heading(voice)}{answer}", *[f"  {printed}" for printed in _rows(box.rows)], *jotted, ""]


def _rows(rows: Sequence[Row]) -> list[str]:
    return [printed for row in rows for printed in [*_printed(row.cells, row.rules), ""]]


def _printed(cells: Iterable[Cell], rules: Iterable[Rule]) -> list[str]:
    """Characters at their places, in half squares; of rows that hold nothing there is one at most."""
    at: dict[tuple[int, int], str] = {}
    for rule in rules:
        at |= {(rule.y, rule.x + i): "─" for i in range(rule.w - 1)}
    for cell in cells:
        left = cell.x + (cell.w - len(cell.text)) // 2
        for i, char in enumerate(cell.text):
            at[cell.y + _DOWN[cell.size], left + i] = char + _STROKE * cell.struck
    if not at:
        return []
    rows = range(min(y for y, _ in at), max(y for y, _ in at) + 1)
    right = max(x for _, x in at)
    lines = ["".join([at.get((y, x), " ") for x in range(right + 1)]).rstrip() for y in rows]
    return [one for i, one in enumerate(lines) if one or lines[i - 1]]
