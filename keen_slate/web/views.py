"""Rows of the store -> documents of the API, worked by the core."""

from __future__ import annotations

import json
import zlib
from collections.abc import Mapping
from dataclasses import asdict
from functools import lru_cache
from typing import Any

from keen_slate.core.documents.view import TeachersWords, in_words, working_view
from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.spoken import words
from keen_slate.core.expressions.typeset import Glyph, glyphs
from keen_slate.core.grading.compare import other_ways
from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.ladders.climb import mark_between
from keen_slate.core.reading.reader import read
from keen_slate.core.searching.deadline import EndedEarlyError
from keen_slate.core.teaching import minutes
from keen_slate.core.teaching.fading import plan
from keen_slate.core.teaching.points import marks
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.vocabulary import mark_of, saying
from keen_slate.core.worked import Worked, work_text
from keen_slate.core.working.keys import step_keys
from keen_slate.store import summaries
from keen_slate.store.history import EXAMPLE_FIELDS
from keen_slate.store.models import Example, ExampleSet

from .given import fading_of, ways_of
from .schemas import ExampleView
from .session import begin_anew

SHOWN_ON_SHELF = 4


def worked(example: Example, house: Mapping[str, str], first: Mapping[str, str] | None = None) -> Worked:
    """The example in its ways: *first*, its own, else those of its set, else of the *house*. Raises `CoreError`."""
    ways = Ways.of({**ways_of(example, house), **(first or {})})
    return work_text(example.source, ways, mark=".", target=example.target)


def example_json(example: Example, house: Mapping[str, str], layout: str | None = None) -> str:
    """An `ExampleOut`: the example with its whole working, in a *layout* of its own if one is named. Raises `CoreError`."""
    ways = ways_of(example, house) | ({"layout": layout} if layout else {})
    asked = [
        example.source,
        example.target,
        ways,
        example.words,
        example.example_set.words,
        example.fading,
        example.marks,
    ]
    return f'{{"id":"{example.id}",{_view(json.dumps(asked, sort_keys=True))[1:]}'


# A view rests on nothing but what it is asked for; most are looked at several times. Compressed, one takes some 5 kB.
_MOST_VIEWS = 2000


def _view(asked: str) -> str:
    return zlib.decompress(_compressed_view(asked)).decode()


@lru_cache(maxsize=_MOST_VIEWS)
def _compressed_view(asked: str) -> bytes:
    source, target, ways, words_of_example, words_of_set, fading, points = json.loads(asked)
    result = work_text(source, Ways.of(ways), ".", target)
    say = saying(result.working.ways)
    view = ExampleView.model_validate({
        "working": working_view(result, TeachersWords(words_of_example, words_of_set), fading_of(fading), points),
        "other_ways": [asdict(way) | {"name": say(way.name)} for way in other_ways(result.working)],
    })  # fmt: skip
    return zlib.compress(view.model_dump_json().encode(), 1)


def set_out(
    found: ExampleSet, house: Mapping[str, str], history: tuple[str | None, str | None] = (None, None)
) -> dict[str, Any]:
    """A set with a summary of each example, and what undoing and doing again would do."""
    examples = summaries_of(found, house)
    undo, redo = history
    return {
        "note": found.note,
        "objective": found.objective,
        "standards": found.standards,
        "lesson_minutes": found.lesson_minutes,
        "seconds": sum(summary["seconds"] for summary in examples),
        "place": found.place,
        "show_address": f"/show/{found.teacher_id}/{found.show_key}" if found.show_key else None,
        "undo": undo,
        "redo": redo,
        "id": found.id,
        "title": found.title,
        "version": found.version,
        "changed_at": found.changed_at,
        "ways": found.ways,
        "words": found.words,
        "house": dict(house),
        "examples": examples,
    }


def summaries_of(found: ExampleSet, house: Mapping[str, str]) -> list[dict[str, Any]]:
    """A summary of each example, with what is stored of it."""
    return [
        {"id": example.id, "time_log": example.time_log} | {name: getattr(example, name) for name in EXAMPLE_FIELDS} | shown
        for example, shown in zip(found.examples, shown_of(found, house), strict=True)
    ]  # fmt: skip


def shown_of(found: ExampleSet, house: Mapping[str, str]) -> list[dict[str, Any]]:
    """What is shown of each example, with what depends on those before it."""
    ways = {**house, **found.ways}
    shown: list[dict[str, Any]] = []
    kinds = []
    for example in found.examples:
        summary = dict(_summary(example, {**ways, **example.ways}, house))
        before = shown[-1]["rung"] if shown else None
        rung = summary["rung"]
        summary["harder"] = summary["step_up"] if before and rung != before else None
        summary["mark"] = mark_between(before, rung)
        kinds.append(summary.pop("kind"))
        shown.append(summary)
    hides = plan([summary["steps"] for summary in shown])
    own = [minutes.own_time([day["seconds"] for day in example.time_log]) for example in found.examples]
    seconds = minutes.seconds(kinds, [summary["steps"] + 1 for summary in shown], own)
    for summary, hide, planned in zip(shown, hides, seconds, strict=True):
        summary |= {"planned_hide": hide, "seconds": planned}
    return shown


def _summary(example: Example, ways: Mapping[str, str], house: Mapping[str, str]) -> dict[str, Any]:
    """What is shown of an example worked in *ways*: as it is kept, or worked anew where something that it rests on has changed."""
    key = summaries.key_of(example, ways)
    shown = summaries.kept(example, key)
    if shown is None:
        begin_anew()  # a page of many examples gives each its own time
        shown, lasting = _worked_out(example, house)
        if lasting:
            summaries.remember(example, key, shown)
    return shown


def _worked_out(example: Example, house: Mapping[str, str]) -> tuple[dict[str, Any], bool]:
    """What is shown of an example, and whether it stays so: what only took too long may go better the next time."""
    try:
        result = worked(example, house)
    except CoreError as error:
        # A text that an older or newer version could read is shown as it is, never dropped.
        pieces: list[Glyph] = [{"kind": "words", "text": example.source}]
        unread: dict[str, Any] = {
            "text": example.source, "spoken": example.source, "glyphs": pieces, "rung": None, "step_up": None, "surprises": [],
            "steps": 0, "points": 0, "unreadable": error.message, "kind": "",
        }  # fmt: skip
        return unread, not isinstance(error, EndedEarlyError)
    rung = result.features.rung
    working = result.working
    say = saying(working.ways)
    shown = {
        "text": say(working.problem.text),
        "spoken": words(working.problem.expr),
        "glyphs": in_words(glyphs(working.problem.expr), say),
        "rung": rung,
        "step_up": say(RUNGS[rung]) if rung else None,
        "surprises": [say(sentence) for sentence in result.surprises],
        "steps": len(working.steps),
        "points": sum(mark.points for mark in marks(working, step_keys(working), example.marks)),
        "unreadable": None,
        "kind": working.problem.kind,
    }
    return shown, True


def set_summary(found: ExampleSet, house: Mapping[str, str]) -> dict[str, Any]:
    """A set as the Shelf shows it."""
    shown = shown_of(found, house)
    rungs = list(dict.fromkeys(summary["rung"] for summary in shown if summary["rung"]))
    return {
        "id": found.id,
        "title": found.title,
        "changed_at": found.changed_at,
        "examples": len(shown),
        "first": [summary["glyphs"] for summary in shown[:SHOWN_ON_SHELF]],
        "rungs": rungs,
        "objective": found.objective,
        "standards": found.standards,
        "seconds": sum(summary["seconds"] for summary in shown),
    }


def stored_text(typed: str, ways: Ways) -> str:
    """*typed*, read with the class's decimal mark, in the notation that is stored: with a point. Raises `CoreError`."""
    return read(typed, mark_of(ways)).text
