"""`estimate`: a box for the estimate before each problem, and afterwards the question whether the answer can be
right.
"""

from __future__ import annotations

from ...blocks import PageExample, Room, Ticks, words
from ..examples import problem_alone, unsolved
from ..key import estimate_note, keys
from ..parts import Numbered, PageMaterial, Part, page_kind
from .sheet import grid_of


@page_kind("estimate")
def estimate(given: PageMaterial) -> list[Part]:
    """The problems alone, an estimate first."""
    examples = [_example(one) for one in given.items]
    return [grid_of(given, examples), *keys(given, examples, [(estimate_note(one.item),) for one in given.items])]


def _example(one: Numbered) -> PageExample:
    blocks = (*problem_alone(one.item), Room("estimate", "About"))
    asked = Ticks((("", words("said", "yes, it can be right")), ("", words("said", "no"))))
    return PageExample(
        unsolved(one.number, one.item), blocks, room=True, after=(words("said", "Can it be right?"), asked)
    )
