"""Problems as a table: CSV out, with answers and likely wrong answers; CSV or pasted lines in, each line judged."""

from __future__ import annotations

import re
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Literal

from keen_slate.core.documents.working import answer_text, problem_text, wrong_text
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.ladders.options import copy_key
from keen_slate.core.limits import MOST_LINES
from keen_slate.core.reading.problem import Problem
from keen_slate.core.stories.any_text import read_any
from keen_slate.core.stories.story import story_of
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.worked import Worked, work_text

from .delimited import plain, rows_of, separator_of, written

HEAD = ("number", "problem", "answer", "rung", "likely_wrong_answers")


def table(examples: Sequence[Worked], separator: str = ",") -> str:
    """*examples* as CSV, or parted by tabs: problem, answer, rung, and the likely wrong answers with their names."""
    return written(rows_for(examples), separator)


def rows_for(examples: Sequence[Worked]) -> list[list[object]]:
    """The rows of that table, its head first."""
    rows: list[list[object]] = [list(HEAD)]
    for i, worked in enumerate(examples):
        working = worked.working
        label = working.problem.label
        voice = voice_of(working.ways)
        wrong = [
            f"{wrong_text(one, label, voice)} ({voice.said(one.entry.name)})"
            for one in worked.likely
            if one.status != "hidden"
        ]
        shown = [problem_text(working, voice), answer_text(working, voice), worked.features.rung, "; ".join(wrong)]
        rows.append([i + 1, *shown])
    return rows


@dataclass(frozen=True, slots=True)
class TableLine:
    """A line that was brought: *number* from 1, its *text*, and whether it can be taken; if not, *why*."""

    number: int
    text: str
    verdict: Literal["read", "unreadable", "duplicate"]
    why: str = ""


def judged(brought: str, known: Collection[str], ways: Ways) -> list[TableLine]:
    """Each problem of *brought* (a line each, or CSV with a column called problem), judged; empty lines are left out.

    A copy of a *known* problem or of an earlier line is a duplicate.
    """
    seen = {_copy_key(read_any(problem)) for problem in known}
    lines = []
    for number, typed in _problems(brought):
        try:
            worked = work_text(typed, ways, mark_of(ways))
        except CoreError as error:
            lines.append(TableLine(number, typed, "unreadable", f"{error.message} {error.hint}"))
            continue
        key = _copy_key(worked.working.problem)
        if key in seen:
            lines.append(TableLine(number, typed, "duplicate", "This problem is there already."))
        else:
            lines.append(TableLine(number, typed, "read"))
        seen.add(key)
    return lines


def _copy_key(problem: Problem) -> tuple[object, ...]:
    """The same for copies of a problem; a story is a copy only where it is told with the same words."""
    story = story_of(problem)
    return (*([story.text] if story else []), *copy_key(problem.expr))


def _problems(brought: str) -> list[tuple[int, str]]:
    """Number and text of each line that holds a problem.

    Raises `ReadError` for a table that is none, and for too many lines.
    """
    text = brought.lstrip("\ufeff")
    first = text.partition("\n")[0].split(separator_of(text))
    if "problem" in [plain(name).strip('"').lower() for name in first]:
        (_, head), *rows = rows_of(text)
        column = [plain(name).lower() for name in head].index("problem")
        found = [(number, cells[column] if column < len(cells) else "") for number, cells in rows]
    else:
        found = [(i + 1, line) for i, line in enumerate(text.splitlines())]
    kept = [(number, problem) for number, line in found if (problem := _bare(line))]
    if len(kept) > MOST_LINES:
        raise ReadError(
            f"There are {len(kept)} problems; {MOST_LINES} are taken at once.", 0, 0, "Bring fewer at once."
        )
    return kept


# The number of an exercise before its problem, and an equals sign that waits for the answer.
_NUMBERED = re.compile(r"\(?(?:\d{1,3}|[a-z])(?:\)[.:]?\s*|[.:]\s+)(?=\S)")


def _bare(line: str) -> str:
    """A line without what belongs to the exercise and not to its problem.

    >>> _bare("1) 2/7 + 1/2 ="), _bare("12. 3.5 + 2"), _bare("1.5 + 2"), _bare("b) 7 - 2 1/3")
    ('2/7 + 1/2', '3.5 + 2', '1.5 + 2', '7 - 2 1/3')
    """
    problem = plain(line)
    numbered = _NUMBERED.match(problem)
    return (problem[numbered.end() :] if numbered else problem).removesuffix("=").rstrip()
