"""The key, for the teacher: working with marks, likely wrong answers with what to ask; on pages of its own, or beside
the examples.
"""

from __future__ import annotations

from collections.abc import Sequence

from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.documents.verdict import choice_views
from keen_slate.core.documents.working import estimate_document
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.judging.misconceptions import LikelyAnswer
from keen_slate.core.layouts.labels import with_label
from keen_slate.core.reading.units import counted_in
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.teaching.points import ANSWER

from ..blocks import Block, PageExample, WrittenLine, words, written
from ..item import Item
from ..told import ToldParts
from ..workings import line
from .examples import answer_of
from .parts import Copy, Key, KeyEntry, KeyRow, Numbered, PageMaterial

MOST = 5  # wrong answers of an example in a key, where some of them are met seldom
MOST_ASIDE = 3  # wrong answers in a slim margin
Note = tuple[str, tuple[WrittenLine, ...]]


def key(sheet: PageMaterial, more: Sequence[tuple[Note, ...]] = ()) -> Key:
    """The key of a version; *more* holds further notes for each example."""
    entries = [_entry(one, sheet, more[i] if i < len(more) else ()) for i, one in enumerate(sheet.items)]
    return Key(sheet.title, sheet.letter, tuple(entries), sheet.options.key == "long")


def copy(sheet: PageMaterial, examples: Sequence[PageExample]) -> Copy:
    """The teacher's copy of the *examples* of a version."""
    beside = [
        PageExample(example.head, example.blocks, False, example.after, tuple(_aside(one.item, sheet)))
        for one, example in zip(sheet.items, examples, strict=True)
    ]
    return Copy(sheet.title, sheet.letter, tuple(beside))


def keys(
    sheet: PageMaterial, examples: Sequence[PageExample], more: Sequence[tuple[Note, ...]] = ()
) -> list[Key | Copy]:
    """The key as it is wished for: none, on pages of its own, or in the margin of a copy."""
    if sheet.options.key == "none":
        return []
    return [copy(sheet, examples)] if sheet.options.key == "margin" else [key(sheet, more)]


def _entry(one: Numbered, sheet: PageMaterial, more: tuple[Note, ...]) -> KeyEntry:
    item, options = one.item, sheet.options
    working, voice = item.working, item.voice
    given = item.worth()
    rows = [
        KeyRow(line(working, i, "", Fading()), written("said", item.title(i), voice), given[i].points)
        for i in range(len(working.steps))
    ]
    answer = next(one for one in given if one.key == ANSWER)
    told = ToldParts(item, Fading()) if working.parts else None
    final = told.sentence() if told else answer_of(item)
    assert isinstance(final, WrittenLine), "nothing is left out of a key"
    rows.append(KeyRow(final, words("said", voice.said(answer.loses)), answer.points))
    notes = [*more]
    if options.choices:
        notes.append(("The options", tuple(_told_by_options(item))))
    if options.wrong_answers:
        long = options.key == "long"
        notes.append(("They may write", tuple([_wrong(item, likely, asks=long) for likely in _shown(item)])))
    before: list[Block] = [*told.text(), *told.models(), told.calculation()] if told else []
    problem = None if told else line(working, None, "", Fading())
    return KeyEntry(one.number, problem, tuple(before), tuple(rows), tuple([note for note in notes if note[1]]))


def _shown(item: Item) -> list[LikelyAnswer]:
    """The wrong answers that can be seen; of more than a key has room for, those that are met seldom are left out, the
    last first.
    """
    shown = [one for one in item.worked.likely if one.status != "hidden"]
    seldom = [one for one in shown if one.entry.often == 1]
    left_out = seldom[max(0, MOST - (len(shown) - len(seldom))) :]
    return [one for one in shown if one not in left_out]


def _wrong(item: Item, likely: LikelyAnswer, *, asks: bool = True) -> WrittenLine:
    """A likely wrong answer, what it comes from, and what to ask, where there is room for it."""
    answer, label = likely.wrong.answer, counted_in(item.working.problem.label, likely.wrong.answer)
    asked = f". {item.voice.said(likely.entry.question)}" if asks else ""
    number = with_label(item.voice.glyphs(answer, ("wrong",)), label if likely.wrong.labelled else None)
    said = f": {item.voice.said(likely.entry.name)}{asked}"
    return written("said", [*number, Glyph("words", said)], item.voice)


def _told_by_options(item: Item) -> list[WrittenLine]:
    """What each option tells."""
    found = choice_views(choices(item.worked), item.working.problem.label, item.voice)
    return [words("said", f"{one.label}: {'right' if one.right else ', or '.join(one.names)}") for one in found]


def _aside(item: Item, sheet: PageMaterial) -> list[Block]:
    """The answer, its marks and the wrong answers that are met most often."""
    given = item.worth()
    told = ToldParts(item, Fading()).sentence() if item.working.parts else answer_of(item)
    marks = ", ".join([str(one.points) for one in given])
    blocks: list[Block] = [told, words("said", f"Marks, step by step, the answer last: {marks}")]
    if sheet.options.wrong_answers:
        blocks += [_wrong(item, likely) for likely in _shown(item)[:MOST_ASIDE]]
    return blocks


def estimate_note(item: Item) -> Note:
    """What the estimate is, where there is one."""
    about = item.worked.estimate
    return ("Estimate", (words("said", estimate_document(about, item.voice).text),) if about else ())
