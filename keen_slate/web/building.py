"""The warm-up: numbers to build another one from."""

from __future__ import annotations

from apiflask import APIBlueprint

from keen_slate.core.building.levels import LEVEL_NAMES, LEVELS

from . import heavy, searches
from .desk import shelf
from .schemas.building import BuildIn, BuiltOut, LevelOut, LevelsOut, ProposeIn

blueprint = APIBlueprint("building", __name__, url_prefix="/api/building")


@blueprint.get("")
@blueprint.output(LevelsOut)
def levels() -> LevelsOut:
    """The levels of difficulty that can be asked for."""
    return LevelsOut(levels=[LevelOut(code=code, name=LEVEL_NAMES[code]) for code in LEVELS])


@blueprint.post("")
@blueprint.input(BuildIn)
@blueprint.output(BuiltOut)
def build(json_data: BuildIn) -> BuiltOut:
    """All shortest ways from the numbers to the number wanted, or to the nearest that can be built."""
    return heavy.run(searches.build, json_data.numbers, json_data.wanted, _ways())


@blueprint.post("/new")
@blueprint.input(ProposeIn)
@blueprint.output(BuiltOut)
def propose(json_data: ProposeIn) -> BuiltOut:
    """Numbers and a number to build, of a level; the same seed gives the same."""
    return heavy.run(searches.propose, json_data.level, json_data.seed, _ways())


def _ways() -> dict[str, str]:
    with shelf() as mine:
        return mine.house_ways()
