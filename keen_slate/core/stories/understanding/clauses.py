"""From sentences to facts: one for each number, with the verb that tells what happens to it. Every word near a number
has to be known.

A clause that leaves out what stands in the one before it takes it from there, the verb too: "and then 2 2/3 m more"."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from ..lexicon import Verb, base_of, particles_of, verb_in
from ..numbers import CARDINALS
from ..words import COMPARATIVES, COMPARATIVES_OF_ALL, words_of
from .abstract import CLOCK, TOKEN, Text
from .amounts import Amount
from .clause_verbs import TIMES, is_noun, taking_time, verb_at
from .doubts import Doubt
from .splitting import FACTOR, clauses_of, with_wholes, without_count
from .wording import (
    ADVERBS,
    AUXILIARIES,
    DETERMINERS,
    LITTLE,
    PREPOSITIONS,
    PRONOUNS,
    TURNING,
    content,
    names_in,
    words,
)


@dataclass(frozen=True, slots=True)
class Fact:
    """What is told of an *amount* (None: of one that is not told): its *verb*, the words that say of whom or what
    (*who*), and all its *keys*.

    *named* are the names among them. *than* is the word by which it is compared, *thing* with what; *factor* that it is
    so many times as much; *more* that it comes to what was told before; *total* that it is all together; *each* that it
    is the size of one of several; *part* that it is a fraction of something; *end* that it is said of the end, *start*
    of the beginning; *rest* of what is not told otherwise.
    """

    amount: Amount | None
    verb: Verb
    who: frozenset[str]
    keys: frozenset[str]
    named: frozenset[str]
    clause: str
    sentence: int
    than: str = ""
    thing: frozenset[str] = frozenset()
    factor: Amount | None = None
    more: bool = False
    total: bool = False
    each: bool = False
    part: bool = False
    end: bool = False
    start: bool = False
    rest: bool = False
    noun: str = ""  # of what it is one of each: "per metre"
    explicit: bool = True  # whether its clause has a verb of its own
    doubts: tuple[Doubt, ...] = ()

    @property
    def effect(self) -> str:
        """What its verb does to the amount."""
        return self.verb.effect


_COMPARED = re.compile(
    rf"^\W*(?:[a-z]+ )?(?P<word>{COMPARATIVES_OF_ALL})\b(?:(?: [a-z]+){{0,3}}? than (?P<thing>.+))?(?P<rest>.*)$",
    re.I,
)


_TOTAL = re.compile(
    r"\b(?:in all|altogether|all together|together|in total|all told|Together|a total of|combined|between them)\b", re.I
)


_LEFT = re.compile(
    r"\b(?:left(?! (?:at|the|for|in the (?:morning|afternoon)|home|his|her))|remain(?:s|ed|ing)?|left over|in the "
    r"end|at the end|finally|afterwards|still|now|over)\b",
    re.I,
)


_END = re.compile(
    r"^\W*(?:and |but |so )?(?:now|finally|in the end|at the end|after that|afterwards|then|today|by now|so "
    r"that)\b|\bnow\b|\b(?:came home|come home|came back|still)\b",
    re.I,
)


_STARTED = re.compile(
    r"\b(?:at first|before|to begin with|at the start|originally|when .*\b(?:began|started|new|full)|when it was)\b",
    re.I,
)


COMPARING = frozenset(COMPARATIVES.split("|"))


_EACH = re.compile(r"\b(?:[Ee]ach(?: of)?|[Ee]very|apiece|per [a-z]+)\b")


def facts_of(text: Text) -> list[Fact]:
    """The facts that the statements of a text tell, in their order; what is not clear is noted in the text."""
    facts: list[Fact] = []
    for n, statement in enumerate(text.statements):
        plain = re.sub(CLOCK, "x", statement)
        for whole, said in with_wholes(without_count(plain)):
            for clause, doubtful in clauses_of(text, said):
                known, text.doubts = text.doubts, list(doubtful)
                told = _facts(text, clause, facts, whole)
                facts += [replace(one, sentence=n, doubts=tuple(text.doubts)) for one in told]
                text.doubts = known
    for i, one in enumerate(facts[:-1]):  # "three ropes and a rope of 2 m are tied together": the verb comes last
        later = facts[i + 1]
        if (
            any(doubt.code == "verb-missing" for doubt in one.doubts)
            and later.sentence == one.sentence
            and later.amount is not None
            and later.explicit
        ):
            facts[i] = replace(
                one, verb=later.verb, doubts=tuple([doubt for doubt in one.doubts if doubt.code != "verb-missing"])
            )
    return [one for i, one in enumerate(facts) if not _told_later(one, facts[i + 1 :])]


def _told_later(one: Fact, later: list[Fact]) -> bool:
    """Whether a thing that comes without a number is one of which an amount is told later: "gets a new rod ... the rod
    adds 2 m".
    """
    if one.amount is not None or _UNTOLD.search(one.clause):
        return False
    things = frozenset(
        re.findall(r"\b(?:a|an) (?:new )?(?:[a-z]+ )??([a-z]+)(?=[,.]|$| (?:to|for|on|in|into|with)\b)", one.clause)
    )
    return any(things & fact.keys for fact in later if fact.amount is not None)


def _facts(text: Text, clause: str, before: list[Fact], whole: bool) -> list[Fact]:
    last = before[-1] if before else None
    clause = clause.strip(" ,;.")
    factor = None
    if (times := FACTOR.search(clause)) is not None:
        factor = text.amount(times["times"] or times["part"])
        thing = content(times["thing"] or times["of"] or "")
        rest = clause[: times.start()] + clause[times.end() :]
        if not TOKEN.search(rest):
            return [_told_times(text, rest, factor, thing, last)]
        clause = rest  # "12.8 m tall, four times as tall as the hedge"
    found = list(TOKEN.finditer(clause))
    if not found:
        return _of_silent(text, clause, last)
    return [_fact(text, clause, found[0], last, whole)]


def _told_times(text: Text, clause: str, factor: Amount, thing: frozenset[str], last: Fact | None) -> Fact:
    who = content(re.sub(r"\b(?:is|are|was|were|has|had|have)\b.*", "", clause))
    _look(text, [w for w in words(clause) if w.lower() not in ("that", "this")], None)
    return Fact(
        None,
        last.verb if last else Verb("be", "is"),
        who,
        content(clause),
        names_in(clause),
        clause,
        0,
        factor=factor,
        thing=thing,
    )


@dataclass
class _Taken:
    """A clause around its number, and what was taken off it so far: the words *before* and *after* are what is left to
    look at.
    """

    before: str
    after: str
    amount: Amount
    than: str = ""
    thing: frozenset[str] = frozenset()
    more: bool = False
    total: bool = False
    each: bool = False
    start: bool = False
    end: bool = False
    rest: bool = False
    noun: str = ""

    @property
    def said(self) -> str:
        """What is left of the clause."""
        return f"{self.before} {self.after}"

    def fact(self, verb: Verb, who: frozenset[str], clause: str, part: bool) -> Fact:
        """The fact that it is, with a *verb*, of somebody or something."""
        return Fact(
            self.amount, verb, who, content(self.said), names_in(self.said), clause, 0, than=self.than,
            thing=self.thing, more=self.more,
            total=self.total, each=self.each, part=part, end=self.end, start=self.start, rest=self.rest, noun=self.noun,
        )  # fmt: skip


def _fact(text: Text, clause: str, token: re.Match[str], last: Fact | None, whole: bool) -> Fact:
    """The fact that a clause tells of its number, every word of it looked at."""
    index = int(token.group(2))
    taken = _Taken(
        clause[: token.start()].strip(" ,:"), clause[token.end() :].strip(" ,."), text.amount(index), start=whole
    )
    part = token.group(1) == "f" and re.match(r"[a-z]", taken.after) is not None
    for take in (_take_rest, _take_more, _take_comparison, _take_total, _take_each, _take_start):
        take(taken)
    ahead, behind = words(taken.before), words(taken.after)
    if taken.amount.unit is None and taken.amount.noun in behind[:3]:  # what is counted is no verb: "4 loads remain"
        behind = behind[behind.index(taken.amount.noun) + 1 :]
    at, word = verb_at(ahead, behind)
    taken.end = (
        taken.rest
        or any(
            pattern.search(said) for pattern, said in ((_LEFT, taken.after), (_END, taken.before), (_END, taken.after))
        )
        or (word is not None and base_of(word) == "keep")
    )
    who = _who(taken, ahead[:at] if at < len(ahead) else ahead, last)
    if clause[: token.start()].rstrip().endswith(":"):  # a row of a table
        return replace(taken.fact(Verb("be", "is"), content(taken.before), clause, part), named=frozenset())
    look = ["the" if i == at else w for i, w in enumerate(ahead)] + behind
    if re.search(r"\b(?:way|walk|ride|trip|journey|hike|drive|road|path) back\b", taken.said):
        look = [w for w in look if w.lower() != "back"]
    if word is None:
        return _without_verb(
            text, taken.fact(Verb("be", "is"), who, clause, part), taken.before, ahead, look, index, last
        )
    verb = _verb(
        taken, word, ahead[at + 1 :] + behind[:4] if at < len(ahead) else behind[behind.index(word) + 1 :][:4], text
    )
    if verb is not None:
        back = (
            verb.effect == "does" and taken.amount.unit is not None and taken.amount.unit.measure in ("length", "time")
        )
        look = [w for w in look if w.lower() not in particles_of(verb.base) and not (back and w.lower() == "back")]
    else:
        text.doubt("verb-unknown", f"It is not known what “{word}” does to the {_said(text, index)}.", word)
        verb = Verb(base_of(word) or word, "does")
    if (
        taken.more
        and not taken.end
        and verb.effect == "is"
        and taken.before
        and re.match(r"(?:[a-z]+ )?more\b", taken.after)
    ):
        text.doubt("more-than-what", f"{_said(text, index)} more than what was told before, or besides it?", index)
    _look(text, look, index)
    return taken.fact(verb, who, clause, part)


def _take_rest(taken: _Taken) -> None:
    """ "The rest is ...": what is not told otherwise; a rest that somebody takes is a pause; a part of the way is a
    piece.
    """
    taken.before = re.sub(r"\b(?:only|just|already|exactly|another time)$", "", taken.before).strip()
    taken.before = re.sub(
        r"\b(first|second|third|fourth|other|the|this|that|last) (?:part|half|third|quarter)\b",
        r"\1 piece",
        taken.before,
    )
    taken.before = re.sub(r"\b[Aa] (?:short |long |little )?rest\b", "a pause", taken.before)
    found = re.match(r"(?:and )?(?:the (?:rest|remainder)|what is left|all (?:the )?others)\b", taken.before, re.I)
    if found is not None:
        taken.rest = True
        taken.before = taken.before[found.end() :].strip() or "it"


def _take_more(taken: _Taken) -> None:
    """ "Another 2 m", "2 m more": it comes to what was told before."""
    ahead = re.search(r"\b(?:another|further|extra|an additional)$", taken.before)
    behind = re.match(r"(?:[a-z]+ )?(?:more|further|farther|extra)\b(?! than)", taken.after)
    taken.more = ahead is not None or behind is not None
    if ahead is not None:
        taken.before = taken.before[: ahead.start()].strip()


def _take_comparison(taken: _Taken) -> None:
    """ "3 m longer than the blue one"; "more" without "than" compares nothing."""
    found = _COMPARED.match(taken.after)
    if found is None or found["word"].lower() in ("later", "earlier"):
        return
    if found["word"].lower() in ("more", "further", "farther") and not found["thing"]:
        return
    taken.than, taken.thing, taken.more = found["word"].lower(), content(found["thing"] or ""), False
    taken.after = f"{found['rest'] or ''} {found['thing'] or ''}"


def _take_total(taken: _Taken) -> None:
    """ "In all", "together"; "both together", where without the word each might be meant."""
    taken.total = _TOTAL.search(f"{taken.before} … {taken.after}") is not None
    taken.before, taken.after = _TOTAL.sub("", taken.before).strip(" ,"), _TOTAL.sub("", taken.after).strip(" ,")
    if taken.total:
        taken.before = re.sub(r"\b[Bb]oth(?: of)?\b", "the", taken.before)


def _take_each(taken: _Taken) -> None:
    """ "Each", "per metre", "a box"."""
    taken.noun = _per(taken.before, taken.after, taken.amount)
    taken.each = bool(taken.noun) or _EACH.search(taken.said) is not None
    if taken.each:
        taken.before, taken.after = _EACH.sub("the", taken.before), _EACH.sub("", taken.after)
    if taken.noun:
        taken.after = re.sub(r"^(?:for |in )?(?:an?|one|per|each|every) [a-z-]+\b", "", taken.after)


def _take_start(taken: _Taken) -> None:
    """ "At first", "when it was new": it is said of the beginning."""
    taken.start = taken.start or _STARTED.search(f"{taken.before} … {taken.after}") is not None
    if taken.start:
        taken.after = re.sub(r"\bwhen .*", "", taken.after)


def _who(taken: _Taken, said: list[str], last: Fact | None) -> frozenset[str]:
    """The words that say of whom or what a clause tells, without the day or the place that it begins with."""
    subject = " ".join(said)
    bare = content(_LEAD.sub("", subject))
    if not bare and _LEAD.match(subject) and last is not None:
        return last.who
    return bare or content(subject) or content(taken.said)


_ARRIVING = words_of("come arrive return")
_SETTING_OUT = words_of("go start begin leave set")
_REACHING = words_of("rise fall grow climb drop sink increase shrink cool fill go")


def _verb(taken: _Taken, word: str, after: list[str], text: Text) -> Verb | None:
    """What the verb of a clause does to its number; None where that is not known."""
    particles = frozenset([w.lower() for w in after]) & LITTLE - {"of"}
    if re.match(r"of (?:it|them|this|these|the|his|her)\b", taken.after):
        particles |= {"of"}
    base, unit = base_of(word), taken.amount.unit
    measure = unit.measure if unit else ""
    if taken.before.endswith(" with") and unit and base in _ARRIVING | _SETTING_OUT:
        taken.end, taken.start = taken.end or base in _ARRIVING, taken.start or base in _SETTING_OUT
        return Verb("have", "is")
    if taken.before.endswith(" to") and base in _REACHING:
        taken.end = taken.end or base != "fill"
        return Verb("be", "is")
    if base in ("take", "choose", "follow") and re.search(
        r"\b(?:way|path|route|road|detour|track|trail)\b", taken.before
    ):
        return Verb("walk", "does")
    if base == "fall" and {"rain", "snow", "rainfall", "hail"} & content(text.all):
        return Verb("fall", "does")
    verb = taking_time(word) if measure == "time" else verb_in(word, particles)
    if verb and measure == "money" and verb.base in ("sell", "buy"):
        return Verb(verb.base, "comes" if verb.base == "sell" else "costs")
    return verb


_LEAD = re.compile(
    r"^(?:[Oo]n|[Ii]n|[Aa]t|[Bb]y|[Dd]uring|[Aa]fter|[Bb]efore|[Tt]his|[Ll]ast|[Nn]ext) (?:the |that |his |her |a "
    r")?(?:first |second |third |same |next |last )?[\w-]+(?: (?=it\b|he\b|she\b|they\b|there\b|the\b|[A-Z])|$)"
)


def _said(text: Text, index: int) -> str:
    return text.words_of(index) if index < len(text.told.quantities) else "amount"


_PER = re.compile(
    r"^(?:of [a-z]+ )?(?:(?:for |in )?(?:an?|one|each|every)|per) (?P<noun>[a-z-]+(?: (?:metre|meter|yard|foot)s?)?)\b"
)


def _per(before: str, after: str, amount: Amount) -> str:
    """The noun of which an amount is that of one: "$48 per cubic yard", "18 pages a minute", "each box holds 3 kg"."""
    found = _PER.match(after)
    money = amount.unit is not None and amount.unit.measure == "money"
    if found and (
        re.match(r"(?:of [a-z]+ )?(?:per|each|every|for one|for each|for every)\b", after)
        or found["noun"] in TIMES
        or money
    ):
        return found["noun"]
    found = re.search(r"\b(?:[Ee]ach|[Ee]very) ([a-z-]+)", before)
    return found.group(1) if found and found.group(1) != "of" else ""


def _without_verb(
    text: Text, bare: Fact, before: str, ahead: list[str], look: list[str], index: int, last: Fact | None
) -> Fact:
    """A fact whose clause has no verb of its own: it takes that of the clause before."""
    if bare.end and not ahead:
        _look(text, look, index)
        return replace(bare, verb=Verb("remain", "is"), who=bare.keys)
    if last is None:
        text.doubt("verb-missing", f"It is not clear what happens to the {_said(text, index)}.", index)
        return replace(bare, who=bare.keys)
    if ahead and not _is_place(ahead) and not _is_thing(before):
        text.doubt("verb-unknown", f"It is not known what “{ahead[-1]}” does to the {_said(text, index)}.", ahead[-1])
    verb = last.verb
    if verb.effect == "does":
        look = [w for w in look if w.lower() != "back"]
    _look(text, look, index)
    particles = frozenset(w.lower() for w in look[:3]) & words_of("back down up")
    keys = bare.keys
    if (of := re.search(r"> of ([a-z]+(?: [a-z]+)?)", last.clause)) is not None and not re.search(
        r"> of ", bare.clause
    ):
        keys |= content(of[1]) & last.keys
    if not _is_subject(before):
        keys |= last.who
    return replace(
        bare, verb=(verb_in(verb.base, particles) if particles else None) or verb, who=content(before) or last.who,
        keys=keys or last.keys,
        named=bare.named or last.named, explicit=False, end=bare.end or (last.end and not bare.more),
    )  # fmt: skip


def _is_subject(before: str) -> bool:
    """Whether a clause without a verb says of whom it tells."""
    return re.match(
        r"(?:and )?(?:[A-Z]\w+|the (?:other|second|third|first|last)|a |an |the |his |her )", before
    ) is not None and not re.match(r"(?:On|In|At|After|Before|By|During|Then|And)\b", before)


def _is_place(said: list[str]) -> bool:
    """Whether words say when or where: "on Sunday", "in the afternoon"."""
    return said[0].lower() in PREPOSITIONS or all(w.lower() in ADVERBS | DETERMINERS for w in said)


_THING = re.compile(
    r"\s*(?:and )?(?:(?:the|a|an|another|one|his|her|that|this|some) (?:[\w'’-]+ ){0,4}|[A-Z]\w+ (?:and [A-Z]\w+ "
    r")?|[A-Z]\w+['’]s (?:[a-z]+ )?|(?:on|in|for|with|from) (?:the )?[\w ]+ )",
    re.I,
)


def _is_thing(said: str) -> bool:
    """Whether words name another thing: "a stove of", "the second", "Alder"."""
    return _THING.fullmatch(f"{said.strip()} ") is not None


def _look(text: Text, said: list[str], index: int | None) -> None:
    """Note a doubt about a word that changes what a number means, or that is not known to be a name or a noun."""
    named = False
    about = f" of the {_said(text, index)}" if index is not None else ""
    for i, written in enumerate(said):
        word = written.lower()
        if word == "short" and i and said[i - 1].lower() in DETERMINERS:
            continue
        if word in TURNING or (word in CARDINALS and word != "one"):
            text.doubt("word-unclear", f"It is not clear what “{written}” says{about}.", written)
        noun = word not in DETERMINERS | PREPOSITIONS | PRONOUNS | AUXILIARIES | ADVERBS | COMPARING
        if (
            noun
            and not named
            and not written[0].isupper()
            and not word.endswith(("'s", "’s"))
            and base_of(word) is None
            and i > 0
            and said[i - 1].lower() in PRONOUNS - DETERMINERS
        ):
            text.doubt("verb-unknown", f"It is not known what “{written}” does.", written)
        named = not noun and word in DETERMINERS | PREPOSITIONS


_UNTOLD = re.compile(r"\b(?:some|several|many|a few|a bit|a little|a part|part of)\b", re.I)


def _of_silent(text: Text, clause: str, last: Fact | None) -> list[Fact]:
    """What a clause without a number tells: an amount that is not told, where its verb is one of change; or the rest of
    something.
    """
    said = words(clause)
    if not said:
        return []
    if re.match(r"(?:and )?(?:the rest|the remainder|(?:all )?the others?|all others)\b", clause, re.I):
        bare = re.sub(r"^(?:and )?(?:the rest|the remainder|(?:all )?the others?|all others)\b", "", clause, flags=re.I)
        return [Fact(None, Verb("be", "is"), content(bare), content(bare), names_in(bare), clause, 0, rest=True)]
    for i, word in enumerate(said):
        little = frozenset([w.lower() for w in said[i + 1 : i + 5]]) & LITTLE
        base = base_of(word)
        if base is None or is_noun(said, i):
            continue
        verb = verb_in(word, little)
        if verb is None:
            continue
        if verb.effect in ("comes", "goes", "does") and _UNTOLD.search(clause):
            return [Fact(None, verb, content(" ".join(said[:i])), content(clause), names_in(clause), clause, 0)]
        if verb.effect in ("comes", "goes"):
            return [Fact(None, verb, content(" ".join(said[:i])), content(clause), names_in(clause), clause, 0)]
    return []
