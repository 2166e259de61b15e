"""What happened in a sitting: by misconception and by problem."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from ..judging.misconceptions.registry import ENTRIES
from .answers import Answers

MAIN = 3  # misconceptions of a class that are spoken of first


@dataclass(frozen=True, slots=True)
class OfCode:
    """A misconception: who showed it, with the problems (by index); in how many answers it *did*, and *could*."""

    code: str
    pupils: tuple[tuple[str, tuple[int, ...]], ...]
    did: int
    could: int


@dataclass(frozen=True, slots=True)
class OfProblem:
    """A problem: how many answers are *right*, right in *value* only, wrong, blank; the commonest wrong one, written so
    many *times*, and its codes; what it *hides*: misconceptions seen in this sitting that give the right answer here.
    """

    right: int
    value: int
    wrong: int
    blank: int
    commonest: str | None
    times: int
    codes: tuple[str, ...]
    hides: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Happened:
    """What happened, the misconception that most pupils showed first."""

    codes: tuple[OfCode, ...]
    problems: tuple[OfProblem, ...]
    pupils: int


def happened(answers: Answers) -> Happened:
    """What happened in a sitting.

    >>> from .judge import judged
    >>> from .question import Question, asked_of
    >>> from .answers import AnswerCell
    >>> one = asked_of(Question("7 1/4 - 3 5/6"))
    >>> found = happened(Answers([one], {"Sedge": [AnswerCell("4 7/12", judged(one.question, "4 7/12"))]}))
    >>> found.codes[0].code, found.codes[0].did, found.problems[0].commonest
    ('smaller-from-larger', 1, '4 7/12')
    """
    codes = _codes(answers)
    seen = {one.code for one in codes}
    problems = tuple([_problem(answers, i, seen) for i in range(len(answers.asked))])
    return Happened(codes, problems, sum(any(row) for row in answers.cells.values()))


def _codes(answers: Answers) -> tuple[OfCode, ...]:
    did: dict[str, dict[str, list[int]]] = {}
    for pupil, row in answers.cells.items():
        for i in range(len(row)):
            for code in answers.codes(pupil, i):
                if code in ENTRIES:
                    did.setdefault(code, {}).setdefault(pupil, []).append(i)
    found = [
        OfCode(
            code,
            tuple(sorted([(pupil, tuple(at)) for pupil, at in who.items()], key=lambda one: -len(one[1]))),
            sum(map(len, who.values())),
            _chances(answers, code, who),
        )
        for code, who in did.items()
    ]
    return tuple(sorted(found, key=lambda one: (-len(one.pupils), -one.did, one.code)))


def chances(answers: Answers, code: str) -> int:
    """The answers in which a code could show."""
    return sum(many for many, asked in zip(answers.how_many_gave, answers.asked, strict=True) if asked.can_show(code))


def _chances(answers: Answers, code: str, who: dict[str, list[int]]) -> int:
    """The answers in which a code could show, or did by its teacher's word."""
    own = sum(not answers.asked[i].can_show(code) for at in who.values() for i in at)
    return chances(answers, code) + own


def _problem(answers: Answers, i: int, seen: set[str]) -> OfProblem:
    there = [(pupil, cell) for pupil, row in answers.cells.items() if (cell := row[i]) is not None]
    counts = Counter([cell.said for _, cell in there])
    wrong = Counter([cell.judged.written for _, cell in there if cell.said in ("explained", "unexplained")])
    commonest, times = wrong.most_common(1)[0] if wrong else (None, 0)
    writers = [pupil for pupil, cell in there if commonest is not None and cell.judged.written == commonest]
    return OfProblem(
        counts["right"],
        counts["right-value"],
        sum(wrong.values()) + counts["unreadable"],
        counts["blank"],
        commonest,
        times,
        answers.codes(writers[0], i) if writers else (),
        tuple([code for code in answers.asked[i].hidden if code in seen]),
    )
