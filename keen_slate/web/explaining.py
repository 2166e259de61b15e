"""What a pupil wrote, explained; and the catalogue of misconceptions with an example each."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from uuid import UUID

from apiflask import APIBlueprint

from keen_slate.core.diagnosing.answers import diagnose as diagnosed
from keen_slate.core.diagnosing.catalogue import CatalogueEntry, catalogue
from keen_slate.core.diagnosing.estimates import judge_estimate
from keen_slate.core.diagnosing.lines import check as checked_lines
from keen_slate.core.documents.over_time import called
from keen_slate.core.documents.verdict import checked_view, estimate_view, verdict_view
from keen_slate.core.expressions.voice import Voice
from keen_slate.core.judging.beliefs import LIKELY
from keen_slate.core.sittings.judge import in_order
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.worked import work_text

from . import heavy, searches
from .desk import shelf
from .given import given
from .met import habits
from .over_time import year_of
from .schemas.explaining import (
    CatalogueOut,
    CheckedOut,
    CheckIn,
    DiagnoseIn,
    EntryOut,
    EstimateIn,
    EstimateOut,
    MendIn,
    MendOut,
    RevealsOut,
    RevealsQuery,
    VerdictOut,
)

blueprint = APIBlueprint("explaining", __name__, url_prefix="/api")


@blueprint.post("/diagnose")
@blueprint.input(DiagnoseIn)
@blueprint.output(VerdictOut)
def diagnose(json_data: DiagnoseIn) -> VerdictOut:
    """The verdict on one answer, as a pupil wrote it."""
    ways = Ways.of(json_data.ways)
    verdict = diagnosed(json_data.text, json_data.answer, ways, mark_of(ways), json_data.target)
    if json_data.set_id and len(verdict.explanations) > 1:
        with shelf() as mine:
            seen = habits(mine, json_data.set_id)
        codes = in_order([(one.rank, one.codes) for one in verdict.explanations], {}, seen)
        ordered = sorted(verdict.explanations, key=lambda one: codes.index(one.codes))
        verdict = replace(verdict, explanations=tuple(ordered))
    return VerdictOut(verdict_view(verdict, voice_of(ways)))


@blueprint.post("/estimate")
@blueprint.input(EstimateIn)
@blueprint.output(EstimateOut)
def judge(json_data: EstimateIn) -> EstimateOut:
    """The verdict on an estimate, as a pupil wrote it."""
    ways = Ways.of(json_data.ways)
    worked = work_text(json_data.text, ways, target=json_data.target)
    judged = judge_estimate(worked, json_data.estimate, mark_of(ways))
    return EstimateOut(verdict=judged and estimate_view(judged, voice_of(ways)))


@blueprint.post("/check")
@blueprint.input(CheckIn)
@blueprint.output(CheckedOut)
def check(json_data: CheckIn) -> CheckedOut:
    """A written working, judged line by line."""
    ways = Ways.of(json_data.ways)
    checked = checked_lines(json_data.text, json_data.lines, ways, mark_of(ways))
    return CheckedOut(checked_view(checked, voice_of(ways)))


@blueprint.get("/misconceptions")
@blueprint.output(CatalogueOut)
def misconceptions() -> CatalogueOut:
    """The whole catalogue, with an example each that is worked by the same code."""
    with shelf() as mine:
        voice = voice_of(Ways.of(mine.house_ways()))
    return CatalogueOut(entries=[_entry(shown, voice) for shown in catalogue()])


def _entry(shown: CatalogueEntry, voice: Voice) -> EntryOut:
    working = shown.worked.working
    return EntryOut(
        code=shown.entry.code,
        name=voice.said(shown.entry.name),
        reason=voice.said(shown.entry.reason),
        question=voice.said(shown.entry.question),
        family=voice.said(shown.family),
        often=shown.entry.often,
        problem=working.problem.text,
        problem_glyphs=voice.glyphs(working.problem.expr),
        answer_glyphs=voice.glyphs(shown.likely.wrong.answer, ("wrong",)),
        right_glyphs=voice.glyphs(working.answer),
        line_glyphs=[voice.typeset(line) for line in shown.likely.wrong.lines],
    )


@blueprint.post("/mend")
@blueprint.input(MendIn)
@blueprint.output(MendOut)
def mend(json_data: MendIn) -> MendOut:
    """The nearest problem that shows a misconception, or tells two apart."""
    asked = json_data
    return MendOut(heavy.run(searches.mend, asked.text, asked.ways, asked.code, asked.apart_from))


@blueprint.get("/sets/<uuid:set_id>/reveals")
@blueprint.input(RevealsQuery, location="query")
@blueprint.output(RevealsOut)
def reveals(set_id: UUID, query_data: RevealsQuery) -> RevealsOut:
    """What the examples of a set reveal together; those that cannot be worked are left out.

    For a class, what it holds comes first.
    """
    with shelf() as mine:
        example_set, house = mine.one_set(set_id), mine.house_ways()
        year = year_of(mine, query_data.class_id) if query_data.class_id else None
        held = year.over.held if year else None
    found = heavy.run(searches.reveals, example_set.title, given(example_set, house), {**house, **example_set.ways})
    if year is not None and held is not None:
        holders = Counter(one.code for mine in held.beliefs.values() for one in mine if one.belief >= LIKELY)
        for row in found.rows:
            row.holders = holders[row.code]
        found.rows.sort(key=lambda row: -(row.holders or 0))
        shown = {row.code for row in found.rows}
        found.not_shown = [called(code, year.voice) for code, _ in holders.most_common() if code not in shown]
    return found
