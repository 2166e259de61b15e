"""Who is at the desk, the token that every change must carry, and the database session of a request."""

from __future__ import annotations

import hmac
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from hashlib import sha256

from apiflask import APIFlask, HTTPError
from flask import current_app, g, request, session
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from keen_slate.store.models import Teacher
from keen_slate.store.shelf import Shelf

CHANGES = {"POST", "PUT", "PATCH", "DELETE"}
CSRF_HEADER = "X-CSRF-Token"


def init_app(app: APIFlask) -> None:
    """Refuse every change without the token of its session."""

    @app.before_request
    def check_token() -> None:
        if request.method not in CHANGES:
            return
        given = request.headers.get(CSRF_HEADER, "")
        if not given or not hmac.compare_digest(csrf_token().encode(), given.encode()):
            raise HTTPError(403, "This page has lost its place. Load it again.")


def csrf_token() -> str:
    """The token of the teacher at the desk: signed, not stored, so that answers that overtake each other cannot lose it."""
    key = str(current_app.config["SECRET_KEY"]).encode()
    return hmac.new(key, b"token of " + signed_in().bytes, sha256).hexdigest()


def engine() -> Engine:
    """The engine of the running application."""
    return current_app.extensions["keen_slate_engine"]  # type: ignore[no-any-return]


@contextmanager
def database() -> Iterator[Session]:
    """A database session; what was done in it is kept if the block ends well."""
    with Session(engine(), expire_on_commit=False) as database_session, database_session.begin():
        yield database_session


@contextmanager
def shelf() -> Iterator[Shelf]:
    """The shelf of the teacher who is signed in. Raises `HTTPError` 401 where nobody is."""
    teacher_id = signed_in()
    with database() as database_session:
        yield Shelf(database_session, teacher_id)


def signed_in() -> uuid.UUID:
    """The id of the teacher at the desk; where one teacher is signed in by itself, hers. Raises `HTTPError` 401 where nobody is."""
    if "teacher" not in g:
        known = session.get("teacher") or current_app.config["SIGNED_IN_TEACHER"]
        if known is None:
            raise HTTPError(401, "Nobody is signed in here.")
        if "teacher" not in session:
            session["teacher"] = str(known)
        g.teacher = uuid.UUID(str(known))
    return g.teacher  # type: ignore[no-any-return]


def teacher_name() -> str:
    """The name of the teacher who is signed in. Raises `HTTPError` 401 where nobody is."""
    with database() as database_session:
        found = database_session.get(Teacher, signed_in())
        if found is None:
            session.clear()
            raise HTTPError(401, "Nobody is signed in here.")
        return found.name
