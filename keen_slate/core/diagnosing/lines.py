"""A pupil's written working, judged line by line."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass
from itertools import pairwise

from ..errors import CoreError
from ..expressions.text import DecimalMark, text
from ..expressions.tree import Equation, Expr, Mixed, value
from ..expressions.walks import children, leaves
from ..limits import PRINTED
from ..reading.problem import Problem, problem_of
from ..reading.reader import read
from ..ways.settings import Ways
from ..worked import Worked, work_out, work_text
from .answers import _NUMBERS, Explainer, VerdictWord
from .threads import Thread, Threads

# A written working ---------------------------------------------------------------------------------------------

_RULE = re.compile(r"[-_—–=]{2,}")  # drawn under the numbers of a column
_SIGNED = re.compile(r"[-+−×*÷x]\s*\S")


@dataclass(frozen=True, slots=True)
class PupilLine:
    """A line of a pupil's working: whether it goes on with the problem, and what is wrong with it.

    *equal* is None where it cannot be read, and where it stands on the *side*: a part of the problem that is worked
    alone, or what is true in itself.
    """

    text: str
    equal: bool | None
    codes: tuple[str, ...]
    faults: tuple[str, ...]
    side: bool = False


@dataclass(frozen=True, slots=True)
class Checked:
    """Every line judged; the first that does not equal the one before; the verdict on what was written *last* of all
    that counts.
    """

    lines: tuple[PupilLine, ...]
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
    """Judges line after line: each goes on with a thread, opens one, joins some, is true in itself, or is wrong."""

    def __init__(self, explainer: Explainer) -> None:
        self.explainer = explainer
        self.worked = explainer.worked
        self.ways = self.worked.working.ways
        self.mark = explainer.mark
        self.threads = Threads(_start(self.worked))
        if not isinstance(self.worked.working.problem.expr, Equation):
            self.threads.learn(self.worked.working.problem.expr)
        self.last = ""
        self.last_aside = ""

    def checked(self, lines: list[str]) -> Checked:
        """All *lines*, judged."""
        written = _in_a_row(lines)
        judged = [self._line(lines[i], written[i], i == len(lines) - 1) for i in range(len(lines))]
        first = next((i for i, line in enumerate(judged) if line.equal is False), None)
        last = self.last or self.last_aside
        return Checked(tuple(judged), first, self.explainer.verdict(last).verdict, last)

    def _line(self, typed: str, line: str | None, is_last: bool) -> PupilLine:
        if line is None:  # a part of a column: the line with its result is judged
            return PupilLine(typed, None, (), (), side=True)
        pieces = [piece.strip() for piece in line.strip().removeprefix("=").split("=")]
        pieces = [piece for piece in pieces if piece != "_"] or pieces
        said = [read_line(piece, self.mark) for piece in pieces]
        faults = _faults(said, is_last)
        if line != typed:  # a column has no equals sign of its own
            faults = tuple([fault for fault in faults if fault != "equals-sign-misused"])
        here = said[-1]
        if here is None:
            return PupilLine(typed, None, (), ("unreadable", *faults))
        known = [one for one in said if one is not None]
        true = len({value(one.expr) for one in known}) == 1
        if value(here.expr) == self.threads.main.value and (true or _runs_on(known)):
            return self._goes_on(typed, known, pieces[-1], faults)
        if not true and line != typed:
            return self._wrong(typed, known, pieces, (), self.threads.main)
        if not true:
            return self._false(typed, known, pieces, faults)
        if len(pieces) > 1 and self._is_filled(known):
            self.last = text(self.worked.working.answer)
            return PupilLine(typed, True, (), faults)
        if self.threads.joined(value(here.expr)):
            return self._goes_on(typed, known, pieces[-1], faults)
        if self._on_the_side(known, is_last):
            self.last_aside = pieces[-1]
            return PupilLine(typed, None, (), faults, side=True)
        return self._wrong(typed, known, pieces, faults, None)

    def _goes_on(self, typed: str, known: list[Problem], last: str, faults: tuple[str, ...]) -> PupilLine:
        """A line that the problem's own thread comes to."""
        main = self.threads.main
        main.written, main.value, self.last = known[-1], value(known[-1].expr), last
        self.threads.learn(*[one.expr for one in known])
        return PupilLine(typed, True, (), faults)

    def _on_the_side(self, known: list[Problem], is_last: bool) -> bool:
        """Whether a true line goes on with a thread on the side, opens one, joins some, or is true in itself."""
        threads, first, here = self.threads, known[0], known[-1]
        thread = threads.continued(value(here.expr))
        leads = (
            (thread is not None and not (thread.own and is_last))
            or threads.leads_to(first.expr)
            or threads.together(first.expr)
        )
        own = len(known) > 1 and not is_last
        is_answer = is_last and len(known) == 1 and not children(here.expr)
        if is_answer:  # it goes on with the problem, or is wrong
            return False
        if not leads and not own:
            return False
        if thread is not None:
            thread.written = here
            threads.touch(thread)
        else:
            threads.open(first, here.expr).own = not leads
        if leads:
            threads.learn(*[one.expr for one in known])
        threads.found(here.expr)
        return True

    def _false(self, typed: str, known: list[Problem], pieces: list[str], faults: tuple[str, ...]) -> PupilLine:
        """A line with an equals sign between what is not equal: the mistake is named between the two, where it is one
        of working.
        """
        k = next(i for i in range(len(known) - 1) if value(known[i].expr) != value(known[i + 1].expr))
        codes = _codes(known[k], pieces[k + 1], self.ways, self.mark) if len(known) == len(pieces) else ()
        begun = value(known[0].expr)
        main = begun == self.threads.main.value
        if not main and not codes and not self.threads.leads_to(known[0].expr):
            return self._wrong(typed, known, pieces, faults, None)
        named = tuple([fault for fault in faults if fault != "equals-sign-misused"]) if codes else faults
        if main:
            return self._wrong(typed, known, pieces, named, self.threads.main, codes)
        thread = next((one for one in self.threads.side if one.value == begun), None) or self.threads.open(
            known[0], known[-1].expr
        )
        return self._wrong(typed, known, pieces, named, thread, codes)

    def _wrong(
        self, typed: str, known: list[Problem], pieces: list[str], faults: tuple[str, ...], thread: Thread | None,
        codes: tuple[str, ...] = (),
    ) -> PupilLine:  # fmt: skip
        """A wrong line, in the *thread* that it goes on with; where that is not clear, in the one that its mistake
        leads from.
        """
        here, threads = known[-1], self.threads
        if thread is None:
            for one in (threads.main, *threads.side):
                codes = _codes(one.written, pieces[-1], self.ways, self.mark)
                if codes:
                    thread = one
                    break
        elif not codes and thread is threads.main:
            codes = _codes(thread.written, pieces[-1], self.ways, self.mark)
        thread = thread or threads.main
        thread.written, thread.value = here, value(here.expr)
        threads.touch(thread)
        threads.learn(here.expr)
        if thread is threads.main:
            self.last = pieces[-1]
        else:
            self.last_aside = pieces[-1]
        return PupilLine(typed, False, codes, faults)

    def _is_filled(self, known: list[Problem]) -> bool:
        """Whether a true line is the whole equation, with the missing number in its place."""
        working = self.worked.working
        if not isinstance(working.problem.expr, Equation) or isinstance(working.answer, Equation):
            return False
        numbers = Counter([value(n) for piece in known for n in leaves(piece.expr)])
        given = [value(n) for n in leaves(working.problem.expr) if isinstance(n, _NUMBERS)]
        return numbers == Counter([*given, working.value])


def _runs_on(known: list[Problem]) -> bool:
    """Whether every equals sign between what is not equal stands before a calculation that begins with what was just
    found.
    """
    for before, after in pairwise(known):
        begins = leaves(after.expr)[0]
        if value(before.expr) != value(after.expr) and not (
            children(after.expr) and value(begins) == value(before.expr)
        ):
            return False
    return True


def _in_a_row(lines: list[str]) -> list[str | None]:
    """Each line as one calculation: numbers under each other, a rule and a result become one, at the place of the
    result.
    """
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


_OVER = re.compile(r"\(([^()]+)\)\s*/\s*(\d+(?![\d/])|\([^()]+\))")  # (5 + 8)/20: over one bar
_LENT = re.compile(r"(?<![\d/.,])(\d+) (\d+ \d+/\d+)")  # 6 1 2/9: a whole is lent, and not cut up yet


def read_line(typed: str, mark: DecimalMark) -> Problem | None:
    """A piece of a working as a problem; None where it cannot be read, or has something missing.

    >>> text(read_line("(5 + 8)/20", ".").expr), text(read_line("6 1 2/9 - 5/9", ".").expr)
    ('(5 + 8) ÷ 20', '(6 + 1 2/9) - 5/9')
    """
    plain = _LENT.sub(r"(\1 + \2)", _OVER.sub(lambda found: f"({found[1]}) ÷ {found[2]}", typed))
    try:
        problem = read(plain, mark, PRINTED)
    except CoreError:
        return None
    if isinstance(problem.expr, Equation) or any(not isinstance(n, _NUMBERS) for n in leaves(problem.expr)):
        return None
    try:
        value(problem.expr)
    except ZeroDivisionError:
        return None
    return problem


def _faults(said: list[Problem | None], is_last: bool) -> tuple[str, ...]:
    """Faults of writing on a line: an equals sign between what is not equal; on the last line, an improper part in a
    mixed number.
    """
    faults = []
    values = [value(piece.expr) for piece in said if piece]
    if len(set(values)) > 1:
        faults.append("equals-sign-misused")
    last = said[-1]
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
    return len(leaves(problem.expr)) > 1


def _codes(before: Problem, typed: str, ways: Ways, mark: DecimalMark) -> tuple[str, ...]:
    """The codes that lead from the line before, read as a problem, to what was typed."""
    try:
        answer = read(typed, mark, PRINTED)
        worked = work_out(problem_of(before.expr), ways)
    except CoreError:
        return ()
    wanted = value(answer.expr)
    return tuple([found.entry.code for found in worked.likely if found.answer_value == wanted])
