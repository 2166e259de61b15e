"""From a text to a worked problem with everything that is derived from it: the way through the rooms of the core."""

from __future__ import annotations

from functools import cached_property

from .errors import CoreError
from .expressions.text import DecimalMark
from .expressions.tree import Expr
from .grading.features import Features, features
from .grading.surprises import Surprise, surprises
from .judging.estimate import Estimate, estimate
from .judging.misconceptions import LikelyAnswer, likely_answers
from .reading.problem import Problem
from .stories.any_text import read_any
from .ways.settings import Ways
from .ways.voices import mark_of
from .working.methods import work
from .working.methods.missing import more_answers
from .working.methods.single import converting
from .working.proof import Working


class Worked:
    """A working with everything that is derived from it, each when it is first asked for."""

    def __init__(self, working: Working) -> None:
        self.working = working

    @cached_property
    def estimate(self) -> Estimate | None:
        """What the answer is about; None where nothing is estimated."""
        return estimate(self.working)

    @cached_property
    def likely(self) -> list[LikelyAnswer]:
        """What pupils are likely to write wrongly."""
        return likely_answers(self.working, self.estimate)

    @cached_property
    def features(self) -> Features:
        """The features in the default ways, whatever way is shown.

        A problem is as hard as it is, and a step back on a ladder is never one of the way alone.
        """
        if self.working.ways.works_like(Ways()):
            return self._own_features
        try:
            return features(work(self.working.problem))
        except CoreError:
            return self._own_features

    @cached_property
    def _own_features(self) -> Features:
        return features(self.working)

    @cached_property
    def noticed(self) -> list[Surprise]:
        """What surprises in the way that is shown."""
        return surprises(self.working, self._own_features, self.likely)

    @property
    def surprises(self) -> list[str]:
        """What surprises, in sentences."""
        return [one.said for one in self.noticed]


def work_text(
    source: str, ways: Ways | None = None, mark: DecimalMark | None = None, target: str | None = None
) -> Worked:
    """Read *source* and work it in *ways*; with a *target*, convert it to that form. Raises `CoreError`.

    The decimal *mark* is that of the *ways*, unless one is given (stored texts have a point).

    >>> work_text("1/2 + 1/3").working.answer_text
    '5/6'
    """
    ways = ways or Ways()
    problem = read_any(source, mark or mark_of(ways))
    return work_out(converting(problem, target) if target else problem, ways)


def work_out(problem: Problem, ways: Ways) -> Worked:
    """Work a *problem*. Raises `CoreError`."""
    return Worked(work(problem, ways))


def answers_from(source: str, ways: Ways, start: int, mark: DecimalMark | None = None) -> tuple[Expr, ...]:
    """Further answers of a problem with blank numerators, from number *start* (from 0). Raises `CoreError`.

    >>> from .expressions.text import text
    >>> [text(answer) for answer in answers_from("_/2 + _/3 = 13/6", Ways(), 1)]
    ['3/2 + 2/3 = 13/6']
    """
    problem = read_any(source, mark or mark_of(ways))
    return more_answers(problem, ways, start) if problem.kind == "missing" else ()
