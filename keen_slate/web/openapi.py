"""The schemas of the OpenAPI document: every model once, under its own name."""

from __future__ import annotations

from importlib import import_module
from pkgutil import iter_modules
from types import ModuleType
from typing import Any, Literal

from apiflask import APIFlask
from pydantic import BaseModel
from pydantic.json_schema import models_json_schema

from keen_slate.export import class_document, set_document

from . import schemas
from .schemas.base import Strict

MODULES = (
    *[import_module(f"{schemas.__name__}.{found.name}") for found in iter_modules(schemas.__path__)],
    set_document,
    class_document,
)

TEMPLATE = "#/components/schemas/{model}"


def reference(name: str) -> dict[str, str]:
    """A reference to the schema called *name*."""
    return {"$ref": TEMPLATE.format(model=name)}


def conflict_doc(said: str, model: str) -> Any:
    """The description of an answer 409, with *model* as its body."""
    return {409: {"description": said, "content": {"application/json": {"schema": reference(model)}}}}


def init_app(app: APIFlask) -> None:
    """Publish each model once; the generator by itself copies nested models into each parent."""

    @app.spec_processor
    def publish_each_once(spec: Any) -> Any:
        models = [(m, _mode(m)) for module in MODULES for m in vars(module).values() if _is_model(m, module)]
        _, schema = models_json_schema(models, ref_template=TEMPLATE)
        incoming = {model.__name__ for model, mode in models if mode == "validation"}
        for name, definition in schema["$defs"].items():
            if name not in incoming and "properties" in definition:  # what goes out always has every field
                definition["required"] = list(definition["properties"])
        for name in [name for name in schema["$defs"] if name.startswith("RootModel")]:
            del schema["$defs"][name]  # the model that has it as its root stands for it
        # The names that the framework gives to refusals; they refer to ErrorOut.
        kept = {name: spec["components"]["schemas"][name] for name in ("HTTPError", "ValidationError")}
        spec["components"]["schemas"] = schema["$defs"] | kept
        return spec


def _is_model(item: object, module: ModuleType) -> bool:
    return (
        isinstance(item, type)
        and issubclass(item, BaseModel)
        and item.__module__ == module.__name__
        and bool(item.model_fields)
    )


def _mode(model: type[BaseModel]) -> Literal["validation", "serialization"]:
    return "validation" if issubclass(model, Strict) else "serialization"
