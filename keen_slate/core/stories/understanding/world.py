"""A story as its rules see it: its text, its facts, what is asked; and what every finding has to fulfil."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cached_property

from ...reading.measures import ratio_of
from ..lexicon import base_of
from ..numbers import CARDINALS
from ..words import COMPARATIVES
from .abstract import TOKEN, Text
from .amounts import Amount, combined, in_unit
from .asked import AskedFor
from .clauses import Fact, facts_of
from .doubts import Doubt
from .relevance import look_at_question, of_measure
from .unused import look_at_unused
from .wording import ADVERBS, AUXILIARIES, DETERMINERS, PREPOSITIONS, PRONOUNS, TURNING, words

# Words of a statement after which it may tell of something else, or of more than its number does.
_RISKY = re.compile(
    rf"\b(?:one of (?:them|these|those|the)|another|others?|also|too|but|except|then|again|with a "
    rf"(?:break|pause|rest)|rests?|stops?|{COMPARATIVES})\b|\band (?:an?|the|some|one|his|her) (?:[a-z]+ "
    rf"?){{1,2}}(?=[.,]|$)",
    re.I,
)
# Words that are known beside a number, and turn the meaning of a sentence that has none.
_NOT_IN_SILENCE = frozenset(
    ["same", "half", "other", "one", "another", "part", "parts", "not", "rest", "remaining", "twice", "times"]
)
_IN_SILENCE = re.compile(
    r"\b(?:not|no|none|never|half|twice|thrice|same|one of "
    r"(?:them|these|those|the)|others?|another|except|instead|back|again|both|many|few|some of "
    r"(?:them|it)|less|fewer|missing|divided|split|shared?)\b",
    re.I,
)


def _turning(said: str) -> str | None:
    """The word of a sentence without a number that turns a meaning; the rest of something is told by itself."""
    if re.match(r"(?:the rest|the remainder|all (?:the )?others?|the others?)\b(?! half)", said, re.I):
        return None
    found = _IN_SILENCE.search(said)
    return found.group() if found else None


_UNTOLD = re.compile(r"\b(?:some|several|many|a few|a little|a bit)\b(?! of (?:it|them)\b)", re.I)


@dataclass(frozen=True, slots=True)
class Finding:
    """What is found: the *answer*, its situation and unknown, and why it is not certain."""

    answer: Amount
    situation: str
    unknown: str
    doubts: tuple[Doubt, ...] = ()


@dataclass
class World:
    """A story: its *text* and what is *asked*."""

    text: Text
    asked: AskedFor
    may_name: frozenset[str] = frozenset()  # things that a question may name though nothing was told of them

    @cached_property
    def facts(self) -> list[Fact]:
        """The facts of its statements; what a sentence without a number says of them is doubtful where a word in it
        turns a meaning.
        """
        found = facts_of(self.text)
        for said in self.text.statements:
            if TOKEN.search(said):
                continue
            untold = re.search(r"\b(?:some|several|many|a few|a little|a bit|more)\b", said, re.I)
            if untold and not any(one.amount is None and one.clause and one.clause in said for one in found):
                self.text.doubt("number-missing", f"It is not told how much “{untold.group()}” is.", untold.group())
            if (turning := _turning(said)) is not None:
                self.text.doubt("sentence-unclear", f"It is not clear what “{turning}” says of the numbers.", turning)
        return found

    @cached_property
    def tokens(self) -> list[tuple[str, int]]:
        """Kind and number of every token, in order."""
        return [(kind, int(i)) for kind, i in TOKEN.findall(self.text.all)]

    @property
    def needed(self) -> list[tuple[str, int]]:
        """The tokens that nothing sets aside."""
        return [one for one in self.tokens if one[1] not in self.text.aside]

    def says(self, pattern: str) -> re.Match[str] | None:
        """Where the statements or the question say so."""
        return re.search(pattern, self.text.all, re.I)

    def asks(self, pattern: str) -> re.Match[str] | None:
        """Where the question says so."""
        return re.search(pattern, self.text.question, re.I)

    def amounts(self, kinds: str = "undf") -> list[Amount]:
        """The amounts of some kinds of tokens that nothing sets aside."""
        return [self.text.amounts[i] for kind, i in self.needed if kind in kinds]

    # What is found ---------------------------------------------------------------------------------------------------

    def found(self, answer: Amount, situation: str, unknown: str) -> Finding | None:
        """An *answer* in the unit that is asked for; None where it cannot be what is asked for."""
        unit = self.asked.unit
        if unit is not None:
            if answer.unit is None or ratio_of(answer.unit, unit) is None:
                return None
            answer = in_unit(answer, unit)
            if (
                answer.operator in ("×", "÷")
                and answer.name.startswith("the ")
                and situation not in ("steps",)
                and answer.made[0][1].operator
            ):
                situation, unknown = "steps", "answer"
        elif (
            self.asked.measure
            and answer.unit
            and answer.unit.measure != self.asked.measure
            and self.asked.measure != "time"
        ) or (self.asked.noun and answer.unit is not None):
            return None
        if not of_measure(self.text.question, answer, self.asked.fraction):
            return None
        look_at_question(self.text, facts_of(self.text.copy()), self.may_name, situation, unknown)
        look_at_unused(self.text, self.asked, answer)
        below = answer.number < 0
        if (
            below
            and not any(one.number < 0 for one in self.text.amounts)
            and not (answer.unit and answer.unit.measure == "temperature")
        ):
            self.text.doubt("impossible", "The answer would be below zero.")
        return Finding(answer, situation, unknown)

    def takes(self, facts: list[Fact]) -> list[Fact]:
        """Facts that a rule works with: what is doubtful about them is doubtful about its finding."""
        for one in facts:
            self.text.doubts += [doubt for doubt in one.doubts if doubt not in self.text.doubts]
        return facts

    # Words -----------------------------------------------------------------------------------------------------------

    def look_at_words(self, allowed: str = "", untold: bool = False) -> None:
        """Note a doubt for every word that turns a meaning and is not *allowed*; for amounts not told, but where they
        may be *untold*.
        """
        every = frozenset(allowed.split())
        for said in [*self.text.statements, self.text.question]:
            may = every - _NOT_IN_SILENCE if said is not self.text.question and not TOKEN.search(said) else every
            plain = words(said)
            for i, written in enumerate(plain):
                word = written.lower()
                if (word in TURNING or (word in CARDINALS and word != "one")) and word not in may:
                    self.text.doubt("word-unclear", f"It is not clear what “{written}” says.", written)
                known = (
                    word in DETERMINERS | PREPOSITIONS | PRONOUNS | AUXILIARIES | ADVERBS or base_of(word) is not None
                )
                if not known and i and not written[0].isupper() and plain[i - 1].lower() in PRONOUNS - DETERMINERS:
                    self.text.doubt("verb-unknown", f"It is not known what “{written}” does.", written)
            for found in _RISKY.finditer(said if said is not self.text.question else ""):
                if found.group().lower() not in may:
                    self.text.doubt(
                        "sentence-unclear",
                        f"It is not clear what “{found.group()}” says of the numbers.",
                        found.group(),
                    )
        for said in self.text.statements:
            if not untold and (missing := _UNTOLD.search(said)) is not None:
                self.text.doubt("number-missing", f"It is not told how much “{missing.group()}” is.", missing.group())

    def total(self, amounts: list[Amount], name: str = "all together") -> Amount:
        """A sum of amounts."""
        return combined([("+", one) for one in amounts], self.asked.unit, name)
