"""Rows of the store -> documents of the API, worked by the core."""

from __future__ import annotations

import json
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import lru_cache

from pydantic import TypeAdapter

from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.summary import Summary, summary_of, unreadable_summary
from keen_slate.core.documents.view import working_view
from keen_slate.core.errors import CoreError
from keen_slate.core.grading.compare import other_ways
from keen_slate.core.grading.rungs import ALL_RUNGS
from keen_slate.core.ladders.climb import jump_between, stair
from keen_slate.core.searching.deadline import EndedEarlyError
from keen_slate.core.stories.any_text import read_any
from keen_slate.core.teaching import minutes
from keen_slate.core.teaching.fading import plan
from keen_slate.core.teaching.sentences import TeachersWords
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of, voice_of
from keen_slate.core.worked import Worked, work_text
from keen_slate.store import summaries
from keen_slate.store.models import Example, ExampleSet

from .given import fading_of, ways_of
from .schemas.sets import ExampleSummary, SetOut, SetSummary
from .schemas.working import ExampleView
from .session import begin_anew

SHOWN_ON_SHELF = 4
_SUMMARY = TypeAdapter(Summary)


def worked(example: Example, house: Mapping[str, str]) -> Worked:
    """The example in its ways: its own, else those of its set, else of the *house*. Raises `CoreError`."""
    return work_text(example.source, Ways.of(ways_of(example, house)), mark=".", target=example.target)


def example_json(example: Example, house: Mapping[str, str], layout: str | None = None) -> str:
    """An `ExampleOut`: the example with its whole working, in a *layout* of its own if one is named.

    Raises `CoreError`.
    """
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
    voice = voice_of(result.working.ways)
    view = ExampleView(
        working=working_view(result, TeachersWords(words_of_example, words_of_set), fading_of(fading), points),
        other_ways=[replace(way, name=voice.said(way.name)) for way in other_ways(result.working)],
    )
    return zlib.compress(view.model_dump_json().encode(), 1)


def set_out(
    example_set: ExampleSet, house: Mapping[str, str], history: tuple[str | None, str | None] = (None, None)
) -> SetOut:
    """A set with a summary of each example, and what undoing and doing again would do."""
    examples = summaries_of(example_set, house)
    undo, redo = history
    return SetOut(
        id=example_set.id,
        title=example_set.title,
        version=example_set.version,
        changed_at=example_set.changed_at,
        ways=example_set.ways,
        words=example_set.words,
        house=dict(house),
        note=example_set.note,
        objective=example_set.objective,
        standards=example_set.standards,
        lesson_minutes=example_set.lesson_minutes,
        seconds=sum(one.seconds for one in examples),
        place=example_set.place,
        show_address=f"/show/{example_set.teacher_id}/{example_set.show_key}" if example_set.show_key else None,
        undo=undo,
        redo=redo,
        examples=examples,
    )


def summaries_of(example_set: ExampleSet, house: Mapping[str, str]) -> list[ExampleSummary]:
    """What the ladder shows of each example, with what depends on those before it."""
    shown = shown_of(example_set, house)
    hides = plan([one.steps for one in shown])
    seconds = _seconds(example_set.examples, shown)
    befores = [None, *shown]
    return [
        _example_summary(example, one, before, hide, planned)
        for example, one, before, hide, planned in zip(
            example_set.examples, shown, befores, hides, seconds, strict=False
        )
    ]


def _example_summary(
    example: Example, shown: Summary, before: Summary | None, planned_hide: int, seconds: int
) -> ExampleSummary:
    harder = before is not None and before.rung is not None and shown.rung != before.rung
    return ExampleSummary(
        id=example.id,
        source=example.source,
        target=example.target,
        text=shown.text,
        spoken=shown.spoken,
        glyphs=list(shown.glyphs),
        rung=shown.rung,
        harder=shown.step_up if harder else None,
        mark=jump_between(before.footing if before else None, shown.footing),
        surprises=list(shown.surprises),
        ways=example.ways,
        words=example.words,
        note=example.note,
        fading=example.fading,
        marks=example.marks,
        steps=shown.steps,
        planned_hide=planned_hide,
        seconds=seconds,
        time_log=example.time_log,
        points=shown.points,
        unreadable=shown.unreadable,
    )


def _seconds(examples: Sequence[Example], shown: Sequence[Summary]) -> list[int]:
    own = [minutes.own_time([day["seconds"] for day in example.time_log]) for example in examples]
    return minutes.seconds([one.kind for one in shown], [one.steps + 1 for one in shown], own)


def shown_of(example_set: ExampleSet, house: Mapping[str, str]) -> list[Summary]:
    """The summary of each example of a set."""
    ways = {**house, **example_set.ways}
    return [_summary(example, {**ways, **example.ways}, house) for example in example_set.examples]


def _summary(example: Example, ways: Mapping[str, str], house: Mapping[str, str]) -> Summary:
    """The summary of an example worked in *ways*: as it is kept, or worked anew where something that it rests on has
    changed.
    """
    key = summaries.key_of(example, ways)
    kept = summaries.kept(example, key)
    if kept is not None:
        return _SUMMARY.validate_python(kept)
    begin_anew()  # a page of many examples gives each its own time
    shown, lasting = _worked_out(example, house)
    if lasting:
        summaries.remember(example, key, plainly(shown))
    return shown


def _worked_out(example: Example, house: Mapping[str, str]) -> tuple[Summary, bool]:
    """What is shown of an example, and whether it stays so: what only took too long may go better the next time."""
    try:
        return summary_of(worked(example, house), example.marks), True
    except CoreError as error:
        return unreadable_summary(example.source, error), not isinstance(error, EndedEarlyError)


def set_summary(example_set: ExampleSet, house: Mapping[str, str], classes: Sequence[str] = ()) -> SetSummary:
    """A set as the Shelf shows it; *classes* had it."""
    shown = shown_of(example_set, house)
    rungs = [one.rung for one in shown]
    ends = [rung for rung in rungs if rung][:: max(1, sum(map(bool, rungs)) - 1)]
    voice = voice_of(Ways.of(house))
    return SetSummary(
        id=example_set.id,
        title=example_set.title,
        changed_at=example_set.changed_at,
        examples=len(shown),
        first=[list(one.glyphs) for one in shown[:SHOWN_ON_SHELF]],
        rungs=list(dict.fromkeys(one.rung for one in shown if one.rung)),
        objective=example_set.objective,
        standards=example_set.standards,
        seconds=sum(_seconds(example_set.examples, shown)),
        stair=stair(rungs),
        climb=[voice.said(ALL_RUNGS[rung]) for rung in dict.fromkeys(ends)],
        shown_on=max([day["day"] for one in example_set.examples for day in one.time_log], default=None),
        classes=list(classes),
    )


def stored_text(typed: str, ways: Ways) -> str:
    """*typed*, read with the class's decimal mark, in the notation that is stored: with a point. Raises `CoreError`."""
    return read_any(typed, mark_of(ways)).text
