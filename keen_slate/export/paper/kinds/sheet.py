"""`sheet`: problems with room to work, as the set leaves them, whole, or alone."""

from __future__ import annotations

from collections.abc import Sequence

from ...blocks import PageExample
from ..examples import example
from ..key import keys
from ..options import Options
from ..parts import Grid, PageMaterial, Part, page_kind


@page_kind("sheet")
def sheet(given: PageMaterial) -> list[Part]:
    """The examples of a version in one or two columns, then their key."""
    options = given.options
    examples = [example(one.number, one.item, options, options.form) for one in given.items]
    return [grid_of(given, examples), *keys(given, examples)]


def grid_of(given: PageMaterial, examples: Sequence[PageExample]) -> Grid:
    """The *examples* of a version as they are wished for: so many on a page, in one or two columns."""
    options = given.options
    return Grid(given.title, given.letter, tuple(examples), columns_of(options), options.per_page)


def columns_of(options: Options) -> int:
    """Two columns where an even number of examples from four on is wanted on a page, or as many as fit and they are not
    printed large.
    """
    if not options.per_page:
        return 1 if options.large else 2
    return 2 if options.per_page in (4, 6, 8) else 1
