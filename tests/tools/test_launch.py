"""Start, stop, stay: one instance a folder, children that come back, nothing lost to kills; an older and a newer
version.
"""

import contextlib
import json
import os
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
import unittest
import uuid
from pathlib import Path
from unittest import mock

from alembic import command
from sqlalchemy import text

from keen_slate.store.database import (
    SchemaError,
    bring_up_to_date,
    downgrade_to,
    migrate,
    migration_config,
    open_engine,
)
from tests import support
from tests.web.test_api import Client
from tools.application import ROOT
from tools.instance import Instance
from tools.postgres import LocalPostgres, free_port
from tools.processes import below, parents


class Slate:
    """`./slate demo` in a folder of its own."""

    def __init__(self, var):
        self.var = var
        self.environment = os.environ | {"KEEN_SLATE_VAR": str(var)}

    def run(self, *arguments, **more):
        command = [sys.executable, "-m", "tools.launch", *arguments]
        return subprocess.run(
            command, cwd=ROOT, env=self.environment, capture_output=True, text=True, timeout=90, check=False, **more
        )

    def start(self):
        with tempfile.TemporaryFile("w+") as told:
            self.process = subprocess.Popen(
                [sys.executable, "-m", "tools.launch", "demo", "--port", "0"], cwd=ROOT, env=self.environment,
                stdout=subprocess.PIPE, stderr=told, text=True,
            )  # fmt: skip
            for line in self.process.stdout:
                if "/enter/" in line:
                    self.address, _, self.secret = line.strip().partition("/enter/")
                    return self
            told.seek(0)
            raise AssertionError(f"it did not start: {told.read()}")

    def link(self, teacher=None):
        return self.run("link").stdout.strip()

    def children(self):
        """Name and process of the children: the server of the database, the workers, the stand-in for a sign-in, what
        forgets.
        """
        found = {}
        for pid, parent in parents().items():
            with contextlib.suppress(OSError):
                if parent == self.process.pid:
                    name = Path(f"/proc/{pid}/comm").read_text().strip().removeprefix("slate-")
                    found[pid] = "postgres" if name == "setpriv" else name
        return found

    def family(self):
        """All processes below it: workers, those of heavy requests, and the server of the database."""
        return set(below([self.process.pid]))

    def end(self):
        if self.process.poll() is None:
            self.process.terminate()
        self.process.wait(30)
        self.process.stdout.close()


class LaunchTests(unittest.TestCase):
    slate: Slate

    @classmethod
    def setUpClass(cls):
        directory = Path(cls.enterClassContext(tempfile.TemporaryDirectory(prefix="keen-slate-launch-")))
        directory.chmod(0o755)
        cls.slate = Slate(directory / "var").start()
        cls.addClassCleanup(cls.slate.end)

    def test_a_second_start_leaves_the_first_alone_and_gives_a_link(self):
        again = self.slate.run("demo")
        self.assertEqual(again.returncode, 0, again.stderr)
        self.assertIn(f"{self.slate.address}/enter/", again.stdout)
        self.assertIsNotNone(Instance(self.slate.var).running())
        self.assertNotEqual(self.slate.link(), self.slate.link())

    def test_the_folder_is_its_owners(self):
        self.assertEqual(self.slate.var.stat().st_mode & 0o066, 0)
        for path in self.slate.var.iterdir():
            self.assertEqual(path.stat().st_mode & 0o077, 0, path)

    def test_what_was_acknowledged_survives_kills_of_workers_and_database(self):
        title = f"Kills {uuid.uuid4()}"
        first = Client(self.slate, None)
        set_id = first.call("POST", "/api/sets", {"title": title})[1]["id"]
        acknowledged, unknown, stop = [], [], threading.Event()

        def write(number):
            client = Client(self.slate, None)
            set_of_mine = client.call("POST", "/api/sets", {"title": f"{title} {number}"})[1]["id"]
            n = 0
            while not stop.is_set():
                n += 1
                key, body = str(uuid.uuid4()), {"title": f"{title} {number} {n}"}
                for _ in range(60):
                    try:
                        status, _ = client.call("POST", f"/api/sets/{set_of_mine}/copies", body, Idempotency_Key=key)
                    except (OSError, ValueError):
                        status = 0
                    if status == 201:
                        acknowledged.append(body["title"])
                        break
                    time.sleep(0.25)
                else:
                    unknown.append(body["title"])
                time.sleep(0.05)

        threads = [threading.Thread(target=write, args=(n,)) for n in range(4)]
        for thread in threads:
            thread.start()
        back = []
        for kind in ("worker", "postgres", "worker", "postgres"):
            time.sleep(1.5)
            victim = next(pid for pid, name in self.slate.children().items() if name == kind)
            os.kill(victim, signal.SIGKILL)
            begun, so_far = time.monotonic(), len(acknowledged)
            while len(acknowledged) < so_far + 4 and time.monotonic() - begun < 30:
                time.sleep(0.05)
            back.append(time.monotonic() - begun)
        stop.set()
        for thread in threads:
            thread.join(60)
        found, start = [], 0
        while page := first.call("GET", f"/api/sets?search={title.split()[1]}&start={start}")[1]["sets"]:
            found += [one["title"] for one in page]
            start += len(page)
        stored = [name for name in found if name.count(" ") == 3]
        self.assertEqual(first.call("GET", f"/api/sets/{set_id}")[0], 200)
        self.assertEqual(unknown, [])
        self.assertEqual(sorted(stored), sorted(acknowledged))  # none lost, none twice
        self.assertLess(max(back), 30)  # it came back at all: the loop above waits no longer
        self.assertGreater(len(acknowledged), 20)


class EndingTests(unittest.TestCase):
    def setUp(self):
        directory = Path(self.enterContext(tempfile.TemporaryDirectory(prefix="keen-slate-end-")))
        directory.chmod(0o755)
        self.var = directory / "var"

    def ended(self, slate, children):
        for _ in range(150):
            if slate.process.poll() is not None and not any(Path(f"/proc/{pid}").exists() for pid in children):
                return True
            time.sleep(0.1)
        return False

    def test_a_closed_terminal_a_killed_launcher_and_stop_end_everything(self):
        for ending in ("hangup", "kill", "stop"):
            slate = Slate(self.var).start()
            self.addCleanup(slate.end)
            children = slate.children()
            workers = ["worker"] * (os.cpu_count() or 1)
            self.assertEqual(sorted(children.values()), ["forgets", "postgres", "sign-in", *workers])
            Client(slate, None).call(
                "POST", "/api/ladders", {"spec": {"rungs": {"F1": 1}}}
            )  # a process of heavy work is there
            children = slate.family()
            self.assertGreater(len(children), 4)
            if ending == "stop":
                self.assertIn("was stopped", slate.run("stop").stdout)
            else:
                slate.process.send_signal(signal.SIGHUP if ending == "hangup" else signal.SIGKILL)
            self.assertTrue(self.ended(slate, children), ending)
        self.assertIn("not running", Slate(self.var).run("stop").stdout)

    def test_a_first_start_that_was_cut_off_costs_nothing(self):
        home = self.var / "postgres"
        (self.var / "postgres.new" / "data").mkdir(parents=True)
        (self.var / "postgres.new" / "password").write_text("half")
        (home / "data").mkdir(parents=True)  # as an older version left it: begun in its place, never finished
        self.var.chmod(0o755)
        server = LocalPostgres(home, lasting=False)
        self.addCleanup(server.remove)
        engine = open_engine(server.start(0))
        with engine.connect() as connection:
            self.assertEqual(connection.execute(text("select 1")).scalar(), 1)
        engine.dispose()

    def test_a_port_that_is_taken_between_the_look_and_the_start_is_left_for_another(self):
        self.var.mkdir(mode=0o755, exist_ok=True)
        server = LocalPostgres(self.var / "postgres", lasting=False)
        self.addCleanup(server.remove)
        with socket.socket() as other:
            other.bind(("127.0.0.1", 0))
            other.listen()
            taken = other.getsockname()[1]
            looks = iter([taken])
            with mock.patch("tools.postgres.free_port", lambda wanted: next(looks, None) or free_port(wanted)):
                engine = open_engine(server.start(taken))
            with engine.connect() as connection:
                self.assertEqual(connection.execute(text("select 1")).scalar(), 1)
            engine.dispose()
            self.assertNotEqual(server.port, taken)

    def test_two_first_starts_at_once_leave_one_that_runs(self):
        slates = [Slate(self.var) for _ in range(2)]
        processes = [
            subprocess.Popen([sys.executable, "-m", "tools.launch", "demo", "--port", "0"], cwd=ROOT, env=s.environment,
                stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)
            for s in slates
        ]  # fmt: skip
        for _ in range(600):
            if Instance(self.var).running():
                break
            time.sleep(0.1)
        self.assertIsNotNone(Instance(self.var).running())
        time.sleep(0.5)
        slates[0].run("stop")
        outputs = [process.communicate(timeout=60)[0] for process in processes]
        self.assertEqual(sum("Keen Slate is running" in output for output in outputs), 1, outputs)


class VersionTests(unittest.TestCase):
    def test_an_older_database_is_brought_up_and_a_newer_one_is_refused_in_a_sentence(self):
        url = support.empty_database()
        migrate(url, "0004")
        self.assertEqual(bring_up_to_date(url), "The records were brought from 0004 to 0016.\n")
        self.assertEqual(bring_up_to_date(url), "")
        engine = open_engine(url)
        with engine.begin() as connection:
            connection.execute(text("update alembic_version set version_num = '0999'"))
        engine.dispose()
        with self.assertRaisesRegex(SchemaError, r"newer version of Keen Slate \(0999; this one knows 0016\)"):
            bring_up_to_date(url)

    def test_going_back_says_what_would_be_lost_and_asks(self):
        url = support.empty_database()
        migrate(url)
        with self.assertRaisesRegex(
            SchemaError,
            "takes away what can be undone in the ways of schools; who comes in by the school's own sign-in; passkeys; "
            "who is a head.*the schools.*the addresses.*the classes.*the scenarios.*the history of the ways for all "
            "sets.*--lose-data",
        ):
            downgrade_to(url, "0004")
        with self.assertRaisesRegex(SchemaError, "stand at 0016; they can be brought back to 0001"):
            downgrade_to(url, "0999", lose_data=True)
        downgrade_to(url, "0003", lose_data=True)
        self.assertEqual(bring_up_to_date(url), "The records were brought from 0003 to 0016.\n")
        command.check(migration_config(url))

    def test_an_unknown_setting_of_the_environment_is_said_at_the_start(self):
        environment = os.environ | {
            "KEEN_SLATE_DATABASE_URL": "x",
            "KEEN_SLATE_OWNER_URL": "x",
            "KEEN_SLATE_SECRET_KEY": "x",
            "KEEN_SLATE_TEACHER": str(uuid.uuid4()),
        }
        with tempfile.TemporaryDirectory() as var:
            done = subprocess.run(
                [sys.executable, "-m", "tools.launch", "serve"], cwd=ROOT, env=environment | {"KEEN_SLATE_VAR": var},
                capture_output=True, text=True, check=False,
            )  # fmt: skip
        self.assertEqual((done.returncode, done.stdout), (1, ""))
        self.assertIn("KEEN_SLATE_TEACHER is not read any more", done.stderr)
        self.assertNotIn("Traceback", done.stderr)
        self.assertNotIn(json.dumps("x"), done.stderr)
