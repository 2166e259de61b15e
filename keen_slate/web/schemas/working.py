"""Problems worked, and their views."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, Field, RootModel

from keen_slate.core.documents.figure import FigureView
from keen_slate.core.documents.view import WorkingView
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.grading.compare import OtherWay

from .base import Code, Query, Source, Strict, Target, WaysMap


class ExposingOut(BaseModel):
    """The picture that shows why a wrong answer is wrong, null where none can; the lines of who comes to it, none where
    they cannot be written.
    """

    figure: FigureView | None
    lines: list[list[Glyph]]


class AnswersIn(Strict):
    """A problem with blank numerators, and the number (from 0) of the first answer that is asked for."""

    text: Source
    ways: WaysMap = {}
    start: Annotated[int, Field(ge=0, le=10**6)] = 0


class AnswersOut(BaseModel):
    answer_glyphs: list[list[Glyph]]


class PreviewIn(Strict):
    text: Source
    ways: WaysMap = {}


class PreviewOut(BaseModel):
    """A problem as it is typed: how it is read, what may surprise, and its working as it will be."""

    glyphs: list[Glyph]
    surprises: list[str]
    working: WorkingView


class WorkIn(Strict):
    """One problem, with the ways that depart from the defaults."""

    text: Source
    ways: WaysMap = {}
    target: Target | None = None


class ExampleView(BaseModel):
    """A whole working, and the other ways of working its problem."""

    working: WorkingView
    other_ways: list[OtherWay]


class ExampleOut(ExampleView):
    """An example with its whole working, and the other ways of working it."""

    id: UUID


class LayoutQuery(Query):
    """A layout to look at an example in, by its code among the ways."""

    layout: Code | None = None


class WorkingOut(RootModel[WorkingView]):
    """A worked problem as a screen needs it."""
