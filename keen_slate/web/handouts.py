"""Handouts of a set: the pages as they will print, and the PDF; the set as a page to read on a screen."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TypeVar
from uuid import UUID

from apiflask import APIBlueprint
from flask import Response, current_app

from keen_slate.export import fonts
from keen_slate.export.page import withdrawn
from keen_slate.export.paper.options import Options
from keen_slate.export.typesetting import FOLDER
from keen_slate.store.shelf import NotFoundError, Shelf

from . import heavy, papers
from .desk import shelf
from .files import file_name
from .given import given
from .pages import nonce
from .schemas.papers import HandoutQuery, PagesOut, ShowIn
from .schemas.sets import SetOut
from .session import database
from .sets import set_view

blueprint = APIBlueprint("handouts", __name__, url_prefix="/api")
T = TypeVar("T")


@blueprint.get("/sets/<uuid:set_id>/handout")
@blueprint.input(HandoutQuery, location="query")
@blueprint.output(PagesOut)
def preview(set_id: UUID, query_data: HandoutQuery) -> PagesOut:
    """The pages of a handout as pictures: those of the PDF."""
    pages, left_out = _made(papers.handout_pages, set_id, query_data)[1]
    return PagesOut(pages=pages, left_out=left_out)


@blueprint.get("/sets/<uuid:set_id>/handout.pdf")
@blueprint.input(HandoutQuery, location="query")
def download(set_id: UUID, query_data: HandoutQuery) -> Response:
    """The handout as a PDF file."""
    return inline_pdf(*_made(papers.handout_pdf, set_id, query_data))


def inline_pdf(title: str, document: bytes) -> Response:
    """A PDF that a browser shows, called after a *title* where it is kept."""
    headers = {"Content-Disposition": f'inline; filename="{file_name(title)}.pdf"'}
    return Response(document, mimetype="application/pdf", headers=headers)


def _made(paper: Callable[..., T], set_id: UUID, query: HandoutQuery) -> tuple[str, T]:
    with shelf() as mine:
        example_set = mine.one_set(set_id)
        title, examples = example_set.title, given(example_set, mine.house_ways())
    options = Options(**query.model_dump(exclude={"versions", "seed", "only"}))
    only = frozenset([int(number) for number in query.only.split(",") if number])
    wish = papers.Wish(options, query.versions, query.seed, only)
    made = heavy.run(paper, title, examples, wish, typefaces(), seconds=heavy.PAPER)
    return title, made


def assets() -> Path:
    """Where the typeface of pages lies."""
    return Path(current_app.config["DIST"]) / "assets"


def typefaces() -> Path:
    """Where the typeface of papers lies."""
    return Path(current_app.config["DIST"]) / FOLDER


@blueprint.get("/ways/checklist.pdf")
def house_card() -> Response:
    """The questions that are asked in all sets, as cards to cut out."""
    with shelf() as mine:
        return _card(mine.house_ways())


@blueprint.get("/sets/<uuid:set_id>/checklist.pdf")
def set_card(set_id: UUID) -> Response:
    """The questions that are asked in a set, as cards to cut out."""
    with shelf() as mine:
        return _card({**mine.house_ways(), **mine.one_set(set_id).ways})


def _card(ways: dict[str, str]) -> Response:
    return inline_pdf("checklist", heavy.run(papers.checklist_card, ways, typefaces(), seconds=heavy.PAPER))


@blueprint.get("/sets/<uuid:set_id>/set.html")
def save_page(set_id: UUID) -> Response:
    """The set as one HTML file that needs nothing else, and prints."""
    with shelf() as mine:
        example_set = mine.one_set(set_id)
        title, examples = example_set.title, given(example_set, mine.house_ways())
    html = heavy.run(papers.page_alone, title, examples, assets(), seconds=heavy.PAPER)
    headers = {"Content-Disposition": f'attachment; filename="{file_name(title)}.html"'}
    return Response(html, mimetype="text/html", headers=headers)


@blueprint.put("/sets/<uuid:set_id>/show")
@blueprint.input(ShowIn)
@blueprint.output(SetOut)
def put_show(set_id: UUID, json_data: ShowIn) -> SetOut:
    """Give a set an address at which anybody who knows it may read it, or withdraw that address."""
    with shelf() as mine:
        return set_view(mine, mine.show(set_id, json_data.shown))


def shown(teacher_id: UUID, key: str) -> Response:
    """The page of a set under its unguessable address; where it was withdrawn, a page that says so."""
    mine = Shelf(database(), teacher_id)
    try:
        example_set = mine.shown(key)
    except NotFoundError:
        return Response(withdrawn(), 404, {"Cache-Control": "no-store", "X-Robots-Tag": "noindex"}, "text/html")
    html = papers.page(example_set.title, given(example_set, mine.house_ways()), fonts.served(assets()), nonce())
    headers = {"Cache-Control": "no-store", "X-Robots-Tag": "noindex", "Referrer-Policy": "no-referrer"}
    return Response(html, mimetype="text/html", headers=headers)
