"""Silent, slow and heavy clients: the others go on, whoever waits is told, and work ends when its client has gone."""

import json
import socket
import time
import unittest
import urllib.error
import urllib.request
import uuid

from keen_slate.core.grading.rungs import RUNGS
from keen_slate.core.judging.misconceptions.registry import ENTRIES
from tests import support
from tests.web.test_api import Client
from tools.server import LiveServer

EVERYTHING = {
    "spec": {
        "rungs": {"F7": 2, "O4": 2, "D6": 2},
        "targets": ["left-to-right", "add-across", "right-aligned"],
        "seed": 1,
    }
}


class SlowTests(unittest.TestCase):
    client: Client
    server: LiveServer
    set_id: uuid.UUID
    teacher: uuid.UUID

    @classmethod
    def setUpClass(cls):
        cls.teacher = support.new_teacher()
        cls.server = support.live_server()
        cls.client = Client(cls.server, cls.teacher)
        cls.set_id = support.new_set(cls.teacher, "Planks", ["1/2 + 1/3"])

    def connect(self, sent=b""):
        made = socket.create_connection(("127.0.0.1", self.server.port))
        self.addCleanup(made.close)
        made.sendall(sent)
        return made

    def test_silent_and_slow_clients_hold_up_nobody(self):
        head = b"POST /api/preview HTTP/1.1\r\nHost: 127.0.0.1\r\n"
        for _ in range(200):
            self.connect()
        slow = [self.connect(head) for _ in range(8)]
        slow += [
            self.connect(head + b"Content-Length: 400\r\nContent-Type: application/json\r\n\r\n{") for _ in range(8)
        ]
        slow += [
            self.connect(b"GET /api/openapi.json HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n" * 4) for _ in range(8)
        ]  # never read
        for number in range(20):
            slow[number % 8].sendall(b"X-Slow: 1\r\n")
            # A client gives up after 20 seconds; waiting for the slow ones would take two minutes.
            self.assertEqual(self.client.call("GET", "/api/sets")[0], 200)

    def test_static_files_are_compressed_and_typed(self):
        page = self.client.open("/").read().decode()
        script = page.split('src="')[1].split('"')[0]
        connection = self.connect(f"GET {script} HTTP/1.0\r\nHost: 127.0.0.1\r\nAccept-Encoding: gzip\r\n\r\n".encode())
        head = connection.recv(2000).lower()
        for wanted in (b"200 ok", b"content-encoding: gzip", b"x-content-type-options: nosniff", b"immutable"):
            self.assertIn(wanted, head)

    def build(self):
        return self.client.call("POST", "/api/building", {"numbers": "3, 1/2, 4", "wanted": "10"})

    def test_who_has_to_wait_for_a_turn_is_told(self):
        self.assertEqual(self.build()[0], 200)
        for turns, said in (
            ([("teachers", self.teacher.int >> 66)], "Your last search is still at work"),
            ([("heavy", 0), ("heavy", 1)], "This machine is at work on two"),
        ):
            with support.turns_held(self.server, *turns):
                status, body = self.build()
                self.assertEqual((status, body["waiting"], body["error"]["message"][: len(said)]), (503, True, said))
                file = urllib.request.Request(
                    f"{self.server.address}/api/sets/{self.set_id}/set.odt", headers={"Accept": "text/html"}
                )
                with self.assertRaises(urllib.error.HTTPError) as caught:
                    self.client.opener.open(file, timeout=60)
                with (
                    caught.exception as answer
                ):  # a file that a browser opens by itself waits as a page, and asks again
                    self.assertIn('http-equiv="refresh"', answer.read().decode())
                self.assertEqual(self.client.call("GET", "/api/sets")[0], 200)  # light requests go on
        with support.turns_held(self.server, ("heavy", 0)):
            self.assertEqual(self.build()[0], 200)

    def test_work_ends_when_its_client_has_gone(self):
        wish = {
            "spec": {"rungs": dict.fromkeys(RUNGS, 1), "targets": list(ENTRIES), "separate": True}
        }  # ten seconds of work
        body = json.dumps(wish).encode()
        cookie = "; ".join(
            f"{c.name}={c.value}"
            for h in vars(self.client.opener)["handlers"]
            if hasattr(h, "cookiejar")
            for c in h.cookiejar
        )
        head = (
            f"POST /api/ladders HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookie}\r\nX-CSRF-Token: "
            f"{self.client.token}\r\n"
        )
        head += f"Content-Type: application/json\r\nContent-Length: {len(body)}\r\n\r\n"
        connection = self.connect(head.encode() + body)
        self.assertTrue(self.becomes(True))
        time.sleep(1)
        self.assertTrue(self.becomes(True))  # it is at work still
        connection.close()
        begun = time.monotonic()
        self.assertTrue(self.becomes(False))
        self.assertLess(time.monotonic() - begun, 30)
        self.assertEqual(self.build()[0], 200)

    def becomes(self, taken):
        """Whether a heavy turn is taken, or free, before long."""
        for _ in range(100):
            with support.turn_tried(self.server, "heavy", 0) as free:
                if free != taken:
                    return True
            time.sleep(0.05)
        return False
