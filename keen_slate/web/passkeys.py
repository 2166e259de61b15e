"""Signing in by a passkey: the browser asks the teacher's device, which answers a challenge; `webauthn` looks at it.

A passkey belongs to the name in the address (an address of digits cannot have one, by the standard), and names its
teacher itself.
"""

from __future__ import annotations

from typing import Any, NoReturn
from urllib.parse import urlsplit
from uuid import UUID

from apiflask import APIBlueprint, HTTPError
from flask import Response, request

from keen_slate.store import doors, forgetting, log, passkeys
from keen_slate.store.walls import TEACHER, reach

from . import door
from .account import must_be_herself
from .schemas.door import PasskeyAnswerIn, PasskeyIn, PasskeyOptionsOut
from .session import database, keep_no_answer

blueprint = APIBlueprint("passkeys", __name__, url_prefix="/api")
NOT_OURS = "This passkey does not let you in here."


@blueprint.post("/account/passkeys/options")
@blueprint.output(PasskeyOptionsOut)
def options_for_new() -> PasskeyOptionsOut:
    """What a browser needs to have a device make a passkey."""
    from webauthn import generate_registration_options
    from webauthn.helpers.structs import (
        AuthenticatorSelectionCriteria,
        PublicKeyCredentialDescriptor,
        ResidentKeyRequirement,
        UserVerificationRequirement,
    )

    keep_no_answer()
    teacher = door.teacher()
    return _sent(
        generate_registration_options(
            rp_id=_name(), rp_name="Keen Slate", user_name=teacher.name, user_id=teacher.id.bytes,
            challenge=passkeys.new_challenge(database()),
            authenticator_selection=AuthenticatorSelectionCriteria(
                resident_key=ResidentKeyRequirement.REQUIRED, user_verification=UserVerificationRequirement.REQUIRED
            ),
            exclude_credentials=[
                PublicKeyCredentialDescriptor(id=_bytes(one.id)) for one in passkeys.of(database(), teacher.id)
            ],
        )
    )  # fmt: skip


@blueprint.post("/account/passkeys")
@blueprint.input(PasskeyIn)
@blueprint.output({}, status_code=204)
@blueprint.doc(responses={403: "It does not answer a challenge of ours, or the present password is another."})
def keep(json_data: PasskeyIn) -> str:
    """Keep a passkey that a device has made."""
    from webauthn import verify_registration_response
    from webauthn.helpers import bytes_to_base64url

    keep_no_answer()
    teacher = door.teacher()
    must_be_herself(teacher.id, json_data.now)
    challenge = _challenge(json_data.credential)
    try:
        made = verify_registration_response(
            credential=json_data.credential, expected_challenge=challenge, expected_rp_id=_name(),
            expected_origin=_origin(), require_user_verification=True,
        )  # fmt: skip
    except Exception:  # whatever is sent is no passkey of ours
        _refuse()
    key_id = bytes_to_base64url(made.credential_id)
    passkeys.keep(database(), teacher.id, key_id, made.credential_public_key, made.sign_count, json_data.name)
    log.note(database(), teacher.id, f"You added a passkey: {json_data.name}.")
    return ""


@blueprint.delete("/account/passkeys/<string:named>")
@blueprint.output({}, status_code=204)
def remove(named: str) -> str:
    """Take a passkey away; it lets nobody in any more."""
    teacher = door.teacher()
    passkeys.remove(database(), teacher.id, named)
    log.note(database(), teacher.id, "You took a passkey away.")
    return ""


@blueprint.post("/passkey/options")
@blueprint.output(PasskeyOptionsOut)
def options_to_sign_in() -> PasskeyOptionsOut:
    """What a browser needs to ask a device for a passkey."""
    from webauthn import generate_authentication_options
    from webauthn.helpers.structs import UserVerificationRequirement

    return _sent(
        generate_authentication_options(
            rp_id=_name(), challenge=passkeys.new_challenge(database()),
            user_verification=UserVerificationRequirement.REQUIRED,
        )
    )  # fmt: skip


@blueprint.post("/passkey/sign-in")
@blueprint.input(PasskeyAnswerIn)
@blueprint.doc(responses={204: "The cookie of the sign-in is set.", 403: "It lets nobody in here."})
def sign_in(json_data: PasskeyAnswerIn) -> Response:
    """Come in by a passkey."""
    from webauthn import verify_authentication_response

    challenge = _challenge(json_data.credential)
    forgetting.forget_leavers(database())
    try:
        teacher_id = UUID(bytes=_bytes(json_data.credential["response"]["userHandle"]))
        key_id = str(json_data.credential["id"])
    except Exception:  # whatever is sent opens nothing
        _refuse()
    reach(database(), TEACHER, teacher_id)
    known = passkeys.one(database(), teacher_id, key_id)
    if known is None:
        _refuse()
    try:
        answered = verify_authentication_response(
            credential=json_data.credential, expected_challenge=challenge, expected_rp_id=_name(),
            expected_origin=_origin(), credential_public_key=known.public_key,
            credential_current_sign_count=known.count, require_user_verification=True,
        )  # fmt: skip
    except Exception:  # as above
        _refuse()
    passkeys.used(database(), known, answered.new_sign_count)
    return door.with_cookie(doors.begin(database(), teacher_id, by_link=False, by="a passkey"))


def _challenge(credential: dict[str, Any]) -> bytes:
    """The challenge that a credential answers, which is out no more. Raises `HTTPError` 403."""
    from webauthn.helpers import parse_client_data_json

    try:
        said: bytes = parse_client_data_json(_bytes(credential["response"]["clientDataJSON"])).challenge
    except Exception:
        _refuse()
    if len(said) != 32 or not passkeys.take_challenge(database(), said):
        _refuse()
    database().commit()  # it is used up, whatever comes of it
    return said


def _bytes(said: str) -> bytes:
    from webauthn.helpers import base64url_to_bytes

    return base64url_to_bytes(said)


def _sent(options: Any) -> PasskeyOptionsOut:
    from webauthn.helpers import options_to_json_dict

    return PasskeyOptionsOut(options=options_to_json_dict(options))


def _name() -> str:
    return urlsplit(request.host_url).hostname or ""


def _origin() -> str:
    return request.host_url.rstrip("/")


def _refuse() -> NoReturn:
    raise HTTPError(403, NOT_OURS)
