"""A server that ends without dropping a request: what was begun is answered, and nobody is sent away in the middle.

On the first SIGTERM it takes no new connection (others listen at the same socket), tells each client with its answer
that the connection ends, and closes those that say nothing; on a second one, or when too long has passed, it ends at
once.
"""

from __future__ import annotations

import signal
import time
from collections.abc import Callable
from types import FrameType
from typing import Any

from waitress.task import WSGITask

QUIET = 1.0  # seconds without a word, after which a connection that nothing is asked on is closed
_LOOK = 0.2  # seconds between two looks while it ends


class Draining:
    """What ends a waitress *server*; *longest* is how many seconds it may take."""

    def __init__(self, server: Any, longest: float) -> None:
        self.server = server
        self.longest = longest
        self.ending = False
        server.channel_class = type("Channel", (server.channel_class,), {"task_class": _task_that_closes(self)})

    def run(self) -> None:
        """Answer until SIGTERM, and what was begun by then."""
        signal.signal(signal.SIGTERM, self._end)
        try:
            while not self.ending:
                self._turn(self.server.adj.asyncore_loop_timeout)
            self._drain()
        except (SystemExit, KeyboardInterrupt):
            pass
        self.server.task_dispatcher.shutdown(timeout=_LOOK)

    def _end(self, number: int, frame: FrameType | None) -> None:
        if self.ending:
            raise SystemExit
        self.ending = True
        self.server.pull_trigger()

    def _turn(self, seconds: float) -> None:
        self.server.asyncore.loop(
            timeout=seconds, map=self.server._map, use_poll=self.server.adj.asyncore_use_poll, count=1
        )

    def _drain(self) -> None:
        self.server.accepting = False
        latest = time.monotonic() + self.longest
        while self.server.active_channels and time.monotonic() < latest:
            now = time.time()
            for channel in list(self.server.active_channels.values()):
                if not (channel.requests or channel.request or channel.total_outbufs_len) and (
                    channel.last_activity < now - QUIET
                ):
                    channel.will_close = True
            self._turn(_LOOK)


def _task_that_closes(draining: Draining) -> Callable[..., WSGITask]:
    class Task(WSGITask):  # type: ignore[misc]
        def build_response_header(self) -> bytes:
            if draining.ending:
                self.set_close_on_finish()
            return bytes(super().build_response_header())

    return Task
