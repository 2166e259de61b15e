"""The door: who comes in, from where, by what; and changes that are sent twice."""

import http.client
import json
import threading
import unittest
import uuid

import psycopg
from sqlalchemy.orm import Session

from keen_slate.store.doors import new_link
from keen_slate.web import create_app
from tests import support


def app_of(case, **config):
    """The application in the process of the tests of *case*, ended with them."""
    app = create_app({"SECRET_KEY": "x", "DATABASE_URL": support.database_url(), **config})
    case.addClassCleanup(app.extensions["keen_slate_engine"].dispose)
    case.addClassCleanup(app.extensions["keen_slate_heavy"].stop)
    return app


class Browser:
    """A browser that has come in by a link, in the process of the test."""

    def __init__(self, app, teacher, base="http://127.0.0.1:8400"):
        with Session(support.engine()) as session, session.begin():
            self.link = new_link(session, teacher)
        self.base = base
        self.http = app.test_client()
        self.entered = self.http.get(f"/enter/{self.link}", base_url=base)
        self.token = self.http.get("/api/me", base_url=base).json.get("csrf_token", "")

    def send(self, method, path, body=None, **headers):
        sent = {"X-CSRF-Token": self.token} | {name.replace("_", "-"): value for name, value in headers.items()}
        answer = self.http.open(path, method=method, json=body, headers=sent, base_url=self.base)
        return answer.status_code, answer.json


class DoorTests(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls, HOSTS=["slate.school.example"])

    def setUp(self):
        self.teacher = support.new_teacher()
        self.browser = Browser(self.app, self.teacher)

    def test_a_link_works_once_and_no_guess_works(self):
        other = self.app.test_client()
        self.assertIn('content="0;url=/"', self.browser.entered.text)
        for link in (self.browser.link, self.teacher.hex + "guessed", "x", "%00", "é" * 40):
            answer = other.get(f"/enter/{link}")
            self.assertEqual((answer.status_code, answer.headers.get("Location")), (302, "/door"), link)
        self.assertEqual(other.get("/api/sets").status_code, 401)

    def test_a_token_ends_with_its_sign_in(self):
        secret = self.browser.http.get_cookie("keen_slate", "127.0.0.1").value
        self.assertEqual(self.browser.send("POST", "/api/sets", {"title": "Before"})[0], 201)
        self.assertEqual(
            self.browser.http.post(
                "/api/leave", headers={"X-CSRF-Token": self.browser.token}, base_url=self.browser.base
            ).status_code,
            204,
        )
        self.browser.http.set_cookie("keen_slate", secret, domain="127.0.0.1")  # kept by somebody
        self.assertEqual(self.browser.send("POST", "/api/sets", {"title": "After"})[0], 401)
        self.assertEqual(Browser(self.app, self.teacher).send("GET", "/api/sets")[1]["total"], 1)

    def test_a_token_of_one_sign_in_is_not_that_of_another(self):
        second = Browser(self.app, self.teacher)
        second.token = self.browser.token
        self.assertEqual(second.send("POST", "/api/sets", {"title": "x"})[0], 403)

    def test_only_our_own_addresses_are_answered(self):
        for base in ("http://evil.example", "http://127.0.0.1.evil.example:8400", "http://10.1.2.3"):
            answer = self.browser.http.get("/api/me", base_url=base)
            self.assertEqual((answer.status_code, "error" in answer.json), (400, True), base)
        for base in ("http://localhost:8400", "http://127.0.0.1:1", "http://slate.school.example"):
            self.assertEqual(self.app.test_client().get("/healthz", base_url=base).status_code, 200)
        for origin, status in (
            ("http://evil.example", 403),
            ("null", 403),
            ("http://127.0.0.1:9999", 403),
            (self.browser.base, 201),
        ):
            self.assertEqual(self.browser.send("POST", "/api/sets", {"title": "x"}, Origin=origin)[0], status, origin)

    def test_the_cookie_is_out_of_reach_and_secure_under_tls(self):
        plain = self.browser.entered.headers["Set-Cookie"]
        self.assertTrue("HttpOnly" in plain and "SameSite=Strict" in plain and "Secure" not in plain)
        tls = Browser(self.app, self.teacher, "https://slate.school.example")
        self.assertIn("Secure", tls.entered.headers["Set-Cookie"])

    def test_the_application_owns_its_tables_and_nothing_else(self):
        url = support.database_url().replace("+psycopg", "")
        with psycopg.connect(url) as connection:
            self.assertEqual(
                connection.execute(
                    "select rolsuper, rolcreatedb, rolcreaterole from pg_roles where rolname = current_user"
                ).fetchone(),
                (False,) * 3,
            )
        with support.engine().connect() as connection:
            for name in ("statement_timeout", "lock_timeout", "idle_in_transaction_session_timeout"):
                self.assertNotEqual(connection.exec_driver_sql(f"show {name}").scalar(), "0")


class OnceTests(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls)

    def setUp(self):
        self.teacher = support.new_teacher()
        self.browser = Browser(self.app, self.teacher)
        self.key = str(uuid.uuid4())

    def test_a_change_that_is_sent_again_is_made_once_and_answered_alike(self):
        first = self.browser.send("POST", "/api/sets", {"title": "Rope"}, Idempotency_Key=self.key)
        again = self.browser.send("POST", "/api/sets", {"title": "Rope"}, Idempotency_Key=self.key)
        self.assertEqual((first[0], again), (201, first))
        path, version = f"/api/sets/{first[1]['id']}", first[1]["version"]
        keys = [str(uuid.uuid4()) for _ in range(3)]
        changes = [
            ("POST", f"{path}/examples", {"version": version, "source": "1/2 + 1/3"}),
            ("PATCH", path, {"version": version + 1, "title": "Planks"}),
            ("POST", f"{path}/undo", {"version": version + 2}),
        ]
        for key, (method, where, body) in zip(keys, changes, strict=True):
            answers = [self.browser.send(method, where, body, Idempotency_Key=key) for _ in range(3)]
            self.assertLess(answers[0][0], 300, answers[0][1])
            self.assertEqual(answers[1:], answers[:1] * 2)
        now = self.browser.send("GET", path)[1]
        self.assertEqual((now["title"], len(now["examples"]), now["version"]), ("Rope", 1, version + 3))
        self.assertEqual(self.browser.send("GET", "/api/sets")[1]["total"], 1)

    def test_a_refused_change_is_not_remembered(self):
        refused = self.browser.send("POST", "/api/sets", {"title": ""}, Idempotency_Key=self.key)
        made = self.browser.send("POST", "/api/sets", {"title": "Now"}, Idempotency_Key=self.key)
        self.assertEqual((refused[0], made[0]), (422, 201))
        self.assertEqual(self.browser.send("POST", "/api/sets", {"title": "x"}, Idempotency_Key="no uuid")[0], 422)

    def test_the_key_of_one_teacher_says_nothing_to_another(self):
        self.browser.send("POST", "/api/sets", {"title": "Mine"}, Idempotency_Key=self.key)
        other = Browser(self.app, support.new_teacher())
        self.assertEqual(
            other.send("POST", "/api/sets", {"title": "Hers"}, Idempotency_Key=self.key)[1]["title"], "Hers"
        )

    def test_a_change_sent_again_while_it_is_being_made_waits_for_its_answer(self):
        answers = []
        server = support.live_server()
        self.addCleanup(server.stop)
        address = server.link(self.teacher)
        connection = http.client.HTTPConnection("127.0.0.1", server.port)
        connection.request("GET", address.removeprefix(server.address))
        entered = connection.getresponse()
        entered.read()
        cookie = entered.getheader("Set-Cookie").split(";")[0]
        connection.request("GET", "/api/me", headers={"Cookie": cookie})
        token = json.load(connection.getresponse())["csrf_token"]

        def send():
            one = http.client.HTTPConnection("127.0.0.1", server.port)
            headers = {
                "Cookie": cookie,
                "X-CSRF-Token": token,
                "Idempotency-Key": self.key,
                "Content-Type": "application/json",
            }
            one.request("POST", "/api/sets", json.dumps({"title": "Twice"}), headers)
            answers.append(json.load(one.getresponse())["id"])
            one.close()

        threads = [threading.Thread(target=send) for _ in range(6)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(20)
        connection.close()
        self.assertEqual((len(answers), len(set(answers))), (6, 1))
        self.assertEqual(self.browser.send("GET", "/api/sets")[1]["total"], 1)


class HouseTests(unittest.TestCase):
    def setUp(self):
        self.app = app_of(type(self))
        self.browser = Browser(self.app, support.new_teacher())

    def test_the_ways_for_all_sets_are_undone_by_themselves_and_two_tabs_choose(self):
        version = self.browser.send("GET", "/api/ways")[1]["version"]
        put = lambda ways, version: self.browser.send("PUT", "/api/ways", {"house": ways, "version": version})  # noqa: E731
        first = put({"ties": "down"}, version)[1]
        second = put({"ties": "down", "say_least": "lowest"}, first["version"])[1]
        status, body = put({"cancel": "after"}, first["version"])
        self.assertEqual((status, body["ways"]["house"]), (409, second["house"]))
        undone = self.browser.send("POST", "/api/ways/undo", {"version": second["version"]})[1]
        self.assertEqual((undone["house"], undone["redo"]), ({"ties": "down"}, "Ways changed"))
        undone = self.browser.send("POST", "/api/ways/undo", {"version": undone["version"]})[1]
        self.assertEqual((undone["house"], undone["undo"]), ({}, None))
        self.assertEqual(self.browser.send("POST", "/api/ways/undo", {"version": undone["version"]})[0], 422)
        again = self.browser.send("POST", "/api/ways/redo", {"version": undone["version"]})[1]
        self.assertEqual(again["house"], {"ties": "down"})
        self.assertEqual(put({"ties": "up"}, again["version"])[1]["redo"], None)
