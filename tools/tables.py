"""python -m tools.tables: renew what the documents repeat of the code, the catalogue of misconceptions and the table of settings."""

from __future__ import annotations

import re

from keen_slate.core.diagnosing.catalogue import as_markdown
from keen_slate.core.expressions.voice import OWN
from keen_slate.core.ways.settings import SETTINGS
from tools.launch import ROOT

CATALOGUE = ROOT / "docs/misconceptions.md"
FORMATS = ROOT / "docs/formats.md"
_SETTINGS = re.compile(r"(?<=\| name \| what it settles \| codes \|\n\|---\|---\|---\|\n)(?:\|.*\n)*")


def settings_table() -> str:
    """The rows of the table of settings, the default of each first."""
    rows = [
        f"| `{one.name}` | {OWN.said(one.title)} | {', '.join([f'`{code}` ({OWN.said(title)})' for code, title in one.codes.items()])} |"
        for one in SETTINGS.values()
    ]
    return "\n".join(rows) + "\n"


def with_settings(document: str) -> str:
    """*document* with its table of settings renewed."""
    return _SETTINGS.sub(lambda _: settings_table(), document)


if __name__ == "__main__":
    CATALOGUE.write_text(as_markdown(), encoding="utf-8")
    FORMATS.write_text(with_settings(FORMATS.read_text(encoding="utf-8")), encoding="utf-8")
