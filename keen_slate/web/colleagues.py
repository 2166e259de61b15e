"""What teachers of a school share: a set is read as it is now, a copy is one's own, and a withdrawal holds at once."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from apiflask import APIBlueprint, HTTPError
from flask import Response

from keen_slate.core.days import day_of
from keen_slate.core.documents.next_door import next_door
from keen_slate.core.errors import CoreError
from keen_slate.core.limits import WORDS_LENGTH
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.store import log, summaries
from keen_slate.store.classes import ClassError
from keen_slate.store.colleagues import Colleagues
from keen_slate.store.house import ways_of
from keen_slate.store.shelf import NotFoundError, fields_of

from . import door, views
from .desk import shelf
from .handouts import not_there, readable
from .schemas.colleagues import (
    ColleagueOut,
    ColleaguesSetsOut,
    NextDoorOut,
    SharedExample,
    SharedSet,
    SharedSetOut,
    ShareIn,
    ShareOut,
)
from .schemas.sets import SearchQuery, SetOut
from .session import database
from .sets import set_view

blueprint = APIBlueprint("colleagues", __name__, url_prefix="/api")
AT_ONCE = 30  # sets


@blueprint.get("/sets/<uuid:set_id>/share")
@blueprint.output(ShareOut)
def get_share(set_id: UUID) -> ShareOut:
    """Whether a set is shared, and with whom it can be."""
    with shelf() as mine:
        mine.one_set(set_id)
        return _share_out(Colleagues(mine.session, door.teacher()), set_id)


@blueprint.put("/sets/<uuid:set_id>/share")
@blueprint.input(ShareIn)
@blueprint.output(ShareOut)
def put_share(set_id: UUID, json_data: ShareIn) -> ShareOut:
    """Share a set with the colleagues of one's school, or withdraw it."""
    with shelf() as mine:
        title = mine.one_set(set_id).title
        colleagues = Colleagues(mine.session, door.teacher())
        if json_data.shared and colleagues.school() is None:
            raise ClassError(
                "You are in no school here, so there is nobody to share with.", "Ask who keeps Keen Slate."
            )
        others = {one.id: one.name for one in colleagues.others()}
        with_ids = json_data.with_ids
        if with_ids is not None and not set(with_ids) <= set(others):
            raise ClassError("Somebody of these is not in your school any more.", "Load the page again.")
        whom = "" if with_ids is None else f" with {', '.join([others[one] for one in with_ids])}"
        if json_data.shared:
            log.note(mine.session, mine.teacher_id, f"You shared {title}{whom}.")
        elif colleagues.shared(set_id) is not None:
            log.note(mine.session, mine.teacher_id, f"You withdrew {title}.")
        colleagues.share(set_id, json_data.shared, with_ids)
        return _share_out(colleagues, set_id)


def _share_out(colleagues: Colleagues, set_id: UUID) -> ShareOut:
    school, share = colleagues.school(), colleagues.shared(set_id)
    others = colleagues.others()
    there = {one.id for one in others}
    with_ids = None if share is None or share.with_ids is None else [UUID(one) for one in share.with_ids]
    return ShareOut(
        shared=share is not None,
        with_ids=None if with_ids is None else [one for one in with_ids if one in there],
        school=school.name if school else None,
        colleagues=[ColleagueOut(id=one.id, name=one.name) for one in others],
    )


@blueprint.get("/colleagues/sets")
@blueprint.input(SearchQuery, location="query")
@blueprint.output(ColleaguesSetsOut)
def colleagues_sets(query_data: SearchQuery) -> ColleaguesSetsOut:
    """What the colleagues share, a page of it."""
    with shelf() as mine:
        colleagues = Colleagues(mine.session, door.teacher())
        school = colleagues.school()
        found = colleagues.sets(query_data.search, query_data.start, AT_ONCE)
        shown = ColleaguesSetsOut(
            school=school.name if school else None,
            sets=[
                SharedSet(
                    teacher_id=one.teacher.id, teacher=one.teacher.name,
                    set=views.set_summary(one.example_set, ways_of(one.teacher)),
                )
                for one in found
            ],
            total=colleagues.count(query_data.search),
        )  # fmt: skip
        summaries.forget(mine.session)  # nobody writes in what is a colleague's
        return shown


@blueprint.get("/colleagues/<uuid:teacher_id>/sets/<uuid:set_id>")
@blueprint.output(SharedSetOut)
def shared_set(teacher_id: UUID, set_id: UUID) -> SharedSetOut:
    """A set that a colleague shares, with its examples."""
    with shelf() as mine:
        one = Colleagues(mine.session, door.teacher()).one(teacher_id, set_id)
        shown = views.shown_of(one.example_set, ways_of(one.teacher))
        examples = [
            SharedExample(id=example.id, glyphs=list(summary.glyphs), spoken=summary.spoken)
            for example, summary in zip(one.example_set.examples, shown, strict=True)
        ]
        summaries.forget(mine.session)  # nobody writes in what is a colleague's
        return SharedSetOut(teacher=one.teacher.name, title=one.example_set.title, examples=examples)


@blueprint.get("/colleagues/<uuid:teacher_id>/sets/<uuid:set_id>/examples/<uuid:example_id>/beside")
@blueprint.output(NextDoorOut)
def beside(teacher_id: UUID, set_id: UUID, example_id: UUID) -> NextDoorOut:
    """An example of a colleague as her class works it, beside the same problem in one's own ways."""
    with shelf() as mine:
        one = Colleagues(mine.session, door.teacher()).one(teacher_id, set_id)
        example = next((example for example in one.example_set.examples if example.id == example_id), None)
        if example is None:
            raise NotFoundError("This example is not in the set any more.")
        try:
            theirs = views.worked(example, ways_of(one.teacher))
        except CoreError as error:
            return NextDoorOut(beside=None, unreadable=str(error))
        edited = TeachersWords(example.words, one.example_set.words)
        return NextDoorOut(beside=next_door(theirs, edited, Ways.of(mine.house_ways())), unreadable=None)


def shared_page(teacher_id: UUID, set_id: UUID) -> Response:
    """The page of a set as its class works it; where it is not shared with who asks, a page that says so."""
    try:
        one = Colleagues(database(), door.teacher()).one(teacher_id, set_id)
    except (NotFoundError, HTTPError):
        return not_there()
    return readable(one.example_set, ways_of(one.teacher))


@blueprint.post("/colleagues/<uuid:teacher_id>/sets/<uuid:set_id>/copies")
@blueprint.output(SetOut, status_code=201)
def take_copy(teacher_id: UUID, set_id: UUID) -> SetOut:
    """A copy of a colleague's set, worked as one's own class works; its note says where it came from."""
    with shelf() as mine:
        one = Colleagues(mine.session, door.teacher()).one(teacher_id, set_id)
        theirs = one.example_set
        said = f"Taken from {one.teacher.name} on {day_of(date.today())}."
        about = {"note": f"{said} {theirs.note}".strip()[:WORDS_LENGTH]}
        return set_view(mine, mine.add_set(theirs.title, map(fields_of, theirs.examples), theirs, about))
