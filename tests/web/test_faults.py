"""Every operation of the API with a fault injected: a sentence each time, never a 500, never a traceback."""

import io
import logging
import re
import unittest
import unittest.mock
import uuid
import zipfile

from apiflask import APIFlask
from psycopg import errors as postgres
from sqlalchemy import Engine, event, text
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm.exc import StaleDataError

from keen_slate.store.shelf import Shelf
from keen_slate.web import heavy, session
from tests import support
from tests.support_core import some
from tests.web.operations import BODIES, QUERIES, SPEC, asked, known_provider, operations_of, rows_for
from tests.web.test_door import Browser, app_of

# Every kind of problem, and what looks like one.
PROBLEMS = (
    "3 10/4", "2/7 = _/21 = 12/_", "5 1/6 - 2 3/4", "30.4 - 7.85", "0.4 × 2 1/2", "0.5 (3 - 7 + 1/4)", "1/2 + _ = 3/4",
    "1/_ + 1/2 = 5/6",
    "_/18 + _/9 + _/3 = 23/18", "_/97 + _/97 + _/97 = 2", "2 _/3 + 1/3 = 3", "_ × 3 = 6", "_", "1/0", "0.1[6]",
    "41 3/8%", "2^6^2", "(" * 99 + "1" + ")" * 99,
    "(" * 98 + "1/2" + ")" * 98, "(" * 200,
    "A plank is 3 1/4 m long. Alder saws 1 2/3 m off. How long is the rest?", "", " ", "é" * 200, "-" * 200, "9" * 200,
)  # fmt: skip


class FaultTests(unittest.TestCase):
    app: APIFlask
    engine: Engine
    operations: list[str]

    @classmethod
    def setUpClass(cls):
        cls.app = app_of(cls, PROVIDER=known_provider())
        cls.engine = cls.app.extensions["keen_slate_engine"]
        cls.operations = operations_of(cls.app)

    def setUp(self):
        logger = logging.getLogger("keen_slate")
        logger.disabled = True
        self.addCleanup(setattr, logger, "disabled", False)
        self.teacher = support.new_teacher()
        self.ids = rows_for(self.teacher)
        self.set_id = self.ids["set_id"]
        self.browser = Browser(self.app, self.teacher)

    def ask(self, operation, given=None):
        method, path, body = asked(operation, self.ids)
        answer = self.browser.http.open(
            path, method=method, json=body if given is None else given, base_url=self.browser.base,
            headers={"X-CSRF-Token": self.browser.token, "Idempotency-Key": str(uuid.uuid4())},
        )  # fmt: skip
        self.assertNotIn(b"Traceback", answer.data, operation)
        if answer.status_code >= 400:
            self.assertTrue(answer.json["error"]["message"], operation)
        return answer.status_code

    def test_every_operation_is_known_here_and_works_or_says_why_not(self):
        self.assertEqual({o for o in self.operations if not o.startswith("GET") and o not in QUERIES}, set(BODIES))
        for operation in self.operations:
            if "leav" not in operation:  # after which there is nobody to ask
                by_secret = re.search(
                    r"POST .*/(enter|sign-in|invited|join|joined|passkeys|identities)$| /api/school/.", operation
                )
                allowed = (403, 429) if by_secret else (200, 201, 204, 404, 409, 422)
                self.assertIn(self.ask(operation), allowed, operation)

    def test_every_kind_of_problem_in_every_place_that_takes_one(self):
        asked = 0
        for operation, body in BODIES.items():
            for field in set(body or {}) & {"text", "source", "problems", "numbers", "answer", "estimate", "lines"}:
                for problem in some(PROBLEMS):
                    given = {**body, field: [problem] if isinstance(body[field], list) else problem}
                    self.assertNotIn(self.ask(operation, given), (500, 503), (operation, field, problem))
                    asked += 1
        self.assertGreater(asked, 10 * len(some(PROBLEMS)))

    def test_the_database_is_lost_or_busy_in_any_operation(self):
        lost = OperationalError("x", None, postgres.OperationalError("gone"))
        busy = OperationalError("x", None, postgres.DeadlockDetected("two"))
        for error in (lost, busy):
            for at in (0, 2, 4):  # at once, and after so many statements have gone well
                for operation in self.operations:
                    left = [at]

                    def fail(*arguments, error=error, left=left):
                        left[0] -= 1
                        if left[0] < 0:
                            raise error

                    event.listen(self.engine, "before_cursor_execute", fail)
                    try:
                        self.assertNotEqual(self.ask(operation), 500, operation)
                    finally:
                        event.remove(self.engine, "before_cursor_execute", fail)

    def test_where_the_disk_is_full_all_can_be_read_and_changes_say_so(self):
        full = OperationalError("x", None, postgres.DiskFull("could not extend file"))

        def fail(connection, cursor, statement, *more):
            if statement.lstrip().startswith(("INSERT", "UPDATE", "DELETE")):
                raise full

        with support.engine().begin() as connection:  # its time has come to be noted anew
            connection.execute(text("update sign_in set seen_at = now() - interval '1 hour'"))
        event.listen(self.engine, "before_cursor_execute", fail)
        try:
            for operation in self.operations:
                status = self.ask(operation)
                if operation.startswith("GET"):
                    self.assertIn(status, (200, 404), operation)
            status, body = self.browser.send("POST", "/api/sets", {"title": "x"})
        finally:
            event.remove(self.engine, "before_cursor_execute", fail)
        self.assertEqual(status, 503)
        self.assertRegex(body["error"]["message"], "disk .* is full, so nothing was saved")

    def test_a_row_changed_meanwhile_is_a_conflict_in_any_operation(self):
        true = Shelf.one_set
        refused = []

        def stale(shelf, set_id):
            if refused:
                return true(shelf, set_id)  # the conflict is answered with the set as it is
            refused.append(set_id)
            raise StaleDataError

        for operation in self.operations:
            refused.clear()
            Shelf.one_set = stale
            try:
                self.assertNotEqual(self.ask(operation), 500, operation)
            finally:
                Shelf.one_set = true

    def test_a_conflict_in_which_the_database_is_lost_is_said(self):
        version = self.browser.send("GET", f"/api/sets/{self.set_id}")[1]["version"]

        def fail(connection, cursor, statement, *more):
            if "FOR UPDATE" not in statement and "example_set" in statement:
                raise OperationalError("x", None, postgres.OperationalError("gone"))

        event.listen(self.engine, "before_cursor_execute", fail)
        try:
            status, body = self.browser.send(
                "PATCH", f"/api/sets/{self.set_id}", {"version": version + 5, "title": "x"}
            )
        finally:
            event.remove(self.engine, "before_cursor_execute", fail)
        self.assertEqual(
            (status, body["error"]["message"]), (503, "The records cannot be reached right now, so nothing was saved.")
        )

    def test_a_change_whose_saving_was_cut_off_may_have_been_saved(self):
        def cut(connection):
            raise OperationalError("x", None, postgres.OperationalError("gone"))

        event.listen(self.engine, "commit", cut)
        try:
            status, body = self.browser.send("POST", "/api/sets", {"title": "x"})
        finally:
            event.remove(self.engine, "commit", cut)
        self.assertEqual(status, 503)
        self.assertRegex(body["error"]["message"], "may have been saved; look")

    def test_what_cannot_be_kept_or_read_is_refused(self):
        deep = b'{"spec": ' + b"[" * 5000 + b"]" * 5000 + b"}"
        send = self.browser.send
        path = f"/api/sets/{self.set_id}"
        version = send("GET", path)[1]["version"]
        for bad in ("a\x00b", "half \ud800 of one", "\udfff", "a\x0bb", "\ufffe"):
            for method, where, body in (
                ("POST", "/api/sets", {"title": bad}), ("PATCH", path, {"version": version, "note": bad}),
                ("PATCH", path, {"version": version, "words": {"regroup": bad}}),
                ("POST", "/api/preview", {"text": bad}),
                ("POST", f"{path}/judge", {"text": bad}), ("PATCH", path, {"version": version, "standards": [bad]}),
                ("POST", "/api/sets/bring", {"format": "keen-slate/set", "version": 1, "title": bad, "examples": []}),
            ):  # fmt: skip
                status, answer = send(method, where, body)
                self.assertEqual(status, 422, (where, bad))
                self.assertRegex(answer["error"]["message"], r"cannot be kept \(U\+[0-9A-F]{4}\)")
        self.assertEqual(send("GET", "/api/sets?search=%00")[0], 422)
        self.assertEqual(send("GET", path)[1]["version"], version)
        for where in ("/api/ladders/count", "/api/sets/bring", "/api/work"):
            answer = self.browser.http.post(where, data=deep, content_type="application/json",
                headers={"X-CSRF-Token": self.browser.token}, base_url=self.browser.base)  # fmt: skip
            self.assertIn(answer.status_code, (400, 422), where)
        long = {"text": "problem\n" + '"' + "1" * 150_000 + '"'}
        self.assertEqual(send("POST", f"{path}/judge", long)[1]["lines"][0]["verdict"], "unreadable")

    def test_a_wish_that_is_nested_deep_is_refused_and_the_next_one_is_worked(self):
        for depth in (60, 900):
            deep: object = "x"
            for _ in range(depth):
                deep = [deep]
            status, answer = self.browser.send("POST", "/api/ladders", {"spec": SPEC | {"denominators": deep}})
            self.assertEqual((status, answer["error"]["message"]), (422, "This is nested too deep to be read."))
        self.assertEqual(self.browser.send("POST", "/api/ladders", {"spec": SPEC})[0], 200)

    def test_who_only_waited_is_told_to_ask_again(self):
        blanks = support.new_set(self.teacher, "Blanks", ["_/97 + _/97 + _/97 = 2"])
        waited, session.WAITED = session.WAITED, -1
        try:
            answers = [
                self.browser.http.post("/api/work", json={"text": "_/97 + _/97 + _/97 = 2"},
                    headers={"X-CSRF-Token": self.browser.token}, base_url=self.browser.base),
                self.browser.http.get(f"/api/sets/{blanks}", base_url=self.browser.base),
            ]  # fmt: skip
        finally:
            session.WAITED = waited
        for answer in answers:
            self.assertEqual(
                (answer.status_code, answer.json["waiting"], answer.headers["Retry-After"]), (503, True, "1")
            )
        self.assertEqual(self.browser.send("POST", "/api/work", {"text": "_/97 + _/97 + _/97 = 2"})[0], 200)

    def test_what_went_out_comes_in_again_however_slow_it_is(self):
        slow = [f"_/{n} + _/{n} + _/{n} = 2" for n in range(40, 100)]
        saved = self.browser.http.get(f"/api/sets/{support.new_set(self.teacher, 'Slow', slow)}/set.json",
            base_url=self.browser.base).json  # fmt: skip
        light, session.LIGHT = session.LIGHT, -1  # nothing is worked in the request itself
        try:
            status, brought = self.browser.send("POST", "/api/sets/bring", saved)
        finally:
            session.LIGHT = light
        self.assertEqual((status, [one["source"] for one in brought["examples"]]), (201, slow))

    def test_a_spreadsheet_that_says_it_is_too_large_is_refused_before_it_is_read(self):
        for rows, cell in ((150_000, "1/2"), (1, "9" * 20_000_000)):
            sheet = "".join(
                [f'<row r="{n}"><c r="A{n}" t="inlineStr"><is><t>{cell}</t></is></c></row>' for n in range(1, rows + 1)]
            )
            packed = io.BytesIO()
            with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as file:
                file.writestr("xl/worksheets/sheet1.xml", sheet)
            with unittest.mock.patch.object(heavy, "run", side_effect=AssertionError):  # nobody had to unpack it
                answer = self.browser.http.post("/api/tables", data=packed.getvalue(),
                    headers={"X-CSRF-Token": self.browser.token}, base_url=self.browser.base)  # fmt: skip
            self.assertEqual(
                (answer.status_code, answer.json["error"]["message"]), (422, "This spreadsheet is too large.")
            )

    def test_standards_of_any_text_go_out_and_come_in_again(self):
        version = self.browser.send("GET", f"/api/sets/{self.set_id}")[1]["version"]
        change = {"version": version, "standards": ["5.NF.A.1", "Year 6 <b>", "our own"]}
        kept = self.browser.send("PATCH", f"/api/sets/{self.set_id}", change)[1]["standards"]
        saved = self.browser.http.get(f"/api/sets/{self.set_id}/set.json", base_url=self.browser.base).json
        status, brought = self.browser.send("POST", "/api/sets/bring", saved)
        self.assertEqual((status, kept, brought["standards"]), (201, change["standards"], change["standards"]))

    def test_what_only_took_too_long_is_worked_anew_the_next_time(self):
        set_id = support.new_set(self.teacher, "Blanks", ["_/18 + _/9 + _/3 = 23/18"])
        light, session.LIGHT = session.LIGHT, -1
        try:
            late = self.browser.send("GET", f"/api/sets/{set_id}")[1]["examples"][0]
        finally:
            session.LIGHT = light
        self.assertRegex(late["unreadable"], "takes longer")
        self.assertIsNone(self.browser.send("GET", f"/api/sets/{set_id}")[1]["examples"][0]["unreadable"])

    def test_places_keys_and_the_bin_bear_two_at_once(self):
        import threading

        codes = []

        def work(method, path, body):
            codes.append(self.browser_of_its_own(method, path, body))

        path = f"/api/sets/{self.set_id}"
        asked = [("PUT", f"{path}/place", {"place": "bin"}), ("PUT", f"{path}/show", {"shown": True})] * 3 + [
            ("DELETE", "/api/sets/bin", None)
        ] * 3
        threads = [threading.Thread(target=work, args=one) for one in asked]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(30)
        self.assertEqual(len(codes), len(asked))
        self.assertLessEqual(set(codes), {200, 404, 409, 503})

    def browser_of_its_own(self, method, path, body):
        return Browser(self.app, self.teacher).send(method, path, body)[0]

    def test_what_nobody_foresaw_is_logged_without_a_word_of_what_was_typed(self):
        logging.getLogger("keen_slate").disabled = False
        true = Shelf.house_ways

        def broken(shelf):
            raise ValueError("secret plank")

        Shelf.house_ways = broken
        try:
            with self.assertLogs("keen_slate", "ERROR") as logged:
                status, body = self.browser.send("GET", f"/api/sets/{self.set_id}")
        finally:
            Shelf.house_ways = true
        self.assertEqual((status, body["error"]["hint"]), (500, "Load the page again."))
        said = "\n".join(logged.output)
        self.assertRegex(said, r"ValueError at broken \(test_faults.py:\d+\)")
        self.assertIsNone(re.search("secret|plank", said.replace("Planks", "")))
