"""Start and stop everything that `./slate demo` and `./slate serve` need.

python -m tools.launch demo [--port N] [--begin-anew]     PostgreSQL in var/, tables, demo data, and the application
python -m tools.launch serve [--port N]                   the application alone, settings from the environment
python -m tools.launch stop          end the instance of this folder
python -m tools.launch link [NAME]   a link by which a teacher comes in, once
python -m tools.launch keeper ...     schools and their teachers (tools.keeper)
python -m tools.launch downgrade REVISION [--lose-data]     bring the records back to those of an older version
python -m tools.launch backup FILE   the records as one file
python -m tools.launch restore FILE  bring them back; those that are there are kept beside
python -m tools.launch front-end     what the front end is made from: var/openapi.json and its table of inks
"""

from __future__ import annotations

import argparse
import errno
import grp
import json
import os
import secrets
import shutil
import signal
import socket
import sys
import time
import webbrowser
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager, suppress
from dataclasses import asdict
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING

from tools.application import ROOT, LaunchError, answers, listen
from tools.forked import Forked
from tools.instance import Instance, Running
from tools.postgres import DESK, LocalPostgres, PostgresError
from tools.priority import go_as_others, go_first
from tools.renewing import Renewing
from tools.supervisor import Supervisor

if TYPE_CHECKING:
    from tools.stand_in_provider import StandInProvider

VAR = Path(os.environ.get("KEEN_SLATE_VAR") or ROOT / "var")
WANTED_PORT = 8400
_NEEDED = ("KEEN_SLATE_DATABASE_URL", "KEEN_SLATE_OWNER_URL", "KEEN_SLATE_SECRET_KEY")
ENDS_WITHIN = 60  # seconds that an installation gives what was begun, when it ends or is renewed


def main(arguments: list[str]) -> int:
    """Run one of the commands above; returns the exit status."""
    if arguments[:1] in (["demo"], ["serve"]):
        go_first()
    from keen_slate.store.database import SchemaError

    # A shell may have told its background commands to ignore Ctrl+C; a terminal that is closed sends SIGHUP.
    for ending in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(ending, _interrupt)
    os.umask(0o077)
    try:
        given = _parser().parse_args(arguments)
        if given.command == "front-end":
            return write_for_front_end()
        _open_var()
        commands: dict[str, Callable[[], int]] = {
            "demo": lambda: demo(given.port, given.begin_anew),
            "serve": lambda: serve(given.port),
            "ready": make_ready,
            "stop": stop,
            "link": lambda: link(" ".join(given.name)),
            "keeper": lambda: keeper(given.words),
            "downgrade": lambda: downgrade(given.revision, given.lose_data),
            "backup": lambda: backup(given.file),
            "restore": lambda: restore(given.file),
        }
        return commands[given.command]()
    except KeyboardInterrupt:
        return 0
    except (PostgresError, LaunchError, SchemaError, TimeoutError) as error:
        print(f"slate: {error}", file=sys.stderr)
    except OSError as error:
        print(f"slate: {_said_of(error)}", file=sys.stderr)
    return 1


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="./slate", allow_abbrev=False)
    commands = parser.add_subparsers(dest="command", required=True)
    for name in ("demo", "serve"):
        starting = commands.add_parser(name)
        starting.add_argument(
            "--port", type=int, default=None, help=f"where it listens (usually {WANTED_PORT}); 0 for any that is free"
        )
        if name == "demo":
            starting.add_argument(
                "--begin-anew", action="store_true", help="begin new records; those there are kept under another name"
            )
    for name in ("stop", "ready", "front-end"):
        commands.add_parser(name)
    commands.add_parser("link").add_argument("name", nargs="*")
    commands.add_parser("keeper").add_argument("words", nargs="*")
    back = commands.add_parser("downgrade")
    back.add_argument("revision")
    back.add_argument("--lose-data", action="store_true")
    for name in ("backup", "restore"):
        commands.add_parser(name).add_argument("file", type=Path)
    return parser


def _said_of(error: OSError) -> str:
    """What keeps a folder from being used, in a sentence."""
    where = error.filename or VAR
    if error.errno in (errno.EROFS, errno.EACCES, errno.EPERM):
        return (
            f"Keen Slate may not write in {where}: {error.strerror}. Put its folder where you may write, or give "
            "yourself the right to."
        )
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return (
            f"The disk is full: nothing more can be written in {where}. Make room and start again; nothing was taken "
            "away."
        )
    return f"{where}: {error.strerror}."


def write_for_front_end() -> int:
    """Write the OpenAPI document, of which the front end's types are made, the inks of the roles, and the limits of its
    fields.
    """
    from keen_slate.core.figures.inks import INK, INKS, PAPER, TILE
    from keen_slate.core.limits import FIELDS
    from keen_slate.web import create_app

    app = create_app({"SECRET_KEY": "not used", "DATABASE_URL": None})
    with app.app_context():
        _write(ROOT / "var/openapi.json", app.spec)
    roles = {role: asdict(ink) | {"tint": ink.tint} for role, ink in INKS.items()}
    _write(ROOT / "frontend/src/parts/inks.json", {"paper": PAPER, "ink": INK, "tile": TILE, "roles": roles})
    _write(ROOT / "frontend/src/parts/limits.json", FIELDS)
    return 0


def _write(target: Path, document: object) -> None:
    text = json.dumps(document, indent=1, sort_keys=True)
    if not target.exists() or target.read_text() != text:
        target.write_text(text)


# Start and stop -------------------------------------------------------------------------------------------------------


def demo(port: int | None = None, begin_anew: bool = False) -> int:
    """Everything on loopback, until Ctrl+C."""
    instance = Instance(VAR)
    if not instance.take():
        return _already_there(instance)
    server = LocalPostgres(VAR / "postgres")
    if server.home != VAR / "postgres":
        print(f"PostgreSQL's own user cannot reach this directory; the data is kept in {server.home}.")
    supervisor = Supervisor()
    try:
        listening = listen(WANTED_PORT if port is None else port)
        if begin_anew and (aside := server.set_aside()) is not None:
            print(f"The records that were here are kept in {aside}.")
        url = server.start()
        supervisor.add("PostgreSQL", server.run, server.process, needed=True)
        provider = _stand_in(listening.getsockname()[1] + 1)
        secret, next_door, head = _prepare(url, provider)
        supervisor.add("the stand-in for a school's sign-in", lambda: Forked("slate-sign-in", provider.serve))
        environment = os.environ | {
            "KEEN_SLATE_DATABASE_URL": server.desk_url(),
            "KEEN_SLATE_SECRET_KEY": _kept_secret(),
        } | provider.environment  # fmt: skip
        address = _start_application(supervisor, instance, environment, listening)
        instance.say(address, url)
        print(f"\nKeen Slate is running. Come in by this link, which works once:\n\n    {address}/enter/{secret}\n")
        print(f"As her colleague next door (in another browser):\n\n    {address}/enter/{next_door}\n")
        print(f"As the head of their school (in a third one):\n\n    {address}/enter/{head}\n")
        print(f"Or sign in by “{provider.name}”, a stand-in for a school's own sign-in.\n")
        print("Another one: ./slate link. Ctrl+C (or ./slate stop) stops everything.", flush=True)
        _open_page(f"{address}/enter/{secret}#now")
        supervisor.watch()
    finally:
        _undisturbed()
        supervisor.stop()
        server.stop()
        instance.give_back()
    return 0


def serve(port: int | None = None) -> int:
    """A real installation: KEEN_SLATE_DATABASE_URL, KEEN_SLATE_OWNER_URL and KEEN_SLATE_SECRET_KEY must be set."""
    missing = [name for name in _NEEDED if not os.environ.get(name)]
    if missing:
        raise LaunchError(f"set {' and '.join(missing)} in the environment; docs/running.md says what they are")
    if os.environ.get("KEEN_SLATE_TEACHER"):
        raise LaunchError(
            "KEEN_SLATE_TEACHER is not read any more: take it away, and let teachers in by ./slate link NAME"
        )
    _look_at_settings(os.environ)
    instance = Instance(VAR)
    if not instance.take():
        return _already_there(instance)
    ends_within = float(os.environ.setdefault("KEEN_SLATE_ENDS_WITHIN", str(ENDS_WITHIN)))
    supervisor = Supervisor(ends_within + 2, _forget)
    try:
        where = os.environ.get("KEEN_SLATE_LISTENS") or "127.0.0.1"
        listening = listen(int(os.environ.get("KEEN_SLATE_PORT", WANTED_PORT)) if port is None else port, where)
        _make_ready()
        _count(supervisor, int(os.environ.get("KEEN_SLATE_METRICS") or 0))
        address = _start_application(supervisor, instance, _of_workers(), listening)
        instance.say(address, os.environ["KEEN_SLATE_OWNER_URL"])
        renewing = Renewing(supervisor, listening, _of_workers())
        if not sys.stdin.isatty():  # there a hangup is the end of the terminal
            renewing.on_hangup()
        print(
            f"\nKeen Slate is running at {address}\n./slate link NAME lets a teacher in; Ctrl+C stops it.", flush=True
        )
        supervisor.watch(renewing.if_asked)
    finally:
        _undisturbed()
        supervisor.stop()
        instance.give_back()
    return 0


def make_ready() -> int:
    """What a start does before anything runs, beside what runs: for `SIGHUP`, and for who wants to see it."""
    _look_at_settings(os.environ)
    _make_ready()
    return 0


def _make_ready() -> None:
    """Bring the tables up to this version's, and let the application's role read and write in them."""
    from sqlalchemy import make_url

    from keen_slate.store.database import bring_up_to_date, let_in

    url = os.environ["KEEN_SLATE_OWNER_URL"]
    print(bring_up_to_date(url, lambda revision: _keep_first(url, revision)), end="", flush=True)
    let_in(url, make_url(os.environ["KEEN_SLATE_DATABASE_URL"]).username or "")


def _of_workers() -> dict[str, str]:
    """The settings of a process of the application, which never knows who owns the tables."""
    return {name: value for name, value in os.environ.items() if name != "KEEN_SLATE_OWNER_URL"}


def _count(supervisor: Supervisor, port: int) -> None:
    """Have requests counted, and what was counted handed out on loopback at *port*; 0 for not at all."""
    from keen_slate.web import metrics

    os.environ.pop(metrics.FOLDER, None)
    if not port:
        return
    folder = VAR / "run" / "metrics"
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True, mode=0o700)
    os.environ[metrics.FOLDER] = str(folder)
    listening = listen(port)
    supervisor.add("the metrics", lambda: Forked("slate-metrics", lambda: metrics.serve(listening)))


def _forget(process: int) -> None:
    from keen_slate.web import metrics

    metrics.forget(process)


def _look_at_settings(environment: Mapping[str, str]) -> None:
    """Raises `LaunchError` where what the environment says of e-mail or of a school's own sign-in cannot be used."""
    mail = [environment.get(f"KEEN_SLATE_{one}", "") for one in ("SMTP", "MAIL_FROM")]
    if not any(mail) and not any(name.startswith("KEEN_SLATE_OIDC_") for name in environment):
        return  # and the application's modules need not be loaded here
    from keen_slate.web.mail import MailSettingsError, check
    from keen_slate.web.openid import ProviderSettingsError, of_environment

    try:
        check(*mail)
        of_environment(environment)
    except (MailSettingsError, ProviderSettingsError) as error:
        raise LaunchError(str(error)) from None


def stop() -> int:
    """End the instance of this folder."""
    print("Keen Slate was stopped." if Instance(VAR).stop() else "Keen Slate is not running here.")
    return 0


def link(name: str) -> int:
    """Print a link that lets a teacher in once: the demo's, or the one called *name* (made where there is none)."""
    print(_new_link(_running(), name))
    return 0


def keeper(words: list[str]) -> int:
    """Schools, who teaches in them, a link for who has forgotten a password; while Keen Slate runs."""
    from tools.keeper import KeeperError, keep

    running = _running()
    try:
        print(keep(running.database, running.address, words))
    except KeeperError as error:
        raise LaunchError(str(error)) from None
    return 0


def _running() -> Running:
    running = Instance(VAR).running()
    if running is None:
        raise LaunchError("Keen Slate is not running here: ./slate demo starts it")
    return running


def downgrade(revision: str, lose_data: bool) -> int:
    """Bring the records back to an older version's, so that it can be started again."""
    from keen_slate.store.database import downgrade_to

    with _records() as (_server, url):
        downgrade_to(url, revision, lose_data, lambda found: _keep_first(url, found))
        print(f"The records are those of {revision} now.")
    return 0


def backup(file: Path) -> int:
    """Write the records to a *file*, whether Keen Slate is running or not."""
    from tools import keeping

    if (running := Instance(VAR).running()) is not None:
        keeping.dump(running.database, file)
    else:
        with _records() as (_server, url):
            keeping.dump(url, file)
    print(f"The records are in {file}.")
    return 0


def restore(file: Path) -> int:
    """Bring the records of a *file* back; those that are there are kept beside."""
    from tools import keeping

    if not file.is_file():
        raise LaunchError(f"there is no file {file}")
    if os.environ.get("KEEN_SLATE_OWNER_URL"):
        raise LaunchError(
            "the database is not this folder's own: bring the file back with pg_restore, where the database is kept"
        )
    with _records() as (server, _url):
        aside = keeping.restore(server, file)
        print(
            f"The records of {file} are back. Those that were here are kept in the same server, as the database "
            f"{aside}."
        )
    return 0


@contextmanager
def _records() -> Iterator[tuple[LocalPostgres, str]]:
    """The server of this folder and the address of the records, while Keen Slate itself stands still."""
    instance = Instance(VAR)
    if not instance.take():
        raise LaunchError("stop Keen Slate first: ./slate stop")
    server = LocalPostgres(VAR / "postgres")
    try:
        yield server, os.environ.get("KEEN_SLATE_OWNER_URL") or server.start()
    finally:
        server.stop()
        instance.give_back()


def _keep_first(url: str, revision: str) -> None:
    """Write the records to a file before another version changes them."""
    from tools import keeping

    print(f"The records are kept as they are in {keeping.keep(url, VAR / 'kept', revision)}.", flush=True)


def _interrupt(number: int, frame: FrameType | None) -> None:
    raise KeyboardInterrupt


def _undisturbed() -> None:
    """What is being stopped is stopped whole, however often it is asked for."""
    for ending in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(ending, signal.SIG_IGN)


def _open_var() -> None:
    """The folder of what is kept is its owner's alone; PostgreSQL's user, where it is another one, may pass
    through it.
    """
    VAR.mkdir(parents=True, exist_ok=True)
    if os.geteuid() == 0:
        os.chown(VAR, 0, grp.getgrnam("postgres").gr_gid)
        VAR.chmod(0o710)
    else:
        VAR.chmod(0o700)
    for path in VAR.iterdir():
        if not path.is_symlink() and path.stat().st_uid == os.geteuid() and path.stat().st_mode & 0o077:
            path.chmod(0o700 if path.is_dir() else 0o600)


def _already_there(instance: Instance) -> int:
    for _ in range(100):
        if (running := instance.running()) is not None:
            print(
                f"Keen Slate is already running. Come in by this link, which works once:\n\n    "
                f"{_new_link(running, '')}\n"
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


def _stand_in(port: int) -> StandInProvider:
    """A stand-in for a school's own sign-in, at *port* if it is free: who comes in by it is known by its address."""
    from keen_slate.store.demo import SIGN_INS
    from tools.stand_in_provider import StandInProvider

    try:
        listening = listen(port)
    except (LaunchError, OverflowError):
        listening = listen(0)
    return StandInProvider(list(SIGN_INS.values()), listening)


def _prepare(url: str, provider: StandInProvider) -> tuple[str, str, str]:
    """Tables and demo data; returns the secrets of links for the demo's teacher, for her colleague and for their head.

    Each of them comes in by the stand-in *provider*, too.
    """
    from sqlalchemy.orm import Session

    from keen_slate.store import identities
    from keen_slate.store.database import bring_up_to_date, let_in, open_engine
    from keen_slate.store.demo import COLLEAGUE, HEAD, SIGN_INS, load
    from keen_slate.store.doors import new_link
    from keen_slate.store.shelf import teacher_named

    print(bring_up_to_date(url, lambda revision: _keep_first(url, revision)), end="")
    let_in(url, DESK)
    engine = open_engine(url)
    with Session(engine) as session, session.begin():
        secret = new_link(session, load(session))
        next_door, head = (new_link(session, teacher_named(session, name).id) for name in (COLLEAGUE, HEAD))
        for name, person in SIGN_INS.items():
            identity = identities.identity_of(provider.issuer, provider.subject(person))
            identities.keep(session, teacher_named(session, name).id, identity, person)
    engine.dispose()
    return secret, next_door, head


def _kept_secret() -> str:
    path = VAR / "secret-key"
    if not path.exists() or not path.read_text().strip():
        made = path.with_suffix(".new")
        made.write_text(secrets.token_urlsafe(32))
        made.rename(path)
    return path.read_text()


# The application ------------------------------------------------------------------------------------------------------


def _start_application(
    supervisor: Supervisor, instance: Instance, environment: dict[str, str], listening: socket.socket
) -> str:
    """Serve at *listening* in processes that are forked from this one, which has all loaded: a killed one is back at
    once.
    """
    run = VAR / "run"
    run.mkdir(mode=0o700, exist_ok=True)
    os.environ.update(environment | {"KEEN_SLATE_INSTANCE": instance.name, "KEEN_SLATE_RUN": str(run)})
    from keen_slate.store.forgetting import forget_daily
    from keen_slate.web.serving import made_ready, serve

    app = made_ready()
    _forget(os.getpid())  # this process answers nothing

    def child(name: str, run: Callable[[], None]) -> Callable[[], Forked]:
        def live() -> None:
            os.environ.pop("KEEN_SLATE_OWNER_URL", None)
            instance.leave_to_parent()
            go_as_others()
            run()

        return lambda: Forked(name, live)

    for number in range(int(os.environ.get("KEEN_SLATE_WORKERS") or os.cpu_count() or 1)):
        supervisor.add(f"worker {number + 1}", child("slate-worker", lambda: serve(app, listening)))
    desk = os.environ["KEEN_SLATE_DATABASE_URL"]
    supervisor.add("the forgetting", child("slate-forgets", lambda: forget_daily(desk)))
    address = f"http://127.0.0.1:{listening.getsockname()[1]}"
    if not answers(address, supervisor.all_alive):
        raise LaunchError("the application did not start; its own words stand above")
    go_as_others()
    return address


def _open_page(address: str) -> None:
    """Open *address* in the browser of the desktop, where there is one."""
    if sys.stdout.isatty() and any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "BROWSER")):
        with suppress(webbrowser.Error, OSError):
            webbrowser.open(address)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
