"""What only a drawing needs, asked by the view that draws it: the ground along the well, kick tolerance against depth."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from knollstack.catalogue import load
from knollstack.core.depths.kick import kick_drawing
from knollstack.core.depths.results import KickDrawing
from knollstack.core.ground.drawing import ground_drawing
from knollstack.core.ground.results import GroundDrawing
from knollstack.core.ground.well import build_well
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.reading.read import parse
from knollstack.server import models
from knollstack.server.respond import json_of

blueprint = APIBlueprint("drawings", __name__, url_prefix="/api/drawings")


class KickDrawings(BaseModel):
    """One a string, in their order."""

    strings: list[KickDrawing]


@blueprint.post("/ground", responses={200: GroundDrawing})
def draw_ground(body: models.DocumentBody) -> Response:
    """Profiles, window and pressures as points along the well."""
    return json_of(ground_drawing(build_well(parse(body.document))))


@blueprint.post("/kick", responses={200: KickDrawings})
def draw_kick(body: models.DocumentBody) -> Response:
    """Kick tolerance at each shoe against the depth of the kick."""
    laid = laid_out(parse(body.document), load())
    return json_of(KickDrawings(strings=[kick_drawing(laid.well, s, laid.next(s)) for s in laid.strings]))
