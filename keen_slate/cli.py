"""The core from the command line: documents out, errors as objects. Needs no server and no database."""

from __future__ import annotations

import argparse
import csv
import json
import os
import sys
import time
from collections.abc import Iterator, Sequence
from dataclasses import asdict, replace
from io import TextIOWrapper
from typing import Any, BinaryIO

from keen_slate.core import ladders
from keen_slate.core.building.given import read_numbers, read_wanted
from keen_slate.core.building.search import build as build_number
from keen_slate.core.diagnosing.answers import diagnose as diagnosed
from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.diagnosing.estimates import judge_estimate
from keen_slate.core.diagnosing.faults import FORM_FAULTS
from keen_slate.core.diagnosing.lines import check as checked_lines
from keen_slate.core.documents.ladder import ladder_document
from keen_slate.core.documents.plain import plainly
from keen_slate.core.documents.verdict import ChoiceView, choice_views, estimate_view
from keen_slate.core.documents.verdict import published as published_verdict
from keen_slate.core.documents.working import answer_text, problem_text, published
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import mixed
from keen_slate.core.figures import choose
from keen_slate.core.figures.choose import FIGURE_KINDS
from keen_slate.core.figures.svg import STATES, svg
from keen_slate.core.layouts.as_text import layout_text
from keen_slate.core.layouts.registry import LAYOUTS
from keen_slate.core.layouts.rows import lead
from keen_slate.core.searching.deadline import until
from keen_slate.core.ways.settings import SETTINGS, Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import Worked, work_text
from keen_slate.core.working.methods.single import TARGETS
from keen_slate.core.working.proof import Working

from . import believe_command, story_command
from .json_file import read_json
from .story_command import IMPOSSIBLE

SECONDS = 10
UNREADABLE = 2


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit status."""
    parser = argparse.ArgumentParser(prog="slate", description="Worked examples from the command line.")
    commands = parser.add_subparsers(dest="command", required=True)
    work = commands.add_parser("work", help="work a problem")
    work.add_argument("problem", nargs="?", help="like '7 1/4 - 3 5/6'")
    work.add_argument("--json", action="store_true", help="write the document as JSON")
    work.add_argument("--lines", action="store_true", help="work one problem a line from standard input (JSON Lines)")
    work.add_argument(
        "--layout", choices=tuple(LAYOUTS), metavar="CODE", help=f"draw it in characters: {', '.join(LAYOUTS)}"
    )
    work.add_argument("--to", choices=TARGETS, metavar="FORM", help=f"convert a single number: {', '.join(TARGETS)}")
    figure = commands.add_parser("figure", help="draw a problem, or a step of its working, as SVG")
    figure.add_argument("problem", help="like '1/3 + 2/5'")
    figure.add_argument(
        "--kind",
        choices=tuple(FIGURE_KINDS),
        metavar="KIND",
        help=f"{', '.join(FIGURE_KINDS)}; the one that serves best if left out",
    )
    figure.add_argument(
        "--step", type=int, metavar="N", help="the picture of step N (from 1) in place of the problem's"
    )
    figure.add_argument(
        "--state", choices=STATES, default="both", metavar="STATE", help="before, after or both (default)"
    )
    build = commands.add_parser("build", help="build a number from others with + - × ÷, each used at most once")
    build.add_argument("numbers", help="like '3, 1/2, 0.25'")
    build.add_argument("wanted", help="the number to build")
    diagnose = commands.add_parser("diagnose", help="explain what a pupil answered")
    diagnose.add_argument("problem", nargs="?", help="like '7 1/4 - 3 5/6'")
    diagnose.add_argument("answer", nargs="?", help="as the pupil wrote it, like '4 7/12'")
    diagnose.add_argument("--json", action="store_true", help="write the document as JSON")
    diagnose.add_argument("--batch", metavar="FILE", help="CSV with the columns problem,answer (- for standard input)")
    guess = commands.add_parser("estimate", help="judge a pupil's estimate")
    guess.add_argument("problem", help="like '7 1/4 - 3 5/6'")
    guess.add_argument("estimate", help="as the pupil wrote it, like '3 1/2'")
    guess.add_argument("--json", action="store_true", help="write the document as JSON")
    options = commands.add_parser("choices", help="four options to choose from, one of them right")
    options.add_argument("problem", help="like '7 1/4 - 3 5/6'")
    options.add_argument("--json", action="store_true", help="write the document as JSON")
    check = commands.add_parser("check", help="check a written working, a line each from standard input")
    check.add_argument("problem", help="like '7 1/4 - 3 5/6'")
    check.add_argument("--json", action="store_true", help="write the document as JSON")
    ladder = commands.add_parser("ladder", help="build a set of problems to order")
    ladder.add_argument("spec", metavar="FILE", help="JSON: rungs, limits, targets (- for standard input)")
    ladder.add_argument("--json", action="store_true", help="write the document as JSON")
    story = commands.add_parser("story", help="work a problem told in words, or make some")
    story_command.add_options(story)
    holding = commands.add_parser("believe", help="what the pupils of a class hold, from what they wrote")
    believe_command.add_options(holding)
    for command in (ladder, build):
        command.add_argument(
            "--seconds", type=int, default=SECONDS, metavar="N", help=f"how long to search at most ({SECONDS})"
        )
    for command in (work, figure, diagnose, guess, options, check, story, holding):
        command.add_argument(
            "--set", action="append", default=[], metavar="NAME=CODE", help=f"a setting: {', '.join(SETTINGS)}"
        )
    given = list(sys.argv[1:] if arguments is None else arguments)
    known = parser.parse_args(_shield_problem(given))
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, TextIOWrapper):
            stream.reconfigure(encoding="utf-8", errors="backslashreplace")
    try:
        if known.command == "work":
            return _work(known, work)
        if known.command == "diagnose":
            return _diagnose(known, diagnose)
        if known.command == "believe":
            return believe_command.run(known, dict(_setting(pair) for pair in known.set))
        if known.command == "story":
            return story_command.run(known, story, Ways.of(dict(_setting(pair) for pair in known.set)))
        command_has_end = hasattr(known, "seconds")
        others = {
            "figure": _figure,
            "build": _build,
            "estimate": _estimate,
            "choices": _choices,
            "check": _check,
            "ladder": _ladder,
        }
        end = time.process_time() + getattr(known, "seconds", 0)
        with until(lambda: command_has_end and time.process_time() > end):
            return others[known.command](known)
    except BrokenPipeError:  # whoever reads the lines has enough of them
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except CoreError as error:
        _report(error)
        return UNREADABLE


# Options that are followed by a value.
_WITH_VALUE = ("--seconds", "--set", "--to", "--kind", "--step", "--state", "--batch", "--expression", "--make")


def _shield_problem(arguments: list[str]) -> list[str]:
    """Put what is typed behind "--" where it begins with a minus sign, so that it is not taken for an option."""
    if "--" in arguments or not any(_is_negative(argument) for argument in arguments):
        return arguments
    options: list[str] = []
    typed: list[str] = []
    for i, argument in enumerate(arguments):
        option = argument.startswith("--") or argument == "-h" or (i > 0 and arguments[i - 1] in _WITH_VALUE)
        (options if option else typed).append(argument)
    return [*typed[:1], *options, "--", *typed[1:]]


def _is_negative(argument: str) -> bool:
    return len(argument) > 1 and argument.startswith("-") and not argument.startswith("--") and argument != "-h"


def _work(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    ways = Ways.of(dict(_setting(pair) for pair in known.set))
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
    print(_json(published(worked)) if known.json else readable(worked))
    return 0


def _figure(known: argparse.Namespace) -> int:
    ways = Ways.of(dict(_setting(pair) for pair in known.set))
    working = work_text(known.problem, ways).working
    if known.step is None:
        figure = choose.of_problem(working, known.kind)
    elif 1 <= known.step <= len(working.steps):
        figure = choose.of_step(working.steps[known.step - 1], choose.Look.of(working), known.kind)
    else:
        raise ReadError(
            f"There is no step {known.step}.", 0, len(known.problem), f"The working has {len(working.steps)} steps."
        )
    if figure is None or (known.kind and figure.kind != known.kind):
        wanted = f"of {choose.FIGURE_KINDS[known.kind].name} " if known.kind else ""
        raise ReadError(
            f"No picture {wanted}can show this.",
            0,
            len(known.problem),
            _pictures_there(working),
        )
    sys.stdout.write(svg(figure, known.state, voice_of(ways)))
    return 0


def _pictures_there(working: Working) -> str:
    """Which pictures the problem and its steps have, by what asks for them."""
    look = choose.Look.of(working)
    problem = {figure.kind for kind in FIGURE_KINDS if (figure := choose.of_problem(working, kind)) is not None}
    there = [f"--kind {', '.join(sorted(problem))}"] if problem else []
    for i, step in enumerate(working.steps):
        kinds = choose.offered(choose.Seen.of(step, look))
        there += [f"--step {i + 1} --kind {', '.join(kinds)}"] if kinds else []
    return f"There are: {'; '.join(there)}." if there else "Neither it nor any of its steps has one."


def _diagnose(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    ways = Ways.of(dict(_setting(pair) for pair in known.set))
    if known.batch is not None:
        return _diagnose_batch(known.batch, ways)
    if known.answer is None:
        parser.error("a problem and an answer are needed, like '7 1/4 - 3 5/6' '4 7/12'")
    verdict = diagnosed(known.problem, known.answer, ways)
    if known.json:
        print(_json(published_verdict(verdict, voice_of(ways))))
        return 0
    voice = voice_of(ways)
    print(verdict.verdict + (f": {voice.said(FORM_FAULTS[verdict.form_fault])}" if verdict.form_fault else ""))
    for one in verdict.explanations:
        print(f"  {one.rank}. {' + '.join(one.codes)}: {voice.said(one.reason)}")
        for line in one.lines:
            print(f"       {voice.plain(line)}")
    return 0


def _diagnose_batch(name: str, ways: Ways) -> int:
    """Write the CSV *name* with the columns verdict and codes added; the order and all other columns stay."""
    try:
        source = sys.stdin if name == "-" else open(name, encoding="utf-8-sig", newline="")  # noqa: SIM115
        with source:
            rows = csv.reader(source)
            head = next(rows, [])
            if "problem" not in head or "answer" not in head:
                raise ReadError(
                    "The first line has to name the columns problem and answer.", 0, 0, "Begin with: problem,answer"
                )
            problem, answer = head.index("problem"), head.index("answer")
            out = csv.writer(sys.stdout, lineterminator="\n")
            out.writerow([*head, "verdict", "codes"])
            for row in rows:
                row += [""] * (len(head) - len(row))
                out.writerow([*row, *_judged(row[problem], row[answer], ways)])
    except OSError as error:
        raise ReadError(f"The file {name} cannot be read: {error.strerror}.", 0, len(name), "Check its name.") from None
    except (UnicodeDecodeError, csv.Error):
        raise ReadError(f"The file {name} is not CSV in UTF-8.", 0, len(name), "Save it as CSV, UTF-8.") from None
    return 0


def _judged(problem: str, answer: str, ways: Ways) -> tuple[str, str]:
    try:
        verdict = diagnosed(problem, answer, ways)
    except CoreError:
        return "problem-unreadable", ""
    explained = verdict.explanations if verdict.verdict == "explained" else ()
    return verdict.verdict, " ".join(["+".join(one.codes) for one in explained])


def _estimate(known: argparse.Namespace) -> int:
    ways = Ways.of(dict(_setting(pair) for pair in known.set))
    judged = judge_estimate(work_text(known.problem, ways, "."), known.estimate)
    if judged is None:
        raise ReadError(
            "Nothing is estimated here.",
            0,
            len(known.problem),
            "Type a problem that is calculated, like 7 1/4 - 3 5/6.",
        )
    shown = estimate_view(judged, voice_of(ways))
    print(_json(asdict(shown)) if known.json else f"{shown.verdict}: {shown.reason}")
    return 0


def _choices(known: argparse.Namespace) -> int:
    ways = Ways.of(dict(_setting(pair) for pair in known.set))
    worked = work_text(known.problem, ways, ".")
    shown = choice_views(choices(worked), worked.working.problem.label, voice_of(ways))
    if known.json:
        print(_json({"options": [_option(one) for one in shown]}))
        return 0
    for one in shown:
        print(f"  {one.label}  {one.answer:<12} {'right' if one.right else ', or '.join(one.names)}")
    return 0


def _option(one: ChoiceView) -> dict[str, object]:
    """An option as it is published: *right* only where it is, *codes* only where it is not."""
    told: dict[str, object] = {"right": True} if one.right else {"codes": list(one.codes)}
    return {"label": one.label, "answer": one.answer} | told


def _check(known: argparse.Namespace) -> int:
    ways = Ways.of(dict(_setting(pair) for pair in known.set))
    try:
        lines = [line.decode("utf-8").strip() for line in _lines(sys.stdin.buffer)]
    except UnicodeDecodeError as error:
        raise ReadError("The lines are not UTF-8 text.", error.start, 1, "Save the file as UTF-8.") from None
    checked = checked_lines(known.problem, [line for line in lines if line], ways)
    if known.json:
        print(_json(asdict(checked)))
        return 0
    for i, line in enumerate(checked.lines):
        mark = "·" if line.side else "?" if line.equal is None else "=" if line.equal else "≠"
        print(
            f"  {mark} {line.text}"
            + (f"   ({', '.join([*line.codes, *line.faults])})" if line.codes or line.faults else "")
        )
        if i == checked.first_wrong:
            print("    this is the first line that is not equal to the one before")
    print(f"Answer: {checked.answer}")
    return 0


def _build(known: argparse.Namespace) -> int:
    built = build_number(read_numbers(known.numbers), read_wanted(known.wanted))
    if not built.exact:
        print(f"{text(built.wanted)} cannot be built. The nearest is {text(mixed(built.nearest))}:")
    for way in built.ways:
        print(f"  {text(way)}")
    return 0


def _ladder(known: argparse.Namespace) -> int:
    spec = ladders.read_spec(read_json(known.spec, "The wish for a ladder is", 'Begin with {"rungs": {"M7": 2}}.'))
    made = ladders.build_or_why(spec)
    if isinstance(made, ladders.Impossible):
        early = {"ended_early": True} if made.ended_early else {}
        print(_json({"impossible": {"limit": made.limit, "nearest": made.nearest, **early}}))
        return IMPOSSIBLE
    document = ladder_document(made, spec)
    if known.json:
        print(_json(plainly(document)))
        return 0
    for problem in document.problems:
        asked = f"  to {problem.target}" if problem.target else ""
        print(f"  {problem.features.rung}  {problem.text}{asked}")
    return 0


def _setting(pair: str) -> tuple[str, str]:
    name, equals, code = pair.partition("=")
    if not equals:
        raise ReadError(f"--set {pair} has no equals sign.", 0, len(pair), "Write --set NAME=CODE.")
    return name, code


def _json(document: dict[str, Any]) -> str:
    return json.dumps(document, ensure_ascii=False)


def _report(error: CoreError) -> None:
    understood = {"understood": error.understood} if isinstance(error, story_command.NotUnderstoodError) else {}
    print(_json({"error": error.as_dict(), **understood}), file=sys.stderr)


def _work_lines(source: BinaryIO, ways: Ways, target: str | None) -> None:
    for line in _lines(source):
        print(_json(_document_or_error(line, ways, target)), flush=True)


def _lines(source: BinaryIO) -> Iterator[bytes]:
    """The lines of *source* without their ends (LF or CR LF), as they come."""
    for line in source:
        yield line.removesuffix(b"\n").removesuffix(b"\r")


def _document_or_error(line: bytes, ways: Ways, target: str | None) -> dict[str, Any]:
    try:
        return published(work_text(line.decode("utf-8"), ways, target=target))
    except UnicodeDecodeError as error:
        refusal = ReadError("The line is not UTF-8 text.", error.start, 1, "Save the file as UTF-8.")
        return {"error": refusal.as_dict()}
    except CoreError as error:
        return {"error": error.as_dict()}


def readable(worked: Worked) -> str:
    """The working as text for a person, in the class's words: problem, steps with jottings, answer, estimate, wrong answers."""
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


if __name__ == "__main__":
    sys.exit(main())
