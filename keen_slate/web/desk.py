"""The desk of the teacher who is signed in: her shelf, and the answer to a change that she has made before."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from flask import Response, g

from keen_slate.store import once
from keen_slate.store.shelf import Shelf

from .door import teacher
from .session import AnsweredError, change_digest, change_key, database


@contextmanager
def shelf() -> Iterator[Shelf]:
    """The shelf of the teacher at the desk.

    Raises `HTTPError` 401 where nobody is, `AnsweredError` for a change sent again.
    """
    mine = Shelf(database(), teacher().id)
    if (key := change_key()) is not None and "looked" not in g:
        g.looked = True
        known = once.answer_to(database(), mine.teacher_id, key, change_digest())
        if known is not None:
            raise AnsweredError(Response(known[1], known[0], mimetype="application/json"))
    yield mine
