"""The application factory."""

from __future__ import annotations

import os
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from apiflask import APIFlask

from keen_slate.store.database import open_engine

from . import (
    account,
    building,
    class_files,
    classes,
    colleagues,
    conflict,
    documents,
    door,
    errors,
    everything,
    explaining,
    files,
    handouts,
    health,
    heavy,
    ladders,
    logs,
    mail,
    met,
    metrics,
    openapi,
    openid,
    pages,
    passkeys,
    pictures,
    plain_links,
    provider,
    school,
    session,
    sets,
    shelving,
    sittings,
    starts,
    stories,
    texts,
    ways,
    work,
)

DIST = Path(__file__).resolve().parents[2] / "frontend" / "dist"
LARGEST_REQUEST = 512 * 1024


def create_app(config: Mapping[str, Any] | None = None) -> APIFlask:
    """The application. *config* may hold SECRET_KEY, DATABASE_URL, HOSTS (names that it is reached by besides
    loopback).

    What is missing there is taken from the environment: KEEN_SLATE_SECRET_KEY, KEEN_SLATE_DATABASE_URL,
    KEEN_SLATE_POOLED ("1" behind a pool of transactions), KEEN_SLATE_HOSTS (parted by commas), KEEN_SLATE_INSTANCE
    (what it answers when it is asked who it is), KEEN_SLATE_SMTP and KEEN_SLATE_MAIL_FROM (how e-mail is sent, and by
    whom), KEEN_SLATE_OIDC_ISSUER, _CLIENT, _SECRET and _NAME (the school's own sign-in). Without a database address
    nothing can be asked (the OpenAPI document is made so). Raises `MailSettingsError`, `ProviderSettingsError`.
    """
    app = APIFlask(
        "keen_slate",
        title="Keen Slate",
        version="1",
        docs_path=None,
        spec_path=None,  # `openapi` sends it, made once
        static_folder=None,  # type: ignore[arg-type]  # whitenoise serves the files
    )
    app.config.update(
        SECRET_KEY=os.environ.get("KEEN_SLATE_SECRET_KEY"),
        DATABASE_URL=os.environ.get("KEEN_SLATE_DATABASE_URL"),
        HOSTS=[host.strip() for host in os.environ.get("KEEN_SLATE_HOSTS", "").split(",") if host.strip()],
        POOLED=os.environ.get("KEEN_SLATE_POOLED") == "1",
        INSTANCE=os.environ.get("KEEN_SLATE_INSTANCE", ""),
        SMTP=os.environ.get("KEEN_SLATE_SMTP", ""),
        MAIL_FROM=os.environ.get("KEEN_SLATE_MAIL_FROM", ""),
        PROVIDER=openid.of_environment(os.environ),
        MAX_CONTENT_LENGTH=LARGEST_REQUEST,
        VALIDATION_ERROR_STATUS_CODE=422,
        OPENAPI_VERSION="3.1.0",
        HTTP_ERROR_SCHEMA=openapi.reference("ErrorOut"),
        VALIDATION_ERROR_SCHEMA=openapi.reference("ErrorOut"),
    )
    app.config.update({"DIST": DIST} | dict(config or {}))
    mail.check(app.config["SMTP"], app.config["MAIL_FROM"])
    app.json = documents.DocumentJSON(app)
    if app.config["DATABASE_URL"]:
        app.extensions["keen_slate_engine"] = open_engine(app.config["DATABASE_URL"], app.config["POOLED"])
    metrics.init_app(app)  # the first that begins and the last that ends
    logs.init_app(app)
    session.init_app(app)  # before what may change an answer, so that it comes after that when one goes out
    errors.init_app(app)
    plain_links.init_app(app)
    openapi.init_app(app)
    door.init_app(app, app.config["HOSTS"])
    texts.init_app(app)
    heavy.init_app(app)
    conflict.init_app(app)
    app.register_blueprint(account.blueprint)
    app.register_blueprint(work.blueprint)
    app.register_blueprint(sets.blueprint)
    app.register_blueprint(ways.blueprint)
    app.register_blueprint(shelving.blueprint)
    app.register_blueprint(ladders.blueprint)
    app.register_blueprint(starts.blueprint)
    app.register_blueprint(stories.blueprint)
    app.register_blueprint(handouts.blueprint)
    app.register_blueprint(files.blueprint)
    app.register_blueprint(pictures.blueprint)
    app.register_blueprint(building.blueprint)
    app.register_blueprint(explaining.blueprint)
    app.register_blueprint(classes.blueprint)
    app.register_blueprint(sittings.blueprint)
    app.register_blueprint(class_files.blueprint)
    app.register_blueprint(met.blueprint)
    app.register_blueprint(colleagues.blueprint)
    app.register_blueprint(school.blueprint)
    app.register_blueprint(everything.blueprint)
    app.register_blueprint(passkeys.blueprint)
    app.register_blueprint(provider.blueprint)
    app.register_blueprint(mail.blueprint)
    app.get("/show/<uuid:teacher_id>/<string:key>")(app.doc(hide=True)(handouts.shown))
    app.get("/shared/<uuid:teacher_id>/<uuid:set_id>")(app.doc(hide=True)(colleagues.shared_page))
    health.init_app(app)
    pages.init_app(app, app.config["DIST"])
    return app
