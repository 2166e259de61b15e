"""A figure as marks that a renderer only has to place, its words in the class's own."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..expressions.voice import Voice
from ..figures import choose, expose
from ..figures.choose import Look
from ..figures.display import Figure, Mark, marks
from ..teaching.sentences import TeachersWords
from ..worked import Worked
from ..working.keys import step_keys
from ..working.proof import Working


@dataclass(frozen=True, slots=True)
class FigureView:
    """A picture, ready to be placed; *acts* where it has a state before and one after."""

    kind: str
    width: int
    height: int
    marks: tuple[Mark, ...]
    alt: str
    acts: bool
    note: str


def figure_view(figure: Figure, voice: Voice) -> FigureView:
    """*figure* with its labels, its alternative text and its note said."""
    placed = [replace(mark, text=voice.said(mark.text)) if "<" in mark.text else mark for mark in marks(figure)]
    return FigureView(
        kind=figure.kind,
        width=figure.width,
        height=figure.height,
        marks=tuple(placed),
        alt=voice.said(figure.alt),
        acts=figure.acts,
        note=voice.said(figure.note),
    )


def picture_of(working: Working, index: int, edited: TeachersWords) -> Figure | None:
    """The picture of step number *index*, of the kind that the teacher chose; None where there is none, or it shows
    nothing new.
    """
    if index >= len(working.steps):
        return None
    chosen, _ = edited.find(working.steps[index].kind.code, step_keys(working)[index], " picture")
    figure = _drawn(working, index, edited)
    return None if chosen is None and index and choose.repeats(figure, _drawn(working, index - 1, edited)) else figure


def _drawn(working: Working, index: int, edited: TeachersWords) -> Figure | None:
    step = working.steps[index]
    kind, _ = edited.find(step.kind.code, step_keys(working)[index], " picture")
    return None if kind == "none" else choose.of_step(step, Look.of(working), kind)


def exposure_of(worked: Worked, code: str) -> Figure | None:
    """The picture that shows why the answer of the misconception *code* is wrong; None where there is none."""
    wrong = next((found.wrong for found in worked.likely if found.entry.code == code), None)
    return expose.of_wrong(worked.working, wrong.answer) if wrong else None
