"""`shade`: the numbers of each problem as a picture with nothing shaded."""

from __future__ import annotations

from keen_slate.core.figures.to_shade import to_shade
from keen_slate.core.teaching.fading import Fading

from ...blocks import Example, picture
from ..examples import headed, problem_alone
from ..key import keys
from ..options import Options
from ..parts import Grid, Numbered, Part, Sheet, page_kind
from .sheet import columns_of


@page_kind("shade")
def shade(given: Sheet) -> list[Part]:
    """The problems that have such a picture, each with room for what follows; the others are left out."""
    found = [(one, made) for one in given.items if (made := _example(one, given.options)) is not None]
    only = Sheet(given.title, given.letter, tuple([one for one, _ in found]), given.options)
    examples = [made for _, made in found]
    grid = Grid(given.title, given.letter, tuple(examples), columns_of(given.options), given.options.per_page)
    return [grid, *keys(only, examples)]


def _example(one: Numbered, options: Options) -> Example | None:
    figure = None if one.item.working.parts else to_shade(one.item.working, options.shading)
    if figure is None:
        return None
    head = headed(one.number, one.item, Fading(hide=len(one.item.working.steps)))
    blocks = (*problem_alone(one.item), picture("shade", figure, one.item.voice, "before"))
    return Example(head, blocks, room=True)
