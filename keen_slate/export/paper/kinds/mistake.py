"""`mistake`: the working of somebody who follows a likely wrong way; pupils find where it goes wrong, say why, and put
it right.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from keen_slate.core.diagnosing.wrong_working import WrongWorking, wrong_working
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.judging.misconceptions import LikelyAnswer

from ...blocks import Block, PageExample, Room, words, written
from ...item import Item
from ..examples import problem_alone, unsolved
from ..key import Note, keys
from ..parts import Numbered, PageMaterial, Part, page_kind
from .sheet import grid_of


@dataclass(frozen=True, slots=True)
class Mistake:
    """A misconception, and the working of somebody who has it."""

    likely: LikelyAnswer
    working: WrongWorking


@page_kind("mistake")
def mistake(given: PageMaterial) -> list[Part]:
    """The examples of which somebody's wrong working can be written; the others are left out."""
    found = [(one, made) for one in given.items if (made := wrong_way(one.item, given.options.mistake)) is not None]
    examples = [_example(one, made) for one, made in found]
    only = replace(given, items=tuple([one for one, _ in found]))
    return [grid_of(given, examples), *keys(only, examples, [(_note(one.item, made),) for one, made in found])]


def wrong_way(item: Item, code: str) -> Mistake | None:
    """The wrong way of that *code* where it can be written; else one of several lines that the estimate catches, or
    what comes nearest.
    """
    shown = [one for one in item.worked.likely if one.status == "reveals"]
    wanted = [one for one in shown if one.entry.code == code]
    likely_first = sorted(shown, key=lambda one: not one.caught_by_estimate)
    alone: Mistake | None = None
    for one in [*wanted, *likely_first]:
        made = wrong_working(item.worked, one)
        if made is not None and (len(made.lines) > 1 or one in wanted):
            return Mistake(one, made)
        if made is not None and alone is None:
            alone = Mistake(one, made)
    return alone


def _example(one: Numbered, made: Mistake) -> PageExample:
    item = one.item
    lines: list[Block] = [*problem_alone(item), words("said", "Somebody wrote:")]
    lines += [
        written("line", [Glyph("operator", "="), *item.voice.glyphs(line)], item.voice) for line in made.working.lines
    ]
    lines += [
        words("said", "Mark the first line that is wrong."),
        Room("reason", "It is wrong because"),
        words("said", "Put it right:"),
    ]
    return PageExample(unsolved(one.number, item), tuple(lines), room=True)


def _note(item: Item, made: Mistake) -> Note:
    said = item.voice.said
    entry = made.likely.entry
    return (
        "The mistake",
        (
            words(
                "said",
                f"Line {made.working.wrong + 1} does not follow: {said(entry.name)}. {said(entry.reason)}",
            ),
            words("said", f"Ask: {said(entry.question)}"),
        ),
    )
