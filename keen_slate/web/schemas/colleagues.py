"""What is shared among colleagues."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, Field, StringConstraints

from keen_slate.core.limits import SEARCH_LENGTH

from .base import Query, Strict
from .sets import SetSummary


class ShareIn(Strict):
    shared: bool


class ShareOut(BaseModel):
    """Whether a set is shared, and the *school* it can be shared with; null where its teacher is in none."""

    shared: bool
    school: str | None


class ColleaguesQuery(Query):
    """The words that are looked for, and the number of the first set (from 0)."""

    search: Annotated[str, StringConstraints(max_length=SEARCH_LENGTH)] = ""
    start: Annotated[int, Field(ge=0, le=1_000_000)] = 0


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
