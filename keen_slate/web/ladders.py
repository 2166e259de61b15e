"""Ladders built to order, smallest revealing sets, climbs, one like this."""

from __future__ import annotations

from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core.diagnosing.catalogue import catalogue
from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.ladders.climb import climb
from keen_slate.core.ladders.shapes import SHAPES
from keen_slate.core.ladders.spec import AVOIDED, DENOMINATORS
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of

from . import heavy, searches, views
from .desk import shelf
from .given import given
from .schemas.ladders import (
    ChoicesOut,
    ClimbOut,
    CountsOut,
    LadderIn,
    LadderOut,
    ParallelIn,
    ParallelOut,
    RungOut,
    SmallestIn,
    SmallestOut,
    TargetOut,
    WishIn,
)

blueprint = APIBlueprint("ladders", __name__, url_prefix="/api")


@blueprint.get("/ladders")
@blueprint.output(ChoicesOut)
def choices() -> ChoicesOut:
    """What a ladder can be made of: rungs, things to avoid, misconceptions to reveal."""
    with shelf() as mine:
        voice = voice_of(Ways.of(mine.house_ways()))
    shown = [one for one in catalogue() if not one.entry.on_form]
    return ChoicesOut(
        rungs=[RungOut(code=rung, name=voice.said(name)) for rung, name in RUNGS.items()],
        avoid=[RungOut(code=code, name=voice.said(name)) for code, name in AVOIDED.items()],
        targets=[
            TargetOut(code=one.entry.code, name=voice.said(one.entry.name), family=voice.said(one.family))
            for one in shown
        ],
        denominators=list(DENOMINATORS),
        only=[RungOut(code=code, name=voice.said(shape.title)) for code, shape in SHAPES.items()],
    )


@blueprint.post("/ladders/count")
@blueprint.input(WishIn)
@blueprint.output(CountsOut)
def count(json_data: WishIn) -> CountsOut:
    """How many problems satisfy the limits of a wish; of some rungs, where there is no time for all."""
    return heavy.run(searches.count, json_data.spec, _ways(json_data.set_id), seconds=heavy.COUNT)


@blueprint.post("/ladders")
@blueprint.input(LadderIn)
@blueprint.output(LadderOut)
def build(json_data: LadderIn) -> LadderOut:
    """The ladder that is wished for, or which limit rules it out and the nearest that allows it."""
    wish = json_data
    return heavy.run(searches.ladder, wish.spec, _ways(wish.set_id), wish.kept, wish.shunned)


@blueprint.post("/ladders/smallest")
@blueprint.input(SmallestIn)
@blueprint.output(SmallestOut)
def smallest_set(json_data: SmallestIn) -> SmallestOut:
    """The fewest problems that reveal and separate some misconceptions."""
    return heavy.run(searches.smallest_set, json_data.codes, _ways(json_data.set_id))


def _ways(set_id: UUID | None) -> dict[str, str]:
    with shelf() as mine:
        return mine.ways_in(set_id)


@blueprint.get("/sets/<uuid:set_id>/climb")
@blueprint.output(ClimbOut)
def get_climb(set_id: UUID) -> ClimbOut:
    """The order of a set that climbs with the fewest changes; nothing is changed by asking."""
    with shelf() as mine:
        example_set = mine.one_set(set_id)
        shown = views.shown_of(example_set, mine.house_ways())
        proposed = climb([one.rung for one in shown])
        ids = [example.id for example in example_set.examples]
        return ClimbOut(order=[ids[at] for at in proposed.order], moves=[ids[at] for at in proposed.moves])


@blueprint.post("/sets/<uuid:set_id>/examples/<uuid:example_id>/parallel")
@blueprint.input(ParallelIn)
@blueprint.output(ParallelOut)
def one_like_this(set_id: UUID, example_id: UUID, json_data: ParallelIn) -> ParallelOut:
    """A problem like an example; nothing is changed by asking."""
    with shelf() as mine:
        position = mine.example(set_id, example_id).position
        examples = given(mine.one_set(set_id), mine.house_ways())
    example = next(one for one in examples if one.position == position)
    return heavy.run(searches.one_like_this, example, json_data.seed, frozenset([one.source for one in examples]))
