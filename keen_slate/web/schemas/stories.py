"""Stories: read, made to order, told of an example; scenarios."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, PlainValidator, StringConstraints

from keen_slate.core.documents.story import StoryView
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.limits import CODE_LENGTH, MOST_EXAMPLES, MOST_THINGS, TITLE_LENGTH
from keen_slate.core.stories.understanding.doubts import Doubt

from .base import Code, ErrorBody, Id, Source, Strict, Target, WaysMap
from .ladders import ImpossibleOut, LimitsWish, RungOut, as_given


class StoryIn(Strict):
    """A story as it is typed, with its calculation in braces or without."""

    text: Source
    ways: WaysMap = {}


class FoundNumber(BaseModel):
    """A number that was found in a text, from character *start* to *end*, with what it counts; *known* where that is a
    unit of measure.
    """

    text: str
    number: str
    unit: str | None
    known: bool
    start: int
    end: int


class StoryReadOut(BaseModel):
    """What is understood of a story: its numbers, and how it is read; all *readings* where that is not *certain*, none
    where it is refused.

    *doubts* say why it is not certain, each with its place in the text.
    """

    numbers: list[FoundNumber]
    certain: bool
    doubts: list[Doubt]
    readings: list[StoryView]
    refusal: ErrorBody | None


class ToldStory(BaseModel):
    """A story with its rung, and what its wrong answers reveal."""

    story: StoryView
    rung: str
    answer: list[Glyph]
    reveals: list[str]


class TellIn(Strict):
    """An example that is to be told as a story."""

    text: Source
    ways: WaysMap = {}
    target: Target | None = None
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0


class ToldOut(BaseModel):
    """Stories that fit an example's numbers and label; none where there are none."""

    stories: list[ToldStory]


class StoriesWish(LimitsWish):
    """How a wish for stories is written (docs/formats.md)."""

    rungs: dict[str, int] | None = None
    count: int | None = None
    situations: list[str] | None = None
    unknowns: list[str] | None = None
    scenario: str | dict[str, Any] | None = None
    calculations: list[str] | None = None


class MakeIn(Strict):
    """A wish for stories, with those that are kept in their places (null: a new one) and texts not to be told."""

    spec: Annotated[Any, PlainValidator(as_given, json_schema_input_type=StoriesWish)]
    set_id: Id | None = None
    kept: Annotated[list[Source | None], Field(max_length=MOST_EXAMPLES)] = []
    shunned: Annotated[list[Source], Field(max_length=400)] = []


class MadeOut(BaseModel):
    """The stories that were made, or which part of the wish rules them out."""

    stories: list[ToldStory]
    not_revealed: list[str]
    impossible: ImpossibleOut | None


class SituationOut(BaseModel):
    code: str
    name: str
    unknowns: list[RungOut]


class ThingPart(Strict):
    """A thing of a scenario: what it is, its unit, how much of it there may be, and the words that its kind needs."""

    kind: Literal["piece", "stuff", "doing"]
    name: str
    unit: str
    from_: Annotated[str | int, Field(alias="from")]
    to: str | int
    size: str | None = None
    where: str | None = None
    use: str | None = None
    put: str | None = None


class ScenarioDocument(Strict):
    """A scenario (docs/formats.md): who does something, and the things that stories are told about."""

    format: Literal["keen-slate/scenario"] = "keen-slate/scenario"
    version: Literal[1] = 1
    code: Code
    name: Annotated[str, StringConstraints(max_length=TITLE_LENGTH)]
    doers: Annotated[list[Annotated[str, StringConstraints(max_length=CODE_LENGTH)]], Field(max_length=20)]
    things: Annotated[list[ThingPart], Field(max_length=MOST_THINGS)]


class ScenarioOut(BaseModel):
    """A scenario; *own* where a teacher made it."""

    own: bool
    document: dict[str, Any]


class StoryChoicesOut(BaseModel):
    """What stories can be made of."""

    rungs: list[RungOut]
    situations: list[SituationOut]
    calculations: list[RungOut]
    scenarios: list[ScenarioOut]
    units: list[str]
    sizes: list[str]
