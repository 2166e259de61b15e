"""Classes, their pupils, what they hold over time, and what is due today."""

from __future__ import annotations

from datetime import date
from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, Field, RootModel, StringConstraints

from keen_slate.core.documents.cells import PupilView
from keen_slate.core.documents.over_time import ClassOverTime, PupilPage, SittingSummary
from keen_slate.core.documents.sitting import NextProblemView
from keen_slate.core.limits import ALIAS_LENGTH, MOST_PUPILS

from .base import Codes, Date, Query, Source, Strict, Target, Title

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


class ClassSummary(BaseModel):
    id: UUID
    name: str
    pupils: int
    sittings: int
    last: date | None


class ClassesOut(BaseModel):
    classes: list[ClassSummary]


class ClassOut(BaseModel):
    """A class; *old* is how many of its sittings the setting to forget would take away today."""

    id: UUID
    name: str
    returns: list[int]
    forget_months: int
    pupils: list[PupilView]
    sittings: list[SittingSummary]


class OverTimeOut(RootModel[ClassOverTime]):
    """A class over all its sittings."""


class PupilPageOut(RootModel[PupilPage]):
    """A pupil over all sittings of her class."""


class GroupNowIn(Strict):
    """A group by what it holds, to be made a set for."""

    codes: Codes


class BackOut(BaseModel):
    """What is due: a misconception that was mended or a rung that was reached, by its name, for how many pupils."""

    what: str
    name: str
    pupils: int


class TodayOut(BaseModel):
    """What comes back today in one class, and a warm-up made of it."""

    class_id: UUID
    name: str
    back: list[BackOut]
    problems: list[NextProblemView]


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


class MetOut(BaseModel):
    """How many pupils of a class *did* something, *of* so many who had the chance, on a day."""

    code: str
    name: str
    class_name: str
    day: date
    did: int
    of: int


class MetsOut(BaseModel):
    met: list[MetOut]
