"""Times of the clock: how long from one to another, and when something begins or ends."""

from __future__ import annotations

import re

from .amounts import combined
from .world import Finding, World

_BEGINS = r"begins?|began|starts?|started|leaves?|left|departs?|departed|sets? (?:off|out)|opens?|opened|due|goes|from"
_ENDS = (
    r"ends?|ended|finish(?:es|ed)?|arrives?|arrived|gets? in|got in|comes?|came|back|reach(?:es|ed)?|returns?|returned|"
    r"closes?|closed|until|over|home"
)
_HOW_LONG = r"\bhow (?:long|late|much late|many (?:minutes|hours))\b"


def clock(world: World) -> Finding | None:
    """A time between two times of the clock, or a time of the clock from another and how long something takes."""
    clocks = [i for kind, i in world.needed if kind == "c"]
    lasting = [
        world.text.amounts[i]
        for kind, i in world.needed
        if kind == "u" and (unit := world.text.amounts[i].unit) and unit.measure == "time"
    ]
    others = [one for one in world.needed if one[0] != "c" and world.text.amounts[one[1]] not in lasting]
    if not clocks or others:
        return None
    if len(clocks) == 2 and not lasting and not world.asked.clock and world.asks(_HOW_LONG):
        first, second = sorted((world.text.amounts[i] for i in clocks), key=lambda one: one.number)
        world.look_at_words(
            "same late but" + (" back" if world.says(r"\b(?:was|is|be|came|come|comes|were|got|get) back\b") else "")
        )
        if world.text.amounts[clocks[0]] is not first:
            world.text.doubt("when", "It is not clear which of the two times is the earlier one.")
        said = [world.text.words_of(i) for i in clocks]
        if any(
            one.number >= 12 and int(re.split(r"\D", told)[0] or 12) < 12
            for one, told in zip((world.text.amounts[i] for i in clocks), said, strict=True)
        ) and not re.search(r"m\b|morning|afternoon|evening|night", " ".join(said)):
            world.text.doubt(
                "when", "It is not clear whether the second time is of the same half of the day.", clocks[1]
            )
        return world.found(combined([("+", second), ("-", first)], name="the time between"), "compare", "difference")
    if len(clocks) == 1 and lasting and world.asked.clock:
        return _other_time(world, clocks[0])
    return None


def _other_time(world: World, index: int) -> Finding | None:
    lasting = [world.text.amounts[i] for kind, i in world.needed if kind == "u"]
    said = (
        next(one for one in world.text.statements if f"<c{index}>" in one)
        if not world.asks(rf"<c{index}>")
        else world.text.question
    )
    before = said[: said.index(f"<c{index}>")]
    begins = list(re.finditer(rf"\b(?:{_BEGINS})\b", before))
    ends = list(re.finditer(rf"\b(?:{_ENDS})\b", before))
    told_end = bool(ends) and (not begins or ends[-1].start() > begins[-1].start())
    asks_begin = world.asks(rf"\b(?:{_BEGINS}|leave)\b") is not None
    asks_end = (
        world.asks(r"\b(?:end|finish|arrive|get in|come|be back|back|reach|return|close|over|be home|get home|ready)\b")
        is not None
    )
    if asks_begin == asks_end or not (begins or ends):
        return None
    world.look_at_words("least latest back")
    must = world.asks(r"\bmust\b|\bhave to\b|\bshould\b") is not None
    time = world.text.amounts[index]
    if asks_end and not told_end:
        return world.found(combined([("+", time), *[("+", one) for one in lasting]], time.unit), "add-to", "result")
    if asks_begin and (told_end or must):
        return world.found(combined([("+", time), *[("-", one) for one in lasting]], time.unit), "take-from", "start")
    return None
