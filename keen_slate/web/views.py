"""Rows of the store -> documents of the API, worked by the core."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from keen_slate.core import minutes
from keen_slate.core.compare import other_ways
from keen_slate.core.document import TeachersWords, Worked, in_words, mark_of, step_keys, work_text, working_view
from keen_slate.core.errors import CoreError
from keen_slate.core.fading import Fading, plan
from keen_slate.core.ladders.climb import mark_between
from keen_slate.core.marks import marks
from keen_slate.core.reading import read
from keen_slate.core.rungs import RUNGS
from keen_slate.core.vocabulary import saying
from keen_slate.core.ways import CODES, NAMES, TITLES, Ways
from keen_slate.core.wording import Glyph, glyphs, words
from keen_slate.store.history import EXAMPLE_FIELDS
from keen_slate.store.models import Example, ExampleSet

SHOWN_ON_SHELF = 4


def worked(example: Example, house: Mapping[str, str], first: Mapping[str, str] | None = None) -> Worked:
    """The example in its ways: *first*, its own, else those of its set, else of the *house*. Raises `CoreError`."""
    ways = Ways.of({**house, **example.example_set.ways, **example.ways, **(first or {})})
    return work_text(example.source, ways, mark=".", target=example.target)


def all_worked(found: ExampleSet, house: Mapping[str, str]) -> list[Worked]:
    """The examples of a set that can be worked, worked."""
    return [one for _, one in each_worked(found, house)]


def each_worked(found: ExampleSet, house: Mapping[str, str]) -> list[tuple[Example, Worked]]:
    """The examples of a set that can be worked, each with its working."""
    done = []
    for example in found.examples:
        try:
            done.append((example, worked(example, house)))
        except CoreError:
            continue
    return done


def example_out(example: Example, house: Mapping[str, str], layout: str | None = None) -> dict[str, Any]:
    """An example with its whole working, in a *layout* of its own if one is named. Raises `CoreError`."""
    result = worked(example, house, {"layout": layout} if layout else {})
    sentences = TeachersWords(example.words, example.example_set.words)
    say = saying(result.working.ways)
    ways = [asdict(way) | {"name": say(way.name)} for way in other_ways(result.working)]
    view = working_view(result, sentences, fading_of(example), example.marks)
    return {"id": example.id, "working": view, "other_ways": ways}


def fading_of(example: Example) -> Fading:
    """What of an example pupils fill in."""
    stored = example.fading
    return Fading(stored.get("hide", 0), frozenset(stored.get("blanks", ())), stored.get("pause"))


def set_out(
    found: ExampleSet, house: Mapping[str, str], history: tuple[str | None, str | None] = (None, None)
) -> dict[str, Any]:
    """A set with a summary of each example, and what undoing and doing again would do."""
    summaries = summaries_of(found, house)
    undo, redo = history
    return {
        "note": found.note,
        "objective": found.objective,
        "standards": found.standards,
        "lesson_minutes": found.lesson_minutes,
        "seconds": sum(summary["seconds"] for summary in summaries),
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
        "examples": summaries,
    }


def summaries_of(found: ExampleSet, house: Mapping[str, str]) -> list[dict[str, Any]]:
    """A summary of each example, with what depends on those before it."""
    summaries: list[dict[str, Any]] = []
    kinds = []
    for example in found.examples:
        summary, kind = _summary(example, house)
        before = summaries[-1]["rung"] if summaries else None
        rung = summary["rung"]
        summary["harder"] = summary["step_up"] if before and rung != before else None
        summary["mark"] = mark_between(before, rung)
        summaries.append(summary)
        kinds.append(kind)
    hides = plan([summary["steps"] for summary in summaries])
    own = [minutes.own_time([day["seconds"] for day in example.time_log]) for example in found.examples]
    seconds = minutes.seconds(kinds, [summary["steps"] + 1 for summary in summaries], own)
    for summary, hide, planned in zip(summaries, hides, seconds, strict=True):
        summary |= {"planned_hide": hide, "seconds": planned}
    return summaries


def _summary(example: Example, house: Mapping[str, str]) -> tuple[dict[str, Any], str]:
    stored = {"id": example.id, "time_log": example.time_log} | {
        name: getattr(example, name) for name in EXAMPLE_FIELDS
    }
    try:
        result = worked(example, house)
    except CoreError as error:
        # A text that an older or newer version could read is shown as it is, never dropped.
        pieces: list[Glyph] = [{"kind": "words", "text": example.source}]
        unread: dict[str, Any] = {
            "text": example.source, "spoken": example.source, "glyphs": pieces, "rung": None, "step_up": None, "surprises": [],
            "steps": 0, "points": 0, "unreadable": error.message,
        }  # fmt: skip
        return stored | unread, ""
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
    }
    return stored | shown, working.problem.kind


def set_summary(found: ExampleSet, house: Mapping[str, str]) -> dict[str, Any]:
    """A set as the Shelf shows it."""
    summaries = summaries_of(found, house)
    rungs = list(dict.fromkeys(summary["rung"] for summary in summaries if summary["rung"]))
    return {
        "id": found.id,
        "title": found.title,
        "changed_at": found.changed_at,
        "examples": len(summaries),
        "first": [summary["glyphs"] for summary in summaries[:SHOWN_ON_SHELF]],
        "rungs": rungs,
        "objective": found.objective,
        "standards": found.standards,
        "seconds": sum(summary["seconds"] for summary in summaries),
    }


def stored_text(typed: str, ways: Ways) -> str:
    """*typed*, read with the class's decimal mark, in the notation that is stored: with a point. Raises `CoreError`."""
    return read(typed, mark_of(ways)).text


def ways_out(house: Mapping[str, str]) -> dict[str, Any]:
    """Every setting with a choice, and the ways of the *house*."""
    settings = [
        {"name": name, "title": title, "codes": [{"code": code, "name": NAMES[name, code]} for code in CODES[name]]}
        for name, title in TITLES.items()
    ]
    return {"settings": settings, "house": dict(house)}
