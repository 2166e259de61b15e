"""Rows of the store -> documents of the API, worked by the core."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from keen_slate.core.compare import other_ways
from keen_slate.core.document import TeachersWords, Worked, in_words, mark_of, work_text, working_view
from keen_slate.core.errors import CoreError
from keen_slate.core.reading import read
from keen_slate.core.rungs import RUNGS
from keen_slate.core.vocabulary import saying
from keen_slate.core.ways import CODES, NAMES, TITLES, Ways
from keen_slate.core.wording import Glyph, glyphs, words
from keen_slate.store.models import Example, ExampleSet

SHOWN_ON_SHELF = 4


def worked(example: Example, house: Mapping[str, str]) -> Worked:
    """The example in its ways: its own, else those of its set, else of the *house*. Raises `CoreError`."""
    ways = Ways.of({**house, **example.example_set.ways, **example.ways})
    return work_text(example.source, ways, mark=".", target=example.target)


def example_out(example: Example, house: Mapping[str, str]) -> dict[str, Any]:
    """An example with its whole working. Raises `CoreError`."""
    result = worked(example, house)
    sentences = TeachersWords(example.words, example.example_set.words)
    say = saying(result.working.ways)
    ways = [asdict(way) | {"name": say(way.name)} for way in other_ways(result.working)]
    return {"id": example.id, "working": working_view(result, sentences), "other_ways": ways}


def set_out(found: ExampleSet, house: Mapping[str, str]) -> dict[str, Any]:
    """A set with a summary of each example."""
    summaries: list[dict[str, Any]] = []
    for example in found.examples:
        before = summaries[-1]["rung"] if summaries else None
        summaries.append(_summary(example, house, before))
    return {
        "id": found.id,
        "title": found.title,
        "version": found.version,
        "changed_at": found.changed_at,
        "ways": found.ways,
        "words": found.words,
        "house": dict(house),
        "examples": summaries,
    }


def _summary(example: Example, house: Mapping[str, str], rung_before: str | None) -> dict[str, Any]:
    stored = {
        "id": example.id,
        "source": example.source,
        "target": example.target,
        "ways": example.ways,
        "words": example.words,
    }
    try:
        result = worked(example, house)
    except CoreError as error:
        # A text that an older or newer version could read is shown as it is, never dropped.
        pieces: list[Glyph] = [{"kind": "words", "text": example.source}]
        return stored | {
            "text": example.source, "spoken": example.source, "glyphs": pieces, "rung": None, "harder": None, "surprises": [],
            "unreadable": error.message,
        }  # fmt: skip
    rung = result.features.rung
    working = result.working
    say = saying(working.ways)
    return stored | {
        "text": say(working.problem.text),
        "spoken": words(working.problem.expr),
        "glyphs": in_words(glyphs(working.problem.expr), say),
        "rung": rung,
        "harder": say(RUNGS[rung]) if rung and rung_before and rung != rung_before else None,
        "surprises": [say(sentence) for sentence in result.surprises],
        "unreadable": None,
    }


def set_summary(found: ExampleSet, house: Mapping[str, str]) -> dict[str, Any]:
    """A set as the Shelf shows it."""
    summaries = set_out(found, house)["examples"]
    rungs = list(dict.fromkeys(summary["rung"] for summary in summaries if summary["rung"]))
    return {
        "id": found.id,
        "title": found.title,
        "changed_at": found.changed_at,
        "examples": len(summaries),
        "first": [summary["glyphs"] for summary in summaries[:SHOWN_ON_SHELF]],
        "rungs": rungs,
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
