"""Alternatives of a well: copies, names, and two side by side."""

from __future__ import annotations

from flask import Response, make_response
from flask_openapi3 import APIBlueprint

from knollstack.server import models, tasks
from knollstack.server.ask import heavy
from knollstack.server.database import connection, now
from knollstack.server.person import author
from knollstack.server.problems import Problem, not_found, respond
from knollstack.server.respond import as_json, json_of
from knollstack.server.wells import newest_of
from knollstack.store import wells as store

blueprint = APIBlueprint("designs", __name__, url_prefix="/api")


def _taken(name: str) -> Response:
    detail = f'The well already has a design called "{name}". Nothing was changed.'
    return respond(Problem(title="Name taken", status=409, detail=detail))


@blueprint.post("/designs/<int:design_id>/copies", responses={201: models.Saved, 409: Problem})
def copy_design(path: models.DesignPath, body: models.NameBody) -> Response:
    """A named alternative, from a design's newest revision."""
    if store.find_design(connection(), path.design_id) is None:
        return not_found(f"design {path.design_id}")
    moment = now()
    try:
        copy = store.copy_design(connection(), path.design_id, body.name.strip(), author(), moment)
    except store.TakenNameError:
        return _taken(body.name.strip())
    return json_of(models.Saved(design_id=copy, revision=1, saved_at=moment), 201)


@blueprint.put("/designs/<int:design_id>/name", responses={204: None, 409: Problem})
def rename_design(path: models.DesignPath, body: models.NameBody) -> Response:
    """Another name for a design."""
    try:
        if not store.rename_design(connection(), path.design_id, body.name.strip()):
            return not_found(f"design {path.design_id}")
    except store.TakenNameError:
        return _taken(body.name.strip())
    return make_response("", 204)


@blueprint.get("/designs/<int:design_id>/comparison/<int:other_id>", responses={200: models.Comparison})
def compare_designs(path: models.PairPath) -> Response:
    """Two designs side by side."""
    found = [newest_of(path.design_id), newest_of(path.other_id)]
    for number, pair in zip((path.design_id, path.other_id), found, strict=True):
        if pair is None:
            return not_found(f"design {number}")
    (row_a, a), (row_b, b) = (pair for pair in found if pair is not None)
    items = models.DesignItem(**row_a.__dict__), models.DesignItem(**row_b.__dict__)
    return as_json(heavy(tasks.compare, items[0], a, items[1], b))
