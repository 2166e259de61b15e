"""A school: who teaches there, who is invited, and its ways."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, StringConstraints

from keen_slate.core.limits import TITLE_LENGTH

from .base import Strict, WaysMap
from .door import Address, CameBackIn, Password
from .ways import CodeOut, SettingOut

PersonsName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=TITLE_LENGTH)]
InvitationLink = Annotated[str, StringConstraints(min_length=1, max_length=120)]


class TeacherOut(BaseModel):
    """Who teaches in the school; *here* is who asks."""

    id: UUID
    name: str
    head: bool
    here: bool


class InvitationOut(BaseModel):
    """Who is invited, as a *head* or not, and until when her link holds."""

    id: str
    name: str
    head: bool
    ends_at: datetime


class SchoolOut(BaseModel):
    """The school of who asks (null: she is in none); *head* says whether she invites and sets its *ways*.

    *mail* says whether invitations can be sent by e-mail; *undo* and *redo*, for its head, what of the ways can be
    taken back.
    """

    school: str | None
    head: bool
    mail: bool
    teachers: list[TeacherOut]
    invitations: list[InvitationOut]
    settings: list[SettingOut]
    groups: list[CodeOut]
    ways: dict[str, str]
    version: int
    undo: str | None
    redo: str | None


class InviteIn(Strict):
    """Who is invited, as a *head* as well or not; the link goes to an *address*, too, where e-mail can be sent."""

    name: PersonsName
    head: bool = False
    address: Address | None = None


class LinkOut(BaseModel):
    """The address of a link that works once, as it is handed to whom it is for; *sent*: it is on its way by e-mail,
    too.
    """

    link: str
    sent: bool = False


class SchoolWaysIn(Strict):
    """The ways of the school, changed on a *version* of them."""

    ways: WaysMap
    version: int


class InvitedIn(Strict):
    """The secret part of an invitation."""

    link: InvitationLink


class InvitedOut(BaseModel):
    """Who is invited, and to which school; *here* is who is signed in in this browser, if anybody is."""

    school: str
    name: str
    here: str | None


class JoinIn(Strict):
    """Who comes in by an invitation, and what she will sign in by."""

    link: InvitationLink
    name: PersonsName
    address: Address
    password: Password


class JoinByProviderIn(CameBackIn):
    """Who comes in by an invitation, and has signed in at the school."""

    link: InvitationLink
    name: PersonsName
