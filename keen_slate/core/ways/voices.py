"""The class's own words: the voice in which the ways of a class have everything said."""

from __future__ import annotations

from functools import lru_cache

from ..expressions.text import DecimalMark
from ..expressions.voice import TERMS, Voice
from .settings import SETTINGS, Ways


@lru_cache(maxsize=1024)
def voice_of(ways: Ways) -> Voice:
    """The voice of a class.

    >>> voice_of(Ways.of({"say_regroup": "borrow"})).said("Needs <regrouping>.")
    'Needs borrowing.'
    >>> voice_of(Ways.of({"say_whole": "one"})).said("So cut up <one whole>: a whole number of <wholes>.")
    'So cut up a one: a whole number of ones.'
    """
    terms = dict(TERMS)
    for name, setting in SETTINGS.items():
        terms |= setting.terms.get(getattr(ways, name), {})
    return Voice(terms, mark_of(ways))


def mark_of(ways: Ways) -> DecimalMark:
    """The decimal mark that the class writes."""
    return "," if ways.decimal_mark == "comma" else "."
