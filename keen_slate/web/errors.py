"""Every refusal of the API is the same object: {"error": {message, position, length, hint}}.

This is the one place that makes it.
"""

from __future__ import annotations

import logging
import traceback
from typing import Any

from apiflask import APIFlask
from flask import Response, g, jsonify, request
from psycopg import errors as postgres
from sqlalchemy.exc import DataError, DBAPIError, IntegrityError, InterfaceError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError

from keen_slate.core.errors import CoreError
from keen_slate.store.accounts import TakenError, WeakPasswordError
from keen_slate.store.changes import NoChangeError
from keen_slate.store.classes import ClassError
from keen_slate.store.house import StaleSchoolError
from keen_slate.store.identities import AnotherTeachersError
from keen_slate.store.once import OtherChangeError
from keen_slate.store.passkeys import FullOfKeysError
from keen_slate.store.shelf import FullSetError, NotFoundError, OrderError

from .openid import ProviderError
from .session import AnsweredError

log = logging.getLogger("keen_slate")
HINTS = {
    400: "Send JSON.",
    415: "Send JSON, and say so in Content-Type.",
    401: "In the folder of Keen Slate, ./slate link prints a link to come in by.",
    404: "Go back to the Shelf.",
    413: "Send less at once.",
}

# The framework's own messages, in sentences.
SAID_OF = {
    "Bad Request": "This cannot be read.",
    "Not Found": "There is nothing at this address.",
    "Method Not Allowed": "This cannot be done here.",
    "Request Entity Too Large": "This is too large.",
    "Unsupported Media Type": "This is no JSON.",
}

Answer = tuple[Response, int]

# What the store says, with the status and the way out.
SAID: dict[type[Exception], tuple[int, str]] = {
    NotFoundError: (404, "Go back to the Shelf."),
    FullSetError: (422, "Begin a new set."),
    OrderError: (422, "Load the set again."),
    NoChangeError: (422, "Load the page again."),
    WeakPasswordError: (422, "A few words in a row are long, and easy to keep in mind."),
    TakenError: (422, ""),
    FullOfKeysError: (422, ""),
    AnotherTeachersError: (422, "Sign in there as yourself, or ask who keeps Keen Slate."),
    ProviderError: (502, "Try again in a moment, or sign in by your password."),
    StaleSchoolError: (409, "Load the page again."),
    OtherChangeError: (422, "Give every change a key of its own."),
}
# What PostgreSQL ends because others need the same rows, or because it takes too long.
BUSY = (
    postgres.DeadlockDetected, postgres.LockNotAvailable, postgres.QueryCanceled, postgres.SerializationFailure,
    postgres.IdleInTransactionSessionTimeout,
)  # fmt: skip


def refusal(status: int, message: str, hint: str = "", **more: Any) -> Answer:
    """The error object with *status*, and *more* beside it."""
    body = {"message": message, "position": 0, "length": 0, "hint": hint}
    return jsonify({"error": body, **more}), status


def init_app(app: APIFlask) -> None:
    """Turn the exceptions of all layers into refusals."""
    app.register_error_handler(CoreError, lambda error: (jsonify({"error": error.as_dict()}), 422))
    app.register_error_handler(AnsweredError, lambda error: error.answer)
    app.register_error_handler(ClassError, lambda error: refusal(422, str(error), error.hint))
    for kind, (status, hint) in SAID.items():
        app.register_error_handler(kind, lambda error, status=status, hint=hint: refusal(status, str(error), hint))
    for lost in (OperationalError, InterfaceError, PoolTimeoutError, DBAPIError):
        app.register_error_handler(lost, _database)
    app.register_error_handler(DataError, lambda error: _unkeepable())
    app.register_error_handler(UnicodeError, lambda error: _unkeepable())
    app.register_error_handler(
        RecursionError, lambda error: refusal(422, "This is nested too deep to be read.", "Send less at once.")
    )
    app.register_error_handler(
        IntegrityError,
        lambda error: refusal(409, "What this belongs to was taken away meanwhile.", "Load the page again."),
    )
    app.register_error_handler(Exception, _unforeseen)

    @app.error_processor
    def http_error(error: Any) -> tuple[dict[str, Any], int, Any]:
        message, hint = SAID_OF.get(error.message, error.message), HINTS.get(error.status_code, "")
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


def answer_to(error: Exception) -> Answer:
    """The refusal of an exception that was raised while another was being answered."""
    if type(error) in SAID:
        status, hint = SAID[type(error)]
        return refusal(status, str(error), hint)
    return _database(error) if isinstance(error, (DBAPIError, PoolTimeoutError)) else _unforeseen(error)


def _database(error: Exception) -> Answer:
    if isinstance(getattr(error, "orig", None), postgres.DiskFull):
        said = "The disk of the machine that keeps the records is full"
        return refusal(
            503,
            f"{said}." if request.method == "GET" else f"{said}, so nothing was saved.",
            "Make room on it; sets can be looked at meanwhile.",
        )
    if isinstance(getattr(error, "orig", None), BUSY):
        return refusal(
            503,
            "Somebody else is changing the same thing at this moment, so nothing was saved.",
            "Try again in a moment.",
        )
    if request.method == "GET":
        return refusal(503, "The records cannot be reached right now.", "Try again in a moment.")
    if g.get("committing"):
        return refusal(
            503,
            "The records were lost while this was being saved. It may have been saved; look.",
            "Load the page again.",
        )
    return refusal(
        503,
        "The records cannot be reached right now, so nothing was saved.",
        "What you typed is still on this page. Try again in a moment.",
    )


def _unkeepable() -> Answer:
    return refusal(
        422, "There are characters in this that cannot be kept.", "Take out what cannot be seen, and type it again."
    )


def _unforeseen(error: Exception) -> Answer:
    # Where it happened and what kind it is, never what was typed.
    frames = traceback.extract_tb(error.__traceback__)
    places = " < ".join(
        [f"{frame.name} ({frame.filename.rsplit('/', 1)[-1]}:{frame.lineno})" for frame in reversed(frames)][:12]
    )
    log.error("%s %s: %s at %s", request.method, request.url_rule, type(error).__name__, places)
    return refusal(
        500, "Keen Slate could not do this, and it is not your fault. Nothing was saved.", "Load the page again."
    )
