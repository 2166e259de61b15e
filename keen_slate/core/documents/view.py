"""A worked problem as a screen needs it: the document, with typeset pieces, rows in squares, figures, what is left to
pupils.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import partial

from ..diagnosing.choices import choices
from ..expressions.sentences import Rich
from ..expressions.tree import Expr
from ..expressions.typeset import Glyph, JottingGlyph, Role
from ..expressions.voice import Voice
from ..figures import choose, number_line
from ..figures.choose import FIGURE_KINDS, Look, StepSeen
from ..figures.display import Figure
from ..grading.features import Features
from ..judging.checks import Check, caught_by, checks
from ..judging.estimate import Estimate, written_like
from ..judging.misconceptions import LikelyAnswer
from ..layouts.cells import Cell, Row, Rule, SheetCell, SheetRule
from ..layouts.labels import with_label
from ..layouts.laying import lay
from ..layouts.registry import Box, Jotting
from ..layouts.rows import line
from ..layouts.sheet import Fill, Moment, Sheet
from ..reading.kinds import KIND_NAMES
from ..teaching.fading import Fading, cells_with_blanks, jotting_with_blanks, sheet_with_blanks
from ..teaching.points import Points, points_of
from ..teaching.sentences import Source, TeachersWords
from ..ways.voices import voice_of
from ..worked import Worked
from ..working.keys import step_keys
from ..working.proof import Working
from ..working.step import Step
from .asked import task_of
from .figure import FigureView, figure_view
from .story import StoryView, story_view
from .verdict import ChoiceView, choice_views
from .working import (
    AnswerDocument,
    EstimateDocument,
    MisconceptionDocument,
    ProblemDocument,
    StepDocument,
    WorkingDocument,
    working_document,
)

Glyphs = tuple[Glyph, ...]
_MOST_WRONG_POINTS = 4


@dataclass(frozen=True, slots=True)
class ProblemView(ProblemDocument):
    """A problem, what its kind is called, what is to be done where it is a number that stands alone, and its pieces."""

    kind_name: str
    task: str
    glyphs: Glyphs


@dataclass(frozen=True, slots=True)
class AnswerView(AnswerDocument):
    """The answer, its number as pieces, and the same *labelled*: with its label where it belongs."""

    glyphs: Glyphs
    labelled: Glyphs


@dataclass(frozen=True, slots=True)
class PictureKind:
    """A kind of picture that can show a step."""

    code: str
    name: str


@dataclass(frozen=True, slots=True)
class StepView(StepDocument):
    """A step with its key, the core's own sentences beside the teacher's, its pieces, its pictures, and what of it
    pupils fill in.
    """

    key: str
    own_title: str
    title_from: Source
    own_reason: str
    reason_from: Source
    own_spoken: str
    spoken_from: Source
    title_glyphs: Glyphs
    line_glyphs: tuple[tuple[JottingGlyph, ...], ...]
    line_hidden: tuple[bool, ...]
    hidden: bool
    pause: bool
    pictures: tuple[PictureKind, ...]
    picture_from: Source
    figure: FigureView | None


@dataclass(frozen=True, slots=True)
class RowView:
    """A written line: *key* names it for blanks, *hidden* says that pupils fill it in."""

    key: str
    hidden: bool
    step: int | None
    width: int
    height: int
    cells: tuple[Cell, ...]
    rules: tuple[Rule, ...]
    spoken: str


@dataclass(frozen=True, slots=True)
class MomentView:
    """Something that is written on a sheet at once; *hidden*, where pupils write it."""

    step: int
    title: str
    title_glyphs: Glyphs
    hidden: bool


@dataclass(frozen=True, slots=True)
class SheetView:
    """A whole working in the squares, moment by moment; the *fills* are frames for what is hidden."""

    width: int
    height: int
    cells: tuple[SheetCell, ...]
    rules: tuple[SheetRule, ...]
    moments: tuple[MomentView, ...]
    fills: tuple[Fill, ...]
    spoken: str


@dataclass(frozen=True, slots=True)
class JottingView:
    """A jotting in a box: *key* names it for blanks ("" where it can be none)."""

    key: str
    glyphs: tuple[JottingGlyph, ...]
    hidden: bool


@dataclass(frozen=True, slots=True)
class BoxView:
    """A box of the four-box layout, or a question of the checklist with its answer."""

    title: str
    answer: str
    hidden: bool
    rows: tuple[RowView, ...]
    jottings: tuple[JottingView, ...]


@dataclass(frozen=True, slots=True)
class EstimateView(EstimateDocument):
    """An estimate with its pieces, and its picture: the answer, the bound, wrong answers inside or outside of it."""

    glyphs: Glyphs
    figure: FigureView | None
    tie_glyphs: Glyphs
    sum_glyphs: Glyphs
    bound_glyphs: Glyphs
    low_glyphs: Glyphs
    high_glyphs: Glyphs


@dataclass(frozen=True, slots=True)
class MisconceptionView(MisconceptionDocument):
    """A likely wrong answer with its name and pieces, and the quick check that catches it."""

    name: str
    glyphs: Glyphs
    line_glyphs: tuple[Glyphs, ...]
    caught_by_check: str | None


@dataclass(frozen=True, slots=True)
class NoticedView:
    """A surprise, and the place (from 0) of the step that it comes from; null where it is the problem's."""

    said: str
    step: int | None


@dataclass(frozen=True, slots=True)
class WorkingView:
    """The whole view of a worked problem, in the *layout* that is used."""

    format: str
    version: int
    problem: ProblemView
    answer: AnswerView
    methods: Mapping[str, str]
    steps: tuple[StepView, ...]
    layout: str
    rows: tuple[RowView, ...]
    sheet: SheetView | None
    boxes: tuple[BoxView, ...]
    estimate: EstimateView | None
    checks: tuple[Glyphs, ...]
    misconceptions: tuple[MisconceptionView, ...]
    choices: tuple[ChoiceView, ...]
    features: Features
    surprises: tuple[str, ...]
    noticed: tuple[NoticedView, ...]
    answers: tuple[str, ...]
    count: int
    counted: bool
    answer_glyphs: tuple[Glyphs, ...]
    marks: tuple[Points, ...]
    story: StoryView | None


def working_view(
    worked: Worked,
    edited: TeachersWords | None = None,
    fading: Fading | None = None,
    points: Mapping[str, int] | None = None,
) -> WorkingView:
    """The document of *worked* as a screen needs it; *edited* sentences replace the core's own.

    What *fading* leaves to pupils is marked, *points* are a teacher's own by key.
    """
    return _Viewer(worked, edited or TeachersWords(), fading or Fading()).view(points or {})


class _Viewer:
    """Puts what a screen needs beside each part of a document."""

    def __init__(self, worked: Worked, edited: TeachersWords, fading: Fading) -> None:
        self.worked = worked
        self.working: Working = worked.working
        self.edited = edited
        self.fading = fading
        self.voice: Voice = voice_of(worked.working.ways)
        self.keys = step_keys(worked.working)

    def view(self, points: Mapping[str, int]) -> WorkingView:
        document = working_document(self.worked)
        working = self.working
        layout, laid = lay(working)
        look = Look.of(working)
        seen = [StepSeen.of(step, look) for step in working.steps]
        drawn = [self._drawn(i, one) for i, one in enumerate(seen)]
        other_checks = checks(working)
        return WorkingView(
            format=document.format,
            version=document.version,
            problem=self._problem(document.problem),
            answer=self._answer(document.answer),
            methods=document.methods,
            steps=tuple([self._step(i, shown, seen[i], drawn) for i, shown in enumerate(document.steps)]),
            layout=layout,
            rows=tuple([self._row(row) for row in line(working)]),
            sheet=self._sheet(laid.sheet) if laid.sheet else None,
            boxes=tuple([self._box(box) for box in laid.boxes]),
            estimate=self._estimate(document, self.worked.estimate),
            checks=tuple([tuple(self.voice.typeset(check.said)) for check in other_checks]),
            misconceptions=tuple(
                [
                    self._misconception(likely, shown, other_checks)
                    for likely, shown in zip(self.worked.likely, document.misconceptions, strict=True)
                ]
            ),
            choices=choice_views(choices(self.worked), working.problem.label, self.voice),
            features=document.features,
            surprises=document.surprises,
            noticed=tuple([NoticedView(self.voice.said(one.said), one.step) for one in self.worked.noticed]),
            answers=document.answers,
            count=document.count,
            counted=document.counted,
            answer_glyphs=tuple([self._glyphs(answer) for answer in working.answers]),
            marks=tuple([one.said(self.voice) for one in points_of(working, self.keys, points)]),
            story=story_view(self.working, self.fading),
        )

    def _glyphs(self, expr: Expr, roles: tuple[Role, ...] = ()) -> Glyphs:
        return tuple(self.voice.glyphs(expr, roles))

    def _number(self, number: Fraction | None) -> Glyphs:
        return () if number is None else self._glyphs(written_like(self.working, number))

    # Parts ------------------------------------------------------------------------------------------------------------

    def _problem(self, shown: ProblemDocument) -> ProblemView:
        name = self.voice.said(KIND_NAMES[shown.kind])
        pieces = self._glyphs(self.working.problem.expr, self.working.problem_roles)
        return ProblemView(shown.text, shown.kind, shown.label, name, self.voice.said(task_of(self.working)), pieces)

    def _answer(self, shown: AnswerDocument) -> AnswerView:
        working = self.working
        pieces = self.voice.glyphs(working.answer)
        return AnswerView(shown.text, shown.value, tuple(pieces), tuple(with_label(pieces, working.answer_label)))

    def _drawn(self, i: int, seen: StepSeen) -> Figure | None:
        """The picture of step *i*, of the kind that the teacher chose."""
        wanted, _ = self.edited.find(self.working.steps[i].kind.code, self.keys[i], " picture")
        return None if wanted == "none" else choose.of_kinds(seen, choose.offered(seen), wanted)

    def _step(self, i: int, shown: StepDocument, seen: StepSeen, drawn: Sequence[Figure | None]) -> StepView:
        step, key = self.working.steps[i], self.keys[i]
        title, title_from = self._title(i, step.title)
        reason, reason_from = self.edited.find(shown.kind, key, "")
        spoken, spoken_from = self.edited.find(shown.kind, key, " spoken")
        wanted, picture_from = self.edited.find(shown.kind, key, " picture")
        kinds = choose.offered(seen)
        # What would show the same as the picture of the step before is left out, where nobody asked for it.
        figure = None if wanted is None and i and choose.repeats(drawn[i], drawn[i - 1]) else drawn[i]
        return StepView(
            kind=shown.kind,
            title="".join([piece.text or "" for piece in title]) if title_from else shown.title,
            before=shown.before,
            after=shown.after,
            reason=shown.reason if reason is None else reason,
            spoken=shown.spoken if spoken is None else spoken,
            lines=shown.lines,
            key=key,
            own_title=shown.title,
            title_from=title_from,
            own_reason=shown.reason,
            reason_from=reason_from,
            own_spoken=shown.spoken,
            spoken_from=spoken_from,
            title_glyphs=title,
            line_glyphs=self._jottings(step, key),
            line_hidden=tuple([f"{key} line {j}" in self.fading.blanks for j in range(len(step.lines))]),
            hidden=self.fading.hides_step(i, len(self.keys)),
            pause=self.fading.pause == key,
            pictures=tuple([PictureKind(code, FIGURE_KINDS[code].name) for code in kinds]),
            picture_from=picture_from,
            figure=figure_view(figure, self.voice) if figure else None,
        )

    def _title(self, i: int, own: Rich) -> tuple[Glyphs, Source]:
        """What is done in step *i*: the teacher's words, or the core's *own*."""
        written, where = self.edited.find(self.working.steps[i].kind.code, self.keys[i], " title")
        return (tuple(self.voice.typeset(own)), "") if written is None else ((Glyph("words", written),), where)

    def _jottings(self, step: Step, key: str) -> tuple[tuple[JottingGlyph, ...], ...]:
        return tuple(
            [
                tuple(jotting_with_blanks(rich, f"{key} line {j}", self.fading, self.voice))
                for j, rich in enumerate(step.lines)
            ]
        )

    def _row(self, row: Row) -> RowView:
        expr = self.working.start if row.step is None else self.working.steps[row.step].after
        key = "problem" if row.step is None else self.keys[row.step]
        hides = row.step is not None and self.fading.hides_line(row.step, self.keys)
        cells = cells_with_blanks(row.cells, key, self.fading)
        return RowView(key, hides, row.step, row.width, row.height, cells, row.rules, self.voice.words(expr))

    def _box(self, box: Box) -> BoxView:
        rows = tuple([self._row(row) for row in box.rows])
        jottings = tuple([self._jotting(one) for one in box.jottings])
        hidden = any(row.hidden for row in rows)
        return BoxView(box.heading(self.voice), self.voice.said(box.answer), hidden, rows, jottings)

    def _jotting(self, one: Jotting) -> JottingView:
        if one.step is None:
            pieces = [JottingGlyph(p.kind, p.text, p.top, p.bottom, p.role) for p in self.voice.typeset(one.rich)]
            return JottingView("", tuple(pieces), False)
        key = f"{self.keys[one.step]} line {one.line}"
        hidden = key in self.fading.blanks or self.fading.hides_step(one.step, len(self.keys))
        return JottingView(key, tuple(jotting_with_blanks(one.rich, key, self.fading, self.voice)), hidden)

    def _sheet(self, sheet: Sheet) -> SheetView:
        faded = sheet_with_blanks(sheet, self.keys, self.fading)
        moments = tuple([self._moment(moment) for moment in faded.moments])
        spoken = self.voice.said(faded.spoken)
        return SheetView(faded.width, faded.height, faded.cells, faded.rules, moments, faded.fills, spoken)

    def _moment(self, moment: Moment) -> MomentView:
        is_title = moment.step >= 0 and moment.title == self.working.steps[moment.step].title
        said, reworded = self._title(moment.step, moment.title) if is_title else (self.voice.typeset(moment.title), "")
        plain = "".join([piece.text or "" for piece in said]) if reworded else self.voice.plain(moment.title)
        return MomentView(moment.step, plain, tuple(said), moment.hidden)

    def _estimate(self, document: WorkingDocument, about: Estimate | None) -> EstimateView | None:
        shown = document.estimate
        if shown is None or about is None:
            return None
        figure = self._estimate_figure(about)
        return EstimateView(
            rule=shown.rule,
            rounded=shown.rounded,
            value=shown.value,
            bound=shown.bound,
            low=shown.low,
            high=shown.high,
            within=shown.within,
            ties=shown.ties,
            text=shown.text,
            glyphs=self._number(about.total),
            figure=figure_view(figure, self.voice) if figure else None,
            tie_glyphs=tuple(self.voice.typeset(about.tie)),
            sum_glyphs=self._glyphs(about.sum),
            bound_glyphs=self._number(about.bound),
            low_glyphs=self._number(about.low),
            high_glyphs=self._number(about.high),
        )

    def _estimate_figure(self, about: Estimate) -> Figure | None:
        """The answer, the estimate with its bound, and the wrong answers inside or outside of it, on a number line."""
        if about.low is None or about.high is None:
            return None
        shown_as = partial(written_like, self.working)
        wrong = {one.answer_value: shown_as(one.answer_value) for one in self.worked.likely if one.status == "reveals"}
        shown: list[tuple[Expr, Role]] = [(n, "wrong") for n in list(wrong.values())[:_MOST_WRONG_POINTS]]
        return number_line.of_points([(shown_as(self.working.value), "answer"), *shown], (about.low, about.high))

    def _misconception(
        self, likely: LikelyAnswer, shown: MisconceptionDocument, other: list[Check]
    ) -> MisconceptionView:
        caught = caught_by(other, self.working, likely.answer_value) if likely.status == "reveals" else None
        return MisconceptionView(
            code=shown.code,
            answer=shown.answer,
            value=shown.value,
            status=shown.status,
            caught_by_estimate=shown.caught_by_estimate,
            same_as=shown.same_as,
            lines=shown.lines,
            reason=shown.reason,
            question=shown.question,
            name=self.voice.said(likely.entry.name),
            glyphs=self._glyphs(likely.wrong.answer, ("wrong",)),
            line_glyphs=tuple([tuple(self.voice.typeset(rich)) for rich in likely.wrong.lines]),
            caught_by_check=caught,
        )
