"""A whole and its parts: what is missing to it, what is left of a time, a part, all together."""

from __future__ import annotations

import re

from ..lexicon import base_of
from .amounts import combined
from .clauses import Fact
from .comparing import resolved
from .stated import DAY, amount_of, of_measure, plainly, shared_keys
from .wording import content, names_in, words
from .world import Finding, World

_DIMENSIONS = frozenset(["long", "wide", "high", "tall", "deep", "heavy", "thick", "far", "whole"])


def missing(world: World) -> Finding | None:
    """What is missing to an amount that is needed, wanted or held in all."""
    asked = world.asked
    if (
        asked.start
        or asked.fraction
        or asked.each
        or asked.total
        or not (asked.need or re.search(r"\bmore\b", asked.text))
    ):
        return None
    direct = world.asks(
        r"\b(?:be added to|be put (?:to|on)|add to)\b.*?<u(\d+)>.*\b(?:to (?:get|make|have|reach)|so that "
        r".*)\b.*<u(\d+)>"
    )
    if direct is not None and len(world.needed) == 2:
        got_now, want = world.text.amount(direct.group(1)), world.text.amount(direct.group(2))
        world.look_at_words("")
        return (
            world.found(combined([("+", want), ("-", got_now)], asked.unit), "add-to", "change")
            if got_now.unit and want.unit and got_now.measure == want.measure
            else None
        )
    facts = resolved(world)
    if facts is None or any(one.than or one.factor or one.each or one.part or one.amount is None for one in facts):
        return None
    facts = world.takes(of_measure(world, facts) or [])
    wants = [one for one in facts if _WANTED.search(one.clause)]
    if not wants:
        wants = [
            one
            for one in facts
            if re.search(r"\b(?:holds?|held|costs?|race|way|path|book|has room for|total|long|distance)\b", one.clause)
            and not re.search(r"\b(?:already|only|so far|has|have|had)\b", one.clause)
        ]
        if world.says(r"\b(?:rectang\w*|square|triang\w*|sides?)\b") or not world.says(
            r"\b(?:already|only|so far|has|have|had|in it|full)\b"
        ):
            return None
    have = [one for one in facts if one not in wants]
    if len(wants) != 1 or not have or len(have) > 3:
        return None
    if len(have) > 1 and not (world.says(r"\btogether\b|\bthey\b") or len({one.named for one in have}) == 1):
        return None
    if any(
        (one.effect == "goes" and one.verb.base not in ("spend", "use", "pay")) or _WANTED.search(one.clause)
        for one in have
    ):
        return None
    names = [one.named for one in have if one.named]
    if len(have) == 1 and wants[0].named and names and not wants[0].named & names[0]:
        world.text.doubt("who", "It is not clear whether both numbers are of the same one.")
    if asked.than or re.search(r"\bthan\b", asked.text):
        return None
    got = combined([("+", amount_of(one)) for one in have], asked.unit, "what there is")
    answer = combined([("+", amount_of(wants[0])), ("-", got)], asked.unit)
    return world.found(answer, "steps" if got.operator else "add-to", "answer" if got.operator else "change")


_WANTED = re.compile(
    r"\b(?:wants?|wanted|must|needs?|needed|would like|wishes|has to|have to|is to be|are to "
    r"be|plans?|planned|hopes?|goal|aims?|target|should|in need of|set out to|intends?|be full|to be)\b",
    re.I,
)


def lasting(world: World) -> Finding | None:
    """What is left of a time that something lasts."""
    facts = world.facts
    if len(facts) != 2 or not world.asked.end or world.asked.compared or world.asked.start or world.asked.each:
        return None
    whole = [one for one in facts if one.verb.base in ("last", "take", "be") and not _PASSED.search(one.clause)]
    passed = [one for one in facts if _PASSED.search(one.clause)]
    times = [one.amount for one in facts if one.amount and one.amount.unit and one.amount.unit.measure == "time"]
    if len(whole) != 1 or len(passed) != 1 or len(times) != 2:
        return None
    world.takes(facts)
    return world.found(
        combined([("+", amount_of(whole[0])), ("-", amount_of(passed[0]))], world.asked.unit), "take-from", "result"
    )


_PASSED = re.compile(
    r"\b(?:has been|have been|already|so far|are over|is over|have passed|has passed|has "
    r"(?:listened|watched|played|slept|worked|practised|read)|gone by|of it)\b",
    re.I,
)


def part(world: World) -> Finding | None:
    """One part of a total that is told with its other parts, or the rest of it."""
    asked = world.asked
    facts = plainly(world)
    if facts is None or asked.total or asked.compared or asked.each or asked.start or asked.fraction:
        return None
    told = [one for one in facts if one.amount is not None]
    rests = [one for one in facts if one.amount is None and one.rest]
    if any(one.amount is None and not one.rest for one in facts):
        return None
    totals = [one for one in told if one.total] or (
        _told_whole(world, told) if rests or world.says(r"\b(?:the rest|the others?)\b") else []
    )
    parts = [one for one in told if one not in totals]
    if len(totals) != 1 or not parts or any(one.more for one in parts):
        return None
    if not totals[0].total and not rests:
        return None
    words_asked = content(asked.text)
    if rests and not rests[0].keys & words_asked and not re.search(r"\brest\b", asked.text):
        world.text.doubt("which", "It is not clear whether the rest is asked for.")
    named = [
        one
        for one in parts
        if (one.who & one.named & words_asked)
        or ((one.keys - shared_keys(told)) & (words_asked - shared_keys(told)) and not rests and not one.named)
    ]
    if named:
        return None
    if (
        any(one.verb.base != totals[0].verb.base and one.effect not in ("is", totals[0].effect) for one in parts)
        and not rests
    ):
        world.text.doubt("which", "It is not clear whether these are the parts of the whole.")
    people = {name for one in told for name in one.named} | names_in(world.text.question)
    counted = _how_many(world, told) or _listed(totals[0])
    if counted and counted != len(parts) + 1:
        world.text.doubt("which", "It is not clear whether every part but one is told.")
    if (
        not counted
        and not rests
        and len(people) != len(parts) + 1
        and not re.search(r"\b(?:other|the rest|what is in|second|third)\b", world.text.all)
    ):
        world.text.doubt("which", "It is not clear whether every part but one is told.")
    others = combined([("+", amount_of(one)) for one in parts], asked.unit, "all others")
    answer = combined([("+", amount_of(totals[0])), ("-", others)], asked.unit)
    if answer.number < 0:
        world.text.doubt("impossible", "The parts are more than the whole.")
    return world.found(answer, "steps" if others.operator else "put-together", "answer" if others.operator else "part")


def _told_whole(world: World, told: list[Fact]) -> list[Fact]:
    """The fact of the whole, where another is told to be of it and the rest is spoken of."""
    if len(told) < 2:
        return []
    of_it = all(
        re.search(r"> (?:of (?:it|them|the|this|these)|[a-z]+s? of (?:it|them|these))\b", one.clause)
        for one in told[1:]
    )
    if of_it and told[0].effect == "is":
        return [told[0]]
    return [told[0]] if told[0].who & _GROUP and not any(one.who & _GROUP for one in told[1:]) else []


_GROUP = frozenset(["team", "group", "class", "family", "pair", "crew", "party", "school", "club"])


_LIST = re.compile(
    r"^(?P<first>(?:an?|the|his|her) [a-z]+(?:, (?:an?|the|his|her) [a-z]+)*),? and (?:an?|the|his|her) [a-z]+\b", re.I
)


def _listed(total: Fact) -> int:
    """How many things the subject of a total lists: "a hammer and a saw"."""
    found = _LIST.match(total.clause.strip())
    return found["first"].count(",") + 2 if found else 0


def _how_many(world: World, told: list[Fact]) -> int:
    """How many parts there are, where a count says so."""
    used = frozenset[int]().union(*[one.amount.indices for one in told if one.amount])
    counts = [world.text.amounts[i] for kind, i in world.needed if kind == "n" and i not in used]
    return int(counts[0].number) if len(counts) == 1 and counts[0].number.denominator == 1 else 0


def together(world: World) -> Finding | None:
    """All together: amounts of one kind of doing, or of different things."""
    asked = world.asked
    if asked.compared or asked.start or asked.fraction or (asked.need and not asked.total):
        return None
    facts = plainly(world)
    if facts is None:
        return None
    told = [one for one in facts if one.amount is not None]
    if any(
        re.search(r"\b(?:note|bill|with)\b", one.clause)
        and one.effect == "costs"
        and re.search(r"\bnote|\bbill|\bwith <", one.clause)
        for one in told
    ):
        return None
    told = _of_asked_doing(world, told)
    if len(told) < 2 or any(one.amount is None for one in facts) or any(one.total or one.rest for one in told):
        return None
    if not (asked.total or _asks_of_all(world, told)) or (asked.each and not asked.total):
        return None
    if asked.end and not asked.total:
        return None
    effects = {one.effect for one in told}
    if (
        (effects & {"goes"} and effects & {"comes", "is", "does"})
        or len(effects - {"is", "does", "costs"}) > 1
        or any(one.end for one in told)
    ):
        return None
    if {"is", "does"} <= effects and len({one.verb.base for one in told}) > 1:
        world.text.doubt("which", "It is not clear whether the same is told of all the amounts.")
    if (
        "goes" in effects
        and not asked.total
        and not {one.verb.base for one in told} <= {base_of(word) for word in words(asked.text)}
    ):
        return None
    kinds = [one for one in told if one.amount and one.amount.unit is None]
    if kinds and len(kinds) != len(told):
        return None
    _which(world, told)
    for one in told[1:]:
        if one.more and one.effect in ("does", "is") and (one.explicit or not re.search(r"\blater\b", one.clause)):
            world.text.doubt(
                "more-than-what",
                "It is not clear whether it is more than what was told before, or besides it.",
                min(amount_of(one).indices),
            )
    names = [one.named for one in told]
    if not asked.total and len({n for n in names if n}) > 1:
        world.text.doubt("who", "It is not clear of whom it is asked.")
    amounts = [amount_of(one) for one in told]
    answer = combined([("+", one) for one in amounts], asked.unit)
    counts = [i for kind, i in world.needed if kind == "n" and i not in answer.indices]
    if counts and world.says(r"\beach\b"):
        world.text.doubt("word-unclear", "It is not clear what “each” says.", "each")
    made = any(one.operator for one in amounts)
    return world.found(answer, "steps" if made else "put-together", "answer" if made else "total")


def _of_asked_doing(world: World, told: list[Fact]) -> list[Fact]:
    """What is asked of one doing in all ("How much did she cut off in all?") is made of what that doing tells alone."""
    bases = {base_of(word) for word in words(world.text.question)}
    asked = [one for one in told if one.verb.base in bases and one.effect in ("goes", "comes")]
    others = [one for one in told if one not in asked]
    if not world.asked.total or len(asked) < 2 or not others or any(one.effect != "is" for one in others):
        return told
    for one in others:
        world.text.aside |= dict.fromkeys(amount_of(one).indices, "of what is not asked for")
    return asked


def _asks_of_all(world: World, told: list[Fact]) -> bool:
    """Whether what is asked for is made of all that is told: it is asked of what all of them have, and of no day or
    person that one has.
    """
    if any(one.effect not in ("does", "goes") for one in told):
        return False
    bases = {base_of(word) for word in words(world.text.question)}
    return not world.asks(r"\bon\b|\bin the\b") and bool(bases & ({one.verb.base for one in told} | {"pass"}))


def _which(world: World, told: list[Fact]) -> None:
    """Note a doubt where some of the amounts are named in the question, and others are not."""
    asked = content(world.text.question)
    common = shared_keys(told)
    said = {one.verb.base for one in told}
    asked = frozenset([word for word in asked if base_of(word) not in said]) - _DIMENSIONS
    own = [one.keys | ({one.amount.noun} if one.amount and one.amount.noun else set()) for one in told]
    named = [bool((keys - common) & asked) for keys in own]
    plural = re.search(r"\b(?:both|they|together|altogether|in all|total|all|whole)\b", world.text.question) is not None
    distinct = [(keys - common) & asked for keys in own]
    if any(named) and not all(named):
        only = frozenset().union(*distinct)
        if not plural or any(base_of(word) is None or DAY.search(word) for word in only):
            world.text.doubt("which", "It is not clear which of the amounts are to be put together.")
