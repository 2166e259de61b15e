"""`line`: one expression a line; where decimals are calculated in columns, these as well."""

from __future__ import annotations

from ..working.proof import Working
from .columns import columns_of
from .registry import LINE, Laid, layout


@layout(LINE)
def in_lines(working: Working) -> Laid:
    """Nothing but the lines, and the columns of decimals."""
    return Laid(columns_of(working))
