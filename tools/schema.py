"""Renews docs/schemas: the JSON Schemas of documents that people write, made from the models that read them."""

from __future__ import annotations

import json
from pathlib import Path

from pydantic import BaseModel

from keen_slate.export.class_document import ClassDocument
from keen_slate.export.set_document import SetDocument
from keen_slate.web.schemas.stories import ScenarioDocument

DIRECTORY = Path(__file__).resolve().parents[1] / "docs" / "schemas"
SCHEMAS: dict[str, type[BaseModel]] = {
    "keen-slate-set-1.schema.json": SetDocument,
    "keen-slate-class-1.schema.json": ClassDocument,
    "keen-slate-scenario-1.schema.json": ScenarioDocument,
}


def schema(model: type[BaseModel]) -> str:
    """The JSON Schema (2020-12) of a *model* as text."""
    made = {"$schema": "https://json-schema.org/draft/2020-12/schema"} | model.model_json_schema()
    return json.dumps(made, indent=1) + "\n"


if __name__ == "__main__":
    DIRECTORY.mkdir(exist_ok=True)
    for name, model in SCHEMAS.items():
        (DIRECTORY / name).write_text(schema(model), encoding="utf-8")
