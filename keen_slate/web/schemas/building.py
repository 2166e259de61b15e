"""Number building."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field, StringConstraints

from keen_slate.core.expressions.typeset import Glyph

from .base import Source, Strict


class BuildIn(Strict):
    numbers: Source
    wanted: Source


class ProposeIn(Strict):
    level: Annotated[str, StringConstraints(max_length=40)]
    seed: Annotated[int, Field(ge=0, le=2**31)]


class WayOut(BaseModel):
    """A way to the number, and its working, an operation a line."""

    text: str
    glyphs: list[Glyph]
    lines: list[list[Glyph]]


class BuiltOut(BaseModel):
    numbers: str
    wanted: str
    number_glyphs: list[list[Glyph]]
    wanted_glyphs: list[Glyph]
    exact: bool
    nearest_glyphs: list[Glyph]
    ways: list[WayOut]
    ended_early: bool


class LevelOut(BaseModel):
    code: str
    name: str


class LevelsOut(BaseModel):
    levels: list[LevelOut]
