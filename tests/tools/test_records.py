"""The records: a start takes nothing away, whatever is missing; the version that made them starts them; kept before
they are changed.
"""

import os
import random
import secrets
import shutil
import subprocess
import sys
import tempfile
import unittest
import unittest.mock
from datetime import date
from pathlib import Path
from typing import Any

import psycopg
from sqlalchemy import make_url

from keen_slate.store.database import bring_up_to_date, migrate, revisions
from tests import support
from tests.support_core import some, sweep
from tools import keeping, postgres
from tools.application import ROOT
from tools.postgres import LocalPostgres, PostgresError

FILES = int(os.environ.get("KEEN_SLATE_FILES", sweep(3, 6)))  # of a folder that are taken out or cut; 0 for every one
SEED = os.environ.get("KEEN_SLATE_SEED") or secrets.token_hex(4)
SERVERS_OWN = {"postmaster.pid", "postmaster.opts", "server.log", "pg_internal.init", "current_logfiles"}
ROWS = [("plank",), ("rope",)]


def files_of(folder):
    return {path.relative_to(folder): path.read_bytes() for path in sorted(folder.rglob("*")) if path.is_file()}


def folder_for(case):
    directory = Path(case.enterClassContext(tempfile.TemporaryDirectory(prefix="keen-slate-records-")))
    directory.chmod(0o755)
    return directory


class RecordTests(unittest.TestCase):
    """Each start is made on a copy of one folder, whose server was stopped as it should be."""

    directory: Path
    table: Any
    whole: Any

    @classmethod
    def setUpClass(cls):
        cls.directory = folder_for(cls)
        server = LocalPostgres(cls.directory / "whole")
        server.start(0)
        with psycopg.connect(cls.url(server), autocommit=True) as connection:
            connection.execute("create table kept (thing text)")
            connection.cursor().executemany("insert into kept values (%s)", ROWS)
            cls.table = connection.execute("select pg_relation_filepath('kept')").fetchone()[0]
        server.stop()
        cls.whole = server

    @staticmethod
    def url(server):
        return server.url.replace("+psycopg", "")

    def copy(self):
        home = self.directory / "copy"
        shutil.rmtree(home, ignore_errors=True)
        subprocess.run(["cp", "-a", self.whole.home, home], check=True)
        return LocalPostgres(home)

    def start(self, server):
        """The rows that are read after a start, or the sentence that refuses it."""
        try:
            server.start(0)
            with psycopg.connect(self.url(server)) as connection:
                return connection.execute("select thing from kept").fetchall(), ""
        except psycopg.Error as error:  # the server runs, and says itself that this table cannot be read
            return None, f"{error}"
        except PostgresError as error:
            return None, str(error)
        finally:
            server.stop()

    def test_nothing_is_taken_away_by_a_start_whichever_file_is_missing_or_cut(self):
        names = sorted(path.relative_to(self.whole.home) for path in self.whole.home.rglob("*") if path.is_file())
        chosen = random.Random(SEED).sample(names, FILES) if FILES else names
        for name in chosen:
            for harm in ("removed", "cut"):
                server = self.copy()
                harmed = server.home / name
                if harm == "removed":
                    harmed.unlink()
                else:
                    os.truncate(harmed, harmed.stat().st_size // 2)
                before = files_of(server.home)
                rows, said = self.start(server)
                after = files_of(server.home)
                gone = {path for path in before if path not in after and path.name not in SERVERS_OWN}
                # The server recycles its own log of changes once its records are written.
                gone = {path for path in gone if "pg_wal" not in path.parts and "pg_stat" not in path.parts}
                self.assertEqual(gone, set(), (SEED, name, harm, said))
                if rows != ROWS:
                    table = Path("data") / self.table
                    # Where the table's own file is cut within its first page, the server takes it for empty.
                    self.assertTrue(said or name == table, (SEED, name, harm, rows))
                    self.assertEqual(after.get(table), before.get(table), (SEED, name, harm))

    def test_what_is_missing_is_named_and_all_is_left_as_it_was(self):
        for name in some(["password", *[f"data/{one}" for one in postgres._NEEDED if one != "base"]]):
            for harm in (Path.unlink, lambda path: os.truncate(path, 0)):
                server = self.copy()
                harm(server.home / name)
                before = files_of(server.home)
                _, said = self.start(server)
                self.assertRegex(
                    said, f"cannot be used: {name} is missing or empty. Nothing was changed.*--begin-anew.*restore"
                )
                self.assertEqual(files_of(server.home), before)

    def test_beginning_anew_keeps_the_old_folder_under_its_day(self):
        server = self.copy()
        before = files_of(server.home)
        for number in ("", "-2"):
            aside = server.set_aside()
            self.assertEqual(aside, server.home.with_name(f"copy-{date.today().isoformat()}{number}"))
            self.addCleanup(shutil.rmtree, aside)
            self.assertFalse(server.home.exists())
            if not number:
                self.assertEqual(files_of(aside), before)
            server.start(0)
            server.stop()

    def test_the_version_that_made_the_records_starts_them(self):
        installed = self.directory / "installed"
        made_by = (self.whole.data / "PG_VERSION").read_text().strip()
        real = postgres.INSTALLED / made_by
        newer = installed / "99" / "bin"
        newer.mkdir(parents=True)
        installed.chmod(0o755)  # the server's own user looks into it
        (newer / "postgres").touch()
        (installed / made_by).symlink_to(real)
        with unittest.mock.patch.object(postgres, "INSTALLED", installed):
            self.assertEqual(self.start(self.copy()), (ROWS, ""))
            (installed / made_by).unlink()
            server = self.copy()
            before = files_of(server.home)
            _, said = self.start(server)
            self.assertRegex(
                said,
                f"made by PostgreSQL {made_by}, and only 99 is installed.*"
                f"apt-get install postgresql-{made_by}.*restore",
            )
            self.assertEqual(files_of(server.home), before)


class KeptTests(unittest.TestCase):
    directory: Path

    @classmethod
    def setUpClass(cls):
        cls.directory = folder_for(cls)

    def test_the_records_are_kept_before_a_migration_and_the_last_three_stay(self):
        url = support.empty_database()
        migrate(url, "0004")
        folder = self.directory / "kept"
        folder.mkdir()
        before = [folder / f"records-2026-0{month}-01T101500-of-0003.dump" for month in range(1, 6)]
        for path in [*before, folder / "asked-for.dump"]:
            path.touch()
        found = []
        bring_up_to_date(url, lambda revision: found.append(keeping.keep(url, folder, revision)))
        bring_up_to_date(url, lambda revision: found.append("again"))
        (kept,) = found
        self.assertEqual(set(folder.iterdir()), {*before[-keeping.MOST_KEPT + 1 :], folder / "asked-for.dump", kept})
        self.assertEqual(kept.stat().st_mode & 0o077, 0)
        listed = subprocess.run(
            [postgres.newest() / "pg_restore", "-l", kept], capture_output=True, text=True, check=True
        )
        self.assertIn("TABLE DATA public example ", listed.stdout)
        self.assertNotIn("school_class", listed.stdout)  # it is as it was before

    def test_what_is_restored_is_what_was_kept_and_nothing_that_was_there_is_lost(self):
        server = LocalPostgres(self.directory / "postgres", lasting=False)
        url = server.start(0)
        self.addCleanup(server.remove)
        migrate(url)
        self.change(url, "insert into teacher (id, name) values (gen_random_uuid(), 'Sedge')")
        file = keeping.dump(url, self.directory / "records.dump")
        self.change(url, "update teacher set name = 'Alder'")
        aside = keeping.restore(server, file)
        self.assertEqual(self.names(url), [("Sedge",)])
        self.assertEqual(
            self.names(make_url(url).set(database=aside).render_as_string(hide_password=False)), [("Alder",)]
        )
        self.assertEqual(bring_up_to_date(url), "")
        broken = self.directory / "broken.dump"
        for content in (b"", b"no dump", file.read_bytes()[: file.stat().st_size // 2]):
            broken.write_bytes(content)
            with self.assertRaises(PostgresError):
                keeping.restore(server, broken)
            self.assertEqual(self.names(url), [("Sedge",)])

    def change(self, url, statement):
        with psycopg.connect(url.replace("+psycopg", ""), autocommit=True) as connection:
            connection.execute(statement)

    def names(self, url):
        with psycopg.connect(url.replace("+psycopg", "")) as connection:
            return connection.execute("select name from teacher").fetchall()

    def test_revisions_are_those_of_the_migrations(self):
        from alembic.script import ScriptDirectory

        from keen_slate.store.database import migration_config

        scripts = ScriptDirectory.from_config(migration_config("postgresql://"))
        self.assertEqual(revisions(), [script.revision for script in scripts.walk_revisions()][::-1])


class SayingTests(unittest.TestCase):
    """What keeps it from starting is one sentence."""

    def run_launch(self, var, *arguments):
        done = subprocess.run(
            [sys.executable, "-m", "tools.launch", *arguments], cwd=ROOT, env=os.environ | {"KEEN_SLATE_VAR": str(var)},
            capture_output=True, text=True, timeout=90, check=False,
        )  # fmt: skip
        self.assertNotIn("Traceback", done.stderr)
        return done.returncode, done.stderr

    def test_a_port_that_is_taken_and_a_folder_that_cannot_be_written_are_said(self):
        with tempfile.TemporaryDirectory() as directory:
            from tools.application import listen

            with listen(0) as taken:
                port = taken.getsockname()[1]
                status, said = self.run_launch(Path(directory, "var"), "demo", "--port", str(port))
            self.assertEqual(status, 1)
            self.assertRegex(said, f"127.0.0.1:{port} cannot be listened at.*--port {port + 1}")
            self.assertFalse(Path(directory, "var", "postgres").exists())
            status, said = self.run_launch(Path("/proc/keen-slate"), "demo")
            self.assertEqual(status, 1)
            self.assertRegex(said, "^slate: .*/proc/keen-slate.*")
            status, said = self.run_launch(Path(directory, "var"), "restore", str(Path(directory, "none")))
            self.assertRegex(said, "there is no file")
