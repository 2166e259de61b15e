"""Marks for a working: points for each step and for the answer, and what loses them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..working.proof import Working

ANSWER = "answer"
MOST_POINTS = 20
# What loses the points of a step, by its kind (common practice); any other kind has the last sentence.
_LOSES = {
    "common-denominator": "Lost where the pieces are not all the same size, or a top is not changed with its bottom.",
    "regroup": "Lost where the whole is not made one less, or the pieces do not grow by as many as one whole has.",
    "rewrite-whole": "Lost where the whole is not written with the pieces that are counted.",
    "to-improper": "Lost where not every whole is cut into pieces, or the pieces there were are left out.",
    "to-mixed": "Lost where the wholes or the pieces left over are not the quotient and the remainder.",
    "carry-whole": "Lost where the whole that was made is not added to the others.",
    "simplify": "Lost where top and bottom are not divided by the same number, or it can still be simplified.",
    "cancel": "Lost where a top and a bottom are not divided by the same number.",
    "turn-over": "Lost where not the second number is turned over.",
    "column-add": "Lost for points that do not stand under each other, or a carry left out.",
    "column-subtract": "Lost for points that do not stand under each other, or an exchange that is not paid.",
    "fill-zeros": "Lost where a zero filled in changes the number.",
    "put-sign": "Lost where the sign is left out.",
}  # fmt: skip
_ELSE = "Lost where this line is missing, or is not equal to the line before."
_FORMS = {
    "simplest-mixed": "a mixed number in lowest terms",
    "simplest-improper": "a fraction in lowest terms",
    "any-equal": "any form of the right value",
}


@dataclass(frozen=True, slots=True)
class Marks:
    """*points* for the step with this *key* (or for the answer), and what *loses* them."""

    key: str
    points: int
    loses: str


def marks(working: Working, keys: list[str], edited: Mapping[str, int]) -> list[Marks]:
    """A mark for each step (by its key, in order) and one for the answer; 1 point each where none was *edited*."""
    of_steps = [
        Marks(key, edited.get(key, 1), _LOSES.get(step.kind, _ELSE))
        for step, key in zip(working.steps, keys, strict=True)
    ]
    return [*of_steps, Marks(ANSWER, edited.get(ANSWER, 1), _loses_answer(working))]


def _loses_answer(working: Working) -> str:
    label = f", and for a missing {working.problem.label}" if working.problem.label else ""
    if working.problem.kind == "decimal":
        return f"Lost for a wrong value{label}."
    return f"Lost for a wrong value, for a form that is not accepted ({_FORMS[working.ways.answer_form]}){label}."
