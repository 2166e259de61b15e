"""Handouts of a set: the pages as they will print, and the PDF."""

from __future__ import annotations

import base64
import re
from typing import Any
from uuid import UUID

from apiflask import APIBlueprint
from flask import Response, current_app

from keen_slate.core.document import TeachersWords, work_text
from keen_slate.core.errors import CoreError
from keen_slate.export.handout import Item, Options, Version, handout
from keen_slate.export.pdf import pages, pdf
from keen_slate.store.models import Example, ExampleSet
from keen_slate.store.shelf import Shelf

from . import views
from .ladders import other_problem
from .schemas import HandoutQuery, PagesOut
from .session import shelf

blueprint = APIBlueprint("handouts", __name__, url_prefix="/api")


@blueprint.get("/sets/<uuid:set_id>/handout")
@blueprint.input(HandoutQuery, location="query")
@blueprint.output(PagesOut)
def preview(set_id: UUID, query_data: HandoutQuery) -> dict[str, Any]:
    """The pages of a handout as pictures: those of the PDF."""
    with shelf() as mine:
        document = pdf(_html(mine, mine.one_set(set_id), query_data))
    return {"pages": [base64.b64encode(picture).decode() for picture in pages(document)]}


@blueprint.get("/sets/<uuid:set_id>/handout.pdf")
@blueprint.input(HandoutQuery, location="query")
def download(set_id: UUID, query_data: HandoutQuery) -> Response:
    """The handout as a PDF file."""
    with shelf() as mine:
        found = mine.one_set(set_id)
        document = pdf(_html(mine, found, query_data))
    name = re.sub(r"[^A-Za-z0-9]+", "-", found.title).strip("-").lower() or "handout"
    return Response(
        document, mimetype="application/pdf", headers={"Content-Disposition": f'inline; filename="{name}.pdf"'}
    )


def _html(mine: Shelf, found: ExampleSet, query: HandoutQuery) -> str:
    options = Options(**query.model_dump(exclude={"versions", "seed"}))
    house = mine.house_ways()
    used = {example.source for example in found.examples}
    versions: list[Version] = []
    for number in range(query.versions):
        letter = chr(ord("A") + number) if query.versions > 1 else ""
        items = [item for e in found.examples if (item := _item(e, house, number, query.seed, used)) is not None]
        versions.append((letter, items))
    return handout(found.title, versions, options, current_app.config["DIST"] / "assets")


def _item(example: Example, house: dict[str, str], number: int, seed: int, used: set[str]) -> Item | None:
    """An example as version *number* (from 0) has it: itself, or a problem like it. None where it cannot be worked."""
    try:
        worked = views.worked(example, house)
    except CoreError:
        return None
    words = TeachersWords(example.words, example.example_set.words)
    if number:
        source = other_problem(worked, f"{seed} {number} {example.position}", used)
        used.add(source)
        worked = work_text(source, worked.working.ways, ".", worked.working.problem.target)
        words = TeachersWords({}, example.example_set.words)
    return Item(worked, words, views.fading_of(example), example.marks)
