"""The points that a working is worth: for each step and for the answer, and what loses them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from ..expressions.voice import Voice
from ..working.proof import Working

ANSWER = "answer"
_FORMS = {
    "simplest-mixed": "a <mixed number> in <lowest terms>",
    "simplest-improper": "a fraction in <lowest terms>",
    "any-equal": "any form of the right value",
    "mixed-as-left": "a <mixed number> with a proper fraction",
}


@dataclass(frozen=True, slots=True)
class Points:
    """*points* for the step with this *key* (or for the answer), and what *loses* them."""

    key: str
    points: int
    loses: str

    def said(self, voice: Voice) -> Points:
        """The same, what loses them in the class's words."""
        return replace(self, loses=voice.said(self.loses))


def points_of(working: Working, keys: list[str], edited: Mapping[str, int]) -> list[Points]:
    """The points of each step (by its key, in order) and of the answer; 1 each where none were *edited*."""
    of_steps = [Points(key, edited.get(key, 1), step.kind.loses) for step, key in zip(working.steps, keys, strict=True)]
    return [*of_steps, Points(ANSWER, edited.get(ANSWER, 1), _loses_answer(working))]


def _loses_answer(working: Working) -> str:
    label = f", and for a missing {working.problem.label}" if working.problem.label else ""
    if working.ending.problem.kind in ("decimal", "equivalent"):  # of these any form stands
        return f"Lost for a wrong value{label}."
    return f"Lost for a wrong value, for a form that is not accepted ({_FORMS[working.ways.answer_form]}){label}."
