"""Sets as wholes: versions, copies, where they lie, the standards they serve."""

from __future__ import annotations

from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core.grading.standards import serving
from keen_slate.store.shelf import fields_of

from . import heavy, searches, views
from .desk import shelf
from .given import given
from .schemas.sets import SetOut, SetSummary
from .schemas.shelving import CopyIn, EmptiedOut, PlaceIn, StandardOut, StandardsOut, VersionsIn, VersionsOut
from .sets import set_view

blueprint = APIBlueprint("shelving", __name__, url_prefix="/api")


@blueprint.post("/sets/<uuid:set_id>/versions")
@blueprint.input(VersionsIn)
@blueprint.output(VersionsOut, status_code=201)
def add_versions(set_id: UUID, json_data: VersionsIn) -> VersionsOut:
    """Further versions of a set (B, C, ...): new sets with a problem like each of its examples."""
    with shelf() as mine:
        examples = given(mine.one_set(set_id), mine.house_ways())
    numbers = range(1, json_data.count + 1)
    texts = heavy.run(searches.versions, examples, numbers, json_data.seed)
    with shelf() as mine:  # the set may have changed meanwhile; what was made is made of it as it was
        example_set = mine.one_set(set_id)
        like = {example.source: fields_of(example) for example in reversed(example_set.examples)}
        made = []
        for number, problems in zip(numbers, texts, strict=True):
            pairs = zip(examples, problems, strict=True)
            fields = [like.get(one.source, {}) | {"source": other, "words": {}} for one, other in pairs]
            title = f"{example_set.title[:114]} ({chr(ord('A') + number)})"
            made.append(mine.add_set(title, fields, example_set))
        house = mine.house_ways()
        same = sum(one.source == other for problems in texts for one, other in zip(examples, problems, strict=True))
        return VersionsOut(sets=[views.set_summary(one, house) for one in made], same=same)


@blueprint.post("/sets/<uuid:set_id>/copies")
@blueprint.input(CopyIn)
@blueprint.output(SetOut, status_code=201)
def copy_set(set_id: UUID, json_data: CopyIn) -> SetOut:
    """A copy of a set with all that it has."""
    with shelf() as mine:
        example_set = mine.one_set(set_id)
        return set_view(mine, mine.add_set(json_data.title, map(fields_of, example_set.examples), example_set))


@blueprint.put("/sets/<uuid:set_id>/place")
@blueprint.input(PlaceIn)
@blueprint.output(SetSummary)
def put_place(set_id: UUID, json_data: PlaceIn) -> SetSummary:
    """Lay a set on the shelf, in the archive or in the bin."""
    with shelf() as mine:
        return views.set_summary(mine.put(set_id, json_data.place), mine.house_ways())


@blueprint.delete("/sets/bin")
@blueprint.output(EmptiedOut)
def empty_bin() -> EmptiedOut:
    """Take every set in the bin away for good."""
    with shelf() as mine:
        return EmptiedOut(gone=mine.empty_bin())


@blueprint.get("/sets/<uuid:set_id>/standards")
@blueprint.output(StandardsOut)
def standards(set_id: UUID) -> StandardsOut:
    """Published standards, those first that the rungs of the set serve."""
    with shelf() as mine:
        shown = views.shown_of(mine.one_set(set_id), mine.house_ways())
    rungs = {one.rung for one in shown if one.rung}
    return StandardsOut(
        standards=[
            StandardOut(code=one.code, words=one.words, serves=bool(rungs & set(one.rungs))) for one in serving(rungs)
        ]
    )
