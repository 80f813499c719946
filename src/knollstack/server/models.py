"""Bodies and paths of the API. A document is taken as it came, and read by the core's own reader."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, SkipValidation, WithJsonSchema

from knollstack.core.base.units import UnitSet, table
from knollstack.core.base.working import WorkingCall
from knollstack.core.depths.results import KickDrawing
from knollstack.core.document.compare import Difference
from knollstack.core.document.design import Design
from knollstack.core.document.log import LogEntry
from knollstack.core.document.merge import Side
from knollstack.core.evaluation.results import Evaluation
from knollstack.core.evaluation.side_by_side import SideBySide
from knollstack.core.evaluation.summary import Summary
from knollstack.core.logbook.results import LogbookDetail
from knollstack.core.runsheet.results import LineChange, MaterialChange
from knollstack.formats.headers import Target
from knollstack.server.openapi import OF_DESIGN
from knollstack.store.bin import Kind

Document = Annotated[SkipValidation[Design], WithJsonSchema(OF_DESIGN)]
Held = Annotated[Design, WithJsonSchema(OF_DESIGN)]
"""Both described by a mark: to write the schema of the whole design into every body takes seconds at each start."""


class DocumentBody(BaseModel):
    document: Document


class FactTable(BaseModel):
    """Rows in force at a list of the document, by the log."""

    path: str
    rows: list[dict[str, Any]]


class FactTables(BaseModel):
    tables: list[FactTable]


class LogbookView(BaseModel):
    detail: LogbookDetail
    side_by_side: SideBySide


class TwoDocuments(BaseModel):
    before: Document
    after: Document


class Differences(BaseModel):
    differences: list[Difference]


class WorkingBody(BaseModel):
    document: Document
    key: Annotated[str, Field(max_length=200)]


class SaveBody(BaseModel):
    """A save names its well beside its design, and the revision that it is based on."""

    well_id: Annotated[int, Field(strict=True, ge=1, le=2**53)]
    based_on: Annotated[int, Field(strict=True, ge=1, le=2**53)]
    document: Document
    note: Annotated[str, Field(max_length=2_000)] = ""


RowId = Annotated[int, Field(ge=1, le=2**53)]
"""An id or a number of a revision: whole, and one that the store and a browser hold exactly."""


class WellPath(BaseModel):
    well_id: RowId


class DesignPath(BaseModel):
    design_id: RowId


class RevisionPath(BaseModel):
    design_id: RowId
    number: RowId


class DraftPath(BaseModel):
    design_id: RowId
    draft_id: RowId


class BinPath(BaseModel):
    kind: Kind
    row_id: RowId


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
    designs: Annotated[list[Annotated[int, Field(strict=True, ge=1, le=2**53)]], Field(max_length=25)]


class Summaries(BaseModel):
    summaries: dict[int, Summary]


class DesignList(BaseModel):
    designs: list[DesignItem]


class Saved(BaseModel):
    design_id: int
    revision: int
    saved_at: str


class RevisionItem(BaseModel):
    """A revision, what changed from the one before in words, and who signed it; `unreadable` says why it cannot be compared."""

    number: int
    author: str
    saved_at: str
    note: str
    changes: list[Difference]
    unreadable: str = ""
    signatures: list[str] = []


class DraftItem(BaseModel):
    """A document that came too late for a revision of its own."""

    id: int
    based_on: int
    author: str
    saved_at: str


class DraftList(BaseModel):
    drafts: list[DraftItem]


class DraftView(BaseModel):
    item: DraftItem
    document: Held


class DraftBody(BaseModel):
    well_id: Annotated[int, Field(strict=True, ge=1, le=2**53)]
    based_on: Annotated[int, Field(strict=True, ge=1, le=2**53)]
    document: Document


class KeptDraft(BaseModel):
    draft_id: int


class MergeBody(BaseModel):
    """My document, the revision that it is based on, and the side chosen at each place that both changed."""

    based_on: Annotated[int, Field(strict=True, ge=1, le=2**53)]
    theirs: Annotated[int, Field(strict=True, ge=1, le=2**53, description="number of the revision to merge with")]
    document: Document
    choices: Annotated[dict[str, Side], Field(max_length=5_000)] = {}


class BinItem(BaseModel):
    """A well or a design in the bin; `designs` go with it."""

    kind: Kind
    id: int
    well_name: str
    design_name: str
    designs: int
    deleted_at: str
    deleted_by: str


class BinList(BaseModel):
    items: list[BinItem]


class RevisionList(BaseModel):
    """Revisions newest first; `more` when older ones are left."""

    revisions: list[RevisionItem]
    more: bool


class HistoryQuery(BaseModel):
    before: RowId = 2**53


class TablePath(DesignPath):
    target: Target


class PairPath(BaseModel):
    design_id: RowId
    other_id: RowId


class NameBody(BaseModel):
    name: Annotated[str, Field(min_length=1, max_length=200, pattern=r"\S")]


class Comparison(BaseModel):
    """Two designs: what was decided otherwise, what follows otherwise, and both evaluations to draw."""

    a: DesignItem
    b: DesignItem
    decisions: list[Difference]
    side_by_side: SideBySide
    materials: list[MaterialChange]
    evaluation_a: Evaluation
    evaluation_b: Evaluation


class SheetDifferences(BaseModel):
    """Steps of a run sheet that are not as they were issued."""

    lines: list[LineChange]


class DesignView(BaseModel):
    """A design's newest revision, and the log of its well."""

    item: DesignItem
    document: Held
    log: tuple[LogEntry, ...]


class Working(BaseModel):
    key: str
    calls: list[WorkingCall]


class KickDrawings(BaseModel):
    """One a string, in their order."""

    strings: list[KickDrawing]


class Pasted(BaseModel):
    """Rows and the keys they fill; where headings or columns are not understood, those alone, and nothing is read."""

    rows: list[dict[str, Any]]
    keys: list[str]
    unclear: list[str]
