"""The door: who comes in, from where, by what; and changes that are sent twice."""

import http.client
import json
import threading
import time
import unittest
import uuid
from datetime import timedelta
from hashlib import sha256

import psycopg
from apiflask import APIFlask
from sqlalchemy import text
from sqlalchemy.orm import Session
from werkzeug.test import EnvironBuilder
from werkzeug.wrappers import Response

from keen_slate.store.doors import new_link
from keen_slate.web import create_app, door
from tests import support


def app_of(case, **config):
    """The application in the process of the tests of *case*, ended with them."""
    app = create_app({"SECRET_KEY": "x", "DATABASE_URL": support.desk_url(), **config})
    case.addClassCleanup(app.extensions["keen_slate_engine"].dispose)
    case.addClassCleanup(app.extensions["keen_slate_heavy"].stop)
    return app


def hashed(secret):
    return sha256(secret.encode()).hexdigest()


class Browser:
    """A browser that has come in by a link, in the process of the test."""

    def __init__(self, app, teacher, base="http://127.0.0.1:8400"):
        with Session(support.engine()) as session, session.begin():
            self.link = new_link(session, teacher)
        self.base = base
        self.http = app.test_client()
        self.entered = self.http.post("/api/enter", json={"link": self.link}, base_url=base)
        self.token = self.http.get("/api/me", base_url=base).json.get("csrf_token", "")

    def cookie(self):
        """What its jar has from the door."""
        (found,) = self.http._cookies.values()
        return found

    def send(self, method, path, body=None, **headers):
        sent = {"X-CSRF-Token": self.token} | {name.replace("_", "-"): value for name, value in headers.items()}
        answer = self.http.open(path, method=method, json=body, headers=sent, base_url=self.base)
        return answer.status_code, answer.json if answer.data else None


class DoorTests(unittest.TestCase):
    app: APIFlask

    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls, HOSTS=["slate.school.example"])

    def setUp(self):
        self.teacher = support.new_teacher()
        self.browser = Browser(self.app, self.teacher)

    def test_a_link_works_once_and_no_guess_works(self):
        other = self.app.test_client()
        self.assertEqual(self.browser.entered.status_code, 204)
        for link in (self.browser.link, self.teacher.hex + "guessed", "x", "é" * 40):
            answer = other.post("/api/enter", json={"link": link})
            self.assertEqual((answer.status_code, answer.json["error"]["message"]), (403, door.USED), link)
        for refused in ({}, {"link": ""}, {"link": "x" * 200}, {"link": "a\0"}, {"link": 3}, {"link": "x", "to": "/"}):
            self.assertEqual(other.post("/api/enter", json=refused).status_code, 422, refused)
        self.assertEqual(other.get("/api/sets").status_code, 401)

    def test_a_link_that_is_only_looked_at_stays_good(self):
        with Session(support.engine()) as session, session.begin():
            link = new_link(session, self.teacher)
        for method in ("HEAD", "GET", "GET"):  # as a mail scanner does
            looked = self.app.test_client().open(f"/enter/{link}", method=method)
            self.assertEqual((looked.status_code, looked.headers.get("Set-Cookie")), (200, None))
        for origin, status in (("http://evil.example", 403), ("http://127.0.0.1:8400", 204)):
            answer = self.app.test_client().post(
                "/api/enter", json={"link": link}, headers={"Origin": origin}, base_url=self.browser.base
            )
            self.assertEqual(answer.status_code, status, origin)

    def test_a_sign_in_ends_after_twelve_hours_without_use_and_after_thirty_days(self):
        for column, lasts in {"seen_at": timedelta(hours=12), "made_at": timedelta(days=30)}.items():
            for more, status in ((-timedelta(minutes=1), 200), (timedelta(minutes=1), 401)):
                browser = Browser(self.app, support.new_teacher())
                self.assertEqual(browser.send("GET", "/api/me")[0], 200)
                with support.engine().begin() as connection:
                    connection.execute(
                        text(f"update sign_in set {column} = now() - :since where secret = :secret"),
                        {"since": lasts + more, "secret": hashed(browser.cookie().value)},
                    )
                self.assertEqual(browser.send("GET", "/api/me")[0], status, (column, more))

    def test_two_folders_in_one_browser_leave_each_other_alone(self):
        other = create_app({"SECRET_KEY": "y", "DATABASE_URL": support.desk_url()})
        self.addCleanup(other.extensions["keen_slate_engine"].dispose)
        second = Browser(other, support.new_teacher())
        self.assertNotEqual(self.browser.cookie().key, second.cookie().key)

    def test_a_body_is_not_read_before_its_token_is_right(self):
        class Unread:
            def read(self, *size):
                raise AssertionError("the body was read")

            readline = readlines = __iter__ = read

        paths = ("/api/work", "/api/sets/bring", "/api/tables", "/api/sets")
        for path in paths:
            for token in ("", "guessed"):
                cookie = self.browser.cookie()
                builder = EnvironBuilder(
                    path, self.browser.base, method="POST", content_type="application/json", content_length=10**9,
                    headers={"X-CSRF-Token": token, "Cookie": f"{cookie.key}={cookie.value}"},
                )  # fmt: skip
                environ = builder.get_environ() | {"wsgi.input": Unread()}
                answer = Response.from_app(self.app, environ)
                self.assertEqual(answer.status_code, 403, path)

    def test_a_token_ends_with_its_sign_in(self):
        kept = self.browser.cookie()
        self.assertEqual(self.browser.send("POST", "/api/sets", {"title": "Before"})[0], 201)
        self.assertEqual(
            self.browser.http.post(
                "/api/leave", headers={"X-CSRF-Token": self.browser.token}, base_url=self.browser.base
            ).status_code,
            204,
        )
        self.browser.http.set_cookie(kept.key, kept.value, domain="127.0.0.1")  # kept by somebody
        for path, body in (("sets", {"title": "After"}), ("work", {"text": "1/2"}), ("preview", {"text": "1/2"})):
            self.assertEqual(self.browser.send("POST", f"/api/{path}", body)[0], 401, path)
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

    def test_the_application_owns_nothing_and_who_owns_the_tables_nothing_else(self):
        for url, owns in ((support.desk_url(), False), (support.database_url(), True)):
            with psycopg.connect(url.replace("+psycopg", "")) as connection:
                asked = connection.execute(
                    "select rolsuper, rolcreatedb, rolcreaterole, rolbypassrls, exists (select from pg_class where "
                    "relowner = pg_roles.oid) "
                    "from pg_roles where rolname = current_user"
                )
                self.assertEqual(asked.fetchone(), (False,) * 4 + (owns,))
        with support.engine().connect() as connection:
            for name in ("statement_timeout", "lock_timeout", "idle_in_transaction_session_timeout"):
                self.assertNotEqual(connection.exec_driver_sql(f"show {name}").scalar(), "0")


class OnceTests(unittest.TestCase):
    app: APIFlask

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

    def test_a_key_is_for_one_change(self):
        made = self.browser.send("POST", "/api/sets", {"title": "Rope"}, Idempotency_Key=self.key)[1]
        path = f"/api/sets/{made['id']}"
        for method, where, body in (
            ("POST", "/api/sets", {"title": "Planks"}),
            ("PATCH", path, {"version": made["version"], "title": "Rope"}),
            ("POST", f"{path}/copies", {"title": "Rope"}),
            ("DELETE", "/api/sets/bin", None),
        ):
            status, answer = self.browser.send(method, where, body, Idempotency_Key=self.key)
            self.assertEqual(
                (status, answer["error"]["message"]), (422, "This key was given to another change before.")
            )
        self.assertEqual(self.browser.send("GET", "/api/sets")[1]["total"], 1)

    def test_long_work_that_is_asked_for_twice_at_once_is_done_once(self):
        set_id = support.new_set(self.teacher, "Planks", ["1/2 + 1/3", "7 1/4 - 3 5/6"] * 4)
        browsers = [Browser(self.app, self.teacher) for _ in range(3)]
        answers = []

        def send(browser):
            for _ in range(2000):
                status, body = browser.send(
                    "POST", f"/api/sets/{set_id}/versions", {"count": 2}, Idempotency_Key=self.key
                )
                if not (status == 503 and body.get("waiting")):
                    break
                time.sleep(0.05)
            answers.append((status, [one["id"] for one in body.get("sets", [])]))

        threads = [threading.Thread(target=send, args=(browser,)) for browser in browsers]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(200)
        self.assertEqual([status for status, _ in answers], [201] * 3, answers)
        self.assertEqual(len({tuple(ids) for _, ids in answers}), 1)
        self.assertEqual(self.browser.send("GET", "/api/sets")[1]["total"], 3)

    def test_the_key_of_one_teacher_says_nothing_to_another(self):
        self.browser.send("POST", "/api/sets", {"title": "Mine"}, Idempotency_Key=self.key)
        other = Browser(self.app, support.new_teacher())
        self.assertEqual(
            other.send("POST", "/api/sets", {"title": "Hers"}, Idempotency_Key=self.key)[1]["title"], "Hers"
        )

    def test_a_change_sent_again_while_it_is_being_made_waits_for_its_answer(self):
        answers = []
        server = support.live_server()
        address = server.link(self.teacher)
        connection = http.client.HTTPConnection("127.0.0.1", server.port)
        link = json.dumps({"link": address.partition("/enter/")[2]})
        connection.request("POST", "/api/enter", link, {"Content-Type": "application/json"})
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
