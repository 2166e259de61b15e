"""Stories: what is understood of one that is typed, some told of an example, some made to order; scenarios."""

from __future__ import annotations

from typing import Any

from apiflask import APIBlueprint

from keen_slate.core.documents.story import story_view
from keen_slate.core.errors import ReadError
from keen_slate.core.grading.rungs import RUNGS, STORY_RUNGS
from keen_slate.core.ladders.story_wish import CALCULATIONS
from keen_slate.core.limits import MOST_SCENARIOS
from keen_slate.core.reading.measures import UNITS
from keen_slate.core.stories.reading import Understood, as_problem, understand
from keen_slate.core.stories.scenarios import SIZES, document_of, read_scenario, scenarios
from keen_slate.core.stories.story import SITUATIONS, UNKNOWNS
from keen_slate.core.teaching.fading import Fading
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.working.methods import work
from keen_slate.store.scenarios import FullError, OwnScenarios
from keen_slate.store.shelf import Shelf

from . import heavy, story_searches
from .desk import shelf
from .schemas.base import ErrorBody
from .schemas.ladders import RungOut
from .schemas.stories import (
    FoundNumber,
    MadeOut,
    MakeIn,
    ScenarioDocument,
    ScenarioOut,
    SituationOut,
    StoryChoicesOut,
    StoryIn,
    StoryReadOut,
    TellIn,
    ToldOut,
)

blueprint = APIBlueprint("stories", __name__, url_prefix="/api/stories")


@blueprint.get("")
@blueprint.output(StoryChoicesOut)
def choices() -> StoryChoicesOut:
    """What stories can be made of: rungs, situations, calculations, scenarios."""
    with shelf() as mine:
        voice = voice_of(Ways.of(mine.house_ways()))
        every = _scenarios(mine)
    return StoryChoicesOut(
        rungs=[RungOut(code=code, name=voice.said(name)) for code, name in STORY_RUNGS.items()],
        situations=[
            SituationOut(code=code, name=name, unknowns=[RungOut(code=one, name=UNKNOWNS[one]) for one in unknowns])
            for code, (name, unknowns) in SITUATIONS.items()
        ],
        calculations=[RungOut(code=code, name=voice.said(RUNGS[code])) for code in CALCULATIONS],
        scenarios=every,
        units=[unit.label for unit in UNITS if unit.short and unit.measure != "money"],
        sizes=list(SIZES),
    )


def _scenarios(mine: Shelf) -> list[ScenarioOut]:
    own = OwnScenarios(mine.session, mine.teacher_id).all()
    return [
        *[ScenarioOut(own=False, document=document_of(one)) for one in scenarios().values()],
        *[ScenarioOut(own=True, document=one) for one in own],
    ]


@blueprint.post("/read")
@blueprint.input(StoryIn)
@blueprint.output(StoryReadOut)
def read(json_data: StoryIn) -> StoryReadOut:
    """What is understood of a story while it is typed; it need not be finished."""
    ways = Ways.of(json_data.ways)
    found = understand(json_data.text, mark_of(ways))
    voice = voice_of(ways)
    readings = found.reading.readings if found.reading else ()
    views = [story_view(work(as_problem(one), ways), Fading()) for one in readings]
    return StoryReadOut(
        numbers=[
            FoundNumber(
                text=one.text, number=voice.text(one.number), unit=one.label, known=one.unit is not None,
                start=one.start, end=one.end,
            )
            for one in found.quantities
        ],
        certain=found.reading is not None and found.reading.certain,
        doubts=list(found.reading.doubts) if found.reading else [],
        readings=[view for view in views if view],
        refusal=_refusal(found),
    )  # fmt: skip


def _refusal(found: Understood) -> ErrorBody | None:
    error = found.refusal
    if error is None:
        return None
    return ErrorBody(message=error.message, position=error.position, length=error.length, hint=error.hint)


@blueprint.post("/tell")
@blueprint.input(TellIn)
@blueprint.output(ToldOut)
def tell(json_data: TellIn) -> ToldOut:
    """Three stories that fit the numbers and the label of an example; nothing is changed by asking."""
    with shelf() as mine:
        own = OwnScenarios(mine.session, mine.teacher_id).all()
    return story_searches.tell(json_data.text, json_data.ways, json_data.seed, own)


@blueprint.post("/make")
@blueprint.input(MakeIn)
@blueprint.output(MadeOut)
def make(json_data: MakeIn) -> MadeOut:
    """Stories made to order, or which part of the wish rules them out."""
    wish = json_data
    with shelf() as mine:
        ways = mine.ways_in(wish.set_id)
        own = OwnScenarios(mine.session, mine.teacher_id).all()
    return heavy.run(story_searches.make, wish.spec, ways, wish.kept, wish.shunned, own)


@blueprint.put("/scenarios/<string:code>")
@blueprint.input(ScenarioDocument)
@blueprint.output(ScenarioOut)
def put_scenario(code: str, json_data: ScenarioDocument) -> ScenarioOut:
    """Keep a scenario of one's own, in the place of one with the same code."""
    given: dict[str, Any] = json_data.model_dump(by_alias=True, exclude_none=True) | {"code": code}
    document = document_of(read_scenario(given))
    if code in scenarios():
        raise ReadError(f"{code!r} comes with the program.", 0, 0, "Give yours another code.")
    with shelf() as mine:
        try:
            OwnScenarios(mine.session, mine.teacher_id).put(code, document)
        except FullError:
            raise ReadError(f"There are {MOST_SCENARIOS} scenarios already.", 0, 0, "Take one away first.") from None
    return ScenarioOut(own=True, document=document)


@blueprint.delete("/scenarios/<string:code>")
@blueprint.output({}, status_code=204)
def delete_scenario(code: str) -> str:
    """Take a scenario of one's own away; stories that were told with it stay."""
    with shelf() as mine:
        OwnScenarios(mine.session, mine.teacher_id).remove(code)
    return ""
