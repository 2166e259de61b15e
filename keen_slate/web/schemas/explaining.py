"""What pupils wrote, explained; the catalogue; what a set reveals."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field, RootModel

from keen_slate.core.documents.nearest import NearestView
from keen_slate.core.documents.verdict import CheckedView, EstimateVerdictView, VerdictView
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.limits import MOST_EXAMPLES

from .base import Code, Id, Query, Source, Strict, Target, WaysMap


class DiagnoseIn(Strict):
    """A problem and an answer as a pupil wrote it; of explanations that tie, those come first that classes showed
    before, of a set if one is named.
    """

    text: Source
    answer: Source
    ways: WaysMap = {}
    target: Target | None = None
    set_id: Id | None = None


class EstimateIn(Strict):
    """A problem and its estimate as a pupil wrote it."""

    text: Source
    estimate: Source
    ways: WaysMap = {}
    target: Target | None = None


class CheckIn(Strict):
    """A problem and the lines of a pupil's working."""

    text: Source
    lines: Annotated[list[Source], Field(max_length=MOST_EXAMPLES)]
    ways: WaysMap = {}


class EntryOut(BaseModel):
    """A misconception with its example."""

    code: str
    name: str
    reason: str
    question: str
    family: str
    often: int
    problem: str
    problem_glyphs: list[Glyph]
    answer_glyphs: list[Glyph]
    right_glyphs: list[Glyph]
    line_glyphs: list[list[Glyph]]


class CatalogueOut(BaseModel):
    entries: list[EntryOut]


class MendIn(Strict):
    """A problem, the misconception it is to show, and one that it is to tell it from."""

    text: Source
    ways: WaysMap = {}
    code: Code
    apart_from: Code | None = None


class MendOut(RootModel[NearestView]):
    """The nearest problem that does it."""


class RevealRow(BaseModel):
    """A misconception and its status in each example: null where it does not apply; how many of a class are likely to
    hold it.
    """

    code: str
    name: str
    statuses: list[Literal["reveals", "form", "hidden"] | None]
    holders: int | None


class AlikePair(BaseModel):
    names: list[str]


class RevealsQuery(Query):
    """For a class, if one is named."""

    class_id: Id | None = None


class RevealsOut(BaseModel):
    """What a set reveals; *not_shown* is what pupils of the class are likely to hold and no example has to do with."""

    title: str
    problems: list[list[Glyph]]
    rows: list[RevealRow]
    alike: list[AlikePair]
    add: list[NearestView]
    caught: int
    wrong: int
    teaches_estimation: bool | None
    not_shown: list[str]


class VerdictOut(RootModel[VerdictView]):
    """The verdict on an answer."""


class EstimateOut(BaseModel):
    """The verdict on an estimate; null where the problem has none."""

    verdict: EstimateVerdictView | None


class CheckedOut(RootModel[CheckedView]):
    """A written working, judged line by line."""
