"""Sets as files: our own JSON document and CSV out; a document, CSV or pasted lines in."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any
from uuid import UUID

from apiflask import APIBlueprint
from flask import Response, request

from keen_slate.core.limits import LARGEST_FILE
from keen_slate.export.docx import TYPE as DOCX_TYPE
from keen_slate.export.json_document import written
from keen_slate.export.notation import problem_latex, problem_mathml, working_latex, working_mathml
from keen_slate.export.odt import TYPE as ODT_TYPE
from keen_slate.export.packages import file_name
from keen_slate.export.set_document import ExamplePart, FadingPart, SetDocument, read_document
from keen_slate.export.workbook import TYPE as XLSX_TYPE
from keen_slate.export.workbook import refuse_large, table_in
from keen_slate.store.history import EXAMPLE_FIELDS
from keen_slate.store.models import Example, ExampleSet
from keen_slate.store.shelf import Shelf

from . import heavy, papers, searches, views
from .desk import shelf
from .door import teacher
from .given import GivenExample, given
from .handouts import typefaces
from .openapi import body_doc, file_body_doc, file_doc, reference
from .schemas.files import BroughtIn, BroughtOut, NotationOut, QtiQuery, TableOut, TextQuery
from .schemas.sets import SetOut
from .sets import set_view

blueprint = APIBlueprint("files", __name__, url_prefix="/api")
SET_FILE: Any = {
    200: {"description": "The document", "content": {"application/json": {"schema": reference("SetDocument")}}}
}


@blueprint.get("/sets/<uuid:set_id>/set.json")
@blueprint.doc(responses=SET_FILE)
def save(set_id: UUID) -> Response:
    """The set as a document that can be brought in again, here or elsewhere."""
    with shelf() as mine:
        example_set = mine.one_set(set_id)
        return download(written(document_of(example_set)), example_set.title, "json", "application/json")


@blueprint.get("/sets/<uuid:set_id>/problems.csv")
@blueprint.doc(responses=file_doc("text/csv"))
def save_table(set_id: UUID) -> Response:
    """Problems, answers and likely wrong answers; those that cannot be worked are left out."""
    return _table(set_id, ",", "csv", "text/csv")


@blueprint.get("/sets/<uuid:set_id>/problems.tsv")
@blueprint.doc(responses=file_doc("text/tab-separated-values"))
def save_tabbed_table(set_id: UUID) -> Response:
    """The same, parted by tabs."""
    return _table(set_id, "\t", "tsv", "text/tab-separated-values")


@blueprint.get("/sets/<uuid:set_id>/problems.xlsx")
@blueprint.doc(responses=file_doc(XLSX_TYPE))
def save_sheet(set_id: UUID) -> Response:
    """The same as a spreadsheet's own file, its problems in cells that stay text."""
    title, examples = _asked(set_id)
    return download(heavy.run(papers.sheet, examples), title, "xlsx", XLSX_TYPE)


@blueprint.post("/tables")
@blueprint.doc(extensions=file_body_doc(XLSX_TYPE))
@blueprint.output(TableOut)
def read_sheet() -> TableOut:
    """The table that a spreadsheet's own file holds, as text to be judged; nothing is stored by asking."""
    request.max_content_length = LARGEST_FILE
    file = request.get_data()
    refuse_large(file)
    return TableOut(text=heavy.run(table_in, file))


def _table(set_id: UUID, separator: str, suffix: str, kind: str) -> Response:
    title, examples = _asked(set_id)
    # The mark tells a spreadsheet that this is UTF-8.
    return download(("\ufeff" + heavy.run(papers.table, examples, separator)).encode(), title, suffix, kind)


@blueprint.get("/sets/<uuid:set_id>/set.odt")
@blueprint.input(TextQuery, location="query")
@blueprint.doc(responses=file_doc(ODT_TYPE))
def save_text(set_id: UUID, query_data: TextQuery) -> Response:
    """The set as an OpenDocument text with formulas."""
    return _text(set_id, papers.text_file, query_data, "odt", ODT_TYPE)


@blueprint.get("/sets/<uuid:set_id>/set.docx")
@blueprint.input(TextQuery, location="query")
@blueprint.doc(responses=file_doc(DOCX_TYPE))
def save_docx(set_id: UUID, query_data: TextQuery) -> Response:
    """The set as an Office Open XML text with equations."""
    return _text(set_id, papers.docx_text, query_data, "docx", DOCX_TYPE)


def _text(set_id: UUID, make: Callable[..., bytes], query: TextQuery, suffix: str, kind: str) -> Response:
    title, examples = _asked(set_id)
    faces = typefaces() if query.pictures else None
    return download(heavy.run(make, title, examples, teacher().name, faces, seconds=heavy.PAPER), title, suffix, kind)


@blueprint.get("/sets/<uuid:set_id>/set.md")
@blueprint.doc(responses=file_doc("text/markdown"))
def save_markdown(set_id: UUID) -> Response:
    """The set as Markdown with LaTeX, to be pasted elsewhere."""
    title, examples = _asked(set_id)
    return download(heavy.run(papers.pasted, title, examples).encode(), title, "md", "text/markdown")


@blueprint.get("/sets/<uuid:set_id>/qti.zip")
@blueprint.input(QtiQuery, location="query")
@blueprint.doc(responses=file_doc("application/zip"))
def save_items(set_id: UUID, query_data: QtiQuery) -> Response:
    """The set as a QTI package, an item for each example that can be one; with four options each, where asked for."""
    title, examples = _asked(set_id)
    made = heavy.run(papers.items, title, examples, query_data.to_choose, query_data.version)
    return download(made, f"{title}{' choices' if query_data.to_choose else ''}", "zip", "application/zip")


def _asked(set_id: UUID) -> tuple[str, list[GivenExample]]:
    with shelf() as mine:
        example_set = mine.one_set(set_id)
        return example_set.title, given(example_set, mine.house_ways())


@blueprint.get("/sets/<uuid:set_id>/examples/<uuid:example_id>/notation")
@blueprint.output(NotationOut)
def notation(set_id: UUID, example_id: UUID) -> NotationOut:
    """The problem and the whole working of an example in LaTeX and MathML."""
    with shelf() as mine:
        working = views.worked(mine.example(set_id, example_id), mine.house_ways()).working
    return NotationOut(
        problem_latex=problem_latex(working),
        problem_mathml=problem_mathml(working),
        working_latex=working_latex(working),
        working_mathml=working_mathml(working),
    )


@blueprint.post("/sets/bring")
@blueprint.doc(extensions=body_doc("SetDocument"))
@blueprint.output(SetOut, status_code=201)
def bring() -> SetOut:
    """A new set from a document; all of it or nothing."""
    # Somewhat larger files are read to the end, so that the refusal arrives; the page never sends them.
    request.max_content_length = 4 * LARGEST_FILE
    document = heavy.run(read_document, request.get_data(), seconds=heavy.FILE)
    with shelf() as mine:
        return set_view(mine, bring_set(mine, document))


def bring_set(mine: Shelf, document: SetDocument, **more: object) -> ExampleSet:
    """A new set on the shelf from a *document*; *more* are values of `SET_FIELDS` that stand in none."""
    fields = [_fields(example) for example in document.examples]
    known = ("objective", "standards", "note", "lesson_minutes", "ways", "words")
    about = {name: getattr(document, name) for name in known} | more
    return mine.add_set(document.title, fields, about=about)


@blueprint.post("/sets/<uuid:set_id>/judge")
@blueprint.input(BroughtIn)
@blueprint.output(BroughtOut)
def judge(set_id: UUID, json_data: BroughtIn) -> BroughtOut:
    """Lines of problems, judged one by one; nothing is stored by asking."""
    with shelf() as mine:
        example_set, house = mine.one_set(set_id), mine.house_ways()
    return BroughtOut(
        lines=heavy.run(searches.judge, json_data.text, given(example_set, house), {**house, **example_set.ways})
    )


def document_of(example_set: ExampleSet) -> SetDocument:
    """A set as its published document."""
    return SetDocument(
        format="keen-slate/set", version=1, title=example_set.title, objective=example_set.objective,
        standards=example_set.standards, note=example_set.note,
        lesson_minutes=example_set.lesson_minutes, ways=example_set.ways, words=example_set.words,
        examples=[_part(e) for e in example_set.examples],
    )  # fmt: skip


def _part(example: Example) -> ExamplePart:
    return ExamplePart(
        problem=example.source, to=example.target, ways=example.ways, words=example.words, note=example.note,  # type: ignore[arg-type]
        fading=FadingPart(**example.fading), marks=example.marks,
    )  # fmt: skip


def _fields(part: ExamplePart) -> dict[str, Any]:
    given = part.model_dump()
    fields = {"source": given.pop("problem"), "target": given.pop("to"), **given}
    return {name: fields[name] for name in EXAMPLE_FIELDS}


def download(content: bytes, title: str, suffix: str, kind: str) -> Response:
    """A file called after a *title*."""
    headers = {"Content-Disposition": f'attachment; filename="{file_name(title)}.{suffix}"'}
    return Response(content, mimetype=kind, headers=headers)
