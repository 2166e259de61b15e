"""Work a problem from the command line, or one a line."""

from __future__ import annotations

import argparse
import sys
from dataclasses import replace
from typing import Any, BinaryIO

from keen_slate.core.documents.working import answer_text, problem_text, published
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.layouts.as_text import layout_text
from keen_slate.core.layouts.registry import LAYOUTS
from keen_slate.core.layouts.rows import lead
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import Worked, work_text
from keen_slate.core.working.methods.single import TARGETS

from .given import add_json, add_settings, read_lines, ways_of
from .said import as_json


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `work`."""
    command.add_argument("problem", nargs="?", help="like '7 1/4 - 3 5/6'")
    add_json(command)
    command.add_argument(
        "--lines", action="store_true", help="work one problem a line from standard input (JSON Lines)"
    )
    command.add_argument(
        "--layout", choices=tuple(LAYOUTS), metavar="CODE", help=f"draw it in characters: {', '.join(LAYOUTS)}"
    )
    command.add_argument("--to", choices=TARGETS, metavar="FORM", help=f"convert a single number: {', '.join(TARGETS)}")
    add_settings(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Work what was given. Raises `CoreError`."""
    ways = ways_of(known)
    if known.lines:
        if known.problem is not None:
            parser.error("--lines reads the problems from standard input; leave the problem out")
        _work_lines(sys.stdin.buffer, ways, known.to)
        return 0
    if known.problem is None:
        parser.error("a problem is missing, like '7 1/4 - 3 5/6'")
    worked = work_text(known.problem, replace(ways, layout=known.layout) if known.layout else ways, target=known.to)
    if known.layout:
        print("\n".join(layout_text(worked.working, voice_of(ways))))
        return 0
    print(as_json(published(worked)) if known.json else readable(worked))
    return 0


def _work_lines(source: BinaryIO, ways: Ways, target: str | None) -> None:
    for line in read_lines(source):
        print(as_json(_document_or_error(line, ways, target)), flush=True)


def _document_or_error(line: bytes, ways: Ways, target: str | None) -> dict[str, Any]:
    try:
        return published(work_text(line.decode("utf-8"), ways, target=target))
    except UnicodeDecodeError as error:
        refusal = ReadError("The line is not UTF-8 text.", error.start, 1, "Save the file as UTF-8.")
        return {"error": refusal.as_dict()}
    except CoreError as error:
        return {"error": error.as_dict()}


def readable(worked: Worked) -> str:
    """The working as text for a person, in the class's words: problem, steps with jottings, answer, estimate, wrong
    answers.
    """
    working = worked.working
    voice = voice_of(working.ways)
    lines = [problem_text(working, voice), ""]
    for i, step in enumerate(working.steps):
        before = {"": "", "=": "= ", "_=": "_ = "}[lead(working, i).strip()]
        lines.append(f"  {before}{voice.text(step.after):<28} {voice.plain(step.title)}")
        lines += [f"      {voice.plain(rich)}" for rich in step.lines]
    lines += ["", f"Answer: {answer_text(working, voice)}"]
    if worked.estimate:
        lines.append(f"Estimate: {voice.plain(worked.estimate.sentence)}")
    if len(working.answers) > 1:
        shown = len(working.answers)
        some = f"The first {shown}" if shown != working.count else f"All {shown}"
        lines += ["", f"{some} answers:", *[f"  {voice.text(a)}" for a in working.answers]]
    if worked.likely:
        lines += ["", "They may write:"]
        lines += [f"  {voice.text(w.wrong.answer):<10} {voice.said(w.entry.name)} ({w.status})" for w in worked.likely]
    if worked.surprises:
        lines += ["", *[voice.said(sentence) for sentence in worked.surprises]]
    return "\n".join(lines)
