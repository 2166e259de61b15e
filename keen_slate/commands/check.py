"""A written working, checked line by line from the command line."""

from __future__ import annotations

import argparse
import sys
from dataclasses import asdict

from keen_slate.core.diagnosing.lines import check
from keen_slate.core.errors import ReadError

from .given import add_json, add_problem, add_settings, read_lines, ways_of
from .said import as_json


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `check`."""
    add_problem(command)
    add_json(command)
    add_settings(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Check the lines of standard input. Raises `CoreError`."""
    ways = ways_of(known)
    try:
        written = [line.decode("utf-8").strip() for line in read_lines(sys.stdin.buffer)]
    except UnicodeDecodeError as error:
        raise ReadError("The lines are not UTF-8 text.", error.start, 1, "Save the file as UTF-8.") from None
    checked = check(known.problem, [line for line in written if line], ways)
    if known.json:
        print(as_json(asdict(checked)))
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
