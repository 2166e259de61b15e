"""A problem that was looked for, as a screen needs it."""

from __future__ import annotations

from dataclasses import dataclass

from ..expressions.typeset import Glyph
from ..reading.problem import labelled
from ..ways.voices import voice_of
from ..worked import Worked


@dataclass(frozen=True, slots=True)
class NearestView:
    """The nearest problem that does what was wished for; null where none is near."""

    text: str | None = None
    glyphs: tuple[Glyph, ...] = ()


def nearest_view(worked: Worked | None, label: str | None = None) -> NearestView:
    """A problem that was looked for, with a *label*; empty where none was found."""
    if worked is None:
        return NearestView()
    voice = voice_of(worked.working.ways)
    expr = worked.working.problem.expr
    return NearestView(labelled(voice.text(expr), label), tuple(voice.glyphs(expr)))
