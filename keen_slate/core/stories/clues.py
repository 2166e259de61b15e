"""What the words around each number of a story tell: whether it comes or goes, is one of each, is a total, is
compared.
"""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass
from functools import cached_property

from ..expressions.tree import Frac, value
from .calculation import ToldText
from .numbers import Quantity
from .question import Sentence, asked_noun, asked_unit
from .words import (
    AFTER,
    COMPARED,
    EACH,
    EQUALLY,
    FIRST,
    GROWING,
    LEFT,
    SHRINKING,
    SMALLER,
    STAYING,
    THAN,
    TOTAL,
    words_of,
)

_CLAUSE = re.compile(
    r"[,;:]| and then | but | then | while | so | because | and (?=(?:he|she|it|they|we|I|you|the|another|a|[A-Z]\w+) "
    r"\w+)"
)
_WORD = re.compile(r"[^\W\d_]+")
_OFF = re.compile(r"^\W*(?:off|away|out|less)\b|\b(?:off|away|out of|from)\b")
_MORE = re.compile(r"^\W*(?:[a-z]+ )?(?:more|further|farther|longer|higher|taller)\b")
_SOURCE = re.compile(r"\b(?:from|out of|off) (?:a|an|the|his|her|its|their) [^.]*?\bof\W*$")
_ENDS = re.compile(r"(?:When|After|By|Now|Then|Today|Finally)\b")
_TAKES_TIME = words_of(
    "another use used uses spend spent spends add added adds save saved saves lose lost loses gain gained gains"
)
_BACK = re.compile(r"^\W*back\b")
_COMES = words_of("added joined join joins arrive arrived arrives gained poured come came comes")


@dataclass(frozen=True, slots=True)
class Clue:
    """A quantity with the clause around it: the words *before* and *after* it, and its whole *sentence*."""

    index: int
    quantity: Quantity
    sentence: Sentence
    before: str
    after: str

    @property
    def clause(self) -> str:
        """The clause with the quantity left out."""
        return f"{self.before} … {self.after}"

    @property
    def direction(self) -> int:
        """+1 where what is said comes to something, -1 where it goes, 0 where it is simply there: the verb nearest
        before tells.
        """
        if _MORE.search(self.after) and not THAN.search(self.clause):
            return 1
        if _SOURCE.search(self.before):
            return 0
        words = [word.lower() for word in _WORD.findall(self.before)]
        if self.quantity.unit is not None and self.quantity.unit.measure == "time":
            words = [word for word in words if word in _TAKES_TIME]  # an hour of sewing is no more and no less
        for word in reversed(words):
            if word in ("another", "extra"):
                return 1
            if word in SHRINKING and not (word in GROWING and not self._goes_off):
                return -1
            if word in GROWING:
                return 0 if self.gives_back else 1
            if word in STAYING:
                break
        return self._direction_after()

    def _direction_after(self) -> int:
        """The same, where the verb comes after the number: "3 litres were poured in", "2 litres leak out"."""
        after = [word.lower() for word in _WORD.findall(self.after)[:6]]
        if any(word in _COMES for word in after):
            return 1
        return -1 if any(word in SHRINKING for word in after) and not AFTER.search(self.clause) else 0

    @property
    def gives_back(self) -> bool:
        """Whether it is what somebody gets back: "got $31.40 back"."""
        return _BACK.search(self.after) is not None

    @property
    def _goes_off(self) -> bool:
        return _OFF.search(self.after[:24]) is not None

    @property
    def each(self) -> bool:
        """Whether it is the size of one of several."""
        return (EACH.search(self.clause) is not None and not self.quantity.is_count) or self._per

    @property
    def _per(self) -> bool:
        return (
            re.search(r"^\W*(?:each|apiece|per|for each|a piece|long each)\b", self.after) is not None
            or re.search(r"\b(?:each|every)\b[^.]*$", self.before) is not None
        )

    @property
    def part(self) -> bool:
        """Whether it is a fraction of something: "2/3 of the rope"."""
        number = self.quantity.number
        return (
            isinstance(number, Frac)
            and self.quantity.label is None
            and value(number) < 1
            and self.after.lstrip().startswith(("of ", "as "))
        )

    @property
    def compared(self) -> bool:
        """Whether it says how much more or less one thing is than another."""
        return (
            THAN.search(self.after) is not None
            and COMPARED.search(self.after[: self.after.lower().find("than") + 1]) is not None
        )

    @property
    def total(self) -> bool:
        """Whether it is said to be all there is."""
        return TOTAL.search(self.clause) is not None


_BEYOND = re.compile(
    r"\b(?:twice|times as|half as|double|less(?! than)|left over|as "
    r"many|whole|fit|fits|filled?|rectang\w*|square|triang\w*|it all|per|perimeter|area|average|mean|together "
    r"the|back|ga?ive[sn]? (?:him|her|them)|gave (?:him|her|them))\b",
    re.I,
)


def has_opinion(clues: Clues) -> bool:
    """Whether clues can tell: of two amounts in units of one kind, both told in statements, none of them for each of
    something.

    All else is beyond them, and they are not asked.
    """
    asked = (clues.told.question.start, clues.told.question.end)
    return (
        len(clues.all) == 2
        and all(one.quantity.unit is not None and one.quantity.unit.measure != "temperature" for one in clues.all)
        and not any(
            one.each
            or one.quantity.more
            or one.before.rstrip().endswith("with")
            or asked[0] <= one.quantity.start < asked[1]
            for one in clues.all
        )
        and not _BEYOND.search(clues.told.text)
        and not any(
            one.compared and one.sentence is other.sentence
            for one in clues.all
            for other in clues.all
            if one is not other
        )
    )


class Clues:
    """A told story with the clues of its numbers; those that count something else than is asked for are set aside."""

    def __init__(self, told: ToldText, told_sentences: list[Sentence]) -> None:
        self.told = told
        self.question = told.question.text
        self.sentences = told_sentences
        self.all = [
            _clue(i, one, told_sentences)
            for i, one in enumerate(told.quantities)
            if not one.clock and any(s.start <= one.start < s.end for s in told_sentences)
        ]
        self.needed, self.unneeded = self._sorted_out()

    def _sorted_out(self) -> tuple[list[Clue], list[Clue]]:
        """Numbers that are needed, and those of another measure than all the others, or than the unit that is asked
        for.
        """
        measures = [one.quantity.unit.measure for one in self.all if one.quantity.unit]
        asked = asked_unit(self.question)
        wanted = asked.measure if asked else Counter(measures).most_common(1)[0][0] if measures else None
        if wanted is None or wanted not in measures:
            return self._of_counts()
        other = [one for one in self.all if one.quantity.unit and one.quantity.unit.measure != wanted]
        grouped = (
            EQUALLY.search(self.told.text)
            or EACH.search(self.told.text)
            or any(one.part for one in self.all)
            or asked_noun(self.question)
        )
        times = [one for one in self.all if one.quantity.unit is None and not grouped and not _counts_groups(one)]
        useless = [*other, *times] if len(self.all) - len(other) - len(times) >= 2 else other
        return [one for one in self.all if one not in useless], useless

    def _of_counts(self) -> tuple[list[Clue], list[Clue]]:
        """Where only things are counted, those are needed whose noun is asked for or told more than once."""
        noun = asked_noun(self.question)
        labels = [one.quantity.label for one in self.all if one.quantity.label]
        if noun is None or len(self.all) < 3 or EQUALLY.search(self.told.text) or EACH.search(self.told.text):
            return list(self.all), []
        stray = [
            one
            for one in self.all
            if one.quantity.label and one.quantity.label != noun and labels.count(one.quantity.label) == 1
        ]
        fits = len(self.all) - len(stray) >= 2
        return ([one for one in self.all if one not in stray], stray) if fits else (list(self.all), [])

    # What is asked ---------------------------------------------------------------------------------------------------

    @cached_property
    def asks_total(self) -> bool:
        """Whether all there is together is asked for."""
        return TOTAL.search(self.question) is not None

    @cached_property
    def asks_left(self) -> bool:
        """Whether what is left, or is there now, is asked for."""
        return LEFT.search(self.question) is not None

    @cached_property
    def asks_first(self) -> bool:
        """Whether what was there before is asked for."""
        return (
            FIRST.search(self.question) is not None
            or re.search(r"\bdid .* (?:have|weigh|measure|hold|contain) (?:before|at first)\b", self.question)
            is not None
        )

    @cached_property
    def asks_difference(self) -> bool:
        """Whether how much more or less is asked for."""
        return (
            THAN.search(self.question) is not None and COMPARED.search(self.question) is not None
        ) or "difference" in self.question.lower()

    @cached_property
    def asks_each(self) -> bool:
        """Whether the size of one of several is asked for."""
        return EACH.search(self.question) is not None or re.search(r"\bone (?:[a-z]+)\b", self.question) is not None

    @cached_property
    def asks_number(self) -> bool:
        """Whether a number of things is asked for, and not an amount."""
        return asked_noun(self.question) is not None

    @cached_property
    def asks_of_change(self) -> bool:
        """Whether the question has a verb of change."""
        return _changes(self.question)

    @cached_property
    def tells_change(self) -> bool:
        """Whether the question, or a sentence without a number, has a verb of change."""
        homes = {one.sentence for one in self.all}
        others = [one.text for one in self.sentences if one not in homes]
        return any(_changes(text) for text in others) or any(one.gives_back or one.direction for one in self.needed)

    @cached_property
    def says_less(self) -> bool:
        """Whether the comparing word is one of being less."""
        return any(SMALLER.search(one.after[: one.after.lower().find("than")]) for one in self.needed if one.compared)

    @cached_property
    def says_after(self) -> list[Clue]:
        """The numbers that are said of the end."""
        return [
            one for one in self.needed
            if one.direction == 0 and (AFTER.search(one.clause) or _ENDS.match(one.sentence.text))
        ]  # fmt: skip


def _changes(text: str) -> bool:
    return any(word.lower() in GROWING or word.lower() in SHRINKING for word in _WORD.findall(text))


def _counts_groups(one: Clue) -> bool:
    """Whether a count stands before groups: "3 ropes of 5/12 m", "6 boards, each 2 1/4 ft long"."""
    return (
        one.quantity.is_count
        and re.search(r"^\W*(?:of|with|that|which|,? ?each|holding|long)\b", one.after) is not None
    )


def _clue(index: int, one: Quantity, told: list[Sentence]) -> Clue:
    home = next(s for s in told if s.start <= one.start < s.end)
    before, after = home.text[: one.start - home.start], home.text[one.end - home.start :]
    cuts = [found.end() for found in _CLAUSE.finditer(before)]
    stop = _CLAUSE.search(after)
    return Clue(index, one, home, before[cuts[-1] if cuts else 0 :], after[: stop.start() if stop else len(after)])
