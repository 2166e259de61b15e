"""From sentences to facts: one for each number, with the verb that tells what happens to it. Every word near a number has to be known.

A clause that leaves out what stands in the one before it takes it from there, the verb too: "and then 2 2/3 m more".
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from ..expressions.tree import Frac
from .calculation import Told
from .numbers import CARDINALS, Quantity
from .question import Sentence
from .verbs import Verb, base_of, verb_in
from .words import COMPARATIVES, words_of


@dataclass(frozen=True, slots=True)
class Doubt:
    """Why a story is not certain: a *code*, a sentence, and the place in the text that it is about."""

    code: str
    message: str
    position: int
    length: int


class DoubtError(Exception):
    """A clause is not understood."""

    def __init__(self, doubt: Doubt) -> None:
        super().__init__(doubt.message)
        self.doubt = doubt


@dataclass(frozen=True, slots=True)
class Fact:
    """What is told of the quantity *index* (None: of an amount that is not told): its *verb*, whose it is, when.

    *who* are the words that say of whom or what, where and when; *named* the names among them. *than* says by which word it is
    compared, *thing* with what; *more* that it comes to what was told before; *each* that it is the size of one of several; *part*
    that it is a fraction of something; *end* that it is said of the end; *where* into or out of what it goes, *stuff* of what it is; *times* is
    the number of a count of how many of it there are.
    """

    index: int | None
    verb: Verb
    who: frozenset[str]
    named: frozenset[str]
    than: str = ""
    thing: frozenset[str] = frozenset()
    more: bool = False
    total: bool = False
    each: bool = False
    part: bool = False
    end: bool = False
    where: frozenset[str] = frozenset()
    stuff: frozenset[str] = frozenset()
    times: int | None = None
    position: int = 0


_DETERMINERS = words_of(
    "the a an his her its their our my your this that these those one another some any what which how"
)
_PREPOSITIONS = words_of("in on at to for from off into out of onto with along by after before during through over across near beside "
                         "around between behind under above towards past inside against upon about")  # fmt: skip
_PRONOUNS = words_of("he she it they them him we us i you there who")
_AUXILIARIES = words_of("is are was were be been has have had will would can could did does do to being")
_ADVERBS = words_of("then later afterwards also already so far just first next finally now today yesterday and but while when long wide high tall deep heavy "
                    "thick broad more further farther another extra still only away out in off on too soon again early late all day morning afternoon "
                    "evening night noon overnight week weekend monday tuesday wednesday thursday friday saturday sunday january february march "
                    "april may june july august september october november december spring summer autumn winter left over there here "
                    "however since always o'clock")  # fmt: skip
# Words that change what a number means. None of them is passed over.
_TURNING = words_of("not no never none nor neither without nearly almost about roughly each every per apiece twice thrice times double triple doubled halved "
                    "half both equal equally same rest remaining average mean others than less fewer as if until till except instead back "
                    "quarter part parts fraction percent several pair pairs evenly again altogether together total remainder minus plus difference short "
                    "missing owes owe enough least most first-time twice-as fold ago older younger shared share shares split divided")  # fmt: skip
_TELLING = words_of("another other this")  # which of two it is
_SMALL = words_of("one ones and but then also so already just only now still")
_STUFF = re.compile(
    r"of ((?!it\b|them\b)(?:(?!(?:in|on|at|to|for|from|off|into|with|and|are|is|was|were|has|had|have)\b)[a-z]+ ?){1,3})"
)
_WHERE = re.compile(r"\b(?:into|onto|in|to|from|off|out of)\b((?: [a-z]+){1,4})")
_CUT = re.compile(r"(?:,\s*)?\b(?:and then|and|but|then|while)\b|[,;:]")
_FROM_WHOLE = re.compile(
    r"\s+(?:off|from|out of)\s+(?:a|an|the|his|her|their)\s+(?:[a-z-]+\s+){0,3}(?:of|that is|which is)\s*$"
)
_TOKEN = re.compile(r"<\d+>|[^\W\d_]+(?:['’-][^\W\d_]+)*|[^\w\s]")
_COMPARED = re.compile(rf"^\W*(?:[a-z]+ )?(?P<word>{COMPARATIVES})\b(?:(?: [a-z]+){{0,2}} than (?P<thing>.+))?$", re.I)
_TOTAL = re.compile(r"\b(?:in all|altogether|all together|together|in total|all told)\b", re.I)
_OF_SIZE = re.compile(r" (?:each )?of ")
_THING = re.compile(
    r"\s*(?:and )?(?:(?:the|a|an|another|one|his|her|that|this) (?:[\w-]+ ){0,4}|[A-Z]\w+ |[A-Z]\w+['’]s (?:[a-z]+ )?|(?:on|in) (?:the )?[\w ]+ )"
)
_LEFT = re.compile(
    r"\b(?:left|remain(?:s|ed)?|left over|in the end|at the end|finally|afterwards)\b|^\W*now\b|\bnow\b", re.I
)


def facts_of(told: Told, sentences: Sequence[Sentence]) -> list[Fact]:
    """The facts that the *sentences* beside the question tell, in their order. Raises `DoubtError`."""
    facts: list[Fact] = []
    for sentence in sentences:
        if sentence.start == told.question.start:
            continue
        for start, clause, inside in _clauses(told, sentence):
            facts += _facts(told, start, clause, inside, facts[-1] if facts else None)
    return facts


def _clauses(told: Told, sentence: Sentence) -> Iterator[tuple[int, str, list[int]]]:
    """The clauses of a sentence, each with one number, or with two of which one is a part of the other: start, text, numbers."""
    inside = [i for i, one in enumerate(told.quantities) if sentence.start <= one.start < sentence.end]
    if not inside:
        yield sentence.start, sentence.text, []
        return
    start, numbers = sentence.start, [inside[0]]
    for last, following in pairwise(inside):
        left, right = told.quantities[last].end, told.quantities[following].start
        between = told.text[left:right]
        if _FROM_WHOLE.search(between) or (told.quantities[last].is_count and _OF_SIZE.fullmatch(between)):
            numbers.append(following)
            continue
        cuts = list(_CUT.finditer(between))
        if not cuts:
            raise DoubtError(Doubt("two-numbers", "Two numbers stand here, and it is not clear how they belong together.",
                                   told.quantities[last].start, told.quantities[following].end - told.quantities[last].start))  # fmt: skip
        stop = left + cuts[-1].start()
        yield start, told.text[start:stop], numbers
        start, numbers = left + cuts[-1].end(), [following]
    yield start, told.text[start : sentence.end].rstrip(".!? "), numbers


def _facts(told: Told, start: int, clause: str, inside: list[int], last: Fact | None) -> list[Fact]:
    if not inside:
        return _of_silent(start, clause)
    one = told.quantities[inside[0]]
    before = told.text[start : one.start].strip()
    after = told.text[one.end : start + len(clause)].strip(" .!?")
    if len(inside) == 2 and one.is_count and _OF_SIZE.fullmatch(told.text[one.end : told.quantities[inside[1]].start]):
        size = told.quantities[inside[1]]
        after = told.text[size.end : start + len(clause)].strip(" .!?")
        fact = _fact(told, size, inside[1], before, re.sub(r"^each\b", "", after), start, last)
        return [replace(fact, times=inside[0])]
    if len(inside) == 2:
        whole = told.quantities[inside[1]]
        after = told.text[one.end : whole.start].strip()
        fact = _fact(told, one, inside[0], before, after, start, last)
        if fact.verb.effect != "goes":
            raise DoubtError(_unclear(one))
        return [replace(fact, index=inside[1], verb=Verb("be", "is")), fact]
    return [_fact(told, one, inside[0], before, after, start, last)]


def _fact(told: Told, one: Quantity, index: int, before: str, after: str, start: int, last: Fact | None) -> Fact:
    """The fact that a clause tells of its number, every word of it looked at."""
    rest = re.match(r"(?:and )?the rest\b", before, re.I)
    before = before[rest.end() :].strip() if rest else re.sub(r"\b[Aa] rest\b", "a pause", before)
    before = re.sub(r"\b(first|second|third|other|the|this|that) part\b", r"\1 piece", before)
    part = isinstance(one.number, Frac) and one.label is None and re.match(r"of\b", after) is not None
    more = (
        re.match(r"(?:[a-z]+ )?(?:more|further|farther)\b(?! than)", after) is not None
        or re.search(r"\b(?:another|further|extra)$", before) is not None
    )
    before = re.sub(r"\b(?:another|further|extra)$", "", before).strip()
    compared = _COMPARED.match(after)
    than, thing = "", frozenset[str]()
    if compared and (compared["word"].lower() not in ("more", "further", "farther") or compared["thing"]):
        than, thing = compared["word"].lower(), content(compared["thing"] or "")
        after = after[: compared.start("word")] + (compared["thing"] or "")
    total = _TOTAL.search(f"{before} … {after}") is not None
    before, after = _TOTAL.sub("", before), _TOTAL.sub("", after)
    if total:  # "both together"; without the word each might be meant
        before = re.sub(r"\b[Bb]oth\b", "the", before)
    each = re.search(r"\beach\b", f"{before} {after}") is not None
    if each:
        before, after = re.sub(r"\b[Ee]ach(?: of)?\b", "the", before), re.sub(r"\beach\b", "", after)
    ahead, behind = _words(before), _words(after)
    at, word = _verb_at(ahead, behind)
    end = (_LEFT.search(after) is not None and re.search(r"\bleft\b|\bremain", after) is not None) or re.match(
        r"(?:now|finally|in the end|at the end)\b", before, re.I
    ) is not None
    end = end or rest is not None or (word is not None and base_of(word) == "keep")
    if word is None and before.endswith(":"):
        return Fact(index, Verb("be", "is"), content(before), frozenset(), position=one.start)
    if (
        more
        and word is not None
        and not end
        and re.match(r"(?:[a-z]+ )?more\b", after)
        and (verb_in(word, frozenset()) or Verb("", "is")).effect in ("is", "does")
    ):
        raise DoubtError(
            Doubt(
                "more-than-what",
                f"{one.text} more than what was told before, or besides it?",
                one.start,
                one.end - one.start,
            )
        )
    if word is None and not end:
        if last is None:
            raise DoubtError(_unclear(one))
        if ahead and not _is_place(ahead) and not _is_thing(before):
            said = f"It is not known what “{ahead[-1]}” does to the {one.text}."
            place = told.text.rfind(ahead[-1], 0, one.start)
            raise DoubtError(Doubt("verb-unknown", said, place, len(ahead[-1])))
        fact = replace(
            last,
            index=index,
            than=than,
            thing=thing,
            each=each,
            part=part,
            more=more,
            total=total,
            end=False,
            position=one.start,
        )
        _look_at_words(told, one, [*ahead, *behind])
        named = names_in(f"{before} {after}") or last.named
        return replace(fact, who=content(before) or last.who, named=named)
    particles = frozenset([w.lower() for w in behind[:3] + ahead[at + 1 :]] if word else ())
    timed = one.unit is not None and one.unit.measure == "time"
    verb = Verb("remain", "is") if word is None else _taking_time(word) if timed else verb_in(word, particles & _LITTLE)
    if verb and verb.base == "fall" and {"rain", "snow", "rainfall", "hail"} & content(told.text):
        verb = Verb("fall", "does")
    if verb is None:
        place = told.text.find(word or "", start)
        raise DoubtError(
            Doubt(
                "verb-unknown", f"It is not known what “{word}” does to the {one.text}.", max(place, 0), len(word or "")
            )
        )
    _look_at_words(told, one, [w for i, w in enumerate(ahead) if i != at] + behind)
    named = names_in(f"{before} {after}")
    found = _WHERE.search(after)
    where = content(found[1]) if found else frozenset[str]()
    of = _STUFF.match(after)
    stuff = content(of[1]) if of else frozenset[str]()
    who = content(" ".join(ahead[:at] if at < len(ahead) else ahead)) or content(f"{before} {after}")
    return Fact(
        index, verb, who, named, than=than, thing=thing, more=more, total=total, each=each, part=part, end=end, where=where, stuff=stuff,
        position=one.start,
    )  # fmt: skip


def _taking_time(word: str) -> Verb | None:
    """What is told with a time: how long something takes, or how long somebody does it."""
    verb = verb_in(word, frozenset())
    if base_of(word) in ("take", "last", "spend", "need", "use"):
        return Verb("last", "does")
    return verb if verb and verb.effect in ("is", "does") else None


def content(said: str) -> frozenset[str]:
    """The words of *said* that name something, in small letters and without 's."""
    words = [re.sub(r"['’]s$", "", w.lower()) for w in _words(said)]
    return frozenset(
        [
            w
            for w in words
            if w not in (_DETERMINERS - _TELLING) | _PREPOSITIONS | _PRONOUNS | _AUXILIARIES | _SMALL
            and base_of(w) not in ("be", "have", "do")
        ]
    )


_LITTLE = words_of("in into on onto out off away from to back up over through apart together")


def _words(said: str) -> list[str]:
    return [w for w in _TOKEN.findall(said) if w[0].isalpha()]


def _verb_at(ahead: list[str], behind: list[str]) -> tuple[int, str | None]:
    """The verb of a clause: the last one before the number that is no auxiliary, else the first one after it."""
    for i in range(len(ahead) - 1, -1, -1):
        if base_of(ahead[i]) and base_of(ahead[i]) != "do" and not _is_noun(ahead, i):
            return i, ahead[i]
    verbs = [word for word in behind[:7] if base_of(word) and base_of(word) != "do"]
    doing = [word for word in verbs if base_of(word) not in ("be", "have")]
    return len(ahead), next(iter(doing or verbs), None)


def _is_noun(words: list[str], i: int) -> bool:
    """Whether a word that is a verb as well stands as a noun: after a determiner or a preposition."""
    return i > 0 and words[i - 1].lower() in (_DETERMINERS | _PREPOSITIONS) - {"to"}


def _is_place(words: list[str]) -> bool:
    """Whether words say when or where: "on Sunday", "in the afternoon"."""
    return words[0].lower() in _PREPOSITIONS or all(w.lower() in _ADVERBS | _DETERMINERS for w in words)


def _is_thing(said: str) -> bool:
    """Whether words name another thing: "a stove of", "the second", "Alder"."""
    return _THING.fullmatch(f"{said.strip()} ") is not None


def names_in(said: str) -> frozenset[str]:
    """The names in *said*, in small letters."""
    known = _DETERMINERS | _PREPOSITIONS | _PRONOUNS | _ADVERBS | _TURNING | _AUXILIARIES
    plain = [re.sub(r"['’]s$", "", word) for word in _words(said)]
    return frozenset([word.lower() for word in plain if word[0].isupper() and word.lower() not in known])


def _look_at_words(told: Told, one: Quantity, words: list[str]) -> None:
    """Raises `DoubtError` for a word that changes what a number means, or that is not known to be a name or a noun."""
    named = False
    for i, written in enumerate(words):
        word = written.lower()
        if word in _TURNING or (word in CARDINALS and word != "one"):
            raise DoubtError(
                Doubt(
                    "word-unclear",
                    f"It is not clear what “{written}” says of the {one.text}.",
                    *_place(told, one, written),
                )
            )
        noun = word not in _DETERMINERS | _PREPOSITIONS | _PRONOUNS | _AUXILIARIES | _ADVERBS
        if (
            noun
            and not named
            and not written[0].isupper()
            and not word.endswith(("'s", "’s"))
            and base_of(word) is None
            and i > 0
            and words[i - 1].lower() in _PRONOUNS
        ):
            raise DoubtError(
                Doubt("verb-unknown", f"It is not known what “{written}” does.", *_place(told, one, written))
            )
        named = not noun and word in _DETERMINERS | _PREPOSITIONS


def _of_silent(start: int, clause: str) -> list[Fact]:
    """What a clause without a number tells: an amount that is not told, where its verb is one of change."""
    words = _words(clause)
    for i, word in enumerate(words):
        little = frozenset([w.lower() for w in words[i + 1 : i + 5]]) & _LITTLE
        base = base_of(word)
        if base is None or _is_noun(words, i):
            continue
        verb = verb_in(word, little)
        if verb is None:
            raise DoubtError(
                Doubt("verb-unknown", f"It is not known what “{word}” does.", start + clause.find(word), len(word))
            )
        if verb.effect in ("comes", "goes"):
            return [Fact(None, verb, content(" ".join(words[:i])), frozenset(), position=start)]
    if any(w.lower() in _TURNING for w in words):
        raise DoubtError(Doubt("word-unclear", "It is not clear what this says of the numbers.", start, len(clause)))
    return []


def _place(told: Told, one: Quantity, word: str) -> tuple[int, int]:
    found = [m.start() for m in re.finditer(rf"\b{re.escape(word)}\b", told.text)]
    return (min(found, key=lambda at: abs(at - one.start)) if found else one.start), len(word)


def _unclear(one: Quantity) -> Doubt:
    return Doubt("verb-missing", f"It is not clear what happens to the {one.text}.", one.start, one.end - one.start)
