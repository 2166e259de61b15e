"""A second opinion: what a story's facts say together, worked out apart from the clues. What it finds is said only where it is proven.

Amounts are unknowns, every fact gives an equation of one of a few forms; a question that these do not determine in exactly one way is
a doubt, and so is a word near a number that is not known, an amount below zero, and two people of whom either might be meant.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..expressions.tree import value
from .calculation import Told
from .facts import Doubt, DoubtError, Fact, content, facts_of, names_in
from .numbers import Quantity
from .plan import Plan
from .question import Sentence, asked_unit
from .verbs import base_of, verb_in
from .words import COMPARATIVES, SMALLER

_COMPARES = re.compile(rf"\bhow (?:much|many|far)?\s*(?:\w+ )?(?P<word>{COMPARATIVES})\b|\bdifference\b", re.I)
_START = re.compile(
    r"\b(?:before|at first|to begin with|at the start|at the beginning|originally|in the beginning|to start with|start with)\b",
    re.I,
)
_END = re.compile(
    r"\b(?:left|remain\w*|now|then|in the end|at the end|still|left over|the rest|afterwards|after that)\b", re.I
)
_TOTAL = re.compile(
    r"\b(?:in all|altogether|all together|together|in total|total|all told|combined|overall|that day|whole|both)\b",
    re.I,
)
_DAY = re.compile(
    r"\b(?:(?:mon|tues|wednes|thurs|fri|satur|sun)day|january|february|march|april|may|june|july|august|september|october|november|december|"
    r"second|third|fourth|fifth)\b", re.I,
)  # fmt: skip
_PERSON = frozenset(["he", "she", "they", "his", "her", "their"])
_THAT = frozenset(["that", "this", "she", "he", "it"])
_ASKS = re.compile(
    r"\b(?:how (?:much|many|long|far|high|tall|deep|wide|thick|heavy)|what (?:is|are|was|were|do|does|did)|by how (?:much|many))\b",
    re.I,
)
_OF_EACH = re.compile(
    r"\b(?:each|every|apiece|per|average|mean|times|twice|half|fraction|part|percent|possible|if)\b", re.I
)
_KINDS = (
    ("length", r"\bhow (?:far|high|tall|deep|wide|thick)\b"), ("mass", r"\bhow heavy\b|\bweigh\w*\b"),
    ("money", r"\bhow much (?:money|change)\b|\b(?:cost|costs|pay|spend|spent|earn|earned)\b"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Finding:
    """What is proven: the answer in the first unit of its measure, and the calculation that leads to it."""

    answer: Fraction
    plan: Plan


@dataclass(frozen=True, slots=True)
class _World:
    """The facts that bear on the question, and their amounts in the first unit of their measure."""

    told: Told
    facts: tuple[Fact, ...]
    hidden: tuple[Fact, ...]  # of amounts that are not told
    asked: str

    def amount(self, fact: Fact) -> Fraction:
        assert fact.index is not None, "hidden facts have no amount"
        one = self.told.quantities[fact.index]
        times = 1 if fact.times is None else value(self.told.quantities[fact.times].number)
        return value(one.number) * (one.unit.size if one.unit else 1) * times

    def of(self, *effects: str) -> list[Fact]:
        return [one for one in self.facts if one.verb.effect in effects]


def second_opinion(told: Told, sentences: Sequence[Sentence]) -> Finding:
    """What the facts say together. Raises `DoubtError` where nothing is proven."""
    asked = told.question.text.rstrip("?!. ")
    if not _ASKS.search(asked):
        raise _doubt(told, "asks-no-amount", "It is not clear which amount is asked for.")
    grouped = _groups(told, asked)
    if grouped is not None:
        return grouped
    if any(told.question.start <= one.start < told.question.end for one in told.quantities):
        raise _doubt(told, "number-in-question", "A number stands in the question itself.")
    world = _world(told, facts_of(told, sentences), asked)
    for rule in (_part, _comparison, _difference, _missing_part, _of_end, _of_start, _of_change, _sum):
        found = rule(world)
        if found is not None:
            if found.answer < 0:
                raise _doubt(told, "impossible", "The answer would be below zero.")
            return found
    raise _doubt(told, "nothing-determines", "It is not clear how the numbers lead to what is asked.")


_GROUPS = re.compile(r"\b(?:each|every|apiece)\b|<\d+> of <\d+>", re.I)
_INTO = re.compile(
    r"<(?P<amount>\d+)>(?: of [a-z]+)? (?:is|are|was|were|has been) (?:cut|sawn|sawed|divided|split|torn|shared|poured|broken) (?:equally )?(?:up )?(?:into|among|between|over) <(?P<count>\d+)>",
    re.I,
)

_SHARING = re.compile(
    r"<(?P<count>\d+)>(?: [a-z]+){0,2} (?:share|shared|divide|divided|split) <(?P<amount>\d+)>[^.]* (?:equally|evenly)\b",
    re.I,
)


def _groups(told: Told, asked: str) -> Finding | None:
    """Equal groups of which two numbers are told: all together, or the size of one."""
    text, shift = told.text, 0
    for i, one in enumerate(told.quantities):
        text = text[: one.start + shift] + f"<{i}>" + text[one.end + shift :]
        shift = len(text) - len(told.text)
    counts = [one for one in told.quantities if one.is_count]
    if len(told.quantities) != 2 or len(counts) != 1 or any(word in _UNSAID for word in _words(text)):
        return None
    count = counts[0]
    size = next(one for one in told.quantities if one is not count)
    amount = value(size.number) * (size.unit.size if size.unit else 1)
    number = value(count.number)
    cut = _INTO.search(text) or _SHARING.search(text)
    each = re.search(r"\b(?:each|every|one)\b", asked) is not None
    if cut and told.quantities[int(cut["count"])] is count and each and number:
        return Finding(amount / number, Plan("equal-groups", "size", (f"{_at(told, size)} ÷ {_at(told, count)}",)))
    if cut or each or not _GROUPS.search(text) or size.unit is None or _END.search(asked) or _COMPARES.search(asked):
        return None
    unit = asked_unit(asked)
    asks_amount = (
        _TOTAL.search(asked)
        or (unit is not None and unit.measure == size.unit.measure)
        or re.match(r"how (?:much|long)\b", asked, re.I)
    )
    if not asks_amount or re.search(r"\bhow many\b(?! \w*(?:s|et)\b)", asked, re.I):
        return None
    return Finding(amount * number, Plan("equal-groups", "product", (f"{_at(told, count)} × {_at(told, size)}",)))


def _at(told: Told, one: Quantity) -> str:
    return f"#{told.quantities.index(one)}#"


_UNSAID = frozenset(
    [
        "half",
        "twice",
        "double",
        "triple",
        "not",
        "no",
        "never",
        "without",
        "than",
        "less",
        "more",
        "fewer",
        "left",
        "rest",
        "remaining",
        "if",
        "except",
        "until",
        "back",
        "first",
        "second",
        "third",
        "only",
        "gave",
        "gives",
        "uses",
        "used",
        "loses",
        "lost",
        "sold",
        "sells",
    ]
)


def _doubt(told: Told, code: str, said: str) -> DoubtError:
    return DoubtError(Doubt(code, said, told.question.start, told.question.end - told.question.start))


def _world(told: Told, facts: Sequence[Fact], asked: str) -> _World:
    measures = {fact: _measure(told, fact) for fact in facts if fact.index is not None and not fact.part}
    wanted = _asked_measure(asked, set(measures.values())) or (
        next(iter(measures.values())) if len(set(measures.values())) == 1 else None
    )
    if wanted is None:
        raise _doubt(told, "measure-unclear", "It is not clear which of the measures is asked for.")
    aside = [fact for fact, measure in measures.items() if measure != wanted]
    for fact in aside:
        one = told.quantities[fact.index or 0]
        if one.unit is None or fact.verb.effect not in ("is", "does"):
            raise DoubtError(
                Doubt("number-unused", f"It is not clear what the {one.text} is for.", one.start, one.end - one.start)
            )
    kept = tuple([fact for fact in facts if fact.index is not None and fact not in aside])
    return _World(told, kept, tuple([fact for fact in facts if fact.index is None]), asked)


def _measure(told: Told, fact: Fact) -> str:
    one = told.quantities[fact.index or 0]
    if one.unit is not None:
        return one.unit.measure
    label = (one.label or "").lower()
    return f"count of {label[:-1] if label.endswith('s') else label}"


def _asked_measure(asked: str, told: set[str]) -> str | None:
    unit = asked_unit(asked)
    if unit is not None:
        return unit.measure
    if re.search(r"\bhow (?:much )?long(?:er)?\b", asked, re.I):
        there = told & {"length", "time"}
        return there.pop() if len(there) == 1 else None
    return next((measure for measure, pattern in _KINDS if re.search(pattern, asked, re.I)), None)


def _one_stuff(world: _World, facts: Sequence[Fact]) -> None:
    """Raises `DoubtError` where amounts of different things are told, of which one is asked for."""
    told = [one.stuff for one in facts if one.stuff]
    if any(not a & b for a in told for b in told):
        raise _doubt(world.told, "what", "It is not clear of which of the things an amount is asked for.")


def _no_day(world: _World) -> None:
    """Raises `DoubtError` where a day or a place in a row is asked for."""
    if _DAY.search(world.asked):
        raise _doubt(world.told, "when", "It is not clear which of the numbers belong to the time that is asked for.")


def _one_person(world: _World) -> None:
    """Raises `DoubtError` where more than one person is named of whom something is told."""
    named = {name for fact in world.of("is") for name in fact.named} | names_in(world.asked)
    if (
        named or not world.of("is") or _PERSON & set(_words(world.asked))
    ):  # what belongs to nobody may be changed by anybody
        named |= {name for fact in world.facts for name in fact.named}
    if len(named) > 1:
        raise _doubt(
            world.told, "who", f"It is not clear whose it is: {' or '.join(sorted(n.capitalize() for n in named))}."
        )


# The rules ------------------------------------------------------------------------------------------------------------


def _part(world: _World) -> Finding | None:
    """A fraction of an amount, or what is left of it."""
    parts = [one for one in world.facts if one.part]
    if not parts:
        return None
    others = [one for one in world.facts if not one.part]
    if (
        len(parts) != 1
        or len(others) != 1
        or world.hidden
        or _COMPARES.search(world.asked)
        or _START.search(world.asked)
    ):
        return None
    index = parts[0].index
    assert index is not None, "a part is told"
    whole = world.amount(others[0])
    product = value(world.told.quantities[index].number) * whole
    written = f"{_mark(parts[0])} × {_mark(others[0])}"
    if _END.search(world.asked):
        steps = Plan("steps", "answer", (f"the part = {written}", f"{_mark(others[0])} - the part"))
        return Finding(whole - product, steps) if parts[0].verb.effect == "goes" else None
    if _OF_EACH.search(world.asked) or _TOTAL.search(world.asked):
        return None
    return Finding(product, Plan("part-of", "part", (written,)))


def _comparison(world: _World) -> Finding | None:
    """One amount, and by how much another is more or less."""
    compared = [one for one in world.facts if one.than]
    if not compared:
        return None
    plain = [one for one in world.facts if not one.than]
    if (
        len(compared) != 1
        or len(plain) != 1
        or world.hidden
        or compared[0].verb.effect not in ("is", plain[0].verb.effect)
    ):
        return None
    if _COMPARES.search(world.asked) or _TOTAL.search(world.asked) or _OF_EACH.search(world.asked):
        return None
    difference, known = compared[0], plain[0]
    same = not difference.who or difference.who <= known.who
    of_known = same and bool(difference.thing) and not difference.thing <= known.who
    of_other = not same and (not difference.thing or difference.thing <= known.who or bool(difference.thing & _THAT))
    if of_known == of_other:
        return None
    wanted = difference.thing if of_known else difference.who
    if not _asks_for(world.asked, wanted, known.who):
        return None
    sign = "-" if (SMALLER.fullmatch(difference.than) is not None) != of_known else "+"
    return _combined(world, "compare", "smaller" if sign == "-" else "larger", [("+", known), (sign, difference)])


def _asks_for(asked: str, wanted: frozenset[str], other: frozenset[str]) -> bool:
    """Whether a question names what is *wanted*, and nothing that tells the *other* from it."""
    words = content(asked)
    return bool((wanted - other) & words) and not (other - wanted) & words


def _difference(world: _World) -> Finding | None:
    """How much more one amount is than another."""
    found = _COMPARES.search(world.asked)
    if found is None:
        return None
    unclear = _doubt(world.told, "nothing-determines", "It is not clear which two amounts are compared.")
    if (
        len(world.facts) != 2
        or world.hidden
        or any(one.verb.effect == "goes" or one.than or one.each or one.more or one.part for one in world.facts)
    ):
        raise unclear
    first, second = world.facts
    if first.verb != second.verb or first.who == second.who:
        raise unclear
    if not found["word"]:
        larger, smaller = sorted((first, second), key=world.amount, reverse=True)
        return _combined(world, "compare", "difference", [("+", larger), ("-", smaller)])
    before, than, after = world.asked.partition(" than ")
    ways = [
        (larger, smaller) for larger, smaller in ((first, second), (second, first))
        if _asks_for(before, larger.who, smaller.who) and (not than or _asks_for(after, smaller.who, larger.who) or (not smaller.who - larger.who and not (larger.who - smaller.who) & content(after)))
    ]  # fmt: skip
    if len(ways) != 1:
        raise unclear
    larger, smaller = ways[0] if not SMALLER.fullmatch(found["word"]) else ways[0][::-1]
    return _combined(world, "compare", "difference", [("+", larger), ("-", smaller)])


def _changes(world: _World) -> tuple[list[Fact], list[Fact]] | None:
    """States and changes, where the story is of one amount that changes."""
    if any(one.than or one.each or one.part or one.verb.effect == "does" for one in world.facts) or _OF_EACH.search(
        world.asked
    ):
        return None
    states, changes = world.of("is"), world.of("comes", "goes")
    of_it = frozenset[str]().union(*[one.who | one.where for one in states]) | content(world.asked)
    for one in changes:
        if one.where and not one.where <= of_it:
            raise _doubt(world.told, "where", f"It is not clear whether it is the same: {' '.join(sorted(one.where))}.")
    _one_stuff(world, [*states, *changes])
    if len(changes) > 0 and len({one.where for one in states if one.where}) > 1:
        return None
    return states, changes


def _sign(fact: Fact) -> str:
    return "+" if fact.verb.effect == "comes" else "-"


def _mark(fact: Fact) -> str:
    return f"#{fact.index}#" if fact.times is None else f"#{fact.times}# × #{fact.index}#"


def _combined(world: _World, situation: str, unknown: str, terms: Sequence[tuple[str, Fact]]) -> Finding:
    """A sum of amounts with their signs; the first is added."""
    answer = sum((world.amount(fact) * (1 if sign == "+" else -1) for sign, fact in terms), Fraction(0))
    written = "".join([f" {sign} {_mark(fact)}" for sign, fact in terms]).removeprefix(" + ")
    return Finding(answer, Plan(situation, unknown, (written,)))


def _of_end(world: _World) -> Finding | None:
    """What there is at the end."""
    found = _changes(world)
    if (
        found is None
        or not (_END.search(world.asked) or _asks_state(world.asked))
        or _START.search(world.asked)
        or _COMPARES.search(world.asked)
    ):
        return None
    states, changes = found
    _no_day(world)
    if (
        not states
        and changes
        and all(one.verb.effect == "comes" for one in changes)
        and all(one.more for one in changes[1:])
        and not world.hidden
    ):
        _one_person(world)
        return _combined(world, "add-to", "result", [("+", one) for one in changes]) if len(changes) > 1 else None
    if len(states) != 1 or not changes or world.hidden or states[0].end or states[0].position > changes[0].position:
        return None
    _one_person(world)
    terms = [("+", states[0]), *[(_sign(one), one) for one in changes]]
    for n in range(2, len(terms) + 1):
        if _combined(world, "", "", terms[:n]).answer < 0:
            raise _doubt(world.told, "impossible", "More is taken away than there is.")
    return _combined(world, "add-to" if changes[0].verb.effect == "comes" else "take-from", "result", terms)


def _asks_state(asked: str) -> bool:
    """Whether it is asked how much there is, with a verb of being there, at a later time."""
    bases = {base_of(word) for word in _words(asked)} - {None, "do"}
    return (
        bool(bases)
        and bases <= {"be", "have", "hold", "contain", "weigh", "measure", "show", "stand"}
        and re.search(r"\bafter\b|\bin the (?:morning|evening)\b|\bby\b", asked) is not None
    )


def _missing_part(world: _World) -> Finding | None:
    """One part of a total that is told with its other parts."""
    totals = [one for one in world.facts if one.total]
    parts = [one for one in world.facts if not one.total]
    if (
        len(totals) != 1
        or not parts
        or world.hidden
        or _TOTAL.search(world.asked)
        or _COMPARES.search(world.asked)
        or _OF_EACH.search(world.asked)
    ):
        return None
    if any(
        one.than or one.part or one.each or one.more or one.verb != totals[0].verb for one in parts
    ) or _START.search(world.asked):
        return None
    asked = content(world.asked)
    if any(one.who & one.named & asked for one in parts) or (
        totals[0].who and totals[0].who <= asked and not totals[0].named
    ):
        return None
    return _combined(world, "put-together", "part", [("+", totals[0]), *[("-", one) for one in parts]])


def _of_start(world: _World) -> Finding | None:
    """What there was before."""
    found = _changes(world)
    if (
        found is None
        or not _START.search(world.asked)
        or _COMPARES.search(world.asked)
        or re.search(r"\bnow\b", world.asked)
    ):
        return None
    states, changes = found
    if len(states) != 1 or not changes or world.hidden or states[0].position < changes[-1].position:
        return None
    _no_day(world)
    _one_person(world)
    back = [("-" if _sign(one) == "+" else "+", one) for one in changes]
    situation = "add-to" if changes[0].verb.effect == "comes" else "take-from"
    return _combined(world, situation, "start", [("+", states[0]), *back])


def _of_change(world: _World) -> Finding | None:
    """How much came or went between two states."""
    found = _changes(world)
    if (
        found is None
        or _COMPARES.search(world.asked)
        or _START.search(world.asked)
        or _TOTAL.search(world.asked)
        or _END.search(world.asked)
    ):
        return None
    states, changes = found
    little = frozenset(_words(world.asked)) & {"in", "into", "out", "off", "away"}
    effects = {effect for word in _words(world.asked) if (effect := _effect_of(word, little))}
    if not effects and len(world.hidden) == 1:
        effects = {world.hidden[0].verb.effect}
    if len(states) != 2 or changes or len(world.hidden) > 1 or len(effects) != 1:
        return None
    _no_day(world)
    _one_person(world)
    effect = effects.pop()
    if world.hidden and world.hidden[0].verb.effect != effect:
        return None
    if states[0].end and not states[1].end:
        return None
    last, first = (states[1], states[0]) if effect == "comes" else (states[0], states[1])
    return _combined(world, "add-to" if effect == "comes" else "take-from", "change", [("+", last), ("-", first)])


def _effect_of(word: str, particles: frozenset[str]) -> str | None:
    verb = verb_in(word, particles)
    return verb.effect if verb and verb.effect in ("comes", "goes") else None


def _sum(world: _World) -> Finding | None:
    """All together: amounts of one kind of doing, or of different things."""
    added = all(one.more for one in world.facts[1:]) and world.facts[:1] and world.facts[0].verb.effect == "does"
    if (
        not (_TOTAL.search(world.asked) or added)
        or _COMPARES.search(world.asked)
        or _OF_EACH.search(world.asked)
        or _END.search(world.asked)
    ):
        return None
    facts = world.facts
    if len(facts) < 2 or world.hidden or any(one.than or one.each or one.part or one.end or one.total for one in facts):
        return None
    if len({one.verb for one in facts}) != 1:
        return None
    if facts[0].verb.effect == "is" and (
        len({one.who for one in facts}) != len(facts) or any(one.more for one in facts)
    ):
        return None
    asked, common = content(world.asked), frozenset.intersection(*[one.who | one.stuff for one in facts])
    named = [bool(((one.who | one.stuff) - common) & asked) for one in facts]
    if any(named) and not all(named):
        raise _doubt(world.told, "which", "It is not clear which of the amounts are to be put together.")
    if not any(named):
        _no_day(world)
    bases = {base_of(word) for word in _words(world.asked)} - {None, "be", "have", "do"}
    if facts[0].verb.effect != "is" and bases and facts[0].verb.base not in bases:
        return None
    return _combined(world, "put-together", "total", [("+", one) for one in facts])


def _words(said: str) -> list[str]:
    return [re.sub(r"['’]s$", "", word.lower()) for word in re.findall(r"[^\W\d_]+(?:['’-][^\W\d_]+)*", said)]
