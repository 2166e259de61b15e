"""A page of tables with a line of words before each: a class or a pupil on one page."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from keen_slate.core.documents.plain import plainly
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.figures.inks import INKS

from . import typesetting
from .blocks import written

Cell = str | Sequence[Glyph]
SIZES = (10.5, 9, 7.5, 6.2)  # points; the largest in which all fits on one page


@dataclass(frozen=True, slots=True)
class ReportTable:
    """A heading, words below it, and a table whose first cell of a row is its head."""

    heading: str
    said: str
    head: Sequence[Cell]
    rows: Sequence[Sequence[Cell]]


@dataclass(frozen=True, slots=True)
class Report:
    """What stands on a page."""

    title: str
    said: str
    tables: Sequence[ReportTable]


def report(page: Report, typefaces: Path) -> bytes:
    """*page* as a PDF; *typefaces* is the folder of its typeface."""
    tables = [
        {
            "heading": one.heading,
            "said": one.said,
            "head": [_cell(cell) for cell in one.head],
            "rows": [[_cell(cell) for cell in row] for row in one.rows],
        }
        for one in page.tables
    ]
    look = {"paper": "a4", "large": False, "wide": False, "inks": {role: ink.colour for role, ink in INKS.items()}}
    data = {"title": page.title, "said": page.said, "tables": tables, "sizes": SIZES, "look": look}
    return typesetting.pdf("report.typ", data, typefaces)


def _cell(cell: Cell) -> Any:
    return cell if isinstance(cell, str) else plainly(written("said", cell, OWN))
