"""Searches for stories as tasks for another process: plain values in, documents of the API out."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from typing import Any

from keen_slate.core.documents.story import story_view
from keen_slate.core.ladders.impossible import Impossible
from keen_slate.core.ladders.stories import make_stories
from keen_slate.core.ladders.story_around import stories_for
from keen_slate.core.ladders.story_wish import read_story_wish
from keen_slate.core.stories.any_text import read_any
from keen_slate.core.stories.reading import read_story
from keen_slate.core.stories.scenarios import Scenario, read_scenario
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.worked import Worked

from .schemas.ladders import ImpossibleOut
from .schemas.stories import MadeOut, ToldOut, ToldStory
from .searches import Chosen


def _own(documents: Sequence[Mapping[str, Any]]) -> list[Scenario]:
    return [read_scenario(one) for one in documents]


def told_story(worked: Worked) -> ToldStory:
    """A worked story as it is shown before it is taken."""
    view = story_view(worked.working, Fading())
    assert view is not None, "it is a story"
    glyphs = voice_of(worked.working.ways).glyphs(worked.working.answer)
    reveals = [one.entry.code for one in worked.likely if one.status == "reveals"]
    return ToldStory(story=view, rung=worked.features.rung, answer=glyphs, reveals=reveals)


def tell(text: str, ways: Chosen, seed: int, own: Sequence[Mapping[str, Any]]) -> ToldOut:
    """Three stories around an example. Raises `CoreError`."""
    chosen = Ways.of(ways)
    found = stories_for(read_any(text, mark_of(chosen)), chosen, seed, own=_own(own))
    return ToldOut(stories=[told_story(one) for one in found])


def make(
    spec: object, ways: Chosen, kept: Sequence[str | None], shunned: Collection[str], own: Sequence[Mapping[str, Any]]
) -> MadeOut:
    """Stories made to order. Raises `CoreError`."""
    wish = read_story_wish(spec, Ways.of(ways), _own(own))
    stay = {i: read_story(one).story for i, one in enumerate(kept) if one and i < len(wish.slots)}
    made = make_stories(wish, stay, shunned)
    if isinstance(made, Impossible):
        why = ImpossibleOut(limit=made.limit, said=made.said, nearest=made.nearest)
        return MadeOut(stories=[], not_revealed=[], impossible=why)
    return MadeOut(
        stories=[told_story(one) for one in made.stories], not_revealed=list(made.not_revealed), impossible=None
    )
