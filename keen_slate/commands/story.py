"""Stories from the command line: one that is typed, or a set made to order."""

from __future__ import annotations

import argparse
from typing import Any

from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.story import made_document, published, understood_document
from keen_slate.core.ladders.impossible import Impossible
from keen_slate.core.ladders.stories import make_stories
from keen_slate.core.ladders.story_wish import read_story_wish
from keen_slate.core.stories.calculation import split_source
from keen_slate.core.stories.reading import as_problem, understand
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of
from keen_slate.core.worked import work_out

from .given import add_json, add_settings, read_json, ways_of
from .said import IMPOSSIBLE, NotUnderstoodError, as_json


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `story`."""
    command.add_argument(
        "problem", nargs="?", metavar="TEXT", help="like 'A plank is 3 m long. ... How long is the rest?'"
    )
    add_json(command)
    command.add_argument("--expression", metavar="CALCULATION", help="how it is worked, like '3 1/4 - 1 2/3'")
    command.add_argument(
        "--make",
        metavar="FILE",
        help="make stories to order: JSON with rungs, situations, a scenario (- for standard input)",
    )
    add_settings(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Read a story, or make some. Raises `CoreError`."""
    ways = ways_of(known)
    if known.make is not None:
        return _make(known, ways)
    if known.problem is None:
        parser.error("a story is missing, or --make FILE")
    source = known.problem
    if known.expression is not None:
        source = f"{split_source(source)[0]} {{{known.expression}}}"
    found = understand(source, mark_of(ways))
    if found.reading is None:
        assert found.refusal is not None, "what is not read is refused"
        raise NotUnderstoodError(found.refusal, understood_document(found))
    reading = found.reading
    worked = work_out(as_problem(reading.story), ways)
    document = published(worked, reading)
    if known.json:
        print(as_json(document))
        return 0
    print("\n".join(_lines(document)))
    return 0


def _lines(document: dict[str, Any]) -> list[str]:
    certain = "" if document["certain"] else " (not certain)"
    lines = [document["text"], "", f"{document['situation']}, {document['unknown']} unknown{certain}"]
    for step, working in zip(document["steps"], document["working"], strict=True):
        lines.append(f"  {step['finds']}: {step['problem']}")
        lines += [f"      = {one['after']:<26} {one['title']}" for one in working["steps"]]
    lines += ["", document["answer"]["text"] if document["answer"] else document["doubts"][0]["message"]]
    lines += [f"  or {one['situation']}, {one['unknown']}: {one['calculation']}" for one in document["readings"][1:]]
    return lines


def _make(known: argparse.Namespace, ways: Ways) -> int:
    given = read_json(known.make, "The wish for stories is", 'Begin with {"rungs": {"S1": 2}}.')
    made = make_stories(read_story_wish(given, ways))
    if isinstance(made, Impossible):
        print(as_json({"impossible": {"limit": made.limit, "nearest": made.nearest}}))
        return IMPOSSIBLE
    if known.json:
        print(as_json(plainly(made_document(made))))
        return 0
    for worked in made.stories:
        print(f"{worked.features.rung}  {worked.working.problem.text}")
    return 0
