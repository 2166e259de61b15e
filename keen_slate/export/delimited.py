"""Tables as text: cells parted by commas, semicolons or tabs, whichever the text itself uses; and cells that a
spreadsheet leaves alone.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Sequence

from keen_slate.core.errors import ReadError
from keen_slate.core.limits import MOST_LINES

SEPARATORS = "\t;,"
# A cell may be as long as what is brought; what is too long for its place is refused there, in words.
csv.field_size_limit(1_000_000)
# A spreadsheet would take a cell that begins so for a formula, and a fraction alone for a date or a decimal; an
# apostrophe makes it text.
_FORMULA = ("=", "+", "-", "@", "\t", "\r", "'")
_FRACTION = re.compile(r"(?:\d+ )?\d+/\d+")


def written(rows: Iterable[Sequence[object]], separator: str = ",") -> str:
    """*rows* as text; texts among their cells stay texts in a spreadsheet."""
    out = io.StringIO()
    lines = csv.writer(out, delimiter=separator, lineterminator="\r\n")
    for row in rows:
        lines.writerow([_as_text(cell) if isinstance(cell, str) else cell for cell in row])
    return out.getvalue()


def _as_text(cell: str) -> str:
    return f"'{cell}" if cell.startswith(_FORMULA) or _FRACTION.fullmatch(cell) else cell


def plain(cell: str) -> str:
    """A cell without the apostrophe that keeps a spreadsheet from reading it as something else.

    >>> plain(" '5/6"), plain("5' 6"), plain("'")
    ('5/6', "5' 6", "'")
    """
    found = cell.strip()
    return found[1:] if found.startswith("'") and len(found) > 1 else found


def separator_of(text: str) -> str:
    """What parts the cells of *text*, by its first line."""
    first = next((line for line in text.splitlines() if line.strip()), "")
    return max(SEPARATORS, key=first.count)


def rows_of(text: str) -> list[tuple[int, list[str]]]:
    """The rows of a table that are not empty, each with the number of its line.

    Raises `ReadError` for a quote that is never closed, for a table without a row, and for more rows than are taken at
    once.
    """
    found = text.removeprefix("\ufeff")
    if found.count('"') % 2:
        at = found[: found.rindex('"')].count("\n") + 1
        raise ReadError(f"A quote is opened on line {at} and never closed.", 0, 0, "Close it, or take it out.")
    reader = csv.reader(io.StringIO(found, newline=""), delimiter=separator_of(found))
    rows = [(reader.line_num, cells) for cells in reader if any(cell.strip() for cell in cells)]
    if not rows:
        raise ReadError("There is nothing in this table.", 0, 0, "Give it a head, and a line for each.")
    if len(rows) > MOST_LINES + 1:  # a head beside them
        raise ReadError(f"There are {len(rows)} lines; {MOST_LINES} are taken at once.", 0, 0, "Bring fewer at once.")
    return rows
