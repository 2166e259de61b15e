"""Equal groups: an amount shared or cut, the size of one or how many there are; and what is left over."""

from __future__ import annotations

import re
from math import ceil, floor

from ...reading.measures import ratio_of
from .amounts import Amount, combined, over, plain, ratio, times
from .asked import asked_of
from .changes import end
from .wholes import together
from .world import Finding, World

_PARTED = (
    r"(?:cut|cuts|sawn|saws|sawed|divided|divides|split|splits|shared?|shares|poured|pours|torn|broken|packed|packs|"
    r"sorted|filled|fills|put|puts|folded|laid|made|weighed|distributed|separated|parted|chopped|sliced)"
)
_EQUAL = r"\b(?:equal(?:ly)?|evenly|same|alike|fair(?:ly)?)\b"
_ALLOWED = (
    "part parts each every equal equally evenly same one per share shares shared divide divided split into all "
    "together another pieces half between"
)
_FULL = r"\b(?:can|could|full|whole|complete|fit|fits|at most|as many)\b"
_NEEDED = r"\b(?:needed|need|needs|must|required|necessary|have to)\b"


def shared(world: World) -> Finding | None:
    """The size of one of several equal parts of an amount."""
    counts = [(i, world.text.amounts[i]) for kind, i in world.needed if kind == "n"]
    amounts = [world.text.amounts[i] for kind, i in world.needed if kind in "ud"]
    if (
        not (world.asked.each or world.asks(r"\bhow (?:long|heavy|much|wide|high|big)\b"))
        or world.asked.total
        or world.asked.noun
    ):
        return None
    if len(amounts) == 0 and len(counts) == 2:
        return None
    equal = world.says(_EQUAL) is not None
    whole = next((one for one in amounts), None)
    if len(amounts) != 1 or whole is None or not counts or world.asked.compared or world.asked.end:
        return _with_the_rest(world)
    said = next(
        (
            i
            for i, _ in counts
            if world.says(
                rf"\b(?:into|among|between|by|over|for|from) (?:the |his |her |their |its )?<n{i}>|<n{i}> (?:[a-z]+ "
                rf"){{0,3}}?(?:shared?|shares|divided?|divides|split|splits)|<n{i}> (?:[a-z]+ "
                rf")?(?:equal|identical)|\b(?:pack|set) of <n{i}>"
            )
        ),
        None,
    )
    others = [i for i, _ in counts if i != said]
    if said is None or not (equal or (world.asked.each and world.says(r"\binto\b"))) or others:
        return None
    if not equal:
        world.text.doubt("word-unclear", "It is not told that the parts are equal.")
    world.look_at_words(_ALLOWED)
    return world.found(over(whole, world.text.amounts[said]), "equal-groups", "size")


_THEN_SHARED = re.compile(
    rf"^(?P<what>(?:She|He|They|The (?:rest|remainder)|What (?:is|was) left|All of it|The (?:\w+)) "
    rf"(?:.*)){_EQUAL}(?:.*)\b(?:among|between|into|over|on|to) (?:the |his |her |their )?<n(?P<count>\d+)>",
    re.I,
)


def then_shared(world: World) -> Finding | None:
    """What is left, or all together, shared in equal parts: "They share it equally among 5 boxes"."""
    text = world.text
    found = _THEN_SHARED.match(text.statements[-1]) if len(text.statements) > 1 else None
    if (
        found is None
        or not world.asked.each
        or not re.search(rf"\b{_PARTED}\b", text.statements[-1])
        or len(re.findall(r"<\w\d+>", text.statements[-1])) != 1
    ):
        return None
    rest = re.match(r"(?:the (?:rest|remainder)|what (?:is|was) left)\b", found["what"], re.I) is not None
    if not rest and not re.search(r"\b(?:it|all|everything|them)\b", found["what"]):
        return None
    asked = text.question
    text.statements, text.question = text.statements[:-1], "How much is left" if rest else "How much is that in all"
    inner = (end if rest else together)(World(text, asked_of(text.question)))
    text.question = asked
    text.doubts = [one for one in text.doubts if one.code != "number-unused"]
    if inner is None:
        return None
    whole = inner.answer.called("the rest" if rest else "all of it")
    return world.found(over(whole, text.amount(found["count"])), "steps", "answer")


def _with_the_rest(world: World) -> Finding | None:
    """One of several equal parts that measure so much together with something else: "two equal lengths and a strip of
    0.8 m measure 5.2 m".
    """
    counts = [world.text.amounts[i] for kind, i in world.needed if kind == "n"]
    amounts = [(i, world.text.amounts[i]) for kind, i in world.needed if kind == "u"]
    if (
        len(amounts) != 2
        or not counts
        or len({one.number for one in counts}) != 1
        or not world.asked.each
        or len(counts) + 2 != len(world.needed)
    ):
        return None
    if world.says(r"\beach\b(?=.*\bhow\b)") and not world.says(_EQUAL):
        return None
    totals = [
        i
        for i, _ in amounts
        if world.says(rf"\b(?:measures?|weighs?|weighed|costs?|are|is|last) (?:together )?<u{i}>(?! each)")
    ]
    together = [
        i
        for i in totals
        if world.says(rf"<u{i}> (?:together|in all|altogether|when|long together|in total)|together (?:[a-z]+ )<u{i}>")
    ] or totals
    if not together:
        return None
    total = world.text.amounts[together[0]]
    other = next(one for i, one in amounts if i != together[0])
    if other.size >= total.size or not world.says(r"\band (?:a|an|one|the)\b|\bempty\b|\balone\b"):
        return None
    world.look_at_words(_ALLOWED)
    if not (world.says(_EQUAL) or world.says(r"\bcosts?\b")) or (
        len(together) > 1 and together == totals and not world.says(r"\bwhen laid|\btogether\b|\bempty\b")
    ):
        world.text.doubt("word-unclear", "It is not told that the parts are equal.")
    rest = combined([("+", total), ("-", other)], world.asked.unit, "what they are together")
    return world.found(over(rest, counts[0]), "steps", "answer")


def number_of(world: World) -> Finding | None:
    """How many pieces of one size an amount makes; and what is left over."""
    amounts = [(i, world.text.amounts[i]) for kind, i in world.needed if kind in "un"]
    if len(amounts) != 2 or len(world.needed) != 2:
        return None
    over_left = (
        world.asks(r"\bleft over\b|\bremain\w* over\b|\bis over\b|\bare over\b|\bleft\b|\bremains?\b") is not None
    )
    if not over_left and not world.asked.noun:
        return None
    if over_left and not world.says(r"\bas many\b|\bas possible\b|\bleft over\b|\bwhole\b"):
        return None
    size = _size(world, [i for i, _ in amounts])
    if size is None:
        return None
    whole = next(one for i, one in amounts if i != size)
    one = world.text.amounts[size]
    if (
        (one.unit is None) != (whole.unit is None)
        or (one.unit and whole.unit and ratio_of(one.unit, whole.unit) is None)
        or one.number <= 0
    ):
        return None
    if one.unit is None and not world.says(r"\beach\b|\bof <n\d+>|\bin <n\d+>s|\b(?:holds?|seats?|take) <n\d+>"):
        return None
    noun = world.asked.noun
    many = ratio(whole, one, noun, "how many there would be")
    world.look_at_words(
        _ALLOWED + " possible many whole most full left least as", untold=world.says(r"\bas many\b") is not None
    )
    if over_left:
        return _left_over(world, whole, one, many)
    if many.number.denominator == 1:
        return world.found(Amount(many.number, None, noun, operator="÷", made=many.made), "equal-groups", "number")
    if world.asks(_NEEDED) and not world.asks(r"\bwhole\b|\bfull\b|\bfilled\b"):
        up = plain(ceil(many.number) - many.number, "what is missing to a whole one")
        return world.found(combined([("+", many), ("+", up)]), "steps", "answer")
    if world.asks(_FULL) or world.says(r"\bas many as\b"):
        down = plain(many.number - floor(many.number), "what makes no whole one")
        return world.found(combined([("+", many), ("-", down)]), "steps", "answer")
    return world.found(many, "equal-groups", "number")


def _left_over(world: World, whole: Amount, one: Amount, many: Amount) -> Finding | None:
    if many.number < 1:
        return None
    pieces = combined(
        [("+", many), ("-", plain(many.number - floor(many.number), "what makes no whole one"))], name="the whole ones"
    )
    if many.number.denominator == 1:
        pieces = many
    used = times(pieces, one, "what they take")
    return world.found(combined([("+", whole), ("-", used)], world.asked.unit), "steps", "answer")


_MANY = r"(?:[a-z]+ ){0,3}?[a-z]+s"


def _size(world: World, indices: list[int]) -> int | None:
    """The amount that is the size of one of what is counted."""
    found = []
    for i in indices:
        token = rf"<[un]{i}>"
        if world.says(
            rf"\beach (?:of (?:the|them) )?(?:[a-z]+ ){{0,3}}?{token}|{token} (?:[a-z]+ "
            rf"){{0,3}}?(?:each|apiece)\b|\b(?:pieces|parts|bags|boxes|{_MANY}) of {token}|"
            rf"\b{_MANY} (?:that |which )?(?:hold|holding|have|weighing|measuring|are|take) {token}|\b{_MANY} {token} "
            rf"(?:long|wide|high|thick|deep)\b|"
            rf"\bof {token} each|\b(?:one|a) [a-z]+ (?:holds|needs|is|takes|has|weighs) {token}"
        ):
            found.append(i)
    if len(found) == 2:  # "a ribbon of 12 m is cut into bows of 1 1/4 m"
        found = [
            i
            for i in found
            if world.says(
                rf"\b(?:into|pieces of|in|of) (?:(?:as many )?(?:[a-z]+ ){{0,2}}?[a-z]+s of )?<[un]{i}>|\beach "
                rf"(?:[a-z]+ ){{0,2}}?<[un]{i}>|<[un]{i}> each"
            )
        ]
    return found[0] if len(found) == 1 else None


def repeated(world: World) -> Finding | None:
    """An amount that is there several times: "six times"."""
    many = world.says(r"<n(\d+)> times\b(?! as\b| more\b| the\b)|\b(twice)\b(?! as\b)")
    units = [world.text.amounts[i] for kind, i in world.needed if kind == "u"]
    if (
        many is None
        or len(units) != 1
        or world.asked.compared
        or not (world.asked.unit or world.asked.total or world.asks(r"\bhow (?:far|long|much)\b"))
    ):
        return None
    if len(world.needed) != (2 if many.group(1) else 1) or world.asked.end or world.asked.start or world.asked.each:
        return None
    count = world.text.amount(many.group(1)) if many.group(1) else plain(2, "twice")
    world.look_at_words("twice " + " ".join(["times"]))
    if not world.says(r"\b(?:times|twice)\b") or world.says(r"\bthere and back\b"):
        return None
    return world.found(times(count, units[0]), "equal-groups", "product")


def composed(world: World) -> Finding | None:
    """All groups together, where nothing but them is told."""
    amounts = [world.text.amounts[i] for kind, i in world.needed if kind in "und"]
    facts = [one for one in world.facts if one.amount is not None and one.amount.operator]
    if (
        len(facts) != 1
        or len(amounts) != 1
        or world.asked.each
        or world.asked.compared
        or world.asked.end
        or world.asked.start
    ):
        return None
    world.takes(world.facts)
    assert facts[0].amount is not None, "looked at"
    return world.found(facts[0].amount, "equal-groups", "product")


def how_many_times(world: World) -> Finding | None:
    """How many times as much one amount is as another."""
    found = world.asks(r"\bhow many times (?:as|more)\b.*?<u(\d+)>.*\b(?:is|are|was|does|do)\b.*<u(\d+)>")
    if found is None or len(world.needed) != 2:
        found = None
        told = [world.text.amounts[i] for kind, i in world.needed if kind == "u"]
        if world.asks(r"\bhow many times as\b") is None or len(told) != 2 or len(world.needed) != 2:
            return None
        large, small = sorted(told, key=lambda one: one.size, reverse=True)
        world.text.doubt("question-unclear", "It is not clear which of the two is compared with which.")
    else:
        small, large = world.text.amount(found.group(1)), world.text.amount(found.group(2))
    if small.measure != large.measure:
        return None
    world.look_at_words("times as")
    return world.found(ratio(large, small), "equal-groups", "number")
