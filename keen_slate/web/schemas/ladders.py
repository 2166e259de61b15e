"""Ladders built to order, climbs, one like this."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import BaseModel, Field, PlainValidator

from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.limits import MOST_EXAMPLES

from .base import Code, Id, Source, Strict, Target


class LimitsWish(Strict):
    """The limits of numbers and the targets in a wish (docs/formats.md)."""

    denominators: list[int] = []
    largest_common_denominator: int | None = None
    largest_whole: int | None = None
    answer_below: int | str | None = None
    avoid: list[str] = []
    targets: list[str] = []
    separate: bool = False
    places: int | list[int] = [1, 2]
    seed: int = 0


class LadderWish(LimitsWish):
    """How a wish for a ladder is written (docs/formats.md): *rungs* with counts, or so many *steps* *from* a rung *to*
    another.
    """

    rungs: dict[str, int] = {}
    from_: Annotated[str | None, Field(alias="from")] = None
    to: str | None = None
    steps: int | None = None
    label: str | None = None
    operations: list[Literal["+", "-", "×", "÷"]] = []
    lowest_terms: bool = False
    likes_first: bool = False
    only: str | None = None


def as_given(wish: object) -> object:
    """A *wish* as it came."""
    return wish


# The core reads a wish and says what is wrong with it; the type is for those who write one.
Wish = Annotated[Any, PlainValidator(as_given, json_schema_input_type=LadderWish)]


class WishIn(Strict):
    """A wish for a ladder (docs/formats.md); the core reads it. The ways of the set decide what a problem reveals."""

    spec: Wish
    set_id: Id | None = None


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

    kept: Annotated[list[Source | None], Field(max_length=MOST_EXAMPLES)] = []
    shunned: Annotated[list[Source], Field(max_length=400)] = []


class LadderProblem(BaseModel):
    """A problem that was built, and *why* it stands there; *target* is the form that a lone number is asked for."""

    text: str
    target: Target | None
    glyphs: list[Glyph]
    rung: str
    harder: str | None
    mark: Literal["jump", "back"] | None
    why: str
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
    set_id: Id | None = None


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
    only: list[RungOut]


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
