"""Handouts of a set: the pages as they will print, and the PDF; the set as a page to read on a screen."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import fields
from pathlib import Path
from typing import TypeVar
from uuid import UUID

from apiflask import APIBlueprint
from flask import Response, current_app, request

from keen_slate.core.errors import ReadError
from keen_slate.export import fonts
from keen_slate.export.packages import file_name
from keen_slate.export.page import said_page
from keen_slate.export.paper.options import Options
from keen_slate.export.typesetting import FOLDER
from keen_slate.store import walls
from keen_slate.store.models import ExampleSet
from keen_slate.store.shelf import NotFoundError, Shelf

from . import heavy, papers
from .desk import shelf
from .given import given
from .openapi import file_doc
from .pages import nonce
from .schemas.papers import HandoutQuery, PagesOut, PreviewQuery, ShowIn
from .schemas.sets import SetOut
from .session import database
from .sets import set_view

blueprint = APIBlueprint("handouts", __name__, url_prefix="/api")
T = TypeVar("T")


@blueprint.get("/sets/<uuid:set_id>/handout")
@blueprint.input(PreviewQuery, location="query")
@blueprint.output(PagesOut)
def preview(set_id: UUID, query_data: PreviewQuery) -> PagesOut:
    """The pages of a handout as pictures: those of the PDF."""
    return _made(papers.handout_pages, set_id, query_data, query_data.most)[1]


@blueprint.get("/sets/<uuid:set_id>/handout.pdf")
@blueprint.input(HandoutQuery, location="query")
@blueprint.doc(responses=file_doc("application/pdf"))
def download(set_id: UUID, query_data: HandoutQuery) -> Response:
    """The handout as a PDF file."""
    return inline_pdf(*_made(papers.handout_pdf, set_id, query_data))


def inline_pdf(title: str, document: bytes) -> Response:
    """A PDF that a browser shows, called after a *title* where it is kept."""
    headers = {"Content-Disposition": f'inline; filename="{file_name(title)}.pdf"'}
    return Response(document, mimetype="application/pdf", headers=headers)


def _made(paper: Callable[..., T], set_id: UUID, query: HandoutQuery, *more: object) -> tuple[str, T]:
    with shelf() as mine:
        example_set = mine.one_set(set_id)
        title, examples = example_set.title, given(example_set, mine.house_ways())
    options = Options(**{one.name: getattr(query, one.name) for one in fields(Options)})
    wish = papers.Wish(options, query.versions, query.seed, numbers_in(query.only, len(examples)))
    return title, heavy.run(paper, title, examples, wish, typefaces(), *more, seconds=heavy.PAPER)


def numbers_in(text: str, most: int) -> frozenset[int]:
    """The numbers of a list such as "1, 3, 5-8", each from 1 to *most*; none of an empty one. Raises `ReadError`.

    >>> sorted(numbers_in("1, 3, 5-8", 7))
    Traceback (most recent call last):
    keen_slate.core.errors.ReadError: There is no example 8: the last one is 7.
    """
    found: set[int] = set()
    for part in re.finditer(r"[^,]+", text):
        span = re.fullmatch(r"\s*(\d{1,4})\s*(?:[-–]\s*(\d{1,4})\s*)?", part[0])
        if span is None and not part[0].strip():
            continue
        if span is None:
            raise ReadError(
                f"“{part[0].strip()}” names no example.", part.start(), len(part[0]), "Write numbers, like 1, 3, 5-8."
            )
        first, last = int(span[1]), int(span[2] or span[1])
        wrong = next((n for n in (first, last) if not 1 <= n <= most), None)
        if wrong is not None:
            raise ReadError(
                f"There is no example {wrong}: the last one is {most}.", part.start(), len(part[0]), "Leave it out."
            )
        found |= set(range(min(first, last), max(first, last) + 1))
    return frozenset(found)


def assets() -> Path:
    """Where the typeface of pages lies."""
    return Path(current_app.config["DIST"]) / "assets"


def typefaces() -> Path:
    """Where the typeface of papers lies."""
    return Path(current_app.config["DIST"]) / FOLDER


@blueprint.get("/ways/checklist.pdf")
@blueprint.doc(responses=file_doc("application/pdf"))
def house_card() -> Response:
    """The questions that are asked in all sets, as cards to cut out."""
    with shelf() as mine:
        return _card(mine.house_ways())


@blueprint.get("/sets/<uuid:set_id>/checklist.pdf")
@blueprint.doc(responses=file_doc("application/pdf"))
def set_card(set_id: UUID) -> Response:
    """The questions that are asked in a set, as cards to cut out."""
    with shelf() as mine:
        return _card(mine.ways_in(set_id))


def _card(ways: dict[str, str]) -> Response:
    return inline_pdf("checklist", heavy.run(papers.checklist_card, ways, typefaces(), seconds=heavy.PAPER))


@blueprint.get("/sets/<uuid:set_id>/set.html")
@blueprint.doc(responses=file_doc("text/html"))
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
    walls.reach(mine.session, walls.SHOWN, key)
    try:
        example_set = mine.shown(key)
    except NotFoundError:
        return not_there()
    return readable(example_set, mine.house_ways())


def not_there() -> Response:
    """The page that says that a set is not shown, or not any more."""
    said = "The teacher who made this page has taken it back, or the address is not whole. Ask for a new one."
    page = said_page("This is not shown any more", said, nonce())
    return Response(page, 404, {"Cache-Control": "no-store", "X-Robots-Tag": "noindex"}, "text/html")


def readable(example_set: ExampleSet, house: Mapping[str, str]) -> Response:
    """The page of a set to be read, in the ways of its *house*; nobody keeps it."""
    if request.method == "HEAD":  # an open page asks whether it may still be read
        return Response(headers={"Cache-Control": "no-store"})
    html = papers.page(example_set.title, given(example_set, house), fonts.served(assets()), nonce())
    headers = {"Cache-Control": "no-store", "X-Robots-Tag": "noindex", "Referrer-Policy": "no-referrer"}
    return Response(html, mimetype="text/html", headers=headers)
