"""What all resources share: texts and their limits, refusals, versions."""

from __future__ import annotations

import re
from datetime import date
from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints

from keen_slate.core.limits import (
    CODE_LENGTH,
    MOST_EXAMPLES,
    MOST_POINTS,
    MOST_WORDS,
    SOURCE_CHARACTERS,
    TITLE_LENGTH,
    WORDS_LENGTH,
)
from keen_slate.core.reading.kinds import Target as Target
from keen_slate.core.working.keys import BLANK_KEY, MARK_KEY, WORDS_KEY

Source = Annotated[str, StringConstraints(max_length=SOURCE_CHARACTERS)]
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=TITLE_LENGTH)]
Sentence = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=WORDS_LENGTH)]
Words = Annotated[dict[Annotated[str, StringConstraints(pattern=WORDS_KEY)], Sentence], Field(max_length=MOST_WORDS)]
BlankKey = Annotated[str, StringConstraints(pattern=BLANK_KEY)]
Points = Annotated[
    dict[Annotated[str, StringConstraints(pattern=MARK_KEY)], Annotated[int, Field(ge=0, le=MOST_POINTS)]],
    Field(max_length=MOST_EXAMPLES),
]
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=WORDS_LENGTH)]
WaysMap = Annotated[dict[str, str], Field(max_length=40)]
Code = Annotated[str, StringConstraints(max_length=CODE_LENGTH)]
Codes = Annotated[list[Code], Field(max_length=3)]  # that a group holds


def _as_written(given: object) -> object:
    """A day is written as text: a number would be taken for seconds."""
    if not isinstance(given, date) and not (isinstance(given, str) and re.fullmatch(r"\d{4}-\d{2}-\d{2}", given)):
        raise ValueError("write it like 2026-11-12")
    return given


# JSON has no such values of its own: they come as text.
Id = Annotated[UUID, Field(strict=False)]
Date = Annotated[date, BeforeValidator(_as_written), Field(strict=False)]


class Strict(BaseModel):
    """What comes in: unknown fields are refused, not lost, and nothing is taken for something else (true for 1)."""

    model_config = ConfigDict(extra="forbid", strict=True)


class Query(Strict):
    """What comes in an address, where everything is text."""

    model_config = ConfigDict(extra="forbid", strict=False)


class ErrorBody(BaseModel):
    message: str
    position: int
    length: int
    hint: str


class ErrorOut(BaseModel):
    error: ErrorBody


class VersionIn(Strict):
    version: int


class VersionQuery(Query):
    version: int
