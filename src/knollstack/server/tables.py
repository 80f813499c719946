"""Tables in and out: a pasted block read, a file previewed and taken, a table exported. Nothing here is saved."""

from __future__ import annotations

from typing import Annotated, Any

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from knollstack.core.document.design import Trajectory
from knollstack.formats.cells import guess, read_rows, read_sheet, unclear
from knollstack.formats.importing import Mapping, Preview, Taken, preview, take
from knollstack.formats.targets import Target
from knollstack.server import models
from knollstack.server.respond import json_of

blueprint = APIBlueprint("tables", __name__, url_prefix="/api")


class TargetPath(BaseModel):
    target: Target


class PasteBody(BaseModel):
    text: Annotated[str, Field(max_length=4_000_000)]
    first: Annotated[str, Field(max_length=60, description="key of the column where the block begins")]
    units: models.ChosenUnits = models.ChosenUnits()


class Pasted(BaseModel):
    """Rows and the keys they fill; where headings or columns are not understood, those alone, and nothing is read."""

    rows: list[dict[str, Any]]
    keys: list[str]
    unclear: list[str]


class PreviewBody(BaseModel):
    name: Annotated[str, Field(max_length=300)]
    text: str


class TakeBody(PreviewBody):
    mapping: Mapping
    trajectory: Trajectory
    units: models.ChosenUnits = models.ChosenUnits()


@blueprint.post("/tables/<string:target>/paste", responses={200: Pasted})
def read_paste(path: TargetPath, body: PasteBody) -> Response:
    """A block from a spreadsheet as rows in core units; header names and units are understood."""
    sheet = read_sheet(body.text)
    width = max((len(row) for row in sheet.cells), default=0)
    mapping = [m for m in guess(path.target, sheet.header, body.first) if m.source < width]
    left = unclear(path.target, sheet, mapping)
    if left:
        return json_of(Pasted(rows=[], keys=[], unclear=left))
    rows = read_rows(path.target, sheet, mapping, body.units.set, whole=False)
    return json_of(Pasted(rows=rows, keys=[m.key for m in mapping], unclear=[]))


@blueprint.post("/tables/<string:target>/preview", responses={200: Preview})
def preview_import(path: TargetPath, body: PreviewBody) -> Response:
    """What a CSV, XLSX or LAS file holds and how it would be read."""
    return json_of(preview(body.name, body.text, path.target))


@blueprint.post("/tables/<string:target>/import", responses={200: Taken})
def take_import(path: TargetPath, body: TakeBody) -> Response:
    """The rows that a CSV, XLSX or LAS file gives under a mapping."""
    return json_of(take(body.name, body.text, path.target, body.mapping, body.trajectory, body.units.set))
