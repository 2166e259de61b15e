"""`shade`: the numbers of each problem as a picture with nothing shaded."""

from __future__ import annotations

from dataclasses import replace

from keen_slate.core.figures.to_shade import to_shade

from ...blocks import PageExample, picture
from ..examples import problem_alone, unsolved
from ..key import keys
from ..options import Options
from ..parts import Numbered, PageMaterial, Part, page_kind
from .sheet import grid_of


@page_kind("shade")
def shade(given: PageMaterial) -> list[Part]:
    """The problems that have such a picture, each with room for what follows; the others are left out."""
    found = [(one, made) for one in given.items if (made := _example(one, given.options)) is not None]
    only = replace(given, items=tuple([one for one, _ in found]))
    examples = [made for _, made in found]
    return [grid_of(given, examples), *keys(only, examples)]


def _example(one: Numbered, options: Options) -> PageExample | None:
    figure = None if one.item.working.parts else to_shade(one.item.working, options.shading)
    if figure is None:
        return None
    blocks = (*problem_alone(one.item), picture("shade", figure, one.item.voice, "before"))
    return PageExample(unsolved(one.number, one.item), blocks, room=True)
