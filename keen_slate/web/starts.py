"""A set begun in one step: from a standard, from rung to rung, from pasted lines."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from apiflask import APIBlueprint, HTTPError

from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.grading.standards import STANDARDS
from keen_slate.core.ladders.starts import climbs_for, group_of, standard_named, wish_between, wishes_for
from keen_slate.core.limits import TITLE_LENGTH
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of

from . import heavy, searches, views
from .desk import shelf
from .schemas.files import BroughtIn, BroughtOut
from .schemas.ladders import RungOut
from .schemas.sets import SetOut
from .schemas.starts import ClimbStart, ClimbStartsOut, StandardStart, StartIn, StartsOut
from .sets import set_view

blueprint = APIBlueprint("starts", __name__, url_prefix="/api")


@blueprint.get("/starts")
@blueprint.output(StartsOut)
def starts() -> StartsOut:
    """What a set can begin with."""
    with shelf() as mine:
        voice = voice_of(Ways.of(mine.house_ways()))
    return StartsOut(
        standards=[StandardStart(code=one.code, words=one.words, group=group_of(one)) for one in STANDARDS],
        rungs=[RungOut(code=rung, name=voice.said(name)) for rung, name in RUNGS.items()],
    )


@blueprint.post("/starts")
@blueprint.input(StartIn)
@blueprint.output(SetOut, status_code=201)
def start(json_data: StartIn) -> SetOut:
    """Begin a new set with problems on its ladder."""
    wanted = json_data
    with shelf() as mine:
        house = mine.house_ways()
    ways = Ways.of(house)
    wishes, title, about = _wishes(wanted, ways)
    found = heavy.run(searches.problems_for, wishes, house) if wishes else []
    if wishes and not found:
        raise HTTPError(422, "There are not so many different problems on these rungs.")
    texts = [(one.text, one.target) for one in found] + [(text, None) for text in wanted.problems]
    fields = [{"source": views.stored_text(text, ways), "target": target} for text, target in texts]
    with shelf() as mine:
        return set_view(mine, mine.add_set((wanted.title or title)[:TITLE_LENGTH], fields, about=about))


def _wishes(wanted: StartIn, ways: Ways) -> tuple[list[dict[str, Any]], str, dict[str, Any]]:
    """What is to be built, what the set is called after it, and what else is known of the set."""
    voice = voice_of(ways)
    if wanted.standard is not None:
        standard = standard_named(wanted.standard)
        if standard is None:
            raise HTTPError(422, "There is no such standard here.")
        said = standard.words[0].upper() + standard.words[1:]
        return wishes_for(standard, wanted.seed), said, {"standards": [standard.code], "objective": said}
    if wanted.between is not None:
        span = wanted.between
        wish = wish_between(span.first, span.last, span.problems, wanted.seed)
        first, last = (voice.said(RUNGS.get(rung, rung)) for rung in (span.first, span.last))
        return [wish], f"{first[:1].upper()}{first[1:]}" + (f" to {last}" if last != first else ""), {}
    return [], "A new set", {}


@blueprint.post("/starts/judge")
@blueprint.input(BroughtIn)
@blueprint.output(BroughtOut)
def judge_new(json_data: BroughtIn) -> BroughtOut:
    """Lines of problems for a set that is not begun yet, judged one by one; nothing is stored by asking."""
    with shelf() as mine:
        house = mine.house_ways()
    return BroughtOut(lines=heavy.run(searches.judge, json_data.text, [], house))


@blueprint.get("/sets/<uuid:set_id>/starts")
@blueprint.output(ClimbStartsOut)
def climbs(set_id: UUID) -> ClimbStartsOut:
    """Three climbs that suit the title of a set."""
    with shelf() as mine:
        example_set = mine.one_set(set_id)
        voice = voice_of(Ways.of({**mine.house_ways(), **example_set.ways}))
        title = example_set.title
    return ClimbStartsOut(
        climbs=[
            ClimbStart(
                name=voice.said(one.name), first=one.first, last=one.last,
                from_words=voice.said(RUNGS[one.first]), to_words=voice.said(RUNGS[one.last]),
            )
            for one in climbs_for(title)
        ]
    )  # fmt: skip
