"""What was done with a teacher's account, said to her: sign-ins, shares, exports, deletions, and what a head did."""

from __future__ import annotations

import uuid
from collections.abc import Sequence

from sqlalchemy import delete, func, insert, select, text
from sqlalchemy.orm import Session

from .models import LogLine

MOST = 200  # lines that are shown
_KEPT = text("interval '1 year'")


def note(session: Session, teacher_id: uuid.UUID, said: str) -> None:
    """Have it *said* to a teacher, in a sentence. Lines of her own older than a year go."""
    session.execute(delete(LogLine).where(LogLine.teacher_id == teacher_id, LogLine.made_at < func.now() - _KEPT))
    # A head writes what she cannot read: nothing is asked back.
    table = insert(LogLine.__table__)  # type: ignore[arg-type]
    session.execute(table.values(teacher_id=teacher_id, id=uuid.uuid4(), said=said))


def lines(session: Session, teacher_id: uuid.UUID) -> Sequence[LogLine]:
    """What was said to a teacher, the newest first."""
    query = select(LogLine).where(LogLine.teacher_id == teacher_id)
    return session.scalars(query.order_by(LogLine.made_at.desc(), LogLine.id).limit(MOST)).all()
