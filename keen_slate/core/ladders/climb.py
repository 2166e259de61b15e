"""The climb of a set: what gets harder from one problem to the next, and the order with the fewest changes that
climbs.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..grading.footing import Footing, rungs_about
from ..grading.rungs import ALL_RUNGS

Mark = Literal["jump", "back"]

_PLACES = {rung: place for place, rung in enumerate(ALL_RUNGS)}
_MAY_BE_LEFT_OUT = {"M6", "P2", "F7"}  # what comes after does not need it (common practice)
# May stand before or after these: each needs only what comes before them all.
_IN_ANY_ORDER = {"M6": {"M7", "M8", "M9"}, "F7": {"F4", "F5", "F6", "F8", "F9"}}


def jump_between(before: Footing | None, after: Footing | None) -> Mark | None:
    """Say "jump" where a rung of what both are about is skipped, "back" where it goes down there. Rungs in any order
    have no mark.

    >>> def mark(*rungs): return jump_between(*[Footing(rung, rung[0]) for rung in rungs])
    >>> mark("F1", "F3"), mark("F4", "F3"), mark("M8", "F6"), mark("F6", "F7"), mark("F3", "F7"), mark("F7", "F4")
    ('jump', 'back', None, None, None, None)

    Where more is exchanged it is no step back.

    >>> [jump_between(Footing("D4", "D-", 1), Footing("D2", "D-", exchanges)) for exchanges in (3, 1)]
    [None, 'back']
    """
    if before is None or after is None or before.about != after.about:
        return None
    low, high = _PLACES[before.rung], _PLACES[after.rung]
    free = _IN_ANY_ORDER.get(after.rung, set())
    if high < low:
        harder = after.exchanges > before.exchanges and after.about[0] == "D"
        return None if before.rung in free or after.rung in _IN_ANY_ORDER.get(before.rung, ()) or harder else "back"
    between = [rung for rung in rungs_about(before.about) if low < _PLACES[rung] < high]
    return "jump" if set(between) - _MAY_BE_LEFT_OUT - free else None


def stair(rungs: Sequence[str | None]) -> list[int]:
    """How high each problem of a set stands: its rung counted among those of the set, from 1; where it has none, as its
    neighbour.

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
    """The order of problems on *rungs* that climbs, with the fewest moved; what stands on no rung stays behind its
    neighbour.

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
