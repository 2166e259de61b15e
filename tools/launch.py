"""Start and stop everything that `./slate demo` and `./slate serve` need.

python -m tools.launch demo     PostgreSQL in var/, tables, demo data, and the application
python -m tools.launch serve    the application alone, settings from the environment
python -m tools.launch front-end     what the front end is made from: var/openapi.json and its table of inks
"""

from __future__ import annotations

import json
import os
import secrets
import signal
import subprocess
import sys
import time
import urllib.request
from dataclasses import asdict
from pathlib import Path
from types import FrameType

from tools.postgres import LocalPostgres, PostgresError, free_port

ROOT = Path(__file__).resolve().parents[1]
VAR = ROOT / "var"
RUNNING = VAR / "running.json"
WANTED_PORT = 8400


def main(arguments: list[str]) -> int:
    """Run one of the commands above; returns the exit status."""
    if arguments[:1] == ["front-end"]:
        return write_for_front_end()
    for ending in (signal.SIGTERM, signal.SIGINT):  # a shell may have told its background commands to ignore Ctrl+C
        signal.signal(ending, _interrupt)
    try:
        return demo() if arguments[:1] == ["demo"] else serve()
    except KeyboardInterrupt:
        return 0
    except PostgresError as error:
        print(f"slate: {error}", file=sys.stderr)
        return 1


def write_for_front_end() -> int:
    """Write the OpenAPI document, of which the front end's types are made, and the inks of the roles."""
    from keen_slate.core.figures.inks import INK, INKS, PAPER, TILE
    from keen_slate.web import create_app

    app = create_app({"SECRET_KEY": "not used", "DATABASE_URL": None})
    with app.app_context():
        _write(VAR / "openapi.json", app.spec)
    roles = {role: asdict(ink) | {"tint": ink.tint} for role, ink in INKS.items()}
    _write(ROOT / "frontend/src/parts/inks.json", {"paper": PAPER, "ink": INK, "tile": TILE, "roles": roles})
    return 0


def _write(target: Path, document: object) -> None:
    text = json.dumps(document, indent=1, sort_keys=True)
    if not target.exists() or target.read_text() != text:
        target.write_text(text)


def demo() -> int:
    """Everything on loopback, until Ctrl+C."""
    if (address := _already_running()) is not None:
        print(f"Keen Slate is already running at {address}")
        return 0
    server = LocalPostgres(VAR / "postgres")
    if server.home != VAR / "postgres":
        print(f"PostgreSQL's own user cannot reach this directory; the data is kept in {server.home}.")
    try:
        url = server.start()
        environment = os.environ | {
            "KEEN_SLATE_DATABASE_URL": url,
            "KEEN_SLATE_SECRET_KEY": _kept_secret(),
            "KEEN_SLATE_TEACHER": _prepare(url),
        }
        return _run_application(environment, free_port(WANTED_PORT))
    finally:
        RUNNING.unlink(missing_ok=True)
        server.stop()


def serve() -> int:
    """A real installation: KEEN_SLATE_DATABASE_URL and KEEN_SLATE_SECRET_KEY must be set."""
    from keen_slate.store.database import migrate

    missing = [name for name in ("KEEN_SLATE_DATABASE_URL", "KEEN_SLATE_SECRET_KEY") if not os.environ.get(name)]
    if missing:
        print(f"slate: set {' and '.join(missing)} in the environment", file=sys.stderr)
        return 1
    migrate(os.environ["KEEN_SLATE_DATABASE_URL"])
    return _run_application(dict(os.environ), int(os.environ.get("KEEN_SLATE_PORT", WANTED_PORT)))


def _interrupt(number: int, frame: FrameType | None) -> None:
    raise KeyboardInterrupt


def _already_running() -> str | None:
    try:
        address = str(json.loads(RUNNING.read_text())["address"])
        with urllib.request.urlopen(f"{address}/api/openapi.json", timeout=2):
            return address
    except (OSError, ValueError, KeyError):
        return None


def _prepare(url: str) -> str:
    """Tables and demo data; returns the id of the demo's teacher."""
    from sqlalchemy.orm import Session

    from keen_slate.store.database import migrate, open_engine
    from keen_slate.store.demo import load

    migrate(url)
    engine = open_engine(url)
    with Session(engine) as session, session.begin():
        teacher = load(session)
    engine.dispose()
    return str(teacher)


def _kept_secret() -> str:
    path = VAR / "secret-key"
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(32))
    return path.read_text()


def _run_application(environment: dict[str, str], port: int) -> int:
    address = f"http://127.0.0.1:{port}"
    process = subprocess.Popen(
        [
            sys.executable, "-m", "gunicorn", "--bind", f"127.0.0.1:{port}", "--workers", "2", "--threads", "4",
            "--log-level", "warning", "--graceful-timeout", "3", "--no-control-socket", "keen_slate.web:create_app()",
        ],
        cwd=ROOT, env=environment,
    )  # fmt: skip
    try:
        if not _answers(address, process):
            print("slate: the application did not start; its own words stand above", file=sys.stderr)
            return 1
        RUNNING.write_text(json.dumps({"address": address}))
        print(f"\nKeen Slate is running at {address}\nCtrl+C stops it.", flush=True)
        return process.wait()
    finally:
        process.terminate()
        process.wait()


def _answers(address: str, process: subprocess.Popen[bytes]) -> bool:
    for _ in range(150):
        if process.poll() is not None:
            return False
        try:
            with urllib.request.urlopen(f"{address}/api/openapi.json", timeout=2):
                return True
        except OSError:
            time.sleep(0.1)
    return False


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
