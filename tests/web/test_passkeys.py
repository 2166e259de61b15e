"""Passkeys: answers that are no answers, to challenges that are not out; a device in software that signs as the
standard has it.
"""

import hashlib
import json
import struct
import unittest

from apiflask import APIFlask
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import text
from webauthn.helpers import bytes_to_base64url, encode_cbor

from tests import support
from tests.web.test_door import Browser, app_of

BASE = "http://slate.school.example"
PRESENT, VERIFIED, ATTESTED = 1, 4, 64


class Device:
    """A device that keeps one key (ES256), as WebAuthn level 2, 6.1 and 6.5, writes what it says."""

    def __init__(self):
        self.key = ec.generate_private_key(ec.SECP256R1())
        self.id = b"key of a device"
        self.count = 0

    def data(self, flags, rp="slate.school.example", more=b""):
        self.count += 1
        return hashlib.sha256(rp.encode()).digest() + bytes([flags]) + struct.pack(">I", self.count) + more

    @staticmethod
    def client(kind, challenge, origin):
        return json.dumps({"type": kind, "challenge": challenge, "origin": origin, "crossOrigin": False}).encode()

    def made(self, options, origin=BASE, flags=PRESENT | VERIFIED | ATTESTED):
        numbers = self.key.public_key().public_numbers()
        public = encode_cbor({1: 2, 3: -7, -1: 1, -2: numbers.x.to_bytes(32, "big"), -3: numbers.y.to_bytes(32, "big")})
        attested = bytes(16) + struct.pack(">H", len(self.id)) + self.id + public
        stated = encode_cbor({"fmt": "none", "attStmt": {}, "authData": self.data(flags, more=attested)})
        client = self.client("webauthn.create", options["challenge"], origin)
        return self.sent({"attestationObject": stated, "clientDataJSON": client})

    def answer(self, options, handle, origin=BASE, flags=PRESENT | VERIFIED, rp="slate.school.example", key=None):
        said, client = self.data(flags, rp), self.client("webauthn.get", options["challenge"], origin)
        signed = (key or self.key).sign(said + hashlib.sha256(client).digest(), ec.ECDSA(hashes.SHA256()))
        return self.sent(
            {"authenticatorData": said, "clientDataJSON": client, "signature": signed, "userHandle": handle}
        )

    def sent(self, response):
        key_id = bytes_to_base64url(self.id)
        written = {name: bytes_to_base64url(one) for name, one in response.items()}
        return {"id": key_id, "rawId": key_id, "type": "public-key", "response": written, "clientExtensionResults": {}}


class PasskeyTests(unittest.TestCase):
    app: APIFlask

    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls, HOSTS=["slate.school.example"])

    def setUp(self):
        self.teacher = support.new_teacher()
        self.browser = Browser(self.app, self.teacher, BASE)
        self.device = Device()

    def options(self, path="/api/passkey/options"):
        return self.browser.send("POST", path)[1]["options"]

    def register(self):
        made = self.device.made(self.options("/api/account/passkeys/options"))
        return self.browser.send("POST", "/api/account/passkeys", {"name": "Phone", "credential": made})[0]

    def sign_in(self, credential):
        client = self.app.test_client()
        answer = client.post("/api/passkey/sign-in", json={"credential": credential}, base_url=BASE)
        here = client.get("/api/account", base_url=BASE)
        self.assertEqual(here.status_code, 200 if answer.status_code == 204 else 401)
        return answer.status_code

    def test_a_device_that_signs_as_the_standard_has_it_comes_in_once_a_challenge(self):
        self.assertEqual(self.register(), 204)
        answer = self.device.answer(self.options(), self.teacher.bytes)
        self.assertEqual([self.sign_in(answer) for _ in range(2)], [204, 403])
        self.assertEqual(self.sign_in(self.device.answer(self.options(), self.teacher.bytes)), 204)

    def test_what_is_not_signed_so_stays_outside(self):
        self.register()
        other, stranger = support.new_teacher(), ec.generate_private_key(ec.SECP256R1())
        made_up = {"challenge": bytes_to_base64url(b"x" * 32)}
        handle = self.teacher.bytes
        ask = self.device.answer
        wrong = {
            "another's key": lambda: ask(self.options(), handle, key=stranger),
            "another teacher": lambda: ask(self.options(), other.bytes),
            "no teacher": lambda: ask(self.options(), b"nobody"),
            "another page": lambda: ask(self.options(), handle, origin="http://evil.example"),
            "another name": lambda: ask(self.options(), handle, rp="evil.example"),
            "not verified": lambda: ask(self.options(), handle, flags=PRESENT),
            "a challenge of nobody's": lambda: ask(made_up, handle),
            "one to make a key": lambda: self.device.made(self.options()),
        }
        for name, answer in wrong.items():
            with self.subTest(name):
                self.assertEqual(self.sign_in(answer()), 403)
        late = ask(self.options(), handle)
        with support.engine().begin() as connection:
            connection.execute(text("update challenge set made_at = now() - interval '6 minutes'"))
        self.assertEqual(self.sign_in(late), 403)
        ahead = ask(self.options(), handle)
        self.device.count += 5
        self.assertEqual(self.sign_in(ask(self.options(), handle)), 204)
        self.assertEqual(self.sign_in(ahead), 403)  # a copy of the device counts behind
        self.assertEqual(self.sign_in(ask(self.options(), handle)), 204)

    def test_only_what_answers_its_challenge_is_kept_and_it_is_ones_own(self):
        for name, answer in {
            "not verified": lambda: self.device.made(
                self.options("/api/account/passkeys/options"), flags=PRESENT | ATTESTED
            ),
            "another page": lambda: self.device.made(
                self.options("/api/account/passkeys/options"), origin="http://evil.example"
            ),
            "no challenge": lambda: self.device.made({"challenge": bytes_to_base64url(b"y" * 32)}),
        }.items():
            with self.subTest(name):
                self.assertEqual(
                    self.browser.send("POST", "/api/account/passkeys", {"name": "x", "credential": answer()})[0], 403
                )
        self.register()
        ((one,),) = [self.browser.send("GET", "/api/account")[1]["passkeys"]]
        other = Browser(self.app, support.new_teacher(), BASE)
        self.assertEqual(other.send("DELETE", f"/api/account/passkeys/{one['id']}")[0], 404)
        self.assertEqual(self.browser.send("DELETE", f"/api/account/passkeys/{one['id']}")[0], 204)
        self.assertEqual(self.sign_in(self.device.answer(self.options(), self.teacher.bytes)), 403)

    @given(st.recursive(st.none() | st.booleans() | st.integers(-9,
        2**40) | st.text(max_size=9) | st.sampled_from(["AAAA", "e30", "🥕"]),
                        lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(["id", "rawId",
                            "type", "response", "clientDataJSON", "userHandle", "signature"]), inner,
                        max_size=5)))  # fmt: skip
    def test_whatever_is_sent_is_refused_in_a_sentence(self, given_):
        credential = given_ if isinstance(given_, dict) else {"response": given_, "id": given_}
        client = self.app.test_client()
        answer = client.post("/api/passkey/sign-in", json={"credential": credential}, base_url=BASE)
        self.assertIn(answer.status_code, (403, 422))
        self.assertTrue(answer.json["error"]["message"])
