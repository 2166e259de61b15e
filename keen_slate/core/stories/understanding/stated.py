"""The facts that bear on a question, of one measure, one person and one thing."""

from __future__ import annotations

import re

from .amounts import Amount, stem
from .clauses import Fact
from .comparing import resolved
from .wording import content, names_in, words
from .world import World

_PERSON = frozenset(["he", "she", "they", "his", "her", "their"])


DAY = re.compile(
    r"\b(?:(?:mon|tues|wednes|thurs|fri|satur|sun)day|january|february|march|april|may|june|july|august|september|october|november|december)\b",
    re.I,
)


def plainly(world: World) -> list[Fact] | None:
    """The facts that bear on the question, with comparisons worked out; None where some are of another kind."""
    facts = resolved(world)
    if facts is None or any(one.each or one.part or one.than or one.factor for one in facts):
        return None
    kept = of_measure(world, [one for one in facts if one.amount is not None])
    return None if kept is None else world.takes([*kept, *[one for one in facts if one.amount is None]])


def of_measure(world: World, facts: list[Fact]) -> list[Fact] | None:
    """The facts of the measure that is asked for."""
    measures = {one.amount.measure for one in facts if one.amount}
    if len(measures) <= 1:
        return facts
    unit = world.asked.unit
    wanted = f"{unit.measure} {unit.family}" if unit else ""
    if not wanted and world.asked.noun:
        wanted = stem(world.asked.noun)
    if (
        not wanted
        and re.search(r"\bhow long\b", world.asked.text)
        and "length " in measures
        and "time " not in measures
    ):
        wanted = "length "
    if not wanted and world.asked.measure:
        fitting = [one for one in measures if one.split(" ")[0] == world.asked.measure]
        wanted = fitting[0] if len(fitting) == 1 else ""
    if not wanted:
        measured = [one for one in measures if " " in one]
        wanted = measured[0] if len(measured) == 1 else ""
    kept = [one for one in facts if one.amount and one.amount.measure == wanted]
    if not kept:
        return None
    for one in facts:
        if one not in kept and one.effect not in ("is", "does") and one.amount and one.amount.unit:
            world.text.doubt(
                "number-unused",
                f"It is not clear what the {world.text.words_of(min(one.amount.indices))} is for.",
                min(one.amount.indices),
            )
    return kept


def amount_of(fact: Fact) -> Amount:
    assert fact.amount is not None, "looked at before"
    return fact.amount


def one_person(world: World, states: list[Fact], facts: list[Fact], giving: bool = False) -> None:
    """Note a doubt where more than one person is named of whom something is told."""
    named = {name for fact in states for name in fact.named} | names_in(world.text.question)
    if (
        named or not states or _PERSON & {w.lower() for w in words(world.text.question)}
    ):  # what belongs to nobody may be changed by anybody
        named |= {name for fact in facts for name in fact.named}
    relatives = _relatives(world.text.question) - {word for fact in states for word in fact.keys}
    if relatives and not giving:
        named |= relatives | {"the other"}
    if len(named) > 1:
        world.text.doubt("who", f"It is not clear whose it is: {' or '.join(sorted(n.capitalize() for n in named))}.")


def _relatives(said: str) -> frozenset[str]:
    """People of whom a question speaks without their names."""
    return content(said) & frozenset(["aunt", "uncle", "brother", "sister", "mother", "father", "friend", "cousin",
        "neighbour", "neighbor", "grandmother",
                                      "grandfather", "mum", "mom", "dad", "grandma", "grandpa", "teacher", "son",
                                      "daughter"])  # fmt: skip


def one_stuff(world: World, facts: list[Fact]) -> None:
    """Note a doubt where amounts of different things are told, of which one is asked for."""
    said = [
        content(found.group(1))
        for one in facts
        if (
            found := re.search(
                r">(?: more)? of (?!it\b|them\b)(?:(?:the|a|an|his|her) )?((?:[a-z]+ ?){1,2}?)(?= "
                r"(?:in|on|at|to|for|from|off|into|with|and|are|is|was|were|has|had|have)\b|$)",
                one.clause,
            )
        )
    ]
    if any(not a & b for a in said for b in said):
        world.text.doubt("what", "It is not clear of which of the things an amount is asked for.")


def shared_keys(told: list[Fact]) -> frozenset[str]:
    return frozenset.intersection(*[one.keys for one in told]) if told else frozenset()
