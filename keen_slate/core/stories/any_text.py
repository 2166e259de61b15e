"""Whether a text is a calculation or a story, and the problem that it is."""

from __future__ import annotations

import re

from ..expressions.text import DecimalMark
from ..reading.problem import Problem
from ..reading.reader import read

_TELLS = re.compile(r"[^\W\d_]{2,}[ ,]+[^\W\d_]{2,}.*[.?!]|\?|\{")


def is_story(source: str) -> bool:
    """Whether a text tells something, and is no bare calculation.

    >>> is_story("3 1/4 - 1 2/3 ft"), is_story("A plank is 3 m long. How long are two?")
    (False, True)
    """
    return _TELLS.search(source) is not None


def read_any(source: str, mark: DecimalMark = ".") -> Problem:
    """The problem that *source* is: a calculation, or a story. Raises `CoreError`."""
    if not is_story(source):
        return read(source, mark)
    from .reading import story_problem  # loaded where one is told: understanding stories is a third of a start

    return story_problem(source, mark)
