"""What crosses the wire about sets as a whole: ladders built to order, climbs, versions, fading, marks, minutes, objectives."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import BaseModel, Field, StringConstraints

from .schemas import Glyph, SetSummary, Source, Strict, Title

Code = Annotated[str, StringConstraints(max_length=60)]
Codes = Annotated[list[Code], Field(max_length=60)]
Problems = Annotated[list[Source], Field(max_length=60)]


class WishIn(Strict):
    """A wish for a ladder (docs/formats.md); the core reads it. The ways of the set decide what a problem reveals."""

    spec: dict[str, Any]
    set_id: UUID | None = None


class CountsOut(BaseModel):
    """How many problems are wished for on each *rung*, and how many there are that satisfy the limits."""

    rungs: dict[str, int]
    counts: dict[str, int]
    considered: int
    exact: bool
    sampled: bool
    ended_early: bool


class LadderIn(WishIn):
    """A wish, with the problems that are kept in their places (null: a new one) and those not to be taken."""

    kept: Annotated[list[Source | None], Field(max_length=60)] = []
    shunned: Annotated[list[Source], Field(max_length=400)] = []


class LadderProblem(BaseModel):
    text: str
    glyphs: list[Glyph]
    rung: str
    harder: str | None
    mark: Literal["jump", "back"] | None
    reveals: list[str]


class ImpossibleOut(BaseModel):
    """Which part of the wish rules it out, in a sentence, and the wish with the nearest value that works."""

    limit: str
    said: str
    nearest: Any = None
    ended_early: bool = False


class LadderOut(BaseModel):
    """The ladder, or why there is none."""

    problems: list[LadderProblem]
    reveals: list[str]
    not_separated: list[list[str]]
    counts: dict[str, int]
    considered: int
    exact: bool
    sampled: bool
    ended_early: bool
    not_revealed: list[str]
    impossible: ImpossibleOut | None


class SmallestIn(Strict):
    codes: Annotated[list[Code], Field(min_length=1, max_length=40)]
    set_id: UUID | None = None


class SmallestOut(BaseModel):
    """The fewest problems that reveal and separate the codes, and whether it is proven that no fewer do."""

    problems: list[LadderProblem]
    proven: bool
    not_revealed: list[str]
    not_separated: list[list[str]]
    candidates: int
    ended_early: bool


class RungOut(BaseModel):
    code: str
    name: str


class TargetOut(BaseModel):
    """A misconception that a ladder may be asked to reveal."""

    code: str
    name: str
    family: str


class ChoicesOut(BaseModel):
    """What a ladder can be made of."""

    rungs: list[RungOut]
    avoid: list[RungOut]
    targets: list[TargetOut]
    denominators: list[int]


class ClimbOut(BaseModel):
    """The order that climbs with the fewest changes: all examples by their ids, and those that move."""

    order: list[UUID]
    moves: list[UUID]


class ParallelIn(Strict):
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0


class ParallelOut(BaseModel):
    """One like an example; *different* names what is not alike, null text where there is none."""

    text: str | None
    glyphs: list[Glyph]
    different: list[str]


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


class HidesIn(Strict):
    """For examples by their ids: how many of the last steps pupils fill in."""

    version: int
    hides: Annotated[dict[UUID, Annotated[int, Field(ge=0, le=99)]], Field(max_length=60)]


class TakeIn(Strict):
    """Problems to be put on the ladder of a set, all or none."""

    version: int
    problems: Annotated[list[Source], Field(min_length=1, max_length=60)]
    position: Annotated[int, Field(ge=0)] | None = None


class StandardOut(BaseModel):
    code: str
    words: str
    serves: bool


class StandardsOut(BaseModel):
    """All published standards known, those first that the rungs of the set serve."""

    standards: list[StandardOut]
