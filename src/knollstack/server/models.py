"""Bodies and paths of the API. A document is taken as it came, and read by the core's own reader."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field, SkipValidation

from knollstack.core.design import Design
from knollstack.core.units import QuantityUnits
from knollstack.core.working import Input, Output, WorkingStep

Document = SkipValidation[Design]


class DocumentBody(BaseModel):
    document: Document


class WorkingBody(BaseModel):
    document: Document
    key: Annotated[str, Field(max_length=200)]


class SaveBody(BaseModel):
    based_on: Annotated[int, Field(strict=True, ge=1)]
    document: Document
    note: Annotated[str, Field(max_length=2_000)] = ""


class WellPath(BaseModel):
    well_id: int


class DesignPath(BaseModel):
    design_id: int


class RevisionPath(BaseModel):
    design_id: int
    number: int


class SheetQuery(BaseModel):
    units: Literal["field", "metric"] = "field"


class DesignItem(BaseModel):
    id: int
    well_id: int
    well_name: str
    name: str
    revision: int
    saved_at: str


class DesignList(BaseModel):
    designs: list[DesignItem]


class Saved(BaseModel):
    design_id: int
    revision: int
    saved_at: str


class RevisionItem(BaseModel):
    number: int
    parent: int | None
    author: str
    saved_at: str
    note: str


class RevisionList(BaseModel):
    revisions: list[RevisionItem]


class DesignView(BaseModel):
    item: DesignItem
    document: Design


class Working(BaseModel):
    key: str
    steps: list[WorkingStep]


class FormulaItem(BaseModel):
    name: str
    title: str
    symbolic: str
    unit: str
    source: str
    limits: list[str]
    inputs: list[Input]


class FormulaPath(BaseModel):
    name: Annotated[str, Field(max_length=100)]


class TrialBody(BaseModel):
    inputs: dict[str, float | list[float]]


class Trial(BaseModel):
    name: str
    outputs: list[Output]


class FormulaList(BaseModel):
    formulas: list[FormulaItem]


class UnitTable(BaseModel):
    quantities: dict[str, QuantityUnits]


class PipeItem(BaseModel):
    od_in: float
    weight_ppf: float
    wall_in: float
    drift_in: float
    grade: str
    connection: str


class CatalogueView(BaseModel):
    pipes: list[PipeItem]
    bits_in: list[float]
    sizes_in: list[float]
