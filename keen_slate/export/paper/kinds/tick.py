"""`tick`: the checklist of the way as a card for each pupil."""

from __future__ import annotations

from keen_slate.core.layouts.checklist import questions_of
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of

from ..parts import Cards, PageMaterial, Part, page_kind


@page_kind("tick")
def tick(given: PageMaterial) -> list[Part]:
    """A page of cards in the ways of the first example."""
    return [cards_of(given.items[0].item.working.ways)] if given.items else []


def cards_of(ways: Ways) -> Cards:
    """The questions that a class asks in its *ways*."""
    voice = voice_of(ways)
    asked = [
        (one.asks if ways.checklist else voice.said(one.asks), one.hangs_on != "always") for one in questions_of(ways)
    ]
    return Cards("Our checklist", tuple(asked))
