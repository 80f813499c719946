"""Bodies and paths of the API. A document is taken as it came, and read by the core's own reader."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field, SkipValidation

from knollstack.core.base.findings import Step
from knollstack.core.base.units import QuantityUnits, UnitSet, table
from knollstack.core.base.working import Input, Output, WorkingCall
from knollstack.core.document.compare import Difference
from knollstack.core.document.described import Described
from knollstack.core.document.design import Design
from knollstack.core.evaluation.results import Evaluation
from knollstack.core.evaluation.side_by_side import SideBySide
from knollstack.core.evaluation.summary import Summary
from knollstack.formats.targets import Target

Document = SkipValidation[Design]


class DocumentBody(BaseModel):
    document: Document


class TwoDocuments(BaseModel):
    before: Document
    after: Document


class Differences(BaseModel):
    differences: list[Difference]


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


class ChosenUnits(BaseModel):
    """The units of a person, in a body."""

    system: Literal["field", "metric"] = "field"
    mixed: Annotated[dict[str, str], Field(max_length=40)] = {}

    @property
    def set(self) -> UnitSet:
        return UnitSet(self.system, {quantity: unit for quantity, unit in self.mixed.items() if quantity in table()})


class UnitsQuery(BaseModel):
    units: Literal["field", "metric"] = "field"
    mixed: Annotated[str, Field(max_length=500, description="quantities in other units: emw:SG,depth:m")] = ""

    @property
    def unit_set(self) -> UnitSet:
        pairs = (part.split(":", 1) for part in self.mixed.split(",") if ":" in part)
        return UnitSet(self.units, {quantity: unit for quantity, unit in pairs if quantity in table()})


class DesignItem(BaseModel):
    id: int
    well_id: int
    well_name: str
    name: str
    revision: int
    saved_at: str
    author: str
    summary: Summary | None = None


class DesignIds(BaseModel):
    designs: Annotated[list[int], Field(max_length=25)]


class Summaries(BaseModel):
    summaries: dict[int, Summary]


class DesignList(BaseModel):
    designs: list[DesignItem]


class Saved(BaseModel):
    design_id: int
    revision: int
    saved_at: str


class RevisionItem(BaseModel):
    """A revision, and what changed from the one before in words; `unreadable` says why it cannot be compared."""

    number: int
    author: str
    saved_at: str
    note: str
    changes: list[Difference]
    unreadable: str = ""


class RevisionList(BaseModel):
    """Revisions newest first; `more` when older ones are left."""

    revisions: list[RevisionItem]
    more: bool


class HistoryQuery(BaseModel):
    before: Annotated[int, Field(ge=1)] = 2_000_000_000


class TablePath(DesignPath):
    target: Target


class PairPath(BaseModel):
    design_id: int
    other_id: int


class NameBody(BaseModel):
    name: Annotated[str, Field(min_length=1, max_length=200, pattern=r"\S")]


class Comparison(BaseModel):
    """Two designs: what was decided otherwise, what follows otherwise, and both evaluations to draw."""

    a: DesignItem
    b: DesignItem
    decisions: list[Difference]
    side_by_side: SideBySide
    evaluation_a: Evaluation
    evaluation_b: Evaluation


class DesignView(BaseModel):
    item: DesignItem
    document: Design


class Working(BaseModel):
    key: str
    calls: list[WorkingCall]


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


class Reference(BaseModel):
    """What the document is made of, in words: its steps in order, every field by its place, and the terms of the trade."""

    steps: list[StepItem]
    fields: dict[str, Described]
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


class CatalogueView(BaseModel):
    pipes: list[PipeItem]
    connections: list[ConnectionItem]
    bits_in: list[float]
    sizes_in: list[float]
