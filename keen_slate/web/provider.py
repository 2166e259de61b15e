"""Coming in by the school's own sign-in: there and back, as a new teacher by an invitation, or beside one's own
password.

Who comes back is somebody here only if she said so herself: by an invitation, or under My account. An address is no
proof: it may become somebody else's.
"""

from __future__ import annotations

from typing import NoReturn

from apiflask import APIBlueprint, HTTPError
from flask import Response, current_app, request

from keen_slate.store import doors, forgetting, identities, log, walls

from . import door, openid
from .account import must_be_herself
from .schemas.door import CameBackIn, NowIn, ProviderOut
from .schemas.school import JoinByProviderIn
from .school import new_teacher
from .session import database, keep_no_answer

blueprint = APIBlueprint("provider", __name__, url_prefix="/api")
NOT_OURS = "Nobody here comes in by this sign-in."
BACK = "come-back"
SILENT = {404: "There is no such sign-in here.", 502: "It does not answer as it should."}


@blueprint.post("/provider/options")
@blueprint.output(ProviderOut)
@blueprint.doc(responses=SILENT)
def options_to_sign_in() -> ProviderOut:
    """Where to go to sign in, and what must come back."""
    return _begun("")


@blueprint.post("/provider/sign-in")
@blueprint.input(CameBackIn)
@blueprint.doc(responses=SILENT | {204: "The cookie of the sign-in is set.", 403: "It lets nobody in here."})
def sign_in(json_data: CameBackIn) -> Response:
    """Come in by the school's own sign-in."""
    person = _came_back(json_data)
    forgetting.forget_leavers(database())
    teacher_id = identities.teacher_of(database(), person.identity)
    if teacher_id is None:
        raise HTTPError(403, NOT_OURS)
    walls.reach(database(), walls.TEACHER, teacher_id)
    identities.seen(database(), teacher_id, person.identity)
    return door.with_cookie(doors.begin(database(), teacher_id, by_link=False, by=_provider().name))


@blueprint.post("/provider/join")
@blueprint.input(JoinByProviderIn)
@blueprint.doc(
    responses=SILENT | {204: "The cookie of the sign-in is set.", 403: "It was used or withdrawn, or is too old."}
)
def join(json_data: JoinByProviderIn) -> Response:
    """Come in by an invitation as a new teacher of the school, who signs in as she does there."""
    person = _came_back(json_data)
    new = new_teacher(json_data.link, json_data.name)
    identities.keep(database(), new, person.identity, person.name)
    return door.with_cookie(doors.begin(database(), new, by_link=False, by=_provider().name))


@blueprint.post("/account/identities/options")
@blueprint.input(NowIn)
@blueprint.output(ProviderOut)
@blueprint.doc(responses=SILENT | {403: "The present password is another."})
def options_for_new(json_data: NowIn) -> ProviderOut:
    """Where to go to sign in, for who wants to come in by that from now on."""
    keep_no_answer()
    must_be_herself(door.teacher().id, json_data.now)
    return _begun(_for_teacher())


@blueprint.post("/account/identities")
@blueprint.input(CameBackIn)
@blueprint.output({}, status_code=204)
@blueprint.doc(responses=SILENT | {403: "It is no answer to what was asked."})
def keep(json_data: CameBackIn) -> str:
    """Come in by the school's own sign-in from now on."""
    keep_no_answer()
    teacher = door.teacher()
    person = _came_back(json_data, _for_teacher())
    identities.keep(database(), teacher.id, person.identity, person.name)
    log.note(database(), teacher.id, f"You added a sign-in: {_provider().name}.")
    return ""


@blueprint.delete("/account/identities/<string:named>")
@blueprint.output({}, status_code=204)
def remove(named: str) -> str:
    """Come in by a school's own sign-in no more."""
    teacher = door.teacher()
    identities.remove(database(), teacher.id, named)
    log.note(database(), teacher.id, "You took a sign-in away.")
    return ""


def _begun(meant: str) -> ProviderOut:
    keep_no_answer()
    way = identities.begin(database(), meant)
    return ProviderOut(address=openid.address(_provider(), way, _back()), state=way.state)


def _came_back(json_data: CameBackIn, meant: str = "") -> openid.Person:
    """Who came back, and what is kept of her. Raises `HTTPError` 403 where nobody went there from here."""
    provider = _provider()
    way = identities.come_back(database(), json_data.state, meant)
    database().commit()  # it is used up, whatever comes of it; and nothing is held while the provider is asked
    if way is None:
        _refuse()
    return openid.who(provider, way, json_data.code, _back())


def _for_teacher() -> str:
    return f"for {door.teacher().id}"


def _provider() -> openid.Provider:
    provider: openid.Provider | None = current_app.config["PROVIDER"]
    if provider is None:
        raise HTTPError(404, "There is no sign-in of a school here.")
    return provider


def _back() -> str:
    return f"{request.host_url}{BACK}"


def _refuse() -> NoReturn:
    raise HTTPError(403, "You came back too late, or by a page that was used before.")
