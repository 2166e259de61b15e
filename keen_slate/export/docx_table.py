"""Tables of an Office Open XML text, in its own mark-up."""

from __future__ import annotations

from collections.abc import Iterable
from html import escape

from docx.oxml.ns import nsdecls

from .grid import HALF_SQUARE, SheetTable, Spot

_TWIPS = 56.7  # of a millimetre
_POINTS = {"tall": 16, "half": 12, "small": 8}
_RULE = 'w:val="single" w:sz="10" w:space="0" w:color="14191D"'
_FRAME = 'w:val="dashed" w:sz="8" w:space="0" w:color="55656F"'
_THIN = 'w:val="single" w:sz="6" w:space="0" w:color="14191D"'


def squares(grid: SheetTable) -> str:
    """The numbers of a sheet, each in a cell of its own, with bars and rules as borders."""
    widths = [_twips(width) for width in grid.widths]
    rows = []
    for height, row in zip(grid.heights, grid.rows(), strict=True):
        cells = "".join([_cell(spot, begins, widths) for spot, begins in row])
        rows.append(
            f'<w:tr><w:trPr><w:cantSplit/><w:trHeight w:val="{_twips(height)}" w:hRule="exact"/></w:trPr>{cells}</w:tr>'
        )
    about = (
        f'<w:tblW w:w="{sum(widths)}" w:type="dxa"/><w:tblInd w:w="560" w:type="dxa"/><w:tblLayout w:type="fixed"/>'
        '<w:tblCellMar><w:left w:w="0" w:type="dxa"/><w:right w:w="0" w:type="dxa"/></w:tblCellMar>'
        f'<w:tblDescription w:val="{escape(grid.said)}"/>'
    )
    return _table(about, widths, rows)


def told(rows: Iterable[tuple[str, str]]) -> str:
    """What a story tells in a table: a name and an amount in each row."""
    widths = [_twips(20), _twips(16)]
    sides = "".join([f"<w:{side} {_THIN}/>" for side in ("top", "left", "bottom", "right", "insideH", "insideV")])
    about = f'<w:tblW w:w="{sum(widths)}" w:type="dxa"/><w:tblBorders>{sides}</w:tblBorders>'
    made = []
    for row in rows:
        cells = [
            f'<w:tc><w:tcPr><w:tcW w:w="{width}" w:type="dxa"/></w:tcPr><w:p><w:r>{_text(said)}</w:r></w:p></w:tc>'
            for width, said in zip(widths, row, strict=True)
        ]
        made.append(f"<w:tr>{''.join(cells)}</w:tr>")
    return _table(about, widths, made)


def _table(about: str, widths: Iterable[int], rows: Iterable[str]) -> str:
    columns = "".join([f'<w:gridCol w:w="{width}"/>' for width in widths])
    return f"<w:tbl {nsdecls('w')}><w:tblPr>{about}</w:tblPr><w:tblGrid>{columns}</w:tblGrid>{''.join(rows)}</w:tbl>"


def _twips(half_squares: float) -> int:
    return round(half_squares * HALF_SQUARE * _TWIPS)


def _text(said: str) -> str:
    return f'<w:t xml:space="preserve">{escape(said)}</w:t>'


def _cell(spot: Spot, begins: bool, widths: list[int]) -> str:
    wide = sum(widths[spot.column : spot.column + spot.across])
    about = f'<w:tcW w:w="{wide}" w:type="dxa"/><w:gridSpan w:val="{spot.across}"/>'
    if spot.down > 1:
        about += f'<w:vMerge w:val="{"restart" if begins else "continue"}"/>'
    about += f'{_borders(spot)}<w:vAlign w:val="center"/>'
    run = _run(spot) if begins and spot.text else ""
    # An empty line would be as high as a letter, and the row with it.
    mark = '<w:rPr><w:sz w:val="2"/></w:rPr>' if not run else ""
    tight = '<w:spacing w:before="0" w:after="0" w:line="240" w:lineRule="auto"/>'
    line = f'<w:pPr><w:keepNext/>{tight}<w:jc w:val="center"/>{mark}</w:pPr>'
    return f"<w:tc><w:tcPr>{about}</w:tcPr><w:p>{line}{run}</w:p></w:tc>"


def _run(spot: Spot) -> str:
    size = 2 * _POINTS[spot.size]
    strike = "<w:strike/>" if spot.struck else ""
    return f'<w:r><w:rPr>{strike}<w:sz w:val="{size}"/></w:rPr>{_text(spot.text)}</w:r>'


def _borders(spot: Spot) -> str:
    looks = {
        "top": _RULE if spot.over else _FRAME if spot.blank else "",
        "left": _FRAME if spot.blank else "",
        "bottom": _RULE if spot.under else _FRAME if spot.blank else "",
        "right": _FRAME if spot.blank else "",
    }
    drawn = "".join([f"<w:{side} {look}/>" for side, look in looks.items() if look])
    return f"<w:tcBorders>{drawn}</w:tcBorders>" if drawn else ""
