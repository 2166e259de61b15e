"""What crosses the wire. The OpenAPI document and the front end's types are generated from these models.

Where a dataclass of the core crosses as it is, it is used as it is.
"""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from keen_slate.core.compare import OtherWay
from keen_slate.core.features import Features
from keen_slate.core.figures.display import Figure
from keen_slate.core.layouts.cells import Cell, Rule
from keen_slate.core.layouts.stacked import Sheet
from keen_slate.core.numbers import MAX_CHARACTERS
from keen_slate.store.models import TITLE_LENGTH, WORDS_LENGTH

Source = Annotated[str, StringConstraints(max_length=4 * MAX_CHARACTERS)]
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=TITLE_LENGTH)]
Sentence = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=WORDS_LENGTH)]
StepKey = Annotated[str, StringConstraints(pattern=r"^[a-z-]{1,40}( [0-9]{1,2})?( spoken)?$")]
Words = Annotated[dict[StepKey, Sentence], Field(max_length=100)]
Target = Literal["improper", "mixed", "fraction", "decimal"]
WaysMap = Annotated[dict[str, str], Field(max_length=40)]


class Strict(BaseModel):
    """What comes in: unknown fields are refused, not lost."""

    model_config = ConfigDict(extra="forbid")


class ErrorBody(BaseModel):
    message: str
    position: int
    length: int
    hint: str


class ErrorOut(BaseModel):
    error: ErrorBody


# A worked problem -----------------------------------------------------------------------------------------


class Glyph(BaseModel):
    kind: Literal["words", "number", "operator", "fraction", "power", "recurring"]
    text: str | None = None
    top: str | None = None
    bottom: str | None = None
    role: str = ""


class Row(BaseModel):
    step: int | None
    width: int
    height: int
    cells: list[Cell]
    rules: list[Rule]
    spoken: str


class Box(BaseModel):
    """A box of the four-box layout, or a question of the checklist with its answer."""

    title: str
    answer: str
    rows: list[Row]
    line_glyphs: list[list[Glyph]]


class ProblemOut(BaseModel):
    text: str
    kind: str
    kind_name: str
    label: str | None
    glyphs: list[Glyph]


class AnswerOut(BaseModel):
    text: str
    value: str
    glyphs: list[Glyph]


class StepOut(BaseModel):
    key: str
    kind: str
    title: str
    before: str
    after: str
    reason: str
    own_reason: str
    reason_from: Literal["", "example", "set"]
    spoken: str
    own_spoken: str
    spoken_from: Literal["", "example", "set"]
    lines: list[str]
    title_glyphs: list[Glyph]
    line_glyphs: list[list[Glyph]]
    figure: Figure | None
    figure_note: str | None


class EstimateOut(BaseModel):
    rule: str
    rounded: list[str]
    value: str
    bound: str
    within: bool
    ties: list[int]
    text: str
    glyphs: list[Glyph]
    tie_glyphs: list[Glyph]
    sum_glyphs: list[Glyph]
    bound_glyphs: list[Glyph]


class MisconceptionOut(BaseModel):
    code: str
    name: str
    answer: str
    value: str
    status: Literal["reveals", "form", "hidden"]
    caught_by_estimate: bool
    same_as: list[str]
    lines: list[str]
    reason: str
    question: str
    glyphs: list[Glyph]
    line_glyphs: list[list[Glyph]]


class WorkingOut(BaseModel):
    format: str
    version: int
    problem: ProblemOut
    answer: AnswerOut
    methods: dict[str, str]
    steps: list[StepOut]
    layout: str
    rows: list[Row]
    sheet: Sheet | None
    boxes: list[Box]
    estimate: EstimateOut
    misconceptions: list[MisconceptionOut]
    features: Features
    surprises: list[str]


class WorkIn(Strict):
    """One problem, with the ways that depart from the defaults."""

    text: Source
    ways: WaysMap = {}
    target: Target | None = None


# Sets -------------------------------------------------------------------------------------------------------


class MeOut(BaseModel):
    name: str
    csrf_token: str


class ExampleSummary(BaseModel):
    """A rung of the ladder. *harder* says what is new against the example before it."""

    id: UUID
    source: str
    target: str | None
    text: str
    spoken: str
    glyphs: list[Glyph]
    rung: str | None
    harder: str | None
    surprises: list[str]
    ways: dict[str, str]
    words: dict[str, str]
    unreadable: str | None


class SetSummary(BaseModel):
    id: UUID
    title: str
    changed_at: datetime
    examples: int
    first: list[list[Glyph]]
    rungs: list[str]


class ShelfOut(BaseModel):
    sets: list[SetSummary]


class SetOut(BaseModel):
    id: UUID
    title: str
    version: int
    changed_at: datetime
    ways: dict[str, str]
    words: dict[str, str]
    house: dict[str, str]
    examples: list[ExampleSummary]


class ExampleOut(BaseModel):
    """An example with its whole working, and the other ways of working it."""

    id: UUID
    working: WorkingOut
    other_ways: list[OtherWay]


class SetWithExampleOut(BaseModel):
    set: SetOut
    example: ExampleOut


class ConflictOut(BaseModel):
    """The set as it is now, for the choice between the two."""

    error: ErrorBody
    set: SetOut


class CodeOut(BaseModel):
    code: str
    name: str


class SettingOut(BaseModel):
    """A setting and its codes, the default first."""

    name: str
    title: str
    codes: list[CodeOut]


class WaysOut(BaseModel):
    """Every setting that offers a choice, and what the house has chosen (name to code)."""

    settings: list[SettingOut]
    house: dict[str, str]


class HouseWaysIn(Strict):
    house: WaysMap


class SetIn(Strict):
    title: Title


class SetChange(Strict):
    version: int
    title: Title | None = None
    order: Annotated[list[UUID], Field(max_length=200)] | None = None
    ways: WaysMap | None = None
    words: Words | None = None


class ExampleIn(Strict):
    version: int
    source: Source
    position: Annotated[int, Field(ge=0)] | None = None
    ways: WaysMap = {}
    words: Words = {}
    target: Target | None = None


class ExampleChange(Strict):
    """What is null stays; an empty *target* asks for no form any more."""

    version: int
    source: Source | None = None
    ways: WaysMap | None = None
    words: Words | None = None
    target: Target | Literal[""] | None = None


class VersionQuery(Strict):
    version: int
