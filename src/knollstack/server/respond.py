"""Answers as JSON and as files."""

from __future__ import annotations

from flask import Response, make_response
from pydantic import BaseModel


def json_of(model: BaseModel, status: int = 200) -> Response:
    return as_json(model.model_dump_json(), status)


def as_json(text: str, status: int = 200) -> Response:
    """The text of an answer, as it came from its task."""
    response = make_response(text, status)
    response.content_type = "application/json"
    return response


def attachment(content: bytes | str, kind: str, name: str) -> Response:
    """A file to keep, under a name that every system takes."""
    response = make_response(content)
    response.content_type = kind
    safe = "".join(c if c.isascii() and (c.isalnum() or c in "-_. ") else "_" for c in name).strip() or "well"
    response.headers["Content-Disposition"] = f'attachment; filename="{safe}"'
    return response
