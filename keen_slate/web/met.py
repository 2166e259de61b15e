"""What pupils have shown before, beside the likely wrong answers of an example, and what a class holds beside what a
set reveals.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core.judging.misconceptions.registry import ENTRIES
from keen_slate.core.sittings.answers import Answers
from keen_slate.core.sittings.happened import happened
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.store.classes import Classes
from keen_slate.store.models import Sitting
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Sittings

from .desk import shelf
from .sat import all_answers
from .schemas.classes import MetOut, MetsOut

blueprint = APIBlueprint("met", __name__, url_prefix="/api")
_LAST = 6  # sittings that are looked through


@blueprint.get("/sets/<uuid:set_id>/met")
@blueprint.output(MetsOut)
def met(set_id: UUID) -> MetsOut:
    """How many pupils showed each misconception when it last could be seen: in this set where it was sat, else in
    another one.
    """
    with shelf() as mine:
        mine.one_set(set_id)
        classes = Classes(mine.session, mine.teacher_id)
        voice = voice_of(Ways.of(mine.house_ways()))
        found: dict[str, MetOut] = {}
        for sitting, answers in _last(mine, set_id):
            name = classes.one(sitting.class_id).name
            for one in happened(answers).codes:
                of = sum(
                    any(given is not None and answers.asked[i].can_show(one.code) for i, given in enumerate(row))
                    for row in answers.given.values()
                )
                found.setdefault(
                    one.code,
                    MetOut(
                        code=one.code, name=voice.said(ENTRIES[one.code].name), class_name=name, day=sitting.day,
                        did=len(one.pupils), of=max(of, len(one.pupils)),
                    ),
                )  # fmt: skip
    return MetsOut(met=list(found.values()))


def habits(mine: Shelf, set_id: UUID) -> Counter[str]:
    """How often each code may have been at work in the last sittings, those of a set before others."""
    return sum([answers.habits for _, answers in _last(mine, set_id)], Counter[str]())


def _last(mine: Shelf, set_id: UUID) -> Iterator[tuple[Sitting, Answers]]:
    classes, store = Classes(mine.session, mine.teacher_id), Sittings(mine.session, mine.teacher_id)
    for sitting in store.last(set_id, _LAST):
        (answers,) = all_answers(store, [sitting], classes.pupils(sitting.class_id))
        yield sitting, answers
