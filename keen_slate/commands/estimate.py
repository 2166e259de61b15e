"""A pupil's estimate, judged from the command line."""

from __future__ import annotations

import argparse
from dataclasses import asdict

from keen_slate.core.diagnosing.estimates import judge_estimate
from keen_slate.core.documents.verdict import estimate_view
from keen_slate.core.errors import ReadError
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import work_text

from .given import add_json, add_problem, add_settings, ways_of
from .said import as_json


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `estimate`."""
    add_problem(command)
    command.add_argument("estimate", help="as the pupil wrote it, like '3 1/2'")
    add_json(command)
    add_settings(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Judge it. Raises `CoreError`."""
    ways = ways_of(known)
    judged = judge_estimate(work_text(known.problem, ways, "."), known.estimate)
    if judged is None:
        raise ReadError(
            "Nothing is estimated here.",
            0,
            len(known.problem),
            "Type a problem that is calculated, like 7 1/4 - 3 5/6.",
        )
    shown = estimate_view(judged, voice_of(ways))
    print(as_json(asdict(shown)) if known.json else f"{shown.verdict}: {shown.reason}")
    return 0
