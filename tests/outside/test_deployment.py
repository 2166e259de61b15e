"""What stands under deploy/, by the programs that it is for: systemd's own check, nginx before the application,
PgBouncer behind it.
"""

import json
import os
import re
import shutil
import socket
import ssl
import subprocess
import tempfile
import threading
import time
import unittest
import urllib.error
import urllib.request
from pathlib import Path

import yaml
from sqlalchemy import URL, make_url, text

from keen_slate.store.database import open_engine
from tests import support
from tests.tools.test_serving import COMMAND
from tests.web.test_api import Client
from tests.web.test_mail import certificate
from tools.application import ROOT
from tools.postgres import free_port
from tools.server import LiveServer

DEPLOY = ROOT / "deploy"
NAME = "slate.school.example"


class FilesTests(unittest.TestCase):
    def test_systemd_finds_nothing_wrong_with_the_units(self):
        with tempfile.TemporaryDirectory() as folder:
            for unit in DEPLOY.glob("keen-slate*.*"):
                if unit.suffix in (".service", ".timer"):
                    said = unit.read_text().replace("/opt/keen-slate/var/venv/bin/python", "/usr/bin/python3")
                    Path(folder, unit.name).write_text(said)
            units = sorted(map(str, Path(folder).iterdir()))
            self.assertEqual(len(units), 3)
            done = subprocess.run(
                ["systemd-analyze", "verify", "--man=no", *units], capture_output=True, text=True, check=False
            )
        ours = [line for line in done.stderr.splitlines() if "keen-slate" in line]
        self.assertEqual((done.returncode, ours), (0, []))

    def test_all_of_them_start_what_the_tests_of_an_installation_start(self):
        unit = re.search(r"^ExecStart=\S+/python (.+)$", (DEPLOY / "keen-slate.service").read_text(), re.MULTILINE)[1]
        self.assertEqual(unit.split(), COMMAND)
        container = (DEPLOY / "Containerfile").read_text()
        self.assertEqual(json.loads(re.search(r"^CMD (.+)$", container, re.MULTILINE)[1])[1:], COMMAND)
        for made in re.findall(r"^COPY (?!--from)(\S+)", container, re.MULTILINE):
            self.assertTrue((ROOT / made).exists(), made)
        services = yaml.safe_load((DEPLOY / "compose.yaml").read_text())["services"]
        self.assertEqual(services["slate"]["build"], {"context": "..", "dockerfile": "deploy/Containerfile"})
        for _, path in (mount.split(":")[:2] for one in services.values() for mount in one.get("volumes", ())):
            self.assertTrue(path.startswith("/"), path)
        # What the settings name is known, and every secret is to be changed.
        known = (ROOT / "docs/running.md").read_text()
        for line in (DEPLOY / "keen-slate.env").read_text().splitlines():
            if not line.startswith("#"):
                self.assertIn(f"`{line.partition('=')[0]}`", known)


def until(there, seconds=60):
    """Wait for a state."""
    end = time.monotonic() + seconds
    while not there():
        if time.monotonic() > end:
            raise AssertionError("it did not come to this")
        time.sleep(0.05)


def listens(port):
    with socket.socket() as trying:
        return trying.connect_ex(("127.0.0.1", port)) == 0


class ProxyTests(unittest.TestCase):
    folder: Path
    nginx: subprocess.Popen[bytes]
    ports: tuple[int, int]
    server: LiveServer
    trust: ssl.SSLContext

    @classmethod
    def setUpClass(cls):
        cls.folder = Path(cls.enterClassContext(tempfile.TemporaryDirectory(prefix="keen-slate-proxy-")))
        cls.server = LiveServer(
            support.database_url(), support.desk_url(), more={"KEEN_SLATE_PROXY": "127.0.0.1", "KEEN_SLATE_HOSTS": NAME}
        )
        cls.addClassCleanup(cls.server.stop)
        cls.ports = free_port(0), free_port(0)
        pem = certificate(cls.folder)
        said = (DEPLOY / "nginx.conf").read_text()
        for old, new in (
            ("listen 80;", f"listen 127.0.0.1:{cls.ports[0]};"),
            ("listen 443 ssl;", f"listen 127.0.0.1:{cls.ports[1]} ssl;"),
            ("127.0.0.1:8400", f"127.0.0.1:{cls.server.port}"), ("/etc/ssl/keen-slate.pem", str(pem)),
            ("/etc/ssl/private/keen-slate.key", str(pem)),
            ("/etc/nginx/keen-slate-proxy.conf", str(DEPLOY / "nginx-proxy.conf")),
        ):  # fmt: skip
            assert old in said, old
            said = said.replace(old, new)
        places = "".join(
            f"{one}_temp_path {cls.folder}/{one};" for one in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
        )
        config = cls.folder / "nginx.conf"
        config.write_text(
            f"daemon off; pid {cls.folder}/pid; worker_processes 1; events {{}} http {{ {places}\n{said} }}"
        )
        command = [
            str(shutil.which("nginx", path=f"{os.environ['PATH']}:/usr/sbin")),
            "-p",
            str(cls.folder),
            "-e",
            str(cls.folder / "errors"),
            "-c",
            str(config),
        ]
        checked = subprocess.run([*command, "-t"], capture_output=True, text=True, check=False)
        assert checked.returncode == 0, checked.stderr
        cls.nginx = subprocess.Popen(command, stderr=subprocess.DEVNULL)
        cls.addClassCleanup(cls.nginx.wait)
        cls.addClassCleanup(cls.nginx.terminate)
        until(lambda: listens(cls.ports[1]))
        cls.trust = ssl.create_default_context(cafile=str(pem))
        cls.trust.check_hostname = False

    def ask(self, path, body=None, **headers):
        """Status, headers and text of what comes by TLS, through the proxy."""
        request = urllib.request.Request(f"https://127.0.0.1:{self.ports[1]}{path}", body, {"Host": NAME, **headers})
        try:
            with urllib.request.urlopen(request, timeout=60, context=self.trust) as answer:
                return answer.status, answer.headers, answer.read()
        except urllib.error.HTTPError as error:
            with error:
                return error.code, error.headers, error.read()

    def test_it_comes_by_tls_alone_with_a_number_for_each_request(self):
        plain = urllib.request.Request(f"http://127.0.0.1:{self.ports[0]}/account", headers={"Host": NAME})
        kept = urllib.request.build_opener(_Stays)
        with self.assertRaises(urllib.error.HTTPError) as moved:
            kept.open(plain, timeout=60)
        with moved.exception as told:
            self.assertEqual((told.code, told.headers["Location"]), (301, f"https://{NAME}/account"))
        status, headers, _ = self.ask("/readyz")
        self.assertEqual((status, headers["Strict-Transport-Security"]), (200, "max-age=31536000"))
        self.assertRegex(headers["X-Request-Id"], r"^[0-9a-f]{32}$")
        link = self.server.link(support.new_teacher()).rpartition("/")[2]
        sent = {"Content-Type": "application/json", "Origin": f"https://{NAME}"}
        status, headers, _ = self.ask("/api/enter", json.dumps({"link": link}).encode(), **sent)
        self.assertEqual(status, 204)
        for said in ("Secure", "HttpOnly", "SameSite=Strict"):
            self.assertIn(said, headers["Set-Cookie"])
        elsewhere = {"Content-Type": "application/json", "Origin": "https://marsh.example"}
        self.assertEqual(self.ask("/api/enter", b"{}", **elsewhere)[0], 403)

    def test_what_is_too_large_or_too_often_is_stopped_there(self):
        status, _, said = self.ask("/api/sets/bring", b" " * 6_400_000, **{"Content-Type": "application/json"})
        self.assertEqual((status, b"nginx" in said), (413, True))
        statuses = [
            self.ask("/api/enter", b'{"link":"guessed"}', **{"Content-Type": "application/json"})[0] for _ in range(120)
        ]
        self.assertEqual(set(statuses), {403, 429})
        self.assertEqual(self.ask("/readyz")[0], 200)  # others go on


class _Stays(urllib.request.HTTPRedirectHandler):
    def redirect_request(self, *given):
        return None


class PoolingTests(unittest.TestCase):
    desk: URL
    folder: Path
    pool: subprocess.Popen[bytes]
    port: int
    url: str

    @classmethod
    def setUpClass(cls):
        cls.folder = Path(cls.enterClassContext(tempfile.TemporaryDirectory(prefix="keen-slate-pool-")))
        cls.folder.chmod(0o755)
        cls.desk, cls.port = make_url(support.desk_url()), free_port(0)
        users = cls.folder / "users"
        users.write_text(f'"{cls.desk.username}" "{cls.desk.password}"\n')
        config = cls.folder / "pgbouncer.ini"
        config.write_text(
            f"[databases]\n* = host=127.0.0.1 port={cls.desk.port}\n[pgbouncer]\nlisten_addr = 127.0.0.1\nlisten_port "
            f"= {cls.port}\n"
            f"unix_socket_dir =\nauth_type = plain\nauth_file = {users}\npool_mode = transaction\ndefault_pool_size = "
            "2\nmax_client_conn = 200\n"
        )
        for path in (users, config):
            path.chmod(0o644)
        command = [str(shutil.which("pgbouncer", path=f"{os.environ['PATH']}:/usr/sbin")), "-q", str(config)]
        if os.geteuid() == 0:  # it refuses to be root
            command[1:1] = ["-u", "postgres"]
        cls.pool = subprocess.Popen(command, stderr=subprocess.DEVNULL)
        cls.addClassCleanup(cls.pool.wait)
        cls.addClassCleanup(cls.pool.terminate)
        until(lambda: listens(cls.port))
        cls.url = cls.desk.set(port=cls.port).render_as_string(hide_password=False)

    def test_teachers_who_share_connections_do_not_share_records(self):
        server = LiveServer(support.database_url(), self.url, more={"KEEN_SLATE_POOLED": "1", "KEEN_SLATE_NICE": "0"})
        self.addCleanup(server.stop)
        teachers = {f"Teacher {i}": Client(server, support.new_teacher()) for i in range(6)}
        wrong = []

        def work(name, client):
            for i in range(12):
                status, _ = client.call("POST", "/api/sets", {"title": f"{name}, {i}"})
                titles = [one["title"] for one in client.call("GET", "/api/sets")[1]["sets"]]
                if status != 201 or titles != [f"{name}, {j}" for j in range(i, -1, -1)]:
                    wrong.append((name, i, status, titles))

        working = [threading.Thread(target=work, args=one) for one in teachers.items()]
        for one in working:
            one.start()
        for one in working:
            one.join(120)
        self.assertEqual(wrong, [])

    def test_each_transaction_has_its_bounds_and_nothing_is_left_for_the_next(self):
        engine = open_engine(self.url, pooled=True)
        self.addCleanup(engine.dispose)
        for _ in range(8):  # more than a driver needs to prepare a statement
            with engine.connect() as first, engine.connect() as second:
                first.execute(text("select set_config('keen_slate.teacher', 'x', true)"))
                for connection in (second, first):
                    said = connection.execute(
                        text("select current_setting('statement_timeout'), current_setting('lock_timeout')")
                    ).one()
                    self.assertEqual(tuple(said), ("10s", "5s"))
                first.rollback()
                left = first.execute(text("select coalesce(current_setting('keen_slate.teacher', true), '')")).scalar()
                self.assertEqual(left, "")
