"""What comes in is looked through at the door for characters that cannot be kept, whatever it is for."""

from __future__ import annotations

from apiflask import APIFlask, HTTPError
from flask import request

from keen_slate.core.reading.characters import refuse_unkeepable

_FILES = "/bring"  # larger than other requests; their texts are looked through where they are read


def init_app(app: APIFlask) -> None:
    """Look through every request."""

    @app.before_request
    def look() -> None:
        for texts in request.args.listvalues():
            refuse_unkeepable(texts)
        if request.is_json and not request.path.endswith(_FILES):
            given = request.get_json(silent=True)
            if (
                given is None and request.get_data().strip() == b"null"
            ):  # would be taken for a request with nothing in it
                raise HTTPError(422, "There is nothing in this request.")
            refuse_unkeepable(given)
