"""What is to be forgotten goes for good, whether or not anybody looks: functions of the database find it
(`migrations`, 0013 and 0016), for no teacher reaches what is another's.
"""

from __future__ import annotations

import time

from sqlalchemy import func, select
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from .database import open_engine

_DAY = 24 * 60 * 60  # seconds
_SOON = 10 * 60  # seconds after which it is tried again, where the database is away


def forget_leavers(session: Session) -> None:
    """Take away all that belongs to teachers who wished so, and whose way back is over."""
    session.execute(select(func.keen_slate_forget()))


def forget(url: str) -> int:
    """Take away that, and the sittings that are older than their classes are to remember; returns how many of these."""
    engine = open_engine(url)
    try:
        with Session(engine) as session, session.begin():
            forget_leavers(session)
            return session.scalar(select(func.keen_slate_forget_sittings())) or 0
    finally:
        engine.dispose()


def forget_daily(url: str) -> None:
    """Do it now and once a day, for good."""
    while True:
        try:
            forget(url)
            time.sleep(_DAY)
        except SQLAlchemyError:
            time.sleep(_SOON)
