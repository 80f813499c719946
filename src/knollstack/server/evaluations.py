"""Evaluation and working of a document that is not saved: what makes dragging live."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from knollstack.core.document.compare import differences
from knollstack.core.evaluation.results import Evaluation
from knollstack.core.evaluation.tried import RemediesTried
from knollstack.core.proposal.results import ProgramsResult
from knollstack.core.reading.read import parse
from knollstack.server import models, tasks
from knollstack.server.ask import heavy, light
from knollstack.server.problems import not_found
from knollstack.server.respond import as_json, json_of

blueprint = APIBlueprint("evaluations", __name__, url_prefix="/api")


@blueprint.post("/evaluations", responses={200: Evaluation})
def create_evaluation(body: models.DocumentBody) -> Response:
    """Everything that follows from a document."""
    return as_json(light(tasks.create_evaluation, body.document))


@blueprint.post("/programs", responses={200: ProgramsResult})
def create_programs(body: models.DocumentBody) -> Response:
    """Setting depths by both schools, the freedom of each shoe, and what would free a program where there is none."""
    return as_json(heavy(tasks.create_programs, body.document))


@blueprint.post("/remedies", responses={200: RemediesTried})
def try_remedies(body: models.DocumentBody) -> Response:
    """Every remedy that the evaluation of a document offers, tried on the whole design."""
    return as_json(heavy(tasks.try_remedies, body.document))


@blueprint.post("/differences", responses={200: models.Differences})
def tell_differences(body: models.TwoDocuments) -> Response:
    """In words, what differs between two documents of one design."""
    return json_of(models.Differences(differences=list(differences(parse(body.before), parse(body.after)))))


@blueprint.post("/workings", responses={200: models.Working})
def create_working(body: models.WorkingBody) -> Response:
    """The working of one headline number of a document's evaluation."""
    found = light(tasks.create_working, body.document, body.key)
    return not_found(f"working of {body.key}") if found is None else as_json(found)
