"""A page of tables with a line of words before each: a class or a pupil on one page."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape

from keen_slate.core.expressions.typeset import Glyph

from .marked_up import MATH_STYLE, math

Fonts = dict[int, str]
Cell = str | Sequence[Glyph]
SIZES = (10.5, 9, 7.5, 6.2)  # points; the largest in which all fits on one page
_SHORT = 14  # characters that stay on one line

_STYLE = """
@page { size: a4; margin: 13mm 14mm; }
* { box-sizing: border-box; }
body { font: %spt/1.3 Andika, sans-serif; color: #14191d; margin: 0; }
h1 { font-size: 1.7em; margin: 0; }
h2 { font-size: 1.15em; margin: 3.2mm 0 0.8mm; }
p { margin: 0 0 1mm; }
table { border-collapse: collapse; width: 100%%; }
th, td { border-bottom: 0.5pt solid #8496a0; padding: 0.35mm 1.6mm 0.35mm 0; text-align: left; vertical-align: top; font-weight: 400; }
.short { white-space: nowrap; }
thead th { border-bottom: 0.9pt solid #14191d; vertical-align: bottom; }
"""


@dataclass(frozen=True, slots=True)
class Table:
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
    tables: Sequence[Table]


def report(page: Report, fonts: Fonts, size: float = SIZES[0]) -> str:
    """*page* as an HTML document, its letters of a *size* in points; *fonts* are the addresses of the typeface by weight."""
    faces = "".join(
        f'@font-face {{ font-family: Andika; font-weight: {weight}; src: url("{address}"); }}'
        for weight, address in fonts.items()
    )
    inner = "".join([_table(table) for table in page.tables])
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{escape(page.title)}</title>'
        f"<style>{faces}{MATH_STYLE}{_STYLE % size}</style></head><body><h1>{escape(page.title)}</h1>"
        f"<p>{escape(page.said)}</p>{inner}</body></html>"
    )


def _table(table: Table) -> str:
    head = "".join([f'<th scope="col">{_cell(cell)}</th>' for cell in table.head])
    rows = "".join([_row(row) for row in table.rows])
    said = f"<p>{escape(table.said)}</p>" if table.said else ""
    whole = f"<table><thead><tr>{head}</tr></thead><tbody>{rows}</tbody></table>" if table.rows else ""
    return f"<h2>{escape(table.heading)}</h2>{said}{whole}"


def _row(row: Sequence[Cell]) -> str:
    cells = "".join([f"<td{_kept(cell)}>{_cell(cell)}</td>" for cell in row[1:]])
    return f'<tr><th scope="row">{_cell(row[0])}</th>{cells}</tr>'


def _kept(cell: Cell) -> str:
    return ' class="short"' if isinstance(cell, str) and len(cell) <= _SHORT else ""


def _cell(cell: Cell) -> str:
    return escape(cell) if isinstance(cell, str) else math(cell)
