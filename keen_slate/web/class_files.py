"""What of a class leaves the house: its answers as CSV, pages as PDF, all of it as one document that can be brought in
again.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Any
from uuid import UUID

from apiflask import APIBlueprint
from flask import Response, request

from keen_slate.core.days import day_of
from keen_slate.core.documents.cells import name_in_cell, question_view
from keen_slate.core.documents.sitting import happened_view
from keen_slate.core.limits import LARGEST_FILE
from keen_slate.export import answers_table
from keen_slate.export.class_document import (
    AnswerPart,
    ClassDocument,
    MovePart,
    PupilPart,
    QuestionPart,
    SittingPart,
    WordPart,
    read_document,
)
from keen_slate.export.class_reports import class_report, pupil_report, sitting_report
from keen_slate.export.json_document import written
from keen_slate.export.report import Report, report
from keen_slate.store.classes import Classes
from keen_slate.store.models import SchoolClass, Sitting
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Entered, Sittings

from . import heavy, session
from .classes import class_view, pupil_of
from .desk import shelf
from .files import download
from .handouts import inline_pdf, typefaces
from .openapi import body_doc, file_doc, reference
from .over_time import class_page, year_of
from .schemas.classes import ClassOut
from .sittings import SittingDesk

blueprint = APIBlueprint("class_files", __name__, url_prefix="/api")
CLASS_FILE: Any = {
    200: {"description": "The document", "content": {"application/json": {"schema": reference("ClassDocument")}}}
}


@blueprint.get("/sittings/<uuid:sitting_id>/answers.csv")
@blueprint.doc(responses=file_doc("text/csv"))
def save_table(sitting_id: UUID) -> Response:
    """The answers and verdicts of a sitting as CSV."""
    with shelf() as mine:
        desk = SittingDesk(mine, sitting_id)
    answers = desk.answers
    rows = []
    for pupil in desk.pupils:
        key = str(pupil.id)
        cells: list[tuple[str | None, str]] = [
            ("", "") if cell is None else (cell.written, name_in_cell(answers, key, number) or cell.said)
            for number, cell in enumerate(answers.cells[key])
        ]
        rows.append((pupil.alias, cells, answers.points(key)))
    texts = [question_view(one.question, 0).text for one in answers.asked]
    # The mark tells a spreadsheet that this is UTF-8.
    content = ("\ufeff" + answers_table.table(texts, rows)).encode()
    return download(content, f"answers {desk.sitting.title} {desk.sitting.day}", "csv", "text/csv")


@blueprint.get("/classes/<uuid:class_id>/class.pdf")
@blueprint.doc(responses=file_doc("application/pdf"))
def class_paper(class_id: UUID) -> Response:
    """A class on one page."""
    with shelf() as mine:
        page = class_page(year_of(mine, class_id))
    return inline_pdf(page.name, _paper(class_report(page)))


@blueprint.get("/classes/<uuid:class_id>/pupils/<uuid:pupil_id>/pupil.pdf")
@blueprint.doc(responses=file_doc("application/pdf"))
def pupil_paper(class_id: UUID, pupil_id: UUID) -> Response:
    """A pupil on one page."""
    with shelf() as mine:
        page = pupil_of(mine, class_id, pupil_id)
    return inline_pdf(page.pupil.alias, _paper(pupil_report(page)))


@blueprint.get("/sittings/<uuid:sitting_id>/happened.pdf")
@blueprint.doc(responses=file_doc("application/pdf"))
def sitting_paper(sitting_id: UUID) -> Response:
    """What happened in a sitting, on one page."""
    with shelf() as mine:
        desk = SittingDesk(mine, sitting_id)
        name = desk.classes.one(desk.sitting.class_id).name
    found, sitting = happened_view(desk.answers, desk.seen), desk.sitting
    said = f"{name}, {sitting.kind}, {day_of(sitting.day)}"
    return inline_pdf(f"{name} {sitting.title}", _paper(sitting_report(sitting.title, said, found)))


def _paper(page: Report) -> bytes:
    return heavy.run(report, page, typefaces(), seconds=heavy.PAPER)


# One document ---------------------------------------------------------------------------------------------------------


@blueprint.get("/classes/<uuid:class_id>/class.json")
@blueprint.doc(responses=CLASS_FILE)
def save_class(class_id: UUID) -> Response:
    """A class with all that it wrote, as a document that can be brought in again, here or elsewhere."""
    with shelf() as mine:
        document = document_of(mine, class_id)
    return download(written(document), f"class {document.name}", "json", "application/json")


def document_of(mine: Shelf, class_id: UUID, sets: Mapping[UUID, str] | None = None) -> ClassDocument:
    """A class with all that it wrote as its published document; *sets* are the files of sets that stand beside it."""
    classes, store = Classes(mine.session, mine.teacher_id), Sittings(mine.session, mine.teacher_id)
    found, pupils = classes.one(class_id), classes.pupils(class_id)
    aliases = {pupil.id: pupil.alias for pupil in pupils}
    return ClassDocument(
        format="keen-slate/class",
        version=1,
        name=found.name,
        returns=found.returns,
        forget_months=found.forget_months or 0,
        pupils=[PupilPart(alias=pupil.alias, here=pupil.here) for pupil in pupils],
        sittings=[_part(store, sitting, aliases, sets or {}) for sitting in store.of_class(class_id)],
    )


def _part(store: Sittings, sitting: Sitting, aliases: Mapping[UUID, str], sets: Mapping[UUID, str]) -> SittingPart:
    places = {pupil: i for i, pupil in enumerate(aliases)}  # in the order of the class, so that a file is the same
    return SittingPart(
        title=sitting.title,
        day=sitting.day.isoformat(),
        labels=sitting.questions[0].get("labels", False),
        kind=sitting.kind,  # type: ignore[arg-type]
        questions=[
            QuestionPart(
                problem=one["source"], to=one.get("target"), ways=one.get("ways", {}), marks=one.get("points", {})
            )
            for one in sitting.questions
        ],
        answers=[
            AnswerPart(
                pupil=aliases[row.pupil_id], problem=row.number + 1, written=row.written, word=WordPart(**row.word)
            )
            for row in sorted(store.answers([sitting.id]), key=lambda row: (places[row.pupil_id], row.number))
        ],
        moves=[
            MovePart(pupil=aliases[UUID(pupil)], codes=codes)
            for pupil, codes in sorted(sitting.moves.items(), key=lambda one: places.get(UUID(one[0]), 0))
            if UUID(pupil) in aliases
        ],
        set=sets.get(sitting.set_id, "") if sitting.set_id else "",
    )


@blueprint.post("/classes/bring")
@blueprint.doc(extensions=body_doc("ClassDocument"))
@blueprint.output(ClassOut, status_code=201)
def bring() -> ClassOut:
    """A new class from a document; all of it or nothing."""
    request.max_content_length = 4 * LARGEST_FILE
    document = heavy.run(read_document, request.get_data(), seconds=heavy.FILE)
    with shelf() as mine:
        made = bring_class(mine, document)
        session.about_class(made.id)
        return class_view(mine, made)


def bring_class(mine: Shelf, document: ClassDocument, sets: Mapping[str, UUID] | None = None) -> SchoolClass:
    """A new class from a *document*, with all that it wrote; *sets* are those that came in beside it, by their
    files.
    """
    classes, store = Classes(mine.session, mine.teacher_id), Sittings(mine.session, mine.teacher_id)
    made = classes.add(document.name, [pupil.alias for pupil in document.pupils])
    made.returns, made.forget_months = document.returns, document.forget_months or None
    ids = {}
    for pupil, part in zip(classes.pupils(made.id), document.pupils, strict=True):
        pupil.here = part.here
        ids[part.alias.casefold()] = pupil.id
    for one in document.sittings:
        _bring(store, made.id, one, ids, (sets or {}).get(one.set))
    return made


def _bring(store: Sittings, class_id: UUID, part: SittingPart, ids: Mapping[str, UUID], set_id: UUID | None) -> None:
    questions = [
        {"source": one.problem, "target": one.to, "ways": one.ways, "points": one.marks, "labels": part.labels}
        for one in part.questions
    ]
    sitting = store.bring(class_id, part.title, questions, date.fromisoformat(part.day), part.kind, set_id)
    entered = [
        Entered(ids[one.pupil.casefold()], one.problem - 1, one.written, one.word.model_dump(exclude_defaults=True))
        for one in part.answers
    ]
    if entered:
        store.enter(sitting.id, entered, made_by="file")
    if part.moves:
        store.move(sitting.id, {str(ids[one.pupil.casefold()]): one.codes for one in part.moves})
