"""Who teachers are to the school's own sign-in, and the ways there that have begun.

A way is come back from once, within ten minutes. What is known of a person is one hash of the provider and of what it
calls her for good (OpenID Connect Core 1.0, 5.7: never her address, which may become somebody else's).
"""

from __future__ import annotations

import secrets
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from hashlib import sha256

from sqlalchemy import delete, func, select, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from .doors import NAMED, hashed, take_away
from .models import Begun, Identity
from .walls import IDENTITY, reach

_BACK_WITHIN = timedelta(minutes=10)


class AnotherTeachersError(ValueError):
    """Somebody comes in by this identity already; the sentence does not say who."""


@dataclass(frozen=True, slots=True)
class Way:
    """What is sent along to the provider, or kept to tell that an answer is to what was asked."""

    state: str
    nonce: str
    verifier: str


def begin(session: Session, meant: str = "") -> Way:
    """A new way to the provider, *meant* for one thing; those that nobody came back from are taken away."""
    session.execute(delete(Begun).where(Begun.made_at < func.now() - _BACK_WITHIN))
    way = Way(secrets.token_urlsafe(32), secrets.token_urlsafe(32), secrets.token_urlsafe(48))
    session.add(Begun(state=hashed(way.state), meant=hashed(meant), nonce=way.nonce, verifier=way.verifier))
    return way


def come_back(session: Session, state: str, meant: str = "") -> Way | None:
    """The way that was begun with *state*, which is used up; None where there is none for what it was *meant*, or no
    more.
    """
    mine = delete(Begun).where(Begun.state == hashed(state), Begun.made_at >= func.now() - _BACK_WITHIN)
    found = session.execute(mine.returning(Begun.meant, Begun.nonce, Begun.verifier)).one_or_none()
    return Way(state, found.nonce, found.verifier) if found and found.meant == hashed(meant) else None


def identity_of(issuer: str, subject: str) -> str:
    """What is kept of a person: a hash, in hexadecimal digits."""
    return sha256(f"{issuer}\n{subject}".encode()).hexdigest()


def teacher_of(session: Session, identity: str) -> uuid.UUID | None:
    """The teacher who comes in by an *identity*."""
    reach(session, IDENTITY, identity)
    return session.scalar(select(Identity.teacher_id).where(Identity.hashed == identity))


def of(session: Session, teacher_id: uuid.UUID) -> Sequence[Identity]:
    """By whom a teacher comes in, the oldest first."""
    query = select(Identity).where(Identity.teacher_id == teacher_id)
    return session.scalars(query.order_by(Identity.made_at, Identity.hashed)).all()


def keep(session: Session, teacher_id: uuid.UUID, identity: str, name: str) -> None:
    """Have a teacher come in by an *identity*. Raises `AnotherTeachersError`."""
    if teacher_of(session, identity) == teacher_id:
        return
    made = insert(Identity).values(hashed=identity, teacher_id=teacher_id, name=name).on_conflict_do_nothing()
    if session.scalar(made.returning(Identity.hashed)) is None:
        raise AnotherTeachersError("This sign-in belongs to another desk here already.")


def seen(session: Session, teacher_id: uuid.UUID, identity: str) -> None:
    """Note that a teacher came in by an *identity*."""
    mine = update(Identity).where(Identity.teacher_id == teacher_id, Identity.hashed == identity)
    session.execute(mine.values(seen_at=func.now()))


def named(identity: Identity) -> str:
    """What an identity is called where it is told from others."""
    return identity.hashed[:NAMED]


def remove(session: Session, teacher_id: uuid.UUID, name: str) -> None:
    """Let nobody in any more by the identity that is `named` so. Raises `NotFoundError`."""
    take_away(
        session, {named(one): one for one in of(session, teacher_id)}, name, "This sign-in was taken away already."
    )
