"""What was deleted: put into the bin, looked at, put back, and by hand gone for good."""

from __future__ import annotations

from flask import Response, make_response
from flask_openapi3 import APIBlueprint

from knollstack.server import models
from knollstack.server.database import connection, now
from knollstack.server.person import author
from knollstack.server.problems import Problem, not_found, respond
from knollstack.server.respond import json_of
from knollstack.store import bin as store

blueprint = APIBlueprint("bin", __name__, url_prefix="/api")


@blueprint.delete("/wells/<int:well_id>", responses={204: None})
def delete_well(path: models.WellPath) -> Response:
    """Put a well into the bin with its designs."""
    if not store.delete_well(connection(), path.well_id, author(), now()):
        return not_found(f"well {path.well_id}")
    return make_response("", 204)


@blueprint.delete("/designs/<int:design_id>", responses={204: None, 409: Problem})
def delete_design(path: models.DesignPath) -> Response:
    """Put an alternative into the bin."""
    try:
        if not store.delete_design(connection(), path.design_id, author(), now()):
            return not_found(f"design {path.design_id}")
    except store.LastDesignError:
        detail = "It is the well's only design. Delete the well instead. Nothing was changed."
        return respond(Problem(title="The only design", status=409, detail=detail))
    return make_response("", 204)


@blueprint.get("/bin", responses={200: models.BinList})
def list_bin() -> Response:
    """What is in the bin, last deleted first."""
    items = [models.BinItem(**row.__dict__) for row in store.list_bin(connection())]
    return json_of(models.BinList(items=items))


@blueprint.post("/bin/<string:kind>/<int:row_id>/back", responses={204: None})
def put_back(path: models.BinPath) -> Response:
    """Take a well or a design out of the bin again."""
    if not store.put_back(connection(), path.kind, path.row_id):
        return not_found(f"{path.kind} {path.row_id} in the bin")
    return make_response("", 204)


@blueprint.delete("/bin/<string:kind>/<int:row_id>", responses={204: None})
def delete_for_good(path: models.BinPath) -> Response:
    """Delete one thing of the bin for good."""
    if not store.empty_bin(connection(), path.kind, path.row_id):
        return not_found(f"{path.kind} {path.row_id} in the bin")
    return make_response("", 204)


@blueprint.delete("/bin", responses={204: None})
def empty_bin() -> Response:
    """Delete everything in the bin for good."""
    store.empty_bin(connection())
    return make_response("", 204)
