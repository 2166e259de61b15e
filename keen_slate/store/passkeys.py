"""Passkeys (WebAuthn, level 2): the public keys that a teacher's devices have made, and the challenges that are out.

A challenge is answered once, within five minutes; what answers it is looked at by `webauthn`.
"""

from __future__ import annotations

import secrets
import uuid
from collections.abc import Sequence
from datetime import timedelta

from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session

from .doors import NAMED, hashed, take_away
from .models import Challenge, Passkey

MOST = 20  # of a teacher
_ANSWERED_WITHIN = timedelta(minutes=5)


class FullOfKeysError(ValueError):
    """A teacher has as many passkeys as she may have."""


def new_challenge(session: Session) -> bytes:
    """A challenge that nobody has seen yet; those that are too old are taken away."""
    session.execute(delete(Challenge).where(Challenge.made_at < func.now() - _ANSWERED_WITHIN))
    made = secrets.token_bytes(32)
    session.add(Challenge(said=made.hex()))
    return made


def take_challenge(session: Session, said: bytes) -> bool:
    """Whether *said* is a challenge that is out; it is no more afterwards."""
    mine = delete(Challenge).where(Challenge.said == said.hex(), Challenge.made_at >= func.now() - _ANSWERED_WITHIN)
    return bool(session.execute(mine.returning(Challenge.said)).all())


def of(session: Session, teacher_id: uuid.UUID) -> Sequence[Passkey]:
    """The passkeys of a teacher, the oldest first."""
    query = select(Passkey).where(Passkey.teacher_id == teacher_id)
    return session.scalars(query.order_by(Passkey.made_at, Passkey.id)).all()


def named(passkey: Passkey) -> str:
    """What a passkey is called where it is told from others."""
    return hashed(passkey.id)[:NAMED]


def keep(session: Session, teacher_id: uuid.UUID, key_id: str, public_key: bytes, count: int, name: str) -> None:
    """Keep a new passkey. Raises `FullOfKeysError`."""
    if len(of(session, teacher_id)) >= MOST:
        raise FullOfKeysError(f"There are {MOST} passkeys already. Take one away first.")
    session.add(Passkey(teacher_id=teacher_id, id=key_id, public_key=public_key, count=count, name=name))


def one(session: Session, teacher_id: uuid.UUID, key_id: str) -> Passkey | None:
    """The passkey of a teacher that a device calls *key_id*."""
    return session.get(Passkey, (teacher_id, key_id))


def used(session: Session, passkey: Passkey, count: int) -> None:
    """Note that a passkey was used, and how often its device says."""
    mine = update(Passkey).where(Passkey.teacher_id == passkey.teacher_id, Passkey.id == passkey.id)
    session.execute(mine.values(count=count, seen_at=func.now()))


def remove(session: Session, teacher_id: uuid.UUID, name: str) -> None:
    """Take the passkey that is `named` so away. Raises `NotFoundError`."""
    take_away(
        session, {named(one): one for one in of(session, teacher_id)}, name, "This passkey was taken away already."
    )
