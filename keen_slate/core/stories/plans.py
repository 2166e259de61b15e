"""The situations, each a rule that says whether a story is one, and which calculation it asks for.

They are tried in an order, the surest signs first: a part of something, equal groups, "than", several steps, a total
with one part, a change with its start or its size unknown, a total. Where the signs are missing, what could be meant is
listed, and none of it is called certain. Common practice of reading word problems; the words are in `words.py`.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from ..expressions.tree import value
from ..reading.measures import ratio_of
from ..reading.units import singular
from .clues import Clue, Clues
from .in_steps import rest_in_steps, two_totals
from .plan import Plan, mark_of, size_of, terms_of
from .words import COMPARED, EQUALLY, REST, SHARED, THAN, words_of


def plans(clues: Clues) -> Iterator[Plan]:
    """The readings, the likeliest first; what is sure comes alone."""
    needed = clues.needed
    for rule in (_parts_of, _groups, two_totals, _compared, rest_in_steps, _part_of_total, _changes, _totals):
        plan = rule(clues, needed)
        if plan is not None:
            yield plan
            if plan.sure:
                return
            break
    yield from _unsure(needed)


def _unsure(needed: list[Clue]) -> Iterator[Plan]:
    if len(needed) == 2:
        a, b = sorted(needed, key=lambda one: value(one.quantity.number), reverse=True)
        yield Plan("put-together", "total", (f"{mark_of(needed[0])} + {mark_of(needed[1])}",), False)
        yield Plan("take-from", "result", (f"{mark_of(a)} - {mark_of(b)}",), False)
        if all(one.quantity.unit for one in needed):
            return
        yield Plan("equal-groups", "product", (f"{mark_of(needed[0])} × {mark_of(needed[1])}",), False)
        yield Plan("equal-groups", "size", (f"{mark_of(needed[0])} ÷ {mark_of(needed[1])}",), False)
        return
    yield Plan("put-together", "total", (" + ".join(map(mark_of, needed)),), False)
    largest = max(needed, key=lambda one: value(one.quantity.number))
    others = [one for one in needed if one is not largest]
    yield _less_all(largest, others, sure=False)


def _parts_of(clues: Clues, needed: list[Clue]) -> Plan | None:
    """A fraction of an amount; what is left of it, where that is asked for."""
    if clues.asks_difference or clues.asks_total:
        return None
    parts = [one for one in needed if one.part]
    others = [one for one in needed if not one.part]
    if len(parts) == 2 and not others:
        return Plan("part-of", "part", (f"{mark_of(parts[1])} × {mark_of(parts[0])}",))
    if len(parts) != 1 or len(others) != 1 or value(others[0].quantity.number) == 1:
        return None
    product = f"{mark_of(parts[0])} × {mark_of(others[0])}"
    if re.search(r"\b(?:left|remain\w*|rest|not|other|unused|still)\b", clues.question):
        return Plan("steps", "answer", (f"the part = {product}", f"{mark_of(others[0])} - the part"))
    return Plan("part-of", "part", (product,))


def _groups(clues: Clues, needed: list[Clue]) -> Plan | None:
    """Equal groups: all together, the size of one, or how many there are."""
    if len(needed) != 2:
        return None
    sizes = [one for one in needed if one.quantity.unit or not one.quantity.is_count or one.each]
    counts = [one for one in needed if one.quantity.is_count and one.quantity.label is not None]
    lone = [one for one in needed if one.quantity.is_count]
    equally, each = EQUALLY.search(clues.told.text) is not None, any(one.each for one in needed)
    a, b = needed
    if a.quantity.unit and b.quantity.unit:
        return _how_many_fit(clues, a, b)
    if equally and lone and not each:
        divisor = next((one for one in reversed(lone) if SHARED.search(one.before[-12:])), lone[-1])
        amount = next(one for one in needed if one is not divisor)
        return Plan("equal-groups", "size", (f"{mark_of(amount)} ÷ {mark_of(divisor)}",))
    if clues.asks_each and not each and lone:
        amount = next((one for one in needed if one not in lone), needed[0])
        divisor = next(one for one in needed if one is not amount)
        return Plan("equal-groups", "size", (f"{mark_of(amount)} ÷ {mark_of(divisor)}",))
    if each and clues.asks_number and not clues.asks_total:
        return _how_many_fit(clues, a, b) or _fitting(a, b)
    times = re.search(r"\btimes\b|\btwice\b", clues.told.text)
    same = a.quantity.label and b.quantity.label and singular(a.quantity.label) == singular(b.quantity.label)
    of_sizes = (
        bool(counts) and not same and re.search(r"^\W*(?:[a-z]+ )?(?:of|with|holding)\b", counts[0].after) is not None
    )
    if (each or of_sizes or times) and lone and sizes:
        count = next((one for one in lone if not one.each), lone[0])
        size = next(one for one in needed if one is not count)
        return Plan("equal-groups", "product", (f"{mark_of(count)} × {mark_of(size)}",))
    return None


def _fitting(a: Clue, b: Clue) -> Plan | None:
    size, amount = (a, b) if a.each else (b, a)
    return Plan("equal-groups", "number", (f"{mark_of(amount)} ÷ {mark_of(size)}",))


def _how_many_fit(clues: Clues, a: Clue, b: Clue) -> Plan | None:
    """How many pieces of one size an amount makes."""
    if (
        not clues.asks_number
        or not (a.quantity.unit and b.quantity.unit)
        or ratio_of(a.quantity.unit, b.quantity.unit) is None
    ):
        return None
    size = next((one for one in (a, b) if one.each), None) or min(a, b, key=size_of)
    amount = b if size is a else a
    return Plan("equal-groups", "number", (f"{mark_of(amount)} ÷ {mark_of(size)}",))


# Comparing ------------------------------------------------------------------------------------------------------------


def _compared(clues: Clues, needed: list[Clue]) -> Plan | None:
    if len(needed) != 2:
        return None
    said = [one for one in needed if one.compared]
    if not said:
        return _difference(clues, needed)
    difference = said[0]
    known = next(one for one in needed if one is not difference)
    less = clues.says_less
    # "X is 3/4 m longer than Y": X is the larger, unless the word is one of being less.
    knows_first = _known_is_first(clues, difference, known)
    larger_known = knows_first != less
    if larger_known:
        return Plan("compare", "smaller", (f"{mark_of(known)} - {mark_of(difference)}",))
    return Plan("compare", "larger", (f"{mark_of(known)} + {mark_of(difference)}",))


def _difference(clues: Clues, needed: list[Clue]) -> Plan | None:
    if not clues.asks_difference:
        return None
    larger, smaller = sorted(needed, key=size_of, reverse=True)
    return Plan("compare", "difference", (f"{mark_of(larger)} - {mark_of(smaller)}",))


_SMALL = words_of(
    "the a an is are was were has have had of and in on than more less much many how long its it's his her their to "
    "for at by"
)


def _known_is_first(clues: Clues, difference: Clue, known: Clue) -> bool:
    """Whether the known amount is that of the thing named before "than": the words of its sentence and of the question
    tell.
    """
    before = difference.before
    after = THAN.split(difference.after, maxsplit=1)[1]
    first, second = _content(before), _content(after)
    elsewhere = known.sentence if known.sentence is not difference.sentence else None
    if elsewhere is None:
        own = _content(known.before)
        return bool(own & first) and not own & second
    about, asked = _content(elsewhere.text), _content(clues.question)
    if (
        re.match(r"\W*(?:and )?(?:it|he|she|they|this|that)\b", before, re.I)
        and elsewhere.start < difference.sentence.start
    ):
        return True
    if re.match(r"\W*(?:it|he|she|they|him|her|them|this|that)\b", after.strip(), re.I):
        return False
    for_first = len(about & (first - second)) + len(asked & (second - first))
    for_second = len(about & (second - first)) + len(asked & (first - second))
    return for_first > for_second


def _content(text: str) -> set[str]:
    words = {word.lower().removesuffix("s") for word in re.findall(r"[^\W\d_]+", text)}
    return words - _SMALL - {word.removesuffix("s") for word in _SMALL}


# Parts, changes, totals -----------------------------------------------------------------------------------------------


def _part_of_total(clues: Clues, needed: list[Clue]) -> Plan | None:
    """A total that is told with one of its parts (or all but one)."""
    totals = [one for one in needed if one.total and not one.compared]
    if (
        len(totals) != 1
        or clues.asks_total
        or clues.asks_difference
        or (clues.asks_first and any(one.direction for one in needed))
    ):
        return None
    total = totals[0]
    others = [one for one in needed if one is not total]
    if len(others) == 1:
        return Plan("put-together", "part", (f"{mark_of(total)} - {mark_of(others[0])}",))
    return _less_all(total, others, sure=True) if len(others) <= 4 else None


def _less_all(total: Clue, others: list[Clue], sure: bool) -> Plan:
    """What is left of a total without all the others."""
    first = f"all others = {' + '.join(map(mark_of, others))}"
    return Plan("steps", "answer", (first, f"{mark_of(total)} - all others"), sure)


def _goes(needed: list[Clue]) -> bool:
    """Whether something goes that was there: one number tells what goes, and not all of them do."""
    directions = {one.direction for one in needed}
    return -1 in directions and len(directions) > 1


def _changes(clues: Clues, needed: list[Clue]) -> Plan | None:
    """Something that grows or is used up, with its result, its change or its start unknown."""
    if len(needed) != 2 or (clues.asks_total and not clues.asks_left and not _goes(needed)):
        return None
    a, b = needed
    if clues.asks_first:
        change = next((one for one in needed if one.direction), b)
        state = a if change is b else b
        if change.direction > 0:
            return Plan("add-to", "start", (f"{mark_of(state)} - {mark_of(change)}",))
        return Plan("take-from", "start", (f"{mark_of(a)} + {mark_of(b)}",))
    if _asks_more(clues) or _asks_change(clues, needed):
        end = next((one for one in reversed(needed) if one in clues.says_after), b)
        start = a if end is b else b
        if _asks_more(clues):
            start, end = sorted(needed, key=size_of)
        sure = _asks_more(clues) or clues.tells_change
        if size_of(start) >= size_of(end):
            return Plan("take-from", "change", (f"{mark_of(start)} - {mark_of(end)}",), sure)
        return Plan("add-to", "change", (f"{mark_of(end)} - {mark_of(start)}",), sure)
    moving = [one for one in needed if one.direction]
    if len(moving) == 2 and moving[0].direction > 0 > moving[1].direction:
        moving = moving[1:]
    if len(moving) == 1 or (len(moving) == 2 and moving[1].direction < 0):
        change = moving[-1]
        start = a if change is b else b
        if change.direction > 0:
            return Plan("add-to", "result", (f"{mark_of(start)} + {mark_of(change)}",))
        return Plan("take-from", "result", (f"{mark_of(start)} - {mark_of(change)}",))
    if len(moving) == 2 and moving[1].direction > 0 and (clues.asks_left or not clues.asks_total):
        return Plan("add-to", "result", (f"{mark_of(a)} + {mark_of(b)}",))
    if not moving and REST.search(clues.question):
        larger, smaller = sorted(needed, key=size_of, reverse=True)
        return Plan("take-from", "result", (f"{mark_of(larger)} - {mark_of(smaller)}",))
    return None


_NEEDED = re.compile(
    r"\b(?:more|still)\b.*\b(?:need\w*|missing|must|to "
    r"(?:reach|fill|finish|walk|get|go|make|have|come|cover))\b|\bmissing\b|\bneed\w*\b.*\bto\b|\bmust\b", re.I
)  # fmt: skip


def _asks_more(clues: Clues) -> bool:
    """Whether the question asks for what is needed to reach the larger amount."""
    return _NEEDED.search(clues.question) is not None and not clues.asks_difference and not clues.asks_total


def _asks_change(clues: Clues, needed: list[Clue]) -> bool:
    """Whether how much came or went is asked for: one number tells how it is in the end, and the question is not about
    that.
    """
    if clues.asks_total or clues.asks_left or COMPARED.search(clues.question):
        return False
    if any(one.gives_back for one in needed):
        return True
    still = all(one.direction == 0 for one in needed)
    return (still and bool(clues.says_after)) or (clues.asks_of_change and (still or bool(clues.says_after)))


def _totals(clues: Clues, needed: list[Clue]) -> Plan | None:
    """Everything together; groups among it are worked first."""
    if not clues.asks_total and not _only_adds(clues, needed):
        return None
    terms, first = terms_of(needed)
    if any(one.direction < 0 for one in needed) and not clues.asks_total:
        return None
    joined = " + ".join(terms)
    if first:
        return Plan("steps", "answer", (*first, joined))
    if len(needed) < 2:
        return None
    return Plan("put-together", "total", (joined,))


def _only_adds(clues: Clues, needed: list[Clue]) -> bool:
    return (
        len(needed) > 2
        and all(one.direction > 0 for one in needed[1:])
        and not clues.asks_difference
        and not clues.asks_first
    )
