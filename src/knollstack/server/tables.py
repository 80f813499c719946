"""Tables in and out: a pasted block read, a file previewed and taken, a table exported. Nothing here is saved."""

from __future__ import annotations

from typing import Annotated

from flask import Response, g
from flask_openapi3 import APIBlueprint
from pydantic import Base64Bytes, BaseModel, Field

from knollstack.core.document.design import Trajectory
from knollstack.formats.headers import Target
from knollstack.formats.importing import Mapping, Preview, Taken
from knollstack.server import models, tasks
from knollstack.server.ask import heavy, light
from knollstack.server.respond import as_json

blueprint = APIBlueprint("tables", __name__, url_prefix="/api")


class TargetPath(BaseModel):
    target: Target


class PasteBody(BaseModel):
    text: Annotated[str, Field(max_length=4_000_000)]
    first: Annotated[str, Field(max_length=60, description="key of the column where the block begins")]
    units: models.ChosenUnits = models.ChosenUnits()


class PreviewBody(BaseModel):
    """A file by its name and its bytes, which the server decodes."""

    name: Annotated[str, Field(max_length=300)]
    data: Annotated[Base64Bytes, Field(description="the bytes of the file in base64")]


class TakeBody(PreviewBody):
    mapping: Mapping
    trajectory: Trajectory
    units: models.ChosenUnits = models.ChosenUnits()


@blueprint.post("/tables/<string:target>/paste", responses={200: models.Pasted})
def read_paste(path: TargetPath, body: PasteBody) -> Response:
    """A block from a spreadsheet as rows in core units; header names and units are understood."""
    return as_json(light(tasks.read_paste, path.target, body.text, body.first, body.units.set))


@blueprint.post("/tables/<string:target>/preview", responses={200: Preview})
def preview_import(path: TargetPath, body: PreviewBody) -> Response:
    """What a CSV, XLSX or LAS file holds and how it would be read."""
    g.imported = body.name
    return as_json(heavy(tasks.preview_import, body.name, body.data, path.target))


@blueprint.post("/tables/<string:target>/import", responses={200: Taken})
def take_import(path: TargetPath, body: TakeBody) -> Response:
    """The rows that a CSV, XLSX or LAS file gives under a mapping."""
    g.imported = body.name
    return as_json(
        heavy(tasks.take_import, body.name, body.data, path.target, body.mapping, body.trajectory, body.units.set)
    )
