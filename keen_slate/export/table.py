"""Problems as a table: CSV out, with answers and likely wrong answers; CSV or pasted lines in, each line judged."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from keen_slate.core.documents.working import answer_text, problem_text, wrong_text
from keen_slate.core.errors import CoreError
from keen_slate.core.ladders.options import copy_key
from keen_slate.core.limits import MOST_LINES
from keen_slate.core.reading.problem import Problem
from keen_slate.core.stories.reading import read_any
from keen_slate.core.stories.story import story_of
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.worked import Worked, work_text

HEAD = ("number", "problem", "answer", "rung", "likely_wrong_answers")
# A cell may be as long as what is brought; what is too long for a problem is refused as one, in words.
csv.field_size_limit(1_000_000)
# A spreadsheet would take a cell that begins so for a formula; an apostrophe before it makes it text.
_FORMULA = ("=", "+", "-", "@", "\t", "\r", "'")


def table(examples: Sequence[Worked]) -> str:
    """The CSV of *examples*: problem, answer, rung, and the likely wrong answers with their names."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(HEAD)
    for i, worked in enumerate(examples):
        working = worked.working
        label = working.problem.label
        voice = voice_of(working.ways)
        wrong = [
            f"{wrong_text(one, label, voice)} ({voice.said(one.entry.name)})"
            for one in worked.likely
            if one.status != "hidden"
        ]
        cells = (
            problem_text(working, voice),
            answer_text(working, voice),
            worked.features.rung or "",
            "; ".join(wrong),
        )
        rows.writerow([i + 1, *map(as_text, cells)])
    return out.getvalue()


def as_text(cell: str) -> str:
    """A cell that a spreadsheet takes for text, whatever it begins with."""
    return f"'{cell}" if cell.startswith(_FORMULA) else cell


@dataclass(frozen=True, slots=True)
class Line:
    """A line that was brought: *number* from 1, its *text*, and whether it can be taken; if not, *why*."""

    number: int
    text: str
    verdict: Literal["read", "unreadable", "duplicate"]
    why: str = ""


def judged(brought: str, known: Collection[str], ways: Ways) -> list[Line]:
    """Each problem of *brought* (a line each, or CSV with a column called problem), judged; empty lines are left out.

    A copy of a *known* problem or of an earlier line is a duplicate.
    """
    seen = {_copy_key(read_any(problem)) for problem in known}
    lines = []
    for number, written in _problems(brought):
        try:
            worked = work_text(written, ways, mark_of(ways))
        except CoreError as error:
            lines.append(Line(number, written, "unreadable", f"{error.message} {error.hint}"))
            continue
        key = _copy_key(worked.working.problem)
        if key in seen:
            lines.append(Line(number, written, "duplicate", "This problem is there already."))
        else:
            lines.append(Line(number, written, "read"))
        seen.add(key)
    return lines


def _copy_key(problem: Problem) -> tuple[object, ...]:
    """The same for copies of a problem; a story is a copy only where it is told with the same words."""
    story = story_of(problem)
    return (*([story.text] if story else []), *copy_key(problem.expr))


def _problems(brought: str) -> Iterator[tuple[int, str]]:
    """Number and text of each line that holds a problem; at most `MOST_LINES`."""
    lines = brought.lstrip("\ufeff").splitlines()
    head = next(csv.reader(lines[:1]), [])
    names = [name.strip().lower() for name in head]
    if "problem" in names:
        column = names.index("problem")
        rows = csv.reader(lines[1:], strict=False)
        found = ((i + 2, row[column] if column < len(row) else "") for i, row in enumerate(rows))
    else:
        found = ((i + 1, line) for i, line in enumerate(lines))
    kept = 0
    for number, written in found:
        problem = _bare(written)
        if problem and kept < MOST_LINES:
            kept += 1
            yield number, problem


# The number of an exercise before its problem, and an equals sign that waits for the answer.
_NUMBERED = re.compile(r"\(?(?:\d{1,3}|[a-z])(?:\)[.:]?\s*|[.:]\s+)(?=\S)")


def _bare(written: str) -> str:
    """A line without what belongs to the exercise and not to its problem.

    >>> _bare("1) 2/7 + 1/2 ="), _bare("12. 3.5 + 2"), _bare("1.5 + 2"), _bare("b) 7 - 2 1/3")
    ('2/7 + 1/2', '3.5 + 2', '1.5 + 2', '7 - 2 1/3')
    """
    problem = written.strip().removeprefix("'")
    numbered = _NUMBERED.match(problem)
    return (problem[numbered.end() :] if numbered else problem).removesuffix("=").rstrip()
