"""What is shared among colleagues."""

from __future__ import annotations

from uuid import UUID

from pydantic import BaseModel

from .base import Strict
from .sets import SetSummary


class ShareIn(Strict):
    shared: bool


class ShareOut(BaseModel):
    """Whether a set is shared, and the *school* it can be shared with; null where its teacher is in none."""

    shared: bool
    school: str | None


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
