"""One error shape: RFC 9457 problem details, with a path into the document for each fault."""

from __future__ import annotations

import logging
import secrets
import sqlite3
from typing import Any

from flask import Response, g, make_response, request
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from knollstack.core.document.faults import Fault, FaultyDesign, schema_faults
from knollstack.core.reading.read import decode
from knollstack.server.work import GoneError, TooMuchError
from knollstack.store.packing import DamagedError


class Problem(BaseModel):
    type: str = "about:blank"
    title: str
    status: int
    detail: str
    faults: list[Fault] = []


class Stale(Problem):
    """A save on an old revision: it is kept as a draft, and the newest one comes along, so that the person can choose."""

    newest_revision: int
    newest_document: dict[str, Any]
    newest_author: str
    draft_id: int


def respond(problem: Problem) -> Response:
    response = make_response(problem.model_dump_json(), problem.status)
    response.content_type = "application/problem+json"
    return response


def faulty(faults: list[Fault]) -> Response:
    count = "1 fault" if len(faults) == 1 else f"{len(faults)} faults"
    detail = f"{count}; nothing was changed."
    return respond(Problem(title=f"{what_came()} cannot be used", status=422, detail=detail, faults=faults))


def what_came() -> str:
    """What a refusal is about: the file or table that was sent, by its name where it has one, else the design."""
    named = g.get("imported", "")
    if named:
        return f'"{named}"'
    if request.path.endswith("/wells/file"):
        return "The well file"
    if "/tables/" in request.path:
        return "The table"
    return "The design" if b'"document"' in request.get_data() else "The request"


def deleted(design_id: int) -> Response:
    detail = f"Design {design_id} is not there any more. Nothing was changed."
    return respond(Problem(title="The design was deleted", status=410, detail=detail))


def not_found(what: str) -> Response:
    return respond(Problem(title="Not found", status=404, detail=f"There is no {what}."))


def on_validation_error(error: ValidationError) -> Response:
    """A body or path that does not fit; a body that is no JSON at all is said to be that."""
    if request.is_json:
        decode(request.get_data())
    return faulty(schema_faults(error))


def on_recursion(error: RecursionError) -> Response:
    """A body nested too deep is the sender's fault; any other recursion is ours."""
    try:
        decode(request.get_data())
    except FaultyDesign as nested:
        return on_faulty_design(nested)
    return on_unexpected(error)


def on_faulty_design(error: FaultyDesign) -> Response:
    return faulty(error.faults)


def on_http_error(error: HTTPException) -> Response:
    status = error.code or 500
    detail = error.description or ""
    if status == 413:
        detail = "The body is larger than the 8 MB that a well file may have. Nothing was changed."
    return respond(Problem(title=error.name, status=status, detail=detail))


_STORE = {
    sqlite3.SQLITE_FULL: (
        507,
        "The disk is full",
        "The disk of the server is full: nothing was saved. Make room there.",
    ),
    sqlite3.SQLITE_BUSY: (
        503,
        "The store is busy",
        "Another program holds the database: nothing was saved. Try again.",
    ),
    sqlite3.SQLITE_READONLY: (503, "The store is read-only", "The database cannot be written: nothing was saved."),
    sqlite3.SQLITE_CORRUPT: (503, "The store is damaged", "The database is damaged: put a backup back."),
    sqlite3.SQLITE_NOTADB: (503, "The store is damaged", "The database is damaged: put a backup back."),
    sqlite3.SQLITE_IOERR: (503, "The store fails", "The disk of the server fails: nothing was saved."),
    sqlite3.SQLITE_CANTOPEN: (503, "The store fails", "The database cannot be opened: nothing was saved."),
}


def on_store_error(error: sqlite3.Error) -> Response:
    """What the disk or the database refuses is told in words; anything else is a bug."""
    known = _STORE.get(getattr(error, "sqlite_errorcode", 0) & 0xFF)
    if known is None:
        return on_unexpected(error)
    logging.getLogger("knollstack").error("%s", error)
    status, title, detail = known
    return respond(Problem(title=title, status=status, detail=detail))


def on_too_much(error: TooMuchError) -> Response:
    detail = f"The work was stopped: {error}. Nothing was changed. A smaller document, or a later try, may do."
    return respond(Problem(title="Too much at once", status=503, detail=detail))


def on_gone(_error: GoneError) -> Response:
    return respond(Problem(title="Nobody waits", status=503, detail="The page that asked is gone."))


def on_damaged(error: DamagedError) -> Response:
    logging.getLogger("knollstack").error("a stored document is damaged: %s", error)
    detail = "What is stored of this revision is not what was saved: put a backup back. Other revisions may be whole."
    return respond(Problem(title="The store is damaged", status=503, detail=detail))


def on_unexpected(error: Exception) -> Response:
    """Anything else is a bug: its trace goes to the log under a short id, and the id is all that is shown."""
    name = secrets.token_hex(4)
    logging.getLogger("knollstack").error("internal error %s", name, exc_info=error)
    detail = f"The server failed on this request. Nothing was changed. Its log tells more under {name}."
    return respond(Problem(title="Internal error", status=500, detail=detail))
