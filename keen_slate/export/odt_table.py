"""Tables of an OpenDocument text."""

from __future__ import annotations

import xml.etree.ElementTree as ET
from collections.abc import Iterable
from itertools import product

from .grid import HALF_SQUARE, SheetTable, Spot
from .opendocument import made, name, within

_TOLD = 36  # half squares: the width of the table that a story tells
_RULE, _FRAME, _THIN = "1.25pt solid #14191d", "1pt dashed #55656f", "0.75pt solid #14191d"


_POINTS = {"tall": 16, "half": 12, "small": 8}
# The sizes of digits, crossed out or not, for the styles of the text.
DIGITS = "\n".join([
    f'<style:style style:name="{before}{size}" style:display-name="Digit {size}{more}" style:family="text">'
    f'<style:text-properties fo:font-size="{points}pt"{line}/></style:style>'
    for size, points in _POINTS.items()
    for before, more, line in (("", "", ""), ("struck-", " crossed out", ' style:text-line-through-style="solid"'))
])  # fmt: skip


def cell_styles(styles: ET.Element) -> ET.Element:
    """The *styles* of a document, with the looks of all cells among them."""
    for blank, over, under in product((False, True), repeat=3):
        plain = _FRAME if blank else "none"
        _look(styles, _cell_name(blank, over, under), {
            "fo:border-top": _RULE if over else plain, "fo:border-bottom": _RULE if under else plain,
            "fo:border-left": plain, "fo:border-right": plain,
        })  # fmt: skip
    _look(styles, "Framed", {"fo:border": _THIN, "fo:padding": "0.15cm", "style:vertical-align": "top"})
    return styles


def _cell_name(blank: bool, over: bool, under: bool) -> str:
    return f"{'Blank' if blank else 'Cell'}{over:d}{under:d}"


def _look(styles: ET.Element, called: str, values: dict[str, str]) -> None:
    style = within(styles, "style:style", {"style:name": called, "style:family": "table-cell"})
    within(style, "style:table-cell-properties", {"style:vertical-align": "middle", "fo:padding": "0cm", **values})


def squares(grid: SheetTable, styles: ET.Element) -> ET.Element:
    """The numbers of a sheet, each in a cell of its own, with bars and rules as borders; the widths and heights go to
    the *styles* of the document.
    """
    table = made("table:table", {"table:style-name": _table_style(sum(grid.widths), styles)})
    within(table, "table:desc", said=grid.said)
    for width in grid.widths:
        within(table, "table:table-column", {"table:style-name": _size(styles, "column", width)})
    for height, row in zip(grid.heights, grid.rows(), strict=True):
        line = within(table, "table:table-row", {"table:style-name": _size(styles, "row", height)})
        for spot, begins in row:
            if begins:
                _cell(line, spot)
            covered = spot.across - 1 if begins else spot.across
            for _ in range(covered):
                within(line, "table:covered-table-cell")
    return table


def told(rows: Iterable[tuple[str, str]], styles: ET.Element) -> ET.Element:
    """What a story tells in a table: a name and an amount in each row."""
    table = made("table:table", {"table:style-name": _table_style(_TOLD, styles)})
    within(table, "table:table-column", {"table:number-columns-repeated": "2"})
    for row in rows:
        line = within(table, "table:table-row")
        for said in row:
            cell = within(line, "table:table-cell", {"table:style-name": "Framed", "office:value-type": "string"})
            within(cell, "text:p", {"text:style-name": "Standard"}, said)
    return table


def boxes(count: int) -> tuple[ET.Element, list[ET.Element]]:
    """A table with room for so many boxes, two beside each other; and its cells."""
    table = made("table:table")
    within(table, "table:table-column", {"table:number-columns-repeated": "2"})
    cells = []
    for _ in range((count + 1) // 2):
        line = within(table, "table:table-row")
        cells += [within(line, "table:table-cell", {"table:style-name": "Framed"}) for _ in range(2)]
    return table, cells


def _cell(line: ET.Element, spot: Spot) -> None:
    cell = within(line, "table:table-cell", {
        "table:style-name": _cell_name(spot.blank, spot.over, spot.under),
        "table:number-columns-spanned": str(spot.across),
        "table:number-rows-spanned": str(spot.down), "office:value-type": "string",
    })  # fmt: skip
    written = within(cell, "text:p", {"text:style-name": "Square"})
    if spot.text:
        look = f"{'struck-' if spot.struck else ''}{spot.size}"
        within(written, "text:span", {"text:style-name": look}, spot.text)


def _table_style(half_squares: float, styles: ET.Element) -> str:
    """The name of the style of a table so wide, at the left of the page."""
    wide = f"{half_squares * HALF_SQUARE / 10:.3f}cm"
    called = f"Table{wide}".replace(".", "-")
    if _is_new(styles, called):
        style = within(styles, "style:style", {"style:name": called, "style:family": "table"})
        about = {"style:width": wide, "table:align": "left", "fo:margin-left": "1cm", "fo:margin-bottom": "0.2cm"}
        about["style:may-break-between-rows"] = "false"
        within(style, "style:table-properties", about)
    return called


def _size(styles: ET.Element, what: str, half_squares: float) -> str:
    """The name of the style of a column or row of this size."""
    length = f"{half_squares * HALF_SQUARE / 10:.3f}cm"
    called = f"{what}{length}".replace(".", "-")
    if _is_new(styles, called):
        style = within(styles, "style:style", {"style:name": called, "style:family": f"table-{what}"})
        key = "style:column-width" if what == "column" else "style:row-height"
        within(style, f"style:table-{what}-properties", {key: length})
    return called


def _is_new(styles: ET.Element, called: str) -> bool:
    return all(one.get(name("style:name")) != called for one in styles)
