"""A likely wrong answer as a pupil's working: full lines, one of which does not follow from the line before.

The pupil works rightly as far as possible; then comes the wrong line, as the misconception makes it. Our own check has
to find that line and no other.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..errors import CoreError
from ..expressions.text import text
from ..expressions.tree import Equation, Expr, Mixed, value
from ..expressions.walks import leaves
from ..judging.misconceptions import LikelyAnswer, likely_answers
from ..reading.problem import problem_of
from ..ways.voices import mark_of
from ..worked import Worked
from ..working.methods import work
from ..working.proof import Working
from .answers import Explainer
from .lines import check_lines


@dataclass(frozen=True, slots=True)
class WrongWorking:
    """The *lines* after the problem, the last of them the answer; number *wrong*, from 0, is the one that does not
    follow.
    """

    lines: tuple[Expr, ...]
    wrong: int


def wrong_working(worked: Worked, likely: LikelyAnswer) -> WrongWorking | None:
    """How a pupil comes to a *likely* wrong answer, line by line; None where no line of it would be found false."""
    working = _calculation(worked.working)
    if working is None or likely.status != "reveals":
        return None
    start = value(working.problem.expr)
    for before, met in _met(working, likely):
        lines = (*before, *met.wrong.via, likely.wrong.answer)
        wrong = next((i for i, line in enumerate(lines) if value(line) != start), None)
        if (
            wrong is not None
            and len(set(lines)) == len(lines)
            and _is_found(worked, found := WrongWorking(lines, wrong))
        ):
            return found
    return None


def _calculation(working: Working) -> Working | None:
    """What is calculated: of a story its one calculation."""
    if isinstance(working.problem.expr, Equation):
        return None
    return working if not working.parts else working.parts[0] if len(working.parts) == 1 else None


def _met(working: Working, likely: LikelyAnswer) -> Iterator[tuple[tuple[Expr, ...], LikelyAnswer]]:
    """Right lines, the most of them first, with the misconception as it is met in the last of them and leads to the
    same answer.
    """
    lines = [step.after for step in working.steps]
    for count in range(len(lines), 0, -1):
        if (met := _in_line(lines[count - 1], working, likely)) is not None:
            yield tuple(lines[:count]), met
    yield (), likely


def _in_line(here: Expr, working: Working, likely: LikelyAnswer) -> LikelyAnswer | None:
    """The misconception, met in the line *here* as if that were the problem, where it gives the same answer."""
    if any(isinstance(n, Mixed) and n.num >= n.den for n in leaves(here)):
        return None  # what is regrouped already is not regrouped in another way
    try:
        from_here = work(problem_of(here), working.ways)
    except CoreError:
        return None
    found = likely_answers(from_here, None, (likely.entry.code,)) if from_here.steps else []
    return next((one for one in found if one.status == "reveals" and one.answer_value == likely.answer_value), None)


def _is_found(worked: Worked, found: WrongWorking) -> bool:
    """Whether our own check finds the wrong line, and no other."""
    mark = mark_of(worked.working.ways)
    written = [text(line) if mark == "." else text(line).replace(".", mark) for line in found.lines]
    checked = check_lines(Explainer(worked, mark), written)
    false = [i for i, one in enumerate(checked.lines) if one.equal is False]
    return checked.first_wrong == found.wrong and false == [found.wrong]
