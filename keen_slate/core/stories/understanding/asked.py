"""What a question asks for."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ...reading.measures import Unit
from ..question import asked_unit
from ..words import COMPARATIVES_OF_ALL
from .wording import content, words

_NUMBER = re.compile(
    r"\bhow many (?:more |fewer |whole |full |such |of (?:these|the|such) )*(?P<words>[a-z'-]+(?: [a-z'-]+)?)", re.I
)
_COMPARED = re.compile(
    rf"\b(?:by )?how (?:much|many|far)?(?: [a-z]+)?? "
    rf"?(?P<word>{COMPARATIVES_OF_ALL}|dearer|steeper|late)\b|\bdifference\b",
    re.I,
)
_START = re.compile(
    r"\b(?:before|at first|to begin with|at the start|at the beginning|originally|in the beginning|to start with|start "
    r"with|begin with|earlier|when (?:it|he|she|they) (?:began|started|was new|was full))\b|\bhad\b.*\bbeen\b",
    re.I)  # fmt: skip
_END = re.compile(
    r"\b(?:left|remain\w*|now|then|in the end|at the end|still|left over|the rest|afterwards|after that|after|by the "
    r"end|over|unused|finally|at noon|in the morning|in the evening)\b", re.I)  # fmt: skip
_TOTAL = re.compile(
    r"\b(?:in all|altogether|all together|together|in total|total|all told|all in all|combined|overall|that "
    r"day|(?:the|his|her|their) whole|(?:on )?both|it all|all)\b",
    re.I,
)
_NEED = re.compile(
    r"\b(?:missing|lack\w*|short|must|should|need\w*|has? .* still to|have .* still to|still to|to go|ha(?:s|ve) to)\b",
    re.I,
)
_MEASURES = (
    ("length", r"\bhow (?:far|high|tall|deep|wide|thick)\b|\b(?:length|height|width|depth|distance)\b"),
    ("mass", r"\bhow heavy\b|\bweigh(?:s|ed|t)?\b|\bmass\b"),
    ("money", r"\bhow much (?:money|change)\b|\b(?:cost|costs|pay|pays|paid|spend|spent|earn|earned|price|worth|"
              r"money)\b"),
    ("temperature", r"\b(?:temperature|warm|cold|degrees)\b"),
    ("time", r"\bhow long (?:does|did|do|will|would|has|have|can) (?:it take|\w+ (?:need|have to))|\bhow late\b|\bhow "
             r"(?:much )?longer (?:did|does|do)\b"),
)  # fmt: skip
_COMPARED_LATER = re.compile(rf"\bby how (?:much|many)\b.*\b(?P<word>{COMPARATIVES_OF_ALL})\b.* than\b", re.I)
ASKS = re.compile(
    r"\b(?:how (?:much|many|long|far|high|tall|deep|wide|thick|heavy|late|often|large|big|old)|what "
    r"(?:is|are|was|were|do|does|did|would|will|must|weight|length|amount|part|fraction|share|distance|height|width|change|did)|"
    r"by how (?:much|many)|(?:at |by )?what time|when (?:does|did|must|will|do)|at which|which "
    r"(?:level|floor)|find|work out|calculate)\b", re.I,
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class AskedFor:
    """A question: its *text* in small letters; the *unit*, the *noun* of things to be counted, or the *measure* that is
    asked for.

    *compared* is its comparing word, *than* what stands after it.
    """

    text: str
    unit: Unit | None
    noun: str
    measure: str
    compared: str
    than: str
    total: bool
    start: bool
    end: bool
    each: bool
    need: bool
    fraction: bool
    clock: bool
    keys: frozenset[str]

    @property
    def number(self) -> bool:
        """Whether a number of things is asked for."""
        return bool(self.noun)


def asked_of(question: str) -> AskedFor:
    """What *question* asks for."""
    said = question[0].lower() + question[1:] if question else ""
    compared = _COMPARED.search(said) or _COMPARED_LATER.search(said)
    _, _, than = said.partition(" than ")
    unit = asked_unit(said) or _unit_after_number(said)
    fraction = re.search(r"\b(?:what|which) (?:part|fraction|share)\b", said, re.I) is not None
    clock = (
        re.search(r"\b(?:at what time|what time|when (?:does|did|must|will|do|is)|at which time)\b", said, re.I)
        is not None
    )
    measure = unit.measure if unit else next((one for one, pattern in _MEASURES if re.search(pattern, said, re.I)), "")
    word = (compared["word"] or "difference").lower() if compared else ""
    if re.search(r"\bhow many (?:times|more times)\b", said):
        word = ""
    each = re.search(r"\b(?:each|every|apiece|per|a single|one)\b", said, re.I) is not None
    noun = _noun(said)
    if noun == "degrees":
        noun, measure = "", "temperature"
    return AskedFor(
        said, unit, noun, measure, word, than, _TOTAL.search(said) is not None, _START.search(said) is not None,
        _END.search(said) is not None, each, _NEED.search(said) is not None, fraction, clock, content(said),
    )  # fmt: skip


def _unit_after_number(said: str) -> Unit | None:
    found = re.search(r"\bhow many (?:more|fewer|whole|full|extra|other) ([a-z]+)", said, re.I)
    return (
        asked_unit(f"how many {found.group(1)}")
        if found
        else asked_unit(said.rpartition(", ")[2])
        if ", in " in said
        else None
    )


_VERBS = frozenset(
    [
        "is",
        "are",
        "was",
        "were",
        "can",
        "does",
        "do",
        "did",
        "will",
        "has",
        "have",
        "had",
        "of",
        "in",
        "must",
        "remain",
        "remains",
    ]
)


def _noun(said: str) -> str:
    """The noun of things to be counted; "" where an amount is asked for."""
    found = _NUMBER.search(said)
    if found is None or asked_unit(said) or _unit_after_number(said) or "how many times" in said:
        return ""
    first, *second = words(found["words"].lower())
    if first in _VERBS:
        return ""
    if second and second[0] not in _VERBS and second[0].endswith("s") and not first.endswith("s"):
        return second[0]
    return first
