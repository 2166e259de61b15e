"""A sitting of the store as the core sees it: its questions worked, its answers judged.

What was judged once is kept twice: in this process as long as there is room, and with the sitting for after a restart.
Both are looked up by what they rest on, so that nothing old is ever shown.
"""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Mapping, Sequence
from fractions import Fraction
from threading import Lock
from typing import Any

from cachetools import LRUCache, cached

from keen_slate.core.documents.cells import PupilView, pupil_view
from keen_slate.core.errors import CoreError
from keen_slate.core.judging.beliefs import Evidence, Seen
from keen_slate.core.sittings.answers import AnswerCell, Answers
from keen_slate.core.sittings.judge import AWAY, Judged, TeachersWord, judged
from keen_slate.core.sittings.judge import kept as kept_judged
from keen_slate.core.sittings.over_time import SittingAnswers as Sat
from keen_slate.core.sittings.over_time import evidence_of
from keen_slate.core.sittings.question import Asked, Question, asked_of
from keen_slate.core.sittings.question import kept as kept_asked
from keen_slate.core.ways.settings import Ways
from keen_slate.store.models import Pupil, Sitting
from keen_slate.store.sittings import CellWritten, Sittings

from .given import GivenExample, each_worked

_NOTHING = Seen(Fraction(0), {}, {}, frozenset())
_SITTINGS, _PUPILS = 300, 2000  # that are kept in this process


def snapshot(examples: list[GivenExample]) -> list[dict[str, Any]]:
    """The examples of a set as a sitting keeps them; those that cannot be worked are left out.

    Labels do not count at first.
    """
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


# The answers to sittings ----------------------------------------------------------------------------------------------


def answers_of(store: Sittings, sitting: Sitting, pupils: Sequence[Pupil], rows: Iterable[CellWritten]) -> Answers:
    """The answers to a sitting, given its *rows*."""
    judge = _judge(store, sitting)
    cells: dict[str, list[AnswerCell | None]] = {str(pupil.id): [None] * len(judge.questions) for pupil in pupils}
    for row in rows:
        mine = cells.get(str(row.pupil_id))
        if mine is not None and row.number < len(judge.questions):
            mine[row.number] = AnswerCell(row.written, judge.judged(row.number, row.written), word_of(row.word))
    return Answers(judge.asked, cells)


def all_answers(store: Sittings, sittings: Sequence[Sitting], pupils: Sequence[Pupil]) -> list[Answers]:
    """The answers to several sittings of a class; only what has changed is looked up."""
    keys = {one.id: (one.id, one.counter, has_labels(one), tuple([pupil.id for pupil in pupils])) for one in sittings}
    with _lock:
        found = {one.id: _answers.get(keys[one.id]) for one in sittings}
    rows: dict[uuid.UUID, list[CellWritten]] = {}
    for row in store.answers([one.id for one in sittings if found[one.id] is None]):
        rows.setdefault(row.sitting_id, []).append(row)
    for one in sittings:
        if found[one.id] is None:
            made = answers_of(store, one, pupils, rows.get(one.id, ()))
            keep_judged(store, one)
            with _lock:
                found[one.id] = _answers[keys[one.id]] = made
    return [answers for one in sittings if (answers := found[one.id]) is not None]


def keep_judged(store: Sittings, sitting: Sitting) -> None:
    """Keep with a sitting what was judged in it for the first time."""
    judge = _judge(store, sitting)
    if judge.grown:
        store.keep_known(sitting, judge.plain())
        judge.grown = False


_answers: LRUCache[Any, Answers] = LRUCache(_SITTINGS)
_judges: LRUCache[Any, _Judge] = LRUCache(_SITTINGS)
_lock = Lock()


def has_labels(sitting: Sitting) -> bool:
    """Whether a missing label counts in a sitting."""
    return bool(sitting.questions and sitting.questions[0].get("labels"))


def _judge(store: Sittings, sitting: Sitting) -> _Judge:
    key = (sitting.id, has_labels(sitting))
    with _lock:
        found: _Judge | None = _judges.get(key)
    if found is None:
        found = _Judge([question_of(one) for one in sitting.questions], store.known(sitting))
        with _lock:
            _judges[key] = found
    return found


class _Judge:
    """The questions of a sitting, worked, and what was judged so far of each one's answers, by their texts."""

    def __init__(self, questions: Sequence[Question], known: Mapping[str, Any]) -> None:
        self.questions = questions
        self.grown = not known
        kept = known.get("asked")
        self.asked = (
            [kept_asked(*pair) for pair in zip(questions, kept, strict=True)] if kept
            else [_asked(question) for question in questions]
        )  # fmt: skip
        self._known: Sequence[Mapping[str, list[Any]]] = known.get("judged", [{} for _ in questions])
        self._found: list[dict[str, Judged]] = [{} for _ in questions]

    def judged(self, number: int, written: str | None) -> Judged:
        """The judgement on what was written to a question."""
        if written is None:
            return AWAY
        found = self._found[number].get(written)
        if found is None:
            plain = self._known[number].get(written)
            found = kept_judged(plain) if plain else _judged(self.questions[number], written)
            self._found[number][written] = found
            self.grown = self.grown or not plain
        return found

    def plain(self) -> dict[str, Any]:
        """All of it as plain values to be kept."""
        made = [{text: one.plain() for text, one in list(found.items())} for found in self._found]
        judged = [{**known, **mine} for known, mine in zip(self._known, made, strict=True)]
        return {"asked": [one.plain() for one in self.asked], "judged": judged}


def _judged(question: Question, written: str) -> Judged:
    """The judgement on an answer; a problem that this version cannot work any more judges nothing."""
    try:
        return judged(question, written)
    except CoreError:
        return Judged("unreadable", written=written)


def _asked(question: Question) -> Asked:
    try:
        return asked_of(question)
    except CoreError:
        return Asked(question, _NOTHING, "", (), (), 0)


def as_seen(pupil: Pupil) -> PupilView:
    """A pupil as screens show her."""
    return pupil_view(str(pupil.id), pupil.alias, pupil.here)


# Over time ------------------------------------------------------------------------------------------------------------


def as_sat(sitting: Sitting, answers: Answers) -> Sat:
    """A sitting for what is told over time; who wrote nothing in it was not there."""
    given = {pupil: row for pupil, row in answers.given.items() if any(answers.cells[pupil])}
    return Sat(sitting.day, answers.asked, given)


def _of_answers(sittings: Sequence[Sat], pupil: str) -> Any:
    """What a pupil's evidence rests on: what was asked, and what she gave."""
    return pupil, tuple(
        [(tuple([a.question for a in one.asked]), tuple(one.pupils.get(pupil, ()))) for one in sittings]
    )


@cached(LRUCache(_PUPILS), key=_of_answers, lock=Lock())
def evidence(sittings: Sequence[Sat], pupil: str) -> Evidence:
    """What a pupil's answers in some sittings say; found once for the same answers."""
    return evidence_of(sittings, pupil)
