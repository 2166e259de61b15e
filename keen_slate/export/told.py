"""A story on paper: its text, its models, the sentence that answers; with room for what pupils do themselves."""

from __future__ import annotations

from dataclasses import replace
from html import escape

from keen_slate.core.documents.story import StoryPiece, StoryView, answer_glyphs, model_blanks, story_of, story_view
from keen_slate.core.expressions.typeset import Glyph
from keen_slate.core.figures.bar_model import models_of
from keen_slate.core.figures.display import State
from keen_slate.core.figures.svg import svg
from keen_slate.core.teaching.fading import Fading

from .item import Item
from .marked_up import image, math

_SENTENCE = '<p class="sentence">Answer: <span class="write"></span></p>'
_DRAW = '<div class="draw">Draw the model.</div>'
_CALCULATE = '<div class="fill"></div>'


def text_of(item: Item, plain: bool = False) -> str:
    """The text of a story as HTML, with its table; nothing for another problem. *plain* has no inks: they tell which numbers are needed."""
    view = _view(item)
    if view is None:
        return ""
    rows = "".join([
        f'<tr><th scope="row">{escape(row.name)}</th><td>{math(_inked(view.quantities[row.quantity].glyphs, plain))} '
        f"{escape(view.quantities[row.quantity].unit or '')}</td></tr>"
        for row in view.table
    ])  # fmt: skip
    table = f'<table class="told">{rows}</table>' if rows else ""
    told = "".join([_piece(piece, plain) for piece in view.pieces])
    return f'{table}<p class="story">{told}</p>'


def _inked(glyphs: tuple[Glyph, ...], plain: bool) -> tuple[Glyph, ...]:
    return tuple([replace(one, role="") for one in glyphs]) if plain else glyphs


def _piece(piece: StoryPiece, plain: bool) -> str:
    shown = math(_inked(piece.glyphs, plain))
    return shown if piece.quantity is None else f'<span class="quantity">{shown}</span>'


def models(item: Item, fading: Fading, whole: bool) -> str:
    """The models of a story, with a question mark for what pupils find; a frame where they draw it (*whole*: all of it)."""
    story, view = story_of(item.working), _view(item, fading)
    if story is None or view is None:
        return ""
    drawn = models_of(story, item.working, model_blanks(fading))
    made = []
    for figure, part in zip(drawn, view.calculations, strict=True):
        if figure is None:
            continue
        state: State = "before" if fading.hide else "after"
        hidden = whole or part.model_hidden
        made.append(
            _DRAW if hidden else image("picture model", svg(figure, state, item.voice), item.voice.said(figure.alt))
        )
    return _DRAW if whole and made else "".join(made)


def sentence(item: Item, fading: Fading) -> str:
    """The sentence that answers, or a line to write it on."""
    view = _view(item, fading)
    if view is None:
        return ""
    if fading.hide or view.answer_hidden:
        return _SENTENCE
    return f'<p class="sentence">{math(answer_glyphs(item.working))}</p>'


def hides_calculation(item: Item, fading: Fading) -> bool:
    """Whether pupils write the first calculation themselves."""
    view = _view(item, fading)
    return view is not None and (view.calculations[0].hidden or fading.hide >= len(item.working.steps))


def _view(item: Item, fading: Fading | None = None) -> StoryView | None:
    return story_view(item.worked, fading or Fading())
