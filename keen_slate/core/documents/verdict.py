"""The verdict on a pupil's answer, and on a pupil's working, as published documents."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from ..diagnosing.answers import Explanation, Verdict, VerdictWord
from ..diagnosing.choices import Choice
from ..diagnosing.estimates import EstimateVerdict, EstimateWord
from ..diagnosing.faults import FAULTS, FORM_FAULTS, name_of
from ..diagnosing.lines import Checked, PupilLine
from ..expressions.text import exact
from ..expressions.typeset import Glyph
from ..expressions.voice import Voice
from ..layouts.labels import with_label
from ..reading.problem import labelled
from ..reading.units import counted_in
from .plain import plainly


@dataclass(frozen=True, slots=True)
class ExplanationDocument:
    """One way to an answer."""

    rank: int
    codes: tuple[str, ...]
    lines: tuple[str, ...]
    reason: str
    question: str


@dataclass(frozen=True, slots=True)
class ExplanationView(ExplanationDocument):
    """One way to an answer, with the names of its codes and its lines typeset."""

    names: tuple[str, ...]
    line_glyphs: tuple[tuple[Glyph, ...], ...]


@dataclass(frozen=True, slots=True)
class VerdictView:
    """The verdict on an answer; *form_fault* and what it says where only the form is wrong."""

    verdict: VerdictWord
    value: str | None
    form_fault: str | None
    form_text: str | None
    explanations: tuple[ExplanationView, ...]


@dataclass(frozen=True, slots=True)
class EstimateVerdictView:
    """The verdict on a pupil's estimate, and why."""

    verdict: EstimateWord
    value: str | None
    codes: tuple[str, ...]
    reason: str


def estimate_view(judged: EstimateVerdict, voice: Voice) -> EstimateVerdictView:
    """The document of the verdict on an estimate."""
    number = None if judged.value is None else exact(judged.value)
    return EstimateVerdictView(judged.verdict, number, judged.codes, voice.plain(judged.reason))


@dataclass(frozen=True, slots=True)
class ChoiceView:
    """An option of four: its letter, its answer with its label, and what a wrong one tells."""

    label: str
    answer: str
    right: bool
    codes: tuple[str, ...]
    names: tuple[str, ...]
    reason: str
    glyphs: tuple[Glyph, ...]


def choice_views(found: Iterable[Choice], label: str | None, voice: Voice) -> tuple[ChoiceView, ...]:
    """The options as a screen needs them; *label* is that of the problem."""
    return tuple([
        ChoiceView(
            one.label, labelled(voice.text(one.answer), counted_in(label, one.answer)), one.right, one.codes,
            tuple([voice.said(name_of(code)) for code in one.codes]), voice.said(one.reason),
            tuple(with_label(voice.glyphs(one.answer, () if one.right else ("wrong",)), counted_in(label, one.answer))),
        )
        for one in found
    ])  # fmt: skip


@dataclass(frozen=True, slots=True)
class LineView:
    """A line of a pupil's working, and what is wrong with it, in codes and in words."""

    text: str
    equal: bool | None
    codes: tuple[str, ...]
    faults: tuple[str, ...]
    names: tuple[str, ...]
    fault_texts: tuple[str, ...]
    side: bool


@dataclass(frozen=True, slots=True)
class CheckedView:
    """Every line judged."""

    lines: tuple[LineView, ...]
    first_wrong: int | None
    answer: VerdictWord


def published(verdict: Verdict, voice: Voice) -> dict[str, Any]:
    """The document of a verdict as plain values; the fault of form only where there is one."""
    document: dict[str, Any] = {
        "verdict": verdict.verdict,
        "value": None if verdict.value is None else exact(verdict.value),
    }
    if verdict.form_fault:
        document |= {"form_fault": verdict.form_fault, "form_text": voice.said(FORM_FAULTS[verdict.form_fault])}
    return document | {"explanations": plainly([_explanation(one, voice) for one in verdict.explanations])}


def _explanation(one: Explanation, voice: Voice) -> ExplanationDocument:
    lines = tuple([voice.plain(line) for line in one.lines])
    return ExplanationDocument(one.rank, one.codes, lines, voice.said(one.reason), voice.said(one.question))


def verdict_view(verdict: Verdict, voice: Voice) -> VerdictView:
    """The verdict as a screen needs it."""
    explanations = []
    for one in verdict.explanations:
        shown = _explanation(one, voice)
        names = tuple([voice.said(name_of(code)) for code in one.codes])
        pieces = tuple([tuple(voice.typeset(line)) for line in one.lines])
        explanations.append(
            ExplanationView(shown.rank, shown.codes, shown.lines, shown.reason, shown.question, names, pieces)
        )
    fault = verdict.form_fault
    return VerdictView(
        verdict=verdict.verdict,
        value=None if verdict.value is None else exact(verdict.value),
        form_fault=fault,
        form_text=voice.said(FORM_FAULTS[fault]) if fault else None,
        explanations=tuple(explanations),
    )


def checked_view(checked: Checked, voice: Voice) -> CheckedView:
    """A checked working as a screen needs it."""
    return CheckedView(tuple([_line(line, voice) for line in checked.lines]), checked.first_wrong, checked.answer)


def _line(line: PupilLine, voice: Voice) -> LineView:
    names = tuple([voice.said(name_of(code)) for code in line.codes])
    faults = tuple([voice.said(FAULTS[fault]) for fault in line.faults])
    return LineView(line.text, line.equal, line.codes, line.faults, names, faults, line.side)
