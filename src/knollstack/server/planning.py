"""Tools that fill the document from a few numbers: a planned path as stations, an estimated fracture profile."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.base.findings import Change
from knollstack.core.document.design import Station
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.ground.estimates import Estimate, estimate_fracture
from knollstack.core.path.planning import PathPlan, PlanError, stations_of
from knollstack.core.reading.read import parse
from knollstack.core.sea.water import at_water_depth
from knollstack.server import models
from knollstack.server.respond import json_of

blueprint = APIBlueprint("planning", __name__, url_prefix="/api")


class Stations(BaseModel):
    stations: list[Station]
    total_md_ft: float


class EstimateBody(BaseModel):
    document: models.Document
    method: Literal["Eaton", "Hubbert and Willis", "Matthews and Kelly"]
    poisson: Annotated[float, Field(ge=0, le=0.5)] = 0.4
    matrix_stress_ratio: Annotated[float, Field(ge=0, le=1)] = 0.7


class WaterBody(BaseModel):
    document: models.Document
    water_depth_ft: Annotated[float, Field(ge=0, le=15_000)]


class Moved(BaseModel):
    changes: list[Change]


class Estimated(BaseModel):
    rows: list[dict[str, Any]]


@blueprint.post("/paths", responses={200: Stations})
def plan_path(body: PathPlan) -> Response:
    """Survey stations of a planned shape."""
    try:
        stations = stations_of(body)
    except PlanError as error:
        fault = Fault(path="/plan", value=f"{body.shape} to {body.target_tvd_ft:g} ft", expected=str(error))
        raise FaultyDesign([fault]) from None
    return json_of(Stations(stations=stations, total_md_ft=stations[-1].md_ft))


@blueprint.post("/estimates/fracture", responses={200: Estimated})
def estimate(body: EstimateBody) -> Response:
    """A fracture profile from pore pressure and overburden by a textbook estimator."""
    design = parse(body.document)
    points = estimate_fracture(design, Estimate(body.method, body.poisson, body.matrix_stress_ratio))
    return json_of(Estimated(rows=[p.model_dump() for p in points]))


@blueprint.post("/water-depths", responses={200: Moved})
def move_to_water(body: WaterBody) -> Response:
    """A whole well at sea set in other water: the edits that do it, of a document that can be read."""
    changes = at_water_depth(parse(body.document), body.water_depth_ft)
    moved = dict(body.document)
    for change in changes:
        keys = change.path.split("/")[1:]
        moved = _with(moved, keys, change.value)
    parse(moved)  # a well that cannot be there is told here, fault by fault
    return json_of(Moved(changes=list(changes)))


def _with(part: dict[str, Any], keys: list[str], value: Any) -> dict[str, Any]:
    """A document with something else at a place, the one that came left as it is."""
    head, *rest = keys
    return {**part, head: _with(part.get(head) or {}, rest, value) if rest else value}
