"""`mistake`: the working of somebody who follows a likely wrong way; pupils find where it goes wrong, say why, and put it right."""

from __future__ import annotations

from dataclasses import replace

from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.judging.misconceptions import LikelyAnswer

from ...blocks import Block, Example, Room, Written, words, written
from ...item import Item
from ..examples import problem_alone, unsolved
from ..key import Note, keys
from ..parts import Numbered, Part, Sheet, page_kind
from .sheet import grid_of


@page_kind("mistake")
def mistake(given: Sheet) -> list[Part]:
    """The examples that have a wrong way with lines to show; the others are left out."""
    found = [(one, likely) for one in given.items if (likely := wrong_way(one.item, given.options.mistake)) is not None]
    examples = [_example(one, likely) for one, likely in found]
    only = replace(given, items=tuple([one for one, _ in found]))
    return [grid_of(given, examples), *keys(only, examples, [(_note(one.item, likely),) for one, likely in found])]


def wrong_way(item: Item, code: str) -> LikelyAnswer | None:
    """The wrong way of that *code* where it applies; else one of several lines that the estimate catches, else what comes nearest to that."""
    shown = [one for one in item.worked.likely if one.status == "reveals" and one.wrong.lines]
    wanted = [one for one in shown if one.entry.code == code]
    best = sorted(shown, key=lambda one: (len(one.wrong.lines) < 2, not one.caught_by_estimate))
    return next(iter([*wanted, *best]), None)


def _example(one: Numbered, likely: LikelyAnswer) -> Example:
    item = one.item
    lines: list[Block] = [*problem_alone(item), words("said", "Somebody wrote:")]
    lines += [written("line", item.voice.typeset(rich), item.voice) for rich in likely.wrong.lines]
    lines += [
        _answer(item, likely), words("said", "Mark the first line that is wrong."), Room("reason", "It is wrong because"), words("said", "Put it right:"),
    ]  # fmt: skip
    return Example(unsolved(one.number, item), tuple(lines), room=True)


def _answer(item: Item, likely: LikelyAnswer) -> Written:
    """What somebody had in the end, in the ink of everything else: nothing tells that it is wrong."""
    return written("line", [Glyph("words", "Answer: "), *item.voice.glyphs(likely.wrong.answer)], item.voice)


def _note(item: Item, likely: LikelyAnswer) -> Note:
    said = item.voice.said
    entry = likely.entry
    return (
        "The mistake",
        (
            words("said", f"{entry.code}: {said(entry.name)}. {said(entry.reason)}"),
            words("said", f"Ask: {said(entry.question)}"),
        ),
    )
