"""A pupil's written working, judged line by line."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass
from fractions import Fraction

from ..errors import CoreError
from ..expressions.text import DecimalMark, text
from ..expressions.tree import Equation, Expr, Frac, Mixed, value
from ..expressions.walks import leaves
from ..limits import PRINTED
from ..reading.problem import Problem, problem_of
from ..reading.reader import read
from ..ways.settings import Ways
from ..worked import Worked, work_out, work_text
from .answers import _NUMBERS, Explainer, VerdictWord

# A written working ---------------------------------------------------------------------------------------------

_RULE = re.compile(r"[-_—–=]{2,}")  # drawn under the numbers of a column
_SIGNED = re.compile(r"[-+−×*÷x]\s*\S")


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a pupil's working: whether it equals the line before, and what is wrong with it.

    *equal* is None where it cannot be read, and where it stands on the *side*: a calculation that is true in itself, and used later.
    """

    text: str
    equal: bool | None
    codes: tuple[str, ...]
    faults: tuple[str, ...]
    side: bool = False


@dataclass(frozen=True, slots=True)
class Checked:
    """Every line judged; the first that does not equal the one before; the verdict on what was written *last* of all that counts."""

    lines: tuple[Line, ...]
    first_wrong: int | None
    answer: VerdictWord
    last: str


def check(source: str, lines: list[str], ways: Ways | None = None, mark: DecimalMark = ".") -> Checked:
    """Judge a written working line by line. Raises `CoreError` where the problem cannot be read or worked.

    >>> check("1/2 + 1/3", ["3/6 + 2/6", "5/12"]).first_wrong
    1
    >>> [line.side for line in check("2 1/4 + 3 1/2", ["1/4 + 1/2 = 3/4", "5 3/4"]).lines]
    [True, False]
    """
    return check_lines(Explainer(work_text(source, ways or Ways(), mark), mark), lines)


def check_lines(explainer: Explainer, lines: list[str]) -> Checked:
    """Judge the written working of a problem that *explainer* stands for, line by line."""
    return _Checker(explainer).checked(lines)


class _Checker:
    """Judges line after line; *before* is what the next one has to equal, *last* what was written last of all that counts."""

    def __init__(self, explainer: Explainer) -> None:
        self.explainer = explainer
        self.worked = explainer.worked
        self.ways = self.worked.working.ways
        self.mark = explainer.mark
        self.before = _start(self.worked)
        self.last = ""

    def checked(self, lines: list[str]) -> Checked:
        """All *lines*, judged."""
        written = _in_a_row(lines)
        judged = [self._line(lines[i], written, i) for i in range(len(lines))]
        first = next((i for i, line in enumerate(judged) if line.equal is False), None)
        return Checked(tuple(judged), first, self.explainer.verdict(self.last).verdict, self.last)

    def _line(self, typed: str, written: list[str | None], i: int) -> Line:
        line = written[i]
        if line is None:  # a part of a column: the line with its result is judged
            return Line(typed, None, (), (), side=True)
        pieces = [piece.strip() for piece in line.strip().removeprefix("=").split("=")]
        pieces = [piece for piece in pieces if piece != "_"] or pieces
        faults = _faults(pieces, self.mark, is_last=i == len(written) - 1)
        here = _read_line(pieces[-1], self.mark)
        if here is None:
            return Line(typed, None, (), ("unreadable", *faults))
        true = len(pieces) > 1 and "equals-sign-misused" not in faults
        in_column = line != typed
        if in_column:
            faults = tuple([fault for fault in faults if fault != "equals-sign-misused"])
        if value(here.expr) == value(self.before.expr):
            self.before, self.last = here, pieces[-1]
            return Line(typed, True, (), faults)
        if true and self._is_filled(pieces):
            self.last = text(self.worked.working.answer)
            return Line(typed, True, (), faults)
        if true and self._is_used(here, [later for later in written[i + 1 :] if later]):
            return Line(typed, None, (), faults, side=True)
        codes = _codes(self.before, pieces[-1], self.ways, self.mark)
        self.before, self.last = here, pieces[-1]
        return Line(typed, False, codes, faults)

    def _is_filled(self, pieces: list[str]) -> bool:
        """Whether a true line is the whole equation, with the missing number in its place."""
        working = self.worked.working
        if not isinstance(working.problem.expr, Equation) or isinstance(working.answer, Equation):
            return False
        read_pieces = [_read_line(piece, self.mark) for piece in pieces]
        numbers = Counter([value(n) for piece in read_pieces if piece for n in leaves(piece.expr)])
        given = [value(n) for n in leaves(working.problem.expr) if isinstance(n, _NUMBERS)]
        return numbers == Counter([*given, working.value])

    def _is_used(self, result: Problem, later: list[str]) -> bool:
        """Whether the number that a calculation on the side ends in stands in a *later* line, or is a part of a number there."""
        wanted = value(result.expr)
        found = [_read_line(piece.strip(), self.mark) for line in later for piece in line.split("=") if piece.strip()]
        return any(wanted in _parts(number) for problem in found if problem for number in leaves(problem.expr))


def _parts(number: Expr) -> set[Fraction]:
    """The values that can be seen in a written *number*: itself, its whole, its fraction, its numerator and denominator."""
    seen = {value(number)}
    if isinstance(number, Mixed):
        seen |= {Fraction(number.whole), Fraction(number.num, number.den)}
    if isinstance(number, (Frac, Mixed)):
        seen |= {Fraction(number.num), Fraction(number.den)}
    return seen


def _in_a_row(lines: list[str]) -> list[str | None]:
    """Each line as one calculation: numbers under each other, a rule and a result become one, at the place of the result."""
    written: list[str | None] = list(lines)
    for i, line in enumerate(lines):
        if not _RULE.fullmatch(line.strip()) or i + 1 == len(lines):
            continue
        first = i - 1
        while first >= 0 and _SIGNED.match(lines[first].strip()):
            first -= 1
        if 0 <= first < i - 1:
            column = " ".join([_spaced(one.strip()) for one in lines[first:i]])
            written[first : i + 1] = [None] * (i + 1 - first)
            written[i + 1] = f"{column} = {lines[i + 1].strip().removeprefix('=')}"
    return written


def _spaced(line: str) -> str:
    """A line of a column with room around its operator."""
    return f"{line[0]} {line[1:].strip()}" if _SIGNED.match(line) else line


def _start(worked: Worked) -> Problem:
    """What the first line has to equal: the problem; where a number is missing, what gives it, or the filled side."""
    working, problem = worked.working, worked.working.problem
    if not isinstance(problem.expr, Equation):
        return problem
    found = working.inverse or (working.filled or problem.expr).sides[0]
    return Problem(found, problem.label, "add-subtract")


def _read_line(typed: str, mark: DecimalMark) -> Problem | None:
    try:
        problem = read(typed, mark, PRINTED)
    except CoreError:
        return None
    if isinstance(problem.expr, Equation) or any(not isinstance(n, _NUMBERS) for n in leaves(problem.expr)):
        return None
    return problem


def _faults(pieces: list[str], mark: DecimalMark, is_last: bool) -> tuple[str, ...]:
    """Faults of writing on a line: an equals sign between what is not equal; on the last line, an improper part in a mixed number."""
    faults = []
    read_pieces = [_read_line(piece, mark) for piece in pieces]
    values = [value(piece.expr) for piece in read_pieces if piece]
    if len(set(values)) > 1:
        faults.append("equals-sign-misused")
    last = read_pieces[-1]
    if (
        is_last
        and last is not None
        and any(_has_improper_part(number) for number in leaves(last.expr))
        and not _is_sum(last)
    ):
        faults.append("improper-part")
    return tuple(dict.fromkeys(faults))


def _has_improper_part(number: Expr) -> bool:
    return isinstance(number, Mixed) and number.num >= number.den


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
