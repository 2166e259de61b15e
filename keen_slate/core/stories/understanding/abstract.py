"""A story with a token for each of its numbers: `<u0>` an amount with a unit, `<n1>` a count, `<f2>` a fraction, `<c3>`
a time of the clock, `<d4>` another number. Numbers that are names, dates, years or ages are set aside with their
reason.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace
from fractions import Fraction

from ...expressions.tree import Frac, Neg, Whole
from ..calculation import ToldText
from ..numbers import Quantity
from ..question import Sentence
from .amounts import Amount, plain, stem, told
from .doubts import Doubt

TOKEN = re.compile(r"<([undfc])(\d+)>")
UNIT = r"<u(\d+)>"
COUNT = r"<n(\d+)>"
CLOCK = r"<c(\d+)>"
_MONTHS = "January|February|March|April|May|June|July|August|September|October|November|December"
_ASIDE = (
    ("a date", re.compile(rf"<n(\d+)> (?:{_MONTHS})\b(?! \w+ed\b)")),
    ("a date", re.compile(rf"\b(?:{_MONTHS}) <n(\d+)>(?=[ ,.])")),
    ("a year", re.compile(r"\b(?:in|since|of|from|year) <n(\d+)>(?= \w|[.,]|$)")),
    ("an age", re.compile(r",? ?who (?:is|are|was) <n(\d+)>(?: years old)?,?")),
    ("an age", re.compile(r"\b(?:is|are|was) <n(\d+)> years old(?=[.,]| and)")),
    ("an age", re.compile(r",? ?aged <n(\d+)>,?")),
    ("a name", re.compile(r"<n(\d+)>-(?=[a-z])")),
    ("a name", re.compile(r"\b(?:page|pages|room|class|grade|year|platform|number|bus|tram|chapter|house|lane|gate|"
                          r"pier|door|exercise|no\.) <[nd](\d+)>(?:[a-z]\b)?", re.I)),
    ("a time of the day", re.compile(r"\b(?:the|a|an|The|A|An|her|his|their) <c(\d+)>(?= [a-z])")),
)  # fmt: skip


@dataclass
class Text:
    """A story with tokens: its *statements*, its *question*, the *amounts* by the number of their token, what is set
    *aside*, its *doubts*.

    Rules rewrite statements and question, and add amounts; what is found doubtful on the way is noted.
    """

    told: ToldText
    statements: list[str]
    question: str
    amounts: list[Amount]
    aside: dict[int, str] = field(default_factory=dict)
    doubts: list[Doubt] = field(default_factory=list)

    def copy(self) -> Text:
        """The same text for a rule to rewrite."""
        return Text(
            self.told, list(self.statements), self.question, list(self.amounts), dict(self.aside), list(self.doubts)
        )

    def amount(self, index: str | int) -> Amount:
        """The amount of a token."""
        return self.amounts[int(index)]

    def add(self, amount: Amount) -> str:
        """A token for a new *amount*."""
        self.amounts.append(amount)
        return f"<{'u' if amount.unit else 'n' if amount.number.denominator == 1 else 'd'}{len(self.amounts) - 1}>"

    def doubt(self, code: str, message: str, about: str | int | None = None) -> None:
        """Note a doubt about a word, a quantity, or the question."""
        self.doubts.append(self.doubtful(code, message, about))

    def doubtful(self, code: str, message: str, about: str | int | None = None) -> Doubt:
        """A doubt with its place: that of a word, of a quantity, or of the question."""
        if isinstance(about, int) and about < len(self.told.quantities):
            one = self.told.quantities[about]
            return Doubt(code, message, one.start, one.end - one.start)
        if isinstance(about, str) and (found := re.search(rf"\b{re.escape(about)}\b", self.told.text)) is not None:
            return Doubt(code, message, found.start(), len(about))
        start = self.told.question.start
        return Doubt(code, message, start, self.told.question.end - start)

    @property
    def all(self) -> str:
        """Statements and question in one."""
        return ". ".join([*self.statements, self.question])

    def words_of(self, index: int) -> str:
        """How a quantity is told."""
        return self.told.quantities[index].text


def token_of(i: int, one: Quantity, as_things: bool = False) -> str:
    """The token of quantity *i*; a fraction of one of the things that are counted is no fraction of anything else."""
    number = one.number.inner if isinstance(one.number, Neg) else one.number
    kind = (
        "c"
        if one.clock
        else "u"
        if one.unit
        else "d"
        if isinstance(number, Frac) and as_things
        else "n"
        if isinstance(number, Whole)
        else "f"
        if isinstance(number, Frac)
        else "d"
    )
    return f"<{kind}{i}>"


def abstract(story: ToldText, sentences: list[Sentence]) -> Text:
    """The text of a story with tokens for its numbers."""
    statements, question = [], ""
    for sentence in sentences:
        said, at = "", sentence.start
        for i, one in enumerate(story.quantities):
            if sentence.start <= one.start < sentence.end:
                things = _counts_alike(story, i, one)
                said += story.text[at : one.start] + token_of(i, one, things)
                at = one.end if one.unit or things else one.number_end
                if one.more:
                    said += " more"
        said = re.sub(r"\s+", " ", said + story.text[at : sentence.end]).strip(" .?!")
        if sentence.start == story.question.start:
            question = said
        else:
            statements.append(said)
    text = Text(story, statements, question, [told(i, one) for i, one in enumerate(story.quantities)])
    for i in range(len(story.quantities)):
        if not any(f"{i}>" in said for said in (*statements, question)):
            text.aside[i] = "of another question"
    _look_at_rows(text)
    _set_aside(text)
    _ask_apart(text)
    _name(text)
    return text


_ROW = re.compile(r"^(?P<name>[^:<]{1,30}):(?P<rest>.*)$")


def _look_at_rows(text: Text) -> None:
    """Note a doubt about a row of a table that has a name and no amount."""
    rows = [found for one in text.statements if (found := _ROW.match(one))]
    if any(TOKEN.search(one["rest"]) for one in rows):
        for one in rows:
            if not one["rest"].strip():
                text.doubt(
                    "number-missing", f"It is not told how much “{one['name'].strip()}” is.", one["name"].strip()
                )


def _counts_alike(story: ToldText, i: int, one: Quantity) -> bool:
    """Whether "2/5 of a bucket" is of the buckets that are counted elsewhere."""
    asks_fraction = re.search(r"\b(?:fraction|part|share)\b", story.question.text, re.I) is not None
    return isinstance(one.number, Frac) and one.label is not None and not asks_fraction and any(
        other.label is not None and other.unit is None and stem(other.label) == stem(one.label)
        for j, other in enumerate(story.quantities) if j != i
    )  # fmt: skip


def _set_aside(text: Text) -> None:
    def aside(found: re.Match[str], reason: str) -> str:
        index = int(found.group(1))
        number = text.amounts[index].number
        if reason == "a year" and not 1000 <= number <= 2200:
            return found.group()
        text.aside[index] = reason
        if reason == "an age":
            return "" if not found.group().startswith(("is", "are", "was")) else "is young"
        return TOKEN.sub("x", found.group())

    for way, word in ((r"\bway (?:out|there)\b", "outway"), (r"\bway (?:back|home)\b", "backway")):
        text.statements = [re.sub(way, word, one) for one in text.statements]
        text.question = re.sub(way, word, text.question)
    for reason, pattern in _ASIDE:
        if reason == "an age" and re.search(r"\b(?:old|older|younger|age)\b", text.question):
            continue
        text.statements = [pattern.sub(lambda found, r=reason: aside(found, r), one) for one in text.statements]  # type: ignore[misc]
        if reason != "a time of the day":
            text.question = pattern.sub(lambda found, r=reason: aside(found, r), text.question)  # type: ignore[misc]


_IF = re.compile(r"^(?P<before>.*?)(?:,? (?:if|when|given that) (?P<told>.*<[undfc]\d+>.*))$", re.I)
_IF_FIRST = re.compile(
    r"^(?:if|when) (?P<told>.*<[undfc]\d+>.*), (?P<asked>(?:how|what|which|at what|by how)\b.*)$", re.I
)
_STATED_FIRST = re.compile(
    r"^(?P<told>[A-Z].*<[undfc]\d+>.*)[,;:] (?:so )?(?P<asked>(?:how|what|which|at what|by how)\b[^<]*)$"
)


_IN_WHOLE = re.compile(
    r" (?P<prep>in|on|of|from) (?:a|an|the) (?P<thing>(?:[a-z]+ )?[a-z]+) (?:of|holding|with) (?P<token><[un]\d+>)(?: "
    r"of [a-z]+)?"
)


def _ask_apart(text: Text) -> None:
    """What a question tells after "if" is a statement."""
    for pattern in (_IF, _IF_FIRST, _STATED_FIRST):
        if (found := pattern.match(text.question)) is not None:
            parts = found.groupdict()
            text.question = parts.get("before") or parts.get("asked") or ""
            if (whole := _IN_WHOLE.search(text.question)) is not None:
                text.statements.append(f"There is {whole['token']} in the {whole['thing']}")
                text.question = (
                    text.question[: whole.start()]
                    + f" {whole['prep']} the {whole['thing']}"
                    + text.question[whole.end() :]
                )
            text.statements.append(parts["told"])
            return


_LEVEL = re.compile(r"\b(?:level|floor|storey) <n(\d+)>", re.I)
_TWICE = re.compile(
    r"\b(?:[Tt]wice|[Dd]ouble)(?= (?:as|the "
    r"(?:length|weight|height|price|amount|number|size|width|depth|distance|time))\b)"
)


def _name(text: Text) -> None:
    """Levels are of levels; "twice as" is "2 times as"."""
    for found in _LEVEL.finditer(text.all):
        i = int(found.group(1))
        text.amounts[i] = replace(text.amounts[i], noun="levels")

    def twice(_: re.Match[str]) -> str:
        return text.add(plain(2, "twice")) + " times"

    text.statements = [_TWICE.sub(twice, one) for one in text.statements]
    text.question = _TWICE.sub(twice, text.question)


def value_of(text: Text, index: str | int) -> Fraction:
    """The number of a token."""
    return text.amount(index).number
