"""Number building from the command line."""

from __future__ import annotations

import argparse

from keen_slate.core.building.given import read_numbers, read_wanted
from keen_slate.core.building.search import build
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import mixed

from .given import add_seconds


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `build`."""
    command.add_argument("numbers", help="like '3, 1/2, 0.25'")
    command.add_argument("wanted", help="the number to build")
    add_seconds(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Say the ways to build a number. Raises `CoreError`."""
    built = build(read_numbers(known.numbers), read_wanted(known.wanted))
    if not built.exact:
        print(f"{text(built.wanted)} cannot be built. The nearest is {text(mixed(built.nearest))}:")
    for way in built.ways:
        print(f"  {text(way)}")
    return 0
