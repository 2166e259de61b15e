"""Stories from the command line: one that is typed, or a set made to order."""

from __future__ import annotations

import argparse
import json
from typing import Any

from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.story import made_document, published, understood_document
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.ladders.impossible import Impossible
from keen_slate.core.ladders.stories import make_stories
from keen_slate.core.ladders.story_wish import read_story_wish
from keen_slate.core.stories.calculation import split_source
from keen_slate.core.stories.reading import as_problem, understand
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import mark_of
from keen_slate.core.worked import work_out

from .json_file import read_json

IMPOSSIBLE = 3


class NotUnderstoodError(ReadError):
    """A story that cannot be understood, with what was understood of it so far."""

    def __init__(self, refusal: CoreError, understood: dict[str, Any]) -> None:
        super().__init__(refusal.message, refusal.position, refusal.length, refusal.hint)
        self.understood = understood


def add_options(story: argparse.ArgumentParser) -> None:
    """What may stand after `story`."""
    story.add_argument(
        "problem", nargs="?", metavar="TEXT", help="like 'A plank is 3 m long. ... How long is the rest?'"
    )
    story.add_argument("--json", action="store_true", help="write the document as JSON")
    story.add_argument("--expression", metavar="CALCULATION", help="how it is worked, like '3 1/4 - 1 2/3'")
    story.add_argument(
        "--make",
        metavar="FILE",
        help="make stories to order: JSON with rungs, situations, a scenario (- for standard input)",
    )


def run(known: argparse.Namespace, parser: argparse.ArgumentParser, ways: Ways) -> int:
    """Read a story, or make some. Raises `CoreError`."""
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
        print(json.dumps(document, ensure_ascii=False))
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
        print(json.dumps({"impossible": {"limit": made.limit, "nearest": made.nearest}}))
        return IMPOSSIBLE
    if known.json:
        print(json.dumps(plainly(made_document(made)), ensure_ascii=False))
        return 0
    for worked in made.stories:
        print(f"{worked.features.rung}  {worked.working.problem.text}")
    return 0
