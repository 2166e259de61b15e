"""A plan for a story: its situation and its calculations, in the notation of the braces with a mark for each
quantity.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from ..expressions.tree import value
from .clues import Clue


@dataclass(frozen=True, slots=True)
class Plan:
    """A reading: its situation and unknown, and its calculations as they stand in braces; *sure* where the signs leave
    no other.
    """

    situation: str
    unknown: str
    calculations: tuple[str, ...]
    sure: bool = True


def mark_of(one: Clue) -> str:
    """What stands for a quantity in the calculations of a plan."""
    return f"#{one.index}#"


def size_of(one: Clue) -> Fraction:
    """How much a quantity is, in the first unit of its measure."""
    return value(one.quantity.number) * (one.quantity.unit.size if one.quantity.unit else 1)


def terms_of(needed: list[Clue]) -> tuple[list[str], list[str]]:
    """What is added, where counts stand before the size of each: "3 ropes of 5/12 m" is one term; and the calculations
    before.
    """
    terms: list[str] = []
    first: list[str] = []
    i = 0
    while i < len(needed):
        one = needed[i]
        size = needed[i + 1] if i + 1 < len(needed) else None
        if one.quantity.is_count and size is not None and size.quantity.unit and one.quantity.unit is None:
            name = (
                "all groups"
                if not first
                else f"the {('second', 'third', 'fourth', 'fifth', 'sixth')[len(first) - 1]} groups"
            )
            first.append(f"{name} = {mark_of(one)} × {mark_of(size)}")
            terms.append(name)
            i += 2
        else:
            terms.append(mark_of(one))
            i += 1
    return terms, first
