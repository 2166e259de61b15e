"""A story with two questions, worked as a) and b): each is read alone, and what a) finds may be used by b)."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from ..errors import CoreError
from .calculation import ToldText, linked, split_source
from .possible import refuse_impossible
from .question import Sentence
from .story import FIRST, Story
from .understood import MOST_READINGS, Reading, understood


def understood_twice(told: ToldText, said: Sequence[Sentence]) -> Reading:
    """How a story is read that asks `told.earlier` and then its question. Raises `CoreError`."""
    assert told.earlier is not None, "a story of one question is read at once"
    first = understood(
        replace(told, question=told.earlier, earlier=None), [one for one in said if one != told.question]
    )
    second = understood(replace(told, earlier=None), [one for one in said if one != told.earlier])
    stories: list[Story] = []
    refusal: CoreError | None = None
    for one in first.readings:
        for other in second.readings:
            try:
                story = linked(told, _joined(one, other), 0)
                refuse_impossible(story)
            except CoreError as error:
                refusal = refusal or error
                continue
            stories.append(story)
    if not stories:
        assert refusal is not None, "each question has a reading"
        raise refusal
    certain = first.certain and second.certain
    kept = (stories[0],) if certain else tuple(stories[:MOST_READINGS])
    return Reading(stories[0], certain, kept, () if certain else first.doubts or second.doubts)


def _joined(first: Story, second: Story) -> str:
    """What stands in the braces: the calculations of both, a result that both need found once."""
    ahead, behind = _parts(first), _parts(second)
    known = {calculation: name for name, calculation in ahead}
    done = list(ahead)
    renamed: dict[str, str] = {}
    for name, calculation in behind:
        for old, new in renamed.items():
            calculation = re.sub(rf"\b{re.escape(old)}\b", new, calculation)
        if name and calculation in known:
            renamed[name] = known[calculation]
            continue
        if name and any(name == other for other, _ in done):
            renamed[name] = f"{name} again"
            name = renamed[name]
        done.append((name, calculation))
    used = " ".join([calculation for _, calculation in done])
    unneeded = [
        number
        for number in _unneeded(second)
        if number in _unneeded(first) and not re.search(rf"(?<![\d/.]){re.escape(number)}(?![\d/.])", used)
    ]
    written = [f"{name} = {calculation}" if name else calculation for name, calculation in done]
    return "; ".join([f"steps answer: {written[0]}", *written[1:], *[f"not {number}" for number in unneeded]])


def _parts(story: Story) -> list[tuple[str, str]]:
    """The names and calculations of a story; the last of the first question is called by its letter."""
    asked = story.question[1] < len(story.text.rstrip())
    parts = []
    for i, step in enumerate(story.steps):
        name, _, calculation = story.spelled(i).rpartition(" = ")
        parts.append(
            (name or (FIRST if asked else ""), calculation) if i == len(story.steps) - 1 else (step.finds, calculation)
        )
    return parts


def _unneeded(story: Story) -> list[str]:
    braces = split_source(story.source)[1] or ""
    return [part.strip().removeprefix("not ") for part in braces.split(";") if part.strip().startswith("not ")]
