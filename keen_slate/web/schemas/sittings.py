"""A sitting: its cells, what happened in it, what comes next."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, Field, RootModel, StringConstraints

from keen_slate.core.documents.about_cell import AboutCellView
from keen_slate.core.documents.cells import CellView, PupilView, QuestionView, TallyView
from keen_slate.core.documents.sitting import GroupView, HappenedView
from keen_slate.core.limits import ANSWER_LENGTH, LONGEST_PASTE, MOST_EXAMPLES, MOST_PUPILS

from .base import Code, Codes, Id, Query, Source, Strict, Target
from .classes import Day

Kind = Literal["board", "quiz", "homework", "warm-up"]
Number = Annotated[int, Field(ge=0, lt=MOST_EXAMPLES)]


class SittingIn(Strict):
    """A set that a class has sat, on a day; its examples are kept as they are now."""

    set_id: Id
    day: Day
    kind: Kind


class SittingChange(Strict):
    """Another day or kind, or whether a missing label counts."""

    day: Day | None = None
    kind: Kind | None = None
    labels: bool | None = None


class WordIn(Strict):
    """What a teacher says of an answer, above the program: right or wrong, the explanation that counts, points in all
    or by *steps*.
    """

    right: bool | None = None
    codes: Codes = []
    points: Annotated[int, Field(ge=0, le=999)] | None = None
    steps: Annotated[list[Code], Field(max_length=MOST_EXAMPLES)] | None = None


class Place(BaseModel):
    pupil_id: UUID
    number: int


class SittingOut(BaseModel):
    """A sitting with all its cells; *counter* numbers its last entry."""

    id: UUID
    class_id: UUID
    class_name: str
    set_id: UUID | None
    title: str
    day: date
    kind: Kind
    counter: int
    mark: str
    labels: bool
    questions: list[QuestionView]
    pupils: list[PupilView]
    cells: list[CellView]
    tally: TallyView


class EntryIn(Strict):
    """What is entered in a cell: null is away, "" a blank; *gone* empties it."""

    pupil_id: Id
    number: Number
    written: Annotated[str, StringConstraints(max_length=ANSWER_LENGTH)] | None = None
    word: WordIn = WordIn()
    gone: bool = False


class EntriesIn(Strict):
    """Entries, and the number of the last one that the page has seen."""

    entries: Annotated[list[EntryIn], Field(min_length=1, max_length=MOST_PUPILS * MOST_EXAMPLES)]
    since: int = 0


class ChangesQuery(Query):
    since: int = 0


class ChangesOut(BaseModel):
    """The cells that changed since then, and what they come to; null where nothing changed."""

    counter: int
    cells: list[CellView]
    gone: list[Place]
    tally: TallyView | None


class AboutCellOut(RootModel[AboutCellView]):
    """All that is known of an answer."""


class HappenedOut(RootModel[HappenedView]):
    """What happened in a sitting."""


class NextOut(BaseModel):
    """Groups, who has many wrong answers without a reason, who has none at all, and the days on which it comes back."""

    groups: list[GroupView]
    unclear: list[PupilView]
    absent: list[PupilView]
    returns: list[date]


class MovesIn(Strict):
    """The group (by its codes) that each pupil is put in; null leaves her where her answers put her."""

    moves: Annotated[dict[Id, Codes | None], Field(max_length=MOST_PUPILS)]


class GroupSetIn(Strict):
    """The ladder of a group as it was shown, to be made a set."""

    codes: Codes
    pupils: Annotated[int, Field(ge=0, le=MOST_PUPILS)]
    problems: Annotated[list[Source], Field(min_length=1, max_length=MOST_EXAMPLES)]
    targets: Annotated[list[Target | None], Field(max_length=MOST_EXAMPLES)] = []


class BringAnswersIn(Strict):
    """A table of answers, as text: pasted, or a file's."""

    text: Annotated[str, StringConstraints(max_length=LONGEST_PASTE)]


class BroughtRow(BaseModel):
    """A line of the table: the pupil whom its alias fits, its answers by question, and what is wrong with it."""

    line: int
    alias: str
    pupil_id: UUID | None
    written: list[str]
    why: str


class BroughtTable(BaseModel):
    """What a table says: which of its columns belongs to which question (null: none), its rows, and what is to be
    known.
    """

    columns: list[str]
    questions: list[int | None]
    rows: list[BroughtRow]
    said: list[str]


class EntryLogLine(BaseModel):
    alias: str
    number: int
    written: str | None
    gone: bool
    made_by: str
    made_at: str


class LogOut(BaseModel):
    lines: list[EntryLogLine]
