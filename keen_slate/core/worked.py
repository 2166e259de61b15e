"""From a text to a worked problem with everything that is derived from it: the way through the rooms of the core."""

from __future__ import annotations

from dataclasses import dataclass

from .errors import CoreError
from .expressions.text import DecimalMark
from .expressions.tree import Expr
from .grading.features import Features, features
from .grading.surprises import Surprise, surprises
from .judging.estimate import Estimate, estimate
from .judging.misconceptions import LikelyAnswer, likely_answers
from .reading.problem import Problem
from .stories.reading import read_any
from .ways.settings import Ways
from .ways.voices import mark_of
from .working.methods import work
from .working.methods.missing import more_answers
from .working.methods.single import converting
from .working.proof import Working


@dataclass(frozen=True, slots=True)
class Worked:
    """A working with everything that is derived from it.

    The *features* are those of the default ways, whatever way is shown: a problem is as hard as it is, and a step back on a ladder is
    never one of the way alone. What surprises is told of the way that is shown.
    """

    working: Working
    estimate: Estimate | None
    likely: list[LikelyAnswer]
    features: Features
    noticed: list[Surprise]

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
    """Work a *problem*, and derive everything from its working. Raises `CoreError`."""
    working = work(problem, ways)
    return derived(working, *features_of(working))


def features_of(working: Working) -> tuple[Features, Features]:
    """The features of a problem in the ways of its *working*, and in the default ways."""
    own = features(working)
    return own, _plain_features(working, own)


def derived(working: Working, own: Features, plain: Features) -> Worked:
    """Everything else that is derived from a *working* whose features are known."""
    about = estimate(working)
    likely = likely_answers(working, about)
    return Worked(working, about, likely, plain, surprises(working, own, likely))


def _plain_features(working: Working, own: Features) -> Features:
    """The features of the same problem in the default ways; its *own*, where it is worked so or cannot be."""
    if working.ways.works_like(Ways()):
        return own
    try:
        return features(work(working.problem))
    except CoreError:
        return own


def answers_from(source: str, ways: Ways, start: int, mark: DecimalMark | None = None) -> tuple[Expr, ...]:
    """Further answers of a problem with blank numerators, from number *start* (from 0). Raises `CoreError`.

    >>> from .expressions.text import text
    >>> [text(answer) for answer in answers_from("_/2 + _/3 = 13/6", Ways(), 1)]
    ['3/2 + 2/3 = 13/6']
    """
    problem = read_any(source, mark or mark_of(ways))
    return more_answers(problem, ways, start) if problem.kind == "missing" else ()
