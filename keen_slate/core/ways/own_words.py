"""What a teacher writes herself among her ways, beside the codes: each text is read here, once, or refused."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache
from typing import Any

from ..errors import SettingError
from ..limits import MAX_WHOLE, MOST_BLANK_TOPS, QUESTION_LENGTH
from .checklist import read_checklist


def read_words(text: str) -> str:
    """A line of a teacher's own: by what a class remembers the order of operations, what it is asked. Raises
    `SettingError`.

    >>> read_words("  Brackets lead, sums follow. ")
    'Brackets lead, sums follow.'
    """
    words = " ".join(text.split())
    if len(words) > QUESTION_LENGTH:
        raise SettingError(f"These words have {QUESTION_LENGTH} characters at most.", 0, len(text), "Use fewer words.")
    if (at := next((i for i, c in enumerate(text) if c in "<>"), None)) is not None:
        raise SettingError("Angle brackets are not read here.", at, 1, "Write the words without < and >.")
    return words


@lru_cache(maxsize=256)
def read_split(text: str) -> tuple[int, ...]:
    """The numerators that a teacher chose for the blanks of an example, from left to right. Raises `SettingError`.

    >>> read_split("9, 4, 1")
    (9, 4, 1)
    """
    found = text.replace(",", " ").replace(";", " ").split()
    hint = "Write the numerators from left to right, like 9, 4, 1."
    if len(found) > MOST_BLANK_TOPS:
        raise SettingError(f"There are {MOST_BLANK_TOPS} numerators at most.", 0, len(text), hint)
    for one in found:
        if not (one.isascii() and one.isdigit()) or len(one) > len(str(MAX_WHOLE)) or not 0 < int(one) <= MAX_WHOLE:
            raise SettingError(f"“{one[:20]}” is no numerator.", text.index(one), len(one), hint)
    return tuple([int(one) for one in found])


# By the name that a text has among the ways: what reads it.
OWN_TEXTS: dict[str, Callable[[str], Any]] = {
    "checklist": read_checklist,
    "order_words": read_words,
    "asks": read_words,
    "split": read_split,
}
