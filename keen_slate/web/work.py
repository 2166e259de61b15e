"""Work one problem that is not in any set: what the entry line shows as it is typed."""

from __future__ import annotations

from apiflask import APIBlueprint

from keen_slate.core.documents.view import working_view
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import answers_from, work_text

from .schemas.working import AnswersIn, AnswersOut, PreviewIn, PreviewOut, WorkIn, WorkingOut

blueprint = APIBlueprint("work", __name__, url_prefix="/api")


@blueprint.post("/work")
@blueprint.input(WorkIn)
@blueprint.output(WorkingOut)
def work_one(json_data: WorkIn) -> WorkingOut:
    """Work one problem."""
    return WorkingOut(working_view(work_text(json_data.text, Ways.of(json_data.ways), target=json_data.target)))


@blueprint.post("/preview")
@blueprint.input(PreviewIn)
@blueprint.output(PreviewOut)
def preview(json_data: PreviewIn) -> PreviewOut:
    """A problem as it is typed: how it is read, what may surprise, how it is worked.

    One that cannot be worked is refused.
    """
    worked = work_text(json_data.text, Ways.of(json_data.ways))
    working = worked.working
    voice = voice_of(working.ways)
    return PreviewOut(
        glyphs=voice.glyphs(working.problem.expr, working.problem_roles),
        surprises=[voice.said(sentence) for sentence in worked.surprises],
        working=working_view(worked),
    )


@blueprint.post("/answers")
@blueprint.input(AnswersIn)
@blueprint.output(AnswersOut)
def more_answers(json_data: AnswersIn) -> AnswersOut:
    """Further answers of a problem with blank numerators, from the one whose number is asked for."""
    ways = Ways.of(json_data.ways)
    found = answers_from(json_data.text, ways, json_data.start)
    return AnswersOut(answer_glyphs=[voice_of(ways).glyphs(answer) for answer in found])
