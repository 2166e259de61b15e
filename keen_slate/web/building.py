"""The warm-up: numbers to build another one from."""

from __future__ import annotations

from typing import Any

from apiflask import APIBlueprint

from keen_slate.core import building
from keen_slate.core.document import mark_of, work_text
from keen_slate.core.numbers import Expr, mixed
from keen_slate.core.reading import read
from keen_slate.core.vocabulary import saying
from keen_slate.core.ways import Ways
from keen_slate.core.wording import glyphs, text

from .schemas import BuildIn, BuiltOut, LevelsOut, ProposeIn
from .session import shelf

blueprint = APIBlueprint("building", __name__, url_prefix="/api/building")


@blueprint.get("")
@blueprint.output(LevelsOut)
def levels() -> dict[str, Any]:
    """The levels of difficulty that can be asked for."""
    return {"levels": [{"code": code, "name": building.LEVEL_NAMES[code]} for code in building.LEVELS]}


@blueprint.post("")
@blueprint.input(BuildIn)
@blueprint.output(BuiltOut)
def build(json_data: BuildIn) -> dict[str, Any]:
    """All shortest ways from the numbers to the number wanted, or to the nearest that can be built."""
    ways = _ways()
    numbers = building.read_numbers(json_data.numbers, mark_of(ways))
    wanted = building.read_wanted(json_data.wanted, mark_of(ways))
    return _out(building.build(numbers, wanted), ways)


@blueprint.post("/new")
@blueprint.input(ProposeIn)
@blueprint.output(BuiltOut)
def propose(json_data: ProposeIn) -> dict[str, Any]:
    """Numbers and a number to build, of a level; the same seed gives the same."""
    return _out(building.propose(json_data.level, json_data.seed), _ways())


def _ways() -> Ways:
    with shelf() as mine:
        return Ways.of(mine.house_ways())


def _out(built: building.Built, ways: Ways) -> dict[str, Any]:
    say = saying(ways)
    apart = "; " if ways.decimal_mark == "comma" else ", "
    return {
        "numbers": say(apart.join(text(n) for n in built.numbers)),
        "wanted": say(text(built.wanted)),
        "number_glyphs": [glyphs(n) for n in built.numbers],
        "wanted_glyphs": glyphs(built.wanted),
        "exact": built.exact,
        "nearest_glyphs": glyphs(mixed(built.nearest)),
        "ways": [{"text": say(text(way)), "glyphs": glyphs(way), "lines": _lines(way, ways)} for way in built.ways],
    }


def _lines(way: Expr, ways: Ways) -> list[Any]:
    """The lines of a way, one operation each, worked and proven as any other problem."""
    if read(text(way)).kind == "simplify":
        return []
    return [glyphs(step.after) for step in work_text(text(way), ways, mark=".").working.steps]
