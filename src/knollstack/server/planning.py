"""Tools that fill the document from a few numbers: a planned path as stations, an estimated fracture profile."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.document.design import Station
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.ground.estimates import Estimate, estimate_fracture
from knollstack.core.path.planning import PathPlan, PlanError, stations_of
from knollstack.core.reading.read import parse
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
