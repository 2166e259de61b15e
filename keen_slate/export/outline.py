"""A set as a text tells it, whatever the text is written in: each problem, its lines with what is done in them, its
answer.

What pupils are to fill in is left out as on paper; the answers are told apart, as a key at the end.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keen_slate.core.documents.asked import task_of
from keen_slate.core.documents.story import answer_line
from keen_slate.core.documents.working import answer_text, problem_text
from keen_slate.core.expressions.tree import Blank, Expr, Frac, Mixed, OpenFrac, OpenMixed, Power
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.expressions.walks import contains, leaves, map_numbers
from keen_slate.core.layouts.rows import lead
from keen_slate.core.reading.kinds import KIND_NAMES
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.working.keys import step_keys

from .item import Item

ROOM = "_" * 24  # in a text, for what pupils write


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a working: the *sign* before it, what is written (None where pupils write it), and what is done
    in it.
    """

    sign: str
    expr: Expr | None
    said: str


@dataclass(frozen=True, slots=True)
class Entry:
    """An example: of what *kind* it is, a *story* as it is told ("" where it is none), what its working begins with
    (None where pupils write it), what is *asked* of it and its label, its lines, and its answer for the key.
    """

    kind: str
    story: str
    start: Expr | None
    asked: str
    lines: tuple[Line, ...]
    answer: str
    voice: Voice


def outline(items: Sequence[Item]) -> list[Entry]:
    """The examples of a set."""
    return [_entry(item) for item in items]


def _entry(item: Item) -> Entry:
    working, voice = item.working, item.voice
    told = problem_text(working, voice) if working.parts else ""
    kind = voice.said(KIND_NAMES[working.problem.kind])
    return Entry(
        kind[0].upper() + kind[1:],
        told,
        with_blanks(working.start, "problem", item.fading),
        "" if told else _asked(item),
        tuple(_lines(item)),
        answer_line(working) if told else answer_text(working, voice),
        voice,
    )


def _asked(item: Item) -> str:
    """What stands behind a problem: what to do with it, and what it is counted in."""
    label = item.working.problem.label
    return ", ".join(filter(None, [item.voice.said(task_of(item.working)), f"in {label}" if label else ""]))


def _lines(item: Item) -> Iterator[Line]:
    keys = step_keys(item.working)
    for i, (step, key) in enumerate(zip(item.working.steps, keys, strict=True)):
        sign = " ".join(lead(item.working, i).strip())
        if item.fading.hides_line(i, keys):
            yield Line(sign, None, "")
        else:
            yield Line(sign, with_blanks(step.after, key, item.fading), item.plain_title(i))


# Blanks ---------------------------------------------------------------------------------------------------------------


class _NoGapError(ValueError):
    """A blank that no number with a gap in it can show."""


def with_blanks(expr: Expr, key: str, fading: Fading) -> Expr | None:
    """The line *key* with gaps for its blanks; None where pupils write all of it, or where a gap cannot be written.

    >>> with_blanks(Frac(3, 12), "add 0", Fading(blanks=frozenset({"add 0 0"})))
    OpenFrac(num=None, den=12)
    """
    blanks = {int(at) for one, _, at in (name.rpartition(" ") for name in fading.blanks) if one == key and at.isdigit()}
    if fading.hides_row(key):
        return None
    if not blanks:
        return expr
    if contains(expr, Power):
        return None  # its exponents are counted among its numbers
    gaps, at = [], 0
    for number in leaves(expr):
        count = _numbers_of(number)
        gaps.append(frozenset([i for i in range(count) if at + i in blanks]))
        at += count
    left = iter(gaps)
    try:
        return map_numbers(expr, lambda number: _with_gaps(number, next(left)))
    except _NoGapError:
        return None


def _numbers_of(number: Expr) -> int:
    """How many numbers of a line a number is counted as."""
    return sum(piece.numbers for piece in glyphs(number))


def _with_gaps(number: Expr, gaps: frozenset[int]) -> Expr:
    if not gaps:
        return number
    if len(gaps) == _numbers_of(number):
        return Blank()
    match number:
        case Frac(num, den):
            return OpenFrac(None, den) if 0 in gaps else OpenFrac(num, None)
        case Mixed(whole, _, den) if gaps == {1}:
            return OpenMixed(whole, den)
    raise _NoGapError
