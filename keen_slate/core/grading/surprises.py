"""What a teacher would want to know before she uses a problem, in a sentence each."""

from __future__ import annotations

from ..expressions.tree import Neg, Sum, Whole
from ..judging.misconceptions import LikelyAnswer
from ..limits import MOST_PARTS
from ..stories.story import story_of
from ..stories.tempting import tempting_word
from ..working.proof import Working
from ..working.step import Step
from ..working.step_kinds import PUT_SIGN, SUBTRACT_FRACTIONS
from .features import Features

LARGE_DENOMINATOR = 60


def surprises(working: Working, features: Features, likely: list[LikelyAnswer]) -> list[str]:
    """The surprises of a worked problem, the weightiest first; often none."""
    said: list[str] = []
    if isinstance(working.answer, Neg):
        said.append("The answer is below zero.")
    elif _dips_below_zero(working):
        said.append("Passes below zero on the way, with the method chosen.")
    said += working.notes
    if not working.steps:
        said.append("There is nothing to do.")
    if features.regroups:
        said.append(
            "Needs <regrouping>." if features.regroups == 1 else f"Needs <regrouping> {features.regroups} times."
        )
    said += _about_size(features)
    said += _about_words(working)
    if features.whole_answer:
        said.append("The answer is a whole number." if working.answer_text[:1] != "0" else "The answer is 0.")
    hidden = [item.entry.name for item in likely if item.status == "hidden"]
    said += [f"Hides “{name}”: it gives the right answer here." for name in hidden]
    return said


def _dips_below_zero(working: Working) -> bool:
    """Whether a result, or the fraction part in the method chosen, falls below zero on the way."""
    return any(_falls_below_zero(step) for step in working.steps)


def _falls_below_zero(step: Step) -> bool:
    signed = step.kind is PUT_SIGN and step.after != Whole(0)
    return signed or (step.kind is SUBTRACT_FRACTIONS and isinstance(step.after, Sum))


def _about_words(working: Working) -> list[str]:
    story = story_of(working.problem)
    word = tempting_word(story) if story else None
    return [f"“{word}” stands in it, and it is {'subtracted' if _subtracts(working) else 'added'}."] if word else []


def _subtracts(working: Working) -> bool:
    return isinstance(working.start, Sum) and working.start.rest[0][0] == "-"


def _about_size(features: Features) -> list[str]:
    d = features.common_denominator or 1
    said = []
    if d > LARGE_DENOMINATOR:
        said.append(f"The <least common denominator> is {d}.")
    elif d > MOST_PARTS:
        said.append(f"The <least common denominator> is {d}: too many parts for a picture.")
    if features.large_facts:
        said.append("Needs a multiplication fact beyond 12 × 12.")
    return said
