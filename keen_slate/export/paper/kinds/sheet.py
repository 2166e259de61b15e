"""`sheet`: problems with room to work, as the set leaves them, whole, or alone."""

from __future__ import annotations

from ..examples import example
from ..key import keys
from ..parts import Grid, Part, Sheet, page_kind


@page_kind("sheet")
def sheet(given: Sheet) -> list[Part]:
    """The examples of a version in one or two columns, then their key."""
    options = given.options
    examples = [example(one.number, one.item, options, options.form) for one in given.items]
    grid = Grid(given.title, given.letter, tuple(examples), columns_of(options.per_page), options.per_page)
    return [grid, *keys(given, examples)]


def columns_of(per_page: int) -> int:
    """Two columns where an even number of examples from four on is wanted on a page."""
    return 2 if per_page in (4, 6, 8) else 1
