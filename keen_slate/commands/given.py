"""What the commands are given: settings, files, lines, and for how long they may search."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import BinaryIO

from keen_slate.core.errors import ReadError
from keen_slate.core.ways.settings import SETTINGS, Ways

SECONDS = 10


def add_problem(command: argparse.ArgumentParser) -> None:
    """Let a problem stand after a command."""
    command.add_argument("problem", help="like '7 1/4 - 3 5/6'")


def add_json(command: argparse.ArgumentParser) -> None:
    """Let a command be asked for its document."""
    command.add_argument("--json", action="store_true", help="write the document as JSON")


def add_settings(command: argparse.ArgumentParser) -> None:
    """Let settings stand after a command."""
    command.add_argument(
        "--set", action="append", default=[], metavar="NAME=CODE", help=f"a setting: {', '.join(SETTINGS)}"
    )


def add_seconds(command: argparse.ArgumentParser) -> None:
    """Let an end of the search stand after a command."""
    command.add_argument(
        "--seconds", type=int, default=SECONDS, metavar="N", help=f"how long to search at most ({SECONDS})"
    )


def settings_of(known: argparse.Namespace) -> dict[str, str]:
    """The settings that were given. Raises `ReadError`."""
    return dict([_setting(pair) for pair in known.set])


def ways_of(known: argparse.Namespace) -> Ways:
    """The ways that were given. Raises `CoreError`."""
    return Ways.of(settings_of(known))


def _setting(pair: str) -> tuple[str, str]:
    name, equals, code = pair.partition("=")
    if not equals:
        raise ReadError(f"--set {pair} has no equals sign.", 0, len(pair), "Write --set NAME=CODE.")
    return name, code


def read_lines(source: BinaryIO) -> Iterator[bytes]:
    """The lines of *source* without their ends (LF or CR LF), as they come."""
    for line in source:
        yield line.removesuffix(b"\n").removesuffix(b"\r")


def read_json(name: str, what: str, hint: str) -> object:
    """The value in the file *name* (`-`: standard input).

    Raises `ReadError`, which says that *what* is not JSON, with a *hint*.
    """
    try:
        return json.loads(sys.stdin.buffer.read() if name == "-" else Path(name).read_bytes())
    except OSError as error:
        raise ReadError(f"The file {name} cannot be read: {error.strerror}.", 0, len(name), "Check its name.") from None
    except (ValueError, RecursionError):
        raise ReadError(f"{what} not JSON.", 0, 0, hint) from None
