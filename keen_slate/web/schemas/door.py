"""What comes to the door, and how a teacher comes in."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, StringConstraints

from keen_slate.core.limits import ADDRESS_LENGTH, PASSWORD_LENGTH

from .base import Strict

# Something on either side of one @, as a browser's field for addresses wants it; no more is asked of it.
Address = Annotated[
    str, StringConstraints(strip_whitespace=True, max_length=ADDRESS_LENGTH, pattern=r"^[^@\s]+@[^@\s]+$")
]
Password = Annotated[str, StringConstraints(min_length=1, max_length=PASSWORD_LENGTH)]


class EnterIn(Strict):
    """The secret part of a link to come in by."""

    link: Annotated[str, StringConstraints(min_length=1, max_length=120)]


class SignInIn(Strict):
    """An address and the password that goes with it."""

    address: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=ADDRESS_LENGTH)]
    password: Password


class PasswordIn(Strict):
    """What is to be signed in by from now on; *now* is the present password, where there is one."""

    address: Address
    password: Password
    now: Password | None = None


class SignInOut(BaseModel):
    """A browser that is signed in: when it came in, when it was used last; *here* is the one that asks."""

    id: str
    made_at: datetime
    seen_at: datetime
    by_link: bool
    here: bool


class AccountOut(BaseModel):
    """How a teacher comes in. *asks_now* says that a new password wants the present one beside it."""

    name: str
    address: str | None
    asks_now: bool
    sign_ins: list[SignInOut]
