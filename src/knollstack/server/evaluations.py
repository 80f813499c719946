"""Evaluation and working of a document that is not saved: what makes dragging live."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from knollstack.catalogue import load
from knollstack.core.base.working import shown_all
from knollstack.core.document.compare import differences
from knollstack.core.evaluation.evaluate import evaluate, workings
from knollstack.core.evaluation.results import Evaluation
from knollstack.core.evaluation.tried import RemediesTried, tried
from knollstack.core.proposal.results import ProgramsResult
from knollstack.core.proposal.schools import both_schools
from knollstack.core.reading.read import parse
from knollstack.server import models
from knollstack.server.problems import not_found
from knollstack.server.respond import json_of

blueprint = APIBlueprint("evaluations", __name__, url_prefix="/api")


@blueprint.post("/evaluations", responses={200: Evaluation})
def create_evaluation(body: models.DocumentBody) -> Response:
    """Everything that follows from a document."""
    return json_of(evaluate(parse(body.document), load()))


@blueprint.post("/programs", responses={200: ProgramsResult})
def create_programs(body: models.DocumentBody) -> Response:
    """Setting depths by both schools, the freedom of each shoe, and what would free a program where there is none."""
    return json_of(both_schools(parse(body.document), load()))


@blueprint.post("/remedies", responses={200: RemediesTried})
def try_remedies(body: models.DocumentBody) -> Response:
    """Every remedy that the evaluation of a document offers, tried on the whole design."""
    return json_of(tried(parse(body.document), load()))


@blueprint.post("/differences", responses={200: models.Differences})
def tell_differences(body: models.TwoDocuments) -> Response:
    """In words, what differs between two documents of one design."""
    return json_of(models.Differences(differences=list(differences(parse(body.before), parse(body.after)))))


@blueprint.post("/workings", responses={200: models.Working})
def create_working(body: models.WorkingBody) -> Response:
    """The working of one headline number of a document's evaluation."""
    calls = workings(parse(body.document), load()).get(body.key)
    if calls is None:
        return not_found(f"working of {body.key}")
    return json_of(models.Working(key=body.key, calls=shown_all(calls)))
