"""What each quantity of a story is of, in its own words: "the oak plank", "Alder", the name of its row in a table."""

from __future__ import annotations

import re

from .numbers import Quantity
from .words import VERB_FORMS, words_of

_WORD = re.compile(r"[^\W\d_]+(?:['’-][^\W\d_]+)*")
_ROW = re.compile(r"^[ \t]*([^:?!.\n]{1,30}):[ \t]*$")
_BREAK = re.compile(r"[.?!:;,\n]")
_LEADING = words_of("and but then so while when because")
_ARTICLES = words_of("a an the one his her its their this that")
_PRONOUNS = words_of("he she it they that this there how after from we i you")
_LINKING = words_of("is are was were be been has have had of with by another more only about from needs wants")
MOST = 24  # characters


def table_rows(text: str, quantities: tuple[Quantity, ...]) -> list[tuple[str, int]]:
    """The rows "name: amount" of a text, with the indices of their quantities.

    >>> from .numbers import quantities_in
    >>> told = "Monday: 2 1/2 mm\\nTuesday: 3/4 mm\\nHow much rain is that in all?"
    >>> table_rows(told, tuple(quantities_in(told)))
    [('Monday', 0), ('Tuesday', 1)]
    """
    rows = []
    for i, one in enumerate(quantities):
        line_start = text.rfind("\n", 0, one.start) + 1
        line_end = text.find("\n", one.end)
        rest = text[one.end : line_end if line_end >= 0 else len(text)]
        if (found := _ROW.match(text[line_start : one.start])) is not None and not rest.strip(" .,"):
            rows.append((found.group(1).strip(), i))
    return rows


def name_of(text: str, one: Quantity) -> str:
    """What a quantity is of: the words before it up to the verb; "" where there are none.

    >>> from .numbers import quantities_in
    >>> told = "The oak plank is 3 m long. Alder saws 1 2/3 m off."
    >>> [name_of(told, one) for one in quantities_in(told)]
    ['the oak plank', 'Alder']
    """
    before = text[: one.start]
    cuts = [found.end() for found in _BREAK.finditer(before.rstrip(" :"))]
    clause = before[cuts[-1] if cuts else 0 :]
    words = _WORD.findall(clause)
    while words and words[0].lower() in _LEADING:
        words.pop(0)
    for i, word in enumerate(words):
        if i and words[i - 1].lower() not in _ARTICLES and (word.lower() in VERB_FORMS or word.lower() in _LINKING):
            words = words[:i]
            break
    name = " ".join(words)
    if len(name) > MOST or (words and words[0].lower() in _PRONOUNS):
        return ""
    return (
        name[0].lower() + name[1:]
        if words and words[0].lower() in ("the", "a", "an", "one", "on", "in", "his", "her", "this")
        else name
    )
