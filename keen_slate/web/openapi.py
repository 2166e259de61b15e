"""The schemas of the OpenAPI document: every model once, under its own name."""

from __future__ import annotations

import json
from functools import cache
from importlib import import_module
from pathlib import Path
from pkgutil import iter_modules
from types import ModuleType
from typing import Any, Literal

from apiflask import APIFlask
from flask import Response
from pydantic import BaseModel
from pydantic.json_schema import models_json_schema

from keen_slate.export import class_document, set_document
from keen_slate.export.json_document import Part

from . import door, schemas
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


def file_doc(kind: str, said: str = "The file") -> Any:
    """The description of an answer that is a file of a *kind*, and not JSON."""
    return {200: {"description": said, "content": {kind: {"schema": {"type": "string", "format": "binary"}}}}}


def body_doc(model: str) -> dict[str, str]:
    """Says that the body, which a view reads by itself, is a document of this *model*."""
    return {_BODY: model}


def file_body_doc(kind: str) -> dict[str, str]:
    """Says that the body is a file of a *kind*."""
    return {_FILE_BODY: kind}


_BODY, _FILE_BODY = "x-body", "x-file-body"

# What may be answered to every request, whatever it is for; 404 and those of bodies where they can be.
_ALWAYS = {
    400: "It is no request that can be read, or names another host.",
    401: "Nobody is signed in.",
    403: "It comes from another page, or without the token of the sign-in.",
    503: "The records cannot be reached, or it is not its turn yet: Retry-After says when to ask again.",
}
_NOT_THERE = {404: "There is nothing like this."}
_OF_BODIES = {413: "It is too large.", 415: "It is no JSON.", 422: "It cannot be done as it is written, and why."}
_CHANGES = {"post", "put", "patch", "delete"}
_SECURITY = {
    # Each installation gives its cookie a name of its own, which begins so.
    "signIn": {"type": "apiKey", "in": "cookie", "name": "keen_slate"},
    "token": {"type": "apiKey", "in": "header", "name": "X-CSRF-Token", "description": "From GET /api/me."},
}


def _complete(path: str, method: str, operation: dict[str, Any]) -> None:
    """Add to an *operation* what the generator does not see: refusals, ids, needed bodies, who may ask."""
    refusals = dict(_ALWAYS)
    parameters = operation.get("parameters", [])
    for parameter in parameters:
        if parameter["in"] == "path" and parameter["name"].endswith("_id"):
            parameter["schema"] = {"type": "string", "format": "uuid"}
    model = operation.pop(_BODY, None)
    if model:
        operation["requestBody"] = {"content": {"application/json": {"schema": reference(model)}}}
    kind = operation.pop(_FILE_BODY, None)
    if kind:
        operation["requestBody"] = {"content": {kind: {"schema": {"type": "string", "format": "binary"}}}}
    if "requestBody" in operation:
        operation["requestBody"]["required"] = True
        refusals |= _OF_BODIES
    elif any(parameter["in"] == "query" for parameter in parameters):
        refusals[422] = _OF_BODIES[422]
    if "{" in path or "requestBody" in operation:
        refusals |= _NOT_THERE
    for status, said in refusals.items():
        content = {"application/json": {"schema": reference("ErrorOut")}}
        operation["responses"].setdefault(str(status), {"description": said, "content": content})
    needed: list[dict[str, list[str]]] = [{"signIn": [], "token": []}] if method in _CHANGES else [{"signIn": []}]
    operation["security"] = [] if path in door.OPEN else needed


MADE = "openapi.json"  # beside the built front end, whose types are made from it


def init_app(app: APIFlask) -> None:
    """Publish each model once; the generator by itself copies nested models into each parent.

    Send the document as it was built.
    """

    @app.get("/api/openapi.json")
    @app.doc(hide=True)
    def document() -> Response:
        return Response(_document(app), mimetype="application/json")

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
        spec["components"]["securitySchemes"] = _SECURITY
        for path, operations in spec["paths"].items():
            for method, operation in operations.items():
                _complete(path, method, operation)
        return spec


@cache
def _document(app: APIFlask) -> bytes:
    built: Path = app.config["DIST"] / MADE
    return built.read_bytes() if built.exists() else json.dumps(app.spec, sort_keys=True).encode()


def _is_model(item: object, module: ModuleType) -> bool:
    return (
        isinstance(item, type)
        and issubclass(item, BaseModel)
        and item.__module__ == module.__name__
        and bool(item.model_fields)
    )


def _mode(model: type[BaseModel]) -> Literal["validation", "serialization"]:
    return "validation" if issubclass(model, (Strict, Part)) else "serialization"
