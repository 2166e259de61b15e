"""A table as a spreadsheet's own file (Office Open XML): written with text cells, and read as text, whatever the cells
hold.
"""

from __future__ import annotations

import io
from collections.abc import Sequence
from datetime import date, datetime, time
from fractions import Fraction

from openpyxl import Workbook, load_workbook
from openpyxl.cell.read_only import EmptyCell, ReadOnlyCell

from keen_slate.core.errors import ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import mixed
from keen_slate.core.limits import LARGEST_FILE, MOST_LINES

from .packages import sizes

TYPE = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
_TEXT = "@"  # the number format that keeps what is typed as it is typed
_UNPACKED = LARGEST_FILE  # bytes; as many lines as are read at once take a tenth of it
_COLUMNS = 50
_LARGEST_DENOMINATOR = 999  # of a number that a spreadsheet shows as a fraction
_NOT_A_WORKBOOK = ("This is not a spreadsheet's file (.xlsx).", "Save the table as .xlsx or as CSV, and choose that.")


def workbook(rows: Sequence[Sequence[object]]) -> bytes:
    """*rows* as a file with one sheet, its texts in cells that stay text."""
    made = Workbook()
    sheet = made.active
    assert sheet is not None, "a new workbook has a sheet"
    sheet.title = "Problems"
    for number, row in enumerate(rows, 1):
        for column, value in enumerate(row, 1):
            cell = sheet.cell(number, column)
            if isinstance(value, str):
                cell.value, cell.data_type = value, "s"  # no formula, whatever it begins with
                cell.number_format = _TEXT
            else:
                cell.value = value
    sheet.freeze_panes = "A2"
    sheet.column_dimensions["B"].width = 40
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


def refuse_large(file: bytes) -> None:
    """Raises `ReadError` for a *file* that says of itself that it is too large (more than it says is never unpacked),
    or is none.
    """
    unpacked = sizes(file)
    if unpacked is None:
        raise ReadError(_NOT_A_WORKBOOK[0], 0, 0, _NOT_A_WORKBOOK[1])
    if sum(size for _, size in unpacked) > _UNPACKED:
        raise ReadError("This spreadsheet is too large.", 0, 0, f"Bring {MOST_LINES} lines at once, at most.")


def table_in(file: bytes) -> str:
    """The first sheet of a *file* as text, its cells parted by tabs.

    Raises `ReadError` where it cannot be read, and for a date.
    """
    refuse_large(file)
    try:
        sheet = load_workbook(io.BytesIO(file), read_only=True, data_only=True).worksheets[0]
        rows = [
            "\t".join([_said(cell) for cell in row])
            for row in sheet.iter_rows(max_row=MOST_LINES + 2, max_col=_COLUMNS)
        ]
    except ReadError:
        raise
    except Exception:  # whatever a broken file does to its reader
        raise ReadError(_NOT_A_WORKBOOK[0], 0, 0, _NOT_A_WORKBOOK[1]) from None
    return "\n".join([row.rstrip("\t") for row in rows])


def _said(cell: ReadOnlyCell | EmptyCell) -> str:
    value = cell.value
    if value is None:
        return ""
    if isinstance(value, date | datetime | time):
        raise ReadError(
            f"Cell {cell.coordinate} holds a date ({value:%d %B %Y}).", 0, 0,
            "Where a fraction was meant, make the cell text and type it again, or type '5/6 with an apostrophe.",
        )  # fmt: skip
    if isinstance(value, float) and "/" in str(cell.number_format):
        shown = Fraction(value).limit_denominator(_LARGEST_DENOMINATOR)
        if abs(shown - Fraction(value)) < Fraction(1, 10**9):
            return text(mixed(shown))
    if isinstance(value, float) and value.is_integer():
        return str(int(value))
    return " ".join(str(value).split())
