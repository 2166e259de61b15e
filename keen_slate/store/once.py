"""Changes that are sent twice are made once: the answer to a change is kept with it, in the same transaction.

A page gives every change a key of its own. Where the answer did not arrive, it sends the change again with the same
key.
"""

from __future__ import annotations

import uuid
import zlib
from datetime import timedelta

from sqlalchemy import Connection, delete, func, select, text
from sqlalchemy.orm import Session

from .models import Answered

KEPT = timedelta(days=1)
_LONG = 1  # tells the lock of long work from the one of its change
_SWEPT = 32  # old answers go with one change in so many


class OtherChangeError(ValueError):
    """A key that was used for one change came with another."""


def answer_to(session: Session, teacher_id: uuid.UUID, key: uuid.UUID, digest: str) -> tuple[int, bytes] | None:
    """Status and body that the change under *key* was answered with; None for a change that has not been made.

    Whoever sends the same change at this moment waits until this transaction has ended. Raises `OtherChangeError` where
    the change under this key was another one than that of *digest*.
    """
    session.execute(select(func.pg_advisory_xact_lock(_lock(key))))
    found = session.get(Answered, (teacher_id, key))
    if found is None:
        return None
    if found.digest not in (digest, ""):  # none is known of a change that an older version answered
        raise OtherChangeError("This key was given to another change before.")
    return found.status, zlib.decompress(found.body)


def hold(connection: Connection, key: uuid.UUID) -> bool:
    """Whether the long work under *key* is this *connection*'s, as long as its transaction lasts; False where another
    is at it.
    """
    connection.execute(text("set local idle_in_transaction_session_timeout = 0"))
    return bool(connection.scalar(select(func.pg_try_advisory_xact_lock(_lock(key) ^ _LONG))))


def _lock(key: uuid.UUID) -> int:
    return int.from_bytes(key.bytes[:8], "big", signed=True)


def keep_answer(
    session: Session,
    teacher_id: uuid.UUID,
    key: uuid.UUID,
    digest: str,
    status: int,
    body: bytes,
    class_id: uuid.UUID | None = None,
) -> None:
    """Keep what the change under *key* is answered with, with the class that it is about; old answers go."""
    if key.int % _SWEPT == 0:
        old = Answered.made_at < func.now() - KEPT
        session.execute(delete(Answered).where(Answered.teacher_id == teacher_id, old))
    packed = zlib.compress(body, 1)
    row = Answered(teacher_id=teacher_id, key=key, digest=digest, status=status, body=packed, class_id=class_id)
    session.add(row)
