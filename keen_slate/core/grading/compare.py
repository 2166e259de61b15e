"""Other ways: the same problem worked in every way that applies, and what each asks of a pupil."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..expressions.sentences import Rich
from ..expressions.tree import Expr
from ..ways.settings import CODES, NAMES
from ..working.methods import work
from ..working.proof import Working
from .features import features

# The settings that are ways of working a kind of problem, in the order in which they are shown.
COMPARED: dict[str, tuple[str, ...]] = {
    "add-subtract": ("mixed_subtract", "mixed_add", "common_denominator", "spot_wholes", "reduce_first", "simplify"),
    "simplify": ("simplify",),
    "convert": ("simplify",),
    "decimal": ("decimal",),
    "multiply-divide": ("cancel", "simplify"),
    "order": ("mixed_kinds", "simplify"),
    "missing": ("mixed_subtract", "mixed_add", "common_denominator", "simplify", "decimal"),
}


_Shape = list[tuple[str, Expr, tuple[Rich, ...]]]


@dataclass(frozen=True, slots=True)
class OtherWay:
    """One way: the setting and code that make it, and its written steps, largest number and hard facts.

    *largest* is None where the way would meet a number past the limits.
    """

    setting: str
    code: str
    name: str
    current: bool
    steps: int
    largest: int | None
    large_facts: int


def other_ways(here: Working) -> list[OtherWay]:
    """The ways that make a difference to the problem of the working *here*, its own of each setting among them.

    A code whose working is the same as the current one's is left out, and a setting whose codes all are.

    >>> from ..reading.reader import read
    >>> [(way.code, way.steps, way.largest) for way in other_ways(work(read("5/12 + 7/18")))]
    [('list-multiples', 2, 36), ('prime-factors', 2, 36), ('product', 3, 216)]
    """
    shown: list[OtherWay] = []
    shape = _shape(here)
    for setting in COMPARED.get(here.problem.kind, ()):
        rows = [row for code in CODES[setting] if (row := _row(here, shape, setting, code)) is not None]
        if len(rows) > 1:
            shown += rows
    return shown


def _row(here: Working, shape: _Shape, setting: str, code: str) -> OtherWay | None:
    current = getattr(here.ways, setting) == code
    ways = replace(here.ways, **{setting: code})
    there = here if current else work(here.problem, ways)
    if there.ways != ways and not current:
        return OtherWay(setting, code, NAMES[setting, code], False, 0, None, 0)
    if not current and (there.notes or _shape(there) == shape):
        return None
    facts = features(there)
    return OtherWay(setting, code, NAMES[setting, code], current, facts.steps, facts.largest_number, facts.large_facts)


def _shape(working: Working) -> _Shape:
    """What is written, step by step."""
    return [(step.kind, step.after, step.lines) for step in working.steps]
