"""A sitting: its cells, what happened in it, what comes next."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, Field, StringConstraints

from keen_slate.core.documents.figure import FigureView
from keen_slate.core.documents.verdict import CheckedView, ExplanationView
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.limits import ANSWER_LENGTH, LONGEST_PASTE, MOST_EXAMPLES, MOST_PUPILS
from keen_slate.core.sittings.judge import Word

from .base import Code, Codes, Id, Query, Source, Strict, Target
from .classes import Day, HeldOut, MendedOut, NamedCode, PupilOut
from .explaining import MendOut

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


class QuestionOut(BaseModel):
    """A problem as it was given, and its answer as a pupil would write it."""

    text: str
    spoken: str
    glyphs: list[Glyph]
    points: int
    answer: str


class WordIn(Strict):
    """What a teacher says of an answer, above the program: right or wrong, the explanation that counts, points in all
    or by *steps*.
    """

    right: bool | None = None
    codes: Codes = []
    points: Annotated[int, Field(ge=0, le=999)] | None = None
    steps: Annotated[list[Code], Field(max_length=MOST_EXAMPLES)] | None = None


class CellOut(BaseModel):
    """An answer with its judgement: *name* says in few words what it is, *overruled* that its teacher has said so."""

    pupil_id: UUID
    number: int
    written: str | None
    glyphs: list[Glyph]
    said: Word
    name: str
    points: int
    overruled: bool
    word: WordIn


class Tally(BaseModel):
    """The points of each pupil, and of each problem how many answers there are and how many of them are right."""

    points: dict[UUID, int]
    of: int
    answered: list[int]
    right: list[int]


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
    questions: list[QuestionOut]
    pupils: list[PupilOut]
    cells: list[CellOut]
    tally: Tally


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
    cells: list[CellOut]
    gone: list[Place]
    tally: Tally | None


class PointsOut(BaseModel):
    """The points of a step or of the answer, and what loses them."""

    key: str
    points: int
    loses: str


class EvidenceOut(HeldOut):
    """A misconception over all her answers; *seen* says of each chance in turn whether it showed."""

    seen: list[bool]


class CountOut(BaseModel):
    """How many pupils gave an answer of a kind."""

    name: str
    pupils: int


class AboutCellOut(BaseModel):
    """All that is known of an answer: how it may have come about, its lines if it is a working, the picture that
    exposes it, what the pupil holds, what she no longer does, what cannot be told apart and the problem that would, and
    the class on this problem.
    """

    explanations: list[ExplanationView]
    form_text: str | None
    checked: CheckedView | None
    figure: FigureView | None
    holds: list[EvidenceOut]
    no_longer: list[MendedOut]
    cannot_tell: list[list[str]]
    telling: MendOut
    class_on_it: list[CountOut]
    points: list[PointsOut]
    answer: list[Glyph]


class PupilDid(BaseModel):
    """A pupil who showed a misconception, with the numbers of the problems."""

    id: UUID
    alias: str
    numbers: list[int]


class OfCodeOut(NamedCode):
    question: str
    pupils: list[PupilDid]
    did: int
    could: int


class OfProblemOut(BaseModel):
    """How a problem went; *hides* are misconceptions seen in this sitting that give its right answer."""

    glyphs: list[Glyph]
    right: int
    value: int
    wrong: int
    blank: int
    commonest: list[Glyph]
    times: int
    name: str
    hides: list[str]


class HappenedOut(BaseModel):
    """What happened in a sitting: the *main* misconceptions come first in *codes*."""

    pupils: int
    main: int
    codes: list[OfCodeOut]
    problems: list[OfProblemOut]


class NextProblem(BaseModel):
    text: str
    target: Target | None
    glyphs: list[Glyph]


class GroupOut(BaseModel):
    """A group and what comes next for it; without codes it is ready to go on, to the rung *onwards*."""

    codes: list[str]
    names: list[str]
    pupils: list[PupilOut]
    moved: list[UUID]
    show: list[Glyph]
    show_wrong: list[Glyph]
    show_lines: list[list[Glyph]]
    figure: FigureView | None
    question: str
    ladder: list[NextProblem]
    check: NextProblem | None
    tells_from: list[str]
    onwards: str


class NextOut(BaseModel):
    """Groups, who has many wrong answers without a reason, who has none at all, and the days on which it comes back."""

    groups: list[GroupOut]
    unclear: list[PupilOut]
    absent: list[PupilOut]
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


class LogLine(BaseModel):
    alias: str
    number: int
    written: str | None
    gone: bool
    made_by: str
    made_at: str


class LogOut(BaseModel):
    lines: list[LogLine]
