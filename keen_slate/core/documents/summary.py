"""What a ladder shows of one example: short enough to be kept with it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..errors import CoreError
from ..expressions.typeset import Glyph
from ..grading.footing import Footing, footing_of
from ..grading.rungs import ALL_RUNGS
from ..teaching.points import points_of
from ..ways.voices import voice_of
from ..worked import Worked
from ..working.keys import step_keys
from .working import problem_text

_SHOWN = 90  # characters of a story on the ladder


@dataclass(frozen=True, slots=True)
class Summary:
    """The problem, its rung, what is compared with its neighbours' and what is new on it, what may surprise, its number
    of steps and the points it is worth.

    *unreadable* says why a text cannot be worked any more; it is shown as it is, never dropped.
    """

    text: str
    spoken: str
    glyphs: tuple[Glyph, ...]
    rung: str | None
    footing: Footing | None
    step_up: str | None
    surprises: tuple[str, ...]
    steps: int
    points: int
    unreadable: str | None
    kind: str


def summary_of(worked: Worked, points: Mapping[str, int]) -> Summary:
    """The summary of a worked example; *points* are its teacher's own by key."""
    working = worked.working
    voice = voice_of(working.ways)
    rung = worked.features.rung
    text = problem_text(working, voice)
    return Summary(
        text=text,
        spoken=text if working.parts else voice.words(working.problem.expr),
        glyphs=_beginning(text) if working.parts else tuple(voice.glyphs(working.problem.expr)),
        rung=rung,
        footing=footing_of(working.problem.expr, worked.features),
        step_up=voice.said(ALL_RUNGS[rung]) if rung else None,
        surprises=tuple([voice.said(sentence) for sentence in worked.surprises]),
        steps=len(working.steps),
        points=sum(one.points for one in points_of(working, step_keys(working), points)),
        unreadable=None,
        kind=working.problem.kind,
    )


def _beginning(told: str) -> tuple[Glyph, ...]:
    """So much of a story as a rung of the ladder has room for."""
    line = " ".join(told.split())
    short = line if len(line) <= _SHOWN else line[:_SHOWN].rsplit(" ", 1)[0] + " …"
    return (Glyph("words", short),)


def unreadable_summary(source: str, error: CoreError) -> Summary:
    """The summary of a text that an older or newer version could read."""
    return Summary(source, source, (Glyph("words", source),), None, None, None, (), 0, 0, error.message, "")
