"""A way, shown instead of named: a small piece of a real working in which it differs from the other ways of its
setting.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..expressions.typeset import Glyph, JottingGlyph
from ..ways.settings import Setting, Ways
from ..ways.voices import voice_of
from ..worked import work_text
from .view import BoxView, RowView, SheetView, StepView, WorkingView, working_view

_MOST_STEPS = 2
_MOST_JOTTINGS = 2
_MOST_BOXES = 4
_BLANKS = ("blank_proper", "blank_different", "blank_lowest")


@dataclass(frozen=True, slots=True)
class WrittenStep:
    """A line of a working with its jottings, or a jotting alone."""

    row: RowView | None
    lines: tuple[tuple[JottingGlyph, ...], ...]


@dataclass(frozen=True, slots=True)
class ShownWay:
    """A way by its *code*, and what of the example shows it: the line in *start*, then lines, a sheet, boxes or a
    sentence.
    """

    code: str
    name: str
    start: RowView
    steps: tuple[WrittenStep, ...]
    sheet: SheetView | None
    boxes: tuple[BoxView, ...]
    sentence: tuple[Glyph, ...]


def shown_ways(setting: Setting, ways: Ways) -> list[ShownWay]:
    """Each way of a *setting*, in a class with these *ways*; what all of them write alike is left out."""
    text, _, target = setting.example.partition(" to ")
    views = {}
    for code in setting.codes:
        # The layout is a way of its own; any other way is shown line by line.
        chosen = Ways.of(ways.as_dict() | {"layout": "line", setting.name: code})
        views[code] = chosen, working_view(work_text(text, chosen, ".", target or None))
    every = [view for _, view in views.values()]
    return [
        _shown(setting, code, chosen, view, _alike(view, [one for one in every if one is not view]))
        for code, (chosen, view) in views.items()
    ]


def _shown(setting: Setting, code: str, ways: Ways, view: WorkingView, alike: int) -> ShownWay:
    voice = voice_of(ways)
    name = voice.said(setting.codes[code])
    sentence = _sentence(setting, view, ways)
    steps: tuple[WrittenStep, ...] = ()
    if setting.name in _BLANKS:
        sentence = view.answer_glyphs[0] if view.answer_glyphs else ()
    elif not sentence and view.sheet is None and not view.boxes:
        steps = tuple([_written(view, i) for i in range(alike, min(len(view.steps), alike + _MOST_STEPS))])
    return ShownWay(
        code, name, view.rows[alike if steps else 0], steps, None if sentence else view.sheet,
        () if sentence else view.boxes[:_MOST_BOXES], tuple(sentence),
    )  # fmt: skip


def _written(view: WorkingView, at: int) -> WrittenStep:
    row = view.rows[at + 1] if at + 1 < len(view.rows) else None
    return WrittenStep(row, view.steps[at].line_glyphs[:_MOST_JOTTINGS])


def _written_text(step: StepView) -> tuple[object, ...]:
    return step.after, step.line_glyphs


def _alike(view: WorkingView, others: list[WorkingView]) -> int:
    """How many steps at the beginning another way writes as well; the last step is always shown."""
    own = [_written_text(step) for step in view.steps]
    most = 0
    for other in others:
        theirs = [_written_text(step) for step in other.steps]
        most = max(
            most,
            next((i for i, (a, b) in enumerate(zip(own, theirs, strict=False)) if a != b), min(len(own), len(theirs))),
        )
    return min(most, max(0, len(own) - 1))


def _sentence(setting: Setting, view: WorkingView, ways: Ways) -> tuple[Glyph, ...]:
    """The sentence in which a word stands, or what is estimated; empty where the way is written in lines."""
    if setting.name in ("estimate", "ties") and view.estimate is not None:
        return (Glyph("words", view.estimate.text),)
    if not any(setting.terms.values()) or setting.name == "decimal_mark":
        return ()
    terms = {term for code in setting.terms.values() for term in code}
    words = {voice_of(ways).terms[term] for term in terms}
    for said in _said(view):
        plain = "".join([piece.text or "" for piece in said]).lower()
        if any(word in plain for word in words):
            return said
    return ()


def _said(view: WorkingView) -> Iterator[tuple[Glyph, ...]]:
    """Everything that is said of a working, what stands nearest to it first."""
    sentences = [said for step in view.steps for said in (step.title, step.reason, step.spoken)]
    yield from [(Glyph("words", said),) for said in (*sentences, *view.surprises)]
    yield from view.checks
    yield from [
        (Glyph("words", said),) for said in (*[one.reason for one in view.misconceptions], view.problem.kind_name)
    ]
