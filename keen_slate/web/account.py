"""How a teacher comes in by herself: an address and a password of her own, and the browsers that are signed in.

No message says whether an address is known: to a wrong password and to an unknown address the answer is the same.
"""

from __future__ import annotations

from datetime import UTC, datetime
from uuid import UUID

from apiflask import APIBlueprint, HTTPError
from flask import Response, current_app, request
from sqlalchemy.orm import Session

from keen_slate.core.days import day_of
from keen_slate.store import accounts, doors, forgetting, identities, log, passkeys
from keen_slate.store.models import Account

from . import door, session
from .schemas.door import AccountOut, IdentityOut, LogLineOut, NowIn, PasskeyOut, PasswordIn, SignInIn, SignInOut

blueprint = APIBlueprint("account", __name__, url_prefix="/api")
WRONG = "This address and this password do not belong together."
TOO_MANY = "There were too many tries. Wait a quarter of an hour, or come in by a link."


@blueprint.post("/sign-in")
@blueprint.input(SignInIn)
@blueprint.doc(
    summary="Come in by an address and a password",
    responses={204: "The cookie of the sign-in is set.", 403: "They do not belong together.", 429: "Too many tries"},
)
def sign_in(json_data: SignInIn) -> Response:
    address = json_data.address
    may_try(address)
    forgetting.forget_leavers(session.database())
    with Session(session.engine(), expire_on_commit=False) as looking:
        account = accounts.account_at(looking, address)
    if not accounts.is_right(account, json_data.password) or account is None:
        raise HTTPError(403, WRONG)
    accounts.forgive(session.engine(), address, _remote())
    made = doors.begin(session.database(), account.teacher_id, by_link=False)
    accounts.keep_anew(session.database(), account, json_data.password)
    return door.with_cookie(made)


@blueprint.get("/account")
@blueprint.output(AccountOut)
def get_account() -> AccountOut:
    """The address that the teacher signs in by, and where she is signed in."""
    teacher, here = door.teacher(), door.secret()
    account = accounts.account_of(session.database(), teacher.id)
    provider = current_app.config["PROVIDER"]
    return AccountOut(
        name=teacher.name,
        address=account.address if account else None,
        asks_now=_asks_now(account),
        provider=provider.name if provider else None,
        school=teacher.school.name if teacher.school else None,
        leaves_at=teacher.leaves_at,
        passkeys=[
            PasskeyOut(id=passkeys.named(one), name=one.name, made_at=one.made_at, seen_at=one.seen_at)
            for one in passkeys.of(session.database(), teacher.id)
        ],
        identities=[
            IdentityOut(id=identities.named(one), name=one.name, made_at=one.made_at, seen_at=one.seen_at)
            for one in identities.of(session.database(), teacher.id)
        ],
        log=[LogLineOut(said=one.said, at=one.made_at) for one in log.lines(session.database(), teacher.id)],
        sign_ins=[
            SignInOut(
                id=one.secret[:doors.NAMED], made_at=one.made_at, seen_at=one.seen_at, by_link=one.by_link,
                here=doors.is_of(one, here),
            )
            for one in doors.sign_ins(session.database(), teacher.id)
        ],
    )  # fmt: skip


@blueprint.put("/account/password")
@blueprint.input(PasswordIn)
@blueprint.doc(
    responses={204: "It holds from now on; all other browsers are signed out.", 403: "The present one is another."}
)
def set_password(json_data: PasswordIn) -> Response:
    """An address and a password to sign in by. Who has just come in by a link need not know the present password."""
    session.keep_no_answer()  # what would be kept of it begins with what was sent
    teacher = door.teacher()
    must_be_herself(teacher.id, json_data.now)
    accounts.keep(session.database(), teacher.id, json_data.address, json_data.password)
    log.note(session.database(), teacher.id, "You set an address and a password; other browsers were signed out.")
    made = doors.begin(session.database(), teacher.id, by_link=False)
    doors.end_others(session.database(), teacher.id, made)
    return door.with_cookie(made)


@blueprint.post("/account/leaving")
@blueprint.input(NowIn)
@blueprint.doc(
    responses={204: "In 14 days all is gone; every browser is signed out.", 403: "The present password is another."}
)
def leave_for_good(json_data: NowIn) -> Response:
    """Have all that is one's own taken away for good, 14 days from now; whoever comes in before may stay."""
    session.keep_no_answer()
    teacher = door.teacher()
    must_be_herself(teacher.id, json_data.now)
    teacher.leaves_at = datetime.now(UTC) + doors.WAY_BACK
    log.note(session.database(), teacher.id, f"You had your account end on {day_of(teacher.leaves_at)}.")
    doors.end_others(session.database(), teacher.id, "")
    return door.without_cookie()


@blueprint.delete("/account/leaving")
@blueprint.output({}, status_code=204)
def stay() -> str:
    """Keep the account after all."""
    teacher = door.teacher()
    teacher.leaves_at = None
    log.note(session.database(), teacher.id, "You kept your account after all.")
    return ""


@blueprint.delete("/account/sign-ins")
@blueprint.output({}, status_code=204)
def end_others() -> str:
    """Sign all other browsers out."""
    doors.end_others(session.database(), door.teacher().id, door.secret())
    return ""


@blueprint.delete("/account/sign-ins/<string:named>")
@blueprint.output({}, status_code=204)
def end(named: str) -> str:
    """Sign one browser out."""
    if len(named) != doors.NAMED or not doors.end(session.database(), door.teacher().id, named):
        raise HTTPError(404, "That browser is signed out already.")
    return ""


def must_be_herself(teacher_id: UUID, now: str | None) -> None:
    """Raises `HTTPError` 403 where the present password is wanted, and *now* is another."""
    account = accounts.account_of(session.database(), teacher_id)
    if account is not None and _asks_now(account):
        may_try(account.address)
        if not accounts.is_right(account, now or ""):
            raise HTTPError(403, "The present password is another one.")
        accounts.forgive(session.engine(), account.address, _remote())


def _asks_now(account: Account | None) -> bool:
    return account is not None and not doors.has_just_come_by_link(
        session.database(), account.teacher_id, door.secret()
    )


def may_try(address: str) -> None:
    """Count a try for *address* from where this request comes. Raises `HTTPError` 429 where there were too many."""
    if not accounts.may_try(session.engine(), address, _remote()):
        raise HTTPError(429, TOO_MANY, headers={"Retry-After": str(int(accounts.WITHIN.total_seconds()))})


def _remote() -> str:
    return request.remote_addr or ""
