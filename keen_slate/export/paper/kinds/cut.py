"""`cut`: strips and circles to cut out, for the denominators of a set, to one scale, a strip for the whole
among them.
"""

from __future__ import annotations

from keen_slate.core.expressions.walks import denominators
from keen_slate.core.figures.to_shade import circles_to_cut, strips_to_cut

from ...blocks import picture
from ...item import Item
from ..parts import CutOuts, PageMaterial, Part, page_kind


@page_kind("cut")
def cut(given: PageMaterial) -> list[Part]:
    """Pieces for all denominators that the problems and their workings have."""
    dens = {den for one in given.items for den in _denominators(one.item)}
    voice = given.items[0].item.voice if given.items else None
    if voice is None:
        return []
    strips = [picture("cut", figure, voice, "after") for figure in strips_to_cut(dens)]
    circles = [picture("cut", figure, voice, "after") for figure in circles_to_cut(dens)]
    return [CutOuts(given.title, tuple(strips), tuple(circles))]


def _denominators(item: Item) -> list[int]:
    working = item.working
    return [
        den for expr in (working.problem.expr, *[step.after for step in working.steps]) for den in denominators(expr)
    ]
