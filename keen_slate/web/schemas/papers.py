"""Handouts, and links to show."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from keen_slate.export.paper.options import (
    MOST_MINUTES,
    MOST_PER_PAGE,
    MOST_SPACE,
    MOST_WORDS,
    Form,
    Key,
    PageKind,
    Paper,
    Shading,
)

from .base import Strict

Words = Annotated[str, Field(max_length=MOST_WORDS)]


class HandoutQuery(Strict):
    """How the pages are to be.

    *versions* A, B, ... have other numbers, the same for the same seed; *only* names the examples by their numbers, all where it is empty.
    """

    kind: PageKind = "sheet"
    paper: Paper = "a4"
    per_page: Annotated[int, Field(ge=1, le=MOST_PER_PAGE)] = 4
    form: Form = "faded"
    space: Annotated[int, Field(ge=0, le=MOST_SPACE)] = 30
    fill: bool = True
    name_line: bool = True
    pictures: bool = False
    key: Key = "pages"
    choices: bool = False
    wrong_answers: bool = True
    mistake: Annotated[str, Field(max_length=40)] = ""
    shading: Shading = "bars"
    large: bool = False
    wide: bool = False
    grey: bool = False
    class_name: Words = ""
    date: Words = ""
    minutes: Annotated[int, Field(ge=0, le=MOST_MINUTES)] = 0
    versions: Annotated[int, Field(ge=1, le=4)] = 1
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0
    only: Annotated[str, Field(max_length=200, pattern=r"^(\d{1,4}(,\d{1,4})*)?$")] = ""


class PagesOut(BaseModel):
    """Each page as an SVG picture; *left_out* are the numbers of examples that this kind of page cannot show."""

    pages: list[str]
    left_out: list[int]


class ShowIn(Strict):
    shown: bool
