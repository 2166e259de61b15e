"""Something that changes, with its end, its start or its change unknown; what is missing to an amount; parts of a
total.
"""

from __future__ import annotations

import re
from dataclasses import replace

from ..lexicon import Verb, base_of, verb_in
from .amounts import Amount, Sign, combined
from .clauses import Fact
from .stated import DAY, amount_of, one_person, one_stuff, plainly, shared_keys
from .wording import LITTLE, content, words
from .world import Finding, World

_STATE = frozenset(
    [
        "be",
        "have",
        "hold",
        "contain",
        "weigh",
        "measure",
        "show",
        "stand",
        "remain",
        "stay",
        "lie",
        "keep",
        "reach",
        "do",
    ]
)


def _no_day(world: World, facts: list[Fact]) -> None:
    """Note a doubt where a day is asked for that is not the last one told."""
    found = DAY.search(world.text.question)
    if found is None:
        return
    told = [one for one in facts if found.group().lower() in one.keys]
    if not re.search(r"\bat the end of\b|\bby the end of\b", world.text.question) or (
        told and told[-1] is not facts[-1]
    ):
        world.text.doubt("when", "It is not clear which of the numbers belong to the time that is asked for.")


def _sign(fact: Fact, back: bool = False) -> Sign:
    return "+" if (fact.effect == "comes") != back else "-"


def _changes(world: World) -> tuple[list[Fact], list[Fact], list[Fact]] | None:
    """States, changes and what is not told, where the story is of one amount that changes."""
    facts = plainly(world)
    if facts is None:
        return None
    told = [one for one in facts if one.amount is not None]
    hidden = [one for one in facts if one.amount is None]
    if any(one.effect in ("does", "shares", "costs") for one in told):
        told = _moved(world, told)
    if any(one.effect in ("does", "shares", "costs") for one in told):
        return None
    states, changes = [one for one in told if one.effect == "is"], [one for one in told if one.effect != "is"]
    changes = [_given(world, one, states) for one in changes]
    _same_thing(world, states, changes)
    return states, changes, [_given(world, one, states) for one in hidden]


def _moved(world: World, told: list[Fact]) -> list[Fact]:
    """What is paid or done with a thing of which there is so much goes from it: "paid for card out of the money"."""
    done = []
    for one in told:
        from_it = re.search(r"\b(?:of it|from it|out of it|of them|out of|with it|from the)\b", one.clause) is not None
        paid = one.effect == "costs" and (one.verb.base == "pay" or re.search(r"\bfor\b", one.clause) is not None)
        if one.verb.base == "fall" and any(other.effect == "is" for other in told):
            one = replace(one, verb=Verb("fall", "comes"))
        elif one.verb.base == "carry":
            one = replace(one, verb=Verb("carry", "is"))
        elif (one.effect == "does" and from_it and one.verb.base not in ("last",)) or paid:
            one = replace(one, verb=Verb(one.verb.base, "goes"))
        done.append(one)
    return done


def _given(world: World, one: Fact, states: list[Fact]) -> Fact:
    """What is given to the one of whom the state is told comes to it."""
    if one.verb.base not in ("give", "lend", "hand", "pass", "send", "pay", "sell", "trade", "swap") or not states:
        return one
    owners = {name for state in states for name in state.named}
    giver = one.who & one.named or one.who
    if owners and not giver & owners and not re.match(r"(?:He|She|They|he|she|they)\b", one.clause.strip()):
        if re.search(
            r"\b(?:her|him|them|" + "|".join(owners) + r")\b(?= (?:<|some\b|an?\b|another\b|more\b|the\b)|$)",
            one.clause,
            re.I,
        ):
            return replace(one, verb=Verb(one.verb.base, "comes"))
        if giver:
            world.text.doubt(
                "who", "It is not clear who gives and who gets it.", min(one.amount.indices) if one.amount else None
            )
    return one


def end(world: World) -> Finding | None:
    """What there is at the end."""
    asked = world.asked
    if re.search(r"\b(?:must|short|missing|lack\w*)\b", asked.text) or re.search(
        r"\b(?:is|was|are|were) that\b", asked.text
    ):
        return None
    if (
        asked.start
        or asked.compared
        or asked.each
        or asked.fraction
        or (asked.need and not asked.end)
        or not (asked.end or _asks_state(world))
    ):
        return None
    found = _changes(world)
    if found is None:
        return None
    states, changes, hidden = found
    if hidden or not changes:
        return None
    _no_day(world, [*states, *changes])
    ended = [one for one in states if one.end]
    begun = [one for one in states if not one.end or one.start]
    if ended and not any(one.start for one in ended):
        return None
    if not begun:
        if (
            len(changes) < 2
            or not all(one.effect == "comes" for one in changes[:1])
            or not _from_nothing(world, changes)
        ):
            return None
        world_terms = [(_sign(one), amount_of(one)) for one in changes]
        one_person(world, [], changes)
        return _of_terms(world, world_terms, changes, "steps" if len({s for s, _ in world_terms}) > 1 else "add-to")
    order = world.facts
    one_person(world, begun, changes)
    one_stuff(world, changes)
    _of_one_kind(world, begun, changes)
    if len(begun) > 1 and (not _same_place(begun) or any(one.start for one in begun)):
        world.text.doubt("which", "It is not clear which of the amounts there is at first.")
    if len(begun) == 1:
        one_stuff(world, [*begun, *changes])
    if not any(one.start for one in begun) and _position(order, begun[0]) > _position(order, changes[0]):
        world.text.doubt("when", "It is not clear whether this is told of the beginning or of the end.")
    terms: list[tuple[Sign, Amount]] = [("+", amount_of(one)) for one in begun] + [
        (_sign(one), amount_of(one)) for one in changes
    ]
    return _of_terms(world, terms, changes, "add-to" if changes[0].effect == "comes" else "take-from")


def _of_one_kind(world: World, begun: list[Fact], changes: list[Fact]) -> None:
    """Note a doubt where one of several amounts at first is spoken of alone."""
    common = shared_keys(begun)
    later = content(world.text.question).union(*[one.keys for one in changes])
    if len(begun) > 1 and any((one.keys - common) & later for one in begun):
        world.text.doubt("what", "It is not clear of which of the things an amount is asked for.")


_WHERE = re.compile(r"\b(?:into|onto|out of|from|off)\b((?: [a-z][\w-]*){1,4})")


def _same_thing(world: World, states: list[Fact], changes: list[Fact]) -> None:
    """Note a doubt where something comes into or goes from a thing of which nothing is told."""
    known = content(world.text.question).union(*[one.keys | one.who for one in states]) | frozenset(
        ["reel", "roll", "top", "end", "side", "edge"]
    )
    for one in changes:
        found = _WHERE.search(one.clause)
        after = world.facts[_position(world.facts, one) + 1 :][:1]
        if (
            after
            and after[0].effect == "is"
            and re.match(r"\W*(?:then |so that |now )?(?:it|there)\b", after[0].clause)
        ):
            continue
        if found is None or not states or "it" in found[1].split()[:1]:
            continue
        bare = re.split(r"\b(?:and|to|for|with|in|on|by|at|was|were|is|are|had|has|have)\b", found[1])[0]
        if not content(bare) <= known:
            world.text.doubt("where", f"It is not clear whether it is the same: {' '.join(sorted(content(bare)))}.")


def _from_nothing(world: World, changes: list[Fact]) -> bool:
    """Whether what comes first is all there is: "crept up", or all that comes later comes to it."""
    return (
        all(one.more for one in changes[1:])
        or world.says(r"\bfrom the (?:foot|bottom|ground)|at the (?:foot|bottom)\b|\bempty\b") is not None
        or changes[0].verb.base in ("sell", "earn", "mix", "climb", "creep", "crawl")
    )


def _same_place(states: list[Fact]) -> bool:
    return len({one.who for one in states}) == 1 and len({one.sentence for one in states}) == 1


def _position(order: list[Fact], fact: Fact) -> int:
    return next((i for i, one in enumerate(order) if one.clause == fact.clause), 0)


def _of_terms(world: World, terms: list[tuple[Sign, Amount]], changes: list[Fact], situation: str) -> Finding | None:
    cold = any((one.unit and one.unit.measure == "temperature") or one.number < 0 for _, one in terms)
    for n in range(2, len(terms) + 1):
        if combined(terms[:n]).number < 0 and not cold:
            world.text.doubt("impossible", "More is taken away than there is.")
    if len(terms) == 2:
        made = any(one.operator for _, one in terms)
        answer = combined(terms, world.asked.unit)
        return world.found(answer, "steps" if made else situation, "answer" if made else "result")
    come = combined([(sign, one) for sign, one in terms if sign == "+"], world.asked.unit, "all there is")
    gone: list[tuple[Sign, Amount]] = [("+", one) for sign, one in terms if sign == "-"]
    if not gone:
        return world.found(come, "steps", "answer")
    goes = combined(gone, world.asked.unit, "what goes")
    return world.found(combined([("+", come), ("-", goes)], world.asked.unit), "steps", "answer")


def _asks_state(world: World) -> bool:
    """Whether it is asked how much there is, with a verb of being there."""
    asked = world.text.question
    bases = {base_of(word) for word in words(asked)} - {None, "do"}
    if world.asked.total:
        return False
    if re.search(r"\b(?:is|was|are|were) (?:that|this)\b", asked):
        return False
    later = (
        re.search(
            r"\bafter\b|\bin the (?:morning|evening)\b|\bby\b|\bat "
            r"(?:noon|night|dusk|dawn)\b|\babove\b|\bstop\b|\btip\b",
            asked,
        )
        is not None
    )
    return bool(bases) and (bases <= _STATE or later)


def start(world: World) -> Finding | None:
    """What there was before."""
    asked = world.asked
    takes = re.search(r"\b(?:take|took|bring|brought|carry|carried) (?:to|with|along)\b", asked.text) is not None
    if not (asked.start or takes) or asked.compared or asked.fraction or re.search(r"\bnow\b", asked.text):
        return None
    found = _changes(world)
    if found is None:
        return None
    states, changes, hidden = found
    if len(states) != 1 or not changes or hidden or states[0].start:
        return None
    if _position(world.facts, states[0]) < _position(world.facts, changes[-1]) and not states[0].end:
        world.text.doubt("when", "It is not clear whether this is told of the beginning or of the end.")
    day = DAY.search(world.text.question)
    before = re.search(r"\bbefore (?:the )?([A-Z]\w+)", world.text.question)
    if day and not (
        before
        and before[1] == day.group()
        and len(changes) == 1
        and re.search(rf"\b{day.group()}\b", changes[0].clause)
    ):
        world.text.doubt("when", "It is not clear which of the numbers belong to the time that is asked for.")
    one_person(world, states, changes)
    one_stuff(world, [*states, *changes])
    terms: list[tuple[Sign, Amount]] = [("+", amount_of(states[0]))]
    terms += [(_sign(one, back=True), amount_of(one)) for one in changes]
    made = any(one.operator for _, one in terms)
    answer = combined(terms, asked.unit)
    return world.found(
        answer,
        "steps" if made else "add-to" if changes[0].effect == "comes" else "take-from",
        "answer" if made else "start",
    )


def change(world: World) -> Finding | None:
    """How much came or went between two states."""
    asked = world.asked
    if asked.start or asked.total or asked.fraction or asked.each:
        return None
    if asked.compared and not re.search(
        r"\bby how (?:much|many)\b.*\b(?:rise|fall|drop|grow|sink|change|increase|decrease|shrink)\b", asked.text
    ):
        return None
    found = _changes(world)
    if found is None:
        return None
    states, changes, hidden = found
    if len(states) != 2 or changes or len(hidden) > 1 or world.says(r"\bempty\b"):
        return None
    little = frozenset(words(asked.text)) & LITTLE
    effects: set[str] = {
        verb.effect
        for word in words(asked.text)
        if (verb := verb_in(word, little)) and verb.effect in ("comes", "goes")
    }
    if not effects and base_of("go") in {base_of(w) for w in words(asked.text)}:
        effects = {"goes"}
    effects = {one.effect for one in hidden if one.effect in ("comes", "goes")} or effects
    if not effects and not (
        states[0].start
        or states[1].start
        or (states[1].end and re.search(r"\bhow much\b.*\b(?:use|spend|lose|take|went)\b", asked.text))
    ):
        return None
    first, last = (
        (states[1], states[0]) if states[1].start or (states[0].end and not states[1].end) else (states[0], states[1])
    )
    rises = amount_of(last).size >= amount_of(first).size
    one_person(world, states, hidden, giving=bool(hidden))
    one_stuff(world, states)
    if not _in_order(states) and not re.search(
        r"\bfell\b|\bthen\b|\bnow\b|\bafter\b|\bonly\b|\bso "
        r"that\b|\bleft\b|\bhome\b|\bwas\b|\bwere\b|\bstill\b|\bback\b",
        " ".join(world.text.statements),
        re.I,
    ):
        world.text.doubt("when", "It is not clear which of the two amounts is the later one.")
    if effects and (("comes" in effects) != rises and len(effects) == 1):
        world.text.doubt("impossible", "What comes or goes does not fit what there was before and after.")
    terms: list[tuple[Sign, Amount]] = (
        [("+", amount_of(last)), ("-", amount_of(first))]
        if rises
        else [("+", amount_of(first)), ("-", amount_of(last))]
    )
    return world.found(combined(terms, asked.unit), "add-to" if rises else "take-from", "change")


_ORDER = (
    ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"),
    ("dawn", "morning", "noon", "midday", "afternoon", "evening", "night"),
    (
        "january",
        "february",
        "march",
        "april",
        "may",
        "june",
        "july",
        "august",
        "september",
        "october",
        "november",
        "december",
    ),
)


def _in_order(states: list[Fact]) -> bool:
    """Whether two states are told with days or times of which the later one is told later."""
    for order in _ORDER:
        found = [[order.index(word) for word in order if re.search(rf"\b{word}\b", one.clause, re.I)] for one in states]
        if all(len(one) == 1 for one in found) and found[0][0] < found[1][0]:
            return True
    return False
