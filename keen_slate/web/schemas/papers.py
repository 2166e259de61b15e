"""Handouts, and links to show."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from keen_slate.core.limits import CODE_LENGTH, MOST_MINUTES, PAPER_WORDS
from keen_slate.export.paper.options import (
    MOST_PER_PAGE,
    MOST_SPACE,
    Form,
    Key,
    PageKind,
    Paper,
    Shading,
)

from .base import Query, Strict

MOST_PAGES = 400
Words = Annotated[str, Field(max_length=PAPER_WORDS)]


class HandoutQuery(Query):
    """How the pages are to be.

    *versions* A, B, ... have other numbers, the same for the same seed; *only* names the examples by their numbers, as
    in "1, 3, 5-8", all where it is empty. *per_page* is 0 for as many as fit.
    """

    kind: PageKind = "sheet"
    paper: Paper = "a4"
    per_page: Annotated[int, Field(ge=0, le=MOST_PER_PAGE)] = 0
    form: Form = "faded"
    space: Annotated[int, Field(ge=0, le=MOST_SPACE)] = 30
    fill: bool = True
    name_line: bool = True
    pictures: bool = False
    key: Key = "pages"
    choices: bool = False
    wrong_answers: bool = True
    mistake: Annotated[str, Field(max_length=CODE_LENGTH)] = ""
    shading: Shading = "bars"
    large: bool = False
    wide: bool = False
    grey: bool = False
    class_name: Words = ""
    date: Words = ""
    minutes: Annotated[int, Field(ge=0, le=MOST_MINUTES)] = 0
    versions: Annotated[int, Field(ge=1, le=4)] = 1
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0
    only: Annotated[str, Field(max_length=200)] = ""


class PreviewQuery(HandoutQuery):
    """The same with how many pages are shown at *most*."""

    most: Annotated[int, Field(ge=1, le=MOST_PAGES)] = 8


class PagesOut(BaseModel):
    """The first pages as SVG pictures, and how many there are; *left_out* are the numbers of examples that this kind of
    page cannot show.
    """

    pages: list[str]
    count: int
    left_out: list[int]


class ShowIn(Strict):
    shown: bool
