"""The door: which addresses are ours, who is at the desk, and the token that every change must carry.

A browser comes in by a link that works once (`store.doors`). Its cookie holds the secret of its sign-in; the token is signed
from that secret, not stored, so answers that overtake each other cannot lose it, and it ends with the sign-in.
"""

from __future__ import annotations

import hmac
from hashlib import sha256

from apiflask import APIFlask, HTTPError
from flask import Response, current_app, g, make_response, redirect, request
from werkzeug.wrappers import Response as AnyResponse

from keen_slate.export.page import inside_page
from keen_slate.store import doors
from keen_slate.store.models import Teacher

from . import session

COOKIE = "keen_slate"
CHANGES = {"POST", "PUT", "PATCH", "DELETE"}
CSRF_HEADER = "X-CSRF-Token"
OURS = ["127.0.0.1", "localhost", "[::1]"]
NOBODY = "Nobody is signed in here."


def init_app(app: APIFlask, hosts: list[str]) -> None:
    """Let in only what comes to one of our *hosts* from a page of ours, and changes only with the token of their sign-in."""
    app.config["TRUSTED_HOSTS"] = [*OURS, *hosts]

    @app.before_request
    def check() -> None:
        origin = request.headers.get("Origin")
        if origin is not None and origin not in (f"http://{request.host}", f"https://{request.host}"):
            raise HTTPError(403, "This was asked by a page that is not Keen Slate's.")
        if request.routing_exception is not None:
            return  # there is nothing here that a token could be asked for
        if request.method in CHANGES:
            given = request.headers.get(CSRF_HEADER, "")
            if not given or not hmac.compare_digest(csrf_token().encode(), given.encode()):
                raise HTTPError(403, "This page has lost its place. Load it again.")

    @app.get("/enter/<string:link>")
    @app.doc(hide=True)
    def enter(link: str) -> AnyResponse:
        secret = doors.enter(session.database(), link)
        if secret is None:
            known = _signed_in() is not None
            return redirect("/" if known else "/door")
        answer = make_response(inside_page())
        answer.headers["Cache-Control"] = "no-store"
        answer.set_cookie(
            COOKIE, secret, max_age=doors.SIGN_IN_LASTS, secure=request.is_secure, httponly=True, samesite="Strict"
        )
        return answer

    @app.post("/api/leave")
    @app.doc(summary="Sign this browser out", responses=[204])
    def leave() -> Response:
        doors.leave(session.database(), _secret())
        answer = Response(status=204)
        answer.delete_cookie(COOKIE, secure=request.is_secure, httponly=True, samesite="Strict")
        return answer


def teacher() -> Teacher:
    """Who is at the desk. Raises `HTTPError` 401 where nobody is."""
    found = _signed_in()
    if found is None:
        raise HTTPError(401, NOBODY)
    return found


def csrf_token() -> str:
    """The token of the sign-in of this browser. Raises `HTTPError` 401 where there is none."""
    if not _secret():
        raise HTTPError(401, NOBODY)
    key = str(current_app.config["SECRET_KEY"]).encode()
    return hmac.new(key, b"token of " + _secret().encode(), sha256).hexdigest()


def _secret() -> str:
    return request.cookies.get(COOKIE, "")


def _signed_in() -> Teacher | None:
    if "teacher" not in g:
        g.teacher = doors.signed_in(session.database(), _secret()) if _secret() else None
    return g.teacher  # type: ignore[no-any-return]
