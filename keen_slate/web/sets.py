"""The sets of the teacher at the desk, and the examples on their ladders."""

from __future__ import annotations

from itertools import zip_longest
from uuid import UUID

from apiflask import APIBlueprint
from flask import Response

from keen_slate.core.ways.settings import Ways
from keen_slate.store.models import Example, ExampleSet
from keen_slate.store.shelf import NotFoundError, OrderError, Shelf

from . import views
from .desk import shelf
from .door import csrf_token, teacher
from .openapi import conflict_doc
from .schemas.base import VersionIn, VersionQuery
from .schemas.sets import (
    ExampleChange,
    ExampleIn,
    HidesIn,
    MeOut,
    SetChange,
    SetIn,
    SetOut,
    SetWithExampleOut,
    ShelfOut,
    ShelfQuery,
    TakeIn,
    TimeIn,
    TimeOut,
)
from .schemas.working import ExampleOut, LayoutQuery

blueprint = APIBlueprint("sets", __name__, url_prefix="/api")
ON_A_PAGE = 20  # sets of the Shelf
CONFLICT = conflict_doc("The set was changed elsewhere since that version", "ConflictOut")


@blueprint.get("/me")
@blueprint.output(MeOut)
def me() -> MeOut:
    """Who is signed in, and the token that every change must carry."""
    with shelf() as mine:
        return MeOut(name=teacher().name, csrf_token=csrf_token(), sets=sum(mine.counts().values()))


@blueprint.get("/sets")
@blueprint.input(ShelfQuery, location="query")
@blueprint.output(ShelfOut)
def list_sets(query_data: ShelfQuery) -> ShelfOut:
    """A page of the sets in a place (on the Shelf, if none is named), in an order."""
    with shelf() as mine:
        house = mine.house_ways()
        place, search = query_data.place, query_data.search
        found = mine.sets(place, search, query_data.start, ON_A_PAGE, query_data.order)
        classes = mine.classes_of([one.id for one in found])
        counts = mine.counts()
        total = mine.count(place, search) if search.strip() else counts[place]
        return ShelfOut(
            sets=[views.set_summary(one, house, classes.get(one.id, ())) for one in found], counts=counts, total=total
        )


@blueprint.post("/sets")
@blueprint.input(SetIn)
@blueprint.output(SetOut, status_code=201)
def add_set(json_data: SetIn) -> SetOut:
    """Begin a new set."""
    with shelf() as mine:
        return set_view(mine, mine.add_set(json_data.title))


@blueprint.get("/sets/<uuid:set_id>")
@blueprint.output(SetOut)
def get_set(set_id: UUID) -> SetOut:
    """A set with a summary of each example."""
    with shelf() as mine:
        return set_view(mine, mine.one_set(set_id))


@blueprint.patch("/sets/<uuid:set_id>")
@blueprint.input(SetChange)
@blueprint.output(SetOut)
@blueprint.doc(responses=CONFLICT)
def change_set(set_id: UUID, json_data: SetChange) -> SetOut:
    """Change what is said of a set, its ways, or the order of its examples."""
    changes = json_data.model_dump(exclude_none=True, exclude={"version", "order"})
    if changes.get("lesson_minutes") == 0:
        changes["lesson_minutes"] = None
    Ways.of(changes.get("ways", {}))
    with shelf() as mine:
        return set_view(mine, mine.change_set(set_id, json_data.version, changes, json_data.order))


@blueprint.post("/sets/<uuid:set_id>/undo")
@blueprint.input(VersionIn)
@blueprint.output(SetOut)
@blueprint.doc(responses=CONFLICT)
def undo(set_id: UUID, json_data: VersionIn) -> SetOut:
    """Take back the last change of a set."""
    with shelf() as mine:
        return set_view(mine, mine.undo(set_id, json_data.version))


@blueprint.post("/sets/<uuid:set_id>/redo")
@blueprint.input(VersionIn)
@blueprint.output(SetOut)
@blueprint.doc(responses=CONFLICT)
def redo(set_id: UUID, json_data: VersionIn) -> SetOut:
    """Do again what was undone."""
    with shelf() as mine:
        return set_view(mine, mine.undo(set_id, json_data.version, +1))


@blueprint.get("/sets/<uuid:set_id>/examples/<uuid:example_id>")
@blueprint.input(LayoutQuery, location="query")
@blueprint.output(ExampleOut)
def get_example(set_id: UUID, example_id: UUID, query_data: LayoutQuery) -> Response:
    """An example with its whole working; in another layout, to be looked at only."""
    with shelf() as mine:
        return _sent(views.example_json(mine.example(set_id, example_id), mine.house_ways(), query_data.layout))


@blueprint.post("/sets/<uuid:set_id>/examples/<uuid:example_id>/time")
@blueprint.input(TimeIn)
@blueprint.output(TimeOut)
def log_time(set_id: UUID, example_id: UUID, json_data: TimeIn) -> TimeOut:
    """Log how long an example was shown on the wall, on a day of the teacher's calendar."""
    with shelf() as mine:
        example = mine.add_time(set_id, example_id, json_data.day.isoformat(), json_data.seconds)
        return TimeOut(time_log=example.time_log)


@blueprint.post("/sets/<uuid:set_id>/examples")
@blueprint.input(ExampleIn)
@blueprint.output(SetWithExampleOut, status_code=201)
@blueprint.doc(responses=CONFLICT)
def add_example(set_id: UUID, json_data: ExampleIn) -> Response:
    """Put a problem on the ladder; one that cannot be worked is refused."""
    new = json_data
    with shelf() as mine:
        ways = Ways.of(mine.ways_in(set_id) | new.ways)
        fields = new.model_dump(exclude={"version", "position"}) | {"source": views.stored_text(new.source, ways)}
        example_set, examples = mine.add_examples(set_id, new.version, [fields], new.position)
        return _both(mine, example_set, examples[0], 201)


@blueprint.post("/sets/<uuid:set_id>/problems")
@blueprint.input(TakeIn)
@blueprint.output(SetOut, status_code=201)
@blueprint.doc(responses=CONFLICT)
def take(set_id: UUID, json_data: TakeIn) -> SetOut:
    """Put several problems on the ladder, all or none."""
    new = json_data
    with shelf() as mine:
        ways = Ways.of(mine.ways_in(set_id))
        asked = zip_longest(new.problems, new.targets[: len(new.problems)])
        fields = [{"source": views.stored_text(problem, ways), "target": target} for problem, target in asked]
        example_set, _ = mine.add_examples(set_id, new.version, fields, new.position)
        return set_view(mine, example_set)


@blueprint.patch("/sets/<uuid:set_id>/examples/<uuid:example_id>")
@blueprint.input(ExampleChange)
@blueprint.output(SetWithExampleOut)
@blueprint.doc(responses=CONFLICT)
def change_example(set_id: UUID, example_id: UUID, json_data: ExampleChange) -> Response:
    """Change what is kept of an example; a text that cannot be worked is refused."""
    fields = json_data.model_dump(exclude_none=True, exclude={"version"})
    with shelf() as mine:
        if "source" in fields:
            ways = Ways.of(mine.ways_in(set_id) | fields.get("ways", {}))
            fields["source"] = views.stored_text(fields["source"], ways)
        Ways.of(fields.get("ways", {}))
        if fields.get("target") == "":
            fields["target"] = None
        example_set = mine.change_examples(set_id, json_data.version, {example_id: fields})
        return _both(mine, example_set, next(example for example in example_set.examples if example.id == example_id))


@blueprint.put("/sets/<uuid:set_id>/fading")
@blueprint.input(HidesIn)
@blueprint.output(SetOut)
@blueprint.doc(responses=CONFLICT)
def put_fading(set_id: UUID, json_data: HidesIn) -> SetOut:
    """Hide so many of the last steps of each example; blanks put by hand stay."""
    with shelf() as mine:
        stored = {example.id: example.fading for example in mine.one_set(set_id).examples}
        changes = {
            example_id: {"fading": stored.get(example_id, {}) | {"hide": hide}}
            for example_id, hide in json_data.hides.items()
        }
        try:
            return set_view(mine, mine.change_examples(set_id, json_data.version, changes))
        except NotFoundError as error:  # the set is there; what was sent names an example that is not
            raise OrderError(str(error)) from None


@blueprint.delete("/sets/<uuid:set_id>/examples/<uuid:example_id>")
@blueprint.input(VersionQuery, location="query")
@blueprint.output(SetOut)
@blueprint.doc(responses=CONFLICT)
def remove_example(set_id: UUID, example_id: UUID, query_data: VersionQuery) -> SetOut:
    """Take an example off the ladder."""
    with shelf() as mine:
        return set_view(mine, mine.remove_example(set_id, example_id, query_data.version))


def set_view(mine: Shelf, example_set: ExampleSet) -> SetOut:
    """A set as the API shows it, with its history."""
    return views.set_out(example_set, mine.house_ways(), mine.history(example_set).said())


def _both(mine: Shelf, example_set: ExampleSet, example: Example, status: int = 200) -> Response:
    shown = set_view(mine, example_set).model_dump_json()
    return _sent(f'{{"set":{shown},"example":{views.example_json(example, mine.house_ways())}}}', status)


def _sent(document: str, status: int = 200) -> Response:
    return Response(document, status, mimetype="application/json")
