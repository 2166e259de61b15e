"""Amounts that are told by comparison: so much more or less than another, so many times as much; and by how much two
differ.
"""

from __future__ import annotations

import re
from dataclasses import replace

from ..lexicon import base_of
from ..words import SMALLER
from .amounts import Amount, Sign, combined, over, times
from .clauses import COMPARING, Fact
from .wording import content, names_in
from .world import Finding, World

_LESS = frozenset(["colder", "cooler"])


def _smaller(word: str) -> bool:
    return word in _LESS or SMALLER.fullmatch(word) is not None


def resolved(world: World) -> list[Fact] | None:
    """The facts with each comparison to an amount that is told worked out; None where one is of something else."""
    done: list[Fact] = []
    for one in world.facts:
        if one.factor is not None:
            world.takes([one])
        if not one.than and one.factor is None:
            done.append(one)
            continue
        known = _known(one, done)
        if known is None:
            return None
        base, of_known = known
        amount = _compared(one, base.amount, of_known)  # type: ignore[arg-type]
        if amount is None:
            return None
        who = one.thing if of_known and one.thing else one.who
        done.append(
            replace(
                one, amount=amount, verb=base.verb, who=who, keys=one.keys | one.thing, than="", factor=None, more=False
            )
        )
    return done


def _known(one: Fact, before: list[Fact]) -> tuple[Fact, bool] | None:
    """The fact that a comparison starts from, and whether that is the one that is *said* to be more ("it is 3 m longer
    than ...").
    """
    told = [fact for fact in before if fact.amount is not None and not fact.each and not fact.part]
    if not told:
        return None
    named = [fact for fact in told if one.thing and one.thing & fact.keys and not (one.thing - fact.keys - _SAME)]
    said_it = re.match(r"\W*(?:it|that|this|he|she|they|which)\b", one.clause, re.I) is not None or not re.search(
        r"[A-Za-z]", one.clause.split("<")[0]
    )
    last = told[-1]
    same = said_it or (bool(one.who) and one.who <= last.keys and not one.who - last.who)
    if one.thing and named:
        if same and named[-1] is last and len(told) == 1 and not one.who:
            return None
        return (named[-1], False)
    if one.thing:  # with something of which nothing is told
        return (last, True) if same or one.who <= last.keys else None
    if same and said_it and one.who:
        return None
    if said_it and not one.who and not one.thing:
        return None
    return (last, False) if len(told) == 1 or one.sentence == last.sentence else None


_SAME = frozenset(["one", "first", "other"])


def _compared(one: Fact, base: Amount, of_known: bool) -> Amount | None:
    if one.factor is not None:
        if of_known:
            return over(base, one.factor, "the other amount") if one.factor.number else None
        return times(one.factor, replace(base, noun="") if base.unit else base, "the other amount")
    assert one.amount is not None, "a comparison has an amount"
    if one.amount.measure != base.measure and (one.amount.measure or base.unit is not None):
        return None
    sign: Sign = "-" if _smaller(one.than) != of_known else "+"
    return combined([("+", base), (sign, one.amount)], None, "the other amount")


def other(world: World) -> Finding | None:
    """One amount, and by how much another is more or less, or how many times as much."""
    compared = [one for one in world.facts if one.than or one.factor is not None]
    if (
        len(compared) != 1
        or world.asked.total
        or world.asked.compared
        or world.asked.fraction
        or world.asked.start
        or world.asked.end
    ):
        return None
    difference = compared[0]
    plain = [one for one in world.facts if one is not difference and one.amount is not None and _fits(difference, one)]
    if len(plain) != 1 or any(one.amount is None and one is not difference for one in world.facts):
        return None
    found = _known(difference, plain)
    if found is None:
        return None
    world.takes([difference, *plain])
    known, of_known = found
    wanted = difference.thing - _SAME if of_known else (difference.who or difference.keys)
    wanted = wanted - known.keys or wanted
    asked = content(world.text.question)
    about = known.who - wanted
    if not (wanted & asked) or (about & asked and not wanted - about) or (about & asked & known.named):
        if not _asks_pronoun(world, of_known):
            return None
        world.text.doubt("which", "It is not clear which of the two is asked for.")
    amount = _compared(difference, known.amount, of_known)  # type: ignore[arg-type]
    if amount is None:
        return None
    if known.effect not in ("is", "does", "costs") and difference.effect != known.effect:
        return None
    if difference.factor is not None:
        return world.found(amount, "equal-groups", "size" if of_known else "product")
    less = amount.number < known.amount.number  # type: ignore[union-attr]
    if amount.number < 0 and not (amount.unit and amount.unit.measure == "temperature"):
        world.text.doubt("impossible", "The smaller amount would be below zero.")
    return world.found(amount, "compare", "smaller" if less else "larger")


def _asks_pronoun(world: World, of_known: bool) -> bool:
    return world.asks(r"\b(?:it|that|the other)\b") is not None


def _fits(difference: Fact, one: Fact) -> bool:
    if difference.amount is None or one.amount is None:
        return True
    return difference.amount.measure == one.amount.measure or (
        not difference.amount.measure and one.amount.unit is None
    )


def difference(world: World) -> Finding | None:
    """By how much two amounts differ."""
    asked = world.asked
    if not asked.compared or asked.total or asked.fraction or asked.need:
        return None
    direct = _in_question(world)
    if direct is not None:
        return direct
    facts = [one for one in world.facts if one.amount is not None]
    totals = _of_two_people(world, facts)
    if totals is not None:
        return totals
    if len(facts) > 2:
        measures = [
            one
            for one in facts
            if asked.unit and one.amount and one.amount.unit and one.amount.unit.measure == asked.unit.measure
        ]
        facts = measures or facts
    if len(facts) != 2 or len(world.facts) != len([one for one in world.facts if one.amount is not None]):
        return None
    if any(
        (one.effect == "goes" and one.verb.base != "fall") or one.than or one.factor or one.each or one.more or one.part
        for one in facts
    ):
        return None
    first, second = world.takes(facts)
    if first.amount is None or second.amount is None or first.amount.measure != second.amount.measure:
        return None
    if first.who == second.who and first.keys == second.keys:
        return None
    if first.verb.base != second.verb.base and {first.effect, second.effect} - {"does", "is"}:
        world.text.doubt("which", "It is not clear whether the same is told of both.")
    large, small = (first, second) if first.amount.size >= second.amount.size else (second, first)
    if asked.compared != "difference":
        _right_way(world, large, small)
    return world.found(combined([("+", large.amount), ("-", small.amount)], asked.unit), "compare", "difference")  # type: ignore[list-item]


def _of_two_people(world: World, facts: list[Fact]) -> Finding | None:
    """By how much the totals of two people differ, each of whom is told with two amounts or more."""
    names = {one.named for one in facts}
    if (
        len(facts) < 4
        or len(names) != 2
        or any(len(name) != 1 for name in names)
        or len({one.verb.base for one in facts}) != 1
    ):
        return None
    if any(
        one.than or one.factor or one.each or one.more or one.part or one.total or one.effect not in ("does", "comes")
        for one in facts
    ):
        return None
    if any(one.amount is None or one.amount.measure != facts[0].amount.measure for one in facts):  # type: ignore[union-attr]
        return None
    world.takes(facts)
    first, second = [[one for one in facts if one.named == name] for name in dict.fromkeys(one.named for one in facts)]
    sums = [
        combined([("+", one.amount) for one in group if one.amount is not None], world.asked.unit, f"the {word} total")
        for group, word in ((first, "first"), (second, "second"))
    ]
    large, small = (0, 1) if sums[0].size >= sums[1].size else (1, 0)
    groups = (first, second)
    _right_way(world, groups[large][0], groups[small][0])
    return world.found(combined([("+", sums[large]), ("-", sums[small])], world.asked.unit), "steps", "answer")


def _right_way(world: World, large: Fact, small: Fact) -> None:
    """Note a doubt where the question does not name the larger (with "less": the smaller) one before "than"."""
    subject = content(world.asked.text.partition(" than ")[0])
    other = content(world.asked.than)
    said, against = (small, large) if _smaller(world.asked.compared) else (large, small)
    mine, its = (
        (said.keys | said.who) - (against.keys | against.who),
        (against.keys | against.who) - (said.keys | said.who),
    )
    unknown = (
        {word for word in subject if base_of(word) is None and word not in COMPARING}
        - said.keys
        - against.keys
        - said.who
        - against.who
    )
    if unknown & (names_in(world.text.question) | _after_the(world.asked.text)):
        world.text.doubt("which", "It is not clear which of the two is asked about.")
        return
    if mine & subject and not its & subject and not (mine & other):
        return
    if not (mine & subject) and not (its & subject) and its & other and not mine & other:
        return
    world.text.doubt("which", "It is not clear which of the two is asked about.")


def _after_the(said: str) -> frozenset[str]:
    """The things that a question names with an article."""
    return frozenset(re.findall(r"\bthe (?:[a-z]+ )?([a-z]+)\b", said)) | frozenset(
        re.findall(r"\bthe ([a-z]+)\b", said)
    )


_DIRECT = re.compile(
    r"\b(?:is|are|was|does|do|did) (?:a|an|the|one) (?P<first>[a-z -]+?) (?:of|that is|measuring|weighing|costing|at) "
    r"<u(?P<a>\d+)>(?: long| high| wide)? (?P<word>[a-z]+) than (?:a|an|the|one) (?P<second>[a-z -]+?) (?:of|that "
    r"is|measuring|weighing|costing|at) <u(?P<b>\d+)>"
)


def _in_question(world: World) -> Finding | None:
    found = _DIRECT.search(world.text.question)
    if found is None or len(world.needed) != 2:
        return None
    a, b = world.text.amount(found["a"]), world.text.amount(found["b"])
    large, small = (b, a) if _smaller(found["word"]) else (a, b)
    if large.measure != small.measure:
        return None
    world.look_at_words("less fewer than")
    return world.found(combined([("+", large), ("-", small)], world.asked.unit), "compare", "difference")
