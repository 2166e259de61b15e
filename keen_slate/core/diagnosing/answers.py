"""What a pupil answered, explained: right, right in value, a misconception, two of them, a slip, or not explained.

An answer is explained where its value is the value that a wrong way leads to. What a problem can explain is found once
and kept, so that a class's answers to the same problem are quick.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property, lru_cache
from math import gcd
from typing import Literal

from ..errors import CoreError
from ..expressions.sentences import Rich
from ..expressions.text import DecimalMark, text
from ..expressions.tree import Dec, Equation, Expr, Frac, Mixed, Neg, Whole, value
from ..expressions.walks import map_numbers
from ..judging.misconceptions import LikelyAnswer, likely_answers
from ..judging.misconceptions.registry import ENTRIES
from ..judging.slips import slips
from ..limits import PRINTED
from ..reading.problem import Problem
from ..reading.reader import read
from ..reading.units import singular
from ..ways.settings import Ways
from ..worked import Worked, work_text
from ..working.methods import work
from .filled import codes_of, filled_in, right_or_why_not
from .over_zero import ACROSS, taken_across

CONVERTING = ("whole-added-to-top", "times-top-plus-bottom")
_NUMBERS = (Whole, Frac, Mixed, Dec)


@dataclass(frozen=True, slots=True)
class Explanation:
    """One way to an answer: its codes (one, or the two needed together), its lines, why, and what to ask.

    Equal ranks tie.
    """

    rank: int
    codes: tuple[str, ...]
    lines: tuple[Rich, ...]
    reason: str
    question: str


VerdictWord = Literal["right", "right-value", "explained", "unexplained", "unreadable"]


@dataclass(frozen=True, slots=True)
class Verdict:
    """`right`, `right-value` (with its fault of form), `explained`, `unexplained`, `unreadable`."""

    verdict: VerdictWord
    value: Fraction | None = None
    form_fault: str | None = None
    explanations: tuple[Explanation, ...] = ()


@dataclass(frozen=True, slots=True)
class _Answer:
    number: Expr
    label: str | None


def diagnose(
    source: str, answer: str, ways: Ways | None = None, mark: DecimalMark = ".", target: str | None = None
) -> Verdict:
    """The verdict on *answer* to the problem *source*. Raises `CoreError` where the problem cannot be read or worked.

    >>> verdict = diagnose("7 1/4 - 3 5/6", "4 7/12")
    >>> verdict.verdict, verdict.explanations[0].codes
    ('explained', ('smaller-from-larger',))
    """
    return _explainer(source, ways or Ways(), mark, target).verdict(answer)


def read_answer(typed: str, mark: DecimalMark = ".") -> _Answer | None:
    """The one written number that *typed* is, with its label; None where it is not one."""
    try:
        problem = read(typed, mark, PRINTED)
    except CoreError:
        return None
    inner = problem.expr.inner if isinstance(problem.expr, Neg) else problem.expr
    return _Answer(problem.expr, problem.label) if problem.kind == "simplify" and isinstance(inner, _NUMBERS) else None


@lru_cache(maxsize=512)
def _explainer(source: str, ways: Ways, mark: DecimalMark, target: str | None) -> Explainer:
    return Explainer(work_text(source, ways, mark, target), mark)


class Explainer:
    """A worked problem that explains answers to it, written with the decimal *mark*; what it needs for that it finds
    once.
    """

    def __init__(self, worked: Worked, mark: DecimalMark) -> None:
        self.worked = worked
        self.mark = mark
        self.working = worked.working

    def verdict(self, typed: str, labels: bool = True) -> Verdict:
        """The verdict on an answer as it was *typed*; where *labels* do not count, a missing one is taken for
        written.
        """
        if isinstance(self.working.answer, Equation):
            return self._filled(typed)
        answer = self.read(typed, labels)
        if answer is None:
            return self._unreadable(typed)
        number = value(answer.number)
        if number == self.working.value:
            fault = self.fault(answer)
            found = tuple(self._ranked(self._forms(answer)))
            return Verdict("right-value", number, fault, found) if fault else Verdict("right", number)
        explanations = tuple(self.explain(answer.number))
        return Verdict("explained" if explanations else "unexplained", number, None, explanations)

    def _unreadable(self, typed: str) -> Verdict:
        """What is no number is not explained, but for what stands over zero because bottoms were taken away, too."""
        if (lines := taken_across(self.working, typed)) is None:
            return Verdict("unreadable")
        entry = ENTRIES[ACROSS]
        return Verdict("explained", None, None, (Explanation(1, (ACROSS,), lines, entry.reason, entry.question),))

    def read(self, typed: str, labels: bool = True) -> _Answer | None:
        """The number that was *typed*, with its label: that of the problem, where none was typed and *labels* do not
        count.
        """
        answer = read_answer(typed, self.mark)
        if answer is None or labels or answer.label is not None:
            return answer
        return _Answer(answer.number, self.working.answer_label)

    def _filled(self, typed: str) -> Verdict:
        """The verdict on what was filled into blanks."""
        filled = filled_in(self.working.problem, typed, self.mark)
        if filled is None:
            return Verdict("unreadable" if not re.search(r"\d", typed) else "unexplained")
        right, fault = right_or_why_not(self.worked, filled)
        if right or fault:
            return Verdict("right-value" if fault else "right", self.working.value, fault)
        found = [
            Explanation(1, (code,), ((text(filled),),), ENTRIES[code].reason, ENTRIES[code].question)
            for code in codes_of(self.worked, filled)
        ]
        return Verdict("explained" if found else "unexplained", None, None, tuple(found))

    # Form ------------------------------------------------------------------------------------------------------

    def fault(self, answer: _Answer) -> str | None:
        """The rule of form that a right value breaks; None where it may stand."""
        number = answer.number.inner if isinstance(answer.number, Neg) else answer.number
        right = self.working.answer.inner if isinstance(self.working.answer, Neg) else self.working.answer
        label = self.working.problem.label
        kind_fault = self._kind_fault(number, right)
        if kind_fault:
            return kind_fault
        if label is not None and answer.label is None:
            return "label-missing"
        return "label-wrong" if singular(answer.label or "") != singular(label or "") else None

    def _kind_fault(self, number: Expr, right: Expr) -> str | None:
        if isinstance(number, Dec):
            decimal = isinstance(right, Dec) or self.working.ending.problem.kind == "decimal"
            return (
                None
                if decimal or (isinstance(right, Whole) and not number.places.strip("0"))
                else "decimal-for-fraction"
            )
        if isinstance(number, Whole):
            return None
        if isinstance(right, Dec) or self.working.ending.problem.kind == "decimal":
            return "fraction-for-decimal"
        if self.working.problem.target == "improper":
            return "mixed" if isinstance(number, Mixed) else None
        return self._fraction_fault(number)

    def _fraction_fault(self, number: Expr) -> str | None:
        ways = self.working.ways
        if isinstance(number, Mixed):
            num, den = number.num, number.den
            if num >= den or num == 0:
                return "improper-part" if num % den else "whole-as-fraction"
            if ways.answer_form == "simplest-improper":
                return "mixed"
        elif isinstance(number, Frac):
            num, den = number.num, number.den
            if num % den == 0:
                return "whole-as-fraction"
            if num > den and ways.wants_mixed:
                return "improper"
        else:
            return None
        return "not-lowest-terms" if gcd(num, den) > 1 and ways.wants_lowest_terms else None

    def _forms(self, answer: _Answer) -> Iterator[tuple[tuple[int, ...], Explanation]]:
        for found in self.worked.likely:
            same = text(found.wrong.answer) == text(answer.number)
            without = answer.label is None or found.wrong.labelled
            if found.status == "form" and same and without and (found.wrong.labelled or answer.label is None):
                yield (0,), _explanation(found)

    # Value -----------------------------------------------------------------------------------------------------

    def explain(self, answer: Expr) -> Iterator[Explanation]:
        """The explanations of a wrong answer, best first: one code, else two, else a slip."""
        singles = [
            ((int(text(f.wrong.answer) != text(answer)), len(f.entry.kinds)), _explanation(f))
            for f in self.worked.likely
            if f.answer_value == value(answer)
        ]
        if singles:
            yield from self._ranked(iter(singles))
            return
        pairs = [((int(text(written) != text(answer)),), found) for found, written in self.pairs.get(value(answer), [])]
        if pairs:
            yield from self._ranked(iter(pairs))
            return
        yield from self._ranked(iter([((0,), found) for found in self.slips.get(value(answer), [])]))

    def _ranked(self, found: Iterator[tuple[tuple[int, ...], Explanation]]) -> Iterator[Explanation]:
        ordered = sorted(found, key=lambda pair: pair[0])
        keys = sorted({key for key, _ in ordered})
        for key, one in ordered:
            yield Explanation(keys.index(key) + 1, one.codes, one.lines, one.reason, one.question)

    @cached_property
    def pairs(self) -> dict[Fraction, list[tuple[Explanation, Expr]]]:
        """Value -> the two misconceptions that lead to it together: the second works on what the first one wrote."""
        made: dict[Fraction, list[tuple[Explanation, Expr]]] = {}
        for first in [found for found in self.worked.likely if found.status != "form"]:
            for second in self._second(first):
                if second.answer_value == self.working.value or second.entry.code == first.entry.code:
                    continue
                one, two = _explanation(first), _explanation(second)
                both = Explanation(
                    1, (*one.codes, *two.codes), one.lines + two.lines, f"{one.reason} {two.reason}", two.question
                )
                made.setdefault(second.answer_value, []).append((both, second.wrong.answer))
        return made

    def _second(self, first: LikelyAnswer) -> list[LikelyAnswer]:
        ways = self.working.ways
        try:
            if first.entry.code in CONVERTING and self.working.problem.kind not in ("convert", "story"):
                wrong = map_numbers(self.working.problem.expr, lambda n: _turned(n, first.entry.code))
                problem = Problem(wrong, None, self.working.problem.kind)
            else:
                answer = first.wrong.answer.inner if isinstance(first.wrong.answer, Neg) else first.wrong.answer
                problem = Problem(answer, None, "simplify")
            return [found for found in likely_answers(work(problem, ways), None) if found.status == "reveals"]
        except (CoreError, ZeroDivisionError):
            return []

    @cached_property
    def slips(self) -> dict[Fraction, list[Explanation]]:
        """Value -> the slips that lead to it."""
        made: dict[Fraction, list[Explanation]] = {}
        for slip in slips(self.working):
            known = made.setdefault(slip.value, [])
            if slip.code not in [one.codes[0] for one in known]:
                known.append(
                    Explanation(
                        1, (slip.code,), (slip.line,), "A slip, not a misconception.", "Can you find it yourself?"
                    )
                )
        made.pop(self.working.value, None)
        return made


def _explanation(likely: LikelyAnswer) -> Explanation:
    return Explanation(1, (likely.entry.code,), likely.wrong.lines, likely.entry.reason, likely.entry.question)


def _turned(number: Expr, code: str) -> Expr:
    if not isinstance(number, Mixed):
        return number
    w, n, d = number.whole, number.num, number.den
    return Frac(w * n + d if code == "times-top-plus-bottom" else w + n, d)
