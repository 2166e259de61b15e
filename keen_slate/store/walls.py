"""The second wall: what a session says of itself to PostgreSQL, whose row-level security lets it reach that and no
more.

The first wall is that every query names its teacher (`shelf`). This one holds where a query forgets to: the policies
stand in the migrations. What is said holds for a transaction, so that connections may be shared.
"""

from __future__ import annotations

import uuid

from sqlalchemy import Connection, event
from sqlalchemy.orm import Session, SessionTransaction

TEACHER = "teacher"  # whose rows may be reached
ADDRESS = "address"  # the account that may be looked at
SHOWN = "shown"  # the key of the set that may be read
IDENTITY = "identity"  # the hash of who somebody is to the school's own sign-in
LINK = "link"  # the hash of the invitation that may be looked at
_SAID = "said to the database"


def reach(session: Session, what: str, value: str | uuid.UUID) -> None:
    """Let *session* reach what *value* opens (`TEACHER`, `ADDRESS`, `IDENTITY`, `SHOWN`, `LINK`; "" for nothing), from
    now on.
    """
    connection = session.connection()
    session.info.setdefault(_SAID, {})[what] = str(value)
    _say(connection, what, str(value))


@event.listens_for(Session, "after_begin")
def _begun(session: Session, transaction: SessionTransaction, connection: Connection) -> None:
    if not transaction.nested:
        for what, value in session.info.get(_SAID, {}).items():
            _say(connection, what, value)


def _say(connection: Connection, what: str, value: str) -> None:
    connection.exec_driver_sql("SELECT set_config(%s, %s, true)", (f"keen_slate.{what}", value))
