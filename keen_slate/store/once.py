"""Changes that are sent twice are made once: the answer to a change is kept with it, in the same transaction.

A page gives every change a key of its own. Where the answer did not arrive, it sends the change again with the same key.
"""

from __future__ import annotations

import uuid
import zlib
from datetime import timedelta

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from .models import Answered

KEPT = timedelta(days=1)
_SWEPT = 32  # old answers go with one change in so many


def answer_to(session: Session, teacher_id: uuid.UUID, key: uuid.UUID) -> tuple[int, bytes] | None:
    """Status and body that the change under *key* was answered with; None for a change that has not been made.

    Whoever sends the same change at this moment waits until this transaction has ended.
    """
    session.execute(select(func.pg_advisory_xact_lock(int.from_bytes(key.bytes[:8], "big", signed=True))))
    found = session.get(Answered, (teacher_id, key))
    return None if found is None else (found.status, zlib.decompress(found.body))


def keep_answer(
    session: Session, teacher_id: uuid.UUID, key: uuid.UUID, status: int, body: bytes, class_id: uuid.UUID | None = None
) -> None:
    """Keep what the change under *key* is answered with, with the class that it is about; old answers go."""
    if key.int % _SWEPT == 0:
        old = Answered.made_at < func.now() - KEPT
        session.execute(delete(Answered).where(Answered.teacher_id == teacher_id, old))
    row = Answered(teacher_id=teacher_id, key=key, status=status, body=zlib.compress(body, 1), class_id=class_id)
    session.add(row)
