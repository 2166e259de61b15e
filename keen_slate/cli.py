"""The core from the command line: documents out, errors as objects. Needs no server and no database."""

from __future__ import annotations

import argparse
import json
import os
import sys
from collections.abc import Iterator, Sequence
from io import TextIOWrapper
from typing import Any, BinaryIO

from keen_slate.core.document import Worked, work_text, working_document
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.methods.single import TARGETS
from keen_slate.core.vocabulary import saying
from keen_slate.core.ways import CODES, Ways
from keen_slate.core.wording import plain, text

UNREADABLE = 2


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit status."""
    parser = argparse.ArgumentParser(prog="slate", description="Worked examples from the command line.")
    commands = parser.add_subparsers(dest="command", required=True)
    work = commands.add_parser("work", help="work a problem")
    work.add_argument("problem", nargs="?", help="like '7 1/4 - 3 5/6'")
    work.add_argument("--json", action="store_true", help="write the document as JSON")
    work.add_argument("--lines", action="store_true", help="work one problem a line from standard input (JSON Lines)")
    work.add_argument("--to", choices=TARGETS, metavar="FORM", help=f"convert a single number: {', '.join(TARGETS)}")
    work.add_argument("--set", action="append", default=[], metavar="NAME=CODE", help=f"a setting: {', '.join(CODES)}")
    given = list(sys.argv[1:] if arguments is None else arguments)
    known = parser.parse_args(_shield_problem(given))
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, TextIOWrapper):
            stream.reconfigure(encoding="utf-8", errors="backslashreplace")
    try:
        return _work(known, work)
    except BrokenPipeError:  # whoever reads the lines has enough of them
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except CoreError as error:
        _report(error)
        return UNREADABLE


def _shield_problem(arguments: list[str]) -> list[str]:
    """Put a problem that begins with a minus sign behind "--", where it is not taken for an option."""
    if "--" in arguments:
        return arguments
    problems = [
        a for i, a in enumerate(arguments) if _is_negative_problem(a) and arguments[i - 1] not in ("--set", "--to")
    ]
    if not problems:
        return arguments
    return [a for a in arguments if a not in problems] + ["--", *problems]


def _is_negative_problem(argument: str) -> bool:
    return argument.startswith("-") and not argument.startswith("--") and argument not in ("-h",)


def _work(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    ways = Ways.of(dict(_setting(pair) for pair in known.set))
    if known.lines:
        if known.problem is not None:
            parser.error("--lines reads the problems from standard input; leave the problem out")
        _work_lines(sys.stdin.buffer, ways, known.to)
        return 0
    if known.problem is None:
        parser.error("a problem is missing, like '7 1/4 - 3 5/6'")
    worked = work_text(known.problem, ways, target=known.to)
    print(_json(working_document(worked)) if known.json else readable(worked))
    return 0


def _setting(pair: str) -> tuple[str, str]:
    name, equals, code = pair.partition("=")
    if not equals:
        raise ReadError(f"--set {pair} has no equals sign.", 0, len(pair), "Write --set NAME=CODE.")
    return name, code


def _json(document: dict[str, Any]) -> str:
    return json.dumps(document, ensure_ascii=False)


def _report(error: CoreError) -> None:
    print(_json({"error": error.as_dict()}), file=sys.stderr)


def _work_lines(source: BinaryIO, ways: Ways, target: str | None) -> None:
    for line in _lines(source):
        print(_json(_document_or_error(line, ways, target)), flush=True)


def _lines(source: BinaryIO) -> Iterator[bytes]:
    """The lines of *source* without their ends (LF or CR LF), as they come."""
    for line in source:
        yield line.removesuffix(b"\n").removesuffix(b"\r")


def _document_or_error(line: bytes, ways: Ways, target: str | None) -> dict[str, Any]:
    try:
        return working_document(work_text(line.decode("utf-8"), ways, target=target))
    except UnicodeDecodeError as error:
        refusal = ReadError("The line is not UTF-8 text.", error.start, 1, "Save the file as UTF-8.")
        return {"error": refusal.as_dict()}
    except CoreError as error:
        return {"error": error.as_dict()}


def readable(worked: Worked) -> str:
    """The working as text for a person: problem, steps with their jottings, answer, estimate, wrong answers."""
    working = worked.working
    lines = [working.problem.text, ""]
    for step in working.steps:
        lines.append(f"  = {text(step.after):<28} {plain(step.title)}")
        lines += [f"      {plain(rich)}" for rich in step.lines]
    lines += ["", f"Answer: {working.answer_text}", f"Estimate: {worked.estimate.sentence}"]
    if worked.found:
        lines += ["", "They may write:"]
        lines += [f"  {text(found.wrong.answer):<10} {found.entry.name} ({found.status})" for found in worked.found]
    if worked.surprises:
        lines += ["", *worked.surprises]
    return saying(working.ways)("\n".join(lines))


if __name__ == "__main__":
    sys.exit(main())
