"""The OpenAPI document made whole: what every operation may answer beside what it says of itself."""

from __future__ import annotations

from typing import Any

PROBLEM = "application/problem+json"
COMMON = {
    "400": "A request that is none.",
    "401": "Not signed in, where accounts are in force.",
    "403": "The role does not allow it, or another site asks.",
    "404": "There is no such thing.",
    "413": "More than 8 MB.",
    "421": "Another host's name.",
    "422": "Faults, each with its place.",
    "503": "The store, or the work asked for, is more than the server has at the moment.",
    "507": "The disk is full.",
}
FILES = {
    "/api/designs/{design_id}/sheet": "application/pdf",
    "/api/designs/{design_id}/barriers.pdf": "application/pdf",
    "/api/designs/{design_id}/run-sheet.pdf": "application/pdf",
    "/api/designs/{design_id}/run-sheet.csv": "text/csv",
    "/api/designs/{design_id}/materials.csv": "text/csv",
    "/api/designs/{design_id}/materials.xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "/api/designs/{design_id}/calendar.ics": "text/calendar",
    "/api/designs/{design_id}/feed/events": "text/event-stream",
    "/api/designs/{design_id}/kill-sheet.pdf": "application/pdf",
    "/api/designs/{design_id}/drills.csv": "text/csv",
    "/api/drills/{drill_id}/scene.json": "application/json",
    "/api/designs/{design_id}/log.csv": "text/csv",
    "/api/designs/{design_id}/log.json": "application/json",
    "/api/designs/{design_id}/tables/{target}": "text/csv",
    "/api/schema": "application/json",
}
"""Operations that answer with a file, by their path, and its kind."""
UPLOADS = ("/api/wells/file", "/api/designs/{design_id}/feed/file", "/api/designs/{design_id}/drills/file")

OF_DESIGN = {"type": "object", "format": "design"}
"""The mark of a document within a body; it stands for the schema of a design."""


def linked(node: Any) -> Any:
    """A description with every mark of a document made a reference to the schema of a design."""
    if isinstance(node, dict):
        if node.items() >= OF_DESIGN.items():
            return {"$ref": "#/components/schemas/Design"}
        return {key: linked(value) for key, value in node.items()}
    return [linked(value) for value in node] if isinstance(node, list) else node


def described(document: dict[str, Any]) -> dict[str, Any]:
    """The document with every answer that an operation may give."""
    problem = {"$ref": "#/components/schemas/Problem"}
    document["components"] = linked(document["components"])
    for path, item in document["paths"].items():
        for operation in item.values():
            answers = operation["responses"]
            for status, words in COMMON.items():
                answers.setdefault(status, {"description": words})
            for status, answer in answers.items():
                if status >= "400":
                    schemas = [kind.get("schema", problem) for kind in answer.get("content", {}).values()]
                    own = schemas[0] if schemas and status != "422" else problem
                    answer["content"] = {PROBLEM: {"schema": own}}
            if path in FILES:
                answers["200"] = {"description": "The file.", "content": {FILES[path]: {"schema": {}}}}
            if path in UPLOADS:
                binary = {"schema": {"type": "string", "format": "binary"}}
                operation["requestBody"] = {"required": True, "content": {"application/octet-stream": binary}}
    return document
