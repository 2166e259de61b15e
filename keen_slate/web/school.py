"""A school from within: its teachers see each other's names; its head invites, lets in, takes out, sets its ways.

A head sees no set that is not shared with her, no class and no answer: to the database she is a teacher like any other.
"""

from __future__ import annotations

import uuid
from typing import NoReturn
from uuid import UUID

from apiflask import APIBlueprint, HTTPError
from flask import Response, request

from keen_slate.core.ways.settings import Ways
from keen_slate.core.ways.voices import voice_of
from keen_slate.store import accounts, doors, log, walls
from keen_slate.store import school as schools
from keen_slate.store.house import SchoolWays, ways_of
from keen_slate.store.models import School, Teacher
from keen_slate.store.shelf import NotFoundError

from . import door, mail, session
from .account import may_try
from .schemas.base import VersionIn
from .schemas.school import (
    InvitationOut,
    InvitedIn,
    InvitedOut,
    InviteIn,
    JoinIn,
    LinkOut,
    SchoolOut,
    SchoolWaysIn,
    TeacherOut,
)
from .session import database
from .ways import groups_out, settings_out

blueprint = APIBlueprint("school", __name__, url_prefix="/api")
USED = "This invitation was used or withdrawn, or is older than seven days."
INVITATION = "{} invites you to Keen Slate. By this link you come in, once, within seven days:\n\n{}\n"
HEADS_ONLY = "Only the head of a school may do this."


@blueprint.get("/school")
@blueprint.output(SchoolOut)
def get_school() -> SchoolOut:
    """The school, its teachers by name; for its head, who is invited."""
    return _school_out(door.teacher())


def _school_out(teacher: Teacher) -> SchoolOut:
    school = teacher.school
    voice = voice_of(Ways.of(ways_of(teacher)))
    held = school if school is not None and teacher.head else None
    undo, redo = SchoolWays(database(), held).said() if held else (None, None)
    return SchoolOut(
        school=school.name if school else None,
        head=held is not None,
        mail=mail.works(),
        teachers=[
            TeacherOut(id=one.id, name=one.name, head=one.head, here=one.id == teacher.id)
            for one in (schools.teachers(database(), school) if school else [])
        ],
        invitations=[
            InvitationOut(id=schools.named(one), name=one.name, head=one.head, ends_at=one.made_at + schools.INVITED)
            for one in (schools.invitations(database(), held) if held else [])
        ],
        settings=settings_out(voice) if held else [],
        groups=groups_out(voice) if held else [],
        ways=dict(school.ways) if school else {},
        version=school.version if school else 1,
        undo=undo,
        redo=redo,
    )


@blueprint.put("/school/ways")
@blueprint.input(SchoolWaysIn)
@blueprint.output(SchoolOut)
def put_school_ways(json_data: SchoolWaysIn) -> SchoolOut:
    """Give the school other ways; teachers, sets and examples with ways of their own keep them."""
    school = _headed()
    Ways.of(json_data.ways)
    SchoolWays(database(), school).put(json_data.version, json_data.ways)
    return _school_out(door.teacher())


@blueprint.post("/school/ways/undo")
@blueprint.input(VersionIn)
@blueprint.output(SchoolOut)
def undo(json_data: VersionIn) -> SchoolOut:
    """Take back the last change of the ways of the school."""
    SchoolWays(database(), _headed()).step(json_data.version, -1)
    return _school_out(door.teacher())


@blueprint.post("/school/ways/redo")
@blueprint.input(VersionIn)
@blueprint.output(SchoolOut)
def redo(json_data: VersionIn) -> SchoolOut:
    """Do again what was undone."""
    SchoolWays(database(), _headed()).step(json_data.version, +1)
    return _school_out(door.teacher())


@blueprint.post("/school/invitations")
@blueprint.input(InviteIn)
@blueprint.output(LinkOut, status_code=201)
def invite(json_data: InviteIn) -> LinkOut:
    """Invite somebody to the school by a link, which is shown this once."""
    session.keep_no_answer()
    school, address = _headed(), json_data.address
    if address is not None:
        may_try(f"invited {address}")
    secret = schools.invite(database(), school.id, json_data.name, json_data.head)
    log.note(database(), door.teacher().id, f"You invited {json_data.name}{' as a head' if json_data.head else ''}.")
    made = _link(f"invited/{secret}")
    if address is not None and mail.works():
        mail.send_later(address, f"Keen Slate: {school.name} invites you", INVITATION.format(school.name, made.link))
        made.sent = True
    return made


@blueprint.delete("/school/invitations/<string:named>")
@blueprint.output({}, status_code=204)
def withdraw(named: str) -> str:
    """Withdraw an invitation."""
    schools.withdraw(database(), _headed(), named)
    return ""


@blueprint.post("/school/teachers/<uuid:teacher_id>/links")
@blueprint.output(LinkOut, status_code=201)
def let_in_again(teacher_id: UUID) -> LinkOut:
    """A link for a teacher of the school who has forgotten her password; it says so in her log."""
    session.keep_no_answer()
    found = _colleague(teacher_id)
    secret = doors.new_link(database(), found.id)
    log.note(database(), found.id, f"{door.teacher().name}, head of the school, made a link to come in as you.")
    return _link(f"enter/{secret}")


@blueprint.delete("/school/teachers/<uuid:teacher_id>")
@blueprint.output({}, status_code=204)
def take_out(teacher_id: UUID) -> str:
    """Take a teacher out of the school; what she made stays hers, what she shared is withdrawn."""
    found = _colleague(teacher_id)
    log.note(database(), found.id, f"{door.teacher().name}, head of the school, took you out of it.")
    database().flush()
    schools.dismiss(database(), found.id)
    return ""


def _headed() -> School:
    teacher = door.teacher()
    if teacher.school is None or not teacher.head:
        raise HTTPError(403, HEADS_ONLY)
    return teacher.school


def _colleague(teacher_id: UUID) -> Teacher:
    school = _headed()
    found = database().get(Teacher, teacher_id)
    if found is None or found.school_id != school.id or found.id == door.teacher().id:
        raise NotFoundError("This teacher is not in your school any more.")
    return found


def _link(path: str) -> LinkOut:
    return LinkOut(link=f"{request.host_url}{path}")


# By an invitation -----------------------------------------------------------------------------------------------------


@blueprint.post("/invited")
@blueprint.input(InvitedIn)
@blueprint.output(InvitedOut)
@blueprint.doc(responses={403: "It was used or withdrawn, or is too old."})
def invited(json_data: InvitedIn) -> InvitedOut:
    """Who is invited by a link, and where to; looking uses nothing up."""
    found = schools.invited_by(database(), json_data.link)
    if found is None:
        _refuse()
    invitation, school = found
    here = door.at_desk()
    return InvitedOut(school=school.name, name=invitation.name, here=here.name if here else None)


@blueprint.post("/join")
@blueprint.input(JoinIn)
@blueprint.doc(responses={204: "The cookie of the sign-in is set.", 403: "It was used or withdrawn, or is too old."})
def join(json_data: JoinIn) -> Response:
    """Come in by an invitation, with a name, an address and a password: a new teacher of the school."""
    new = new_teacher(json_data.link, json_data.name)
    accounts.keep(database(), new, json_data.address, json_data.password)
    return door.with_cookie(doors.begin(database(), new, by_link=False))


@blueprint.post("/school/joined")
@blueprint.input(InvitedIn)
@blueprint.output({}, status_code=204)
@blueprint.doc(responses={403: "It was used or withdrawn, or is too old."})
def join_too(json_data: InvitedIn) -> str:
    """Join a school as the teacher who is at the desk; what she shared in another one is withdrawn."""
    if not schools.join(database(), json_data.link):
        _refuse()
    log.note(database(), door.teacher().id, "You joined a school by an invitation.")
    return ""


def new_teacher(link: str, name: str) -> UUID:
    """A new teacher called *name*, in the school that a link invites to. Raises `HTTPError` 403 where it is over."""
    new = uuid.uuid4()
    walls.reach(database(), walls.TEACHER, new)
    database().add(Teacher(id=new, name=name))
    database().flush()
    if not schools.join(database(), link):
        _refuse()
    log.note(database(), new, "You came in by an invitation.")
    return new


def _refuse() -> NoReturn:
    raise HTTPError(403, USED)
