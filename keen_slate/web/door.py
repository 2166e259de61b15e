"""The door: which addresses are ours, who is at the desk, and the token that every change must carry.

A browser comes in by a link that works once (`store.doors`). Its cookie holds the secret of its sign-in; the token is
signed from that secret, not stored, so answers that overtake each other cannot lose it, and it ends with the sign-in.
"""

from __future__ import annotations

import hmac
from hashlib import sha256

from apiflask import APIFlask, HTTPError
from flask import Response, current_app, g, request

from keen_slate.store import doors
from keen_slate.store.models import Teacher

from . import session
from .schemas.door import EnterIn

CHANGES = {"POST", "PUT", "PATCH", "DELETE"}
CSRF_HEADER = "X-CSRF-Token"
OURS = ["127.0.0.1", "localhost", "[::1]"]
NOBODY = "Nobody is signed in here."
USED = "This link was used before, or is too old."
# What may be asked for by anybody: to come in, and what can be asked for here at all.
OPEN = {
    "/api/enter", "/api/sign-in", "/api/way-in", "/api/forgotten", "/api/passkey/options", "/api/passkey/sign-in",
    "/api/provider/options", "/api/provider/sign-in", "/api/provider/join", "/api/invited", "/api/join",
    "/api/openapi.json",
}  # fmt: skip


def init_app(app: APIFlask, hosts: list[str]) -> None:
    """Let in only what comes to one of our *hosts* from a page of ours and from who is signed in, changes only with
    their token.
    """
    app.config["TRUSTED_HOSTS"] = [*OURS, *hosts]

    @app.before_request
    def check() -> None:
        origin = request.headers.get("Origin")
        if origin is not None and origin not in (f"http://{request.host}", f"https://{request.host}"):
            raise HTTPError(403, "This was asked by a page that is not Keen Slate's.")
        if request.routing_exception is not None or not request.path.startswith("/api/") or request.path in OPEN:
            return  # there is nothing here that a sign-in could be asked for
        if request.method in CHANGES:
            given = request.headers.get(CSRF_HEADER, "")
            if not given or not hmac.compare_digest(csrf_token().encode(), given.encode()):
                raise HTTPError(403, "This page has lost its place. Load it again.")
        teacher()

    @app.post("/api/enter")
    @app.input(EnterIn)
    @app.doc(
        summary="Come in by a link that works once",
        responses={204: "The cookie of the sign-in is set.", 403: "It was used."},
    )
    def enter(json_data: EnterIn) -> Response:
        made = doors.enter(session.database(), json_data.link)
        if made is None:
            raise HTTPError(403, USED)
        return with_cookie(made)

    @app.post("/api/leave")
    @app.doc(summary="Sign this browser out", responses=[204])
    def leave() -> Response:
        doors.leave(session.database(), secret())
        return without_cookie()


def cookie_name() -> str:
    """The name of the cookie: each folder of Keen Slate has its own, for a browser keeps one jar for all ports of an
    address.
    """
    return f"keen_slate_{sha256(b'cookie of ' + str(current_app.config['SECRET_KEY']).encode()).hexdigest()[:8]}"


def with_cookie(made: str) -> Response:
    """An answer that gives this browser the secret of the sign-in that was *made*."""
    answer = Response(status=204)
    answer.set_cookie(
        cookie_name(), made, max_age=doors.SIGN_IN_LASTS, secure=request.is_secure, httponly=True, samesite="Strict"
    )
    return answer


def without_cookie() -> Response:
    """An answer that takes the secret of its sign-in from this browser."""
    answer = Response(status=204)
    answer.delete_cookie(cookie_name(), secure=request.is_secure, httponly=True, samesite="Strict")
    return answer


def teacher() -> Teacher:
    """Who is at the desk. Raises `HTTPError` 401 where nobody is."""
    found = at_desk()
    if found is None:
        raise HTTPError(401, NOBODY)
    return found


def csrf_token() -> str:
    """The token of the sign-in of this browser. Raises `HTTPError` 401 where there is none."""
    if not secret():
        raise HTTPError(401, NOBODY)
    key = str(current_app.config["SECRET_KEY"]).encode()
    return hmac.new(key, b"token of " + secret().encode(), sha256).hexdigest()


def secret() -> str:
    """The secret of the sign-in of this browser; "" where it has none."""
    return request.cookies.get(cookie_name(), "")


def at_desk() -> Teacher | None:
    """Who is at the desk, if anybody is."""
    if "teacher" not in g:
        g.teacher = doors.signed_in(session.database(), secret()) if secret() else None
    return g.teacher  # type: ignore[no-any-return]
