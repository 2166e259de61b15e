"""The answers of a class as a table: CSV out with verdicts; a pasted table or CSV in, its columns and lines matched."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from keen_slate.core.limits import ANSWER_LENGTH

from .delimited import plain, rows_of, written

AWAY = "away"
_NUMBERED = re.compile(r"\D{0,10}?(\d{1,2})(?:\s*[:.)].*)?", re.DOTALL)
_ALIAS_HEADS = ("alias", "pupil", "pupils", "name", "")


@dataclass(frozen=True, slots=True)
class AnswersRow:
    """A line of a table, counted from 1: an *alias*, what is *written* to each question in their order, and *why* it
    cannot be taken.
    """

    line: int
    alias: str
    pupil: str | None
    written: tuple[str, ...]
    why: str


@dataclass(frozen=True, slots=True)
class AnswersTable:
    """A table that was brought: its *columns*, the question (from 0) that each belongs to, its *rows*, and what else is
    *said* of it.
    """

    columns: tuple[str, ...]
    questions: tuple[int | None, ...]
    rows: tuple[AnswersRow, ...]
    said: tuple[str, ...]


def table(questions: Sequence[str], rows: Sequence[tuple[str, Sequence[tuple[str | None, str]], int]]) -> str:
    """The CSV of what pupils wrote: *rows* of alias, (written, verdict) for each question (None: away), and points."""
    heads = [head for i, one in enumerate(questions) for head in (f"{i + 1}: {one}", f"verdict {i + 1}")]
    made: list[list[object]] = [["alias", *heads, "points"]]
    for alias, cells, points in rows:
        shown = [text for one, verdict in cells for text in (AWAY if one is None else one, verdict)]
        made.append([alias, *shown, points])
    return written(made)


def read(text: str, questions: Sequence[str], pupils: Mapping[str, str]) -> AnswersTable:
    """What a table says of *questions* (texts) and *pupils* (alias -> who it is). Raises `ReadError` where it is no
    table.

    >>> found = read("alias\\t1\\t2\\nsedge\\t4 7/12\\t5\\nNobody\\t1\\t2", ["7 1/4 - 3 5/6", "9 - 4"], {"Sedge": "s"})
    >>> found.questions, found.rows[0].pupil, found.rows[0].written, found.rows[1].why
    ((None, 0, 1), 's', ('4 7/12', '5'), 'No pupil is called Nobody.')
    """
    lines = rows_of(text)
    known = {alias.casefold(): (alias, who) for alias, who in pupils.items()}
    head, has_head = lines[0][1], _is_head(lines[0][1], known, questions)
    columns = _columns(head, questions) if has_head else _in_order(head, len(questions))
    rows, said, seen = [], [], dict[str, int]()
    for number, cells in lines[has_head:]:
        alias = plain(cells[0]) if cells else ""
        found = known.get(alias.casefold())
        wrote, why = _written(cells, columns, len(questions))
        if found is None:
            why = f"No pupil is called {alias}." if alias else "This line names no pupil."
        elif alias.casefold() in seen:
            why = f"{found[0]} stands on line {seen[alias.casefold()]} as well."
        elif found:
            seen[alias.casefold()] = number
        rows.append(AnswersRow(number, alias, found[1] if found else None, wrote, why))
    strange = [
        name for name, at in zip(head[1:], columns[1:], strict=True) if has_head and at is None and not _is_ours(name)
    ]
    said += [
        f"The column {plain(name)} is no problem of this sitting; it is left out." for name in strange if name.strip()
    ]
    missing = len(head) - 1 - len(questions)
    if not has_head and missing > 0:
        said.append(f"There are {len(questions)} problems; {missing} more columns are left out.")
    return AnswersTable(tuple(head), tuple(columns), tuple(rows), tuple(said))


def _is_head(cells: Sequence[str], known: Mapping[str, object], questions: Sequence[str]) -> bool:
    first = plain(cells[0]).casefold() if cells else ""
    return first not in known and (
        first in _ALIAS_HEADS or any(_of_text(cell, questions) is not None for cell in cells)
    )


def _columns(head: Sequence[str], questions: Sequence[str]) -> list[int | None]:
    """The question of each column, by the text in its head, else by the number that it begins with."""
    found: list[int | None] = []
    for cell in head[1:]:
        at = None if _is_ours(cell) else _of_text(cell, questions)
        numbered = _NUMBERED.fullmatch(plain(cell))
        if at is None and not _is_ours(cell) and numbered and 1 <= int(numbered[1]) <= len(questions):
            at = int(numbered[1]) - 1
        found.append(None if at in found else at)
    return [None, *found]


def _in_order(first: Sequence[str], count: int) -> list[int | None]:
    return [None, *[i if i < count else None for i in range(len(first) - 1)]]


def _of_text(cell: str, questions: Sequence[str]) -> int | None:
    text = plain(cell).partition(": ")[2] or plain(cell)
    wanted = "".join(text.split()).casefold()
    return next((i for i, one in enumerate(questions) if wanted and "".join(one.split()).casefold() == wanted), None)


def _is_ours(head: str) -> bool:
    """Whether a column is one that `table` writes beside the answers."""
    return plain(head).casefold() == "points" or plain(head).casefold().startswith("verdict ")


def _written(cells: Sequence[str], columns: Sequence[int | None], count: int) -> tuple[tuple[str, ...], str]:
    wrote = [""] * count
    for cell, at in zip(cells, columns, strict=False):
        if at is not None:
            wrote[at] = plain(cell)
    long = [i + 1 for i, one in enumerate(wrote) if len(one) > ANSWER_LENGTH]
    why = f"The answer to problem {long[0]} is longer than {ANSWER_LENGTH} characters." if long else ""
    return tuple([one[:ANSWER_LENGTH] for one in wrote]), why
