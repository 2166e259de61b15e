"""Start and stop everything that `./slate demo` and `./slate serve` need.

python -m tools.launch demo          PostgreSQL in var/, tables, demo data, and the application
python -m tools.launch serve         the application alone, settings from the environment
python -m tools.launch stop          end the instance of this folder
python -m tools.launch link [NAME]   a link by which a teacher comes in, once
python -m tools.launch downgrade REVISION [--lose-data]     bring the records back to those of an older version
python -m tools.launch front-end     what the front end is made from: var/openapi.json and its table of inks
"""

from __future__ import annotations

import json
import os
import secrets
import signal
import socket
import subprocess
import sys
import time
import urllib.request
import webbrowser
from contextlib import suppress
from dataclasses import asdict
from pathlib import Path
from types import FrameType

from tools.instance import Instance, Running
from tools.postgres import LocalPostgres, PostgresError
from tools.supervisor import Supervisor

ROOT = Path(__file__).resolve().parents[1]
VAR = Path(os.environ.get("KEEN_SLATE_VAR") or ROOT / "var")
WANTED_PORT = 8400
_BACKLOG = 1024


class LaunchError(RuntimeError):
    """It cannot be started; the sentence says why."""


def main(arguments: list[str]) -> int:
    """Run one of the commands above; returns the exit status."""
    from keen_slate.store.database import SchemaError

    command, *more = arguments or [""]
    if command == "front-end":
        return write_for_front_end()
    # A shell may have told its background commands to ignore Ctrl+C; a terminal that is closed sends SIGHUP.
    for ending in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(ending, _interrupt)
    _open_var()
    commands = {"demo": demo, "serve": serve, "stop": stop}
    try:
        if command == "link":
            return link(" ".join(more))
        if command == "downgrade":
            return downgrade(more)
        return commands[command]()
    except KeyboardInterrupt:
        return 0
    except (PostgresError, LaunchError, SchemaError, TimeoutError) as error:
        print(f"slate: {error}", file=sys.stderr)
        return 1


def write_for_front_end() -> int:
    """Write the OpenAPI document, of which the front end's types are made, the inks of the roles, and the limits of its fields."""
    from keen_slate.core.figures.inks import INK, INKS, PAPER, TILE
    from keen_slate.core.limits import FIELDS
    from keen_slate.web import create_app

    app = create_app({"SECRET_KEY": "not used", "DATABASE_URL": None})
    with app.app_context():
        _write(VAR / "openapi.json", app.spec)
    roles = {role: asdict(ink) | {"tint": ink.tint} for role, ink in INKS.items()}
    _write(ROOT / "frontend/src/parts/inks.json", {"paper": PAPER, "ink": INK, "tile": TILE, "roles": roles})
    _write(ROOT / "frontend/src/parts/limits.json", FIELDS)
    return 0


def _write(target: Path, document: object) -> None:
    text = json.dumps(document, indent=1, sort_keys=True)
    if not target.exists() or target.read_text() != text:
        target.write_text(text)


# Start and stop -------------------------------------------------------------------------------------------------------


def demo() -> int:
    """Everything on loopback, until Ctrl+C."""
    instance = Instance(VAR)
    if not instance.take():
        return _already_there(instance)
    server = LocalPostgres(VAR / "postgres")
    if server.home != VAR / "postgres":
        print(f"PostgreSQL's own user cannot reach this directory; the data is kept in {server.home}.")
    supervisor = Supervisor()
    try:
        url = server.start()
        supervisor.add("PostgreSQL", server.run, server.process)
        secret = _prepare(url)
        environment = os.environ | {"KEEN_SLATE_DATABASE_URL": url, "KEEN_SLATE_SECRET_KEY": _kept_secret()}
        address = _start_application(supervisor, instance, environment, WANTED_PORT)
        instance.say(address, url)
        print(f"\nKeen Slate is running. Come in by this link, which works once:\n\n    {address}/enter/{secret}\n")
        print("Another one: ./slate link. Ctrl+C (or ./slate stop) stops everything.", flush=True)
        _open_page(f"{address}/enter/{secret}")
        supervisor.watch()
    finally:
        _undisturbed()
        supervisor.stop()
        server.stop()
        instance.give_back()
    return 0


def serve() -> int:
    """A real installation: KEEN_SLATE_DATABASE_URL and KEEN_SLATE_SECRET_KEY must be set."""
    from keen_slate.store.database import bring_up_to_date

    missing = [name for name in ("KEEN_SLATE_DATABASE_URL", "KEEN_SLATE_SECRET_KEY") if not os.environ.get(name)]
    if missing:
        raise LaunchError(f"set {' and '.join(missing)} in the environment")
    if os.environ.get("KEEN_SLATE_TEACHER"):
        raise LaunchError(
            "KEEN_SLATE_TEACHER is not read any more: take it away, and let teachers in by ./slate link NAME"
        )
    instance = Instance(VAR)
    if not instance.take():
        return _already_there(instance)
    supervisor = Supervisor()
    try:
        url = os.environ["KEEN_SLATE_DATABASE_URL"]
        print(bring_up_to_date(url), end="")
        port = int(os.environ.get("KEEN_SLATE_PORT", WANTED_PORT))
        address = _start_application(supervisor, instance, dict(os.environ), port)
        instance.say(address, url)
        print(
            f"\nKeen Slate is running at {address}\n./slate link NAME lets a teacher in; Ctrl+C stops it.", flush=True
        )
        supervisor.watch()
    finally:
        _undisturbed()
        supervisor.stop()
        instance.give_back()
    return 0


def stop() -> int:
    """End the instance of this folder."""
    print("Keen Slate was stopped." if Instance(VAR).stop() else "Keen Slate is not running here.")
    return 0


def link(name: str) -> int:
    """Print a link that lets a teacher in once: the demo's, or the one called *name* (made where there is none)."""
    running = Instance(VAR).running()
    if running is None:
        raise LaunchError("Keen Slate is not running here: ./slate demo starts it")
    print(_new_link(running, name))
    return 0


def downgrade(arguments: list[str]) -> int:
    """Bring the records back to an older version's, so that it can be started again."""
    from keen_slate.store.database import downgrade_to

    names = [argument for argument in arguments if argument != "--lose-data"]
    if len(names) != 1:
        raise LaunchError("name the revision that the older version knows, like ./slate downgrade 0004")
    instance = Instance(VAR)
    if not instance.take():
        raise LaunchError("stop Keen Slate first: ./slate stop")
    server = LocalPostgres(VAR / "postgres")
    try:
        url = os.environ.get("KEEN_SLATE_DATABASE_URL") or server.start()
        downgrade_to(url, names[0], lose_data="--lose-data" in arguments)
        print(f"The records are those of {names[0]} now.")
    finally:
        server.stop()
        instance.give_back()
    return 0


def _interrupt(number: int, frame: FrameType | None) -> None:
    raise KeyboardInterrupt


def _undisturbed() -> None:
    """What is being stopped is stopped whole, however often it is asked for."""
    for ending in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(ending, signal.SIG_IGN)


def _open_var() -> None:
    """The folder of what is kept is its owner's alone. (PostgreSQL's user, where it is another one, passes through it.)"""
    VAR.mkdir(exist_ok=True)
    VAR.chmod(0o711 if os.geteuid() == 0 else 0o700)


def _already_there(instance: Instance) -> int:
    for _ in range(100):
        if (running := instance.running()) is not None:
            print(
                f"Keen Slate is already running. Come in by this link, which works once:\n\n    {_new_link(running, '')}\n"
            )
            return 0
        time.sleep(0.1)
    raise LaunchError("another start or stop is under way in this folder; wait a moment, or end it with ./slate stop")


def _new_link(running: Running, name: str) -> str:
    from sqlalchemy.orm import Session

    from keen_slate.store.database import open_engine
    from keen_slate.store.demo import TEACHER
    from keen_slate.store.doors import new_link
    from keen_slate.store.shelf import teacher_named

    engine = open_engine(running.database)
    with Session(engine) as session, session.begin():
        secret = new_link(session, teacher_named(session, name or TEACHER).id)
    engine.dispose()
    return f"{running.address}/enter/{secret}"


def _prepare(url: str) -> str:
    """Tables and demo data; returns the secret of a link for the demo's teacher."""
    from sqlalchemy.orm import Session

    from keen_slate.store.database import bring_up_to_date, open_engine
    from keen_slate.store.demo import load
    from keen_slate.store.doors import new_link

    print(bring_up_to_date(url), end="")
    engine = open_engine(url)
    with Session(engine) as session, session.begin():
        secret = new_link(session, load(session))
    engine.dispose()
    return secret


def _kept_secret() -> str:
    path = VAR / "secret-key"
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(32))
    return path.read_text()


# The application -------------------------------------------------------------------------------------------------------


def listen(port: int) -> socket.socket:
    """A socket that listens on loopback, at *port* if that is free."""
    listening = socket.socket()
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind(("127.0.0.1", port))
    except OSError:
        listening.bind(("127.0.0.1", 0))
    listening.listen(_BACKLOG)
    return listening


def start_worker(listening: socket.socket, environment: dict[str, str]) -> subprocess.Popen[bytes]:
    """A process of the application that answers at *listening*; it ends with this one."""
    number = listening.fileno()
    return subprocess.Popen(
        ["setpriv", "--pdeathsig", "TERM", sys.executable, "-m", "keen_slate.web.serving", str(number)],
        cwd=ROOT, env=environment, pass_fds=[number], start_new_session=True, stdin=subprocess.DEVNULL,
    )  # fmt: skip


def answers(address: str, seconds: float = 30) -> bool:
    """Whether the application answers at *address* within so many seconds."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        try:
            with urllib.request.urlopen(f"{address}/healthz", timeout=2):
                return True
        except OSError:
            time.sleep(0.05)
    return False


def _start_application(supervisor: Supervisor, instance: Instance, environment: dict[str, str], port: int) -> str:
    listening = listen(port)
    run = VAR / "run"
    run.mkdir(mode=0o700, exist_ok=True)
    environment |= {"KEEN_SLATE_INSTANCE": instance.name, "KEEN_SLATE_RUN": str(run)}
    workers = int(os.environ.get("KEEN_SLATE_WORKERS") or os.cpu_count() or 1)
    for number in range(workers):
        supervisor.add(f"worker {number + 1}", lambda: start_worker(listening, environment))
    address = f"http://127.0.0.1:{listening.getsockname()[1]}"
    if not answers(address):
        raise LaunchError("the application did not start; its own words stand above")
    return address


def _open_page(address: str) -> None:
    """Open *address* in the browser of the desktop, where there is one."""
    if sys.stdout.isatty() and any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "BROWSER")):
        with suppress(webbrowser.Error, OSError):
            webbrowser.open(address)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
