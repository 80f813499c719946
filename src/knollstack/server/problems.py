"""One error shape: RFC 9457 problem details, with a path into the document for each fault."""

from __future__ import annotations

import logging
import secrets
from typing import Any

from flask import Response, make_response, request
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from knollstack.core.document.faults import Fault, FaultyDesign, schema_faults
from knollstack.core.reading.read import decode


class Problem(BaseModel):
    type: str = "about:blank"
    title: str
    status: int
    detail: str
    faults: list[Fault] = []


class Stale(Problem):
    """A save on an old revision: the newest one comes along, so that the person can choose."""

    newest_revision: int
    newest_document: dict[str, Any]


def respond(problem: Problem) -> Response:
    response = make_response(problem.model_dump_json(), problem.status)
    response.content_type = "application/problem+json"
    return response


def faulty(faults: list[Fault]) -> Response:
    count = "1 fault" if len(faults) == 1 else f"{len(faults)} faults"
    return respond(
        Problem(
            title="The well file cannot be used", status=422, detail=f"{count}; nothing was changed.", faults=faults
        )
    )


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


def on_unexpected(error: Exception) -> Response:
    """Anything else is a bug: its trace goes to the log under a short id, and the id is all that is shown."""
    name = secrets.token_hex(4)
    logging.getLogger("knollstack").error("internal error %s", name, exc_info=error)
    detail = f"The server failed on this request. Nothing was changed. Its log tells more under {name}."
    return respond(Problem(title="Internal error", status=500, detail=detail))
