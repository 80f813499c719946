"""What only a drawing needs, asked by the view that draws it: the ground along the well, kick tolerance against depth."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from knollstack.core.ground.results import GroundDrawing
from knollstack.server import models, tasks
from knollstack.server.ask import light
from knollstack.server.respond import as_json

blueprint = APIBlueprint("drawings", __name__, url_prefix="/api/drawings")


@blueprint.post("/ground", responses={200: GroundDrawing})
def draw_ground(body: models.DocumentBody) -> Response:
    """Profiles, window and pressures as points along the well."""
    return as_json(light(tasks.draw_ground, body.document))


@blueprint.post("/kick", responses={200: models.KickDrawings})
def draw_kick(body: models.DocumentBody) -> Response:
    """Kick tolerance at each shoe against the depth of the kick."""
    return as_json(light(tasks.draw_kick, body.document))
