"""What all resources share: texts and their limits, refusals, versions."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from keen_slate.core.limits import (
    CODE_LENGTH,
    MOST_EXAMPLES,
    MOST_POINTS,
    MOST_WORDS,
    SOURCE_CHARACTERS,
    TITLE_LENGTH,
    WORDS_LENGTH,
)
from keen_slate.core.working.keys import BLANK_KEY, MARK_KEY, WORDS_KEY

Source = Annotated[str, StringConstraints(max_length=SOURCE_CHARACTERS)]
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=TITLE_LENGTH)]
Sentence = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=WORDS_LENGTH)]
Words = Annotated[dict[Annotated[str, StringConstraints(pattern=WORDS_KEY)], Sentence], Field(max_length=MOST_WORDS)]
Target = Literal["improper", "mixed", "fraction", "decimal"]
BlankKey = Annotated[str, StringConstraints(pattern=BLANK_KEY)]
Points = Annotated[
    dict[Annotated[str, StringConstraints(pattern=MARK_KEY)], Annotated[int, Field(ge=0, le=MOST_POINTS)]],
    Field(max_length=MOST_EXAMPLES),
]
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=WORDS_LENGTH)]
WaysMap = Annotated[dict[str, str], Field(max_length=40)]
Code = Annotated[str, StringConstraints(max_length=CODE_LENGTH)]


class Strict(BaseModel):
    """What comes in: unknown fields are refused, not lost."""

    model_config = ConfigDict(extra="forbid")


class ErrorBody(BaseModel):
    message: str
    position: int
    length: int
    hint: str


class ErrorOut(BaseModel):
    error: ErrorBody


class VersionIn(Strict):
    version: int


class VersionQuery(Strict):
    version: int
