"""A set as a text tells it, whatever the text is written in: each problem, its lines with what is done in them, its answer."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from keen_slate.core.documents.asked import task_of
from keen_slate.core.documents.story import answer_line
from keen_slate.core.documents.working import answer_text, problem_text
from keen_slate.core.expressions.tree import Expr
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.layouts.rows import lead
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import Worked
from keen_slate.core.working.proof import Working


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a working: the *sign* before it, what is written, and what is done in it."""

    sign: str
    expr: Expr
    said: str


@dataclass(frozen=True, slots=True)
class Entry:
    """An example: a *story* as it is told ("" where it is none), what its working begins with, what is *asked* of it and its label, its lines
    and its answer.
    """

    story: str
    start: Expr
    asked: str
    lines: tuple[Line, ...]
    answer: str
    voice: Voice


def outline(examples: Sequence[Worked]) -> list[Entry]:
    """The examples of a set."""
    return [_entry(worked) for worked in examples]


def _asked(working: Working, voice: Voice) -> str:
    """What stands behind a problem: what to do with it, and what it is counted in."""
    label = working.problem.label
    return ", ".join(filter(None, [voice.said(task_of(working)), f"in {label}" if label else ""]))


def _entry(worked: Worked) -> Entry:
    working = worked.working
    voice = voice_of(working.ways)
    told = problem_text(working, voice) if working.parts else ""
    lines = [
        Line(" ".join(lead(working, i).strip()), step.after, voice.plain(step.title))
        for i, step in enumerate(working.steps)
    ]
    return Entry(
        told,
        working.start,
        "" if told else _asked(working, voice),
        tuple(lines),
        answer_line(working) if told else f"Answer: {answer_text(working, voice)}",
        voice,
    )
