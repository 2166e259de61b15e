"""What a story asks for and how it is found: the first rule that fits, and every reason why it is not certain."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from ..calculation import ToldText
from ..question import Sentence
from . import changes, comparing, groups, parts, rates, shapes, times, wholes
from .abstract import Text, abstract
from .asked import ASKS, asked_of
from .composing import compose
from .doubts import Doubt, DoubtError
from .world import Finding, World

Rule = Callable[[World], Finding | None]

# The first that fits is what is meant: those that hang on words of their own before those of amounts that are simply
# there.
RULES: tuple[Rule, ...] = (
    times.clock, shapes.converted, rates.average, shapes.shape, groups.how_many_times, rates.change, rates.proportion,
    parts.fractions,
    rates.rate, groups.number_of, groups.then_shared, groups.shared, groups.repeated, comparing.difference,
    comparing.other, wholes.missing, wholes.lasting, wholes.part,
    changes.start, changes.end, changes.change, wholes.together, groups.composed,
)  # fmt: skip


# Questions that only some rules answer.
ONLY: tuple[tuple[str, tuple[Rule, ...]], ...] = (
    (r"\b(?:average|mean)\b", (rates.average,)),
    (r"\b(?:perimeter|area)\b|\bhow many square\b", (shapes.shape, shapes.converted)),
    (r"\b(?:at )?(?:what|which) time\b|\bwhen (?:does|did|must|will|do|is|should)\b", (times.clock,)),
    (r"\bhow many times (?:as|more)\b", (groups.how_many_times,)),
    (r"\bchange\b(?! in\b)|\b(?:get|gets|given|got) back\b", (rates.change,)),
    (r"\b(?:fraction|what part|which part|what share)\b", (parts.fractions,)),
)


def findings(told: ToldText, sentences: Sequence[Sentence]) -> Iterator[Finding]:
    """What every rule finds, the one that is meant first.

    Raises `DoubtError` where nothing is asked that a rule knows.
    """
    text = abstract(told, list(sentences))
    compose(text)
    if not ASKS.search(text.question):
        raise DoubtError(text.doubtful("asks-no-amount", "It is not clear which amount is asked for."))
    asked = asked_of(text.question)
    found = False
    only = next((rules for pattern, rules in ONLY if re.search(pattern, text.question, re.I)), RULES)
    for rule in only:
        own = text.copy()
        try:
            finding = rule(World(own, asked))
        except ZeroDivisionError:
            continue
        if finding is not None:
            found = True
            yield replace(finding, doubts=tuple(dict.fromkeys(own.doubts)))
    if not found:
        raise DoubtError(_why(text))


def _why(text: Text) -> Doubt:
    world = World(text, asked_of(text.question))
    text.doubts += [doubt for one in world.facts for doubt in one.doubts]
    return (
        text.doubts[0]
        if text.doubts
        else text.doubtful("nothing-determines", "It is not clear how the numbers lead to what is asked.")
    )
