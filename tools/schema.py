"""Renews docs/schemas: the JSON Schema of a set's document, made from the model that reads it."""

from __future__ import annotations

import json
from pathlib import Path

from keen_slate.export.set_document import SetDocument

TARGET = Path(__file__).resolve().parents[1] / "docs" / "schemas" / "keen-slate-set-1.schema.json"


def schema() -> str:
    """The JSON Schema (2020-12) as text."""
    made = {"$schema": "https://json-schema.org/draft/2020-12/schema"} | SetDocument.model_json_schema()
    return json.dumps(made, indent=1) + "\n"


if __name__ == "__main__":
    TARGET.parent.mkdir(exist_ok=True)
    TARGET.write_text(schema(), encoding="utf-8")
