"""A school from within: who teaches there, whom its head invites, and the ways that hold for all of them.

What decides who reaches what is no column that the application may change: joining and leaving are functions of the
database (`migrations`, 0013), which look for themselves whether there is an invitation, and whether a head asks.
"""

from __future__ import annotations

import secrets
import uuid
from collections.abc import Sequence
from datetime import timedelta

from sqlalchemy import ColumnElement, delete, func, select
from sqlalchemy.orm import Session

from .doors import NAMED, hashed
from .models import Invitation, School, Teacher
from .shelf import NotFoundError
from .walls import LINK, reach

INVITED = timedelta(days=7)  # as the database's own `keen_slate_join` has it


def teachers(session: Session, school: School) -> Sequence[Teacher]:
    """Who teaches in *school*, by name."""
    query = select(Teacher).where(Teacher.school_id == school.id)
    return session.scalars(query.order_by(func.lower(Teacher.name), Teacher.id)).all()


def invitations(session: Session, school: School) -> Sequence[Invitation]:
    """The invitations to *school* that still hold, the newest first."""
    query = select(Invitation).where(Invitation.school_id == school.id, ~_is_over())
    return session.scalars(query.order_by(Invitation.made_at.desc(), Invitation.secret)).all()


def invite(session: Session, school_id: uuid.UUID, name: str, head: bool = False) -> str:
    """The secret of a link by which somebody called *name* comes into a school, once, within seven days."""
    session.execute(delete(Invitation).where(Invitation.school_id == school_id, _is_over()))
    secret = secrets.token_urlsafe(32)
    session.add(Invitation(school_id=school_id, secret=hashed(secret), name=name, head=head))
    return secret


def named(invitation: Invitation) -> str:
    """What an invitation is called where it is told from others; its link cannot be made of it."""
    return invitation.secret[:NAMED]


def withdraw(session: Session, school: School, name: str) -> None:
    """Take the invitation that is `named` so away. Raises `NotFoundError`."""
    gone = delete(Invitation).where(
        Invitation.school_id == school.id, Invitation.secret.startswith(name, autoescape=True)
    )
    if len(name) != NAMED or not session.execute(gone.returning(Invitation.secret)).all():
        raise NotFoundError("This invitation was used or withdrawn already.")


def invited_by(session: Session, secret: str) -> tuple[Invitation, School] | None:
    """The invitation of a link, and the school; None where it was used, withdrawn, or is too old."""
    reach(session, LINK, hashed(secret))
    query = select(Invitation, School).join(School, School.id == Invitation.school_id)
    found = session.execute(query.where(Invitation.secret == hashed(secret), ~_is_over())).one_or_none()
    return (found[0], found[1]) if found else None


def join(session: Session, secret: str) -> bool:
    """Put the teacher at the desk in the school that a link invites to, and withdraw what she shared; whether it was
    good.
    """
    return bool(session.scalar(select(func.keen_slate_join(hashed(secret)))))


def dismiss(session: Session, teacher_id: uuid.UUID) -> None:
    """Take another teacher out of the school of the head at the desk. Raises `NotFoundError`."""
    if not session.scalar(select(func.keen_slate_dismiss(teacher_id))):
        raise NotFoundError("This teacher is not in your school any more.")


def _is_over() -> ColumnElement[bool]:
    return Invitation.made_at < func.now() - INVITED
