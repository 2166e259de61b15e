"""Who is signed in: links that work once, and the browsers that came in by them. Secrets are kept as hashes only.

A secret in a link or a cookie begins with the teacher's id, so that each is looked up among that teacher's rows.
"""

from __future__ import annotations

import secrets
import uuid
from datetime import datetime, timedelta
from hashlib import sha256

from sqlalchemy import ColumnElement, bindparam, delete, func, not_, or_, select, update
from sqlalchemy.orm import Session

from .database import where_there_is_room
from .models import EntryLink, SignIn, Teacher

LINK_LASTS = timedelta(hours=12)
SIGN_IN_LASTS = timedelta(days=30)
IDLE = timedelta(hours=12)  # after it was last used, a sign-in has ended
_SEEN_EVERY = timedelta(minutes=10)
_ID_LENGTH = 32  # hexadecimal digits of a teacher's id


def new_link(session: Session, teacher_id: uuid.UUID) -> str:
    """A secret that signs the teacher in once."""
    secret = teacher_id.hex + secrets.token_urlsafe(24)
    session.add(EntryLink(teacher_id=teacher_id, secret=_hashed(secret)))
    return secret


def enter(session: Session, link_secret: str) -> str | None:
    """The secret of a new sign-in, for a link that has not been used yet; None for any other. The link is used up."""
    teacher_id = _teacher_of(link_secret)
    if teacher_id is None:
        return None
    used = delete(EntryLink).where(EntryLink.teacher_id == teacher_id, EntryLink.secret == _hashed(link_secret))
    made_at = session.scalar(used.returning(EntryLink.made_at))
    if made_at is None or made_at < _now(session) - LINK_LASTS:
        return None
    session.execute(delete(SignIn).where(SignIn.teacher_id == teacher_id, _ended()))
    secret = teacher_id.hex + secrets.token_urlsafe(32)
    session.add(SignIn(teacher_id=teacher_id, secret=_hashed(secret)))
    return secret


def signed_in(session: Session, secret: str) -> Teacher | None:
    """The teacher who came in with *secret*; None where that sign-in has ended."""
    teacher_id = _teacher_of(secret)
    if teacher_id is None:
        return None
    found = session.execute(_SIGNED_IN, {"teacher": teacher_id, "hashed": _hashed(secret)}).one_or_none()
    if found is None:
        return None
    if found[1] < found[2] - _SEEN_EVERY:
        seen = update(SignIn).where(SignIn.teacher_id == teacher_id, SignIn.secret == _hashed(secret))
        with where_there_is_room(session):
            session.execute(seen.values(seen_at=func.now()))
    return found[0]


def _ended() -> ColumnElement[bool]:
    return or_(SignIn.seen_at < func.now() - IDLE, SignIn.made_at < func.now() - SIGN_IN_LASTS)


# Asked with every request, so made once.
_SIGNED_IN = (
    select(Teacher, SignIn.seen_at, func.now())
    .join(SignIn, SignIn.teacher_id == Teacher.id)
    .where(SignIn.teacher_id == bindparam("teacher"), SignIn.secret == bindparam("hashed"), not_(_ended()))
)


def leave(session: Session, secret: str) -> None:
    """End the sign-in of *secret*."""
    teacher_id = _teacher_of(secret)
    session.execute(delete(SignIn).where(SignIn.teacher_id == teacher_id, SignIn.secret == _hashed(secret)))


def _hashed(secret: str) -> str:
    return sha256(secret.encode()).hexdigest()


def _teacher_of(secret: str) -> uuid.UUID | None:
    try:
        return uuid.UUID(secret[:_ID_LENGTH])
    except ValueError:
        return None


def _now(session: Session) -> datetime:
    return session.scalars(select(func.now())).one()
