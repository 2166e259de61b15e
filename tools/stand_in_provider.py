"""A stand-in for a school's own sign-in, for the demo and the tests: OpenID Connect Core 1.0, the code flow with PKCE.

Whoever comes is asked only which of its people she is; nothing here is a secret but its key, which lives as long as it
does.
"""

from __future__ import annotations

import logging
import secrets
import time
from base64 import urlsafe_b64encode
from collections.abc import Sequence
from hashlib import sha256
from socket import socket
from typing import Any
from urllib.parse import urlencode

from flask import Flask, Response, abort, jsonify, redirect, render_template_string, request
from joserfc import jwt
from joserfc.jwk import RSAKey
from werkzeug.serving import make_server

CLIENT, SECRET, NAME = "keen-slate", "a secret of the stand-in", "Wren Hollow"
_LASTS = 300  # seconds of a token
_PAGE = """<!doctype html><html lang="en"><title>{{ name }}</title>
<body style="font: 18px sans-serif; max-width: 34rem; margin: 4rem auto"><h1>{{ name }}</h1>
<p>A stand-in for the sign-in of a school. Who are you?</p>
<form method="post">{% for person in people %}
<p><button name="person" value="{{ person }}">{{ person }}</button></p>{% endfor %}
<p><button name="person" value="">Nobody of these</button></p></form>"""


class StandInProvider:
    """A provider of its own, called *name*, at a socket that listens, which knows some *people* by their addresses."""

    name = NAME

    def __init__(self, people: Sequence[str], listening: socket) -> None:
        self.people = list(people)
        self.key = RSAKey.generate_key(2048, {"use": "sig", "alg": "RS256"}, auto_kid=True)
        self.codes: dict[str, dict[str, str]] = {}
        self.says: dict[str, Any] = {}  # claims that a test wants to be otherwise
        logging.getLogger("werkzeug").setLevel(logging.ERROR)
        port = listening.getsockname()[1]
        self.server = make_server("127.0.0.1", port, self._app(), threaded=True, fd=listening.fileno())
        self.issuer = f"http://127.0.0.1:{port}"

    @property
    def environment(self) -> dict[str, str]:
        """What tells Keen Slate of it."""
        return {
            f"KEEN_SLATE_OIDC_{name}": said
            for name, said in (("ISSUER", self.issuer), ("CLIENT", CLIENT), ("SECRET", SECRET), ("NAME", NAME))
        }

    def serve(self) -> None:
        """Answer until this process is asked to end."""
        self.server.serve_forever()

    @staticmethod
    def subject(person: str) -> str:
        """What it calls a *person* for good."""
        return sha256(person.encode()).hexdigest()

    def code_for(self, asked: dict[str, str], person: str) -> str:
        """A code for a *person* who came with what was *asked*, good once."""
        code = secrets.token_urlsafe(16)
        self.codes[code] = asked | {"person": person}
        return code

    def _app(self) -> Flask:
        app = Flask("stand-in")
        app.add_url_rule("/.well-known/openid-configuration", "about", self._about)
        app.add_url_rule("/authorize", "authorize", self._authorize, methods=["GET", "POST"])
        app.add_url_rule("/token", "token", self._token, methods=["POST"])
        app.add_url_rule("/keys", "keys", lambda: jsonify(keys=[self.key.as_dict(private=False)]))
        return app

    def _about(self) -> Response:
        places = {"authorization_endpoint": "authorize", "token_endpoint": "token", "jwks_uri": "keys"}
        return jsonify(issuer=self.issuer, **{name: f"{self.issuer}/{path}" for name, path in places.items()})

    def _authorize(self) -> Any:
        asked = request.args.to_dict()
        if (asked.get("client_id"), asked.get("response_type"), asked.get("code_challenge_method")) != (
            CLIENT, "code", "S256",
        ):  # fmt: skip
            abort(400)
        if request.method == "GET":
            return render_template_string(_PAGE, name=NAME, people=self.people)
        person = request.form["person"]
        found = {"code": self.code_for(asked, person)} if person in self.people else {"error": "access_denied"}
        return redirect(f"{asked['redirect_uri']}?{urlencode(found | {'state': asked['state']})}")

    def _token(self) -> Any:
        given = request.form
        asked = self.codes.pop(given.get("code", ""), None)
        challenge = urlsafe_b64encode(sha256(given.get("code_verifier", "").encode()).digest()).rstrip(b"=").decode()
        who = request.authorization
        if (
            asked is None or who is None or (who.username, who.password) != (CLIENT, SECRET)
            or (challenge, given.get("redirect_uri")) != (asked["code_challenge"], asked["redirect_uri"])
        ):  # fmt: skip
            return jsonify(error="invalid_grant"), 400
        now = int(time.time())
        claims = {
            "iss": self.issuer, "aud": CLIENT, "sub": self.subject(asked["person"]), "iat": now,
            "exp": now + _LASTS, "nonce": asked["nonce"], "email": asked["person"],
        } | self.says  # fmt: skip
        token = self.signed(claims)
        return jsonify(access_token=secrets.token_urlsafe(16), token_type="Bearer", id_token=token, expires_in=_LASTS)

    def signed(self, claims: dict[str, Any]) -> str:
        """A token that says *claims*."""
        return jwt.encode({"alg": "RS256", "kid": self.key.kid}, claims, self.key)
