"""Whether the answer of a story can be: nothing is below nothing, people and things come whole, a part is not more than
its whole.
"""

from __future__ import annotations

from fractions import Fraction

from ..errors import ReadError
from ..expressions.text import text as write
from ..expressions.tree import Neg, mixed, value
from ..reading.measures import unit_named
from .story import Story
from .words import words_of

# Things that are not cut, told by their words; the others may be shared in pieces.
_WHOLE_ONES = words_of(
    "child children pupil pupils person people boy boys girl girls student students teacher teachers friend friends "
    "bird birds walker walkers "
    "visitor visitors helper helpers member members volunteer volunteers players player listeners listener readers "
    "reader"
)


def refuse_impossible(story: Story) -> None:
    """Raise `ReadError` where a step of *story* finds what cannot be."""
    found: list[Fraction] = []
    start, end = story.question
    for i, step in enumerate(story.steps):
        try:
            number = value(story.filled(i, [mixed(one) for one in found]))
        except ZeroDivisionError:
            raise ReadError(
                "This divides by 0, which has no answer.", start, end - start, "Change the number."
            ) from None
        shown = f"{write(mixed(number))} {step.label or ''}".strip()
        cold = any(isinstance(one.number, Neg) for one in story.quantities) or _measure(step.label) == "temperature"
        if number < 0 and not cold:
            said = "A length" if _measure(step.label) == "length" else "An amount"
            raise ReadError(
                f"{said} is not below zero, and {step.finds} would be {shown}.",
                start,
                end - start,
                "Change a number, or the order in which they are subtracted.",
            )
        if i == len(story.steps) - 1 and step.label in _WHOLE_ONES and number.denominator != 1:
            raise ReadError(
                f"There cannot be {shown}.", start, end - start, "Change a number so that the answer is whole."
            )
        found.append(number)


def _measure(label: str | None) -> str | None:
    unit = unit_named(label) if label else None
    return unit.measure if unit else None
