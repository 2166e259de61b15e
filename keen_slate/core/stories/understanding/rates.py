"""So much for each: prices, speeds, and what a number of things cost when the price of another number is told."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from ...reading.measures import unit_named
from .abstract import TOKEN
from .amounts import Amount, combined, over, plain, ratio, stem, times
from .world import Finding, World

_FOR = re.compile(
    r"<(?P<kind>[und])(?P<index>\d+)>(?P<noun> [a-z]+s)?(?: of [a-z]+)? (?:(?:for |in |on )?(?:an?|one|each|every|a "
    r"single)|per|for) (?P<per>[a-z-]+(?: [a-z-]+)?)"
)
_EACH = re.compile(
    r"(?:(?:\b[Ee]ach|\b[Ee]very|\b[Oo]ne|\b[Aa]n?|\bThe|\bthe)(?: of the)? )(?P<per>(?:[a-z-]+ ){1,3})(?:for [a-z ]+ "
    r")?(?:(?:is|are|was) to "
    r"(?:be|cost)|costs?|weighs?|weighed|holds?|held|lasts?|lasted|takes?|took|needs?|contains?|is|was|measures?|has|"
    r"gets?|got|uses?|used) (?:only )?<(?P<kind>[und])(?P<index>\d+)>"
)
_MANY = re.compile(
    r"\b(?P<per>[A-Za-z][a-z-]+s) (?:cost|are|were|weigh|hold) <(?P<kind>[und])(?P<index>\d+)> (?:each|apiece|a "
    r"piece)\b"
)
_ALSO = re.compile(
    r"\bcosts? (?:only )?<u\d+>,? and (?:an?|the|one) (?P<per>[a-z-]+(?: [a-z-]+)?) <(?P<kind>u)(?P<index>\d+)>"
)
_ALLOWED = "each every per one another equal together all altogether both and"


@dataclass(frozen=True, slots=True)
class _Rate:
    """An amount for each of something, by the stems of the words that name it."""

    amount: Amount
    index: int
    per: frozenset[str]


def _rates(world: World) -> list[_Rate]:
    done: dict[int, _Rate] = {}
    text = world.text
    each_said = re.search(r"\b(?:each|every|one|per|an?)\b", text.all, re.I) is not None
    for pattern in (_FOR, _MANY, _EACH, _ALSO):
        for found in pattern.finditer(". ".join([*text.statements, text.question])):
            index = int(found["index"])
            amount = text.amount(index)
            if (
                pattern is _EACH
                and found.group().lower().startswith("the ")
                and not (amount.unit and amount.unit.measure == "money")
            ):
                continue
            if index in done or index in text.aside or (pattern is _EACH and not each_said):
                continue
            noun = (found.groupdict().get("noun") or "").strip()
            if noun and amount.unit is None:
                amount = Amount(amount.number, None, noun, amount.index)
            done[index] = _Rate(
                amount, index, frozenset([form for word in found["per"].split() for form in (word, stem(word))])
            )
    return list(done.values())


def _matches(one: _Rate, other: Amount) -> bool:
    """Whether an amount counts or measures what a rate is for each of."""
    if other.unit is not None:
        return bool({other.unit.one, other.unit.many, stem(other.unit.one)} & one.per)
    return stem(other.noun) in one.per


def rate(world: World) -> Finding | None:
    """How much so many are, or how many so much is, where one is told."""
    rates = _rates(world)
    if not rates or world.asks(r"\bchange\b|\bleft\b|\bremain|\bfraction\b|\bpart\b|\baverage\b|\bmean\b"):
        return None
    if any(
        one.amount.unit is None
        and world.asked.noun
        and stem(one.amount.noun) != stem(world.asked.noun)
        and stem(world.asked.noun) not in one.per
        for one in rates
    ):
        return None
    known = {one.index for one in rates}
    others = [(i, world.text.amounts[i]) for kind, i in world.needed if i not in known and kind in "und"]
    if not others or any(kind in "fc" for kind, _ in world.needed):
        return None
    uses: list[tuple[_Rate, Amount]] = []
    extra: list[Amount] = []
    for _, other in others:
        fitting = [one for one in rates if _matches(one, other)]
        if len(fitting) == 1:
            uses.append((fitting[0], other))
        elif (
            not fitting
            and other.unit
            and other.unit.measure == "money"
            and rates[0].amount.unit
            and rates[0].amount.unit.measure == "money"
        ):
            extra.append(other)
        elif len(rates) > 1 and len(fitting) > 1:
            return None
        elif len(rates) == 1 and len(others) == 1:
            return _how_many(world, rates[0], other)
        else:
            return None
    if len(uses) < len(rates) or (world.asked.number and rates[0].amount.unit):
        return None
    if world.asked.compared or (
        world.asked.each and not world.asked.total and not world.asks(r"\b(?:one|per|each) week\b")
    ):
        return None
    if len({one.index for one, _ in uses}) < len(uses):
        return None
    products = [
        times(other, one.amount, f"all the {other.noun}" if other.noun and len(uses) > 1 else "all groups")
        for one, other in uses
    ]
    world.look_at_words(_ALLOWED)
    if len(products) == 1 and not extra:
        return world.found(products[0], "equal-groups", "product")
    return world.found(combined([("+", one) for one in [*products, *extra]], world.asked.unit), "steps", "answer")


def _how_many(world: World, one: _Rate, other: Amount) -> Finding | None:
    """How many of what a rate is for each of: "18 pages a minute", 45 pages."""
    alike = (other.unit and one.amount.unit and other.unit.measure == one.amount.unit.measure) or (
        not other.unit and not one.amount.unit and stem(other.noun) == stem(one.amount.noun)
    )
    if not alike or one.amount.number == 0:
        return None
    unit = next((unit for word in one.per if (unit := unit_named(word) or unit_named(word + "s"))), None)
    asks_it = (
        unit and ((world.asked.unit and world.asked.unit.measure == unit.measure) or world.asks(r"\bhow long\b"))
    ) or (world.asked.noun and stem(world.asked.noun) in one.per)
    if not asks_it:
        return None
    found = ratio(other, one.amount)
    world.look_at_words(_ALLOWED)
    if unit is not None:
        answer = Amount(found.number, unit, "", operator="÷", made=found.made, name="how long it takes")
        return world.found(answer, "equal-groups", "number")
    if found.number.denominator != 1:
        return None
    return world.found(
        Amount(found.number, None, world.asked.noun, operator="÷", made=found.made), "equal-groups", "number"
    )


_OF_SOME = re.compile(
    r"^<n(?P<count>\d+)> (?:[a-z]+ ){0,2}?(?P<noun>[a-z]+s) (?:cost|weigh|are|last|make|take) "
    r"(?P<token><u(?P<index>\d+)>)(?: together| in all| altogether)?$",
    re.I,
)
_OF_OTHERS = re.compile(
    r"<n(?P<count>\d+)>(?: of (?:these|the|them|such)| such| of)?(?: [a-z]+){0,2}?(?: (?P<noun>[a-z]+s))?\b"
)


def proportion(world: World) -> Finding | None:
    """ "Six stamps cost $4.38. What would ten of these stamps cost?" """
    if len(world.text.statements) != 1 or len(world.needed) != 3:
        return None
    known, asked = _OF_SOME.match(world.text.statements[0]), _OF_OTHERS.search(world.text.question)
    if (
        known is None
        or asked is None
        or (asked["noun"] and stem(asked["noun"]) != stem(known["noun"]) and asked["noun"] not in ("these", "does"))
    ):
        return None
    if TOKEN.findall(world.text.question) != [("n", asked["count"])]:
        return None
    world.look_at_words("such together")
    one = over(world.text.amount(known["index"]), world.text.amount(known["count"]), "one of them")
    return world.found(times(world.text.amount(asked["count"]), one), "steps", "answer")


# Change, averages -----------------------------------------------------------------------------------------------------

_PAID = re.compile(
    r"(?:\b(?:pa(?:ys?|id|ying)|gives?|gave|hand(?:s|ed)?|had|has|puts? down)\b(?: [a-z]+){0,4}? (?:with )?(?:a |an "
    r"|one )?<u(\d+)> ?(?:note|bill|coin|pound note|dollar bill)|<u(\d+)> (?:note|bill)|\bchange (?:from|out of) (?:a "
    r"|an )?<u(\d+)>|\bpa(?:ys?|id) with (?:a )?<u(\d+)>|\bpays <u(\d+)>|\b(?:from|out of) (?:a |her |his )?<u(\d+)>)"
)  # fmt: skip


def change(world: World) -> Finding | None:
    """The change from what is paid."""
    if not world.asks(r"\bchange\b|\bget back\b|\bgiven back\b|\bcome back\b"):
        return None
    found = _PAID.search(". ".join([*world.text.statements, world.text.question]))
    money = [
        (i, world.text.amounts[i])
        for kind, i in world.needed
        if kind == "u" and (unit := world.text.amounts[i].unit) and unit.measure == "money"
    ]
    if found is None or len(money) < 2 or len(money) != len(world.needed):
        return None
    index = int(next(one for one in found.groups() if one))
    costs = [one for i, one in money if i != index]
    world.look_at_words("back one", untold=False)
    if world.says(r"\b(?:each|apiece|per|every)\b"):
        world.text.doubt("word-unclear", "It is not clear how many there are at the price of each.", "each")
    spent = combined([("+", one) for one in costs], None, "all it costs")
    paid = world.text.amounts[index]
    return world.found(
        combined([("+", paid), ("-", spent)]),
        "take-from" if not spent.operator else "steps",
        "result" if not spent.operator else "answer",
    )


def average(world: World) -> Finding | None:
    """The average of amounts of one kind."""
    if not world.asks(r"\b(?:average|mean)\b"):
        return None
    units = [world.text.amounts[i] for kind, i in world.needed if kind == "u"]
    counts = [world.text.amounts[i] for kind, i in world.needed if kind == "n"]
    if len(units) + len(counts) != len(world.needed):
        return None
    amounts = units if len(units) > 1 else []
    if not amounts and len(counts) > 1 and not units:
        amounts, counts = counts, []
    world.look_at_words("average mean per each all second third")
    if world.says(
        r"\b(?:each|every|per)\b(?! "
        r"(?:day|month|week|lap|throw|jump|evening|hour|game|trip|year|night|morning|time|pupil|child))"
    ):
        world.text.doubt("word-unclear", "It is not clear of what it is the average.")
    if len({name for one in world.facts for name in one.named}) > 1 or any(
        one.more or one.than or one.factor or (one.total and one.amount) for one in world.facts
    ):
        world.text.doubt("word-unclear", "It is not clear of what it is the average.")
    if not amounts:
        if len(units) == 1 and len(counts) == 1:
            return world.found(over(units[0], counts[0]), "equal-groups", "size")
        return None
    divisor = next((one for one in counts if one.number == len(amounts)), None)
    if counts and divisor is None:
        return None
    total = combined([("+", one) for one in amounts], world.asked.unit)
    return world.found(
        over(total, divisor or plain(Fraction(len(amounts)), "how many they are"), "the average"), "steps", "answer"
    )
