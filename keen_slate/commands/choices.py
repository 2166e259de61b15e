"""Four options to choose from, from the command line."""

from __future__ import annotations

import argparse

from keen_slate.core.diagnosing.choices import choices
from keen_slate.core.documents.verdict import ChoiceView, choice_views
from keen_slate.core.ways.voices import voice_of
from keen_slate.core.worked import work_text

from .given import add_json, add_problem, add_settings, ways_of
from .said import as_json


def add_options(command: argparse.ArgumentParser) -> None:
    """What may stand after `choices`."""
    add_problem(command)
    add_json(command)
    add_settings(command)


def run(known: argparse.Namespace, parser: argparse.ArgumentParser) -> int:
    """Say the options. Raises `CoreError`."""
    ways = ways_of(known)
    worked = work_text(known.problem, ways, ".")
    shown = choice_views(choices(worked), worked.working.problem.label, voice_of(ways))
    if known.json:
        print(as_json({"options": [_option(one) for one in shown]}))
        return 0
    for one in shown:
        print(f"  {one.label}  {one.answer:<12} {'right' if one.right else ', or '.join(one.names)}")
    return 0


def _option(one: ChoiceView) -> dict[str, object]:
    """An option as it is published: *right* only where it is, *codes* only where it is not."""
    told: dict[str, object] = {"right": True} if one.right else {"codes": list(one.codes)}
    return {"label": one.label, "answer": one.answer} | told
