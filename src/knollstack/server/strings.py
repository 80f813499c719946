"""Sizes and pipe in full, asked for one string or one well at a time: slower or larger than an evaluation carries."""

from __future__ import annotations

from typing import Annotated

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field

from knollstack.core.cement.results_job import JobDetail
from knollstack.core.pipe.results_loads import LoadsResult, PipeOffers
from knollstack.core.running.results_detail import RunTracks, TallyDetail
from knollstack.core.sizes.results import ChainsResult
from knollstack.server import models, tasks
from knollstack.server.ask import heavy, light
from knollstack.server.problems import not_found
from knollstack.server.respond import as_json

blueprint = APIBlueprint("strings", __name__, url_prefix="/api")


class StringBody(models.DocumentBody):
    string: Annotated[int, Field(strict=True, ge=0, le=20, description="index of the string, conductor first")]


@blueprint.post("/loads", responses={200: LoadsResult})
def create_loads(body: StringBody) -> Response:
    """Every load case of one string against depth, with ratings and the strength picture."""
    found = light(tasks.create_loads, body.document, body.string)
    return not_found(f"loads of string {body.string}") if found is None else as_json(found)


@blueprint.post("/tallies", responses={200: TallyDetail})
def create_tally(body: StringBody) -> Response:
    """One string's tally joint by joint, as measured or as made from the length range."""
    found = light(tasks.create_tally, body.document, body.string)
    return not_found(f"tally of string {body.string}") if found is None else as_json(found)


@blueprint.post("/runs", responses={200: RunTracks})
def create_run(body: StringBody) -> Response:
    """What is drawn of one string's run against depth: filling, hook load, speed and standoff."""
    found = light(tasks.create_run, body.document, body.string)
    return not_found(f"run of string {body.string}") if found is None else as_json(found)


@blueprint.post("/cement-jobs", responses={200: JobDetail})
def create_cement_job(body: StringBody) -> Response:
    """One string's cement job moment by moment: where each fluid is, and the pressures on both sides of the pipe."""
    found = light(tasks.create_cement_job, body.document, body.string)
    return not_found(f"cement job of string {body.string}") if found is None else as_json(found)


@blueprint.post("/pipe-offers", responses={200: PipeOffers})
def create_offers(body: StringBody) -> Response:
    """The best string of one, two and three sections, and the one in force."""
    return as_json(heavy(tasks.create_offers, body.document, body.string))


@blueprint.post("/chains", responses={200: ChainsResult})
def create_chains(body: models.DocumentBody) -> Response:
    """Every chain of sizes for the strings in force, the plainest first."""
    return as_json(heavy(tasks.create_chains, body.document))
