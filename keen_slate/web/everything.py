"""All that is a teacher's as one file, to be kept or taken elsewhere; and brought in from one, beside what is there."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from apiflask import APIBlueprint
from flask import Response, request

from keen_slate.core.limits import LARGEST_DESK
from keen_slate.core.stories.scenarios import scenarios
from keen_slate.export.desk_document import PLACES, WholeDesk, packed, place_of, refuse_large, set_files, unpacked
from keen_slate.store import log
from keen_slate.store.classes import Classes
from keen_slate.store.database import where_there_is_room
from keen_slate.store.models import ExampleSet
from keen_slate.store.scenarios import FullError, OwnScenarios
from keen_slate.store.shelf import Shelf

from . import class_files, door, files, heavy
from .desk import shelf
from .openapi import file_body_doc, file_doc
from .schemas.door import BroughtDeskOut

blueprint = APIBlueprint("everything", __name__, url_prefix="/api/account")
ZIP = "application/zip"


@blueprint.get("/everything.zip")
@blueprint.doc(responses=file_doc(ZIP))
def save() -> Response:
    """All sets, classes and scenarios, each as its own document, and the ways for all sets."""
    with shelf() as mine:
        teacher = door.teacher()
        classes = Classes(mine.session, mine.teacher_id)
        sets: dict[str, ExampleSet] = {}
        for place in PLACES:
            there = mine.whole_sets(place)
            sets |= dict(zip(set_files(place, [one.title for one in there]), there, strict=True))
        named = {one.id: name for name, one in sets.items()}
        desk = WholeDesk(
            teacher.name,
            dict(teacher.ways),
            {name: files.document_of(one) for name, one in sets.items()},
            [class_files.document_of(mine, one.school_class.id, named) for one in classes.all()],
            OwnScenarios(mine.session, mine.teacher_id).all(),
        )
        with where_there_is_room(mine.session):
            log.note(mine.session, mine.teacher_id, "You saved everything as a file.")
    return files.download(packed(desk), f"everything of {teacher.name}", "zip", ZIP)


@blueprint.post("/everything")
@blueprint.doc(extensions=file_body_doc(ZIP))
@blueprint.output(BroughtDeskOut, status_code=201)
def bring() -> BroughtDeskOut:
    """Everything of a file beside what is there; what cannot be read is left out, and named."""
    request.max_content_length = LARGEST_DESK
    file = request.get_data()
    refuse_large(file)
    desk = heavy.run(unpacked, file, seconds=heavy.FILE)
    now = datetime.now(UTC)
    with shelf() as mine:
        ids = {}
        for i, (name, document) in enumerate(desk.sets.items()):  # in the order in which they were changed
            changed_at = now - timedelta(milliseconds=i)
            ids[name] = files.bring_set(mine, document, place=place_of(name), changed_at=changed_at).id
        for one in desk.classes:
            class_files.bring_class(mine, one, ids)
        told = [_bring_scenario(mine, scenario, desk) for scenario in desk.scenarios]
        house = mine.house()
        chosen = bool(desk.ways) and not house.thing.ways
        if chosen:
            house.put(house.thing.version, desk.ways, "Ways brought in")
        log.note(mine.session, mine.teacher_id, "You brought in a file of everything.")
    return BroughtDeskOut(
        sets=len(desk.sets), classes=len(desk.classes), scenarios=sum(told), ways=chosen, left=desk.left
    )


def _bring_scenario(mine: Shelf, scenario: dict[str, object], desk: WholeDesk) -> bool:
    """Keep a scenario, under another code where a different one has its own; whether it was kept."""
    own = OwnScenarios(mine.session, mine.teacher_id)
    known = {one["code"]: one for one in own.all()}
    code = str(scenario["code"])
    n = 1
    while (code in known and known[code] != scenario | {"code": code}) or code in scenarios():
        n += 1
        code = f"{str(scenario['code'])[:50]}-{n}"
    try:
        own.put(code, scenario | {"code": code})
    except FullError:
        desk.left.append(f"{scenario['name']}: there are as many scenarios already as there may be.")
        return False
    return True
