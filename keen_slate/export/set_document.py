"""A set as one JSON document (docs/formats.md): written from the store, read back with every fault named by its
place.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from keen_slate.core.limits import (
    MOST_BLANKS,
    MOST_EXAMPLES,
    MOST_MINUTES,
    MOST_POINTS,
    MOST_STANDARDS,
    MOST_WORDS,
    SOURCE_CHARACTERS,
    TITLE_LENGTH,
    WORDS_LENGTH,
)
from keen_slate.core.reading.kinds import Target
from keen_slate.core.working.keys import BLANK_KEY, MARK_KEY, STEP_KEY, WORDS_KEY

from . import json_document
from .json_document import Part, problem_at, ways_at

Text = Annotated[str, StringConstraints(max_length=WORDS_LENGTH)]
Codes = Annotated[dict[str, Text], Field(max_length=MOST_WORDS)]
Sentence = Annotated[str, StringConstraints(min_length=1, max_length=WORDS_LENGTH, pattern=r"\S")]
Words = Annotated[dict[Annotated[str, StringConstraints(pattern=WORDS_KEY)], Sentence], Field(max_length=MOST_WORDS)]


class FadingPart(Part):
    """What pupils fill in."""

    hide: Annotated[int, Field(ge=0, le=99)] = 0
    blanks: Annotated[list[Annotated[str, StringConstraints(pattern=BLANK_KEY)]], Field(max_length=MOST_BLANKS)] = []
    pause: Annotated[str, StringConstraints(pattern=STEP_KEY)] | None = None


class ExamplePart(Part):
    """An example: its problem as typed (with a decimal point), and what its teacher added."""

    problem: Annotated[str, StringConstraints(max_length=SOURCE_CHARACTERS)]
    to: Target | None = None
    ways: Codes = {}
    words: Words = {}
    note: Text = ""
    fading: FadingPart = FadingPart()
    marks: Annotated[
        dict[Annotated[str, StringConstraints(pattern=MARK_KEY)], Annotated[int, Field(ge=0, le=MOST_POINTS)]],
        Field(max_length=MOST_EXAMPLES),
    ] = {}


class SetDocument(Part):
    """A set of worked examples, version 1.

    Workings, pictures and wrong answers are computed anew where it is opened.
    """

    format: Literal["keen-slate/set"]
    version: Literal[1]
    title: Annotated[str, StringConstraints(min_length=1, max_length=TITLE_LENGTH, pattern=r"\S")]
    objective: Text = ""
    standards: Annotated[list[Text], Field(max_length=MOST_STANDARDS)] = []
    note: Text = ""
    lesson_minutes: Annotated[int, Field(ge=1, le=MOST_MINUTES)] | None = None
    ways: Codes = {}
    words: Words = {}
    examples: Annotated[list[ExamplePart], Field(max_length=MOST_EXAMPLES)] = []


def read_document(file: bytes) -> SetDocument:
    """The set that a *file* holds, every setting known and every problem worked.

    Raises `ReadError` that says where it is wrong, and why.
    """
    document = json_document.read(
        file, SetDocument, "set", f"A set of {MOST_EXAMPLES} examples takes less than 100 kB."
    )
    ways_at(document.ways, "ways")
    for i, example in enumerate(document.examples):
        place = f"examples[{i}]"
        ways = ways_at({**document.ways, **example.ways}, f"{place}.ways")
        example.problem = problem_at(example.problem, example.to, ways, place)
    return document
