"""How a set can begin."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from keen_slate.core.ladders.spec import MOST_PROBLEMS
from keen_slate.core.limits import MOST_EXAMPLES

from .base import Code, Source, Strict, Title
from .ladders import RungOut


class StandardStart(BaseModel):
    """A published standard, in words of our own, under the heading that it is looked for."""

    code: str
    words: str
    group: str


class StartsOut(BaseModel):
    """The standards and the rungs that a set can begin with."""

    standards: list[StandardStart]
    rungs: list[RungOut]


class Between(Strict):
    """So many problems from one rung to another."""

    first: Code
    last: Code
    problems: Annotated[int, Field(ge=1, le=MOST_PROBLEMS)] = 8


class StartIn(Strict):
    """A new set: with problems for a published *standard*, *between* two rungs, or *problems* as they are given.

    Without a *title* it is called after what it begins with. The same seed gives the same problems.
    """

    title: Title | None = None
    standard: Annotated[str, Field(max_length=40)] | None = None
    between: Between | None = None
    problems: Annotated[list[Source], Field(max_length=MOST_EXAMPLES)] = []
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0


class ClimbStart(BaseModel):
    """A climb that suits a set: *name*, and its rungs from *first* to *last* with what they are called."""

    name: str
    first: str
    last: str
    from_words: str
    to_words: str


class ClimbStartsOut(BaseModel):
    climbs: list[ClimbStart]
