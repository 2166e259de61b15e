"""Who follows a plain link reads a page: a refusal is a sentence there, not JSON, and never a file that is saved.

What cannot be had at this moment is asked for again by that page.
"""

from __future__ import annotations

from apiflask import APIFlask
from flask import Response, request

from .pages import nonce


def init_app(app: APIFlask) -> None:
    """Make refusals readable where a browser opens them by itself."""

    @app.after_request
    def readable(response: Response) -> Response:
        if request.method != "GET" or response.status_code < 400 or not response.is_json or not _opens_by_itself():
            return response
        from keen_slate.export.page import said_page

        error = response.get_json().get("error")
        if error is None:  # what is no refusal of ours
            return response
        again = response.status_code == 503
        response.set_data(said_page(error["message"], error["hint"], nonce(), again))
        response.mimetype = "text/html"
        return response


def _opens_by_itself() -> bool:
    wanted = request.accept_mimetypes
    return bool(wanted["text/html"] > wanted["application/json"])
