"""Who is signed in: links that work once, and the browsers that came in by them. Secrets are kept as hashes only.

A secret in a link or a cookie begins with the teacher's id, so that each is looked up among that teacher's rows.
"""

from __future__ import annotations

import secrets
import uuid
from collections.abc import Mapping
from datetime import datetime, timedelta
from hashlib import sha256

from sqlalchemy import ColumnElement, bindparam, delete, func, insert, not_, or_, select, update
from sqlalchemy.orm import Session, joinedload

from . import log
from .database import where_there_is_room
from .forgetting import forget_leavers
from .models import EntryLink, SignIn, Teacher
from .shelf import NotFoundError
from .walls import TEACHER, reach

LINK_LASTS = timedelta(hours=12)
SIGN_IN_LASTS = timedelta(days=30)
IDLE = timedelta(hours=12)  # after it was last used, a sign-in has ended
WAY_BACK = timedelta(days=14)  # after an account was to end
_JUST = timedelta(hours=1)
_SEEN_EVERY = timedelta(minutes=10)
NAMED = 16  # digits of a hash
_ID_LENGTH = 32  # hexadecimal digits of a teacher's id


def new_link(session: Session, teacher_id: uuid.UUID) -> str:
    """A secret that signs the teacher in once."""
    secret = teacher_id.hex + secrets.token_urlsafe(24)
    # Who makes a link for another cannot read it afterwards: nothing is asked back.
    table = insert(EntryLink.__table__)  # type: ignore[arg-type]
    session.execute(table.values(teacher_id=teacher_id, secret=hashed(secret)))
    return secret


def enter(session: Session, link_secret: str) -> str | None:
    """The secret of a new sign-in, for a link that has not been used yet; None for any other. The link is used up."""
    teacher_id = _teacher_of(link_secret)
    if teacher_id is None:
        return None
    forget_leavers(session)
    reach(session, TEACHER, teacher_id)
    used = delete(EntryLink).where(EntryLink.teacher_id == teacher_id, EntryLink.secret == hashed(link_secret))
    made_at = session.scalar(used.returning(EntryLink.made_at))
    if made_at is None or made_at < _now(session) - LINK_LASTS:
        return None
    return begin(session, teacher_id, by_link=True)


def begin(session: Session, teacher_id: uuid.UUID, by_link: bool, by: str = "your password") -> str:
    """The secret of a new sign-in, *by_link* or *by* what else; those of the teacher that have ended are taken away."""
    reach(session, TEACHER, teacher_id)
    session.execute(delete(SignIn).where(SignIn.teacher_id == teacher_id, _ended()))
    secret = teacher_id.hex + secrets.token_urlsafe(32)
    session.add(SignIn(teacher_id=teacher_id, secret=hashed(secret), by_link=by_link))
    log.note(session, teacher_id, f"You came in by {'a link' if by_link else by}.")
    return secret


def sign_ins(session: Session, teacher_id: uuid.UUID) -> list[SignIn]:
    """The browsers in which a teacher is signed in, the one used last first."""
    query = select(SignIn).where(SignIn.teacher_id == teacher_id, not_(_ended()))
    return list(session.scalars(query.order_by(SignIn.seen_at.desc(), SignIn.made_at.desc())))


def is_of(sign_in: SignIn, secret: str) -> bool:
    """Whether *sign_in* is the one of *secret*."""
    return sign_in.secret == hashed(secret)


def has_just_come_by_link(session: Session, teacher_id: uuid.UUID, secret: str) -> bool:
    """Whether the sign-in of *secret* was made by a link a short while ago: who has that may name a new password."""
    query = select(SignIn.by_link).where(
        SignIn.teacher_id == teacher_id, SignIn.secret == hashed(secret), SignIn.made_at > func.now() - _JUST
    )
    return bool(session.scalar(query))


def end(session: Session, teacher_id: uuid.UUID, named: str) -> int:
    """End the sign-in that *named* (the beginning of its hash) tells; how many there were."""
    mine = delete(SignIn).where(SignIn.teacher_id == teacher_id, SignIn.secret.startswith(named, autoescape=True))
    return len(session.execute(mine.returning(SignIn.secret)).all())


def end_others(session: Session, teacher_id: uuid.UUID, secret: str) -> None:
    """End all sign-ins of a teacher but that of *secret*."""
    session.execute(delete(SignIn).where(SignIn.teacher_id == teacher_id, SignIn.secret != hashed(secret)))


def signed_in(session: Session, secret: str) -> Teacher | None:
    """The teacher who came in with *secret*; None where that sign-in has ended."""
    teacher_id = _teacher_of(secret)
    if teacher_id is None:
        return None
    reach(session, TEACHER, teacher_id)
    found = session.execute(_SIGNED_IN, {"teacher": teacher_id, "hashed": hashed(secret)}).one_or_none()
    if found is None:
        reach(session, TEACHER, "")
        return None
    if found[1] < found[2] - _SEEN_EVERY:
        seen = update(SignIn).where(SignIn.teacher_id == teacher_id, SignIn.secret == hashed(secret))
        with where_there_is_room(session):
            session.execute(seen.values(seen_at=func.now()))
    return found[0]


def _ended() -> ColumnElement[bool]:
    return or_(SignIn.seen_at < func.now() - IDLE, SignIn.made_at < func.now() - SIGN_IN_LASTS)


# Asked with every request, so made once.
_SIGNED_IN = (
    select(Teacher, SignIn.seen_at, func.now())
    .join(SignIn, SignIn.teacher_id == Teacher.id)
    .options(joinedload(Teacher.school))
    .where(SignIn.teacher_id == bindparam("teacher"), SignIn.secret == bindparam("hashed"), not_(_ended()))
    .where(or_(Teacher.leaves_at.is_(None), Teacher.leaves_at > func.now()))
)


def leave(session: Session, secret: str) -> None:
    """End the sign-in of *secret*."""
    teacher_id = _teacher_of(secret)
    session.execute(delete(SignIn).where(SignIn.teacher_id == teacher_id, SignIn.secret == hashed(secret)))


def hashed(secret: str) -> str:
    """What is kept of a *secret*; its first `NAMED` digits tell it from others, and open nothing."""
    return sha256(secret.encode()).hexdigest()


def take_away(session: Session, rows: Mapping[str, object], name: str, gone: str) -> None:
    """Take the one of some *rows* away that is called *name*.

    Raises `NotFoundError`, with what is said where it is *gone*.
    """
    if name not in rows:
        raise NotFoundError(gone)
    session.delete(rows[name])


def _teacher_of(secret: str) -> uuid.UUID | None:
    try:
        return uuid.UUID(secret[:_ID_LENGTH])
    except ValueError:
        return None


def _now(session: Session) -> datetime:
    return session.scalars(select(func.now())).one()
