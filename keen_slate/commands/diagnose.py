"""What a pupil answered, explained from the command line; a whole file of answers, too."""

from __future__ import annotations

import argparse
import csv
import sys

from keen_slate.core.diagnosing.answers import diagnose
from keen_slate.core.diagnosing.faults import FORM_FAULTS
from keen_slate.core.documents.verdict import published
from keen_slate.core.errors import CoreError, ReadError
from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of

from .given import add_json, add_settings, ways_of
from .said import as_json


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `diagnose`."""
    command.add_argument("problem", nargs="?", help="like '7 1/4 - 3 5/6'")
    command.add_argument("answer", nargs="?", help="as the pupil wrote it, like '4 7/12'")
    add_json(command)
    command.add_argument("--batch", metavar="FILE", help="CSV with the columns problem,answer (- for standard input)")
    add_settings(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Explain an answer, or all of a file. Raises `CoreError`."""
    ways = ways_of(known)
    if known.batch is not None:
        return _batch(known.batch, ways)
    if known.answer is None:
        parser.error("a problem and an answer are needed, like '7 1/4 - 3 5/6' '4 7/12'")
    verdict = diagnose(known.problem, known.answer, ways)
    if known.json:
        print(as_json(published(verdict, voice_of(ways))))
        return 0
    voice = voice_of(ways)
    print(verdict.verdict + (f": {voice.said(FORM_FAULTS[verdict.form_fault])}" if verdict.form_fault else ""))
    for one in verdict.explanations:
        print(f"  {one.rank}. {' + '.join(one.codes)}: {voice.said(one.reason)}")
        for line in one.lines:
            print(f"       {voice.plain(line)}")
    return 0


def _batch(name: str, ways: Ways) -> int:
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
        verdict = diagnose(problem, answer, ways)
    except CoreError:
        return "problem-unreadable", ""
    explained = verdict.explanations if verdict.verdict == "explained" else ()
    return verdict.verdict, " ".join(["+".join(one.codes) for one in explained])
