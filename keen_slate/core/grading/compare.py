"""Other ways: the same problem worked in every way that applies, and what each asks of a pupil."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..expressions.sentences import Rich
from ..expressions.tree import Expr
from ..ways.settings import Setting, compared_in
from ..working.methods import work
from ..working.proof import Working
from ..working.step_kinds import StepKind
from .features import large_facts

_Shape = list[tuple[StepKind, Expr, tuple[Rich, ...]]]


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
    >>> [(way.code, way.steps, way.largest) for way in other_ways(work(read("5/12 + 7/18")))][:3]
    [('list-multiples', 2, 36), ('prime-factors', 2, 36), ('product', 3, 216)]
    """
    shown: list[OtherWay] = []
    shape = _shape(here)
    for setting in _compared(here):
        rows = [row for code in setting.codes if (row := _row(here, shape, setting, code)) is not None]
        if len(rows) > 1:
            shown += rows
    return shown


def _compared(here: Working) -> list[Setting]:
    """The settings that make a difference to a working, or to a part of it."""
    kinds = [part.problem.kind for part in here.parts] or [here.problem.kind]
    return list({one.name: one for kind in kinds for one in compared_in(kind)}.values())


def _row(here: Working, shape: _Shape, setting: Setting, code: str) -> OtherWay | None:
    current = getattr(here.ways, setting.name) == code
    ways = replace(here.ways, **{setting.name: code})
    there = here if current else work(here.problem, ways)
    if there.ways != ways and not current:
        return OtherWay(setting.name, code, setting.codes[code], False, 0, None, 0)
    if not current and (there.notes or _shape(there) == shape):
        return None
    steps, largest = len(there.steps), there.largest_number
    return OtherWay(setting.name, code, setting.codes[code], current, steps, largest, large_facts(there))


def _shape(working: Working) -> _Shape:
    """What is written, step by step."""
    return [(step.kind, step.after, step.lines) for step in working.steps]
