"""Cells of a sitting as a screen shows them, and all that is known of one."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from functools import lru_cache
from uuid import UUID

from keen_slate.core.diagnosing.answers import read_answer
from keen_slate.core.diagnosing.faults import FORM_FAULTS, FORM_NAMES, name_of
from keen_slate.core.documents.figure import FigureView, figure_view
from keen_slate.core.documents.verdict import checked_view, verdict_view
from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.figures.expose import of_wrong
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.reading.problem import labelled
from keen_slate.core.sittings.answers import Answers, Cell
from keen_slate.core.sittings.judge import WORD_NAMES, checked_of
from keen_slate.core.sittings.question import Question, explainer_of
from keen_slate.core.teaching.points import Points, points_of
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.working.keys import step_keys

from .schemas.classes import PupilOut
from .schemas.explaining import MendOut
from .schemas.sittings import AboutCellOut, CellOut, CountOut, PointsOut, QuestionOut, Tally, WordIn

_SHOWN = 60  # characters of an answer that is no number
_SURNAMES = 2  # words with a capital that make an alias look like a full name


def question_out(question: Question, points: int) -> QuestionOut:
    """A problem as it was given; one that cannot be worked any more stands as it was typed."""
    try:
        working = explainer_of(question).working
    except CoreError:
        typed = question.source
        return QuestionOut(text=typed, spoken=typed, glyphs=[Glyph("words", typed)], points=points, answer="")
    voice = voice_of(question.ways)
    told = working.problem.text if not working.parts else ""
    return QuestionOut(
        text=told or question.source.split("{")[0].strip(),
        spoken=voice.words(working.problem.expr),
        glyphs=voice.glyphs(working.problem.expr),
        points=points,
        answer=labelled(voice.text(working.answer), working.answer_label if question.labels else None),
    )


def tally(answers: Answers) -> Tally:
    """What the cells of a sitting come to."""
    columns = [[row[i] for row in answers.cells.values()] for i in range(len(answers.asked))]
    said = [[cell.said for cell in column if cell and cell.said not in ("blank", "away")] for column in columns]
    return Tally(
        points={UUID(pupil): answers.points(pupil) for pupil in answers.cells},
        of=answers.points_in_all,
        answered=[len(one) for one in said],
        right=[sum(word in ("right", "right-value") for word in one) for one in said],
    )


def cell_out(answers: Answers, pupil: str, number: int) -> CellOut:
    """A cell that is filled."""
    cell = answers.cells[pupil][number]
    assert cell is not None, "an empty cell is not shown"
    return CellOut(
        pupil_id=UUID(pupil),
        number=number,
        written=cell.written,
        glyphs=list(glyphs_of(cell, answers.asked[number].question)),
        said=cell.said,
        name=name_in_cell(answers, pupil, number),
        points=cell.points(answers.asked[number].points),
        overruled=cell.word.right is not None or bool(cell.word.codes) or cell.word.points is not None,
        word=WordIn(
            right=cell.word.right,
            codes=list(cell.word.codes),
            points=cell.word.points,
            steps=None if cell.word.steps is None else list(cell.word.steps),
        ),
    )


def cells_out(answers: Answers) -> list[CellOut]:
    """Every cell that is filled."""
    return [
        cell_out(answers, pupil, number)
        for pupil, row in answers.cells.items()
        for number, cell in enumerate(row)
        if cell is not None
    ]


def glyphs_of(cell: Cell, question: Question) -> tuple[Glyph, ...]:
    """What was written, typeset."""
    wrong = cell.said in ("explained", "unexplained")
    return written_glyphs(cell.judged.written or cell.written or "", wrong, question.ways)


@lru_cache(maxsize=4096)
def written_glyphs(written: str, wrong: bool, ways: Ways) -> tuple[Glyph, ...]:
    """What was *written* (with a point), typeset; in the ink of wrong answers where it is one."""
    found = read_answer(written)
    if found is None:
        return (Glyph("words", written if len(written) <= _SHOWN else written[:_SHOWN] + " …"),) if written else ()
    return tuple(voice_of(ways).glyphs(found.number, ("wrong",) if wrong else ()))


def name_in_cell(answers: Answers, pupil: str, number: int) -> str:
    """What an answer is, in few words."""
    cell = answers.cells[pupil][number]
    assert cell is not None, "an empty cell is nothing"
    voice = voice_of(answers.asked[number].question.ways)
    codes = answers.codes(pupil, number)
    if codes:
        return voice.said(", then ".join(map(name_of, codes)))
    if cell.said == "right-value" and cell.judged.fault:
        return voice.said(FORM_NAMES[cell.judged.fault])
    return WORD_NAMES.get(cell.said, "")


def about_cell(answers: Answers, pupil: str, number: int) -> AboutCellOut:
    """All that this sitting says of a cell; what her other answers say is left empty."""
    cell = answers.cells[pupil][number]
    question = answers.asked[number].question
    voice = voice_of(question.ways)
    try:
        explainer = explainer_of(question)
    except CoreError:
        return AboutCellOut(
            explanations=[], form_text=None, checked=None, figure=None, holds=[], no_longer=[], cannot_tell=[],
            telling=MendOut(text=None, glyphs=[]),
            class_on_it=[], points=[], answer=[],
        )  # fmt: skip
    working = explainer.working
    written = cell.written if cell and cell.written else None
    checked = checked_of(question, written) if written else None
    typed = checked.last if checked else written
    verdict = verdict_view(explainer.verdict(typed, question.labels), voice) if typed else None
    order = {codes: at for at, codes in enumerate(answers.explanations(pupil, number))}
    fault = cell.judged.fault if cell else None
    return AboutCellOut(
        explanations=sorted(verdict.explanations, key=lambda one: order.get(one.codes, 99)) if verdict else [],
        form_text=voice.said(FORM_FAULTS[fault]) if fault else None,
        checked=checked_view(checked, voice) if checked else None,
        figure=_figure(answers, pupil, number, voice),
        holds=[],
        no_longer=[],
        cannot_tell=[],
        telling=MendOut(text=None, glyphs=[]),
        class_on_it=class_on(answers, number, voice),
        points=[PointsOut(key=one.key, points=one.points, loses=voice.said(one.loses)) for one in _points(question)],
        answer=voice.glyphs(working.answer),
    )


def _points(question: Question) -> list[Points]:
    working = explainer_of(question).working
    return points_of(working, step_keys(working), dict(question.points))


def points_for(question: Question, steps: Sequence[str]) -> int:
    """What the steps of some keys are worth."""
    try:
        return sum(one.points for one in _points(question) if one.key in steps)
    except CoreError:
        return 0


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


def class_on(answers: Answers, number: int, voice: Voice) -> list[CountOut]:
    """How the class answered a problem: right first, then what was met oftenest."""
    counts: Counter[str] = Counter()
    for pupil, row in answers.cells.items():
        cell = row[number]
        if cell is None or cell.said == "away":
            continue
        if cell.said == "right":
            counts["right"] += 1
        else:
            counts[name_in_cell(answers, pupil, number) or "other"] += 1
    ordered = sorted(counts.items(), key=lambda one: (one[0] != "right", -one[1], one[0]))
    return [CountOut(name=name, pupils=pupils) for name, pupils in ordered]


def pupil_out(pupil_id: UUID, alias: str, here: bool) -> PupilOut:
    """A pupil, with a hint where the alias looks like a full name."""
    words = [word for word in alias.split() if word[:1].isupper() and len(word) > 1 and word.isalpha()]
    return PupilOut(id=pupil_id, alias=alias, here=here, full_name=len(words) >= _SURNAMES)


def names(codes: Sequence[str], voice: Voice) -> list[str]:
    """What some misconceptions are called, in the class's words."""
    return [voice.said(ENTRIES[code].name) for code in codes if code in ENTRIES]
