"""All that is known of an answer and of the pupil who gave it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass, field, replace

from ..diagnosing.answers import read_answer
from ..diagnosing.faults import FORM_FAULTS
from ..errors import CoreError
from ..expressions.typeset import Glyph
from ..expressions.voice import Voice
from ..figures.expose import of_wrong
from ..judging.beliefs import Belief
from ..sittings.answers import Answers
from ..sittings.judge import checked_of
from ..sittings.question import Question, explainer_of
from ..teaching.points import Points, points_of
from ..ways.voices import voice_of
from ..working.keys import step_keys
from .cells import CountView, class_on
from .figure import FigureView, figure_view
from .nearest import NearestView
from .over_time import HeldView, MendedView, Year, cannot_tell, held_view, mended_views
from .verdict import CheckedView, ExplanationView, checked_view, verdict_view


@dataclass(frozen=True, slots=True)
class PointsView:
    """The points of a step or of the answer, and what loses them."""

    key: str
    points: int
    loses: str


@dataclass(frozen=True, slots=True)
class EvidenceView(HeldView):
    """A misconception over all her answers; *seen* says of each chance in turn whether it showed."""

    seen: tuple[bool, ...]


@dataclass(frozen=True, slots=True)
class AboutCellView:
    """All that is known of an answer: how it may have come about, its lines if it is a working, the picture that
    exposes it, what the pupil holds, what she no longer does, what cannot be told apart and the problem that would, and
    the class on this problem. A problem that cannot be worked any more says nothing of its answers.
    """

    explanations: tuple[ExplanationView, ...] = ()
    form_text: str | None = None
    checked: CheckedView | None = None
    figure: FigureView | None = None
    holds: tuple[EvidenceView, ...] = ()
    no_longer: tuple[MendedView, ...] = ()
    cannot_tell: tuple[tuple[str, ...], ...] = ()
    telling: NearestView = field(default_factory=NearestView)
    class_on_it: tuple[CountView, ...] = ()
    points: tuple[PointsView, ...] = ()
    answer: tuple[Glyph, ...] = ()


def about_cell(year: Year, answers: Answers, pupil: str, number: int) -> AboutCellView:
    """All that is known of a cell in the *answers* to one of the year's sittings; the cell may be empty."""
    told, telling = cannot_tell(year, pupil)
    return replace(
        _about_answer(answers, pupil, number),
        holds=tuple([_evidence(belief, year.voice) for belief in year.over.held.beliefs.get(pupil, ())]),
        no_longer=mended_views(year, pupil),
        cannot_tell=told,
        telling=telling,
    )


def points_for(question: Question, steps: Sequence[str]) -> int:
    """What the steps of some keys are worth."""
    try:
        return sum(one.points for one in _points(question) if one.key in steps)
    except CoreError:
        return 0


def _about_answer(answers: Answers, pupil: str, number: int) -> AboutCellView:
    """What this sitting says of it; what her other answers say is left empty."""
    cell = answers.cells[pupil][number]
    question = answers.asked[number].question
    voice = voice_of(question.ways)
    try:
        explainer = explainer_of(question)
    except CoreError:
        return AboutCellView()
    written = cell.written if cell and cell.written else None
    checked = checked_of(question, written) if written else None
    typed = checked.last if checked else written
    verdict = verdict_view(explainer.verdict(typed, question.labels), voice) if typed else None
    order = {codes: at for at, codes in enumerate(answers.explanations(pupil, number))}
    fault = cell.judged.fault if cell else None
    return AboutCellView(
        explanations=tuple(sorted(verdict.explanations, key=lambda one: order.get(one.codes, 99))) if verdict else (),
        form_text=voice.said(FORM_FAULTS[fault]) if fault else None,
        checked=checked_view(checked, voice) if checked else None,
        figure=_figure(answers, pupil, number, voice),
        class_on_it=class_on(answers, number),
        points=tuple([PointsView(one.key, one.points, voice.said(one.loses)) for one in _points(question)]),
        answer=tuple(voice.glyphs(explainer.working.answer)),
    )


def _points(question: Question) -> list[Points]:
    working = explainer_of(question).working
    return points_of(working, step_keys(working), dict(question.points))


def _figure(answers: Answers, pupil: str, number: int, voice: Voice) -> FigureView | None:
    """The picture that exposes a wrong answer."""
    cell = answers.cells[pupil][number]
    if cell is None or cell.said not in ("explained", "unexplained"):
        return None
    wrong = read_answer(cell.judged.written)
    working = explainer_of(answers.asked[number].question).working
    if wrong is None or wrong.number == working.answer:
        return None
    figure = of_wrong(working, wrong.number)
    return figure_view(figure, voice) if figure else None


def _evidence(one: Belief, voice: Voice) -> EvidenceView:
    return EvidenceView(**asdict(held_view(one, voice)), seen=tuple([at in one.did for at in one.could]))
