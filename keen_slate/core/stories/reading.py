"""From a told text to a story: which situation it is, what is unknown, which calculations it asks for; or what could be meant."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from fractions import Fraction

from ..errors import CoreError, LimitError, ReadError
from ..expressions.text import DecimalMark
from ..expressions.text import text as write
from ..expressions.tree import Dec, value
from ..limits import MAX_LABEL, STORY_CHARACTERS
from ..reading.measures import UNITS, unit_named
from ..reading.problem import Problem, refuse_what_has_no_value
from ..reading.reader import read
from .calculation import Told, linked, split_source
from .clues import Clues, has_opinion
from .in_steps import in_one_unit
from .numbers import Quantity, quantities_in
from .plan import Plan
from .plans import plans
from .possible import refuse_impossible
from .question import question_of, sentences
from .story import Story, StoryProblem
from .understanding.amounts import calculations
from .understanding.doubts import Doubt, DoubtError
from .understanding.guesses import guesses
from .understanding.proof import findings
from .understanding.world import Finding

MOST_READINGS = 4
_TELLS = re.compile(r"[^\W\d_]{2,}[ ,]+[^\W\d_]{2,}.*[.?!]|\?|\{")


@dataclass(frozen=True, slots=True)
class Reading:
    """How a story is read: the *story*, whether that is *certain*, all *readings* (itself first), and why it is not certain.

    What the clues say is certain only where the second opinion, which knows nothing of them, finds the same.
    """

    story: Story
    certain: bool
    readings: tuple[Story, ...]
    doubts: tuple[Doubt, ...] = ()


def is_story(source: str) -> bool:
    """Whether a text tells something, and is no bare calculation.

    >>> is_story("3 1/4 - 1 2/3 ft"), is_story("A plank is 3 m long. How long are two?")
    (False, True)
    """
    return _TELLS.search(source) is not None


def read_any(source: str, mark: DecimalMark = ".") -> Problem:
    """The problem that *source* is: a calculation, or a story. Raises `CoreError`."""
    return story_problem(source, mark) if is_story(source) else read(source, mark)


def story_problem(source: str, mark: DecimalMark = ".") -> StoryProblem:
    """A story as a problem. Raises `CoreError`; a story that can be read in several ways is refused until its calculation is said."""
    found = read_story(source, mark)
    if not found.certain:
        example = split_source(found.story.source)[1] or ""
        raise ReadError(
            "It is not clear how this story is worked.", found.story.question[0], found.story.question[1] - found.story.question[0],
            f"Write its calculation after it in braces, like {{{example}}}.",
        )  # fmt: skip
    return as_problem(found.story)


def as_problem(story: Story) -> StoryProblem:
    """A *story* as a problem. Raises `CoreError` where it cannot be worked."""
    whole = story.whole
    refuse_what_has_no_value(whole, write(whole))
    label = story.steps[-1].label
    if label is not None and len(label) > MAX_LABEL:
        raise LimitError(f"A label may have {MAX_LABEL} characters.", 0, len(story.text), "Use a shorter word.")
    return StoryProblem(whole, label, "story", story=story)


def read_story(source: str, mark: DecimalMark = ".") -> Reading:
    """How *source* is read, the calculation in its braces first. Raises `CoreError`.

    >>> found = read_story("A plank is 3 1/4 m long. Alder saws 1 2/3 m off. How long is what is left?")
    >>> found.certain, found.story.source.partition("{")[2]
    (True, 'take-from result: 3 1/4 - 1 2/3}')
    """
    text, braces, at = split_source(source)
    if len(text) > STORY_CHARACTERS:
        raise LimitError(
            f"A story may have {STORY_CHARACTERS} characters; this one has {len(text)}.", STORY_CHARACTERS,
            len(text) - STORY_CHARACTERS, "Tell it more shortly.",
        )  # fmt: skip
    told = _told(text, mark)
    if braces is not None:
        story = linked(told, braces, at, mark)
        refuse_impossible(story)
        return Reading(story, True, (story,))
    return _understood(told)


def _told(text: str, mark: DecimalMark) -> Told:
    found = quantities_in(text, mark)
    if not found:
        raise ReadError(
            "No number stands in this story.", 0, len(text), "Write the numbers in digits or in English words."
        )
    if mark != ".":
        text, found = _with_points(text, found)
    parts = sentences(text)
    question = question_of(parts, text)
    return Told(text, tuple(found), question)


def _with_points(text: str, found: list[Quantity]) -> tuple[str, list[Quantity]]:
    """A text and its quantities with decimal points, as texts are stored."""
    pointed = []
    for one in found:
        if isinstance(one.number, Dec):
            text = text[: one.start] + text[one.start : one.end].replace(",", ".") + text[one.end :]
        pointed.append(replace(one, text=text[one.start : one.end]))
    return text, pointed


def _understood(told: Told) -> Reading:
    clues = Clues(told, sentences(told.text))
    found, doubt = _found(told)
    by_clues = [in_one_unit(clues, plan) for plan in plans(clues)] if len(clues.needed) > 1 else []
    read = [_plan_of(one) for one in found]
    stories: list[Story] = []
    refusal: CoreError | None = None
    for plan in [*read, *by_clues, *guesses(told)]:
        try:
            story = linked(told, _braces(told, plan), 0)
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


def _found(told: Told) -> tuple[list[Finding], Doubt | None]:
    """What the rules find, the likeliest first, or why they find nothing."""
    try:
        return list(findings(told, sentences(told.text))), None
    except DoubtError as error:
        return [], error.doubt


def _plan_of(found: Finding) -> Plan:
    steps = calculations(found.answer)
    changed = {f"the {unit.many} = " for unit in UNITS}
    alone = found.situation == "steps" or all(step.startswith(tuple(changed)) for step in steps[:-1])
    situation, unknown = (found.situation, found.unknown) if alone else ("steps", "answer")
    return Plan(situation, unknown, steps)


def _differs(told: Told, plan: Plan, story: Story) -> bool:
    """Whether the clues are sure of something else."""
    other = _story_of(plan, told)
    return other is not None and _answer_of(other) != _answer_of(story)


def _story_of(plan: Plan, told: Told) -> Story | None:
    """The story that a plan makes; None where it cannot be."""
    try:
        story = linked(told, _braces(told, plan), 0)
        refuse_impossible(story)
    except CoreError:
        return None
    return story


def _refusal_of(plan: Plan, told: Told) -> CoreError | None:
    """Why a plan makes no story."""
    try:
        refuse_impossible(linked(told, _braces(told, plan), 0))
    except CoreError as error:
        return error
    return None


def _answer_of(story: Story) -> Fraction:
    """What a story finds, in the first unit of its measure."""
    label = story.steps[-1].label
    unit = unit_named(label) if label else None
    return value(story.whole) * (unit.size if unit else 1)


def _at_question(told: Told) -> tuple[int, int]:
    return told.question.start, told.question.end - told.question.start


def _placed(refusal: CoreError | None, told: Told) -> CoreError:
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


def _braces(told: Told, plan: Plan) -> str:
    head = f"{plan.situation} {plan.unknown}: "
    unused = [i for i in range(len(told.quantities)) if not any(f"#{i}#" in part for part in plan.calculations)]
    parts = [*plan.calculations, *[f"not #{i}#" for i in unused]]
    return head + re.sub(r"(?P<before>[-+×÷] )?#(?P<index>\d+)#", lambda found: _number(told, found), "; ".join(parts))


def _number(told: Told, found: re.Match[str]) -> str:
    number = write(told.quantities[int(found["index"])].number)
    before = found["before"] or ""
    return f"{before}({number})" if before and number.startswith("-") else before + number


@dataclass(frozen=True, slots=True)
class Understood:
    """What is understood of a text so far: its *quantities*, its *reading* where there is one, and else why there is none."""

    text: str
    quantities: tuple[Quantity, ...]
    reading: Reading | None
    refusal: CoreError | None


def understand(source: str, mark: DecimalMark = ".") -> Understood:
    """As much of *source* as can be understood; nothing is raised.

    >>> found = understand("Sedge has 2 1/2 m of rope")
    >>> [one.text for one in found.quantities], found.refusal.message
    (['2 1/2 m'], 'Nothing is asked in this story.')
    """
    text = split_source(source)[0]
    try:
        quantities = tuple(quantities_in(text[:STORY_CHARACTERS], mark))
    except CoreError as error:
        return Understood(text, (), None, error)
    try:
        return Understood(text, quantities, read_story(source, mark), None)
    except CoreError as error:
        return Understood(text, quantities, None, error)
