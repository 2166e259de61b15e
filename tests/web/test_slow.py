"""Silent, slow and heavy clients: the others go on, whoever waits is told, and work ends when its client has gone."""

import json
import socket
import time
import unittest

from tests import support
from tests.web.test_api import Client

EVERYTHING = {
    "spec": {
        "rungs": {"F7": 2, "O4": 2, "D6": 2},
        "targets": ["left-to-right", "add-across", "right-aligned"],
        "seed": 1,
    }
}


class SlowTests(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.teacher = support.new_teacher()
        cls.server = support.live_server()
        cls.addClassCleanup(cls.server.stop)
        cls.client = Client(cls.server, cls.teacher)

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
            begun = time.monotonic()
            self.assertEqual(self.client.call("GET", "/api/sets")[0], 200)
            self.assertLess(time.monotonic() - begun, 5)  # none waits for the slow, which would be two minutes

    def test_static_files_are_compressed_and_typed(self):
        page = self.client.open("/").read().decode()
        script = page.split('src="')[1].split('"')[0]
        connection = self.connect(f"GET {script} HTTP/1.0\r\nHost: 127.0.0.1\r\nAccept-Encoding: gzip\r\n\r\n".encode())
        head = connection.recv(2000).lower()
        for wanted in (b"200 ok", b"content-encoding: gzip", b"x-content-type-options: nosniff", b"immutable"):
            self.assertIn(wanted, head)

    def ask_and_leave(self, client):
        """Begin a heavy request, and go before it is answered."""
        body = json.dumps(EVERYTHING | {"spec": EVERYTHING["spec"] | {"seed": time.time_ns() % 10**9}}).encode()
        cookie = "; ".join(
            f"{c.name}={c.value}" for h in client.opener.handlers if hasattr(h, "cookiejar") for c in h.cookiejar
        )
        head = f"POST /api/ladders HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookie}\r\nX-CSRF-Token: {client.token}\r\n"
        head += f"Content-Type: application/json\r\nContent-Length: {len(body)}\r\n\r\n"
        return self.connect(head.encode() + body)

    def test_a_second_heavy_request_of_a_teacher_is_told_to_wait_until_the_first_has_gone(self):
        first = self.ask_and_leave(self.client)
        time.sleep(0.5)
        try:
            self.client.open("/api/sets").close()
            status, body = self.client.call("POST", "/api/building", {"numbers": "3, 1/2, 4", "wanted": "10"})
        finally:
            first.close()
        self.assertEqual((status, body.get("waiting")), (503, True), body)
        self.assertIn("Your last search is still at work", body["error"]["message"])
        for _ in range(40):  # its work ends with its client, long before its deadline of ten seconds
            status, body = self.client.call("POST", "/api/building", {"numbers": "3, 1/2, 4", "wanted": "10"})
            if status == 200:
                break
        self.assertEqual((status, body["exact"]), (200, True))

    def test_three_teachers_take_turns_at_two_heavy_requests(self):
        others = [Client(self.server, support.new_teacher()) for _ in range(2)]
        held = [self.ask_and_leave(client) for client in others]
        time.sleep(0.5)
        try:
            status, body = self.client.call("POST", "/api/building", {"numbers": "3, 1/2, 4", "wanted": "10"})
        finally:
            for connection in held:
                connection.close()
        self.assertEqual((status, body.get("waiting")), (503, True), body)
        self.assertIn("This machine is at work on two long searches", body["error"]["message"])
