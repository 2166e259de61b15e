"""What is shared among colleagues."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, Field

from keen_slate.core.documents.next_door import NextDoorView
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.limits import MOST_COLLEAGUES

from .base import Id, Strict
from .sets import SetSummary


class ShareIn(Strict):
    """Whether a set is shared, and *with_ids* alone; with null, with all of the school."""

    shared: bool
    with_ids: Annotated[list[Id], Field(min_length=1, max_length=MOST_COLLEAGUES)] | None = None


class ColleagueOut(BaseModel):
    id: UUID
    name: str


class ShareOut(BaseModel):
    """Whether a set is shared, and *with_ids* alone (null: with all); with whom it can be: the *school*, its
    *colleagues*.

    The school is null where its teacher is in none.
    """

    shared: bool
    with_ids: list[UUID] | None
    school: str | None
    colleagues: list[ColleagueOut]


class SharedSet(BaseModel):
    """A set that a colleague shares."""

    teacher_id: UUID
    teacher: str
    set: SetSummary


class ColleaguesSetsOut(BaseModel):
    """What the colleagues of a *school* share, some of the *total*; null where one is in no school."""

    school: str | None
    sets: list[SharedSet]
    total: int


class SharedExample(BaseModel):
    """An example of a set that a colleague shares, as it stands in a list."""

    id: UUID
    glyphs: list[Glyph]
    spoken: str


class SharedSetOut(BaseModel):
    """A set that a colleague shares, with its examples as her class works them."""

    teacher: str
    title: str
    examples: list[SharedExample]


class NextDoorOut(BaseModel):
    """An example beside the same problem in one's own ways; where it cannot be worked there, *unreadable* says why."""

    beside: NextDoorView | None
    unreadable: str | None
