"""A ladder as its published document (docs/formats.md)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..expressions.text import text
from ..grading.features import Features
from ..ladders.build import Ladder
from ..ladders.options import Option
from ..ladders.spec import Spec
from ..reading.problem import labelled


@dataclass(frozen=True, slots=True)
class LadderProblemDocument:
    """One problem of a ladder with its features, the codes that it reveals, and the form that a lone number is asked
    for.
    """

    text: str
    features: Features
    reveals: tuple[str, ...]
    target: str | None


@dataclass(frozen=True, slots=True)
class LadderDocument:
    """The problems, what they reveal and leave alike, and how many candidates there were."""

    problems: tuple[LadderProblemDocument, ...]
    reveals: tuple[str, ...]
    not_separated: tuple[tuple[str, str], ...]
    considered: int
    counts: Mapping[str, int]
    exact: bool
    sampled: bool
    ended_early: bool
    not_revealed: tuple[str, ...]


def ladder_document(ladder: Ladder, spec: Spec) -> LadderDocument:
    """The document of a ladder."""
    return LadderDocument(
        problems=tuple([problem_document(found, spec.label) for found in ladder.problems]),
        reveals=ladder.reveals,
        not_separated=ladder.not_separated,
        considered=ladder.considered,
        counts=ladder.counts,
        exact=ladder.exact,
        sampled=ladder.sampled,
        ended_early=ladder.ended_early,
        not_revealed=ladder.not_revealed,
    )


def problem_document(found: Option, label: str | None) -> LadderProblemDocument:
    """One problem of a ladder."""
    return LadderProblemDocument(labelled(text(found.expr), label), found.features, tuple(found.answers), found.target)
