"""What is taken away of a design's newest revision: the program sheet with its sign-off, and each string's papers."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field

from knollstack.core.base.units import UnitSet, plain
from knollstack.core.reading.read import parse_text
from knollstack.formats import sheet
from knollstack.server import models, tasks
from knollstack.server.ask import heavy
from knollstack.server.database import connection
from knollstack.server.problems import Problem, not_found
from knollstack.server.respond import attachment
from knollstack.server.sign_off import SignOff, sign_off_of
from knollstack.store.revisions import Revision, newest_revision
from knollstack.store.wells import find_design

MOST_CHANGES = 12


class StringPath(models.DesignPath):
    string: Annotated[int, Field(ge=0, le=20, description="index of the string, conductor first")]


blueprint = APIBlueprint("program_sheet", __name__, url_prefix="/api")


def _newest(design_id: int) -> Revision | None:
    """The newest revision of a design that is not in the bin."""
    return newest_revision(connection(), design_id) if find_design(connection(), design_id) else None


@blueprint.get("/designs/<int:design_id>/sheet", responses={404: Problem})
def program_sheet(path: models.DesignPath, query: models.UnitsQuery) -> Response:
    """The program sheet of the newest revision as PDF."""
    newest = _newest(path.design_id)
    if newest is None:
        return not_found(f"design {path.design_id}")
    design, units = parse_text(newest.document), query.unit_set
    signed = printed(sign_off_of(path.design_id, newest), units)
    pdf = heavy(tasks.write_sheet, design, units, newest.number, newest.saved_at, signed)
    return attachment(pdf, "application/pdf", f"{design.name} program sheet.pdf")


@blueprint.get("/designs/<int:design_id>/barriers.pdf", responses={404: Problem})
def barrier_pages(path: models.DesignPath, query: models.UnitsQuery) -> Response:
    """One page for each state of the well with both envelopes and their verification, of the newest revision, as PDF."""
    newest = _newest(path.design_id)
    if newest is None:
        return not_found(f"design {path.design_id}")
    design = parse_text(newest.document)
    pdf = heavy(tasks.write_barriers, design, query.unit_set, newest.number, newest.saved_at)
    if pdf is None:
        return not_found(f"any string in design {path.design_id}")
    return attachment(pdf, "application/pdf", f"{design.name} well barriers.pdf")


@dataclass(frozen=True)
class Paper:
    """One thing that is taken away of a string: what writes it, its title, and what is missing where there is none."""

    write: Callable[..., bytes | str | None]
    title: str
    missing: str
    pdf: bool
    """PDF pages carry revision and time; CSV is data alone."""


RACK = Paper(tasks.write_rack, "tally", "run", pdf=False)
TESTS = Paper(tasks.write_bop_tests, "BOP tests", "stack", pdf=False)
FLOOR = Paper(tasks.write_floor, "running list", "run", pdf=True)
JOB = Paper(tasks.write_job_sheet, "cement job", "cement job", pdf=True)


def _taken(paper: Paper, path: StringPath, units: UnitSet) -> Response:
    newest = _newest(path.design_id)
    if newest is None:
        return not_found(f"design {path.design_id}")
    design, dated = parse_text(newest.document), (newest.number, newest.saved_at) if paper.pdf else ()
    made = heavy(paper.write, design, path.string, units, *dated)
    if made is None:
        return not_found(f"{paper.missing} of string {path.string}")
    kind, ending = ("application/pdf", "pdf") if paper.pdf else ("text/csv; charset=utf-8", "csv")
    return attachment(made, kind, f"{design.name} {paper.title} {path.string + 1}.{ending}")


@blueprint.get("/designs/<int:design_id>/strings/<int:string>/tally.csv", responses={404: Problem})
def rack_list(path: StringPath, query: models.UnitsQuery) -> Response:
    """The tally of one string of the newest revision as CSV for the pipe rack."""
    return _taken(RACK, path, query.unit_set)


@blueprint.get("/designs/<int:design_id>/strings/<int:string>/bop-tests.csv", responses={404: Problem})
def bop_tests(path: StringPath, query: models.UnitsQuery) -> Response:
    """The test plan of the stack on one string of the newest revision as CSV."""
    return _taken(TESTS, path, query.unit_set)


@blueprint.get("/designs/<int:design_id>/strings/<int:string>/floor.pdf", responses={404: Problem})
def floor_list(path: StringPath, query: models.UnitsQuery) -> Response:
    """The running list of one string of the newest revision as PDF for the rig floor."""
    return _taken(FLOOR, path, query.unit_set)


@blueprint.get("/designs/<int:design_id>/strings/<int:string>/cement.pdf", responses={404: Problem})
def job_list(path: StringPath, query: models.UnitsQuery) -> Response:
    """The cement job of one string of the newest revision as PDF for the cement unit."""
    return _taken(JOB, path, query.unit_set)


def printed(stands: SignOff, units: UnitSet) -> sheet.Signed:
    """The sign-off in words: who signed, or that it is not approved and what changed since it was."""
    lines = [
        f"{s.kind.capitalize()} by {s.name} ({s.role}), {sheet.at(s.signed_at)}{f': {s.note}' if s.note else ''}."
        + ("" if s.same_results else " The program evaluates it otherwise today than when it was signed.")
        for s in stands.signatures
    ]
    if stands.state == "approved":
        by = next(s for s in stands.signatures if s.kind == "approved")
        return sheet.Signed(f"approved by {by.name}", (*lines, f"Document {stands.document_hash}."))
    lines.insert(0, "Not approved.")
    last = stands.last_approval
    if last is not None:
        told = [
            f"{c.subject} {plain(c.before, units)} → {plain(c.after, units)}" for c in stands.changes[:MOST_CHANGES]
        ]
        more = len(stands.changes) - len(told)
        lines.append(
            f"Revision {last.number} was approved by {last.name}, {sheet.at(last.signed_at)}. Changed since: "
            + ("; ".join(told) or "nothing in words")
            + (f"; and {more} more." if more > 0 else ".")
        )
    return sheet.Signed("not approved", tuple(lines))
