"""A ladder as the document that the command line prints and the HTTP API returns (docs/formats.md)."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from ..expressions.text import text
from ..ladders.build import Ladder
from ..ladders.options import Option
from ..ladders.spec import Spec
from ..reading.problem import labelled


def ladder_document(ladder: Ladder, spec: Spec) -> dict[str, Any]:
    """The problems with their label, their features and what they reveal; what the ladder reveals and leaves alike."""
    return {
        "problems": [problem_document(found, spec.label) for found in ladder.problems],
        "reveals": list(ladder.reveals),
        "not_separated": [list(pair) for pair in ladder.not_separated],
        "considered": ladder.considered,
        "counts": dict(ladder.counts),
        "exact": ladder.exact,
        "sampled": ladder.sampled,
        "ended_early": ladder.ended_early,
        "not_revealed": list(ladder.not_revealed),
    }


def problem_document(found: Option, label: str | None) -> dict[str, Any]:
    """One problem of a ladder."""
    return {
        "text": labelled(text(found.expr), label),
        "features": asdict(found.features),
        "reveals": list(found.answers),
    }
