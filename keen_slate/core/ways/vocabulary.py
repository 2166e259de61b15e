"""The class's own words: every sentence of the core is written in one vocabulary and said in the class's.

A setting of `ways` names each choice; its first code is the word that the core writes. For every other code
there is a list of replacements, longest first, that keeps a capital letter at the beginning.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from functools import lru_cache

from ..reading.lexing import DecimalMark
from .settings import Ways

Replacements = tuple[tuple[str, str], ...]


def _verb(stem: str, past: str, gerund: str) -> Replacements:
    return (("regrouping", gerund), ("regrouped", past), ("regroup", stem))


WORDS: dict[tuple[str, str], Replacements] = {
    ("say_regroup", "borrow"): _verb("borrow", "borrowed", "borrowing"),
    ("say_regroup", "exchange"): _verb("exchange", "exchanged", "exchanging"),
    ("say_regroup", "rename"): _verb("rename", "renamed", "renaming"),
    ("say_simplest", "simplest-form"): (("lowest terms", "simplest form"),),
    ("say_least", "lowest"): (("least common denominator", "lowest common denominator"),),
    ("say_mixed", "mixed-fraction"): (("mixed numbers", "mixed fractions"), ("mixed number", "mixed fraction")),
    ("say_whole", "one"): (
        (r"one whole(?! number)", "a one"),
        (r"wholes", "ones"),
        (r"whole(?! (?:number|jump)s?)", "one"),
    ),
    ("decimal_mark", "comma"): ((r"(?<=\d)\.(?=[\d\[])", ","),),
    ("say_numerator", "top"): (
        (r"numerators", "tops"),
        (r"numerator", "top"),
        (r"(?<!common )denominators", "bottoms"),
        (r"(?<!common )denominator", "bottom"),
    ),
}


@lru_cache(maxsize=1024)
def saying(ways: Ways) -> Callable[[str], str]:
    """What turns a sentence of the core into the class's words.

    >>> saying(Ways.of({"say_regroup": "borrow"}))("Needs regrouping.")
    'Needs borrowing.'
    >>> saying(Ways.of({"decimal_mark": "comma"}))("0.8[3] of 3.50 m.")
    '0,8[3] of 3,50 m.'
    >>> saying(Ways.of({"say_whole": "one"}))("So cut up one whole: a whole number of wholes.")
    'So cut up a one: a whole number of ones.'
    """
    chosen = tuple([(name, code) for name, code in ways.as_dict().items() if (name, code) in WORDS])
    return _replacer(chosen)


@lru_cache(maxsize=256)
def _replacer(chosen: tuple[tuple[str, str], ...]) -> Callable[[str], str]:
    pairs = [
        (re.compile(pattern if name == "decimal_mark" else rf"\b{pattern}\b", re.IGNORECASE), word)
        for name, code in chosen
        for pattern, word in WORDS[name, code]
    ]
    if not pairs:
        return lambda sentence: sentence

    @lru_cache(maxsize=8192)
    def say(sentence: str) -> str:
        for pattern, word in pairs:
            sentence = pattern.sub(lambda found, word=word: _as_begun(found.group(), word), sentence)  # type: ignore[misc]
        return sentence

    return say


def _as_begun(found: str, word: str) -> str:
    return word[0].upper() + word[1:] if found[0].isupper() else word


def mark_of(ways: Ways) -> DecimalMark:
    """The decimal mark that the class writes."""
    return "," if ways.decimal_mark == "comma" else "."
