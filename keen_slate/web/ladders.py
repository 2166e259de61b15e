"""Ladders built to order, smallest revealing sets, climbs, one like this."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core.diagnosing.catalogue import catalogue
from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.ladders.climb import climb
from keen_slate.core.ladders.spec import AVOIDED, DENOMINATORS
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.vocabulary import saying

from . import heavy, searches, views
from .desk import shelf
from .given import given
from .ladder_schemas import (
    ChoicesOut,
    ClimbOut,
    CountsOut,
    LadderIn,
    LadderOut,
    ParallelIn,
    ParallelOut,
    SmallestIn,
    SmallestOut,
    WishIn,
)

blueprint = APIBlueprint("ladders", __name__, url_prefix="/api")


@blueprint.get("/ladders")
@blueprint.output(ChoicesOut)
def choices() -> dict[str, Any]:
    """What a ladder can be made of: rungs, things to avoid, misconceptions to reveal."""
    with shelf() as mine:
        say = saying(Ways.of(mine.house_ways()))
    shown = [one for one in catalogue() if not one.entry.on_form]
    return {
        "rungs": [{"code": rung, "name": say(name)} for rung, name in RUNGS.items()],
        "avoid": [{"code": code, "name": say(name)} for code, name in AVOIDED.items()],
        "targets": [{"code": one.entry.code, "name": say(one.entry.name), "family": say(one.family)} for one in shown],
        "denominators": list(DENOMINATORS),
    }


@blueprint.post("/ladders/count")
@blueprint.input(WishIn)
@blueprint.output(CountsOut)
def count(json_data: WishIn) -> dict[str, Any]:
    """How many problems satisfy the limits of a wish; of some rungs, where there is no time for all."""
    return heavy.run(searches.count, json_data.spec, _ways(json_data.set_id), seconds=heavy.COUNT)


@blueprint.post("/ladders")
@blueprint.input(LadderIn)
@blueprint.output(LadderOut)
def build(json_data: LadderIn) -> dict[str, Any]:
    """The ladder that is wished for, or which limit rules it out and the nearest that allows it."""
    wish = json_data
    return heavy.run(searches.ladder, wish.spec, _ways(wish.set_id), wish.kept, wish.shunned)


@blueprint.post("/ladders/smallest")
@blueprint.input(SmallestIn)
@blueprint.output(SmallestOut)
def smallest_set(json_data: SmallestIn) -> dict[str, Any]:
    """The fewest problems that reveal and separate some misconceptions."""
    return heavy.run(searches.smallest_set, json_data.codes, _ways(json_data.set_id))


def _ways(set_id: UUID | None) -> dict[str, str]:
    with shelf() as mine:
        return {**mine.house_ways(), **(mine.one_set(set_id).ways if set_id else {})}


@blueprint.get("/sets/<uuid:set_id>/climb")
@blueprint.output(ClimbOut)
def get_climb(set_id: UUID) -> dict[str, Any]:
    """The order of a set that climbs with the fewest changes; nothing is changed by asking."""
    with shelf() as mine:
        found = mine.one_set(set_id)
        summaries = views.summaries_of(found, mine.house_ways())
        proposed = climb([summary["rung"] for summary in summaries])
        ids = [example.id for example in found.examples]
        return {"order": [ids[at] for at in proposed.order], "moves": [ids[at] for at in proposed.moves]}


@blueprint.post("/sets/<uuid:set_id>/examples/<uuid:example_id>/parallel")
@blueprint.input(ParallelIn)
@blueprint.output(ParallelOut)
def one_like_this(set_id: UUID, example_id: UUID, json_data: ParallelIn) -> dict[str, Any]:
    """A problem like an example; nothing is changed by asking."""
    with shelf() as mine:
        position = mine.example(set_id, example_id).position
        examples = given(mine.one_set(set_id), mine.house_ways())
    example = next(one for one in examples if one.position == position)
    return heavy.run(searches.one_like_this, example, json_data.seed, frozenset([one.source for one in examples]))
