"""The school's own sign-in: who it signs for comes in, and what it did not sign for this way stays outside.

What a client must look at is published: OpenID Connect Core 1.0, 3.1.3.7 and 15.5.2; RFC 7636, 4.6. A stand-in answers.
"""

import hmac
import json
import socket
import time
import unittest
import uuid
from base64 import urlsafe_b64encode
from hashlib import sha256
from threading import Thread
from typing import Any
from unittest.mock import patch
from urllib.parse import parse_qsl, urlsplit

from apiflask import APIFlask
from joserfc import jwt
from joserfc.jwk import RSAKey
from sqlalchemy import text
from sqlalchemy.orm import Session

from keen_slate.store import school as schools
from keen_slate.store.colleagues import school_named
from keen_slate.web import openid
from tests import support
from tests.web.test_door import Browser, app_of
from tools.application import listen
from tools.stand_in_provider import CLIENT, NAME, SECRET, StandInProvider

BASE = "http://127.0.0.1:8400"
SEDGE, ALDER = "sedge@wren.example", "alder@wren.example"


class ProviderTests(unittest.TestCase):
    app: APIFlask
    provider: Any
    socket: socket.socket
    stand_in: StandInProvider

    @classmethod
    def setUpClass(cls):
        cls.socket = listen(0)
        cls.stand_in = StandInProvider([SEDGE, ALDER], cls.socket)
        Thread(target=cls.stand_in.server.serve_forever, daemon=True).start()
        cls.addClassCleanup(cls.socket.close)
        cls.addClassCleanup(cls.stand_in.server.shutdown)
        cls.provider = openid.provider_of(cls.stand_in.issuer, CLIENT, SECRET, NAME)
        cls.app = app_of(cls, PROVIDER=cls.provider)

    def setUp(self):
        self.teacher = support.new_teacher()
        self.browser = Browser(self.app, self.teacher)
        self.person = f"{uuid.uuid4().hex}@wren.example"
        self.stand_in.people.append(self.person)
        self.stand_in.says = {}

    def there(self, begun, person=None):
        """What a browser brings back from there."""
        asked = dict(parse_qsl(urlsplit(begun["address"]).query))
        self.assertEqual((asked["redirect_uri"], asked["state"]), (f"{BASE}/come-back", begun["state"]))
        return {"code": self.stand_in.code_for(asked, person or self.person), "state": begun["state"]}

    def begin(self):
        return self.app.test_client().post("/api/provider/options", base_url=BASE).json

    def sign_in(self, brought, path="/api/provider/sign-in"):
        client = self.app.test_client()
        answer = client.post(path, json=brought, base_url=BASE)
        here = client.get("/api/account", base_url=BASE)
        self.assertEqual(here.status_code, 200 if answer.status_code == 204 else 401)
        return answer.status_code

    def add(self, browser=None, person=None):
        browser = browser or self.browser
        status, begun = browser.send("POST", "/api/account/identities/options", {})
        self.assertEqual(status, 200)
        return browser.send("POST", "/api/account/identities", self.there(begun, person))

    def test_who_has_added_it_comes_in_by_it_until_it_is_taken_away(self):
        self.assertEqual(self.sign_in(self.there(self.begin())), 403)  # nobody here said that she is she
        self.assertEqual(self.add()[0], 204)
        self.assertEqual(self.add()[0], 204)  # twice is once
        brought = self.there(self.begin())
        self.assertEqual([self.sign_in(brought) for _ in range(2)], [204, 403])
        self.assertEqual(self.sign_in(self.there(self.begin(), ALDER)), 403)
        account = self.browser.send("GET", "/api/account")[1]
        (kept,) = account["identities"]
        self.assertEqual((kept["name"], kept["seen_at"] is not None, account["provider"]), (self.person, True, NAME))
        said = [line["said"] for line in account["log"]]
        self.assertTrue(f"You came in by {NAME}." in said and f"You added a sign-in: {NAME}." in said, said)
        other = Browser(self.app, support.new_teacher())
        self.assertEqual(self.add(other)[1]["error"]["message"], "This sign-in belongs to another desk here already.")
        self.assertEqual(other.send("DELETE", f"/api/account/identities/{kept['id']}")[0], 404)
        self.assertEqual(self.browser.send("DELETE", f"/api/account/identities/{kept['id']}")[0], 204)
        self.assertEqual(self.sign_in(self.there(self.begin())), 403)

    def test_an_address_that_somebody_has_here_is_no_proof(self):
        body = {"address": self.person, "password": "seven planks and a half"}
        self.assertEqual(self.browser.send("PUT", "/api/account/password", body)[0], 204)
        self.assertEqual(self.sign_in(self.there(self.begin())), 403)

    def test_what_was_not_signed_for_this_way_stays_outside(self):
        self.add()
        now = int(time.time())
        wrong = (
            {"iss": "http://127.0.0.1:1"}, {"aud": "another"}, {"aud": [CLIENT, "another"], "azp": "another"},
            {"nonce": "guessed"},
            {"nonce": None}, {"exp": now - 3600}, {"sub": None}, {"sub": ""}, {"sub": 7}, {"sub": "x" * 256},
            {"at_hash": "guessed"},
        )  # fmt: skip
        for claims in wrong:
            with self.subTest(claims):
                self.stand_in.says = claims
                self.assertEqual(self.sign_in(self.there(self.begin())), 502)
        self.stand_in.says = {}
        key = RSAKey.generate_key(2048, {"use": "sig"}, auto_kid=True)
        kid = self.stand_in.key.kid
        forged = {
            "by another key": lambda claims: jwt.encode({"alg": "RS256", "kid": kid}, claims, key),
            "by nobody": lambda claims: f"{_part({'alg': 'none'})}.{_part(claims)}.",
            "by the public key, as if it were shared": self.as_shared,
            "not at all": lambda claims: "guessed",
        }
        for said, sign in forged.items():
            with self.subTest(said), patch.object(self.stand_in, "signed", sign):
                self.assertEqual(self.sign_in(self.there(self.begin())), 502)
        # Its key changes: the new one is asked for.
        with patch.object(self.stand_in, "key", key):
            self.assertEqual(self.sign_in(self.there(self.begin())), 204)
        self.assertEqual(self.sign_in(self.there(self.begin())), 204)

    def as_shared(self, claims):
        """Signed with the public key for a secret (RFC 8725, 2.1)."""
        said = f"{_part({'alg': 'HS256', 'kid': self.stand_in.key.kid})}.{_part(claims)}"
        made = hmac.new(self.stand_in.key.as_pem(private=False), said.encode(), sha256).digest()
        return f"{said}.{urlsafe_b64encode(made).rstrip(b'=').decode()}"

    def test_a_way_is_for_what_it_was_begun_for_and_for_whom(self):
        other = Browser(self.app, support.new_teacher())
        _, begun = self.browser.send("POST", "/api/account/identities/options", {})
        brought = self.there(begun)
        self.assertEqual(other.send("POST", "/api/account/identities", brought)[0], 403)
        self.assertEqual(self.browser.send("POST", "/api/account/identities", brought)[0], 403)  # used up by that
        self.assertEqual(self.browser.send("POST", "/api/account/identities", self.there(self.begin()))[0], 403)
        _, begun = self.browser.send("POST", "/api/account/identities/options", {})
        self.assertEqual(self.sign_in(self.there(begun)), 403)
        # Where a password is asked for, the way there begins with it.
        body = {"address": self.person, "password": "seven planks and a half"}
        self.assertEqual(self.browser.send("PUT", "/api/account/password", body)[0], 204)
        self.browser.token = self.browser.http.get("/api/me", base_url=BASE).json["csrf_token"]
        for now, status in (({}, 403), ({"now": "guessed"}, 403), ({"now": body["password"]}, 200)):
            self.assertEqual(self.browser.send("POST", "/api/account/identities/options", now)[0], status)
        # Too late, and a code of another way (the verifier is another).
        late = self.there(self.begin())
        with support.engine().begin() as connection:
            connection.execute(text("update begun set made_at = now() - interval '11 minutes'"))
        self.assertEqual(self.sign_in(late), 403)
        first, second = self.begin(), self.begin()
        self.assertEqual(self.sign_in({"code": self.there(first)["code"], "state": second["state"]}), 502)

    def test_an_invitation_is_taken_by_it_and_only_once(self):
        with Session(support.engine()) as session, session.begin():
            school = school_named(session, f"Fen {uuid.uuid4().hex}")
            link = schools.invite(session, school.id, "Yarrow")
        path = "/api/provider/join"
        for sent, status in (("guessed", 403), (link, 204), (link, 403)):
            brought = self.there(self.begin()) | {"link": sent, "name": "Yarrow <b>"}
            self.assertEqual(self.sign_in(brought, path), status)
        client = self.app.test_client()
        self.assertEqual(
            client.post("/api/provider/sign-in", json=self.there(self.begin()), base_url=BASE).status_code, 204
        )
        account = client.get("/api/account", base_url=BASE).json
        self.assertEqual((account["name"], account["address"], account["school"][:3]), ("Yarrow <b>", None, "Fen"))

    def test_a_provider_that_is_silent_or_another_one_is_said(self):
        gone = listen(0)
        silent = openid.provider_of(f"http://127.0.0.1:{gone.getsockname()[1]}", CLIENT, SECRET, "Fen sign-in")
        gone.close()
        app = app_of(type(self), PROVIDER=silent)
        answer = app.test_client().post("/api/provider/options", base_url=BASE)
        self.assertEqual((answer.status_code, answer.json["error"]["message"]), (502, "Fen sign-in does not answer."))
        app = app_of(type(self), PROVIDER=None)
        self.assertEqual(app.test_client().post("/api/provider/options", base_url=BASE).status_code, 404)
        self.assertIsNone(app.test_client().get("/api/way-in", base_url=BASE).json["provider"])
        for wrong in (
            ("http://school.example", CLIENT, SECRET, NAME),
            ("", CLIENT, "", ""),
            (self.stand_in.issuer, "", "", ""),
        ):
            self.assertRaises(openid.ProviderSettingsError, openid.provider_of, *wrong)
        self.assertIsNone(openid.provider_of("", "", "", ""))
        another = openid.provider_of(self.stand_in.issuer.replace("127.0.0.1", "localhost"), CLIENT, SECRET, NAME)
        with self.assertRaisesRegex(openid.ProviderError, "calls itself something else"):
            openid.address(another, None, BASE)


def _part(said):
    return urlsafe_b64encode(json.dumps(said).encode()).rstrip(b"=").decode()
