"""The log of a well over HTTP: entries appended, read back, exported; what follows from it for a document."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from typing import Annotated

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field, TypeAdapter

from knollstack.core.document.design import Design
from knollstack.core.document.log import MOST_ENTRIES, LogEntry, NewEntry
from knollstack.core.logbook.writing import written
from knollstack.core.reading.read import parse_text
from knollstack.formats.export import write_table
from knollstack.server import models, tasks
from knollstack.server.accounts import account
from knollstack.server.ask import heavy, light
from knollstack.server.database import connection, now
from knollstack.server.person import author
from knollstack.server.problems import Problem, not_found
from knollstack.server.respond import as_json, attachment, json_of
from knollstack.store.log import LogRow, append_log, list_log
from knollstack.store.revisions import newest_revision
from knollstack.store.wells import DesignRow, find_design

blueprint = APIBlueprint("logbook", __name__, url_prefix="/api")
_ENTRIES = TypeAdapter(tuple[LogEntry, ...])


class LogView(BaseModel):
    """Entries of a well's log in the order written."""

    entries: tuple[LogEntry, ...]


class NewEntries(BaseModel):
    """Written together, or none of them."""

    entries: Annotated[list[NewEntry], Field(min_length=1, max_length=MOST_ENTRIES)]


def log_of(held: sqlite3.Connection, well_id: int) -> tuple[LogEntry, ...]:
    return read_log(list_log(held, well_id))


def read_log(rows: Sequence[LogRow]) -> tuple[LogEntry, ...]:
    return _ENTRIES.validate_json(f"[{','.join(row.content for row in rows)}]")


def as_rows(entries: Sequence[LogEntry]) -> list[LogRow]:
    """Entries as the store keeps them."""
    return [LogRow(e.number, e.corrects, json.dumps(e.model_dump(mode="json"), ensure_ascii=False)) for e in entries]


def _newest(design_id: int) -> tuple[DesignRow, Design] | None:
    row, revision = find_design(connection(), design_id), newest_revision(connection(), design_id)
    return None if row is None or revision is None else (row, parse_text(revision.document))


@blueprint.get("/designs/<int:design_id>/log", responses={200: LogView})
def list_entries(path: models.DesignPath) -> Response:
    """The log of a design's well."""
    row = find_design(connection(), path.design_id)
    if row is None:
        return not_found(f"design {path.design_id}")
    return json_of(LogView(entries=log_of(connection(), row.well_id)))


@blueprint.post("/designs/<int:design_id>/log", responses={201: LogView})
def write_entries(path: models.DesignPath, body: NewEntries) -> Response:
    """Append to the log: all entries, or with a fault in one of them none. A correction names what it corrects."""
    found = _newest(path.design_id)
    if found is None:
        return not_found(f"design {path.design_id}")
    row, design = found
    # with accounts in force nobody writes in another's name
    new = [e.model_copy(update={"author": ""}) for e in body.entries] if account() is not None else body.entries
    made: list[LogEntry] = []

    def make(rows: list[LogRow]) -> list[LogRow]:
        made[:] = written(read_log(rows), new, design, author(), now())
        return as_rows(made)

    append_log(connection(), row.well_id, make)
    return json_of(LogView(entries=tuple(made)), 201)


@blueprint.get("/designs/<int:design_id>/log.json", responses={404: Problem})
def export_log(path: models.DesignPath) -> Response:
    """The log as a JSON list of entries."""
    row = find_design(connection(), path.design_id)
    if row is None:
        return not_found(f"design {path.design_id}")
    entries = [e.model_dump(mode="json") for e in log_of(connection(), row.well_id)]
    text = json.dumps(entries, ensure_ascii=False, indent=1) + "\n"
    return attachment(text, "application/json; charset=utf-8", f"{row.well_name} log.json")


@blueprint.get("/designs/<int:design_id>/log.csv", responses={404: Problem})
def export_log_table(path: models.DesignPath, query: models.UnitsQuery) -> Response:
    """The log as CSV, in the units asked for; tables inside an entry (points, joints) stand in the JSON."""
    found = _newest(path.design_id)
    if found is None:
        return not_found(f"design {path.design_id}")
    row, design = found
    whole = design.model_copy(update={"log": log_of(connection(), row.well_id)})
    return attachment(write_table(whole, "log", query.unit_set), "text/csv; charset=utf-8", f"{row.well_name} log.csv")


@blueprint.post("/fact-tables", responses={200: models.FactTables})
def tell_fact_tables(body: models.DocumentBody) -> Response:
    """Of a document with its log: the rows of every list that is as logged, and not as planned."""
    return as_json(light(tasks.tell_fact_tables, body.document))


@blueprint.post("/logbooks", responses={200: models.LogbookView})
def create_logbook(body: models.DocumentBody) -> Response:
    """Of a document with its log: what is still free, the plan beside the well as drilled, and results that differ."""
    return as_json(heavy(tasks.create_logbook, body.document))
