"""A class with all that it wrote as one JSON document (docs/formats.md), to be brought in again here or elsewhere."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from keen_slate.core.diagnosing.faults import is_code
from keen_slate.core.limits import (
    ALIAS_LENGTH,
    ANSWER_LENGTH,
    MOST_EXAMPLES,
    MOST_POINTS,
    MOST_PUPILS,
    MOST_SITTINGS,
    SOURCE_CHARACTERS,
    TITLE_LENGTH,
)
from keen_slate.core.reading.kinds import Target
from keen_slate.core.working.keys import MARK_KEY

from . import json_document
from .json_document import Part, problem_at, refused, ways_at
from .set_document import Codes

Title = Annotated[str, StringConstraints(min_length=1, max_length=TITLE_LENGTH, pattern=r"\S")]
Alias = Annotated[str, StringConstraints(min_length=1, max_length=ALIAS_LENGTH, pattern=r"\S")]
Number = Annotated[int, Field(ge=1, le=MOST_EXAMPLES)]


class PupilPart(Part):
    """A pupil under an alias; *here* is false for one who has left."""

    alias: Alias
    here: bool = True


class QuestionPart(Part):
    """A problem as it was given (with a decimal point), in the ways that held for it, with its teacher's own points by
    key.
    """

    problem: Annotated[str, StringConstraints(max_length=SOURCE_CHARACTERS)]
    to: Target | None = None
    ways: Codes = {}
    marks: Annotated[
        dict[Annotated[str, StringConstraints(pattern=MARK_KEY)], Annotated[int, Field(ge=0, le=MOST_POINTS)]],
        Field(max_length=MOST_EXAMPLES),
    ] = {}


class WordPart(Part):
    """What the teacher said of an answer, above the program."""

    right: bool | None = None
    codes: Annotated[list[Annotated[str, StringConstraints(max_length=60)]], Field(max_length=3)] = []
    points: Annotated[int, Field(ge=0, le=999)] | None = None
    steps: Annotated[list[Annotated[str, StringConstraints(max_length=60)]], Field(max_length=MOST_EXAMPLES)] | None = (
        None
    )


class AnswerPart(Part):
    """What a pupil wrote to a problem, counted from 1: an empty text is a blank, null says that she was away."""

    pupil: Alias
    problem: Number
    written: Annotated[str, StringConstraints(max_length=ANSWER_LENGTH)] | None
    word: WordPart = WordPart()


class MovePart(Part):
    """A pupil who was put by hand into the group of some *codes*; without any, into the one that is ready to go on."""

    pupil: Alias
    codes: Annotated[list[Annotated[str, StringConstraints(max_length=60)]], Field(max_length=3)] = []


class SittingPart(Part):
    """A sitting: a day (YYYY-MM-DD), what was asked, whether a missing label counts, what was written, who was put
    elsewhere.

    *set* names the file that its set is in, where both stand in one (`desk_document`).
    """

    title: Title
    day: Annotated[str, StringConstraints(pattern=r"^\d{4}-\d{2}-\d{2}$")]
    kind: Literal["board", "quiz", "homework", "warm-up"]
    labels: bool = False
    questions: Annotated[list[QuestionPart], Field(min_length=1, max_length=MOST_EXAMPLES)]
    answers: Annotated[list[AnswerPart], Field(max_length=MOST_PUPILS * MOST_EXAMPLES)] = []
    moves: Annotated[list[MovePart], Field(max_length=MOST_PUPILS)] = []
    set: Annotated[str, StringConstraints(max_length=120)] = ""


class ClassDocument(Part):
    """A class, version 1. What its pupils hold is computed anew where it is opened."""

    format: Literal["keen-slate/class"]
    version: Literal[1]
    name: Title
    returns: Annotated[list[Annotated[int, Field(ge=1, le=365)]], Field(max_length=6)] = [2, 7, 21]
    forget_months: Annotated[int, Field(ge=0, le=60)] = 0
    pupils: Annotated[list[PupilPart], Field(max_length=MOST_PUPILS)] = []
    sittings: Annotated[list[SittingPart], Field(max_length=MOST_SITTINGS)] = []


def read_document(file: bytes) -> ClassDocument:
    """The class that a *file* holds. Raises `ReadError` that says where it is wrong, and why."""
    document = json_document.read(file, ClassDocument, "class", "A class of 30 with forty sittings takes about 1 MB.")
    aliases = {pupil.alias.casefold() for pupil in document.pupils}
    if len(aliases) < len(document.pupils):
        raise refused("pupils: an alias stands there twice.", "Give one of them another alias.")
    for i, sitting in enumerate(document.sittings):
        _check(sitting, f"sittings[{i}]", aliases)
    return document


def _check(sitting: SittingPart, place: str, aliases: set[str]) -> None:
    try:
        date.fromisoformat(sitting.day)
    except ValueError:
        raise refused(f"{place}.day: {sitting.day} is no day.", "Write it like 2026-11-12.") from None
    for i, question in enumerate(sitting.questions):
        at = f"{place}.questions[{i}]"
        question.problem = problem_at(question.problem, question.to, ways_at(question.ways, f"{at}.ways"), at)
    seen = set()
    if len({moved.pupil.casefold() for moved in sitting.moves}) < len(sitting.moves):
        raise refused(f"{place}.moves: a pupil stands there twice.", "A pupil is in one group.")
    for i, moved in enumerate(sitting.moves):
        _check_pupil(moved.pupil, aliases, f"{place}.moves[{i}]")
        _check_codes(moved.codes, f"{place}.moves[{i}].codes")
    for i, answer in enumerate(sitting.answers):
        at = f"{place}.answers[{i}]"
        _check_pupil(answer.pupil, aliases, at)
        if answer.problem > len(sitting.questions):
            raise refused(f"{at}.problem: there are {len(sitting.questions)} problems.", "Count from 1.")
        _check_codes(answer.word.codes, f"{at}.word.codes")
        cell = (answer.pupil.casefold(), answer.problem)
        if cell in seen:
            raise refused(f"{at}: {answer.pupil} has two answers to problem {answer.problem}.", "Leave one out.")
        seen.add(cell)


def _check_pupil(pupil: str, aliases: set[str], at: str) -> None:
    if pupil.casefold() not in aliases:
        raise refused(f"{at}.pupil: {pupil} is not among the pupils.", "Name the pupil there, too.")


def _check_codes(codes: list[str], at: str) -> None:
    strange = [code for code in codes if not is_code(code)]
    if strange:
        raise refused(f"{at}: there is no misconception {strange[0]!r}.", "Take one of the catalogue.")
