"""Plans of several calculations, and of numbers told in several units."""

from __future__ import annotations

from ..expressions.tree import value
from ..reading.measures import ratio_of
from .clues import Clue, Clues
from .plan import Plan, mark_of, size_of, terms_of
from .question import asked_unit
from .words import EQUALLY, REST, SHARED


def two_totals(clues: Clues, needed: list[Clue]) -> Plan | None:
    """The difference of two totals, each told in a sentence of its own."""
    if len(needed) != 4 or not clues.asks_difference:
        return None
    homes = list(dict.fromkeys(one.sentence.start for one in needed))
    groups = [[one for one in needed if one.sentence.start == home] for home in homes]
    if [len(group) for group in groups] != [2, 2]:
        groups = [needed[:2], needed[2:]]
    sums = [sum(value(one.quantity.number) for one in group) for group in groups]
    joined = [" + ".join(map(mark_of, group)) for group in groups]
    order = "the first total - the second total" if sums[0] >= sums[1] else "the second total - the first total"
    return Plan("steps", "answer", (f"the first total = {joined[0]}", f"the second total = {joined[1]}", order))


def rest_in_steps(clues: Clues, needed: list[Clue]) -> Plan | None:
    """What is left of an amount after several things are used, or after a change and another; the rest shared, where
    that is asked.
    """
    if len(needed) < 3 or clues.asks_difference:
        return None
    sharing = next(
        (
            one
            for one in needed
            if one.quantity.is_count and EQUALLY.search(one.sentence.text) and SHARED.search(one.before[-14:])
        ),
        None,
    )
    rest = [one for one in needed if one is not sharing]
    if sharing and len(rest) == 2:
        before = f"{mark_of(rest[0])} {'-' if rest[1].direction < 0 else '+'} {mark_of(rest[1])}"
        return Plan("steps", "answer", (f"all there is = {before}", f"all there is ÷ {mark_of(sharing)}"))
    terms, first = terms_of(rest)
    signs = _signs(rest)
    if (
        not signs
        and rest[0].direction == 0
        and REST.search(clues.question)
        and size_of(rest[0]) == max(map(size_of, rest))
    ):
        signs = [0, *[-1] * (len(rest) - 1)]
    if not signs or (clues.asks_total and not any(sign < 0 for sign in signs[1:])):
        return None
    if len(terms) != len(rest):
        signs = [0, *[-1] * (len(terms) - 1)]
    start = terms[0]
    gained = [term for term, sign in zip(terms[1:], signs[1:], strict=True) if sign > 0]
    used = [term for term, sign in zip(terms[1:], signs[1:], strict=True) if sign <= 0]
    made = list(first)
    if gained:
        made.append(f"all there is = {' + '.join([start, *gained])}")
        start = "all there is"
    if len(used) > 1:
        made.append(f"what goes = {' + '.join(used)}")
        used = ["what goes"]
    if not used:
        return None
    made.append(f"{'the rest = ' if sharing else ''}{start} - {used[0]}")
    if sharing:
        made.append(f"the rest ÷ {mark_of(sharing)}")
    return Plan("steps", "answer", tuple(made)) if len(made) <= 4 else None


def _signs(rest: list[Clue]) -> list[int]:
    """+1 or -1 for what comes or goes after the first number; none where the first is no amount to begin with."""
    signs = [one.direction for one in rest]
    if signs[0] < 0 or not any(signs[1:]):
        return []
    # "uses 1 1/4 m and 2/3 m": the verb holds on.
    for i in range(1, len(signs)):
        if signs[i] == 0:
            signs[i] = signs[i - 1] or -1
    return [0, *signs[1:]]


# Units ----------------------------------------------------------------------------------------------------------------


def in_one_unit(clues: Clues, plan: Plan) -> Plan:
    """The plan with a step before it for every number that is told in another unit than the one that is asked for, or
    the first.
    """
    used = [one for one in clues.all if any(mark_of(one) in part for part in plan.calculations) and one.quantity.unit]
    units = list(dict.fromkeys(one.quantity.unit for one in used if one.quantity.unit))
    if len(units) < 2 or any(ratio_of(units[0], unit) is None for unit in units):
        return plan
    if all(ratio_of(units[0], unit) == 1 for unit in units):
        return plan
    wanted = asked_unit(clues.question)
    target = wanted if wanted in units else min(units, key=lambda unit: unit.size)
    assert target is not None, "a unit is among them"
    before: list[str] = []
    after = list(plan.calculations)
    for one in used:
        unit = one.quantity.unit
        each = ratio_of(unit, target) if unit else None
        if unit is None or each is None or each == 1:
            continue
        up = each.denominator == 1
        if not up and each.numerator != 1:
            return plan
        name = f"the {target.many}" if len(used) == 2 or not before else f"the other {target.many}"
        before.append(f"{name} = {mark_of(one)} {'×' if up else '÷'} {each if up else 1 / each}")
        after = [part.replace(mark_of(one), name) for part in after]
    situation = ("steps", "answer") if plan.situation == "steps" else (plan.situation, plan.unknown)
    return Plan(*situation, (*before, *after), plan.sure)
