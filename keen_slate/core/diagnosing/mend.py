"""What to change: the nearest problem that would show a hidden misconception, or tell two of them apart."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from ..errors import CoreError
from ..expressions.digits import with_digits_changed
from ..expressions.tree import Expr
from ..judging.misconceptions import LikelyAnswer
from ..limits import TYPED
from ..reading.problem import problem_of
from ..searching.deadline import passed
from ..ways.settings import Ways
from ..worked import Worked, work_out

_FARTHEST = 6  # a number is changed by so much at most


def nearest(worked: Worked, code: str, apart_from: str | None = None) -> Worked | None:
    """The problem with the smallest change of one number that reveals *code*, and tells it from *apart_from*.

    A problem on the same rung goes before one on another; None where no change of up to `_FARTHEST` does it,
    or none that is tried before the deadline.
    """
    other_rung = None
    for changed in _changes(worked.working.problem.expr):
        if passed():
            break
        found = _worked(changed, worked.working.ways)
        if found is None or found.working.problem.kind != worked.working.problem.kind:
            continue
        if found.working.value < 0 or not _shows(found.likely, code, apart_from):
            continue
        if found.features.rung == worked.features.rung:
            return found
        other_rung = other_rung or found
    return other_rung


def _changes(expr: Expr) -> Iterator[Expr]:
    """*expr* with one of its numbers changed, the smallest changes first."""
    for size in range(1, _FARTHEST + 1):
        yield from with_digits_changed(expr, partial(_moved, size))


def _moved(size: int, digits: str, after_point: bool) -> Iterator[str]:
    """The number that *digits* spell, *size* more and *size* less; zeros at the front stay after a point."""
    for changed in (int(digits or "0") + size, int(digits or "0") - size):
        if digits and changed > 0:
            yield f"{changed:0{len(digits)}}" if after_point else str(changed)


def _worked(changed: Expr, ways: Ways) -> Worked | None:
    try:
        return work_out(problem_of(changed, limits=TYPED), ways)
    except CoreError:
        return None


def _shows(found: list[LikelyAnswer], code: str, apart_from: str | None) -> bool:
    one = next((f for f in found if f.entry.code == code and f.status == "reveals"), None)
    if one is None:
        return False
    other = next((f for f in found if f.entry.code == apart_from), None)
    return apart_from is None or other is None or other.answer_value != one.answer_value
