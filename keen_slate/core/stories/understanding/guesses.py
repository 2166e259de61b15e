"""What else a story could ask for: calculations of few steps with its numbers, where nothing says more."""

from __future__ import annotations

import re
from collections.abc import Iterator
from itertools import permutations

from ...expressions.tree import Frac, value
from ..calculation import ToldText
from ..numbers import Quantity
from ..plan import Plan


def guesses(told: ToldText) -> Iterator[Plan]:
    """Plans of one or two steps with all the numbers that are told, the usual ones first; none of them is sure."""
    told_marks = [(f"#{i}#", one) for i, one in enumerate(told.quantities) if not one.clock]
    if len(told_marks) == 1:
        mark, one = told_marks[0]
        if isinstance(one.number, Frac) and one.label is None and value(one.number) < 1:
            yield Plan("put-together", "part", (f"1 - {mark}",), False)
    elif len(told_marks) == 2:
        yield from _of_two(told, *told_marks)
    elif len(told_marks) == 3:
        yield from _of_three(told_marks)


def _of_two(told: ToldText, one: tuple[str, Quantity], other: tuple[str, Quantity]) -> Iterator[Plan]:
    (large, _), (small, _) = sorted((one, other), key=lambda part: part[1].size, reverse=True)
    yield Plan("put-together", "total", (f"{one[0]} + {other[0]}",), False)
    yield Plan("take-from", "result", (f"{large} - {small}",), False)
    measured = [part[1].unit is not None for part in (one, other)]
    if not all(measured):
        yield Plan("equal-groups", "product", (f"{one[0]} × {other[0]}",), False)
    if not all(measured) or re.search(r"\bhow many\b", told.question.text, re.I):
        yield Plan("equal-groups", "size", (f"{large} ÷ {small}",), False)


def _of_three(told_marks: list[tuple[str, Quantity]]) -> Iterator[Plan]:
    marks = [mark for mark, _ in told_marks]
    counts = {mark for mark, one in told_marks if one.is_count}
    for one, size, other in permutations(marks):
        if one in counts and marks.index(size) == marks.index(one) + 1:
            for sign in ("{other} - all groups", "all groups + {other}", "all groups - {other}"):
                yield Plan("steps", "answer", (f"all groups = {one} × {size}", sign.format(other=other)), False)
    a, b, c = marks
    yield Plan("steps", "answer", (f"{a} - {b} + {c}",), False)
    yield Plan("steps", "answer", (f"{a} + {b} - {c}",), False)
    yield Plan("steps", "answer", (f"all of it = {a} + {b}", f"all of it ÷ {c}"), False)
    yield Plan("steps", "answer", (f"the rest = {a} - {b}", f"the rest ÷ {c}"), False)
