"""Answers that tell what the program knows: formulas, units, fields, terms, and the catalogue."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from knollstack.core.base.findings import Step
from knollstack.core.base.units import QuantityUnits
from knollstack.core.base.working import Input, Output
from knollstack.core.document.cementing import Dosage
from knollstack.core.document.described import Described
from knollstack.core.document.log import EntryKind


class FormulaItem(BaseModel):
    name: str
    title: str
    symbolic: str
    mathml: str
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


class StepItem(BaseModel):
    """A step of the work: its word, its title, and the places of the document that are worked on it."""

    step: Step
    title: str
    places: tuple[str, ...]


class LogKind(BaseModel):
    """A kind of entry of the log: its title, the keys that it needs, and those that it may have."""

    kind: EntryKind
    title: str
    needs: tuple[str, ...]
    may: tuple[str, ...]


class Reference(BaseModel):
    """What the document is made of, in words: its steps in order, every field by its place, and the terms of the trade."""

    steps: list[StepItem]
    fields: dict[str, Described]
    log_kinds: list[LogKind]
    terms: dict[str, str]


class PipeItem(BaseModel):
    od_in: float
    weight_ppf: float
    wall_in: float
    drift_in: float
    grade: str
    connection: str


class PipeRatings(PipeItem):
    """One pipe with its ratings, new and cold; None is not held."""

    kind: str
    special_drift_in: float | None
    coupling_od_in: float
    burst_psi: float
    coupling_psi: float | None
    leak_psi: float | None
    collapse_psi: float
    body_lbf: float
    joint_lbf: float | None
    source: str


class PipeTable(BaseModel):
    pipes: list[PipeRatings]


class PipeQuery(BaseModel):
    od_in: Annotated[float, Field(gt=0, le=60)]


class ConnectionItem(BaseModel):
    connection: str
    title: str
    source: str


class AdditiveItem(BaseModel):
    """A generic cement additive, with a usual amount."""

    name: str
    use: str
    amount: float
    per: Dosage
    sg: float
    source: str


class CatalogueView(BaseModel):
    pipes: list[PipeItem]
    additives: list[AdditiveItem]
    connections: list[ConnectionItem]
    bits_in: list[float]
    sizes_in: list[float]
