"""What is counted of all processes together, for Prometheus: requests and how long they take, by rule and status."""

from __future__ import annotations

import os
import time
from socket import socket

from apiflask import APIFlask
from flask import Response, g, request

from .logs import rule
from .workers import size

FOLDER = "PROMETHEUS_MULTIPROC_DIR"  # the library's own name for where processes lay what they count
_SECONDS = (0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 30)


def init_app(app: APIFlask) -> None:
    """Count the requests, where there is a folder to count in."""
    if not os.environ.get(FOLDER):
        return
    from prometheus_client import Counter, Gauge, Histogram

    answered = Counter("keen_slate_requests_total", "Requests answered", ["method", "rule", "status"])
    took = Histogram(
        "keen_slate_request_seconds", "Time of a request by the clock", ["method", "rule"], buckets=_SECONDS
    )
    processor = Counter("keen_slate_processor_seconds_total", "Processor time of requests", ["rule"])
    under_way = Gauge("keen_slate_requests_under_way", "Requests under way", multiprocess_mode="livesum")
    memory = Gauge("keen_slate_memory_bytes", "Memory of each process", multiprocess_mode="liveall")

    @app.before_request
    def begin() -> None:
        under_way.inc()
        g.counted = time.monotonic(), time.thread_time()

    @app.after_request
    def end(response: Response) -> Response:
        if "counted" in g:
            clock, thread = g.counted
            what = rule() or "none"
            answered.labels(request.method, what, response.status_code).inc()
            took.labels(request.method, what).observe(time.monotonic() - clock)
            processor.labels(what).inc(time.thread_time() - thread)
            memory.set(size())
        return response

    @app.teardown_request
    def gone(error: BaseException | None) -> None:
        if g.pop("counted", None) is not None:
            under_way.dec()


def serve(listening: socket) -> None:
    """Hand out at *listening* what all processes have counted. It never returns."""
    from prometheus_client import CollectorRegistry, make_wsgi_app
    from prometheus_client.multiprocess import MultiProcessCollector
    from werkzeug.serving import WSGIRequestHandler, make_server

    class Quiet(WSGIRequestHandler):
        def log_request(self, code: int | str = "-", size: int | str = "-") -> None:
            """Nothing: who asks is a machine, every few seconds."""

    registry = CollectorRegistry()
    MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    port, number = listening.getsockname()[1], listening.fileno()
    make_server("127.0.0.1", port, make_wsgi_app(registry), request_handler=Quiet, fd=number).serve_forever()


def forget(process: int) -> None:
    """A *process* of the application has ended: what it alone could say (its memory) goes, what it counted stays."""
    if os.environ.get(FOLDER):
        from prometheus_client.multiprocess import mark_process_dead

        mark_process_dead(process)  # type: ignore[no-untyped-call]
