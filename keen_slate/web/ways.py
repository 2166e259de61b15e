"""The ways of the house: every setting that offers a choice, changes, and their own undo."""

from __future__ import annotations

from typing import Any

from apiflask import APIBlueprint

from keen_slate.core.ways.settings import CODES, NAMES, TITLES, Ways
from keen_slate.store.shelf import Shelf

from .desk import shelf
from .openapi import conflict_doc
from .schemas import HouseWaysIn, VersionIn, WaysOut

blueprint = APIBlueprint("ways", __name__, url_prefix="/api/ways")
CONFLICT = conflict_doc("The ways were changed elsewhere since that version", "WaysConflictOut")


@blueprint.get("")
@blueprint.output(WaysOut)
def get_ways() -> dict[str, Any]:
    """Every setting, and what the house has chosen."""
    with shelf() as mine:
        return ways_view(mine)


@blueprint.put("")
@blueprint.input(HouseWaysIn)
@blueprint.output(WaysOut)
@blueprint.doc(responses=CONFLICT)
def put_ways(json_data: HouseWaysIn) -> dict[str, Any]:
    """Give the house other ways; sets and examples with ways of their own keep them."""
    Ways.of(json_data.house)
    with shelf() as mine:
        mine.house().change(json_data.version, json_data.house)
        return ways_view(mine)


@blueprint.post("/undo")
@blueprint.input(VersionIn)
@blueprint.output(WaysOut)
@blueprint.doc(responses=CONFLICT)
def undo(json_data: VersionIn) -> dict[str, Any]:
    """Take back the last change of the ways of the house."""
    with shelf() as mine:
        mine.house().go(json_data.version, -1)
        return ways_view(mine)


@blueprint.post("/redo")
@blueprint.input(VersionIn)
@blueprint.output(WaysOut)
@blueprint.doc(responses=CONFLICT)
def redo(json_data: VersionIn) -> dict[str, Any]:
    """Do again what was undone."""
    with shelf() as mine:
        mine.house().go(json_data.version, +1)
        return ways_view(mine)


def ways_view(mine: Shelf) -> dict[str, Any]:
    """Every setting with a choice, and the ways of the house with their version."""
    settings = [
        {"name": name, "title": title, "codes": [{"code": code, "name": NAMES[name, code]} for code in CODES[name]]}
        for name, title in TITLES.items()
    ]
    house = mine.house()
    undo, redo = house.said()
    return {
        "settings": settings, "house": dict(house.teacher.ways), "version": house.teacher.version, "undo": undo, "redo": redo,
    }  # fmt: skip
