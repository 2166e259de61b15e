"""The ways of the house: every setting that offers a choice, changes, and their own undo."""

from __future__ import annotations

from functools import lru_cache

from apiflask import APIBlueprint

from keen_slate.core.documents.ways_shown import ShownWay, shown_ways
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.layouts.checklist import OF_THE_HOUSE
from keen_slate.core.ways.checklist import HANGS_ON
from keen_slate.core.ways.settings import GROUPS, SETTINGS, Setting, Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.store.shelf import Shelf

from .desk import shelf
from .openapi import conflict_doc
from .schemas.base import VersionIn
from .schemas.ways import CodeOut, HouseWaysIn, SettingOut, ShownQuery, ShownSetting, ShownWaysOut, WaysOut

blueprint = APIBlueprint("ways", __name__, url_prefix="/api/ways")
CONFLICT = conflict_doc("The ways were changed elsewhere since that version", "WaysConflictOut")


@blueprint.get("")
@blueprint.output(WaysOut)
def get_ways() -> WaysOut:
    """Every setting, and what the house has chosen."""
    with shelf() as mine:
        return ways_view(mine)


@blueprint.get("/shown")
@blueprint.input(ShownQuery, location="query")
@blueprint.output(ShownWaysOut)
def get_shown(query_data: ShownQuery) -> ShownWaysOut:
    """The ways of a group of settings, each shown in a piece of working."""
    with shelf() as mine:
        ways = Ways.of(mine.ways_in(query_data.set_id))
    shown = [one for one in SETTINGS.values() if one.group == query_data.group]
    return ShownWaysOut(settings=[ShownSetting(name=one.name, ways=_shown(one.name, ways)) for one in shown])


@lru_cache(maxsize=512)
def _shown(name: str, ways: Ways) -> list[ShownWay]:
    return shown_ways(SETTINGS[name], ways)


@blueprint.put("")
@blueprint.input(HouseWaysIn)
@blueprint.output(WaysOut)
@blueprint.doc(responses=CONFLICT)
def put_ways(json_data: HouseWaysIn) -> WaysOut:
    """Give the house other ways; sets and examples with ways of their own keep them."""
    Ways.of(json_data.house)
    with shelf() as mine:
        mine.house().put(json_data.version, json_data.house)
        return ways_view(mine)


@blueprint.post("/undo")
@blueprint.input(VersionIn)
@blueprint.output(WaysOut)
@blueprint.doc(responses=CONFLICT)
def undo(json_data: VersionIn) -> WaysOut:
    """Take back the last change of the ways of the house."""
    with shelf() as mine:
        mine.house().step(json_data.version, -1)
        return ways_view(mine)


@blueprint.post("/redo")
@blueprint.input(VersionIn)
@blueprint.output(WaysOut)
@blueprint.doc(responses=CONFLICT)
def redo(json_data: VersionIn) -> WaysOut:
    """Do again what was undone."""
    with shelf() as mine:
        mine.house().step(json_data.version, +1)
        return ways_view(mine)


def ways_view(mine: Shelf) -> WaysOut:
    """Every setting, in the words of the house, and the ways of the house with their version."""
    house = mine.house()
    voice = voice_of(Ways.of(mine.house_ways()))
    undo, redo = house.said()
    return WaysOut(
        groups=groups_out(voice),
        settings=settings_out(voice),
        hangs_on=[CodeOut(code=code, name=voice.said(title)) for code, title in HANGS_ON.items()],
        questions="\n".join([f"{one.hangs_on}: {voice.said(one.asks)}" for one in OF_THE_HOUSE]),
        house=dict(house.thing.ways),
        school=dict(house.thing.school.ways) if house.thing.school else {},
        version=house.thing.version,
        undo=undo,
        redo=redo,
    )


def groups_out(voice: Voice) -> list[CodeOut]:
    """Every group of settings, in the words of *voice*."""
    return [CodeOut(code=code, name=voice.said(title)) for code, title in GROUPS.items()]


def settings_out(voice: Voice) -> list[SettingOut]:
    """Every setting with its codes, in the words of *voice*."""
    return [_setting(one, voice) for one in SETTINGS.values()]


def _setting(one: Setting, voice: Voice) -> SettingOut:
    codes = [CodeOut(code=code, name=voice.said(title)) for code, title in one.codes.items()]
    return SettingOut(name=one.name, group=one.group, title=voice.said(one.title), codes=codes)
