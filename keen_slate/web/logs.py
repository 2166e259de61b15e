"""What is written of each request: a line of JSON with a number of its own, and no text of anybody's, no address of a
row.
"""

from __future__ import annotations

import logging
import re
import secrets
import sys
import time
from logging import LogRecord

from apiflask import APIFlask
from flask import Response, g, has_request_context, request
from pythonjsonlogger.json import JsonFormatter

HEADER = "X-Request-Id"
_log = logging.getLogger("keen_slate.requests")
_QUIET = ("/healthz", "/readyz")  # asked all the time


def init_app(app: APIFlask) -> None:
    """Give each request a number (that of a proxy before it, if it has one), and write its line."""

    @app.before_request
    def begin() -> None:
        given = request.headers.get(HEADER, "")
        g.request_id = given if re.fullmatch(r"[\w.-]{8,64}", given, re.ASCII) else secrets.token_hex(8)
        g.begun = time.monotonic()

    @app.after_request
    def end(response: Response) -> Response:
        response.headers[HEADER] = g.get("request_id", "")
        if _log.isEnabledFor(logging.INFO) and request.path not in _QUIET:
            taken = round((time.monotonic() - g.get("begun", time.monotonic())) * 1000, 1)
            said = {"method": request.method, "rule": rule(), "status": response.status_code, "ms": taken}
            _log.info("request", extra=said)
        return response


def rule() -> str:
    """What was asked for, without what the address names; "" where nothing is there."""
    return request.url_rule.rule if request.url_rule else ""


def write_json() -> None:
    """Have this process write lines of JSON to standard output, one a request and one for each thing that went
    wrong.
    """
    handler = logging.StreamHandler(sys.stdout)
    handler.setFormatter(JsonFormatter("%(message)s", timestamp=True, rename_fields={"levelname": "level"}))
    handler.addFilter(_numbered)
    logging.basicConfig(level=logging.ERROR, handlers=[handler], force=True)
    _log.setLevel(logging.INFO)


def _numbered(record: LogRecord) -> bool:
    record.level = record.levelname.lower()
    record.process_id = record.process
    if has_request_context():
        record.request_id = g.get("request_id", "")
    return True
