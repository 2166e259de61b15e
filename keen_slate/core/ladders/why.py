"""Why a problem stands where it does on a ladder, in a few words."""

from __future__ import annotations

from collections.abc import Collection

from ..grading.rungs import ALL_RUNGS, UNLIKE
from ..judging.misconceptions.registry import ENTRIES
from .options import Option

_RELATIONS = {"like": "with one <denominator>"} | {relation: ALL_RUNGS[rung] for relation, rung in UNLIKE.items()}


def why(found: Option, before: Option | None, targets: Collection[str] = ()) -> str:
    """What is new in *found* after the problem *before* it, and which of the *targets* it reveals."""
    said = [_new_in(found, before)]
    shown = [ENTRIES[code].name for code in found.answers if code in targets]
    if shown:
        said.append(f"shows “{'”, “'.join(shown)}”")
    return "; ".join(said)


def _new_in(found: Option, before: Option | None) -> str:
    now = found.features
    if before is None:
        return ALL_RUNGS[now.rung]
    was = before.features
    if now.rung != was.rung:
        return f"now {ALL_RUNGS[now.rung]}"
    if now.denominators != was.denominators and now.denominators is not None:
        return f"the same step, {_RELATIONS[now.denominators]}"
    if now.simplify_by > 1 >= was.simplify_by:
        return "the same step, and the answer is simplified"
    if now.regroups > was.regroups:
        return "the same step, with more <regrouping>"
    if now.large_facts and not was.large_facts:
        return "the same step, with larger numbers"
    return "the same step again, other numbers"
