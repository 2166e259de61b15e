"""A problem as a class was given it, and what of it its answers are held against: small enough to be kept with them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from functools import lru_cache
from typing import Any

from ..diagnosing.answers import Explainer
from ..expressions.text import DecimalMark, text
from ..expressions.tree import Equation
from ..expressions.walks import denominators
from ..judging.beliefs import Seen
from ..judging.slips import slips
from ..reading.kinds import Target
from ..reading.problem import labelled
from ..teaching.points import points_of
from ..ways.settings import Ways
from ..ways.voices import mark_of
from ..worked import Worked, work_text
from ..working.keys import step_keys


@dataclass(frozen=True, slots=True)
class Question:
    """A problem in its *ways*, converted to a *target* if it has one; *points* are its teacher's own by key.

    *labels* says whether a missing label counts, *mark* is the decimal mark of its text.
    """

    source: str
    ways: Ways = field(default_factory=Ways)
    target: Target | None = None
    points: tuple[tuple[str, int], ...] = ()
    labels: bool = True
    mark: DecimalMark = "."


@dataclass(frozen=True, slots=True)
class Asked:
    """What the answers to a *question* are held against: *hidden* are the codes that give the right answer here,
    *points* those in all.
    """

    question: Question
    seen: Seen
    rung: str
    denominators: tuple[int, ...]
    hidden: tuple[str, ...]
    points: int

    def is_about(self, what: str) -> bool:
        """Whether it is of a rung, or a code can show in it."""
        return what == self.rung or self.can_show(what)

    def can_show(self, code: str) -> bool:
        """Whether a misconception can be seen in its answer, or in the form of it."""
        return self.seen.can_show(code)

    def plain(self) -> dict[str, Any]:
        """It without its question, as plain values to be kept."""
        return {
            "right": str(self.seen.right),
            "reveals": {code: str(wrong) for code, wrong in self.seen.reveals.items()},
            "forms": dict(self.seen.forms),
            "slips": sorted(map(str, self.seen.slips)),
            "rung": self.rung,
            "denominators": list(self.denominators),
            "hidden": list(self.hidden),
            "points": self.points,
        }


def kept(question: Question, plain: Mapping[str, Any]) -> Asked:
    """What `Asked.plain` has written of a *question*."""
    seen = Seen(
        Fraction(plain["right"]),
        {code: Fraction(wrong) for code, wrong in plain["reveals"].items()},
        plain["forms"],
        frozenset(map(Fraction, plain["slips"])),
    )
    return Asked(
        question, seen, plain["rung"], tuple(plain["denominators"]), tuple(plain["hidden"]), plain["points"]
    )  # fmt: skip


def asked_of(question: Question) -> Asked:
    """A *question*, worked. Raises `CoreError` where it cannot be."""
    worked = explainer_of(question).worked
    working = worked.working
    return Asked(
        question,
        seen_of(worked),
        worked.features.rung,
        tuple(sorted(denominators(working.problem.expr))),
        tuple([one.entry.code for one in worked.likely if one.status == "hidden"]),
        sum(one.points for one in points_of(working, step_keys(working), dict(question.points))),
    )


@lru_cache(maxsize=512)
def explainer_of(question: Question) -> Explainer:
    """What explains the answers to a *question*; they are written with the decimal mark of its ways.

    Raises `CoreError`.
    """
    worked = work_text(question.source, question.ways, question.mark, question.target)
    return Explainer(worked, mark_of(question.ways))


def seen_of(worked: Worked) -> Seen:
    """A worked problem as the model of beliefs sees it; one whose answer is no single number shows nothing."""
    working = worked.working
    if isinstance(working.answer, Equation):
        return Seen(working.value, {}, {}, frozenset())
    reveals = {one.entry.code: one.answer_value for one in worked.likely if one.status == "reveals"}
    forms = {
        one.entry.code: labelled(text(one.wrong.answer), working.answer_label if one.wrong.labelled else None)
        for one in worked.likely
        if one.status == "form"
    }
    wrong = frozenset([slip.value for slip in slips(working)]) - {working.value}
    return Seen(working.value, reveals, forms, wrong)
