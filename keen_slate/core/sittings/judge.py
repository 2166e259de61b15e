"""An answer that a pupil wrote, judged: a number, a working of several lines, a blank, or nothing because she
was away.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import Any, Literal

from ..diagnosing.answers import Explainer, Verdict
from ..diagnosing.lines import Checked, check_lines
from ..errors import CoreError
from ..expressions.text import text
from ..expressions.tree import Equation
from ..judging.beliefs import Given, Seen
from ..limits import PRINTED
from ..reading.problem import labelled
from ..reading.reader import read
from ..teaching.points import ANSWER, points_of
from ..working.keys import step_keys
from .question import Question, explainer_of

Word = Literal["right", "right-value", "explained", "unexplained", "unreadable", "blank", "away"]
# What stands in a cell for an answer that has no other name.
WORD_NAMES = {"unexplained": "not explained", "unreadable": "not readable", "blank": "blank", "away": "away"}


@dataclass(frozen=True, slots=True)
class Judged:
    """What the core says of an answer: the *explanations* as (rank, codes), the best first, its *value* (None where it
    is no number), how it is *written*, the *fault* of its form, and the *points* that it earns.
    """

    word: Word
    explanations: tuple[tuple[int, tuple[str, ...]], ...] = ()
    value: Fraction | None = None
    written: str = ""
    fault: str | None = None
    points: int = 0

    def plain(self) -> list[Any]:
        """It as plain values to be kept."""
        number = None if self.value is None else str(self.value)
        return [self.word, [[rank, *codes] for rank, codes in self.explanations], number, self.written, self.fault,
            self.points]  # fmt: skip


def kept(plain: Sequence[Any]) -> Judged:
    """What `Judged.plain` has written."""
    word, explanations, number, written, fault, points = plain
    return Judged(
        word, tuple([(one[0], tuple(one[1:])) for one in explanations]), None if number is None else Fraction(number),
        written, fault, points,
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class TeachersWord:
    """What stands above the core's judgement: right or wrong, the codes of the explanation that she picked, the points
    that she gives, and for which *steps* (keys), if for some.
    """

    right: bool | None = None
    codes: tuple[str, ...] = ()
    points: int | None = None
    steps: tuple[str, ...] | None = None


NO_WORD = TeachersWord()
BLANK, AWAY = Judged("blank"), Judged("away")


@lru_cache(maxsize=16384)
def judged(question: Question, written: str | None) -> Judged:
    """The judgement on what was *written*: "" is a blank, None is nobody there. Raises `CoreError` where the problem
    cannot be worked.

    >>> judged(Question("7 1/4 - 3 5/6"), "4 7/12").explanations
    ((1, ('smaller-from-larger',)),)
    >>> judged(Question("1/2 + 1/3 ft"), "5/6").word, judged(Question("1/2 + 1/3 ft", labels=False), "5/6").word
    ('right-value', 'right')
    >>> judged(Question("7 1/4 - 3 5/6"), "7 3/12 - 3 10/12\\n6 15/12 - 3 10/12\\n3 6/12").points
    2
    >>> judged(Question("7 1/4 - 3 5/6"), "7 3/12 - 3 10/12\\n6 15/12 - 3 10/12").word
    'unexplained'
    """
    if written is None:
        return AWAY
    lines = lines_of(written)
    if not lines:
        return BLANK
    explainer = explainer_of(question)
    checked = checked_of(question, written)
    typed = checked.last if checked else lines[0]
    verdict = explainer.verdict(typed, question.labels)
    return Judged(
        "unexplained" if checked and _has_value(checked) and verdict.verdict == "unreadable" else verdict.verdict,
        tuple([(one.rank, one.codes) for one in verdict.explanations]),
        verdict.value,
        _as_written(typed, explainer, question.labels),
        verdict.form_fault,
        _points(question, explainer, verdict, checked),
    )


def lines_of(written: str) -> list[str]:
    """The lines of an answer that have something on them."""
    return [line.strip() for line in written.splitlines() if line.strip()]


def checked_of(question: Question, written: str) -> Checked | None:
    """A working, checked line by line; None where only an answer was written. Raises `CoreError`."""
    lines = lines_of(written)
    explainer = explainer_of(question)
    fills = isinstance(explainer.working.answer, Equation)
    if len(lines) < 2 and (fills or not lines or "=" not in lines[0].lstrip("= ")):
        return None
    return check_lines(explainer, lines)


def _has_value(checked: Checked) -> bool:
    """Whether a working ends in a calculation: it could be read, though it is not finished."""
    return checked.lines[-1].equal is not None


def _as_written(typed: str, explainer: Explainer, labels: bool) -> str:
    answer = explainer.read(typed, labels)
    return typed.strip() if answer is None else labelled(text(answer.number), answer.label)


def _points(question: Question, explainer: Explainer, verdict: Verdict, checked: Checked | None) -> int:
    """All for a right answer, all but the answer's own for a right value; else those of the steps that the working has
    come to.
    """
    working = explainer.working
    points = points_of(working, step_keys(working), dict(question.points))
    if verdict.verdict == "right":
        return sum(one.points for one in points)
    if verdict.verdict == "right-value":
        return sum(one.points for one in points if one.key != ANSWER)
    return sum(one.points for one in points[: _reached(explainer, checked)]) if checked else 0


def _reached(explainer: Explainer, checked: Checked) -> int:
    """How many steps of the core's working the right lines of a pupil's have come to."""
    good = checked.lines[: len(checked.lines) if checked.first_wrong is None else checked.first_wrong]
    there = set()
    for line in good:
        for piece in line.text.split("="):
            try:
                there.add(read(piece.strip(), explainer.mark, PRINTED).expr)
            except CoreError:
                continue
    return max([i + 1 for i, step in enumerate(explainer.working.steps) if step.after in there], default=0)


# What the model of beliefs is given -----------------------------------------------------------------------------------


def given_of(one: Judged, seen: Seen, word: TeachersWord = NO_WORD) -> Given | None:
    """An answer as the model sees it, with the teacher's *word* above the core's; None for a blank, and for who was not
    there.
    """
    if one.word in ("blank", "away"):
        return None
    if word.right is not None:
        return Given(seen.right if word.right else None, "")
    return Given(one.value, one.written, one.fault is not None, frozenset(word.codes) if word.codes else None)


def word_of(one: Judged, word: TeachersWord = NO_WORD) -> Word:
    """What is said of an answer in the end."""
    if word.right is not None:
        return "right" if word.right else "explained" if word.codes else "unexplained"
    return "explained" if word.codes and one.word != "right-value" else one.word


def habits(answers: Sequence[Judged]) -> Counter[str]:
    """How often each code may have been at work in a pupil's or a class's *answers*."""
    return Counter([code for one in answers for code in {code for _, codes in one.explanations for code in codes}])


def best_codes(
    one: Judged, hers: Mapping[str, int], of_class: Mapping[str, int], word: TeachersWord = NO_WORD
) -> tuple[str, ...]:
    """The codes of the explanation that counts: the one picked, else the first; of those that tie, what she and then
    her class did oftenest.
    """
    if word.codes or word.right is not None:
        return word.codes
    return next(iter(in_order(one.explanations, hers, of_class)), ())


def in_order(
    explanations: Iterable[tuple[int, tuple[str, ...]]], hers: Mapping[str, int], of_class: Mapping[str, int]
) -> list[tuple[str, ...]]:
    """The codes of explanations (rank, codes) in the order in which they are shown: of those that tie, what she and
    then her class did oftenest.
    """
    ordered = sorted(explanations, key=lambda found: (found[0], *_seldom(found[1], hers, of_class)))
    return [codes for _, codes in ordered]


def _seldom(codes: Sequence[str], hers: Mapping[str, int], of_class: Mapping[str, int]) -> tuple[int, int]:
    return -min(hers.get(code, 0) for code in codes), -min(of_class.get(code, 0) for code in codes)
