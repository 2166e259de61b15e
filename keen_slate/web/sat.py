"""A sitting of the store as the core sees it: its questions worked, its answers judged, what is known of them kept."""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Mapping, Sequence
from fractions import Fraction
from typing import Any

from keen_slate.core.errors import CoreError
from keen_slate.core.judging.beliefs import Seen
from keen_slate.core.sittings.answers import Answers, Cell
from keen_slate.core.sittings.judge import AWAY, Judged, TeachersWord, judged
from keen_slate.core.sittings.judge import kept as kept_judged
from keen_slate.core.sittings.over_time import Sitting as Sat
from keen_slate.core.sittings.question import Asked, Question, asked_of
from keen_slate.core.sittings.question import kept as kept_asked
from keen_slate.core.ways.settings import Ways
from keen_slate.store.models import Answer, Pupil, Sitting
from keen_slate.store.sittings import Sittings

from .given import Given, each_worked

_NOTHING = Seen(Fraction(0), {}, {}, frozenset())


def snapshot(examples: list[Given]) -> list[dict[str, Any]]:
    """The examples of a set as a sitting keeps them; those that cannot be worked are left out. Labels do not count at first."""
    return [
        {"source": one.source, "target": one.target, "ways": dict(one.ways), "points": dict(one.marks), "labels": False}
        for one, _ in each_worked(examples)
    ]


def question_of(stored: Mapping[str, Any]) -> Question:
    """A problem of a snapshot."""
    points = tuple(sorted(stored.get("points", {}).items()))
    labels = stored.get("labels", False)
    return Question(stored["source"], Ways.of(stored.get("ways", {})), stored.get("target"), points, labels)


def word_of(stored: Mapping[str, Any]) -> TeachersWord:
    """The teacher's word on an answer."""
    steps = None if stored.get("steps") is None else tuple(stored["steps"])
    return TeachersWord(stored.get("right"), tuple(stored.get("codes", ())), stored.get("points"), steps)


def answers_of(store: Sittings, sitting: Sitting, pupils: Sequence[Pupil], rows: Iterable[Answer]) -> Answers:
    """The answers to a sitting, given its *rows*; what was judged for the first time is kept for the next."""
    questions = [question_of(one) for one in sitting.questions]
    known = store.known(sitting)
    asked = [kept_asked(*pair) for pair in zip(questions, known["asked"], strict=True)] if known else None
    memory = _Memory(questions, known.get("judged", [{} for _ in questions]))
    cells: dict[str, list[Cell | None]] = {str(pupil.id): [None] * len(questions) for pupil in pupils}
    for row in rows:
        if (mine := cells.get(str(row.pupil_id))) is not None and row.number < len(questions):
            mine[row.number] = Cell(row.written, memory.judged(row.number, row.written), word_of(row.word))
    if asked is None or memory.grown:
        asked = asked or [_asked(question) for question in questions]
        store.keep_known(sitting, {"asked": [one.plain() for one in asked], "judged": memory.plain})
    return Answers(asked, cells)


def all_answers(store: Sittings, sittings: Sequence[Sitting], pupils: Sequence[Pupil]) -> list[Answers]:
    """The answers to several sittings of a class."""
    rows: dict[uuid.UUID, list[Answer]] = {}
    for row in store.answers([one.id for one in sittings]):
        rows.setdefault(row.sitting_id, []).append(row)
    return [answers_of(store, one, pupils, rows.get(one.id, ())) for one in sittings]


def as_sat(sitting: Sitting, answers: Answers) -> Sat:
    """A sitting for what is told over time; who wrote nothing in it was not there."""
    given = {pupil: row for pupil, row in answers.given.items() if any(answers.cells[pupil])}
    return Sat(sitting.day, answers.asked, given)


class _Memory:
    """What each question's answers were judged as, by their texts."""

    def __init__(self, questions: Sequence[Question], plain: list[dict[str, list[Any]]]) -> None:
        self.questions = questions
        self.plain = plain
        self.grown = False
        self._found: list[dict[str, Judged]] = [{} for _ in questions]

    def judged(self, number: int, written: str | None) -> Judged:
        """The judgement on what was written to a question."""
        if written is None:
            return AWAY
        found = self._found[number].get(written)
        if found is None:
            found = self._found[number][written] = self._look(number, written)
        return found

    def _look(self, number: int, written: str) -> Judged:
        if (plain := self.plain[number].get(written)) is not None:
            return kept_judged(plain)
        found = judged_or_not(self.questions[number], written)
        self.plain[number][written] = found.plain()
        self.grown = True
        return found


def judged_or_not(question: Question, written: str | None) -> Judged:
    """The judgement on an answer; a problem that this version cannot work any more judges nothing."""
    try:
        return judged(question, written)
    except CoreError:
        return Judged("unreadable", written=written or "")


def _asked(question: Question) -> Asked:
    try:
        return asked_of(question)
    except CoreError:
        return Asked(question, _NOTHING, "", (), (), 0)
