"""The built front end: one page for every address, its files by whitenoise, and a strict Content-Security-Policy."""

from __future__ import annotations

import secrets
from pathlib import Path

from apiflask import APIFlask, HTTPError
from flask import Response, g, request
from werkzeug.routing import PathConverter
from whitenoise import WhiteNoise

NONCE_PLACE = "__NONCE__"  # stands in index.html where the nonce of the response goes


class _PageConverter(PathConverter):
    """Every address but those of the API and of files, which are there or not."""

    regex = r"(?!(?:api|assets)(?:/|$))[^/].*?"


def init_app(app: APIFlask, dist: Path) -> None:
    """Serve the front end built in *dist*."""
    if (dist / "assets").is_dir():
        # Vite puts a hash into every file name under assets/, so they may be kept for ever.
        # Compressed files lie beside them; WhiteNoise sends those to whoever takes them.
        app.wsgi_app = WhiteNoise(  # type: ignore[method-assign]
            app.wsgi_app, root=str(dist / "assets"), prefix="assets", immutable_file_test=lambda path, url: True,
            add_headers_function=lambda headers, path, url: headers.__setitem__("X-Content-Type-Options", "nosniff"),
        )  # fmt: skip

    @app.get("/service-worker.js")
    @app.get("/still.js")
    @app.get("/away.html")
    @app.doc(hide=True)
    def for_when_it_is_away() -> Response:
        """What is ready for when no answer comes, and what sees a withdrawal; asked for anew whenever it can be."""
        file = dist / request.path[1:]
        if not file.exists():
            raise HTTPError(404, "The front end is not built yet: run ./slate demo.")
        kind = "text/html" if file.suffix == ".html" else "text/javascript"
        return Response(file.read_bytes(), mimetype=kind, headers={"Cache-Control": "no-cache"})

    app.url_map.converters["page"] = _PageConverter

    @app.get("/")
    @app.get("/<page:path>")
    @app.doc(hide=True)
    def page(path: str = "") -> Response:
        index = dist / "index.html"
        if not index.exists():
            raise HTTPError(404, "The front end is not built yet: run ./slate demo.")
        html = index.read_text(encoding="utf-8").replace(NONCE_PLACE, nonce())
        return Response(html, mimetype="text/html", headers={"Cache-Control": "no-store"})

    @app.after_request
    def secure(response: Response) -> Response:
        response.headers.setdefault("X-Content-Type-Options", "nosniff")
        response.headers.setdefault("Referrer-Policy", "same-origin")
        response.headers["Content-Security-Policy"] = (
            "default-src 'none'; script-src 'self'; connect-src 'self'; font-src 'self'; img-src 'self' data: blob:; "
            f"style-src 'self' 'nonce-{nonce()}'; worker-src 'self'; base-uri 'none'; form-action 'self'; "
            "frame-ancestors 'none'"
        )
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response


def nonce() -> str:
    """The nonce of the styles of this response."""
    if "nonce" not in g:
        g.nonce = secrets.token_urlsafe(18)
    return str(g.nonce)
