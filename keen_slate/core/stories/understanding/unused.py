"""Numbers that an answer does not use: each is set aside with its reason, or is a doubt."""

from __future__ import annotations

import re

from ...expressions.tree import Whole
from ..numbers import Quantity
from .abstract import Text
from .amounts import Amount, stem
from .asked import AskedFor
from .wording import words

_GROUPED = re.compile(r"\b(?:each|every|per|share[ds]?|equal(?:ly)?|average|mean|apiece|times|twice)\b", re.I)


def look_at_unused(text: Text, asked: AskedFor, answer: Amount) -> None:
    """Set aside what *answer* does not use, where there is a reason; note a doubt about every other number."""
    used = answer.indices
    for i, one in enumerate(text.told.quantities):
        if i in used or i in text.aside:
            continue
        reason = _reason(text, asked, answer, i, one)
        if reason:
            text.aside[i] = reason
        else:
            text.doubt("number-unused", f"It is not clear what the {one.text} is for.", i)


def _reason(text: Text, asked: AskedFor, answer: Amount, i: int, one: Quantity) -> str:
    """Why a number is not needed; "" where there is no reason."""
    quantities, used = text.told.quantities, answer.indices
    counts_parts = one.is_count and isinstance(one.number, Whole) and one.number.n > 1 and one.number.n in (
        _parts(answer), len([other for other in quantities if other.unit]),
    )  # fmt: skip
    if any(
        re.search(rf"<[nd]{i}> of (?:them|these|those)\b", said) for said in text.statements
    ):  # it says something of some of them
        return ""
    if one.is_count and any(
        j in used and other.is_count and other.size == one.size for j, other in enumerate(quantities) if j != i
    ):
        return "told before"
    if _in_question(text, i, one):
        return "how many there are" if counts_parts and one.label else ""
    if one.clock:
        return "" if asked.clock else "a time of the day"
    grouped = _GROUPED.search(text.all) is not None
    if one.unit is not None and answer.unit is not None and one.unit.measure != answer.unit.measure and not grouped:
        return "another measure"
    if one.is_count and one.label and answer.unit is not None and not grouped and not _spoken_of(text, one.label):
        return "a count that nobody asks for"
    return "how many there are" if counts_parts else ""


def _in_question(text: Text, i: int, one: Quantity) -> bool:
    """Whether a number stands in what is asked, and not in what a question tells after "if"."""
    question = text.told.question
    return question.start <= one.start < question.end and not any(f"{i}>" in said for said in text.statements)


def _spoken_of(text: Text, noun: str) -> bool:
    """Whether the things that a count counts are asked about, or are spoken of again."""
    if any(stem(noun) == stem(word) for word in words(text.question)):
        return True
    return sum(stem(noun) == stem(word) for said in text.statements for word in words(said)) > 1


def _parts(answer: Amount) -> int:
    """How many parts the largest sum in an answer has."""
    own = len(answer.made) if answer.operator == "+" else 0
    return max([own, *[_parts(part) for _, part in answer.made]])
