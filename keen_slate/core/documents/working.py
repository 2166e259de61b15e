"""A worked problem as its published document (docs/formats.md); values are exact fractions in text."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from ..expressions.text import exact
from ..expressions.tree import Equation
from ..expressions.voice import Voice
from ..grading.features import Features
from ..judging.estimate import Estimate
from ..judging.misconceptions import LikelyAnswer
from ..judging.misconceptions.registry import Status
from ..reading.kinds import Kind
from ..reading.problem import labelled
from ..reading.units import counted_in
from ..stories.story import story_of, told_text
from ..ways.voices import voice_of
from ..worked import Worked
from ..working.proof import Working
from ..working.step import Step
from .plain import plainly

FORMAT = "keen-slate/working"
VERSION = 1


@dataclass(frozen=True, slots=True)
class ProblemDocument:
    """A problem as it is written; steps go without its *label*."""

    text: str
    kind: Kind
    label: str | None


@dataclass(frozen=True, slots=True)
class AnswerDocument:
    """The answer with its label, and its exact value."""

    text: str
    value: str


@dataclass(frozen=True, slots=True)
class StepDocument:
    """A step as it is written and said; *lines* are its jottings."""

    kind: str
    title: str
    before: str
    after: str
    reason: str
    spoken: str
    lines: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class EstimateDocument:
    """The value, or the interval from *low* to *high*, that the answer is compared with; None where there is none."""

    rule: str
    rounded: tuple[str, ...]
    value: str | None
    bound: str | None
    low: str | None
    high: str | None
    within: bool | None
    ties: tuple[int, ...]
    text: str


@dataclass(frozen=True, slots=True)
class MisconceptionDocument:
    """A likely wrong answer, how it comes about, and the codes that have the same one."""

    code: str
    answer: str
    value: str
    status: Status
    caught_by_estimate: bool
    same_as: tuple[str, ...]
    lines: tuple[str, ...]
    reason: str
    question: str


@dataclass(frozen=True, slots=True)
class WorkingDocument:
    """The whole document. Of a problem with blanks the first *answers*, and how many there are (or at least are)."""

    format: str
    version: int
    problem: ProblemDocument
    answer: AnswerDocument
    methods: Mapping[str, str]
    steps: tuple[StepDocument, ...]
    estimate: EstimateDocument | None
    misconceptions: tuple[MisconceptionDocument, ...]
    features: Features
    surprises: tuple[str, ...]
    answers: tuple[str, ...] = ()
    count: int = 1
    counted: bool = True


def published(worked: Worked) -> dict[str, Any]:
    """The document as plain values; *answers*, *count* and *counted* only where there are blanks."""
    document: dict[str, Any] = plainly(working_document(worked))
    if not document["answers"]:
        for name in ("answers", "count", "counted"):
            del document[name]
    return document


def working_document(worked: Worked) -> WorkingDocument:
    """The document of a worked problem."""
    working, problem = worked.working, worked.working.problem
    voice = voice_of(working.ways)
    answers = answers_of(working)
    return WorkingDocument(
        format=FORMAT,
        version=VERSION,
        problem=ProblemDocument(problem_text(working, voice), problem.kind, problem.label),
        answer=AnswerDocument(answer_text(working, voice), exact(working.value)),
        methods=working.ways.as_dict(),
        steps=step_documents(working, voice),
        estimate=estimate_document(worked.estimate, voice) if worked.estimate else None,
        misconceptions=tuple([misconception_document(likely, problem.label, voice) for likely in worked.likely]),
        features=worked.features,
        surprises=tuple([voice.said(sentence) for sentence in worked.surprises]),
        answers=answers,
        count=count_of(working),
        counted=working.count is not None,
    )


def problem_text(working: Working, voice: Voice) -> str:
    """The problem with its label, as the class writes it; a story as it is told."""
    story = story_of(working.problem)
    if story is not None:
        return told_text(story, voice)
    return labelled(voice.text(working.problem.expr), working.problem.label)


def answer_text(working: Working, voice: Voice) -> str:
    """The answer with its label, as the class writes it."""
    return labelled(voice.text(working.answer), working.answer_label)


def wrong_text(likely: LikelyAnswer, label: str | None, voice: Voice) -> str:
    """A likely wrong answer as the pupil writes it: with the label or without."""
    return labelled(
        voice.text(likely.wrong.answer), counted_in(label, likely.wrong.answer) if likely.wrong.labelled else None
    )


def answers_of(working: Working) -> tuple[str, ...]:
    """The first answers of a problem with blanks, in the input notation; none for other problems."""
    if not isinstance(working.problem.expr, Equation):
        return ()
    voice = voice_of(working.ways)
    return tuple([voice.text(answer) for answer in working.answers or (working.answer,)])


def count_of(working: Working) -> int:
    """How many answers there are; where they are too many to be counted, how many are listed."""
    if not isinstance(working.problem.expr, Equation):
        return 1
    return len(working.answers) if working.count is None else working.count


def step_documents(working: Working, voice: Voice) -> tuple[StepDocument, ...]:
    """The steps, each beginning with the text that the one before it ended in."""
    before = voice.text(working.start)
    done = []
    for step in working.steps:
        done.append(_step(step, before, voice))
        before = done[-1].after
    return tuple(done)


def _step(step: Step, before: str, voice: Voice) -> StepDocument:
    return StepDocument(
        kind=step.kind.code,
        title=voice.plain(step.title),
        before=before,
        after=voice.text(step.after),
        reason=voice.plain(step.reason),
        spoken=step_spoken(step, voice),
        lines=tuple([voice.plain(rich) for rich in step.lines]),
    )


def step_spoken(step: Step, voice: Voice) -> str:
    """What the teacher says at a step: its title, and its result in words."""
    return f"{voice.spoken(step.title)} That makes {voice.words(step.after)}."


def estimate_document(about: Estimate, voice: Voice) -> EstimateDocument:
    """An estimate; its sentence tells what happens to a tie, too."""
    return EstimateDocument(
        rule=about.rule,
        rounded=tuple([voice.text(number) for number in about.rounded]),
        value=None if about.total is None else exact(about.total),
        bound=None if about.bound is None else exact(about.bound),
        low=None if about.low is None else exact(about.low),
        high=None if about.high is None else exact(about.high),
        within=about.within,
        ties=about.ties,
        text=f"{voice.plain(about.sentence)} {voice.plain(about.tie)}".strip(),
    )


def misconception_document(likely: LikelyAnswer, label: str | None, voice: Voice) -> MisconceptionDocument:
    """A likely wrong answer."""
    return MisconceptionDocument(
        code=likely.entry.code,
        answer=wrong_text(likely, label, voice),
        value=exact(likely.answer_value),
        status=likely.status,
        caught_by_estimate=likely.caught_by_estimate,
        same_as=likely.same_as,
        lines=tuple([voice.plain(rich) for rich in likely.wrong.lines]),
        reason=voice.said(likely.entry.reason),
        question=voice.said(likely.entry.question),
    )
