"""Handouts, and links to show."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from keen_slate.export.handout import MOST_PER_PAGE, MOST_SPACE

from .base import Strict


class HandoutQuery(Strict):
    """How the pages are to be; *versions* A, B, ... have other numbers, the same for the same seed."""

    paper: Literal["a4", "letter"] = "a4"
    per_page: Annotated[int, Field(ge=1, le=MOST_PER_PAGE)] = 4
    form: Literal["full", "faded", "problems"] = "faded"
    space: Annotated[int, Field(ge=0, le=MOST_SPACE)] = 40
    name_line: bool = True
    pictures: bool = False
    key: bool = True
    choices: bool = False
    wrong_answers: bool = True
    versions: Annotated[int, Field(ge=1, le=4)] = 1
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0


class PagesOut(BaseModel):
    """Each page as a PNG picture, in Base64."""

    pages: list[str]


class ShowIn(Strict):
    shown: bool
