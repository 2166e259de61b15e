"""The climb of a set: what gets harder from one problem to the next, and the order with the fewest changes that climbs."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..grading.rungs import RUNGS

Mark = Literal["jump", "back"]

_PLACES = {rung: place for place, rung in enumerate(RUNGS)}


def jump_between(before: str | None, after: str | None) -> Mark | None:
    """Say "jump" where a rung is skipped or a new family begins past its second rung, "back" where the ladder goes down.

    >>> jump_between("F1", "F3"), jump_between("F4", "F3"), jump_between("F6", "M1"), jump_between("F6", "M8")
    ('jump', 'back', None, 'jump')
    """
    if before is None or after is None:
        return None
    up = _PLACES[after] - _PLACES[before]
    if up < 0:
        return "back"
    if before[0] == after[0]:
        return "jump" if up > 1 else None
    return "jump" if int(after[1:]) > 2 else None


@dataclass(frozen=True, slots=True)
class Climb:
    """An *order* (places in the set as it is) that never steps back, and which problems it *moves*."""

    order: tuple[int, ...]
    moves: tuple[int, ...]


def climb(rungs: Sequence[str | None]) -> Climb:
    """The order of problems on *rungs* that climbs, with the fewest moved; what stands on no rung stays behind its neighbour.

    The problems that stay are a longest run of rungs that do not fall.

    >>> climb(["F1", "M1", "F2", "F3"])
    Climb(order=(0, 2, 3, 1), moves=(1,))
    """
    heights: list[int] = []
    for rung in rungs:
        heights.append(_PLACES[rung] if rung is not None else heights[-1] if heights else 0)
    order = sorted(range(len(heights)), key=lambda at: (heights[at], at))
    staying = _longest_climb(heights)
    return Climb(tuple(order), tuple([at for at in range(len(heights)) if at not in staying]))


def _longest_climb(heights: Sequence[int]) -> set[int]:
    """The places of a longest part of *heights* that never falls."""
    ends: list[int] = []  # place of the lowest end of a climb of each length
    before: list[int | None] = []
    for at, height in enumerate(heights):
        length = bisect_right([heights[end] for end in ends], height)
        before.append(ends[length - 1] if length else None)
        ends[length : length + 1] = [at]
    staying: set[int] = set()
    here = ends[-1] if ends else None
    while here is not None:
        staying.add(here)
        here = before[here]
    return staying
