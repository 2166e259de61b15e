"""Pictures of an example as SVG files: of its steps, and of what shows a wrong answer to be wrong."""

from __future__ import annotations

from uuid import UUID

from apiflask import APIBlueprint, HTTPError
from flask import Response

from keen_slate.core.documents.figure import exposure_of, figure_view, picture_of
from keen_slate.core.documents.wrong import wrong_lines
from keen_slate.core.figures.display import Figure
from keen_slate.core.figures.svg import svg
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of

from .desk import shelf
from .schemas.working import ExposingOut
from .views import worked

blueprint = APIBlueprint("pictures", __name__, url_prefix="/api/sets/<uuid:set_id>/examples/<uuid:example_id>")


@blueprint.get("/steps/<int:index>/picture.svg")
@blueprint.doc(hide=True)
def step_picture(set_id: UUID, example_id: UUID, index: int) -> Response:
    """The picture of a step, of the kind that its teacher chose, in both its states."""
    with shelf() as mine:
        example = mine.example(set_id, example_id)
        result = worked(example, mine.house_ways())
        words = TeachersWords(example.words, example.example_set.words)
        return _file(picture_of(result.working, index, words), result.working.ways)


@blueprint.get("/misconceptions/<code>/picture")
@blueprint.output(ExposingOut)
def exposing_figure(set_id: UUID, example_id: UUID, code: str) -> ExposingOut:
    """How somebody comes to a likely wrong answer, line by line, and the picture that shows why it is wrong; null where
    there is none.
    """
    with shelf() as mine:
        result = worked(mine.example(set_id, example_id), mine.house_ways())
        figure = exposure_of(result, code)
        drawn = figure_view(figure, voice_of(result.working.ways)) if figure else None
        return ExposingOut(figure=drawn, lines=[list(line) for line in wrong_lines(result, code)])


@blueprint.get("/misconceptions/<code>/picture.svg")
@blueprint.doc(hide=True)
def exposing_picture(set_id: UUID, example_id: UUID, code: str) -> Response:
    """The picture that shows why a likely wrong answer is wrong."""
    with shelf() as mine:
        result = worked(mine.example(set_id, example_id), mine.house_ways())
        return _file(exposure_of(result, code), result.working.ways)


def _file(figure: Figure | None, ways: Ways) -> Response:
    if figure is None:
        raise HTTPError(404, "There is no such picture.")
    return Response(svg(figure, "both", voice_of(ways)), mimetype="image/svg+xml")
