"""The core from the command line: documents out, errors as objects. Needs no server and no database."""

from __future__ import annotations

import argparse
import os
import sys
import time
from collections.abc import Sequence
from importlib import import_module
from io import TextIOWrapper

from keen_slate.core.errors import CoreError
from keen_slate.core.searching.deadline import until

from .commands import COMMANDS
from .commands.said import UNREADABLE, report


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit status."""
    given = _shield_problem(list(sys.argv[1:] if arguments is None else arguments))
    parser = argparse.ArgumentParser(prog="slate", description="Worked examples from the command line.")
    parsers = parser.add_subparsers(dest="command", required=True)
    own = {name: parsers.add_parser(name, help=said) for name, said in COMMANDS.items()}
    asked = next((one for one in given if one in own), None)
    if asked is None:
        parser.parse_args(given)  # help, or what is wrong with it
        return UNREADABLE
    command = import_module(f"{__package__}.commands.{asked}")
    command.add_options(own[asked])
    known = parser.parse_args(given)
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, TextIOWrapper):
            stream.reconfigure(encoding="utf-8", errors="backslashreplace")
    end = time.process_time() + getattr(known, "seconds", 0)
    try:
        with until(lambda: hasattr(known, "seconds") and time.process_time() > end):
            status: int = command.run(known, own[asked])
            return status
    except BrokenPipeError:  # whoever reads the lines has enough of them
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except CoreError as error:
        report(error)
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


if __name__ == "__main__":
    sys.exit(main())
