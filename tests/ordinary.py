"""Ordinary stories with their values, and how the reader meets each: for the tests, and for the benchmark that prints
them.
"""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.tree import value
from keen_slate.core.stories.reading import read_story
from keen_slate.core.stories.understood import Reading

FOLDER = Path(__file__).resolve().parent / "golden/stories"


@dataclass(frozen=True, slots=True)
class Ordinary:
    """An ordinary story: its *value* in the unit that is asked for (None where it must not be certain), its *kind* and
    *text*.
    """

    value: Fraction | None
    kind: str
    text: str


def given() -> list[Ordinary]:
    """Those with a value, of many kinds; invented."""
    told = json.loads((FOLDER / "ordinary.json").read_text(encoding="utf-8"))
    return [Ordinary(Fraction(one["value"]), one["kind"], one["text"]) for one in told["problems"]]


def unclear() -> list[Ordinary]:
    """Those that must not be worked with certainty."""
    told = json.loads((FOLDER / "ordinary.json").read_text(encoding="utf-8"))
    return [Ordinary(None, "unclear", one["text"]) for one in told["unclear"]]


def of_file(name: str) -> list[Ordinary]:
    """The stories of a file of lines: value | unit | kind | text."""
    lines = (FOLDER / name).read_text(encoding="utf-8").splitlines()
    rows = [[part.strip() for part in line.split("|", 3)] for line in lines if line and line[0] != "#"]
    return [Ordinary(Fraction(size), kind, text) for size, _, kind, text in rows]


def read(text: str) -> Reading | None:
    """How a story is read; None where it is refused."""
    try:
        return read_story(text)
    except CoreError:
        return None


def met(one: Ordinary) -> str:
    """How the reader meets a story: certain and right or wrong, right first, among what is offered, not offered,
    refused.
    """
    found = read(one.text)
    if found is None:
        return "refused"
    first = value(found.story.whole)
    if found.certain:
        return "certain, right" if first == one.value else "certain, wrong"
    if first == one.value:
        return "asked, right first"
    return "offered" if any(value(story.whole) == one.value for story in found.readings) else "not offered"


def counted(stories: list[Ordinary]) -> Iterator[tuple[str, Counter[str]]]:
    """How the stories of each kind are met, by kind."""
    kinds: dict[str, Counter[str]] = {}
    for one in stories:
        kinds.setdefault(one.kind, Counter())[met(one)] += 1
    yield from kinds.items()
