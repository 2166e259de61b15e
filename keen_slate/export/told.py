"""A story on paper: its text, its models, the sentence that answers; with room for what pupils do themselves."""

from __future__ import annotations

from dataclasses import replace
from html import escape

from keen_slate.core.documents.story import StoryPiece, StoryView, answer_glyphs, model_blanks, story_view
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.figures.bar_model import models_of
from keen_slate.core.figures.svg import svg
from keen_slate.core.layouts.laying import lay
from keen_slate.core.stories.story import story_of
from keen_slate.core.teaching.fading import Fading

from .item import Item
from .marked_up import image, math
from .workings import line

_SENTENCE = '<p class="sentence">Answer: <span class="write"></span></p>'
_DRAW = '<div class="draw">Draw the model.</div>'
_CALCULATE = '<div class="fill"></div>'


class Told:
    """The parts of a story as HTML, with what a *fading* leaves to pupils; *whole*: all of it."""

    def __init__(self, item: Item, fading: Fading) -> None:
        view = story_view(item.working, fading)
        assert view is not None, "only a story is told"
        self.item, self.fading = item, fading
        self.view: StoryView = view
        self.whole = fading.hide >= len(item.working.steps)

    def text(self) -> str:
        """The text with its table. Where everything is left to pupils it has no inks: they tell which numbers are needed."""
        view = self.view
        rows = "".join([
            f'<tr><th scope="row">{escape(row.name)}</th><td>{math(self._inked(view.quantities[row.quantity].glyphs))} '
            f"{escape(view.quantities[row.quantity].unit or '')}</td></tr>"
            for row in view.table
        ])  # fmt: skip
        table = f'<table class="told">{rows}</table>' if rows else ""
        return f'{table}<p class="story">{"".join([self._piece(piece) for piece in view.pieces])}</p>'

    def _inked(self, glyphs: tuple[Glyph, ...]) -> tuple[Glyph, ...]:
        return tuple([replace(one, role="") for one in glyphs]) if self.whole else glyphs

    def _piece(self, piece: StoryPiece) -> str:
        shown = math(self._inked(piece.glyphs))
        return shown if piece.quantity is None else f'<span class="quantity">{shown}</span>'

    def models(self) -> str:
        """The models, with a question mark for what pupils find; a frame where they draw them."""
        item, story = self.item, story_of(self.item.working.problem)
        assert story is not None, "looked at before"
        there = [
            (figure, part)
            for figure, part in zip(
                models_of(story, item.working, model_blanks(self.fading)), self.view.calculations, strict=True
            )
            if figure is not None
        ]
        if self.whole:
            return _DRAW if there else ""
        return "".join([
            _DRAW if part.model_hidden
            else image("picture model", svg(figure, "before" if self.fading.hide else "after", item.voice), item.voice.said(figure.alt))
            for figure, part in there
        ])  # fmt: skip

    def first_line(self) -> str:
        """The first calculation; a frame for it where pupils write it. Layouts in boxes and sheets have it themselves."""
        if self.whole:
            return ""
        if self.view.calculations[0].hidden:
            return _CALCULATE
        _, laid = lay(self.item.working)
        return "" if laid.sheet is not None or laid.boxes else self.calculation()

    def calculation(self) -> str:
        """The first calculation, whatever the layout."""
        return f"<p class='line'>{line(self.item.working, None, '', self.fading)}</p>"

    def sentence(self) -> str:
        """The sentence that answers, or a line to write it on."""
        if self.fading.hide or self.view.answer_hidden:
            return _SENTENCE
        return f'<p class="sentence">{math(answer_glyphs(self.item.working))}</p>'
