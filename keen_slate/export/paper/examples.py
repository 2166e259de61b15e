"""An example as pupils get it."""

from __future__ import annotations

from dataclasses import replace

from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.documents.asked import task_of
from keen_slate.core.documents.verdict import choice_views
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.layouts.labels import with_label
from keen_slate.core.teaching.fading import Fading

from ..blocks import Block, Head, PageExample, Ticks, WrittenLine, written
from ..item import Item
from ..told import ToldParts
from ..workings import body, line
from .options import Form, Options


def fading_of(item: Item, form: Form) -> Fading:
    """What is left to pupils where they get this *form* of an example."""
    return {"full": Fading(), "faded": item.fading, "problems": Fading(hide=len(item.working.steps))}[form]


def example(number: int, item: Item, options: Options, form: Form) -> PageExample:
    """An example in a *form*, with room to work in where pupils write."""
    working, fading = item.working, fading_of(item, form)
    whole = fading.hide >= len(working.steps)
    worked: list[Block] = [] if whole else body(item, fading, options.pictures)
    offered = _choices(item) if options.choices and whole else []
    if working.parts:
        told = ToldParts(item, fading)
        head = Head(number, None, "", _marks(item))
        before = [*told.text(), *told.models(), *told.first_line()]
        return PageExample(head, (*before, *worked, *offered), bool(fading.hide), (told.sentence(),))
    head = headed(number, item, fading)
    answer: list[Block] = [answer_of(item)] if working.problem.label and not fading.hide else []
    return PageExample(head, (*worked, *answer, *offered), bool(fading.hide))


def unsolved(number: int, item: Item) -> Head:
    """The line with the problem where all the rest is left to pupils."""
    return headed(number, item, fading_of(item, "problems"))


def headed(number: int, item: Item, fading: Fading) -> Head:
    """The line with the problem; that of a story has its number and marks alone."""
    label = item.working.problem.label
    problem = None if item.working.parts else line(item.working, None, "", fading)
    said = [item.voice.said(task_of(item.working)), f"in {label}" if label else ""]
    return Head(number, problem, ", ".join(filter(None, said)) if problem else "", _marks(item))


def problem_alone(item: Item) -> list[Block]:
    """A story's text; nothing for other problems, which stand in their head."""
    return ToldParts(item, fading_of(item, "problems")).text() if item.working.parts else []


def _marks(item: Item) -> str:
    points = sum(one.points for one in item.worth())
    return f"{points} {'mark' if points == 1 else 'marks'}"


def answer_of(item: Item) -> WrittenLine:
    """The answer with its label."""
    number = with_label(item.voice.glyphs(item.working.answer), item.working.answer_label)
    return written("answer", [Glyph("words", "Answer: "), *number], item.voice)


def _choices(item: Item) -> list[Block]:
    """Four options to tick; nothing where the problem has none."""
    found = choice_views(choices(item.worked), item.working.problem.label, item.voice)
    listed = []
    for one in found:
        pieces = [replace(glyph, role="") for glyph in one.glyphs]
        listed.append((one.label, written("answer", pieces, item.voice)))
    return [Ticks(tuple(listed))] if listed else []
