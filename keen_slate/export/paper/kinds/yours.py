"""`yours`: left a worked example, right one like it with the same steps blank; the way many lessons begin (common practice)."""

from __future__ import annotations

from dataclasses import replace

from keen_slate.core.teaching.fading import Fading

from ...blocks import Block, Example
from ...item import Item
from ...told import Told
from ...workings import body
from ..examples import example, headed
from ..key import keys
from ..options import Options
from ..parts import Numbered, Pair, Pairs, Part, Sheet, page_kind


@page_kind("yours")
def yours(given: Sheet) -> list[Part]:
    """Each example beside one like it; where none is found, beside itself."""
    pairs = [
        Pair(example(one.number, one.item, given.options, "full"), _blank(one, given.options)) for one in given.items
    ]
    theirs = replace(given, items=tuple([Numbered(one.number, one.like or one.item) for one in given.items]))
    return [
        Pairs(given.title, given.letter, tuple(pairs)),
        *keys(theirs, [pair.yours for pair in pairs]),
    ]


def _blank(one: Numbered, options: Options) -> Example:
    item = one.like or one.item
    nothing = Fading(hide=len(item.working.steps))
    head = headed(one.number, item, nothing)
    return Example(
        head, tuple(_frames(item, nothing)), False, (Told(item, nothing).sentence(),) if item.working.parts else ()
    )


def _frames(item: Item, nothing: Fading) -> list[Block]:
    """The same steps, each a frame."""
    told = Told(item, nothing) if item.working.parts else None
    return [*(told.text() if told else ()), *(told.models() if told else ()), *body(item, nothing, pictures=False)]
