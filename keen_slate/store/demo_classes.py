"""The classes of the demo: Heron sat the regrouping set twice, a week apart; Kestrel is larger, and sat once.

All made up.
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from datetime import date, timedelta
from typing import Any

from sqlalchemy.orm import Session

from keen_slate.core.sittings.stand_in import StandIn, answers, make_class

from .classes import Classes
from .models import ExampleSet
from .shelf import Shelf
from .sittings import Entered, Sittings

HERON = (
    "Alder", "Bracken", "Bramble", "Burnet", "Campion", "Clover", "Dodder", "Fescue", "Gorse", "Hazel", "Heather",
    "Ling", "Mallow",
    "Nettle", "Orache", "Reed", "Rowan", "Rush", "Sedge", "Sorrel", "Tansy", "Teasel", "Thyme", "Vetch", "Willow",
    "Yarrow",
)  # fmt: skip
KESTREL = (
    "Aspen", "Birch", "Burdock", "Comfrey", "Cowslip", "Daisy", "Elder", "Flax", "Foxglove", "Hawthorn", "Holly",
    "Iris", "Ivy",
    "Juniper", "Larch", "Lichen", "Maple", "Mint", "Moss", "Mugwort", "Oak", "Primrose", "Rosehip", "Sage", "Spruce",
    "Sundew",
    "Tamarisk", "Valerian", "Woodruff", "Yew",
)  # fmt: skip
# What pupils of Heron do, first and a week later.
FIRST = {
    "smaller-from-larger": ("Campion", "Teasel", "Rush", "Burnet", "Vetch", "Clover", "Orache", "Mallow", "Sedge"),
    "regroup-ten": ("Hazel", "Heather", "Tansy"),
    "whole-not-reduced": ("Dodder", "Nettle", "Willow", "Reed"),
    "not-simplified": ("Bracken", "Thyme", "Gorse", "Sedge"),
}
LATER = {
    "smaller-from-larger": ("Campion", "Teasel", "Orache", "Sedge"),
    "whole-not-reduced": ("Dodder", "Willow"),
    "not-simplified": ("Thyme",),
}
AWAY = ("Ling", "Fescue")  # on the first day, on the second
_SEED = 12


def load(session: Session, teacher_id: uuid.UUID) -> None:
    """The two classes with what they wrote; the days are counted back from today, so that something comes back."""
    shelf = Shelf(session, teacher_id)
    sets = {example_set.title: example_set for example_set in shelf.sets()}
    planks = next(one for title, one in sets.items() if title.startswith("Boardwalk"))
    rope = next(one for title, one in sets.items() if title.startswith("Rope"))
    today = date.today()
    heron = _Class(session, teacher_id, "Heron", HERON)
    for days, kind, habits, away in ((9, "homework", FIRST, AWAY[0]), (2, "quiz", LATER, AWAY[1])):
        heron.sit(planks, today - timedelta(days=days), kind, _pupils(habits), away)
    _Class(session, teacher_id, "Kestrel", KESTREL).sit(
        rope, today - timedelta(days=5), "quiz", make_class(KESTREL, _SEED), ""
    )


def _pupils(habits: Mapping[str, Sequence[str]]) -> list[StandIn]:
    return [StandIn(alias, tuple([code for code, who in habits.items() if alias in who]), 85, 4) for alias in HERON]


class _Class:
    def __init__(self, session: Session, teacher_id: uuid.UUID, name: str, aliases: Sequence[str]) -> None:
        classes = Classes(session, teacher_id)
        self.made = classes.add(name, aliases)
        self.ids = {pupil.alias: pupil.id for pupil in classes.pupils(self.made.id)}
        self.store = Sittings(session, teacher_id)

    def sit(self, example_set: ExampleSet, day: date, kind: str, pupils: Sequence[StandIn], away: str) -> None:
        """A sitting in which stand-ins with their habits wrote; one of them was *away*."""
        sources = [one.source for one in example_set.examples]
        questions: list[dict[str, Any]] = [
            {"source": source, "target": None, "ways": {}, "points": {}} for source in sources
        ]
        sitting = self.store.add(self.made.id, example_set, questions, day, kind)
        wrote = [
            Entered(self.ids[one.pupil], sources.index(one.problem), None if one.pupil == away else one.answer)
            for one in answers(pupils, sources, _SEED)
        ]
        self.store.enter(sitting.id, wrote)
