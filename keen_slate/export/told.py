"""A story on paper: its text, its models, the sentence that answers; with room for what pupils do themselves."""

from __future__ import annotations

from dataclasses import replace

from keen_slate.core.documents.story import StoryView, answer_glyphs, model_blanks, story_view
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.figures.bar_model import models_of
from keen_slate.core.layouts.laying import lay
from keen_slate.core.stories.story import story_of
from keen_slate.core.teaching.fading import Fading

from .blocks import Block, Room, Table, WrittenLine, picture, written
from .item import Item
from .workings import line

_DRAW = Room("draw", "Draw the model.")
_CALCULATE = Room("fill")


class ToldParts:
    """The parts of a story, with what a *fading* leaves to pupils; *whole*: all of it."""

    def __init__(self, item: Item, fading: Fading) -> None:
        view = story_view(item.working, fading)
        assert view is not None, "only a story is told"
        self.item, self.fading = item, fading
        self.view: StoryView = view
        self.whole = fading.hide >= len(item.working.steps)

    def text(self) -> list[Block]:
        """The text with its table.

        Where everything is left to pupils it has no inks: they tell which numbers are needed.
        """
        view, voice = self.view, self.item.voice
        rows = []
        for row in view.table:
            told = view.quantities[row.quantity]
            unit = [Glyph("words", f" {told.unit}")] if told.unit else []
            rows.append((row.name, written("said", [*self._inked(told.glyphs), *unit], voice)))
        pieces = [glyph for piece in view.pieces for glyph in self._inked(piece.glyphs)]
        return [*([Table(tuple(rows))] if rows else []), written("story", pieces, voice)]

    def _inked(self, glyphs: tuple[Glyph, ...]) -> tuple[Glyph, ...]:
        return tuple([replace(one, role="") for one in glyphs]) if self.whole else glyphs

    def models(self) -> list[Block]:
        """The models, with a question mark for what pupils find; a frame where they draw them."""
        item, story = self.item, story_of(self.item.working.problem)
        assert story is not None, "looked at before"
        figures = models_of(story, item.working, model_blanks(self.fading))
        there = [
            (figure, part) for figure, part in zip(figures, self.view.calculations, strict=True) if figure is not None
        ]
        if self.whole:
            return [_DRAW] if there else []
        state = "before" if self.fading.hide else "after"
        return [
            _DRAW if part.model_hidden else picture("model", figure, item.voice, state)  # type: ignore[arg-type]
            for figure, part in there
        ]

    def first_line(self) -> list[Block]:
        """The first calculation; a frame for it where pupils write it.

        Layouts in boxes and sheets have it themselves.
        """
        if self.whole:
            return []
        if self.view.calculations[0].hidden:
            return [_CALCULATE]
        _, laid = lay(self.item.working)
        return [] if laid.sheet is not None or laid.boxes else [self.calculation()]

    def calculation(self) -> WrittenLine:
        """The first calculation, whatever the layout."""
        return line(self.item.working, None, "", self.fading)

    def sentence(self) -> Block:
        """The sentence that answers, or a line to write it on."""
        if self.fading.hide or self.view.answer_hidden:
            return Room("sentence", "Answer:")
        return written("sentence", answer_glyphs(self.item.working), self.item.voice)
