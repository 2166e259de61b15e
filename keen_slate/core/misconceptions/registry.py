"""The registry, what an entry is given, and how its status is judged.

An entry is given a `Case` and returns what the pupil writes, or None where its precondition is missing. The
rest is decided here, once for all: an answer that is right in form and value, or below zero where the right
one is not, is not applicable; the right value in another form is `form` for the entries on form; the right
value otherwise is `hidden`; anything else `reveals` the misconception.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ..estimate import Estimate
from ..kinds import Kind
from ..methods.terms import Terms, parts, unsigned_terms
from ..numbers import TOO_LARGE, Dec, Expr, Frac, Mixed, Whole, largest_integer, leaves, value
from ..wording import Rich, text
from ..working import Working

Status = Literal["reveals", "form", "hidden"]


class Case:
    """A worked problem as an entry sees it: the right working, and the terms as (sign, number)."""

    def __init__(self, working: Working) -> None:
        self.working = working
        self.terms: Terms = unsigned_terms(working.problem.expr)
        self.parts = [parts(term) for _, term in self.terms]
        self.fractions = sum(not isinstance(term, Whole) for _, term in self.terms)
        self.answer_value = working.value

    def tidied(self) -> list[tuple[int, int, int]]:
        """The terms' parts after an improper part beside a whole has been tidied."""
        return [
            (w + n // d, n % d, d) if isinstance(t, Mixed) else (w, n, d)
            for (_, t), (w, n, d) in zip(self.terms, self.parts, strict=True)
        ]

    @property
    def common(self) -> int:
        """The common denominator that the working uses."""
        return self.working.used_denominator or 1


@dataclass(frozen=True, slots=True)
class Wrong:
    """What a pupil writes: *lines* of working and the *answer* as it is left."""

    answer: Whole | Frac | Mixed | Dec
    lines: tuple[Rich, ...]


@dataclass(frozen=True, slots=True)
class Entry:
    """A misconception: its code, its words, and the function that works as the pupil does."""

    code: str
    name: str
    reason: str
    question: str
    kinds: tuple[Kind, ...]
    on_form: bool
    works: Callable[[Case], Wrong | None]


@dataclass(frozen=True, slots=True)
class Found:
    """An entry that applies to a problem: its wrong answer, status, and the codes with the same answer."""

    entry: Entry
    wrong: Wrong
    answer_value: Fraction
    status: Status
    caught_by_estimate: bool
    same_as: tuple[str, ...]


ENTRIES: dict[str, Entry] = {}


def misconception(
    code: str, *, name: str, reason: str, question: str, kinds: tuple[Kind, ...], on_form: bool = False
) -> Callable[[Callable[[Case], Wrong | None]], Callable[[Case], Wrong | None]]:
    """Put the decorated function into the registry under *code*."""

    def add(function: Callable[[Case], Wrong | None]) -> Callable[[Case], Wrong | None]:
        if code in ENTRIES:
            raise ValueError(f"the misconception {code} is registered twice")
        ENTRIES[code] = Entry(code, name, reason, question, kinds, on_form, function)
        return function

    return add


def find(working: Working, estimate: Estimate) -> list[Found]:
    """The misconceptions that apply to *working*, those that show first."""
    if any(isinstance(leaf, Dec) for leaf in leaves(working.problem.expr)):
        return []  # no entry so far is about decimals
    case = Case(working)
    judged = [found for entry in ENTRIES.values() if (found := _judge(entry, case, estimate)) is not None]
    order = {"reveals": 0, "form": 1, "hidden": 2}
    judged.sort(key=lambda found: order[found.status])
    return [_with_twins(found, judged) for found in judged]


def _judge(entry: Entry, case: Case, estimate: Estimate) -> Found | None:
    if case.working.problem.kind not in entry.kinds:
        return None
    wrong = entry.works(case)
    if wrong is None or largest_integer(wrong.answer) >= TOO_LARGE:
        return None
    answer = value(wrong.answer)
    if answer < 0 <= case.answer_value:
        return None
    status: Status = "reveals"
    if answer == case.answer_value:
        if text(wrong.answer) == text(case.working.answer) and entry.on_form:
            return None
        status = "form" if entry.on_form and not _accepted(wrong.answer, case) else "hidden"
    return Found(entry, wrong, answer, status, estimate.catches(answer), ())


def _accepted(answer: Expr, case: Case) -> bool:
    """Whether the form of a right value may stand: under `any-equal`, unless an improper part is left."""
    if case.working.ways.answer_form != "any-equal":
        return False
    return not (isinstance(answer, Mixed) and (answer.num or 0) >= answer.den)


def _with_twins(found: Found, judged: list[Found]) -> Found:
    twins = tuple(
        other.entry.code
        for other in judged
        if other is not found
        and other.answer_value == found.answer_value
        and (found.status == "reveals" or other.wrong.answer == found.wrong.answer)
    )
    if not twins:
        return found
    return Found(found.entry, found.wrong, found.answer_value, found.status, found.caught_by_estimate, twins)
