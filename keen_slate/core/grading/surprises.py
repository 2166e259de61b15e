"""What a teacher would want to know before she uses a problem, in a sentence each, beside the line that it
comes from.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from ..expressions.tree import Neg, Sum, Whole
from ..judging.misconceptions import LikelyAnswer
from ..limits import MOST_PARTS, TIMES_TABLE
from ..stories.story import story_of
from ..stories.tempting import tempting_word
from ..working.proof import Working
from ..working.step import Step
from ..working.step_kinds import COLUMN_SUBTRACT, COMMON_DENOMINATOR, PUT_SIGN, REGROUP, SUBTRACT_FRACTIONS
from .features import Features

LARGE_DENOMINATOR = 60


class Surprise(NamedTuple):
    """A sentence, and the place (from 0) of the step that it comes from; None where it is told of the problem as a
    whole.
    """

    said: str
    step: int | None = None


def surprises(working: Working, features: Features, likely: list[LikelyAnswer]) -> list[Surprise]:
    """The surprises of a worked problem, the weightiest first; often none."""
    last = len(working.steps) - 1 if working.steps else None
    found: list[Surprise] = []
    if isinstance(working.answer, Neg):
        found.append(Surprise("The answer is below zero.", last))
    elif (dips := _first(working, _falls_below_zero)) is not None:
        found.append(Surprise("Passes below zero on the way, with the method chosen.", dips))
    found += [Surprise(note) for note in working.notes]
    if not working.steps:
        found.append(Surprise("There is nothing to do."))
    if features.regroups:
        times = "" if features.regroups == 1 else f" {features.regroups} times"
        found.append(Surprise(f"Needs <regrouping>{times}.", _first(working, _regroups)))
    found += _about_size(working, features)
    found += _about_words(working)
    if features.whole_answer:
        said = "The answer is a whole number." if working.answer_text[:1] != "0" else "The answer is 0."
        found.append(Surprise(said, last))
    hidden = [item.entry.name for item in likely if item.status == "hidden"]
    found += [Surprise(f"Hides “{name}”: it gives the right answer here.") for name in hidden]
    return found


def _first(working: Working, does: Callable[[Step], bool]) -> int | None:
    return next((i for i, step in enumerate(working.steps) if does(step)), None)


def _falls_below_zero(step: Step) -> bool:
    """Whether a result, or the fraction part in the method chosen, falls below zero in a step."""
    signed = step.kind is PUT_SIGN and step.after != Whole(0)
    return signed or (step.kind is SUBTRACT_FRACTIONS and isinstance(step.after, Sum))


def _regroups(step: Step) -> bool:
    return step.kind in (REGROUP, COLUMN_SUBTRACT)


def _needs_large_fact(step: Step) -> bool:
    return any(max(fact) > TIMES_TABLE and min(fact) > 1 for fact in step.facts)


def _about_words(working: Working) -> list[Surprise]:
    story = story_of(working.problem)
    word = tempting_word(story) if story else None
    if not word:
        return []
    return [Surprise(f"“{word}” stands in it, and it is {'subtracted' if _subtracts(working) else 'added'}.")]


def _subtracts(working: Working) -> bool:
    return isinstance(working.start, Sum) and working.start.rest[0][0] == "-"


def _about_size(working: Working, features: Features) -> list[Surprise]:
    d = features.common_denominator or 1
    made = _first(working, lambda step: step.kind is COMMON_DENOMINATOR)
    found = []
    if d > LARGE_DENOMINATOR:
        found.append(Surprise(f"The <least common denominator> is {d}.", made))
    elif d > MOST_PARTS:
        found.append(Surprise(f"The <least common denominator> is {d}: too many parts for a picture.", made))
    if features.large_facts:
        found.append(Surprise("Needs a multiplication fact beyond 12 × 12.", _first(working, _needs_large_fact)))
    return found
