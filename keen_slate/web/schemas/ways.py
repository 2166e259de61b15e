"""The ways of the house."""

from __future__ import annotations

from pydantic import BaseModel

from .base import ErrorBody, Strict, WaysMap


class CodeOut(BaseModel):
    code: str
    name: str


class SettingOut(BaseModel):
    """A setting and its codes, the default first."""

    name: str
    title: str
    codes: list[CodeOut]


class WaysOut(BaseModel):
    """Every setting that offers a choice, and what the house has chosen (name to code); what undoing and doing again would do.

    *hangs_on* are the codes that a question of a checklist may hang on, *questions* the checklist of a class that has none of its own.
    """

    settings: list[SettingOut]
    hangs_on: list[CodeOut]
    questions: str
    house: dict[str, str]
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
