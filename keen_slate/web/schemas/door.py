"""What comes to the door, and how a teacher comes in."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from pydantic import BaseModel, StringConstraints

from keen_slate.core.limits import ADDRESS_LENGTH, PASSWORD_LENGTH, TITLE_LENGTH

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


class WayInOut(BaseModel):
    """What a page to sign in may offer: a link by e-mail; the school's own sign-in, by its name."""

    mail: bool
    provider: str | None


class ProviderOut(BaseModel):
    """Where the school's own sign-in is, and the *state* that must come back from there."""

    address: str
    state: str


class CameBackIn(Strict):
    """What a browser brings back from the school's own sign-in."""

    code: Annotated[str, StringConstraints(min_length=1, max_length=2000)]
    state: Annotated[str, StringConstraints(min_length=1, max_length=120)]


class IdentityOut(BaseModel):
    """Who a teacher is to the school's own sign-in, as it is called there."""

    id: str
    name: str
    made_at: datetime
    seen_at: datetime | None


class ForgottenIn(Strict):
    """An address whose password was forgotten."""

    address: Address


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


class LogLineOut(BaseModel):
    """What was done with an account, in a sentence."""

    said: str
    at: datetime


class NowIn(Strict):
    """The present password, *now*, where it is asked for."""

    now: Password | None = None


class BroughtDeskOut(BaseModel):
    """How much of a file was brought in; *ways*: whether those for all sets were; *left*: what was not, and why."""

    sets: int
    classes: int
    scenarios: int
    ways: bool
    left: list[str]


class PasskeyOptionsOut(BaseModel):
    """What a browser hands to a device, in the form of the standard (WebAuthn)."""

    options: dict[str, Any]


class PasskeyAnswerIn(Strict):
    """What a device has answered, in the form of the standard."""

    credential: dict[str, Any]


class PasskeyIn(PasskeyAnswerIn):
    """A passkey that a device has made, and what its teacher calls it; *now* is the present password, where
    asked for.
    """

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=TITLE_LENGTH)]
    now: Password | None = None


class PasskeyOut(BaseModel):
    id: str
    name: str
    made_at: datetime
    seen_at: datetime | None


class AccountOut(BaseModel):
    """How a teacher comes in; *provider* is what the school's own sign-in is called. *asks_now* says that the present
    password is wanted where it matters most.

    At *leaves_at* all that is hers goes, where she wished so. *log* is what was done, the newest first.
    """

    name: str
    address: str | None
    asks_now: bool
    provider: str | None
    school: str | None
    leaves_at: datetime | None
    sign_ins: list[SignInOut]
    passkeys: list[PasskeyOut]
    identities: list[IdentityOut]
    log: list[LogLineOut]
