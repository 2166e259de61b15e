"""A pupil's written working, judged line by line."""

from __future__ import annotations

from dataclasses import dataclass

from ..errors import CoreError
from ..expressions.text import DecimalMark
from ..expressions.tree import Equation, Mixed, value
from ..expressions.walks import leaves
from ..limits import PRINTED
from ..reading.problem import Problem, problem_of
from ..reading.reader import read
from ..ways.settings import Ways
from ..worked import Worked, work_out, work_text
from .answers import _NUMBERS, VerdictWord, diagnose

# A written working ---------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a pupil's working: whether it equals the line before (None where it cannot be read), and what is wrong."""

    text: str
    equal: bool | None
    codes: tuple[str, ...]
    faults: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Checked:
    """Every line judged; the first that does not equal the one before; the verdict on the last line's last number."""

    lines: tuple[Line, ...]
    first_wrong: int | None
    answer: VerdictWord


def check(source: str, lines: list[str], ways: Ways | None = None, mark: DecimalMark = ".") -> Checked:
    """Judge a written working line by line. Raises `CoreError` where the problem cannot be read or worked.

    >>> check("1/2 + 1/3", ["3/6 + 2/6", "5/12"]).first_wrong
    1
    """
    ways = ways or Ways()
    before = _start(work_text(source, ways, mark))
    judged: list[Line] = []
    last = ""
    for typed in lines:
        pieces = [piece.strip() for piece in typed.strip().removeprefix("=").split("=")]
        faults = _faults(before, pieces, mark)
        here = _read_line(pieces[-1], mark)
        if here is None:
            judged.append(Line(typed, None, (), ("unreadable", *faults)))
            continue
        equal = value(here.expr) == value(before.expr)
        codes: tuple[str, ...] = ()
        if not equal:
            codes = _codes(before, pieces[-1], ways, mark)
        judged.append(Line(typed, equal, codes, faults))
        before, last = here, pieces[-1]
    first = next((i for i, line in enumerate(judged) if line.equal is False), None)
    return Checked(tuple(judged), first, diagnose(source, last, ways, mark).verdict)


def _start(worked: Worked) -> Problem:
    """What the first line has to equal: the problem; where a number is missing, what gives it, or the filled side."""
    working, problem = worked.working, worked.working.problem
    if not isinstance(problem.expr, Equation):
        return problem
    found = (
        working.filled.sides[0] if isinstance(working.answer, Equation) and working.filled else working.steps[0].after
    )
    return Problem(found, problem.label, "add-subtract")


def _read_line(typed: str, mark: DecimalMark) -> Problem | None:
    try:
        problem = read(typed, mark, PRINTED)
    except CoreError:
        return None
    if isinstance(problem.expr, Equation) or any(not isinstance(n, _NUMBERS) for n in leaves(problem.expr)):
        return None
    return problem


def _faults(before: Problem, pieces: list[str], mark: DecimalMark) -> tuple[str, ...]:
    """Faults of writing on a line: an equals sign between what is not equal, an improper part left in a mixed number."""
    faults = []
    read_pieces = [_read_line(piece, mark) for piece in pieces]
    values = [value(piece.expr) for piece in read_pieces if piece]
    if len(set(values)) > 1:
        faults.append("equals-sign-misused")
    last = read_pieces[-1]
    if last is not None:
        for number in leaves(last.expr):
            if isinstance(number, Mixed) and number.num >= number.den and not _is_sum(last):
                faults.append("improper-part")
    return tuple(dict.fromkeys(faults))


def _is_sum(problem: Problem) -> bool:
    return len(list(leaves(problem.expr))) > 1


def _codes(before: Problem, typed: str, ways: Ways, mark: DecimalMark) -> tuple[str, ...]:
    """The codes that lead from the line before, read as a problem, to what was typed."""
    try:
        answer = read(typed, mark, PRINTED)
        worked = work_out(problem_of(before.expr), ways)
    except CoreError:
        return ()
    wanted = value(answer.expr)
    return tuple([found.entry.code for found in worked.likely if found.answer_value == wanted])
