"""The address and the password that a teacher signs in by, and the tries, counted where every process sees them.

A password is kept by argon2id (RFC 9106) with the parameters of its library; where those rise, it is kept anew at the
next sign-in. A try is counted before it is looked at, in a transaction of its own, so that no number of processes lets
more through.
"""

from __future__ import annotations

import secrets
import unicodedata
import uuid
from datetime import timedelta
from functools import cache
from hashlib import sha256
from threading import BoundedSemaphore

from argon2 import PasswordHasher
from argon2.exceptions import VerifyMismatchError
from sqlalchemy import Engine, Interval, case, delete, func, literal, select, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from keen_slate.core.limits import LEAST_PASSWORD

from .models import Account, Tries
from .walls import ADDRESS, reach

WITHIN = timedelta(minutes=15)  # in which tries are counted together
OF_ACCOUNT = 10  # tries for an address, whether anybody has it or not
FROM_ADDRESS = 100  # from an address of the network: a whole school may have one
_KEPT = timedelta(days=1)
_SOME = 100  # old ones are taken away at a time
_AT_ONCE = BoundedSemaphore(2)  # each holds 64 MB while it counts
_HASHER = PasswordHasher()


class WeakPasswordError(ValueError):
    """A password that others would guess; the sentence says why."""


class TakenError(ValueError):
    """An address that cannot be taken; the sentence does not say whose it is."""


def plain_address(address: str) -> str:
    """*address* as it is kept: without what stands around it, in small letters.

    >>> plain_address(" Sedge@School.Example ")
    'sedge@school.example'
    """
    return unicodedata.normalize("NFKC", address).strip().lower()


def account_of(session: Session, teacher_id: uuid.UUID) -> Account | None:
    """What a teacher signs in by."""
    return session.scalars(select(Account).where(Account.teacher_id == teacher_id)).one_or_none()


def account_at(session: Session, address: str) -> Account | None:
    """What is signed in by at *address*."""
    reach(session, ADDRESS, plain_address(address))
    return session.get(Account, plain_address(address))


def is_right(account: Account | None, password: str) -> bool:
    """Whether *password* is that of *account*. It takes as long where there is none."""
    with _AT_ONCE:
        try:
            _HASHER.verify(account.password if account else _nobodys(), _plain(password))
        except VerifyMismatchError:
            return False
    return account is not None


def keep(session: Session, teacher_id: uuid.UUID, address: str, password: str) -> None:
    """Have a teacher sign in by *address* and *password*. Raises `WeakPasswordError`, `TakenError`."""
    address = plain_address(address)
    if said := _weakness(password, address):
        raise WeakPasswordError(said)
    kept = _hashed(password)
    session.execute(delete(Account).where(Account.teacher_id == teacher_id))
    made = insert(Account).values(address=address, teacher_id=teacher_id, password=kept).on_conflict_do_nothing()
    if session.scalar(made.returning(Account.address)) is None:
        raise TakenError("This address cannot be taken. Take another one.")


def keep_anew(session: Session, account: Account, password: str) -> None:
    """Keep the right *password* as it is kept by now, where its parameters have risen since."""
    if _HASHER.check_needs_rehash(account.password):
        mine = update(Account).where(Account.address == account.address)
        session.execute(mine.values(password=_hashed(password)))


def _hashed(password: str) -> str:
    with _AT_ONCE:
        return _HASHER.hash(_plain(password))


def _plain(password: str) -> str:
    """The same for all ways in which a keyboard writes the same (NIST SP 800-63B, 5.1.1.2)."""
    return unicodedata.normalize("NFKC", password)


def _weakness(password: str, address: str) -> str:
    """Why others would guess *password*; "" where they would not."""
    plain = _plain(password).lower()
    if len(plain) < LEAST_PASSWORD:
        return f"A password has {LEAST_PASSWORD} characters or more."
    if len(set(plain)) < LEAST_PASSWORD // 2:
        return "This is hardly more than one character again and again."
    if plain in _common() or plain in (address, address.partition("@")[0]):
        return "Others would try this one first."
    return ""


@cache
def _common() -> frozenset[str]:
    """The passwords that are used most, as far as they are long enough."""
    from zxcvbn.frequency_lists import FREQUENCY_LISTS  # large, and seldom needed

    return frozenset(one for one in FREQUENCY_LISTS["passwords"] if len(one) >= LEAST_PASSWORD)


@cache
def _nobodys() -> str:
    return _HASHER.hash(secrets.token_urlsafe(16))


# Tries ----------------------------------------------------------------------------------------------------------------


def may_try(engine: Engine, address: str, remote: str) -> bool:
    """Count a try for *address* from the network's address *remote*; whether it may be made."""
    counts = [(_subject("account", plain_address(address)), OF_ACCOUNT), (_subject("from", remote), FROM_ADDRESS)]
    with engine.begin() as connection:
        old_ones = select(Tries.subject).where(Tries.since < func.now() - literal(_KEPT, Interval)).limit(_SOME)
        connection.execute(delete(Tries).where(Tries.subject.in_(old_ones.with_for_update(skip_locked=True))))
        made = []
        for subject, most in sorted(counts):  # in one order, so that two never wait for each other
            old = Tries.since < func.now() - literal(WITHIN, Interval)
            counted = insert(Tries).values(subject=subject, count=1)
            again = counted.on_conflict_do_update(
                index_elements=[Tries.subject],
                set_={
                    "count": case((old, 1), else_=Tries.count + 1),
                    "since": case((old, func.now()), else_=Tries.since),
                },
            )
            made.append((connection.execute(again.returning(Tries.count)).scalar_one(), most))
    return all(count <= most for count, most in made)


def forgive(engine: Engine, address: str, remote: str) -> None:
    """Forget what was tried for an address whose password was right, and the try itself of where it came from."""
    with engine.begin() as connection:
        connection.execute(delete(Tries).where(Tries.subject == _subject("account", plain_address(address))))
        from_there = update(Tries).where(Tries.subject == _subject("from", remote), Tries.count > 0)
        connection.execute(from_there.values(count=Tries.count - 1))


def _subject(kind: str, said: str) -> str:
    return sha256(f"{kind}:{said}".encode()).hexdigest()
