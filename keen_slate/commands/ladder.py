"""A set of problems built to order, from the command line."""

from __future__ import annotations

import argparse

from keen_slate.core.documents.ladder import ladder_document
from keen_slate.core.documents.plain import plainly
from keen_slate.core.ladders import Impossible, build_or_why, read_spec

from .given import add_json, add_seconds, read_json
from .said import IMPOSSIBLE, as_json


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `ladder`."""
    command.add_argument("spec", metavar="FILE", help="JSON: rungs, limits, targets (- for standard input)")
    add_json(command)
    add_seconds(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Build it, or say which limit to relax. Raises `CoreError`."""
    spec = read_spec(read_json(known.spec, "The wish for a ladder is", 'Begin with {"rungs": {"M7": 2}}.'))
    made = build_or_why(spec)
    if isinstance(made, Impossible):
        early = {"ended_early": True} if made.ended_early else {}
        print(as_json({"impossible": {"limit": made.limit, "nearest": made.nearest, **early}}))
        return IMPOSSIBLE
    document = ladder_document(made, spec)
    if known.json:
        print(as_json(plainly(document)))
        return 0
    for problem in document.problems:
        asked = f"  to {problem.target}" if problem.target else ""
        print(f"  {problem.features.rung}  {problem.text}{asked}")
    return 0
