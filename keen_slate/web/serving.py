"""The application in one process: `python -m keen_slate.web.serving SOCKET [PIPE]`, the numbers of a listening socket
and of a pipe to say that it is ready, handed down.

waitress reads each request whole before a thread has to do with it, and writes answers out beside the threads, so that
silent and slow clients hold up nobody. Several such processes may listen on one socket.
"""

from __future__ import annotations

import gc
import logging
import os
import signal
import socket
import sys

import waitress
from apiflask import APIFlask

from . import create_app, heavy, logs
from .draining import Draining

THREADS = 6
CONNECTIONS = 2000
ENDS_WITHIN = 6  # seconds for what was begun, where nothing else is said
SILENT = 120  # seconds after which a silent connection is closed
LARGEST_BODY = 24 * 1024 * 1024  # at the door; what each request may hold is the application's to say


def made_ready() -> APIFlask:
    """The application with settings from the environment, ready to serve here or in processes that are forked from this
    one.
    """
    app = create_app()
    # What is loaded now stays; requests leave little behind, so it is looked for seldom.
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)
    return app


def serve(app: APIFlask, listening: socket.socket) -> None:
    """Answer at *listening* until SIGTERM, and what was begun by then."""
    if os.environ.get("KEEN_SLATE_LOG") == "json":
        logs.write_json()
    else:
        logging.basicConfig(level=logging.ERROR, format="%(asctime)s %(message)s")
    logging.getLogger("waitress.queue").setLevel(logging.CRITICAL)  # it says whenever a request waits for a thread
    for ignored in (signal.SIGINT, signal.SIGHUP):
        signal.signal(ignored, signal.SIG_IGN)  # whoever started this ends it
    listening.setblocking(False)
    heavy.warm_up(app)
    behind = os.environ.get("KEEN_SLATE_PROXY")
    proxy = (
        {"trusted_proxy": behind, "trusted_proxy_headers": "x-forwarded-for x-forwarded-proto x-forwarded-host"}
        if behind
        else {}
    )
    server = waitress.create_server(
        app, sockets=[listening], threads=THREADS, connection_limit=CONNECTIONS, channel_timeout=SILENT,
        cleanup_interval=5, max_request_body_size=LARGEST_BODY, asyncore_use_poll=True, channel_request_lookahead=1,
        ident=None, **proxy,
    )  # fmt: skip
    draining = Draining(server, float(os.environ.get("KEEN_SLATE_ENDS_WITHIN", ENDS_WITHIN)))
    app.extensions["keen_slate_draining"] = draining
    try:
        draining.run()
    finally:
        server.close()
        app.extensions["keen_slate_heavy"].stop()


def _main(listening: int, ready: int | None = None) -> None:
    """Answer at the socket *listening*, and say so at the pipe *ready* when it begins."""
    app = made_ready()
    if ready is not None:
        os.write(ready, b"ready")
        os.close(ready)
    serve(app, socket.socket(fileno=listening))


if __name__ == "__main__":
    _main(*map(int, sys.argv[1:]))
