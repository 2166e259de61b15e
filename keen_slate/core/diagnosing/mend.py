"""What to change: the nearest problem that would show a hidden misconception, or tell two of them apart."""

from __future__ import annotations

import re
from collections.abc import Iterator

from ..errors import CoreError
from ..expressions.text import text
from ..judging.misconceptions import Found
from ..searching.deadline import passed
from ..ways.settings import Ways
from ..worked import Worked, work_text

_NUMBER = re.compile(r"\d+")
_FARTHEST = 6  # a number is changed by so much at most


def nearest(worked: Worked, code: str, apart_from: str | None = None) -> Worked | None:
    """The problem with the smallest change of one number that reveals *code*, and tells it from *apart_from*.

    A problem on the same rung goes before one on another; None where no change of up to `_FARTHEST` does it,
    or none that is tried before the deadline.
    """
    other_rung = None
    for changed in _changes(text(worked.working.problem.expr)):
        if passed():
            break
        found = _worked(changed, worked.working.ways)
        if found is None or found.working.problem.kind != worked.working.problem.kind:
            continue
        if found.working.value < 0 or not _shows(found.found, code, apart_from):
            continue
        if found.features.rung == worked.features.rung:
            return found
        other_rung = other_rung or found
    return other_rung


def _changes(written: str) -> Iterator[str]:
    """*written* with one of its numbers changed, the smallest changes first."""
    numbers = list(_NUMBER.finditer(written))
    for size in range(1, _FARTHEST + 1):
        for number in numbers:
            for changed in (int(number.group()) + size, int(number.group()) - size):
                if changed > 0:
                    places = len(number.group()) if written[number.start() - 1 : number.start()] == "." else 0
                    yield f"{written[: number.start()]}{changed:0{places}}{written[number.end() :]}"


def _worked(written: str, ways: Ways) -> Worked | None:
    try:
        return work_text(written, ways, ".")
    except CoreError:
        return None


def _shows(found: list[Found], code: str, apart_from: str | None) -> bool:
    one = next((f for f in found if f.entry.code == code and f.status == "reveals"), None)
    if one is None:
        return False
    other = next((f for f in found if f.entry.code == apart_from), None)
    return apart_from is None or other is None or other.answer_value != one.answer_value
