"""Groups and prices as one amount: "5 pieces of 1 3/4 ft each" is 5 × 1 3/4 ft, "3 notebooks at £1.45 each" cost 3 ×
£1.45.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace

from .abstract import COUNT, UNIT, Text
from .amounts import Amount, times

_W = r"[a-z][\w'’-]*"
_THINGS = rf"((?:{_W} ){{0,3}}?{_W}s)"  # things, in the plural
_DIM = r"(?:long|wide|high|tall|deep|thick)"
_IS = (
    r"(?:is|are|was|were|weighs?|weighed|holds?|held|contains?|contained|measures?|measured|has|have|had|lasts?|lasted|"
    r"takes?|took)"
)


def compose(text: Text) -> None:
    """Write each group of a text as one amount, where the text says both how many and how much each."""
    _prices(text)
    for pattern, write in _GROUPS:
        _rewrite(text, pattern, write)


def _rewrite(text: Text, pattern: re.Pattern[str], write: Callable[[Text, re.Match[str]], str | None]) -> None:
    def change(found: re.Match[str]) -> str:
        return write(text, found) or found.group()

    text.statements = [pattern.sub(change, one) for one in text.statements]
    text.question = pattern.sub(change, text.question)


def _group(text: Text, found: re.Match[str]) -> str | None:
    parts = found.groupdict()
    count, size = text.amount(parts["count"]), text.amount(parts["size"])
    if count.number == 1 or (size.unit and size.unit.measure == "money"):
        return None
    things = re.search(r"<n\d+> (?:[a-z'’-]+ )*?([a-z'’-]+s)\b", found.group())
    token = text.add(replace(times(count, size), noun=things.group(1) if things else ""))
    return f"{parts.get('lead') or ''}{token}{parts.get('tail') or ''}"


def _each_of(text: Text, found: re.Match[str]) -> str | None:
    parts = found.groupdict()
    token = text.add(times(text.amount(parts["count"]), text.amount(parts["size"])))
    return f"The {parts['things']} together {parts['verb']} {token}"


_N = r"<n(?P<count>\d+)>"
_U = r"<u(?P<size>\d+)>"
_GROUPS = (
    (re.compile(rf"\b[Ee]ach of (?:the |his |her |their )?{_N} (?P<things>(?:{_W} ){{0,3}}?{_W}) (?P<verb>{_IS}) "
                rf"{_U}(?: {_DIM})?"), _each_of),
    (re.compile(rf"{_N} (?:equal |more )?(?:{_W} ){{0,3}}?{_W}s,? (?:each "
                rf")?(?:of|with|holding|containing|measuring|weighing) {_U}(?P<tail> of {_W})? each\b"), _group),
    (re.compile(rf"{_N} (?:{_W} ){{0,3}}?{_W}s,? (?:each|every one) (?:{_IS} )?(?:of )?{_U}(?: {_DIM})?"), _group),
    (re.compile(rf"{_N} (?:{_W} ){{0,3}}?{_W}s,? (?:that |which )?(?:{_IS} )?{_U}(?: {_DIM})? (?:each|apiece)\b"),
        _group),
    (re.compile(rf"{_N} (?:{_W} )?(?:pieces|lengths|strips|bags|boxes|sacks|bottles|jars|cans|tins|buckets|rolls|"
                rf"bundles|packets|lots|portions|loads|laps|rounds|lessons|sessions|boards|planks|ropes|sheets|jugs|"
                rf"glasses|barrels|crates|bricks|stones|blocks|rafts|coaches|wagons|carriages|trips|walks|"
                rf"rides)(?: of {_W})? of {_U}(?! and <)"), _group),
    (re.compile(rf"{_N} times {_U}"), _group),
)  # fmt: skip

# Prices ---------------------------------------------------------------------------------------------------------------

_AT = re.compile(
    rf"{COUNT} (?P<things>(?:{_W} ){{0,3}}?{_W}s)(?: of {_W})? (?:at|for|that cost|which cost|costing|,? which are) "
    rf"{UNIT} (?:each|apiece|a piece|per {_W}|an? {_W}|for each)"
)


def _prices(text: Text) -> None:
    """ "3 notebooks at £1.45 each": what they cost together."""

    def write(of: Text, found: re.Match[str]) -> str | None:
        count, price = of.amount(found.group(1)), of.amount(found.group(3))
        if price.unit is None or price.unit.measure != "money":
            return None
        things = found["things"]
        return f"{things} for {of.add(times(count, price, f'all the {things.split()[-1]}'))}"

    _rewrite(text, _AT, write)


def counted(text: Text, amount: Amount) -> str:
    """What a count counts, as the text says it."""
    return amount.noun or (text.words_of(amount.index).split()[-1] if amount.index is not None else "")
