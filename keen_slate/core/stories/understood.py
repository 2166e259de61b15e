"""How a told text is understood: what its sentences prove, what its clues say, what else it could ask for."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..errors import CoreError, ReadError
from ..expressions.text import text as write
from ..expressions.tree import value
from ..reading.measures import UNITS, unit_named
from .calculation import ToldText, linked
from .clues import Clues, has_opinion
from .in_steps import in_one_unit
from .plan import Plan
from .plans import plans
from .possible import refuse_impossible
from .question import Sentence
from .story import Story
from .understanding.amounts import calculations
from .understanding.doubts import Doubt, DoubtError
from .understanding.guesses import guesses
from .understanding.proof import findings
from .understanding.world import Finding

MOST_READINGS = 4


@dataclass(frozen=True, slots=True)
class Reading:
    """How a story is read: the *story*, whether that is *certain*, all *readings* (itself first), and why it is not
    certain.

    What the clues say is certain only where the second opinion, which knows nothing of them, finds the same.
    """

    story: Story
    certain: bool
    readings: tuple[Story, ...]
    doubts: tuple[Doubt, ...] = ()


def understood(told: ToldText, said: Sequence[Sentence]) -> Reading:
    """How a *told* text is read whose sentences are *said*. Raises `CoreError`."""
    clues = Clues(told, list(said))
    found, doubt = found_in(told, said)
    by_clues = [in_one_unit(clues, plan) for plan in plans(clues)] if len(clues.needed) > 1 else []
    read = [_plan_of(one) for one in found]
    stories: list[Story] = []
    refusal: CoreError | None = None
    for plan in [*read, *by_clues, *guesses(told)]:
        try:
            story = linked(told, braces_of(told, plan), 0)
            refuse_impossible(story)
        except CoreError as error:
            refusal = refusal or error
            continue
        if _answer_of(story) not in [_answer_of(known) for known in stories]:
            stories.append(story)
    if (
        found
        and found[0].doubts
        and all(one.code == "impossible" for one in found[0].doubts)
        and _story_of(read[0], told) is None
    ):
        raise _placed(_refusal_of(read[0], told), told)
    if not stories and len(told.quantities) == 1:
        one = told.quantities[0]
        raise ReadError(
            f"Only one number stands in this story: {one.text}.",
            one.start,
            one.end - one.start,
            "A calculation needs two numbers or more.",
        )
    if not stories:
        raise _placed(refusal, told)
    doubts = (doubt,) if doubt else found[0].doubts
    if not doubts and (_story_of(read[0], told) is None or value(stories[0].whole) != found[0].answer.number):
        doubts = (Doubt("impossible", "What is found cannot be.", *_at_question(told)),)
    if not doubts and has_opinion(clues) and any(_differs(told, plan, stories[0]) for plan in by_clues if plan.sure):
        doubts = (Doubt("two-opinions", "It can be read in another way, too.", *_at_question(told)),)
    if not doubts:
        return Reading(stories[0], True, (stories[0],))
    return Reading(stories[0], False, tuple(stories[:MOST_READINGS]), doubts)


def found_in(told: ToldText, said: Sequence[Sentence]) -> tuple[list[Finding], Doubt | None]:
    """What the rules find, the likeliest first, or why they find nothing."""
    try:
        return list(findings(told, said)), None
    except DoubtError as error:
        return [], error.doubt


def _plan_of(found: Finding) -> Plan:
    steps = calculations(found.answer)
    changed = {f"the {unit.many} = " for unit in UNITS}
    alone = found.situation == "steps" or all(step.startswith(tuple(changed)) for step in steps[:-1])
    situation, unknown = (found.situation, found.unknown) if alone else ("steps", "answer")
    return Plan(situation, unknown, steps)


def _differs(told: ToldText, plan: Plan, story: Story) -> bool:
    """Whether the clues are sure of something else."""
    other = _story_of(plan, told)
    return other is not None and _answer_of(other) != _answer_of(story)


def _story_of(plan: Plan, told: ToldText) -> Story | None:
    """The story that a plan makes; None where it cannot be."""
    try:
        story = linked(told, braces_of(told, plan), 0)
        refuse_impossible(story)
    except CoreError:
        return None
    return story


def _refusal_of(plan: Plan, told: ToldText) -> CoreError | None:
    """Why a plan makes no story."""
    try:
        refuse_impossible(linked(told, braces_of(told, plan), 0))
    except CoreError as error:
        return error
    return None


def _answer_of(story: Story) -> Fraction:
    """What a story finds, in the first unit of its measure."""
    label = story.steps[-1].label
    unit = unit_named(label) if label else None
    return value(story.whole) * (unit.size if unit else 1)


def _at_question(told: ToldText) -> tuple[int, int]:
    return told.question.start, told.question.end - told.question.start


def _placed(refusal: CoreError | None, told: ToldText) -> CoreError:
    """A refusal of a calculation that nobody typed, with the place of the question."""
    start, length = told.question.start, told.question.end - told.question.start
    if refusal is None:
        return ReadError(
            "It is not clear how the numbers lead to what is asked.",
            start,
            length,
            "Type the calculation, or tell it in other words.",
        )
    return ReadError(refusal.message, start, length, refusal.hint)


def braces_of(told: ToldText, plan: Plan) -> str:
    """What stands in the braces of a story whose calculations are those of a *plan*."""
    head = f"{plan.situation} {plan.unknown}: "
    unused = [i for i in range(len(told.quantities)) if not any(f"#{i}#" in part for part in plan.calculations)]
    parts = [*plan.calculations, *[f"not #{i}#" for i in unused]]
    return head + re.sub(r"(?P<before>[-+×÷] )?#(?P<index>\d+)#", lambda found: _number(told, found), "; ".join(parts))


def _number(told: ToldText, found: re.Match[str]) -> str:
    number = write(told.quantities[int(found["index"])].number)
    before = found["before"] or ""
    return f"{before}({number})" if before and number.startswith("-") else before + number
