"""The sentences of a story, and what the one that asks counts or measures."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ..errors import ReadError
from ..reading.measures import Unit, unit_named
from .words import words_of

# A full stop within a number or after a short form that goes on in small letters ends no sentence.
_END = re.compile(r"[.!?]+(?=\s+[^a-z\s]|\s*$)|\?+|\n+")
_COMMANDS = re.compile(r"^(?:find|work out|calculate|tell)\b", re.I)
_VERBS = words_of("is are was were can does do did will has have had of in must remain remains")


@dataclass(frozen=True, slots=True)
class Sentence:
    """A sentence of a story from character *start* to *end*, without the spaces around it."""

    text: str
    start: int
    end: int

    @property
    def asks(self) -> bool:
        """Whether it is a question, or tells to find something."""
        asked = self.text.endswith("?") and any(letter.isalpha() for letter in self.text)
        return asked or _COMMANDS.match(self.text) is not None


def sentences(text: str) -> list[Sentence]:
    """The sentences of *text*.

    >>> [s.text for s in sentences("It is 2.5 m long. Sedge cuts 3 in. off. How long is it now?")]
    ['It is 2.5 m long.', 'Sedge cuts 3 in. off.', 'How long is it now?']
    """
    done, at = [], 0
    for found in [*_END.finditer(text), None]:
        end = found.end() if found else len(text)
        piece = text[at:end]
        start = at + len(piece) - len(piece.lstrip())
        if piece.strip():
            done.append(Sentence(piece.strip(), start, start + len(piece.strip())))
        at = end
    return done


def questions_of(told: list[Sentence], text: str) -> tuple[Sentence, ...]:
    """The sentence that asks, or the two that do. Raises `ReadError` where there is none, or three."""
    asking = [one for one in told if one.asks]
    if not asking:
        raise ReadError(
            "Nothing is asked in this story.", len(text), 0, "End it with a question, like: How much is left?"
        )
    if len(asking) > 2:
        third = asking[2]
        raise ReadError(
            "The story asks more than two questions.", third.start, third.end - third.start,
            "Keep one or two of them for each example."
        )  # fmt: skip
    return tuple(asking)


def asked_unit(question: str) -> Unit | None:
    """The unit that a question asks for: "How many centimetres ..."."""
    for found in re.finditer(r"\b(?:how many|in) (square [a-z]+|[a-z]+)", question, re.I):
        unit = unit_named(found.group(1)) or unit_named(found.group(1).split()[-1])
        if unit is not None:
            return unit
    return None


def asked_word(question: str) -> str | None:
    """The word with which a question names its unit: "How many minutes ..."."""
    for found in re.finditer(r"\bhow many (?:more |fewer |whole |full )?(square [a-z]+|[a-z]+)", question, re.I):
        if unit_named(found.group(1)) is not None:
            return found.group(1).lower()
    return None


def asked_noun(question: str) -> str | None:
    """The things that a question counts: "How many planks ..."; None where it asks for an amount."""
    found = re.search(r"\bhow many(?: more| fewer)? (?P<words>[a-z-]+(?: [a-z-]+)?)", question, re.I)
    if found is None:
        return None
    first, *second = found["words"].lower().split()
    if unit_named(first) or first in _VERBS:
        return None
    return (
        second[0]
        if second and second[0].endswith("s") and second[0] not in _VERBS and not first.endswith("s")
        else first
    )
