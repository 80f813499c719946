"""Edits of a document, as findings offer them and as the browser makes them: JSON pointers and new values."""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from knollstack.core.base.findings import Change
from knollstack.core.document.design import Design
from knollstack.core.document.faults import FaultyDesign, schema_faults


def put(document: Any, path: str, value: Any) -> None:
    """Set the value at a JSON pointer of a decoded document, in place."""
    *parents, last = path.split("/")[1:]
    for key in parents:
        document = document[int(key)] if isinstance(document, list) else document[key]
    document[int(last) if isinstance(document, list) else last] = value


def changed(design: Design, changes: tuple[Change, ...]) -> Design:
    """A design with changes applied; raises FaultyDesign where they make none."""
    document = design.model_dump(mode="json")
    for change in changes:
        put(document, change.path, change.value)
    try:
        return Design.model_validate(document)
    except ValidationError as error:
        raise FaultyDesign(schema_faults(error)) from error


def value_at(design: Design, path: str) -> Any:
    """The value at a JSON pointer."""
    node: Any = design.model_dump(mode="json")
    for key in path.split("/")[1:]:
        node = node[int(key)] if isinstance(node, list) else node[key]
    return node
