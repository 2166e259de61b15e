"""The fewest problems that together do everything that is wanted; whether that is proven."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby

from .deadline import passed

_MOST_NODES = 150_000  # after so many tries a smaller set is no longer looked for


@dataclass(frozen=True, slots=True)
class Cover:
    """Which masks to take (their places in what was given), and whether no fewer would do."""

    chosen: tuple[int, ...]
    fewest: bool


def fewest(masks: Sequence[int], wanted: int) -> Cover:
    """The fewest *masks* whose bits hold as much of *wanted* as all of them do.

    Deepening search, as far as the deadline: for the bit that the fewest masks have, each of these is tried; a mask
    within another is never needed.

    >>> fewest([0b001, 0b011, 0b110, 0b100], 0b111)
    Cover(chosen=(1, 2), fewest=True)
    """
    reachable = 0
    for mask in masks:
        reachable |= mask & wanted
    useful = _undominated(masks, reachable)
    greedy = _greedy(useful, reachable)
    if passed():
        return Cover(tuple(greedy), False)
    nodes = [_MOST_NODES]
    for size in range(len(greedy)):
        found = _search(useful, reachable, size, nodes)
        if found is not None:
            return Cover(tuple(found), True)
        if nodes[0] <= 0:
            return Cover(tuple(greedy), False)
    return Cover(tuple(greedy), True)


def _undominated(masks: Sequence[int], wanted: int) -> list[tuple[int, int]]:
    """Masks (with their places) that are not within another one; the first of equal ones."""
    first: dict[int, int] = {}
    for i, mask in enumerate(masks):
        if mask & wanted:
            first.setdefault(mask & wanted, i)
    ordered = sorted(first, key=lambda mask: -mask.bit_count())
    kept: list[int] = []
    for _, same_size in groupby(ordered, key=int.bit_count):
        kept += [mask for mask in list(same_size) if not any(mask & other == mask for other in kept)]
    return [(mask, first[mask]) for mask in kept]


def _greedy(useful: list[tuple[int, int]], wanted: int) -> list[int]:
    chosen = []
    while wanted:
        mask, place = max(useful, key=lambda one: (one[0] & wanted).bit_count())
        chosen.append(place)
        wanted &= ~mask
    return chosen


def _search(useful: list[tuple[int, int]], left: int, size: int, nodes: list[int]) -> list[int] | None:
    """At most *size* places that cover the bits *left*, or None; *nodes* is what may still be tried."""
    if not left:
        return []
    nodes[0] -= 1
    if passed():
        nodes[0] = 0
    if size == 0 or nodes[0] <= 0:
        return None
    most = max([(mask & left).bit_count() for mask, _ in useful], default=0)
    if most * size < left.bit_count():
        return None
    for mask, place in _of_rarest_bit(useful, left):
        found = _search(useful, left & ~mask, size - 1, nodes)
        if found is not None:
            return [place, *found]
    return None


def _of_rarest_bit(useful: list[tuple[int, int]], left: int) -> list[tuple[int, int]]:
    best: list[tuple[int, int]] | None = None
    bits = left
    while bits:
        bit = bits & -bits
        having = [one for one in useful if one[0] & bit]
        if best is None or len(having) < len(best):
            best = having
        if len(having) < 2:
            break
        bits ^= bit
    return sorted(best or [], key=lambda one: -(one[0] & left).bit_count())
