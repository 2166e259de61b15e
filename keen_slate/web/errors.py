"""Every refusal of the API is the same object: {"error": {message, position, length, hint}}."""

from __future__ import annotations

from typing import Any

from apiflask import APIFlask
from flask import Response, jsonify
from sqlalchemy.exc import InterfaceError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError

from keen_slate.core.errors import CoreError
from keen_slate.store.history import NoChangeError
from keen_slate.store.shelf import FullSetError, NotFoundError, OrderError

HINTS = {404: "Go back to the Shelf.", 413: "Send less at once."}

Answer = tuple[Response, int]


def refusal(status: int, message: str, hint: str = "", **more: Any) -> Answer:
    """The error object with *status*, and *more* beside it."""
    body = {"message": message, "position": 0, "length": 0, "hint": hint}
    return jsonify({"error": body, **more}), status


def init_app(app: APIFlask) -> None:
    """Turn the exceptions of all layers into refusals."""
    app.register_error_handler(CoreError, lambda error: (jsonify({"error": error.as_dict()}), 422))
    app.register_error_handler(NotFoundError, lambda error: refusal(404, str(error), "Go back to the Shelf."))
    app.register_error_handler(FullSetError, lambda error: refusal(422, str(error), "Begin a new set."))
    app.register_error_handler(OrderError, lambda error: refusal(422, str(error), "Load the set again."))
    app.register_error_handler(NoChangeError, lambda error: refusal(422, str(error), "Load the set again."))
    for lost in (OperationalError, InterfaceError, PoolTimeoutError):
        app.register_error_handler(lost, _database_gone)

    @app.error_processor
    def http_error(error: Any) -> tuple[dict[str, Any], int, Any]:
        message, hint = error.message, HINTS.get(error.status_code, "")
        if error.detail:
            message = "The request does not have the form that is expected here."
            hint = "; ".join(_details(error.detail))
        body = {"message": message, "position": 0, "length": 0, "hint": hint}
        return {"error": body}, error.status_code, error.headers


def _details(detail: Any) -> list[str]:
    """ "field: what is wrong" for each complaint, at any depth of the validator's report."""
    if isinstance(detail, dict):
        return [f"{name}: {said}" for name, inner in detail.items() for said in _details(inner)]
    return [str(said) for said in detail] if isinstance(detail, list) else [str(detail)]


def _database_gone(error: Exception) -> Answer:
    return refusal(
        503,
        "The records cannot be reached right now, so nothing was saved.",
        "What you typed is still on this page. Try again in a moment.",
    )
