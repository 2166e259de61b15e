"""Handouts of a set: the pages as they will print, and the PDF."""

from __future__ import annotations

import base64
from pathlib import Path
from typing import Any
from uuid import UUID

from apiflask import APIBlueprint
from flask import Response, current_app

from keen_slate.core.document import TeachersWords, work_text
from keen_slate.core.errors import CoreError
from keen_slate.export import fonts
from keen_slate.export.handout import Item, Options, Version, handout
from keen_slate.export.pdf import pages, pdf
from keen_slate.store.models import Example, ExampleSet
from keen_slate.store.shelf import Shelf

from . import views
from .files import file_name
from .ladders import other_problem
from .pages import nonce
from .schemas import HandoutQuery, PagesOut, SetOut, ShowIn
from .session import database, shelf
from .sets import set_view

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
    return Response(
        document,
        mimetype="application/pdf",
        headers={"Content-Disposition": f'inline; filename="{file_name(found.title)}.pdf"'},
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
    return handout(found.title, versions, options, fonts.on_disk(_assets()))


def _assets() -> Path:
    return Path(current_app.config["DIST"]) / "assets"


# Read on a screen -------------------------------------------------------------------------------------------------

READ = Options(form="full", per_page=1, space=0, name_line=False, pictures=True, key=False)


@blueprint.get("/sets/<uuid:set_id>/set.html")
def save_page(set_id: UUID) -> Response:
    """The set as one HTML file that needs nothing else, and prints."""
    with shelf() as mine:
        found = mine.one_set(set_id)
        html = handout(found.title, [("", _items(found, mine.house_ways()))], READ, fonts.within(_assets()))
    headers = {"Content-Disposition": f'attachment; filename="{file_name(found.title)}.html"'}
    return Response(html, mimetype="text/html", headers=headers)


@blueprint.put("/sets/<uuid:set_id>/show")
@blueprint.input(ShowIn)
@blueprint.output(SetOut)
def put_show(set_id: UUID, json_data: ShowIn) -> dict[str, Any]:
    """Give a set an address at which anybody who knows it may read it, or withdraw that address."""
    with shelf() as mine:
        return set_view(mine, mine.show(set_id, json_data.shown))


def shown(teacher_id: UUID, key: str) -> Response:
    """The page of a set under its unguessable address. Raises `NotFoundError` where it was withdrawn."""
    with database() as session:
        mine = Shelf(session, teacher_id)
        found = mine.shown(key)
        html = handout(found.title, [("", _items(found, mine.house_ways()))], READ, fonts.served(_assets()), nonce())
    headers = {"Cache-Control": "no-store", "X-Robots-Tag": "noindex", "Referrer-Policy": "no-referrer"}
    return Response(html, mimetype="text/html", headers=headers)


def _items(found: ExampleSet, house: dict[str, str]) -> list[Item]:
    return [item for example in found.examples if (item := _item(example, house, 0, 0, set())) is not None]


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
