"""python -m tools.tables: renew what the documents repeat of the code: misconceptions, settings, kinds of problem and
step, rungs.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from itertools import groupby
from typing import get_args

from keen_slate.core.diagnosing.catalogue import as_markdown
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.grading.rungs import RUNGS, STORY_RUNGS
from keen_slate.core.reading.kinds import Kind
from keen_slate.core.ways.settings import SETTINGS
from keen_slate.core.working.step_kinds import STEP_KINDS
from tools.application import ROOT

CATALOGUE = ROOT / "docs/misconceptions.md"
FORMATS = ROOT / "docs/formats.md"
_SETTINGS = re.compile(r"(?<=\| name \| what it settles \| codes \|\n\|---\|---\|---\|\n)(?:\|.*\n)*")


def settings_table() -> str:
    """The rows of the table of settings, the default of each first."""
    rows = [
        f"| `{one.name}` | {OWN.said(one.title)} | "
        f"{', '.join([f'`{code}` ({OWN.said(title)})' for code, title in one.codes.items()])} |"
        for one in SETTINGS.values()
    ]
    return "\n".join(rows) + "\n"


def _listed(codes: Iterable[str]) -> str:
    return ", ".join([f"`{code}`" for code in codes])


def _families(rungs: Iterable[str]) -> str:
    """The first and the last rung of each family: W1 to W3, E1 to E5."""
    families = [
        list(family)
        for _, family in groupby(sorted(rungs, key=lambda rung: (rung[0], int(rung[1:]))), lambda rung: rung[0])
    ]
    order = list(dict.fromkeys(rung[0] for rung in rungs))
    families.sort(key=lambda family: order.index(family[0][0]))
    return ", ".join([f"{family[0]} to {family[-1]}" for family in families])


def renewed(document: str) -> str:
    """*document*, the text of docs/formats.md, with what it repeats of the code as the code has it now."""
    rows = {
        "`problem.kind`": _listed(get_args(Kind)),
        "`steps[].kind`": _listed(STEP_KINDS),
        "`features.rung`": f"{_families(RUNGS)}, or {_families(STORY_RUNGS)} of a story; every problem that can be "
        "worked has one",
    }
    lines = document.splitlines(keepends=True)
    for i, line in enumerate(lines):
        name = line.removeprefix("| ").split(" |")[0]
        if name in rows:
            lines[i] = f"| {name} | {rows[name]} |\n"
    return _SETTINGS.sub(lambda _: settings_table(), "".join(lines))


if __name__ == "__main__":
    CATALOGUE.write_text(as_markdown(), encoding="utf-8")
    FORMATS.write_text(renewed(FORMATS.read_text(encoding="utf-8")), encoding="utf-8")
