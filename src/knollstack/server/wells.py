"""Wells and designs: listed, made, copied, read, and written out as files."""

from __future__ import annotations

import json

from flask import Response, request
from flask_openapi3 import APIBlueprint

from knollstack.core.document.design import Design, empty
from knollstack.core.reading.read import parse, parse_text
from knollstack.demo import documents
from knollstack.formats import wellfile
from knollstack.formats.export import write_table
from knollstack.server import models
from knollstack.server.database import connection, now
from knollstack.server.logbook import as_rows, log_of
from knollstack.server.person import author
from knollstack.server.problems import Problem, not_found
from knollstack.server.respond import attachment, json_of
from knollstack.server.summaries import known
from knollstack.store import wells as store
from knollstack.store.revisions import newest_revision

blueprint = APIBlueprint("wells", __name__, url_prefix="/api")


def _create(design: Design) -> Response:
    moment = now()
    text = wellfile.write(design.model_copy(update={"log": ()}))
    design_id = store.create_well(connection(), design.name, text, author(), moment, as_rows(design.log))
    return json_of(models.Saved(design_id=design_id, revision=1, saved_at=moment), 201)


@blueprint.get("/designs", responses={200: models.DesignList})
def list_designs() -> Response:
    """Every design of every well with its newest revision, and its summary where one is known."""
    rows, kept = store.list_designs(connection()), known(connection())
    items = [models.DesignItem(**row.__dict__, summary=kept.get(row.id)) for row in rows]
    return json_of(models.DesignList(designs=items))


@blueprint.post("/wells", responses={201: models.Saved})
def create_well(body: models.DocumentBody) -> Response:
    """A new well from a document."""
    return _create(parse(body.document))


@blueprint.post("/wells/empty", responses={201: models.Saved})
def create_empty_well() -> Response:
    """A new well with nothing decided."""
    return _create(empty("New well"))


@blueprint.post("/wells/demo", responses={201: models.DesignList})
def create_demo_wells() -> Response:
    """The demo wells, made up, to look around in."""
    for text in documents():
        _create(parse_text(text))
    rows = store.list_designs(connection())
    return json_of(models.DesignList(designs=[models.DesignItem(**row.__dict__) for row in rows]), 201)


@blueprint.post("/wells/file", responses={201: models.Saved})
def import_well() -> Response:
    """A new well from the bytes of a well file."""
    return _create(parse_text(request.get_data()))


@blueprint.post("/wells/<int:well_id>/copies", responses={201: models.Saved})
def copy_well(path: models.WellPath) -> Response:
    """A copy of a well: the newest revision of each of its designs, under another name."""
    moment = now()
    design = store.copy_well(connection(), path.well_id, _renamed, author(), moment)
    if design is None:
        return not_found(f"well {path.well_id}")
    return json_of(models.Saved(design_id=design, revision=1, saved_at=moment), 201)


def _renamed(name: str, document: str) -> str:
    """A document under the name of its copied well."""
    return json.dumps(json.loads(document) | {"name": name}, ensure_ascii=False, indent=1) + "\n"


def newest_of(design_id: int) -> tuple[store.DesignRow, Design] | None:
    row = store.find_design(connection(), design_id)
    revision = newest_revision(connection(), design_id)
    if row is None or revision is None:
        return None
    return row, parse_text(revision.document)


@blueprint.get("/designs/<int:design_id>", responses={200: models.DesignView})
def get_design(path: models.DesignPath) -> Response:
    """A design's newest revision."""
    found = newest_of(path.design_id)
    if found is None:
        return not_found(f"design {path.design_id}")
    row, document = found
    log = log_of(connection(), row.well_id)
    return json_of(models.DesignView(item=models.DesignItem(**row.__dict__), document=document, log=log))


@blueprint.get("/designs/<int:design_id>/file", responses={200: Design})
def export_design(path: models.DesignPath) -> Response:
    """The newest revision as a well file, with the log of its well."""
    found = newest_of(path.design_id)
    if found is None:
        return not_found(f"design {path.design_id}")
    whole = found[1].model_copy(update={"log": log_of(connection(), found[0].well_id)})
    return attachment(wellfile.write(whole), "application/json; charset=utf-8", f"{found[1].name}.well.json")


@blueprint.get("/designs/<int:design_id>/tables/<string:target>", responses={404: Problem})
def export_table(path: models.TablePath, query: models.UnitsQuery) -> Response:
    """One table of the newest revision as CSV, in the units asked for."""
    found = newest_of(path.design_id)
    if found is None:
        return not_found(f"design {path.design_id}")
    text = write_table(found[1], path.target, query.unit_set)
    name = f"{found[1].name} {path.target.replace('_', ' ')}.csv"
    return attachment(text, "text/csv; charset=utf-8", name)
