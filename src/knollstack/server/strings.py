"""Sizes and pipe in full, asked for one string or one well at a time: slower or larger than an evaluation carries."""

from __future__ import annotations

from typing import Annotated

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field

from knollstack.catalogue import load
from knollstack.core.pipe.detail import loads_of, offers_of
from knollstack.core.pipe.results_loads import LoadsResult, PipeOffers
from knollstack.core.proposal.equipping import program_of
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.reading.read import parse
from knollstack.core.sizes.nests import chains_of
from knollstack.core.sizes.results import ChainsResult
from knollstack.server import models
from knollstack.server.problems import not_found
from knollstack.server.respond import json_of

blueprint = APIBlueprint("strings", __name__, url_prefix="/api")


class StringBody(models.DocumentBody):
    string: Annotated[int, Field(strict=True, ge=0, le=20, description="index of the string, conductor first")]


@blueprint.post("/loads", responses={200: LoadsResult})
def create_loads(body: StringBody) -> Response:
    """Every load case of one string against depth, with ratings and the strength picture."""
    found = loads_of(program_of(parse(body.document), load()), body.string)
    return not_found(f"loads of string {body.string}") if found is None else json_of(found)


@blueprint.post("/pipe-offers", responses={200: PipeOffers})
def create_offers(body: StringBody) -> Response:
    """The best string of one, two and three sections, and the one in force."""
    return json_of(offers_of(program_of(parse(body.document), load()), body.string))


@blueprint.post("/chains", responses={200: ChainsResult})
def create_chains(body: models.DocumentBody) -> Response:
    """Every chain of sizes for the strings in force, the plainest first."""
    return json_of(chains_of(laid_out(parse(body.document), load())))
