"""Classes, their pupils, what they hold over time, and what is due today."""

from __future__ import annotations

from datetime import date
from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, Field, StringConstraints

from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.limits import ALIAS_LENGTH, MOST_PUPILS

from .base import Codes, Date, Query, Source, Strict, Target, Title
from .explaining import MendOut

Alias = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=ALIAS_LENGTH)]
# More than a class holds come in, so that the store can say in a sentence how many there are.
Aliases = Annotated[list[Alias], Field(max_length=10 * MOST_PUPILS)]
# A day as a teacher writes it.
Day = Annotated[str, StringConstraints(max_length=60)]
Returns = Annotated[list[Annotated[int, Field(ge=1, le=365)]], Field(max_length=6)]


class ClassIn(Strict):
    """A new class, with the aliases of its pupils."""

    name: Title
    aliases: Aliases = []


class ClassChange(Strict):
    """What of a class is to be otherwise; 0 months forget nothing."""

    name: Title | None = None
    returns: Returns | None = None
    forget_months: Annotated[int, Field(ge=0, le=60)] | None = None


class PupilsIn(Strict):
    aliases: Annotated[Aliases, Field(min_length=1)]


class PupilChange(Strict):
    alias: Alias | None = None
    here: bool | None = None


class PupilOut(BaseModel):
    """*full_name* says that the alias looks like a full name."""

    id: UUID
    alias: str
    here: bool
    full_name: bool


class ClassSummary(BaseModel):
    id: UUID
    name: str
    pupils: int
    sittings: int
    last: date | None


class ClassesOut(BaseModel):
    classes: list[ClassSummary]


class SittingSummary(BaseModel):
    """A sitting: how many of its cells are filled, and how many of those that were answered are right."""

    id: UUID
    title: str
    day: date
    kind: str
    questions: int
    entered: int
    answered: int
    right: int


class ClassOut(BaseModel):
    """A class; *old* is how many of its sittings the setting to forget would take away today."""

    id: UUID
    name: str
    returns: list[int]
    forget_months: int
    pupils: list[PupilOut]
    sittings: list[SittingSummary]


class NamedCode(BaseModel):
    code: str
    name: str


class HeldOut(NamedCode):
    """A misconception that a pupil may hold: *word* says how likely, *question* what to ask about it.

    *shown* and *chances* are where it did and where it could.
    """

    word: str
    belief: float
    shown: int
    chances: int
    question: str


class MendedOut(NamedCode):
    """What a pupil no longer does: when it was last seen, and in how many chances since it was not."""

    last: date
    chances: int


class ReachedOut(NamedCode):
    """A rung reached on a day."""

    on: date


class ChancesOut(BaseModel):
    """A misconception in one sitting: in how many answers it *did* and *could* show, and how many *pupils*
    showed it.
    """

    day: date
    title: str
    did: int
    could: int
    pupils: int


class CodeOverTime(NamedCode):
    """A misconception over the sittings of a class: who is likely to hold it now."""

    holders: list[UUID]
    sittings: list[ChancesOut]


class PupilOverTime(BaseModel):
    id: UUID
    alias: str
    here: bool
    answered: int
    right: int
    holds: list[HeldOut]
    no_longer: list[MendedOut]
    reached: list[ReachedOut]


class GroupNow(BaseModel):
    """Pupils who hold the same after all they wrote, and what to ask them; without codes they are ready to go on."""

    codes: list[str]
    names: list[str]
    pupils: list[UUID]
    question: str


class OverTimeOut(BaseModel):
    """A class over all its sittings, its *groups* as they stand, and who has many wrong answers without a reason."""

    name: str
    sittings: list[SittingSummary]
    groups: list[GroupNow]
    unclear: list[UUID]
    codes: list[CodeOverTime]
    pupils: list[PupilOverTime]


class AnswerShown(BaseModel):
    """An answer on a pupil's page."""

    problem: list[Glyph]
    written: list[Glyph]
    said: str
    name: str


class SittingOfPupil(BaseModel):
    id: UUID
    title: str
    day: date
    kind: str
    answers: list[AnswerShown]


class PupilPageOut(BaseModel):
    """A pupil over all sittings of her class: whether she is *ready* to go on, or much of what she wrote is *unclear*.

    *cannot_tell* are names that cannot be told apart yet, *telling* is the problem that would.
    """

    ready: bool
    unclear: bool
    cannot_tell: list[list[str]]
    telling: MendOut
    class_name: str
    pupil: PupilOverTime
    codes: list[CodeOverTime]
    sittings: list[SittingOfPupil]


class GroupNowIn(Strict):
    """A group by what it holds, to be made a set for."""

    codes: Codes


class BackOut(BaseModel):
    """What is due: a misconception that was mended or a rung that was reached, by its name, for how many pupils."""

    what: str
    name: str
    pupils: int


class WarmUpProblem(BaseModel):
    text: str
    target: Target | None
    glyphs: list[Glyph]


class TodayOut(BaseModel):
    """What comes back today in one class, and a warm-up made of it."""

    class_id: UUID
    name: str
    back: list[BackOut]
    problems: list[WarmUpProblem]


class TodaysOut(BaseModel):
    classes: list[TodayOut]


class TodayQuery(Query):
    """The day by the teacher's calendar."""

    day: Date


class WarmUpIn(Strict):
    """The problems of a warm-up as they were shown."""

    day: Date
    problems: Annotated[list[Source], Field(min_length=1, max_length=10)]
    targets: Annotated[list[Target | None], Field(max_length=10)] = []


class MetOut(NamedCode):
    """How many pupils of a class *did* something, *of* so many who had the chance, on a day."""

    class_name: str
    day: date
    did: int
    of: int


class MetsOut(BaseModel):
    met: list[MetOut]
