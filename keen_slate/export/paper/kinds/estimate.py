"""`estimate`: a box for the estimate before each problem, and afterwards the question whether the answer can be right."""

from __future__ import annotations

from keen_slate.core.teaching.fading import Fading

from ...blocks import Example, Room, Ticks, words
from ..examples import headed, problem_alone
from ..key import estimate_note, keys
from ..parts import Grid, Numbered, Part, Sheet, page_kind
from .sheet import columns_of


@page_kind("estimate")
def estimate(given: Sheet) -> list[Part]:
    """The problems alone, an estimate first."""
    examples = [_example(one) for one in given.items]
    grid = Grid(given.title, given.letter, tuple(examples), columns_of(given.options), given.options.per_page)
    return [grid, *keys(given, examples, [(estimate_note(one.item),) for one in given.items])]


def _example(one: Numbered) -> Example:
    head = headed(one.number, one.item, Fading(hide=len(one.item.working.steps)))
    blocks = (*problem_alone(one.item), Room("estimate", "About"))
    asked = Ticks((("", words("said", "yes, it can be right")), ("", words("said", "no"))))
    return Example(head, blocks, room=True, after=(words("said", "Can it be right?"), asked))
