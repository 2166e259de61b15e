"""The sets of the teacher at the desk, and the examples on their ladders."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from apiflask import APIBlueprint
from flask import Response, request
from sqlalchemy.orm.exc import StaleDataError

from keen_slate.core.ways import Ways
from keen_slate.store.shelf import StaleSetError

from . import views
from .errors import refusal
from .openapi import reference
from .schemas import (
    ExampleChange,
    ExampleIn,
    ExampleOut,
    HouseWaysIn,
    MeOut,
    SetChange,
    SetIn,
    SetOut,
    SetWithExampleOut,
    ShelfOut,
    VersionQuery,
    WaysOut,
)
from .session import csrf_token, shelf, teacher_name

blueprint = APIBlueprint("sets", __name__, url_prefix="/api")
CONFLICT: Any = {
    409: {
        "description": "The set was changed elsewhere since that version",
        "content": {"application/json": {"schema": reference("ConflictOut")}},
    }
}


@blueprint.get("/me")
@blueprint.output(MeOut)
def me() -> dict[str, Any]:
    """Who is signed in, and the token that every change must carry."""
    return {"name": teacher_name(), "csrf_token": csrf_token()}


@blueprint.get("/ways")
@blueprint.output(WaysOut)
def get_ways() -> dict[str, Any]:
    """Every setting, and what the house has chosen."""
    with shelf() as mine:
        return views.ways_out(mine.house_ways())


@blueprint.put("/ways")
@blueprint.input(HouseWaysIn)
@blueprint.output(WaysOut)
def put_ways(json_data: HouseWaysIn) -> dict[str, Any]:
    """Change the ways of the house; sets and examples with ways of their own keep them."""
    Ways.of(json_data.house)
    with shelf() as mine:
        mine.change_house_ways(json_data.house)
        return views.ways_out(json_data.house)


@blueprint.get("/sets")
@blueprint.output(ShelfOut)
def list_sets() -> dict[str, Any]:
    """The Shelf: all sets, the one changed last first."""
    with shelf() as mine:
        return {"sets": [views.set_summary(found, mine.house_ways()) for found in mine.sets()]}


@blueprint.post("/sets")
@blueprint.input(SetIn)
@blueprint.output(SetOut, status_code=201)
def add_set(json_data: SetIn) -> dict[str, Any]:
    """Begin a new set."""
    with shelf() as mine:
        return views.set_out(mine.add_set(json_data.title), mine.house_ways())


@blueprint.get("/sets/<uuid:set_id>")
@blueprint.output(SetOut)
def get_set(set_id: UUID) -> dict[str, Any]:
    """A set with a summary of each example."""
    with shelf() as mine:
        return views.set_out(mine.one_set(set_id), mine.house_ways())


@blueprint.patch("/sets/<uuid:set_id>")
@blueprint.input(SetChange)
@blueprint.output(SetOut)
@blueprint.doc(responses=CONFLICT)
def change_set(set_id: UUID, json_data: SetChange) -> dict[str, Any]:
    """Change the title of a set, or the order of its examples."""
    with shelf() as mine:
        new = json_data
        Ways.of(new.ways or {})
        found = mine.change_set(set_id, new.version, new.title, new.order, new.ways, new.words)
        return views.set_out(found, mine.house_ways())


@blueprint.get("/sets/<uuid:set_id>/examples/<uuid:example_id>")
@blueprint.output(ExampleOut)
def get_example(set_id: UUID, example_id: UUID) -> dict[str, Any]:
    """An example with its whole working."""
    with shelf() as mine:
        return views.example_out(mine.example(set_id, example_id), mine.house_ways())


@blueprint.post("/sets/<uuid:set_id>/examples")
@blueprint.input(ExampleIn)
@blueprint.output(SetWithExampleOut, status_code=201)
@blueprint.doc(responses=CONFLICT)
def add_example(set_id: UUID, json_data: ExampleIn) -> dict[str, Any]:
    """Put a problem on the ladder; one that cannot be worked is refused."""
    new = json_data
    with shelf() as mine:
        ways = Ways.of({**mine.house_ways(), **mine.one_set(set_id).ways, **new.ways})
        source = views.stored_text(new.source, ways)
        found, example = mine.add_example(set_id, new.version, source, new.position, new.ways, new.words, new.target)
        return {
            "set": views.set_out(found, mine.house_ways()),
            "example": views.example_out(example, mine.house_ways()),
        }


@blueprint.patch("/sets/<uuid:set_id>/examples/<uuid:example_id>")
@blueprint.input(ExampleChange)
@blueprint.output(SetWithExampleOut)
@blueprint.doc(responses=CONFLICT)
def change_example(set_id: UUID, example_id: UUID, json_data: ExampleChange) -> dict[str, Any]:
    """Change the text, the ways or the words of an example; a text that cannot be worked is refused."""
    new = json_data
    with shelf() as mine:
        ways = Ways.of({**mine.house_ways(), **mine.one_set(set_id).ways, **(new.ways or {})})
        source = None if new.source is None else views.stored_text(new.source, ways)
        found, example = mine.change_example(set_id, example_id, new.version, source, new.ways, new.words, new.target)
        return {
            "set": views.set_out(found, mine.house_ways()),
            "example": views.example_out(example, mine.house_ways()),
        }


@blueprint.delete("/sets/<uuid:set_id>/examples/<uuid:example_id>")
@blueprint.input(VersionQuery, location="query")
@blueprint.output(SetOut)
@blueprint.doc(responses=CONFLICT)
def remove_example(set_id: UUID, example_id: UUID, query_data: VersionQuery) -> dict[str, Any]:
    """Take an example off the ladder."""
    with shelf() as mine:
        return views.set_out(mine.remove_example(set_id, example_id, query_data.version), mine.house_ways())


@blueprint.errorhandler(StaleSetError)
@blueprint.errorhandler(StaleDataError)
def conflict(error: Exception) -> tuple[Response, int]:
    """The set as it is now, for the choice between the two; nothing was changed."""
    set_id: UUID = (request.view_args or {})["set_id"]
    with shelf() as mine:
        now = SetOut.model_validate(views.set_out(mine.one_set(set_id), mine.house_ways()))
    return refusal(
        409,
        "This set was changed in another tab since it was opened here.",
        "Take the other version, or make your change on top of it.",
        set=now.model_dump(mode="json"),
    )
