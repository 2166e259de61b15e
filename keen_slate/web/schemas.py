"""What crosses the wire. The OpenAPI document and the front end's types are generated from these models.

Where a dataclass of the core crosses as it is, it is used as it is.
"""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from keen_slate.core.expressions.limits import MAX_CHARACTERS
from keen_slate.core.figures.display import Mark
from keen_slate.core.grading.compare import OtherWay
from keen_slate.core.grading.features import Features
from keen_slate.core.layouts.cells import Cell, Rule
from keen_slate.core.layouts.sheet import Sheet
from keen_slate.core.teaching.fading import MOST_BLANKS
from keen_slate.core.teaching.points import MOST_POINTS, Marks
from keen_slate.core.working.keys import BLANK_KEY, MARK_KEY, STEP_KEY, WORDS_KEY
from keen_slate.export.handout import MOST_PER_PAGE, MOST_SPACE
from keen_slate.store.models import TITLE_LENGTH, WORDS_LENGTH

Source = Annotated[str, StringConstraints(max_length=4 * MAX_CHARACTERS)]
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=TITLE_LENGTH)]
Sentence = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=WORDS_LENGTH)]
Words = Annotated[dict[Annotated[str, StringConstraints(pattern=WORDS_KEY)], Sentence], Field(max_length=100)]
Target = Literal["improper", "mixed", "fraction", "decimal"]
BlankKey = Annotated[str, StringConstraints(pattern=BLANK_KEY)]
Points = Annotated[
    dict[Annotated[str, StringConstraints(pattern=MARK_KEY)], Annotated[int, Field(ge=0, le=MOST_POINTS)]],
    Field(max_length=60),
]
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=WORDS_LENGTH)]
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


class JottingGlyph(Glyph):
    """A piece of a jotting: *key* names a number or factor that pupils may fill in, *blank* says that they do."""

    key: str | None = None
    blank: bool = False


class Row(BaseModel):
    """A written line: *key* names it for blanks, *hidden* says that pupils fill it in."""

    key: str
    hidden: bool
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
    hidden: bool
    rows: list[Row]
    line_glyphs: list[list[Glyph]]


class Figure(BaseModel):
    """A picture, ready to be placed; *acts* where it has a state before and one after."""

    kind: str
    width: int
    height: int
    marks: list[Mark]
    alt: str
    acts: bool
    note: str


class ExposingOut(BaseModel):
    """The picture that shows why a wrong answer is wrong; null where none can."""

    figure: Figure | None


class PictureOut(BaseModel):
    """A kind of picture that can show a step."""

    code: str
    name: str


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
    label_before: bool


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
    line_glyphs: list[list[JottingGlyph]]
    line_hidden: list[bool]
    hidden: bool
    pause: bool
    pictures: list[PictureOut]
    picture_from: Literal["", "example", "set"]
    figure: Figure | None


class EstimateOut(BaseModel):
    """The value, or the interval from *low* to *high*, that the answer is compared with; null where there is none."""

    rule: str
    rounded: list[str]
    value: str | None
    bound: str | None
    low: str | None
    high: str | None
    within: bool | None
    ties: list[int]
    text: str
    glyphs: list[Glyph]
    figure: Figure | None
    tie_glyphs: list[Glyph]
    sum_glyphs: list[Glyph]
    bound_glyphs: list[Glyph]
    low_glyphs: list[Glyph]
    high_glyphs: list[Glyph]


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
    caught_by_check: str | None


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
    estimate: EstimateOut | None
    checks: list[list[Glyph]]
    misconceptions: list[MisconceptionOut]
    features: Features
    surprises: list[str]
    answers: list[str] = []
    count: int = 1
    counted: bool = True
    answer_glyphs: list[list[Glyph]] = []
    marks: list[Marks]


class AnswersIn(Strict):
    """A problem with blank numerators, and the number (from 0) of the first answer that is asked for."""

    text: Source
    ways: WaysMap = {}
    start: Annotated[int, Field(ge=0, le=10**6)] = 0


class AnswersOut(BaseModel):
    answer_glyphs: list[list[Glyph]]


class PreviewIn(Strict):
    text: Source
    ways: WaysMap = {}


class PreviewOut(BaseModel):
    """A problem as it is typed: how it is read, and what may surprise."""

    glyphs: list[Glyph]
    surprises: list[str]


class WorkIn(Strict):
    """One problem, with the ways that depart from the defaults."""

    text: Source
    ways: WaysMap = {}
    target: Target | None = None


# What a pupil wrote ---------------------------------------------------------------------------------------


class DiagnoseIn(Strict):
    """A problem and an answer as a pupil wrote it."""

    text: Source
    answer: Source
    ways: WaysMap = {}
    target: Target | None = None


class CheckIn(Strict):
    """A problem and the lines of a pupil's working."""

    text: Source
    lines: Annotated[list[Source], Field(max_length=60)]
    ways: WaysMap = {}


class ExplanationOut(BaseModel):
    rank: int
    codes: list[str]
    names: list[str]
    lines: list[str]
    line_glyphs: list[list[Glyph]]
    reason: str
    question: str


class VerdictOut(BaseModel):
    verdict: Literal["right", "right-value", "explained", "unexplained", "unreadable"]
    value: str | None
    form_fault: str | None = None
    form_text: str | None = None
    explanations: list[ExplanationOut]


class LineOut(BaseModel):
    text: str
    equal: bool | None
    codes: list[str]
    names: list[str]
    faults: list[str]
    fault_texts: list[str]


class CheckedOut(BaseModel):
    lines: list[LineOut]
    first_wrong: int | None
    answer: str


class EntryOut(BaseModel):
    """A misconception with its example."""

    code: str
    name: str
    reason: str
    question: str
    family: str
    often: int
    problem_glyphs: list[Glyph]
    answer_glyphs: list[Glyph]
    right_glyphs: list[Glyph]
    line_glyphs: list[list[Glyph]]


class MendIn(Strict):
    """A problem, the misconception it is to show, and one that it is to tell it from."""

    text: Source
    ways: WaysMap = {}
    code: Annotated[str, StringConstraints(max_length=60)]
    apart_from: Annotated[str, StringConstraints(max_length=60)] | None = None


class MendOut(BaseModel):
    """The nearest problem that does it; null where none is near."""

    text: str | None
    glyphs: list[Glyph]


class RevealRow(BaseModel):
    """A misconception and its status in each example: null where it does not apply."""

    code: str
    name: str
    statuses: list[Literal["reveals", "form", "hidden"] | None]


class AlikePair(BaseModel):
    names: list[str]


class RevealsOut(BaseModel):
    title: str
    problems: list[list[Glyph]]
    rows: list[RevealRow]
    alike: list[AlikePair]
    add: list[MendOut]
    caught: int
    wrong: int
    teaches_estimation: bool | None


class CatalogueOut(BaseModel):
    entries: list[EntryOut]


# Number building ------------------------------------------------------------------------------------------


class BuildIn(Strict):
    numbers: Source
    wanted: Source


class ProposeIn(Strict):
    level: Annotated[str, StringConstraints(max_length=40)]
    seed: Annotated[int, Field(ge=0, le=2**31)]


class WayOut(BaseModel):
    """A way to the number, and its working, an operation a line."""

    text: str
    glyphs: list[Glyph]
    lines: list[list[Glyph]]


class BuiltOut(BaseModel):
    numbers: str
    wanted: str
    number_glyphs: list[list[Glyph]]
    wanted_glyphs: list[Glyph]
    exact: bool
    nearest_glyphs: list[Glyph]
    ways: list[WayOut]
    ended_early: bool


class LevelOut(BaseModel):
    code: str
    name: str


class LevelsOut(BaseModel):
    levels: list[LevelOut]


# Sets -------------------------------------------------------------------------------------------------------


class MeOut(BaseModel):
    name: str
    csrf_token: str


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
    """What pupils fill in: so many of the last steps, blanks put by hand; and the step before which they try themselves."""

    hide: Annotated[int, Field(ge=0, le=99)] = 0
    blanks: Annotated[list[BlankKey], Field(max_length=MOST_BLANKS)] = []
    pause: Annotated[str, StringConstraints(pattern=STEP_KEY)] | None = None


class ExampleSummary(BaseModel):
    """A rung of the ladder. *harder* says what is new against the example before it, *mark* that a rung is skipped or steps back.

    *planned_hide* is what the fading plan of the set would hide of its *steps*, *seconds* what is planned for it in class.
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
    id: UUID
    title: str
    changed_at: datetime
    examples: int
    first: list[list[Glyph]]
    rungs: list[str]
    objective: str
    standards: list[str]
    seconds: int


class ShelfOut(BaseModel):
    """A page of the sets in one place that were searched for, how many those are in *total*, and how many lie in each place."""

    sets: list[SetSummary]
    counts: dict[str, int]
    total: int


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


class ExampleView(BaseModel):
    """A whole working, and the other ways of working its problem."""

    working: WorkingOut
    other_ways: list[OtherWay]


class ExampleOut(ExampleView):
    """An example with its whole working, and the other ways of working it."""

    id: UUID


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
    """Every setting that offers a choice, and what the house has chosen (name to code); what undoing and doing again would do."""

    settings: list[SettingOut]
    house: dict[str, str]
    version: int
    undo: str | None
    redo: str | None


class WaysConflictOut(BaseModel):
    """The ways as they are now, for the choice between the two."""

    error: ErrorBody
    ways: WaysOut


class VersionIn(Strict):
    version: int


class HouseWaysIn(Strict):
    """The ways of the house, changed on a *version* of them."""

    house: WaysMap
    version: int


class SetIn(Strict):
    title: Title


class SetChange(Strict):
    version: int
    title: Title | None = None
    order: Annotated[list[UUID], Field(max_length=200)] | None = None
    ways: WaysMap | None = None
    words: Words | None = None
    note: Note | None = None
    objective: Note | None = None
    standards: Annotated[list[Annotated[str, StringConstraints(max_length=40)]], Field(max_length=20)] | None = None
    lesson_minutes: Annotated[int, Field(ge=0, le=600)] | None = None


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


class VersionQuery(Strict):
    version: int


class LayoutQuery(Strict):
    layout: Literal["line", "stacked", "four-box", "checklist"] | None = None


class HandoutQuery(Strict):
    """How the pages are to be; *versions* A, B, ... have other numbers, the same for the same seed."""

    paper: Literal["a4", "letter"] = "a4"
    per_page: Annotated[int, Field(ge=1, le=MOST_PER_PAGE)] = 4
    form: Literal["full", "faded", "problems"] = "faded"
    space: Annotated[int, Field(ge=0, le=MOST_SPACE)] = 40
    name_line: bool = True
    pictures: bool = False
    key: bool = True
    wrong_answers: bool = True
    versions: Annotated[int, Field(ge=1, le=4)] = 1
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0


class PagesOut(BaseModel):
    """Each page as a PNG picture, in Base64."""

    pages: list[str]


class BroughtIn(Strict):
    """Lines of problems, or CSV with a column called problem."""

    text: Annotated[str, StringConstraints(max_length=200_000)]


class BroughtLine(BaseModel):
    """A line, and whether it can be taken: *why* not."""

    number: int
    text: str
    verdict: Literal["read", "unreadable", "duplicate"]
    why: str


class BroughtOut(BaseModel):
    lines: list[BroughtLine]


class NotationOut(BaseModel):
    problem_latex: str
    problem_mathml: str
    working_latex: str
    working_mathml: str


class ShowIn(Strict):
    shown: bool


class TimeIn(Strict):
    day: date
    seconds: Annotated[int, Field(ge=1, le=3600)]


class TimeOut(BaseModel):
    time_log: list[DaySeconds]


class ShelfQuery(Strict):
    place: Literal["shelf", "archive", "bin"] = "shelf"
    search: Annotated[str, StringConstraints(max_length=200)] = ""
    start: Annotated[int, Field(ge=0, le=10**6)] = 0
