"""The ways of the house."""

from __future__ import annotations

from uuid import UUID

from pydantic import BaseModel

from keen_slate.core.documents.ways_shown import ShownWay
from keen_slate.core.ways.settings import Group

from .base import ErrorBody, Query, Strict, WaysMap


class CodeOut(BaseModel):
    code: str
    name: str


class SettingOut(BaseModel):
    """A setting and its codes, the default first."""

    name: str
    group: str
    title: str
    codes: list[CodeOut]


class ShownSetting(BaseModel):
    """A setting with a piece of real working for each of its ways."""

    name: str
    ways: list[ShownWay]


class ShownWaysOut(BaseModel):
    settings: list[ShownSetting]


class ShownQuery(Query):
    """Which group of settings, and the set in whose ways they are shown."""

    group: Group
    set_id: UUID | None = None


class WaysOut(BaseModel):
    """Every setting that offers a choice, and what the house has chosen (name to code); what undoing and doing again
    would do.

    *school* is what the school has chosen for all its teachers, which holds where the house has chosen nothing.
    *hangs_on* are the codes that a question of a checklist may hang on, *questions* the checklist of a class that has
    none of its own.
    """

    groups: list[CodeOut]
    settings: list[SettingOut]
    hangs_on: list[CodeOut]
    questions: str
    house: dict[str, str]
    school: dict[str, str]
    version: int
    undo: str | None
    redo: str | None


class WaysConflictOut(BaseModel):
    """The ways as they are now, for the choice between the two."""

    error: ErrorBody
    ways: WaysOut


class HouseWaysIn(Strict):
    """The ways of the house, changed on a *version* of them."""

    house: WaysMap
    version: int
