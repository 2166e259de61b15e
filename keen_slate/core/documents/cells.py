"""The cells of a sitting as a screen needs them: what was asked, what was written, what is said of it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from ..diagnosing.answers import read_answer
from ..diagnosing.faults import FORM_NAMES, is_code, name_of
from ..errors import CoreError
from ..expressions.typeset import Glyph
from ..expressions.voice import Voice
from ..judging.misconceptions.registry import ENTRIES
from ..reading.problem import labelled
from ..sittings.answers import AnswerCell, Answers
from ..sittings.judge import WORD_NAMES, TeachersWord, Word
from ..sittings.question import Question, explainer_of
from ..ways.settings import Ways
from ..ways.voices import voice_of

_SHOWN = 60  # characters of an answer that is no number
_SURNAMES = 2  # words with a capital that make an alias look like a full name


@dataclass(frozen=True, slots=True)
class PupilView:
    """A pupil under her alias; *full_name* says that it looks like a full name."""

    id: str
    alias: str
    here: bool
    full_name: bool


@dataclass(frozen=True, slots=True)
class QuestionView:
    """A problem as it was given, and its answer as a pupil would write it."""

    text: str
    spoken: str
    glyphs: tuple[Glyph, ...]
    points: int
    answer: str


@dataclass(frozen=True, slots=True)
class CellView:
    """An answer with its judgement: *name* says in few words what it is, *overruled* that its teacher has said so."""

    pupil_id: str
    number: int
    written: str | None
    glyphs: tuple[Glyph, ...]
    said: Word
    name: str
    points: int
    overruled: bool
    word: TeachersWord


@dataclass(frozen=True, slots=True)
class TallyView:
    """The points of each pupil, and of each problem how many answers there are and how many of them are right."""

    points: Mapping[str, int]
    of: int
    answered: tuple[int, ...]
    right: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class CountView:
    """How many pupils gave an answer of a kind."""

    name: str
    pupils: int


def pupil_view(key: str, alias: str, here: bool) -> PupilView:
    """A pupil, with a hint where the alias looks like a full name.

    >>> pupil_view("1", "Sedge Marsh", True).full_name, pupil_view("2", "Sedge M", True).full_name
    (True, False)
    """
    words = [word for word in alias.split() if word[:1].isupper() and len(word) > 1 and word.isalpha()]
    return PupilView(key, alias, here, len(words) >= _SURNAMES)


def question_view(question: Question, points: int) -> QuestionView:
    """A problem as it was given; one that cannot be worked any more stands as it was typed."""
    try:
        working = explainer_of(question).working
    except CoreError:
        typed = question.source
        return QuestionView(typed, typed, (Glyph("words", typed),), points, "")
    voice = voice_of(question.ways)
    told = working.problem.text if not working.parts else ""
    return QuestionView(
        text=told or question.source.split("{")[0].strip(),
        spoken=voice.words(working.problem.expr),
        glyphs=tuple(voice.glyphs(working.problem.expr)),
        points=points,
        answer=labelled(voice.text(working.answer), working.answer_label if question.labels else None),
    )


def tally_view(answers: Answers) -> TallyView:
    """What the cells of a sitting come to."""
    columns = [[row[i] for row in answers.cells.values()] for i in range(len(answers.asked))]
    answered = [[cell for cell in column if cell and cell.answered] for column in columns]
    return TallyView(
        points={pupil: answers.points(pupil) for pupil in answers.cells},
        of=answers.points_in_all,
        answered=tuple([len(column) for column in answered]),
        right=tuple([sum(cell.right for cell in column) for column in answered]),
    )


def cell_view(answers: Answers, pupil: str, number: int) -> CellView:
    """A cell that is filled."""
    cell = answers.cells[pupil][number]
    assert cell is not None, "an empty cell is not shown"
    return CellView(
        pupil_id=pupil,
        number=number,
        written=cell.written,
        glyphs=glyphs_of(cell, answers.asked[number].question),
        said=cell.said,
        name=name_in_cell(answers, pupil, number),
        points=cell.points(answers.asked[number].points),
        overruled=cell.word.right is not None or bool(cell.word.codes) or cell.word.points is not None,
        word=cell.word,
    )


def cell_views(answers: Answers) -> tuple[CellView, ...]:
    """Every cell that is filled."""
    return tuple([
        cell_view(answers, pupil, number)
        for pupil, row in answers.cells.items()
        for number, cell in enumerate(row)
        if cell is not None
    ])  # fmt: skip


def glyphs_of(cell: AnswerCell, question: Question) -> tuple[Glyph, ...]:
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


def class_on(answers: Answers, number: int) -> tuple[CountView, ...]:
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
    return tuple([CountView(name, pupils) for name, pupils in ordered])


def question_about(codes: Sequence[str], voice: Voice) -> str:
    """What to ask those who hold some *codes*, the first of them above all; nothing where there is none."""
    return voice.said(ENTRIES[codes[0]].question) if codes else ""


def code_names(codes: Sequence[str], voice: Voice) -> tuple[str, ...]:
    """What some misconceptions and slips are called, in the class's words; a code that is neither is left out."""
    return tuple([voice.said(name_of(code)) for code in codes if is_code(code)])
