"""What the keeper of an installation does: schools, their teachers, a link for who has forgotten a password."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy.orm import Session

from keen_slate.core.limits import TITLE_LENGTH
from keen_slate.store.accounts import account_at
from keen_slate.store.colleagues import everybody, school_named
from keen_slate.store.database import open_engine
from keen_slate.store.doors import new_link
from keen_slate.store.models import Teacher
from keen_slate.store.school import invite
from keen_slate.store.shelf import teacher_named

HOW = """./slate keeper school NAME           a school; its teachers are colleagues
./slate keeper teacher SCHOOL NAME   put a teacher (a new one, if need be) in a school, and print a link for her
./slate keeper head SCHOOL ADDRESS   its head: who signs in by this address, or else by a link to be handed to her
./slate keeper reset ADDRESS         a link for who signs in by this address: with it she names a new password
./slate keeper list                  all teachers: school, name, address"""


class KeeperError(ValueError):
    """It cannot be done; the sentence says why."""


def keep(database: str, address: str, words: list[str]) -> str:
    """Do what *words* say in a *database*, and hand back what to say; links begin with *address*.

    Raises `KeeperError`.
    """
    engine = open_engine(database)
    try:
        with Session(engine) as session, session.begin():
            return _done(session, address, words)
    finally:
        engine.dispose()


def _done(session: Session, address: str, words: list[str]) -> str:
    match words:
        case ["school", name] if _is_name(name):
            return f"The school {school_named(session, name.strip()).name} is there."
        case ["teacher", school, name] if _is_name(school) and _is_name(name):
            teacher = teacher_named(session, name.strip())
            teacher.school_id = school_named(session, school.strip()).id
            return _link(session, address, teacher.id)
        case ["head", school, found] if _is_name(school) and _is_name(found):
            held = school_named(session, school.strip())
            account = account_at(session, found)
            if account is None:
                return f"{address}/invited/{invite(session, held.id, found.strip(), head=True)}"
            teacher = session.get_one(Teacher, account.teacher_id)
            teacher.school_id, teacher.head = held.id, True
            return f"{teacher.name} is head of {held.name}."
        case ["reset", found] if (account := account_at(session, found)) is not None:
            return _link(session, address, account.teacher_id)
        case ["reset", _]:
            raise KeeperError("Nobody signs in by this address. ./slate keeper list shows who is there.")
        case ["list"]:
            return "\n".join(["\t".join(one) for one in everybody(session)])
    raise KeeperError(HOW)


def _is_name(name: str) -> bool:
    return 0 < len(name.strip()) <= TITLE_LENGTH


def _link(session: Session, address: str, teacher_id: UUID) -> str:
    return f"{address}/enter/{new_link(session, teacher_id)}"
