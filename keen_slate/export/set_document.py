"""A set as one JSON document (docs/formats.md): written from the store, read back with every fault named by its place."""

from __future__ import annotations

import json
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.limits import (
    LARGEST_FILE,
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
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.core.working.keys import BLANK_KEY, MARK_KEY, STEP_KEY, WORDS_KEY

FORMAT = "keen-slate/set"

Text = Annotated[str, StringConstraints(max_length=WORDS_LENGTH)]
Codes = Annotated[dict[str, Text], Field(max_length=MOST_WORDS)]
Sentence = Annotated[str, StringConstraints(min_length=1, max_length=WORDS_LENGTH, pattern=r"\S")]
Words = Annotated[dict[Annotated[str, StringConstraints(pattern=WORDS_KEY)], Sentence], Field(max_length=MOST_WORDS)]


class Part(BaseModel):
    """A part of a document: what it does not know is refused, not lost."""

    model_config = ConfigDict(extra="forbid", strict=True)


class FadingPart(Part):
    """What pupils fill in."""

    hide: Annotated[int, Field(ge=0, le=99)] = 0
    blanks: Annotated[list[Annotated[str, StringConstraints(pattern=BLANK_KEY)]], Field(max_length=MOST_BLANKS)] = []
    pause: Annotated[str, StringConstraints(pattern=STEP_KEY)] | None = None


class ExamplePart(Part):
    """An example: its problem as typed (with a decimal point), and what its teacher added."""

    problem: Annotated[str, StringConstraints(max_length=SOURCE_CHARACTERS)]
    to: Literal["improper", "mixed", "fraction", "decimal"] | None = None
    ways: Codes = {}
    words: Words = {}
    note: Text = ""
    fading: FadingPart = FadingPart()
    marks: Annotated[
        dict[Annotated[str, StringConstraints(pattern=MARK_KEY)], Annotated[int, Field(ge=0, le=MOST_POINTS)]],
        Field(max_length=MOST_EXAMPLES),
    ] = {}


class SetDocument(Part):
    """A set of worked examples, version 1. Workings, pictures and wrong answers are computed anew where it is opened."""

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


def written(document: SetDocument) -> bytes:
    """The document as a file."""
    return (json.dumps(document.model_dump(), ensure_ascii=False, indent=1) + "\n").encode()


def read_document(file: bytes) -> SetDocument:
    """The set that a *file* holds. Raises `ReadError` that says where it is wrong, and why."""
    if len(file) > LARGEST_FILE:
        raise _refused(
            f"The file is larger than {LARGEST_FILE // 2**20} MB.",
            f"A set of {MOST_EXAMPLES} examples takes less than 100 kB.",
        )
    try:
        given = json.loads(file.decode("utf-8-sig"))
    except UnicodeDecodeError:
        raise _refused("The file is not UTF-8 text.", "Choose a file that Keen Slate has written.") from None
    except json.JSONDecodeError as error:
        raise _refused(
            f"The file is not JSON: line {error.lineno}, column {error.colno}.", "It may be broken."
        ) from None
    except (RecursionError, ValueError):
        raise _refused("The file is nested too deeply, or has too long a number.", "No set looks like this.") from None
    if not isinstance(given, dict) or given.get("format") != FORMAT:
        raise _refused("The file is not a Keen Slate set.", f'It would begin with "format": "{FORMAT}".')
    if given.get("version") != 1:
        raise _refused("The file is of a version that is not known here.", "This Keen Slate reads version 1.")
    try:
        document = SetDocument.model_validate(given)
    except ValidationError as error:
        first = error.errors(include_url=False, include_input=False)[0]
        raise _refused(f"{_place(first['loc'])}: {first['msg']}.", "Nothing was stored.") from None
    return _worked(document)


def _worked(document: SetDocument) -> SetDocument:
    """The *document*, every setting known and every problem worked and spelled as it is stored. Raises `ReadError`."""
    _ways(document.ways, "ways")
    for i, example in enumerate(document.examples):
        place = f"examples[{i}]"
        ways = _ways({**document.ways, **example.ways}, f"{place}.ways")
        try:
            example.problem = work_text(example.problem, ways, ".", example.to).working.problem.text
        except CoreError as error:
            raise _refused(f"{place}.problem: {error.message}", error.hint) from None
    return document


def _ways(codes: dict[str, str], place: str) -> Ways:
    try:
        return Ways.of(codes)
    except CoreError as error:
        raise _refused(f"{place}: {error.message}", error.hint) from None


def _place(location: tuple[Any, ...]) -> str:
    """("examples", 3, "problem") -> examples[3].problem."""
    spelled = "".join([f"[{part}]" if isinstance(part, int) else f".{part}" for part in location])
    return spelled.removeprefix(".") or "the document"


def _refused(message: str, hint: str) -> ReadError:
    return ReadError(message, 0, 0, hint)
