"""The app factory: blueprints, one error handler, the guard, and the built front end."""

from __future__ import annotations

import gc
import sqlite3
from pathlib import Path

from flask import Flask, Response, abort, jsonify, send_from_directory
from flask_openapi3 import Info, OpenAPI
from werkzeug.exceptions import HTTPException

from knollstack import __version__
from knollstack.catalogue import load
from knollstack.core.document.faults import FaultyDesign
from knollstack.server import (
    accounts,
    bin,
    database,
    designs,
    drawings,
    drills,
    evaluations,
    feed,
    live,
    logbook,
    planning,
    program_sheet,
    reference,
    revisions,
    run_sheets,
    sign_off,
    strings,
    summaries,
    tables,
    wells,
)
from knollstack.server.feeds import Feeds
from knollstack.server.guard import guard
from knollstack.server.openapi import described
from knollstack.server.problems import (
    Problem,
    on_damaged,
    on_faulty_design,
    on_gone,
    on_http_error,
    on_recursion,
    on_store_error,
    on_too_much,
    on_unexpected,
    on_validation_error,
)
from knollstack.server.work import GoneError, Inline, TooMuchError, Work
from knollstack.store.opening import prepare
from knollstack.store.packing import DamagedError

BODY_LIMIT = 8 * 1024 * 1024
WEB = Path(__file__).resolve().parents[3] / "web" / "dist"
LOOPBACK = {"localhost", "127.0.0.1", "[::1]"}


def create_app(
    database_path: str | Path,
    hosts: set[str] | None = None,
    web: Path = WEB,
    beyond: bool = False,
    open_to_all: bool = False,
    work: Work | None = None,
) -> Flask:
    """The application on one database file, answering for loopback unless told of other hosts.

    `beyond` loopback one has to sign in, unless it is `open_to_all`. Tasks run at `work`, else where they are called.
    """
    app = OpenAPI(
        "knollstack",
        info=Info(title="Knollstack", version=__version__),
        security_schemes={},
        operation_id_callback=lambda **k: k["name"],
        responses=dict.fromkeys((400, 404, 413, 422, 503, 507), Problem),
        validation_error_callback=on_validation_error,
        doc_ui=False,
        static_folder=None,
    )
    app.config["DATABASE"] = str(database_path)
    app.extensions["work"] = work or Inline()
    app.extensions["feeds"] = Feeds(str(database_path))
    app.config["BEYOND"], app.config["OPEN"] = beyond, open_to_all
    app.config["MAX_CONTENT_LENGTH"] = BODY_LIMIT
    load()
    gc.freeze()  # what is loaded now lives as long as the process: the collector need not look at it again
    prepare(Path(database_path))
    for module in (
        wells,
        designs,
        revisions,
        bin,
        accounts,
        sign_off,
        program_sheet,
        run_sheets,
        logbook,
        feed,
        live,
        drills,
        summaries,
        tables,
        planning,
        evaluations,
        drawings,
        strings,
        reference,
    ):
        app.register_api(module.blueprint)
    app.add_url_rule("/api/openapi.json", "openapi", lambda: jsonify(described(app.api_doc)))
    app.register_error_handler(FaultyDesign, on_faulty_design)
    app.register_error_handler(RecursionError, on_recursion)
    app.register_error_handler(sqlite3.Error, on_store_error)
    app.register_error_handler(DamagedError, on_damaged)
    app.register_error_handler(TooMuchError, on_too_much)
    app.register_error_handler(GoneError, on_gone)
    app.register_error_handler(HTTPException, on_http_error)
    app.register_error_handler(Exception, on_unexpected)
    app.teardown_appcontext(database.close)
    guard(app, LOOPBACK | (hosts or set()))
    accounts.admit(app)
    _serve_web(app, web)
    return app


def _serve_web(app: Flask, web: Path) -> None:
    """The built front end; any path that is none of its files gets its page, so that deep links open.

    Its files are listed once: no path that comes is ever looked up on the disk.
    """
    files = {file.relative_to(web).as_posix() for file in web.rglob("*") if file.is_file()} if web.is_dir() else set()

    def page(path: str = "") -> Response:
        if path.startswith("api/") or path == "api":
            abort(404)
        if not (web / "index.html").is_file():
            abort(503, "The front end is not built.")
        name = path if path in files else "index.html"
        response = send_from_directory(web, name)
        lasting = name.startswith("assets/")
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable" if lasting else "no-cache"
        return response

    app.add_url_rule("/", "page", page)
    app.add_url_rule("/<path:path>", "page", page)
