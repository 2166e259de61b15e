"""`slip`: two to four problems on a third of a page, for the end of a lesson."""

from __future__ import annotations

from dataclasses import replace

from ..examples import example
from ..key import keys
from ..parts import PageMaterial, Part, Slips, page_kind

MOST = 4


@page_kind("slip")
def slip(given: PageMaterial) -> list[Part]:
    """The first four problems; who wants others chooses them."""
    only = replace(given, items=given.items[:MOST])
    examples = [example(one.number, one.item, given.options, "problems") for one in only.items]
    return [Slips(given.title, given.letter, tuple(examples)), *keys(only, examples)]
