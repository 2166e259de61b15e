"""`yours`: left a worked example, right one like it with the same steps blank; the way many lessons begin (common
practice).
"""

from __future__ import annotations

from dataclasses import replace

from ...blocks import PageExample
from ...told import ToldParts
from ...workings import body
from ..examples import example, fading_of, unsolved
from ..key import keys
from ..parts import Numbered, PageMaterial, Pair, Pairs, Part, page_kind


@page_kind("yours")
def yours(given: PageMaterial) -> list[Part]:
    """Each example beside one like it; where none is found, beside itself."""
    pairs = [Pair(example(one.number, one.item, given.options, "full"), _blank(one)) for one in given.items]
    theirs = replace(given, items=tuple([Numbered(one.number, one.like or one.item) for one in given.items]))
    return [
        Pairs(given.title, given.letter, tuple(pairs)),
        *keys(theirs, [pair.yours for pair in pairs]),
    ]


def _blank(one: Numbered) -> PageExample:
    """An example like it, a frame for each of its steps."""
    item = one.like or one.item
    nothing = fading_of(item, "problems")
    told = ToldParts(item, nothing) if item.working.parts else None
    before = [*told.text(), *told.models()] if told else []
    blocks = (*before, *body(item, nothing, pictures=False))
    return PageExample(unsolved(one.number, item), blocks, False, (told.sentence(),) if told else ())
