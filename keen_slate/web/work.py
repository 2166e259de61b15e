"""Work one problem that is not in any set: what the entry line shows as it is typed."""

from __future__ import annotations

from typing import Any

from apiflask import APIBlueprint

from keen_slate.core.documents.view import in_words, working_view
from keen_slate.core.expressions.typeset import glyphs
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.vocabulary import saying
from keen_slate.core.worked import answers_from, work_text

from .schemas import AnswersIn, AnswersOut, PreviewIn, PreviewOut, WorkIn, WorkingOut

blueprint = APIBlueprint("work", __name__, url_prefix="/api")


@blueprint.post("/work")
@blueprint.input(WorkIn)
@blueprint.output(WorkingOut)
def work_one(json_data: WorkIn) -> dict[str, Any]:
    """Work one problem."""
    return working_view(work_text(json_data.text, Ways.of(json_data.ways), target=json_data.target))


@blueprint.post("/preview")
@blueprint.input(PreviewIn)
@blueprint.output(PreviewOut)
def preview(json_data: PreviewIn) -> dict[str, Any]:
    """A problem as it is typed: how it is read, and what may surprise. One that cannot be worked is refused."""
    worked = work_text(json_data.text, Ways.of(json_data.ways))
    working = worked.working
    say = saying(working.ways)
    return {
        "glyphs": in_words(glyphs(working.problem.expr, working.problem_roles), say),
        "surprises": [say(sentence) for sentence in worked.surprises],
    }


@blueprint.post("/answers")
@blueprint.input(AnswersIn)
@blueprint.output(AnswersOut)
def more_answers(json_data: AnswersIn) -> dict[str, Any]:
    """Further answers of a problem with blank numerators, from the one whose number is asked for."""
    found = answers_from(json_data.text, Ways.of(json_data.ways), json_data.start)
    return {"answer_glyphs": [glyphs(answer) for answer in found]}
