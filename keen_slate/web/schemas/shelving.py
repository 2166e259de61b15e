"""Sets as wholes: versions, copies, places, standards."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from .base import Strict, Title
from .sets import SetSummary


class VersionsIn(Strict):
    """How many further versions of a set are wanted; the same seed gives the same."""

    count: Annotated[int, Field(ge=1, le=5)]
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0


class VersionsOut(BaseModel):
    """The new sets, and how many of their problems are the same as before: for them no other was found in time."""

    sets: list[SetSummary]
    same: int


class CopyIn(Strict):
    title: Title


class PlaceIn(Strict):
    place: Literal["shelf", "archive", "bin"]


class EmptiedOut(BaseModel):
    gone: int


class StandardOut(BaseModel):
    code: str
    words: str
    serves: bool


class StandardsOut(BaseModel):
    """All published standards known, those first that the rungs of the set serve."""

    standards: list[StandardOut]
