"""The run sheet: asked for a document as it is edited, issued for a revision, and taken away as paper, table and calendar."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Annotated

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.document.design import Design
from knollstack.core.reading.read import parse_text
from knollstack.core.runsheet.results import SheetDetail
from knollstack.server import models, papers
from knollstack.server.ask import heavy, light
from knollstack.server.database import connection, now
from knollstack.server.person import author
from knollstack.server.problems import Problem, not_found, respond
from knollstack.server.respond import as_json, attachment, json_of
from knollstack.server.tasks import create_run_sheet as of_document
from knollstack.server.tasks import tell_sheet_changes as changes_of
from knollstack.store import issues as store
from knollstack.store.revisions import Revision, get_revision, newest_revision
from knollstack.store.wells import find_design

blueprint = APIBlueprint("run_sheets", __name__, url_prefix="/api")
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


class IssueItem(BaseModel):
    """An issue of the sheet, and the revision that it is of."""

    issue: int
    number: int
    author: str
    issued_at: str
    note: str


class IssueList(BaseModel):
    """The newest first."""

    issues: list[IssueItem]


class IssueBody(BaseModel):
    """The revision whose sheet is issued: another one meanwhile is not."""

    revision: Annotated[int, Field(strict=True, ge=1, le=2**53)]
    note: Annotated[str, Field(max_length=2_000)] = ""


def _newest(design_id: int) -> Revision | None:
    return newest_revision(connection(), design_id) if find_design(connection(), design_id) else None


def _list(design_id: int) -> Response:
    found = store.list_issues(connection(), design_id)
    return json_of(IssueList(issues=[IssueItem(**issue.__dict__) for issue in found]))


@blueprint.post("/run-sheets", responses={200: SheetDetail})
def create_run_sheet(body: models.DocumentBody) -> Response:
    """Every step of a document's run sheet in time, and its list of materials."""
    return as_json(light(of_document, body.document))


@blueprint.get("/designs/<int:design_id>/sheet-issues", responses={200: IssueList})
def list_issues(path: models.DesignPath) -> Response:
    """Issues of a design's run sheet."""
    return not_found(f"design {path.design_id}") if _newest(path.design_id) is None else _list(path.design_id)


@blueprint.post("/designs/<int:design_id>/sheet-issues", responses={200: IssueList, 409: Problem})
def issue_sheet(path: models.DesignPath, body: IssueBody) -> Response:
    """Issue the run sheet of the newest revision: what changes from then on is told."""
    if _newest(path.design_id) is None:
        return not_found(f"design {path.design_id}")
    try:
        store.issue_sheet(connection(), path.design_id, body.revision, author(), now(), body.note)
    except store.NotNewestError:
        detail = f"Revision {body.revision} is not the newest any more. Nothing was issued."
        return respond(Problem(title="Not issued", status=409, detail=detail))
    return _list(path.design_id)


@blueprint.post("/designs/<int:design_id>/sheet-changes", responses={200: models.SheetDifferences})
def tell_sheet_changes(path: models.DesignPath, body: models.DocumentBody) -> Response:
    """What differs in a document's run sheet from the last issue; nothing before there is one."""
    if _newest(path.design_id) is None:
        return not_found(f"design {path.design_id}")
    last = store.last_issue(connection(), path.design_id)
    issued = get_revision(connection(), path.design_id, last.number) if last is not None else None
    if issued is None:
        return json_of(models.SheetDifferences(lines=[]))
    return as_json(light(changes_of, json.loads(issued.document), body.document))


Writer = Callable[..., bytes | str | None]


def _taken(path: models.DesignPath, query: models.UnitsQuery, write: Writer, kind: str, title: str) -> Response:
    newest = _newest(path.design_id)
    if newest is None:
        return not_found(f"design {path.design_id}")
    design: Design = parse_text(newest.document)
    made = heavy(write, design, path.design_id, query.unit_set, newest.number, newest.saved_at)
    if made is None:
        return not_found(f"{title} of design {path.design_id}")
    return attachment(made, kind, f"{design.name} {title}")


@blueprint.get("/designs/<int:design_id>/run-sheet.pdf", responses={404: Problem})
def run_sheet_pages(path: models.DesignPath, query: models.UnitsQuery) -> Response:
    """The run sheet of the newest revision as PDF, with room to sign."""
    return _taken(path, query, papers.write_run_sheet, "application/pdf", "run sheet.pdf")


@blueprint.get("/designs/<int:design_id>/run-sheet.csv", responses={404: Problem})
def run_sheet_table(path: models.DesignPath, query: models.UnitsQuery) -> Response:
    """The run sheet of the newest revision as CSV."""
    return _taken(path, query, papers.write_run_sheet_csv, "text/csv; charset=utf-8", "run sheet.csv")


@blueprint.get("/designs/<int:design_id>/materials.csv", responses={404: Problem})
def materials_table(path: models.DesignPath, query: models.UnitsQuery) -> Response:
    """The list of materials of the newest revision as CSV."""
    return _taken(path, query, papers.write_materials_csv, "text/csv; charset=utf-8", "materials.csv")


@blueprint.get("/designs/<int:design_id>/materials.xlsx", responses={404: Problem})
def materials_book(path: models.DesignPath, query: models.UnitsQuery) -> Response:
    """The list of materials of the newest revision as a workbook."""
    return _taken(path, query, papers.write_materials_xlsx, XLSX, "materials.xlsx")


@blueprint.get("/designs/<int:design_id>/calendar.ics", responses={404: Problem})
def calendar(path: models.DesignPath, query: models.UnitsQuery) -> Response:
    """Orders and tests of the newest revision as iCalendar; there is none without a spud date."""
    return _taken(path, query, papers.write_calendar, "text/calendar; charset=utf-8", "calendar.ics")
