"""An installation for real: renewed and ended without a dropped request, watched, and writing nothing of anybody's."""

import contextlib
import http.client
import json
import os
import re
import signal
import subprocess
import sys
import tempfile
import threading
import time
import unittest
import urllib.request
import uuid
from pathlib import Path
from unittest import mock

from alembic import command
from prometheus_client.parser import text_string_to_metric_families
from sqlalchemy import text
from sqlalchemy.orm import Session

from keen_slate.store.database import migration_config, open_engine
from keen_slate.store.doors import new_link
from keen_slate.store.shelf import teacher_named
from tests import support
from tests.web.test_api import Client
from tests.web.test_door import app_of
from tools.application import ROOT
from tools.postgres import free_port
from tools.processes import parents

WORKERS = 2
COMMAND = ["-m", "tools.launch", "serve"]  # as deploy/ has it


class Installation:
    """`./slate serve` with a database of its own; what it says is kept."""

    def __init__(self, var):
        self.url = support.empty_database()
        name = self.url.rsplit("/", 1)[1]
        self.metrics = free_port(0)
        self.environment = os.environ | {
            "KEEN_SLATE_VAR": str(var), "KEEN_SLATE_DATABASE_URL": support.postgres().desk_url(name),
            "KEEN_SLATE_OWNER_URL": self.url,
            "KEEN_SLATE_SECRET_KEY": "x" * 32, "KEEN_SLATE_PORT": "0", "KEEN_SLATE_WORKERS": str(WORKERS),
            "KEEN_SLATE_LOG": "json",
            "KEEN_SLATE_METRICS": str(self.metrics), "KEEN_SLATE_NICE": "0",
        }  # fmt: skip
        self.said, self.address = [], ""
        self.process = subprocess.Popen(
            [sys.executable, *COMMAND], cwd=ROOT, env=self.environment, stdin=subprocess.DEVNULL,
            stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True,
        )  # fmt: skip
        self.reader = threading.Thread(target=self.listen, daemon=True)
        self.reader.start()
        self.wait(lambda: any("lets a teacher in" in line for line in self.said))
        self.address = next(re.search(r"http://[\d.:]+", line)[0] for line in self.said if "is running at" in line)

    def listen(self):
        for line in self.process.stdout:
            self.said.append(line)

    def wait(self, there, seconds=120):
        """Wait for a state, as long as it lives."""
        end = time.monotonic() + seconds
        while not there():
            if self.process.poll() is not None or time.monotonic() > end:
                raise AssertionError("".join(self.said[-40:]))
            time.sleep(0.05)

    def link(self, teacher):
        engine = open_engine(self.url)
        with Session(engine) as session, session.begin():
            secret = new_link(session, teacher_named(session, teacher).id)
        engine.dispose()
        return f"{self.address}/enter/{secret}"

    def workers(self):
        """The processes that answer, as the kernel lists them below it."""
        found = set()
        for pid, parent in parents().items():
            with contextlib.suppress(OSError):
                name, said = (Path(f"/proc/{pid}/{one}").read_text().strip() for one in ("comm", "cmdline"))
                if parent == self.process.pid and (name == "slate-worker" or "web.serving" in said):
                    found.add(pid)
        return found

    def counted(self):
        """What is handed out for Prometheus, read by its own library."""
        with urllib.request.urlopen(f"http://127.0.0.1:{self.metrics}/metrics", timeout=10) as answer:
            families = list(text_string_to_metric_families(answer.read().decode()))
        return [sample for family in families for sample in family.samples]

    def stop(self):
        if self.process.poll() is None:
            self.process.terminate()
        try:
            self.process.wait(90)
        finally:
            self.process.kill()
            self.process.wait()
        self.reader.join(10)
        self.process.stdout.close()


class ServingTests(unittest.TestCase):
    def setUp(self):
        directory = Path(self.enterContext(tempfile.TemporaryDirectory(prefix="keen-slate-serve-")))
        directory.chmod(0o755)
        self.slate = Installation(directory / "var")
        self.addCleanup(self.slate.stop)
        self.client = Client(self.slate, "Sedge")

    def lines(self):
        """The lines of JSON that it wrote."""
        return [json.loads(line) for line in self.slate.said if line.startswith("{")]

    def keep_on(self, title, stop, done, wrong):
        """A browser that keeps its connection, and never asks twice: it adds a set, and reads, until *stop*."""
        line = http.client.HTTPConnection(self.slate.address.removeprefix("http://"), timeout=60)
        cookies = "; ".join(f"{one.name}={one.value}" for one in self.client.cookies)
        sent = {"Cookie": cookies, "X-CSRF-Token": self.client.token, "Content-Type": "application/json"}
        while not stop.wait(0.02):  # what is renewed needs some of the processors, too
            title_of_this = f"{title} {len(done)}"
            for method, path, body in (
                ("POST", "/api/sets", json.dumps({"title": title_of_this})),
                ("GET", "/api/me", None),
            ):
                try:
                    line.request(method, path, body, sent)
                    answer = line.getresponse()
                    answer.read()
                except OSError as error:
                    wrong.append((method, repr(error)))
                    continue
                if answer.status == 201:
                    done.append(title_of_this)
                elif answer.status != 200:
                    wrong.append((method, answer.status))
        line.close()

    def test_it_is_renewed_under_work_without_a_dropped_request(self):
        stop, done, wrong = threading.Event(), [[] for _ in range(3)], []
        browsers = [
            threading.Thread(target=self.keep_on, args=(f"Browser {i}", stop, one, wrong)) for i, one in enumerate(done)
        ]
        for browser in browsers:
            browser.start()
        for _ in range(2):
            before = self.slate.workers()
            self.assertEqual(len(before), WORKERS)
            told = sum("answer; those before" in line for line in self.slate.said)
            self.slate.process.send_signal(signal.SIGHUP)
            self.slate.wait(lambda told=told: sum("answer; those before" in line for line in self.slate.said) > told)
            self.slate.wait(lambda before=before: not before & self.slate.workers())
        so_far = [len(one) for one in done]
        self.slate.wait(lambda: all(len(one) > count for one, count in zip(done, so_far, strict=True)))
        stop.set()
        for browser in browsers:
            browser.join(60)
        self.assertEqual(wrong, [])
        stored, start = [], 0
        while page := self.client.call("GET", f"/api/sets?start={start}")[1]["sets"]:
            stored += [one["title"] for one in page]
            start += len(page)
        self.assertEqual(sorted(stored), sorted(title for one in done for title in one))
        self.slate.wait(lambda: self.remembered() <= self.slate.workers())  # no process that has ended

    def remembered(self):
        return {int(s.labels["pid"]) for s in self.slate.counted() if s.name == "keen_slate_memory_bytes"}

    def test_what_cannot_be_started_is_said_and_what_ran_goes_on(self):
        engine = open_engine(self.slate.url)
        with engine.begin() as connection:
            connection.execute(text("update alembic_version set version_num = '9999'"))
        engine.dispose()
        before = self.slate.workers()
        self.slate.process.send_signal(signal.SIGHUP)
        self.slate.wait(lambda: any("cannot be started; what ran before goes on" in line for line in self.slate.said))
        self.assertTrue(any("newer version of Keen Slate (9999" in line for line in self.slate.said))
        self.assertEqual((self.slate.workers(), self.client.call("GET", "/api/me")[0]), (before, 200))

    def test_what_was_begun_is_answered_when_it_ends(self):
        spec = {"rungs": {"M8": 8, "M9": 8}, "denominators": [2, 30], "seed": 5}
        answers = []
        asking = threading.Thread(
            target=lambda: answers.append(self.client.call("POST", "/api/ladders", {"spec": spec})[0])
        )
        heavy = [s for s in self.slate.counted() if s.name == "keen_slate_requests_under_way"]
        asking.start()
        self.slate.wait(lambda: self.under_way() > 0 or answers)
        self.slate.process.terminate()
        asking.join(90)
        self.assertEqual((answers, len(heavy)), ([200], 1))
        self.assertEqual(self.slate.process.wait(90), 0)
        self.assertEqual(self.slate.workers(), set())

    def under_way(self):
        return sum(s.value for s in self.slate.counted() if s.name == "keen_slate_requests_under_way")

    def test_it_says_what_it_does_and_nothing_of_anybodys(self):
        title, typed = f"Secret {uuid.uuid4().hex}", "7 1/4 - 3 5/6"
        made = self.client.call("POST", "/api/starts", {"problems": [typed], "title": title})[1]
        for given, kept in (("", None), ("proxy-12345678", "proxy-12345678"), ("<b> 1", None), ("x" * 65, None)):
            request = urllib.request.Request(
                f"{self.slate.address}/api/sets/{made['id']}", headers={"X-Request-Id": given}
            )
            with self.client.opener.open(request, timeout=60) as answer:
                number = answer.headers["X-Request-Id"]
            self.assertRegex(number, f"^{kept}$" if kept else r"^[0-9a-f]{16}$")
            self.slate.wait(lambda number=number: any(one.get("request_id") == number for one in self.lines()))
            (line,) = [one for one in self.lines() if one.get("request_id") == number]
            self.assertEqual(
                (line["method"], line["rule"], line["status"], line["level"]),
                ("GET", "/api/sets/<uuid:set_id>", 200, "info"),
            )
        self.assertEqual(self.client.call("GET", f"/api/sets?search={title.split()[1]}")[0], 200)
        everything = "".join(self.slate.said)
        for secret in (title.split()[1], made["id"], "7 1/4", self.client.token, "/enter/"):
            self.assertNotIn(secret, everything)
        total = sum(
            s.value
            for s in self.slate.counted()
            if s.name == "keen_slate_requests_total" and "healthz" not in s.labels["rule"]
        )
        self.assertGreater(total, 5)
        # Each has its line, which may still be on its way here.
        self.slate.wait(lambda: sum(one.get("message") == "request" for one in self.lines()) == total)


class ReadyTests(unittest.TestCase):
    def test_it_is_ready_with_its_own_tables_and_newer_ones_and_says_why_it_is_not(self):
        url = support.empty_database()
        app = app_of(type(self), DATABASE_URL=url)
        command.upgrade(migration_config(url), "0014")

        def ready():
            answer = app.test_client().get("/readyz", base_url="http://127.0.0.1:8400")
            return answer.status_code, answer.json["why"]

        self.assertEqual(ready(), (503, "the tables are older than this version"))
        command.upgrade(migration_config(url), "head")
        self.assertEqual(ready(), (200, ""))
        engine = open_engine(url)
        with engine.begin() as connection:
            connection.execute(text("update alembic_version set version_num = '9999'"))
        engine.dispose()
        self.assertEqual(ready(), (200, ""))
        # A newer version that lies in the folder, and does not run yet, takes nothing from this one.
        with mock.patch("keen_slate.store.database.revisions", lambda: ["9999", "99999"]):
            self.assertEqual(ready(), (200, ""))
        nowhere = app_of(type(self), DATABASE_URL=f"postgresql+psycopg://x@127.0.0.1:{free_port(0)}/x")
        answer = nowhere.test_client().get("/readyz", base_url="http://127.0.0.1:8400")
        self.assertEqual((answer.status_code, answer.json["why"]), (503, "the database does not answer"))
