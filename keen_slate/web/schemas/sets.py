"""Sets and the examples on their ladders."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, Field, StringConstraints

from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.limits import MOST_BLANKS, MOST_EXAMPLES, MOST_MINUTES, MOST_STANDARDS, SEARCH_LENGTH
from keen_slate.core.working.keys import STEP_KEY

from .base import BlankKey, Date, ErrorBody, Id, Note, Points, Query, Source, Strict, Target, Title, WaysMap, Words
from .working import ExampleOut


class MeOut(BaseModel):
    """The teacher, the token of her sign-in, and how many sets she has."""

    name: str
    csrf_token: str
    sets: int


class DaySeconds(BaseModel):
    """How long an example was shown on a day."""

    day: date
    seconds: int


class FadingOut(BaseModel):
    """As `FadingIn`, with all its parts."""

    hide: int = 0
    blanks: list[str] = []
    pause: str | None = None


class FadingIn(Strict):
    """What pupils fill in: so many of the last steps, blanks put by hand; and the step before which they try
    themselves.
    """

    hide: Annotated[int, Field(ge=0, le=99)] = 0
    blanks: Annotated[list[BlankKey], Field(max_length=MOST_BLANKS)] = []
    pause: Annotated[str, StringConstraints(pattern=STEP_KEY)] | None = None


class ExampleSummary(BaseModel):
    """A rung of the ladder. *harder* says what is new against the example before it, *mark* that a rung is skipped or
    steps back.

    *planned_hide* is what the fading plan of the set would hide of its *steps*, *seconds* what is planned for it in
    class.
    """

    id: UUID
    source: str
    target: str | None
    text: str
    spoken: str
    glyphs: list[Glyph]
    rung: str | None
    harder: str | None
    mark: Literal["jump", "back"] | None
    surprises: list[str]
    ways: dict[str, str]
    words: dict[str, str]
    note: str
    fading: FadingOut
    marks: dict[str, int]
    steps: int
    planned_hide: int
    seconds: int
    time_log: list[DaySeconds]
    points: int
    unreadable: str | None


class SetSummary(BaseModel):
    """A set as the Shelf shows it: how high each example stands on its *stair* (from 1), its first and its last rung in
    words.

    *classes* are those that had it, *shown_on* the day on which it was on the wall last.
    """

    id: UUID
    title: str
    changed_at: datetime
    examples: int
    first: list[list[Glyph]]
    rungs: list[str]
    objective: str
    standards: list[str]
    seconds: int
    stair: list[int] = []
    climb: list[str] = []
    shown_on: date | None = None
    classes: list[str] = []


class ShelfOut(BaseModel):
    """A page of the sets in one place that were searched for, how many those are in *total*, and how many lie in each
    place.
    """

    sets: list[SetSummary]
    counts: dict[str, int]
    total: int


class SearchQuery(Query):
    """The words that are looked for, and the number of the first set (from 0)."""

    search: Annotated[str, StringConstraints(max_length=SEARCH_LENGTH)] = ""
    start: Annotated[int, Field(ge=0, le=10**6)] = 0


class ShelfQuery(SearchQuery):
    place: Literal["shelf", "archive", "bin"] = "shelf"
    order: Literal["changed", "title", "shown"] = "changed"


class SetOut(BaseModel):
    id: UUID
    title: str
    version: int
    changed_at: datetime
    ways: dict[str, str]
    words: dict[str, str]
    house: dict[str, str]
    note: str
    objective: str
    standards: list[str]
    lesson_minutes: int | None
    seconds: int
    place: str
    show_address: str | None
    undo: str | None
    redo: str | None
    examples: list[ExampleSummary]


class SetWithExampleOut(BaseModel):
    set: SetOut
    example: ExampleOut


class ConflictOut(BaseModel):
    """The set as it is now, for the choice between the two."""

    error: ErrorBody
    set: SetOut


class SetIn(Strict):
    title: Title


class SetChange(Strict):
    version: int
    title: Title | None = None
    order: Annotated[list[Id], Field(max_length=200)] | None = None
    ways: WaysMap | None = None
    words: Words | None = None
    note: Note | None = None
    objective: Note | None = None
    standards: (
        Annotated[list[Annotated[str, StringConstraints(max_length=40)]], Field(max_length=MOST_STANDARDS)] | None
    ) = None
    lesson_minutes: Annotated[int, Field(ge=0, le=MOST_MINUTES)] | None = None


class ExampleIn(Strict):
    version: int
    source: Source
    position: Annotated[int, Field(ge=0)] | None = None
    ways: WaysMap = {}
    words: Words = {}
    target: Target | None = None
    note: Note = ""


class ExampleChange(Strict):
    """What is left out stays; an empty *target* asks for no form any more."""

    version: int
    source: Source | None = None
    ways: WaysMap | None = None
    words: Words | None = None
    target: Target | Literal[""] | None = None
    note: Note | None = None
    fading: FadingIn | None = None
    marks: Points | None = None


class TimeIn(Strict):
    day: Date
    seconds: Annotated[int, Field(ge=1, le=3600)]


class TimeOut(BaseModel):
    time_log: list[DaySeconds]


class HidesIn(Strict):
    """For examples by their ids: how many of the last steps pupils fill in."""

    version: int
    hides: Annotated[dict[Id, Annotated[int, Field(ge=0, le=99)]], Field(max_length=MOST_EXAMPLES)]


class TakeIn(Strict):
    """Problems to be put on the ladder of a set, all or none; *targets* are the forms that lone numbers are asked for,
    in order.
    """

    version: int
    problems: Annotated[list[Source], Field(min_length=1, max_length=MOST_EXAMPLES)]
    targets: Annotated[list[Target | None], Field(max_length=MOST_EXAMPLES)] = []
    position: Annotated[int, Field(ge=0)] | None = None
