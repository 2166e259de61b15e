"""Problems brought in, notation taken out."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, StringConstraints

from keen_slate.core.limits import LONGEST_PASTE
from keen_slate.export.qti import Version

from .base import Query, Strict


class BroughtIn(Strict):
    """Lines of problems, or CSV with a column called problem."""

    text: Annotated[str, StringConstraints(max_length=LONGEST_PASTE)]


class BroughtLine(BaseModel):
    """A line, and whether it can be taken: *why* not."""

    number: int
    text: str
    verdict: Literal["read", "unreadable", "duplicate"]
    why: str


class BroughtOut(BaseModel):
    lines: list[BroughtLine]


class TableOut(BaseModel):
    """A table as text, its cells parted by tabs."""

    text: str


class TextQuery(Query):
    """Whether a text has pictures of its steps."""

    pictures: bool = False


class QtiQuery(Query):
    """The version of the standard, and whether each item has four options to choose from."""

    version: Version = "3.0"
    to_choose: bool = False


class NotationOut(BaseModel):
    problem_latex: str
    problem_mathml: str
    working_latex: str
    working_mathml: str
