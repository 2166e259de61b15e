"""The application factory."""

from __future__ import annotations

import os
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from apiflask import APIFlask

from keen_slate.store.database import open_engine

from . import building, errors, explaining, files, handouts, ladders, openapi, pages, pictures, session, sets, work

DIST = Path(__file__).resolve().parents[2] / "frontend" / "dist"
LARGEST_REQUEST = 512 * 1024


def create_app(config: Mapping[str, Any] | None = None) -> APIFlask:
    """The application. *config* may hold SECRET_KEY, DATABASE_URL and SIGNED_IN_TEACHER (an id, or None).

    What is missing there is taken from the environment: KEEN_SLATE_SECRET_KEY, KEEN_SLATE_DATABASE_URL,
    KEEN_SLATE_TEACHER. Without a database address only the core can be asked (the OpenAPI document is made so).
    """
    app = APIFlask(
        "keen_slate",
        title="Keen Slate",
        version="1",
        docs_path=None,
        spec_path="/api/openapi.json",
        static_folder=None,  # type: ignore[arg-type]  # whitenoise serves the files
    )
    app.config.update(
        SECRET_KEY=os.environ.get("KEEN_SLATE_SECRET_KEY"),
        DATABASE_URL=os.environ.get("KEEN_SLATE_DATABASE_URL"),
        SIGNED_IN_TEACHER=os.environ.get("KEEN_SLATE_TEACHER"),
        MAX_CONTENT_LENGTH=LARGEST_REQUEST,
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Strict",
        SESSION_COOKIE_NAME="keen_slate",
        VALIDATION_ERROR_STATUS_CODE=422,
        OPENAPI_VERSION="3.1.0",
        HTTP_ERROR_SCHEMA=openapi.reference("ErrorOut"),
        VALIDATION_ERROR_SCHEMA=openapi.reference("ErrorOut"),
    )
    app.config.update({"DIST": DIST} | dict(config or {}))
    app.json.sort_keys = False  # type: ignore[attr-defined]  # documents keep the order they are published in
    app.json.ensure_ascii = False  # type: ignore[attr-defined]
    if app.config["DATABASE_URL"]:
        app.extensions["keen_slate_engine"] = open_engine(app.config["DATABASE_URL"])
    errors.init_app(app)
    openapi.init_app(app)
    session.init_app(app)
    app.register_blueprint(work.blueprint)
    app.register_blueprint(sets.blueprint)
    app.register_blueprint(ladders.blueprint)
    app.register_blueprint(handouts.blueprint)
    app.register_blueprint(files.blueprint)
    app.register_blueprint(pictures.blueprint)
    app.register_blueprint(building.blueprint)
    app.register_blueprint(explaining.blueprint)
    app.get("/show/<uuid:teacher_id>/<string:key>")(app.doc(hide=True)(handouts.shown))
    pages.init_app(app, app.config["DIST"])
    return app
