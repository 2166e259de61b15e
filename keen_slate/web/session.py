"""The session of a request: a deadline, and one transaction, kept if the answer is good, with the answer to a change
beside it.

The deadline counts what the processor did for this request. Waiting for the processor has a bound of its own.
"""

from __future__ import annotations

import time
import uuid
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from hashlib import sha256
from typing import Any

from apiflask import APIFlask, HTTPError
from flask import Response, current_app, g, request
from sqlalchemy import Engine, event
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import ORMExecuteState, Session

from keen_slate.core.searching.deadline import until
from keen_slate.store import once, summaries, walls

KEY_HEADER = "Idempotency-Key"
LIGHT = 1  # seconds of work that the core may spend in a request that has no process of its own
WAITED = 15  # seconds by the clock after which a request that is still at work is to be asked again
_WROTE = "something was changed"


class AnsweredError(Exception):
    """The change that was sent has been made before: *answer* is what was said then."""

    def __init__(self, answer: Response) -> None:
        super().__init__("answered before")
        self.answer = answer


class BusyError(RuntimeError):
    """The machine had so much else to do that this request came to nothing in its time."""

    def __init__(self) -> None:
        super().__init__("This machine is busy; what you asked for is tried again.")


class RequestSession(Session):
    """A session that knows whether anything was changed in it."""


@event.listens_for(RequestSession, "after_flush")
def _flushed(session: Session, context: object) -> None:
    session.info[_WROTE] = True


@event.listens_for(RequestSession, "do_orm_execute")
def _executed(state: ORMExecuteState) -> None:
    if state.is_insert or state.is_update or state.is_delete:
        state.session.info[_WROTE] = True


def init_app(app: APIFlask) -> None:
    """End the transaction of each request with its answer."""

    @app.before_request
    def begin() -> None:
        begin_anew()
        g.deadline = until(_passed)
        g.deadline.__enter__()

    @app.teardown_request
    def end(error: BaseException | None) -> None:
        if (deadline := g.pop("deadline", None)) is not None:
            deadline.__exit__(None, None, None)
        if (guard := g.pop("guard", None)) is not None:
            guard.close()

    @app.after_request
    def finish(response: Response) -> Response:
        session: Session | None = g.pop("session", None)
        if session is None:
            return response
        try:
            if response.status_code < 400:
                _keep(session, response)
                g.committing = True
                session.commit()
        except Exception as error:
            session.rollback()
            if request.method == "GET" and isinstance(error, DBAPIError):
                return response  # what would have been kept for the next look is no reason to refuse this one
            # What is raised here does not reach the handlers by itself.
            return current_app.make_response(current_app.handle_user_exception(error))
        finally:
            session.close()
        return response

    app.teardown_request(lambda error: drop())


def _keep(session: Session, response: Response) -> None:
    session.flush()
    said = "teacher" in g and g.teacher is not None and not g.get("unkept")
    if said and session.info.get(_WROTE) and (key := change_key()) is not None:
        body = response.get_data()
        about = g.get("about_class")
        once.keep_answer(session, g.teacher.id, key, change_digest(), response.status_code, body, about)
    summaries.keep(session)


def _passed() -> bool:
    """Whether this request has worked as long as it may. Raises `BusyError` where it only waited."""
    if time.thread_time() > g.end:
        return True
    if time.monotonic() > g.latest:
        raise BusyError
    return False


def begin_anew() -> None:
    """Give what follows in this request its whole time."""
    g.end = time.thread_time() + LIGHT
    g.latest = time.monotonic() + WAITED


def database() -> Session:
    """The database session of this request; what is done in it is kept if the answer is good."""
    if "session" not in g:
        g.session = RequestSession(engine(), expire_on_commit=False)
        if g.get("teacher") is not None:  # what was done before was kept, and this goes on with it
            walls.reach(g.session, walls.TEACHER, g.teacher.id)
    return g.session  # type: ignore[no-any-return]


def keep_no_answer() -> None:
    """Have nothing kept of what this change was, for what was sent with it is nobody's business."""
    g.unkept = True


def about_class(class_id: uuid.UUID) -> None:
    """Say that this request is about a class: what is kept of its answer goes with the class."""
    g.about_class = class_id


@contextmanager
def released() -> Iterator[None]:
    """Without a connection while something long is done; what was done so far is kept.

    The change under way keeps its key: the same one sent again meanwhile is told to wait, and afterwards gets its
    answer.
    """
    key = change_key()
    with ExitStack() as stack:
        if key is not None:
            connection = stack.enter_context(engine().connect())
            if not once.hold(connection, key):
                raise BusyError
        _give_back()
        if key is not None and (known := once.answer_to(database(), g.teacher.id, key, change_digest())) is not None:
            raise AnsweredError(Response(known[1], known[0], mimetype="application/json"))
        _give_back()
        yield
        if key is not None:
            g.guard = stack.pop_all()  # until the answer is kept


def _give_back() -> None:
    session: Session | None = g.pop("session", None)
    if session is not None:
        try:
            summaries.keep(session)
            session.commit()
        except DBAPIError:
            if request.method != "GET":
                raise
        finally:
            session.close()


def change_digest() -> str:
    """What this change is, in short: the same key is not for another one."""
    said = sha256(f"{request.method} {request.full_path}\n".encode())
    said.update(request.get_data())
    return said.hexdigest()


def change_key() -> uuid.UUID | None:
    """The key that the page gave this change; None where it gave none. Raises `HTTPError` 422 for another form."""
    given = request.headers.get(KEY_HEADER)
    if given is None or request.method == "GET":
        return None
    try:
        return uuid.UUID(given)
    except ValueError:
        raise HTTPError(422, f"{KEY_HEADER} is a UUID.") from None


def drop() -> None:
    """Give up what was done in this request so far."""
    g.pop("teacher", None)
    if (session := g.pop("session", None)) is not None:
        session.close()


def engine() -> Engine:
    """The engine of the running application."""
    found: Any = current_app.extensions["keen_slate_engine"]
    return found  # type: ignore[no-any-return]
