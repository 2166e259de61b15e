"""What a pupil wrote, explained; and the catalogue of misconceptions with an example each."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any
from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core.diagnosing.answers import diagnose as diagnosed
from keen_slate.core.diagnosing.answers import verdict_document
from keen_slate.core.diagnosing.catalogue import catalogue
from keen_slate.core.diagnosing.faults import FAULTS, name_of
from keen_slate.core.diagnosing.lines import check as checked_lines
from keen_slate.core.documents.view import in_words
from keen_slate.core.expressions.sentences import typeset
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.vocabulary import mark_of, saying

from . import heavy, searches
from .desk import shelf
from .given import given
from .schemas import CatalogueOut, CheckedOut, CheckIn, DiagnoseIn, MendIn, MendOut, RevealsOut, VerdictOut

blueprint = APIBlueprint("explaining", __name__, url_prefix="/api")


@blueprint.post("/diagnose")
@blueprint.input(DiagnoseIn)
@blueprint.output(VerdictOut)
def diagnose(json_data: DiagnoseIn) -> dict[str, Any]:
    """The verdict on one answer, as a pupil wrote it."""
    ways = Ways.of(json_data.ways)
    say = saying(ways)
    mark = mark_of(ways)
    verdict = diagnosed(json_data.text, json_data.answer, ways, mark, json_data.target)
    document = verdict_document(verdict, say)
    for shown, one in zip(document["explanations"], verdict.explanations, strict=True):
        shown["names"] = [say(name_of(code)) for code in one.codes]
        shown["line_glyphs"] = [in_words(typeset(line), say) for line in one.lines]
    return document


@blueprint.post("/check")
@blueprint.input(CheckIn)
@blueprint.output(CheckedOut)
def check(json_data: CheckIn) -> dict[str, Any]:
    """A written working, judged line by line."""
    ways = Ways.of(json_data.ways)
    say = saying(ways)
    checked = asdict(checked_lines(json_data.text, json_data.lines, ways, mark_of(ways)))
    for line in checked["lines"]:
        line["names"] = [say(name_of(code)) for code in line["codes"]]
        line["fault_texts"] = [say(FAULTS[fault]) for fault in line["faults"]]
    return checked


@blueprint.get("/misconceptions")
@blueprint.output(CatalogueOut)
def misconceptions() -> dict[str, Any]:
    """The whole catalogue, with an example each that is worked by the same code."""
    with shelf() as mine:
        say = saying(Ways.of(mine.house_ways()))
    entries = [
        {
            "code": shown.entry.code,
            "name": say(shown.entry.name),
            "reason": say(shown.entry.reason),
            "question": say(shown.entry.question),
            "family": say(shown.family),
            "often": shown.entry.often,
            "problem_glyphs": glyphs(shown.worked.working.problem.expr),
            "answer_glyphs": glyphs(shown.found.wrong.answer, ("wrong",)),
            "right_glyphs": glyphs(shown.worked.working.answer),
            "line_glyphs": [in_words(typeset(line), say) for line in shown.found.wrong.lines],
        }
        for shown in catalogue()
    ]
    return {"entries": entries}


@blueprint.post("/mend")
@blueprint.input(MendIn)
@blueprint.output(MendOut)
def mend(json_data: MendIn) -> dict[str, Any]:
    """The nearest problem that shows a misconception, or tells two apart."""
    asked = json_data
    return heavy.run(searches.mend, asked.text, asked.ways, asked.code, asked.apart_from)


@blueprint.get("/sets/<uuid:set_id>/reveals")
@blueprint.output(RevealsOut)
def reveals(set_id: UUID) -> dict[str, Any]:
    """What the examples of a set reveal together; those that cannot be worked are left out."""
    with shelf() as mine:
        found, house = mine.one_set(set_id), mine.house_ways()
    return heavy.run(searches.reveals, found.title, given(found, house), {**house, **found.ways})
