"""The history of a design, and its alternatives: copies, names, and two side by side."""

from __future__ import annotations

from flask import Response, make_response
from flask_openapi3 import APIBlueprint

from knollstack.catalogue import load
from knollstack.core.document.compare import differences
from knollstack.core.document.design import Design
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.core.evaluation.side_by_side import side_by_side
from knollstack.core.reading.read import parse_text
from knollstack.server import models
from knollstack.server.database import connection, now
from knollstack.server.problems import Problem, not_found, respond
from knollstack.server.respond import json_of
from knollstack.server.wells import AUTHOR, newest_of
from knollstack.store import wells as store

PAGE = 40
blueprint = APIBlueprint("designs", __name__, url_prefix="/api")


@blueprint.get("/designs/<int:design_id>/revisions", responses={200: models.RevisionList})
def list_revisions(path: models.DesignPath, query: models.HistoryQuery) -> Response:
    """Revisions newest first, each with what changed from the one before it."""
    rows = store.list_revisions(connection(), path.design_id, query.before, PAGE + 1)
    if not rows:
        return not_found(f"revision of design {path.design_id} before {query.before}")
    read = [_read(row.document) for row in rows]
    items = []
    for i, row in enumerate(rows[:PAGE]):
        design, unreadable = read[i]
        before = read[i + 1][0] if i + 1 < len(rows) else None
        changes = differences(before, design) if before is not None and design is not None else []
        items.append(
            models.RevisionItem(
                number=row.number,
                author=row.author,
                saved_at=row.saved_at,
                note=row.note,
                changes=changes,
                unreadable=unreadable,
            )
        )
    return json_of(models.RevisionList(revisions=items, more=len(rows) > PAGE))


def _read(text: str) -> tuple[Design | None, str]:
    """A revision's document; where it cannot be read, why not: the others are still shown."""
    try:
        return parse_text(text), ""
    except FaultyDesign as error:
        return None, error.faults[0].message


@blueprint.get("/designs/<int:design_id>/revisions/<int:number>", responses={200: Design})
def get_revision(path: models.RevisionPath) -> Response:
    """The document of one revision."""
    revision = store.get_revision(connection(), path.design_id, path.number)
    if revision is None:
        return not_found(f"revision {path.number} of design {path.design_id}")
    return json_of(parse_text(revision.document))


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
        copy = store.copy_design(connection(), path.design_id, body.name.strip(), AUTHOR, moment)
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


@blueprint.delete("/designs/<int:design_id>", responses={204: None, 409: Problem})
def delete_design(path: models.DesignPath) -> Response:
    """Delete an alternative with its revisions."""
    try:
        if not store.delete_design(connection(), path.design_id):
            return not_found(f"design {path.design_id}")
    except store.LastDesignError:
        detail = "It is the well's only design. Delete the well instead. Nothing was changed."
        return respond(Problem(title="The only design", status=409, detail=detail))
    return make_response("", 204)


@blueprint.get("/designs/<int:design_id>/comparison/<int:other_id>", responses={200: models.Comparison})
def compare_designs(path: models.PairPath) -> Response:
    """Two designs side by side."""
    found = [newest_of(path.design_id), newest_of(path.other_id)]
    for number, pair in zip((path.design_id, path.other_id), found, strict=True):
        if pair is None:
            return not_found(f"design {number}")
    (row_a, a), (row_b, b) = (pair for pair in found if pair is not None)
    in_a, in_b = evaluate(a, load()), evaluate(b, load())
    return json_of(
        models.Comparison(
            a=models.DesignItem(**row_a.__dict__),
            b=models.DesignItem(**row_b.__dict__),
            decisions=differences(a, b),
            side_by_side=side_by_side(in_a, in_b),
            evaluation_a=in_a,
            evaluation_b=in_b,
        )
    )
