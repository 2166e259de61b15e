"""Whether this process lives (/healthz), and whether it can do its work (/readyz): asked by who sends requests
to it.
"""

from __future__ import annotations

from apiflask import APIFlask
from flask import current_app
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError

from keen_slate.store.database import reads_with, revisions

from . import session


def init_app(app: APIFlask) -> None:
    """Answer at both addresses, without a sign-in."""
    # Of this process: another version may lie in the folder before it takes this one's place.
    known = revisions()

    @app.get("/healthz")
    @app.doc(hide=True)
    def health() -> dict[str, str]:
        return {"instance": app.config["INSTANCE"]}

    @app.get("/readyz")
    @app.doc(hide=True)
    def ready() -> tuple[dict[str, str | bool], int]:
        why = _why_not(known)
        return {"ready": not why, "why": why}, 503 if why else 200


def _why_not(known: list[str]) -> str:
    """What keeps this process from its work; "" where nothing does."""
    draining = current_app.extensions.get("keen_slate_draining")
    if draining is not None and draining.ending:
        return "it is ending"
    try:
        with session.engine().connect() as connection:
            return "" if reads_with(connection, known) else "the tables are older than this version"
    except (SQLAlchemyError, PoolTimeoutError):
        return "the database does not answer"
