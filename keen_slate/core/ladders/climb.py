"""The climb of a set: what gets harder from one problem to the next, and the order with the fewest changes that climbs."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..grading.rungs import ALL_RUNGS

Mark = Literal["jump", "back"]

_PLACES = {rung: place for place, rung in enumerate(ALL_RUNGS)}
_SUBTRACTED = ("M5", "M6", "M7", "M8", "M9", "M11")
_DIVIDED = ("P4",)
_OF_DECIMALS = ("P5", "P6")
_BESIDE = {"M6", "P2"}  # may be left out: what comes after does not need it (common practice)


def jump_between(before: str | None, after: str | None) -> Mark | None:
    """Say "jump" where a rung of what both are about is skipped, "back" where it goes down there. M6 may also come after M7 to M9.

    >>> jump_between("F1", "F3"), jump_between("F4", "F3"), jump_between("M8", "F6"), jump_between("M5", "M7")
    ('jump', 'back', None, None)
    """
    if before is None or after is None or _about(before) != _about(after):
        return None
    low, high = _PLACES[before], _PLACES[after]
    if high < low:
        return None if after == "M6" and before in ("M7", "M8", "M9") else "back"
    skipped = [
        rung for rung in list(ALL_RUNGS)[low + 1 : high] if _about(rung) == _about(before) and rung not in _BESIDE
    ]
    return "jump" if skipped else None


def _about(rung: str) -> str:
    """What a *rung* is about: its family; of mixed numbers whether they are added or subtracted, of products whether it is one.

    >>> _about("M4"), _about("M5"), _about("P4")
    ('M', 'M-', 'P÷')
    """
    if rung in _SUBTRACTED:
        return "M-"
    return "P÷" if rung in _DIVIDED else "P." if rung in _OF_DECIMALS else rung[0]


def stair(rungs: Sequence[str | None]) -> list[int]:
    """How high each problem of a set stands: its rung counted among those of the set, from 1; where it has none, as its neighbour.

    >>> stair(["M5", "M5", "M7", None, "M6"])
    [1, 1, 3, 3, 2]
    """
    steps = sorted({_PLACES[rung] for rung in rungs if rung is not None})
    return [max(1, bisect_right(steps, height)) for height in _heights(rungs)]


def _heights(rungs: Sequence[str | None]) -> list[int]:
    """The place of each rung among all; what has none stands as its neighbour before it."""
    heights: list[int] = []
    for rung in rungs:
        heights.append(_PLACES[rung] if rung is not None else heights[-1] if heights else 0)
    return heights


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
    heights = _heights(rungs)
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
