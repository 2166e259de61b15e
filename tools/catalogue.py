"""python -m tools.catalogue: renew docs/misconceptions.md."""

from __future__ import annotations

from keen_slate.core.diagnosing.catalogue import as_markdown
from tools.launch import ROOT

TARGET = ROOT / "docs/misconceptions.md"

if __name__ == "__main__":
    TARGET.write_text(as_markdown(), encoding="utf-8")
