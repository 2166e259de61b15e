"""What the pupils of a class hold, as its published document (docs/formats.md)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..judging.beliefs import Belief
from ..judging.misconceptions.registry import ENTRIES
from ..sittings.following import wish_of
from ..sittings.holding import Group, Held
from ..sittings.over_time import Back, Mended, OverTime, Reached
from ..sittings.question import Asked


@dataclass(frozen=True, slots=True)
class EvidenceDocument:
    """A problem in which a misconception could show, and whether it was *shown*."""

    problem: str
    shown: bool


@dataclass(frozen=True, slots=True)
class BeliefDocument:
    """How likely (from 0 to 1) a pupil holds a misconception, from how many *chances* it was *shown*."""

    code: str
    belief: float
    shown: int
    chances: int
    evidence: tuple[EvidenceDocument, ...]


@dataclass(frozen=True, slots=True)
class HoldingDocument:
    """What one pupil holds, and which misconceptions the answers do not tell apart."""

    beliefs: tuple[BeliefDocument, ...]
    cannot_tell: tuple[tuple[str, ...], ...]


@dataclass(frozen=True, slots=True)
class GroupDocument:
    """Pupils to be taught together: the problem to show, the question to ask, the *ladder* (as one wishes for it) to go
    on with.
    """

    codes: tuple[str, ...]
    pupils: tuple[str, ...]
    show: str | None
    question: str | None
    ladder: Mapping[str, Any] | None


@dataclass(frozen=True, slots=True)
class HeldDocument:
    """The whole document of one sitting."""

    pupils: Mapping[str, HoldingDocument]
    groups: tuple[GroupDocument, ...]
    unclear: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class OverTimeDocument:
    """What several sittings tell beyond what is held now; *warm_up* are the problems for today."""

    no_longer: Mapping[str, tuple[Mended, ...]]
    reached: Mapping[str, tuple[Reached, ...]]
    come_back: tuple[Back, ...]
    warm_up: tuple[str, ...]


def held_document(held: Held, asked: Sequence[Asked]) -> HeldDocument:
    """What is held, from answers to the problems that were *asked*."""
    return HeldDocument(
        {
            alias: HoldingDocument(
                tuple([_belief(one, asked) for one in found]), tuple([tuple(pair) for pair in held.cannot_tell[alias]])
            )
            for alias, found in held.beliefs.items()
        },
        tuple([_group(group, asked) for group in held.groups]),
        tuple(held.unclear),
    )


def _belief(one: Belief, asked: Sequence[Asked]) -> BeliefDocument:
    evidence = tuple([EvidenceDocument(asked[i].question.source, i in one.did) for i in one.could])
    return BeliefDocument(one.code, round(float(one.belief), 4), len(one.did), len(one.could), evidence)


def _group(group: Group, asked: Sequence[Asked]) -> GroupDocument:
    return GroupDocument(
        tuple(group.codes),
        tuple(group.pupils),
        None if group.show is None else asked[group.show].question.source,
        ENTRIES[group.codes[0]].question if group.codes else None,
        wish_of(group, asked),
    )


def over_time_document(found: OverTime, again: Sequence[str]) -> OverTimeDocument:
    """What is told *over time*; *again* are the problems of the warm-up."""
    return OverTimeDocument(found.no_longer, found.reached, found.come_back, tuple(again))
