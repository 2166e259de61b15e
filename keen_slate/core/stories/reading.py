"""From a told text to a story: which situation it is, what is unknown, which calculations it asks for; or what could be
meant.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from ..errors import CoreError, LimitError, ReadError
from ..expressions.text import DecimalMark
from ..expressions.text import text as write
from ..expressions.tree import Dec, value
from ..limits import MAX_LABEL, STORY_CHARACTERS
from ..reading.problem import refuse_what_has_no_value
from .calculation import HEAD, ToldText, linked, split_source
from .numbers import Quantity, quantities_in
from .possible import refuse_impossible
from .question import questions_of, sentences
from .story import Story, StoryProblem
from .two_questions import understood_twice
from .understood import Reading, found_in, understood


def story_problem(source: str, mark: DecimalMark = ".") -> StoryProblem:
    """A story as a problem.

    Raises `CoreError`; a story that can be read in several ways is refused until its calculation is said.
    """
    found = read_story(source, mark)
    if not found.certain:
        example = split_source(found.story.source)[1] or ""
        raise ReadError(
            "It is not clear how this story is worked.", found.story.question[0],
            found.story.question[1] - found.story.question[0],
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
    _refuse_loose_brace(source, text)
    told = _told(text, mark)
    if braces is not None:
        story = _with_situation(told, linked(told, braces, at, mark), braces)
        refuse_impossible(story)
        return Reading(story, True, (story,))
    return understood_twice(told, sentences(text)) if told.earlier else understood(told, sentences(told.text))


def _refuse_loose_brace(source: str, text: str) -> None:
    """Refuse a *text* with braces in it: those around the calculation come last, in one pair. Raises `ReadError`."""
    loose = re.search(r"[{}]", text)
    if loose is not None:
        raise ReadError(
            "A brace stands in the text of the story.", source.find(loose.group()), 1,
            "Write the calculation at the end, in one pair of braces, like {3 1/4 - 1 2/3}.",
        )  # fmt: skip


def _with_situation(told: ToldText, story: Story, braces: str) -> Story:
    """A story whose calculation was typed alone, with the situation in which the text leads to the same."""
    if HEAD.match(braces) or told.earlier is not None:
        return story
    for found in found_in(told, sentences(told.text))[0]:
        if found.answer.number == value(story.whole) and (len(story.steps) > 1) == (found.situation == "steps"):
            return replace(story, situation=found.situation, unknown=found.unknown)  # type: ignore[arg-type]
    return story


def _told(text: str, mark: DecimalMark) -> ToldText:
    found = quantities_in(text, mark)
    if not found:
        raise ReadError(
            "No number stands in this story.", 0, len(text), "Write the numbers in digits or in English words."
        )
    if mark != ".":
        text, found = _with_points(text, found)
    parts = sentences(text)
    *earlier, question = questions_of(parts, text)
    return ToldText(text, tuple(found), question, earlier[0] if earlier else None)


def _with_points(text: str, found: list[Quantity]) -> tuple[str, list[Quantity]]:
    """A text and its quantities with decimal points, as texts are stored."""
    pointed = []
    for one in found:
        if isinstance(one.number, Dec):
            text = text[: one.start] + text[one.start : one.end].replace(",", ".") + text[one.end :]
        pointed.append(replace(one, text=text[one.start : one.end]))
    return text, pointed


@dataclass(frozen=True, slots=True)
class Understood:
    """What is understood of a text so far: its *quantities*, its *reading* where there is one, and else why there is
    none.
    """

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
