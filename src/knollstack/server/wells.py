"""Wells, designs and revisions."""

from __future__ import annotations

import json

from flask import Response, make_response, request
from flask_openapi3 import APIBlueprint

from knollstack.catalogue import load
from knollstack.core.design import Design, empty
from knollstack.core.evaluate import evaluate
from knollstack.core.faults import parse, parse_text
from knollstack.formats import sheet, wellfile
from knollstack.server import models
from knollstack.server.database import connection, now
from knollstack.server.problems import Problem, Stale, not_found, respond
from knollstack.store import wells as store

AUTHOR = "me"
blueprint = APIBlueprint("wells", __name__, url_prefix="/api")


def _json(model: object, status: int = 200) -> Response:
    response = make_response(model.model_dump_json(), status)  # type: ignore[attr-defined]
    response.content_type = "application/json"
    return response


def _create(design: Design) -> Response:
    moment = now()
    design_id = store.create_well(connection(), design.name, wellfile.write(design), AUTHOR, moment)
    return _json(models.Saved(design_id=design_id, revision=1, saved_at=moment), 201)


@blueprint.get("/designs", responses={200: models.DesignList})
def list_designs() -> Response:
    """Every design of every well with its newest revision."""
    rows = store.list_designs(connection())
    return _json(models.DesignList(designs=[models.DesignItem(**row.__dict__) for row in rows]))


@blueprint.post("/wells", responses={201: models.Saved})
def create_well(body: models.DocumentBody) -> Response:
    """A new well from a document."""
    return _create(parse(body.document))


@blueprint.post("/wells/empty", responses={201: models.Saved})
def create_empty_well() -> Response:
    """A new well with nothing decided."""
    return _create(empty("New well"))


@blueprint.post("/wells/file", responses={201: models.Saved})
def import_well() -> Response:
    """A new well from the bytes of a well file."""
    return _create(parse_text(request.get_data()))


@blueprint.delete("/wells/<int:well_id>", responses={204: None})
def delete_well(path: models.WellPath) -> Response:
    """Delete a well with its designs and revisions."""
    if not store.delete_well(connection(), path.well_id):
        return not_found(f"well {path.well_id}")
    return make_response("", 204)


def _newest(design_id: int) -> tuple[store.DesignRow, Design] | None:
    row = store.find_design(connection(), design_id)
    revision = store.newest_revision(connection(), design_id)
    if row is None or revision is None:
        return None
    return row, parse_text(revision.document)


@blueprint.get("/designs/<int:design_id>", responses={200: models.DesignView})
def get_design(path: models.DesignPath) -> Response:
    """A design's newest revision."""
    found = _newest(path.design_id)
    if found is None:
        return not_found(f"design {path.design_id}")
    return _json(models.DesignView(item=models.DesignItem(**found[0].__dict__), document=found[1]))


@blueprint.put("/designs/<int:design_id>", responses={200: models.Saved, 409: Stale})
def save_design(path: models.DesignPath, body: models.SaveBody) -> Response:
    """Save the next revision; 409 with the newest one when the save is based on an older."""
    design = parse(body.document)
    if store.find_design(connection(), path.design_id) is None:
        return not_found(f"design {path.design_id}")
    try:
        revision = store.save_revision(
            connection(),
            path.design_id,
            body.based_on,
            design.name,
            wellfile.write(design),
            AUTHOR,
            now(),
            body.note,
        )
    except store.StaleSaveError as stale:
        return respond(
            Stale(
                title="The design was changed elsewhere",
                status=409,
                detail=f"Revision {stale.newest.number} was saved after revision {stale.based_on}. Both are kept.",
                newest_revision=stale.newest.number,
                newest_document=json.loads(stale.newest.document),
            )
        )
    return _json(models.Saved(design_id=path.design_id, revision=revision.number, saved_at=revision.saved_at))


@blueprint.get("/designs/<int:design_id>/revisions", responses={200: models.RevisionList})
def list_revisions(path: models.DesignPath) -> Response:
    """Every revision of a design, newest first, without the documents."""
    rows = store.list_revisions(connection(), path.design_id)
    if not rows:
        return not_found(f"design {path.design_id}")
    items = [
        models.RevisionItem(number=r.number, parent=r.parent, author=r.author, saved_at=r.saved_at, note=r.note)
        for r in rows
    ]
    return _json(models.RevisionList(revisions=items))


@blueprint.get("/designs/<int:design_id>/revisions/<int:number>", responses={200: Design})
def get_revision(path: models.RevisionPath) -> Response:
    """The document of one revision."""
    revision = store.get_revision(connection(), path.design_id, path.number)
    if revision is None:
        return not_found(f"revision {path.number} of design {path.design_id}")
    return _json(parse_text(revision.document))


def _attachment(content: bytes | str, kind: str, name: str) -> Response:
    response = make_response(content)
    response.content_type = kind
    safe = "".join(c if c.isascii() and (c.isalnum() or c in "-_. ") else "_" for c in name).strip() or "well"
    response.headers["Content-Disposition"] = f'attachment; filename="{safe}"'
    return response


@blueprint.get("/designs/<int:design_id>/file", responses={200: Design})
def export_design(path: models.DesignPath) -> Response:
    """The newest revision as a well file."""
    found = _newest(path.design_id)
    if found is None:
        return not_found(f"design {path.design_id}")
    return _attachment(wellfile.write(found[1]), "application/json; charset=utf-8", f"{found[1].name}.well.json")


@blueprint.get("/designs/<int:design_id>/sheet", responses={404: Problem})
def program_sheet(path: models.DesignPath, query: models.SheetQuery) -> Response:
    """The one-page program sheet of the newest revision as PDF."""
    found = _newest(path.design_id)
    if found is None:
        return not_found(f"design {path.design_id}")
    row, design = found
    pdf = sheet.write(design, evaluate(design, load()), query.units, row.revision, row.saved_at)
    return _attachment(pdf, "application/pdf", f"{design.name} program sheet.pdf")
