"""A class, and a pupil, over all their sittings, as screens and papers need them."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property

from ..diagnosing.mend import nearest
from ..expressions.typeset import Glyph
from ..expressions.voice import Voice
from ..grading.rungs import ALL_RUNGS
from ..judging.beliefs import LIKELY, Belief
from ..judging.misconceptions.registry import ENTRIES
from ..sittings.answers import Answers
from ..sittings.happened import chances, happened
from ..sittings.over_time import OverTime
from ..sittings.question import Asked, explainer_of
from .cells import PupilView, glyphs_of, name_in_cell, question_about, question_view
from .nearest import NearestView, nearest_view


@dataclass(frozen=True, slots=True)
class SittingSeen:
    """A sitting of a class, and what was written in it."""

    id: str
    title: str
    day: date
    kind: str
    answers: Answers


@dataclass(frozen=True)
class Year:
    """A class with its *pupils* and all that they *sat*, the oldest first; *over* is what it says together, *voice* the
    one of its teacher.
    """

    name: str
    pupils: Sequence[PupilView]
    sat: Sequence[SittingSeen]
    over: OverTime
    voice: Voice

    @cached_property
    def asked(self) -> list[Asked]:
        """All that was asked, sitting after sitting."""
        return [asked for one in self.sat for asked in one.answers.asked]


@dataclass(frozen=True, slots=True)
class SittingSummary:
    """A sitting: how many of its cells are filled, and how many of those that were answered are right."""

    id: str
    title: str
    day: date
    kind: str
    questions: int
    entered: int
    answered: int
    right: int


@dataclass(frozen=True, slots=True)
class HeldView:
    """A misconception that a pupil may hold: *word* says how likely, *question* what to ask about it.

    *shown* and *chances* are where it did and where it could.
    """

    code: str
    name: str
    word: str
    belief: float
    shown: int
    chances: int
    question: str


@dataclass(frozen=True, slots=True)
class MendedView:
    """What a pupil no longer does: when it was last seen, and in how many chances since it was not."""

    code: str
    name: str
    last: date
    chances: int


@dataclass(frozen=True, slots=True)
class ReachedView:
    """A rung reached on a day."""

    code: str
    name: str
    on: date


@dataclass(frozen=True, slots=True)
class ChancesView:
    """A misconception in one sitting: in how many answers it *did* and *could* show, and how many *pupils*
    showed it.
    """

    day: date
    title: str
    did: int
    could: int
    pupils: int


@dataclass(frozen=True, slots=True)
class CodeOverTime:
    """A misconception over the sittings of a class: who is likely to hold it now."""

    code: str
    name: str
    holders: tuple[str, ...]
    sittings: tuple[ChancesView, ...]


@dataclass(frozen=True, slots=True)
class PupilOverTime:
    """What a pupil holds, no longer does and has reached."""

    id: str
    alias: str
    here: bool
    answered: int
    right: int
    holds: tuple[HeldView, ...]
    no_longer: tuple[MendedView, ...]
    reached: tuple[ReachedView, ...]


@dataclass(frozen=True, slots=True)
class GroupNow:
    """Pupils who hold the same after all they wrote, and what to ask them; without codes they are ready to go on."""

    codes: tuple[str, ...]
    names: tuple[str, ...]
    pupils: tuple[str, ...]
    question: str


@dataclass(frozen=True, slots=True)
class ClassOverTime:
    """A class over all its sittings, its *groups* as they stand, and who has many wrong answers without a reason."""

    name: str
    sittings: tuple[SittingSummary, ...]
    groups: tuple[GroupNow, ...]
    unclear: tuple[str, ...]
    codes: tuple[CodeOverTime, ...]
    pupils: tuple[PupilOverTime, ...]


@dataclass(frozen=True, slots=True)
class AnswerOfPupil:
    """An answer on a pupil's page."""

    problem: tuple[Glyph, ...]
    written: tuple[Glyph, ...]
    said: str
    name: str


@dataclass(frozen=True, slots=True)
class SittingOfPupil:
    """What a pupil wrote in a sitting."""

    id: str
    title: str
    day: date
    kind: str
    answers: tuple[AnswerOfPupil, ...]


@dataclass(frozen=True, slots=True)
class PupilPage:
    """A pupil over all sittings of her class: whether she is *ready* to go on, or much of what she wrote is *unclear*.

    *cannot_tell* are names that cannot be told apart yet, *telling* is the problem that would.
    """

    ready: bool
    unclear: bool
    cannot_tell: tuple[tuple[str, ...], ...]
    telling: NearestView
    class_name: str
    pupil: PupilOverTime
    codes: tuple[CodeOverTime, ...]
    sittings: tuple[SittingOfPupil, ...]


def called(what: str, voice: Voice) -> str:
    """What a misconception or a rung is called."""
    return voice.said(ENTRIES[what].name if what in ENTRIES else ALL_RUNGS.get(what, what))


def class_over_time(year: Year) -> ClassOverTime:
    """A class over all its sittings."""
    here = [pupil.id for pupil in year.pupils if pupil.here]
    return ClassOverTime(
        name=year.name,
        sittings=tuple([_summary(one) for one in year.sat]),
        groups=_groups(year, here),
        unclear=tuple([one for one in here if one in year.over.held.unclear]),
        codes=_codes(year, [pupil.id for pupil in year.pupils]),
        pupils=tuple([_pupil(year, pupil) for pupil in year.pupils]),
    )


def pupil_page(year: Year, pupil: PupilView) -> PupilPage:
    """A pupil over all sittings of her class."""
    told, telling = cannot_tell(year, pupil.id)
    return PupilPage(
        ready=any(not group.codes and pupil.id in group.pupils for group in year.over.held.groups),
        unclear=pupil.id in year.over.held.unclear,
        cannot_tell=told,
        telling=telling,
        class_name=year.name,
        pupil=_pupil(year, pupil),
        codes=_codes(year, [pupil.id]),
        sittings=tuple([_of_pupil(one, pupil.id) for one in reversed(year.sat) if any(one.answers.cells[pupil.id])]),
    )


def _summary(sat: SittingSeen) -> SittingSummary:
    cells = [cell for row in sat.answers.cells.values() for cell in row if cell is not None]
    return SittingSummary(
        sat.id, sat.title, sat.day, sat.kind, len(sat.answers.asked), len(cells), sum(cell.answered for cell in cells),
        sum(cell.right for cell in cells),
    )  # fmt: skip


def _groups(year: Year, here: Sequence[str]) -> tuple[GroupNow, ...]:
    """The groups after all that was written, without who is not *here* any more."""
    found = [
        GroupNow(
            codes=tuple(group.codes),
            names=tuple([called(code, year.voice) for code in group.codes]),
            pupils=tuple([one for one in here if one in group.pupils]),
            question=question_about(group.codes, year.voice),
        )
        for group in year.over.held.groups
    ]
    return tuple([one for one in found if one.pupils])


def cannot_tell(year: Year, pupil: str) -> tuple[tuple[tuple[str, ...], ...], NearestView]:
    """What cannot be told apart of a pupil, by names, and the nearest problem that would, where one is found at
    once.
    """
    pairs = year.over.held.cannot_tell.get(pupil, ())
    model = next((one for one in reversed(year.asked) if pairs and one.can_show(pairs[0][0])), None)
    telling = nearest(explainer_of(model.question).worked, *pairs[0]) if model else None
    told = tuple([tuple([called(code, year.voice) for code in pair]) for pair in pairs])
    return told, nearest_view(telling)


def _pupil(year: Year, pupil: PupilView) -> PupilOverTime:
    cells = [cell for one in year.sat for cell in one.answers.cells[pupil.id] if cell is not None]
    reached = year.over.reached.get(pupil.id, ())
    return PupilOverTime(
        id=pupil.id,
        alias=pupil.alias,
        here=pupil.here,
        answered=sum(cell.answered for cell in cells),
        right=sum(cell.right for cell in cells),
        holds=tuple([held_view(one, year.voice) for one in year.over.held.beliefs.get(pupil.id, ())]),
        no_longer=mended_views(year, pupil.id),
        reached=tuple([ReachedView(one.rung, called(one.rung, year.voice), one.on) for one in reached]),
    )


def held_view(one: Belief, voice: Voice) -> HeldView:
    """A belief in words and numbers."""
    return HeldView(
        one.code, called(one.code, voice), one.word, round(float(one.belief), 3), len(one.did), len(one.could),
        question_about([one.code], voice),
    )  # fmt: skip


def mended_views(year: Year, pupil: str) -> tuple[MendedView, ...]:
    """What a pupil no longer does."""
    found = year.over.no_longer.get(pupil, ())
    return tuple([MendedView(one.code, called(one.code, year.voice), one.last, one.chances) for one in found])


def _codes(year: Year, of: Collection[str]) -> tuple[CodeOverTime, ...]:
    """The misconceptions that some pupils showed, sitting by sitting; the one that most are likely to hold first."""
    mine = [one.answers.of(next(iter(of))) if len(of) == 1 else one.answers for one in year.sat]
    found = [{one.code: one for one in happened(answers).codes} for answers in mine]
    beliefs = year.over.held.beliefs
    rows = []
    for code in dict.fromkeys(code for one in found for code in one):
        strip = [
            ChancesView(
                day=sat.day,
                title=sat.title,
                did=one[code].did if code in one else 0,
                could=one[code].could if code in one else chances(answers, code),
                pupils=len(one[code].pupils) if code in one else 0,
            )
            for sat, answers, one in zip(year.sat, mine, found, strict=True)
        ]
        holders = [one for one in of if any(b.code == code and b.belief >= LIKELY for b in beliefs.get(one, ()))]
        rows.append(CodeOverTime(code, called(code, year.voice), tuple(holders), tuple(strip)))
    return tuple(sorted(rows, key=lambda row: (-len(row.holders), -sum(one.did for one in row.sittings), row.code)))


def _of_pupil(sat: SittingSeen, pupil: str) -> SittingOfPupil:
    asked = [one.question for one in sat.answers.asked]
    shown = [
        AnswerOfPupil(
            question_view(asked[number], 0).glyphs, glyphs_of(cell, asked[number]), cell.said,
            name_in_cell(sat.answers, pupil, number),
        )
        for number, cell in enumerate(sat.answers.cells[pupil]) if cell is not None
    ]  # fmt: skip
    return SittingOfPupil(sat.id, sat.title, sat.day, sat.kind, tuple(shown))
