"""Import of a table from a CSV or LAS file: a preview first, and then rows of the document or one fault a cell."""

from __future__ import annotations

import re
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import BaseModel, Field, ValidationError

from knollstack.core.base.fields import Part
from knollstack.core.base.units import UnitSet
from knollstack.core.document.cementing import Additive, CaliperPoint, ExcessRow, JobFluid, JobStep, StrengthPoint
from knollstack.core.document.completion import LoggedPressure, Perforation, Survey, Verification, WellPlug
from knollstack.core.document.design import (
    CustomPipe,
    LeakOffTest,
    Point,
    Station,
    StockRow,
    TemperaturePoint,
    Trajectory,
    Zone,
)
from knollstack.core.document.drills import DrillPart, SlowPump
from knollstack.core.document.faults import Fault, FaultyDesign, schema_faults
from knollstack.core.document.log import NewEntry, PumpedPoint
from knollstack.core.document.plugs import BalancedPlug
from knollstack.core.document.policy import ClearanceRow, DrillString, KickMinimum, SizePair
from knollstack.core.document.preventers import ClassElements, StackElement
from knollstack.core.document.running import CentralizerRun, CentralizerType, TallyJoint
from knollstack.core.document.runsheet import Order, OwnStep, SectionRate
from knollstack.core.document.runsheet_policy import JointsRow, LeadRow, RateRow, SpreadRow
from knollstack.core.document.sea import DisconnectStep, RiserJoint, SoilPoint, Weather, WorkLimit
from knollstack.core.document.sea_policy import SetUp
from knollstack.core.document.strings import CustomLoad, MudStep, PipeSection, String
from knollstack.core.document.upgrades.ids import numbered
from knollstack.core.document.wellhead import WellheadPiece
from knollstack.core.ground.thinning import thin
from knollstack.core.path.trajectory import path_of
from knollstack.formats.cells import Mapped, Sheet, guess, read_rows, read_sheet, units_offered
from knollstack.formats.decoding import text_of
from knollstack.formats.delimited import Cells
from knollstack.formats.headers import Target
from knollstack.formats.las import is_las, read_las
from knollstack.formats.targets import PROFILES, TARGETS, TargetColumn
from knollstack.formats.xlsx import is_xlsx, read_xlsx

_MOMENT = re.compile(r"^(\d{4}-\d{2}-\d{2})[T ](\d{2}:\d{2})(:\d{2}(\.\d+)?)?Z?$")
SAMPLE_ROWS = 8
THIN_OVER = 200
USUAL_TOLERANCE_PPG = 0.05
MOST_TOLD = 5
LETTERS: dict[Target, str] = {
    "strings": "s",
    "zones": "z",
    "centralizer_runs": "c",
    "fluids": "f",
    "balanced_plugs": "b",
    "pieces": "p",
    "elements": "e",
    "evaluation": "y",
    "pressure_points": "m",
    "perforations": "f",
    "verified": "v",
    "suspension_plugs": "k",
    "abandonment_plugs": "k",
    "section_rates": "r",
    "own_steps": "x",
    "orders": "o",
}
"""Tables whose rows carry ids, and the letter that new ones begin with."""
_MODELS: dict[Target, type[Part]] = {
    "stations": Station,
    "zones": Zone,
    "pore": Point,
    "fracture": Point,
    "stability": Point,
    "overburden": Point,
    "leak_off_tests": LeakOffTest,
    "temperature": TemperaturePoint,
    "strings": String,
    "kick_minimums": KickMinimum,
    "drill_strings": DrillString,
    "pairs": SizePair,
    "clearances": ClearanceRow,
    "mud_steps": MudStep,
    "sections": PipeSection,
    "loads": CustomLoad,
    "pipes": CustomPipe,
    "stock": StockRow,
    "joints": TallyJoint,
    "centralizer_runs": CentralizerRun,
    "centralizers": CentralizerType,
    "fluids": JobFluid,
    "pump_steps": JobStep,
    "strength": StrengthPoint,
    "additives": Additive,
    "caliper": CaliperPoint,
    "excesses": ExcessRow,
    "balanced_plugs": BalancedPlug,
    "pieces": WellheadPiece,
    "elements": StackElement,
    "least_elements": ClassElements,
    "soil": SoilPoint,
    "riser_joints": RiserJoint,
    "weather": Weather,
    "work_limits": WorkLimit,
    "disconnect": DisconnectStep,
    "slow_pumps": SlowPump,
    "drill_parts": DrillPart,
    "evaluation": Survey,
    "pressure_points": LoggedPressure,
    "perforations": Perforation,
    "verified": Verification,
    "suspension_plugs": WellPlug,
    "abandonment_plugs": WellPlug,
    "section_rates": SectionRate,
    "own_steps": OwnStep,
    "orders": Order,
    "drilling_rates": RateRow,
    "casing_rates": JointsRow,
    "time_spread": SpreadRow,
    "lead_times": LeadRow,
    "set_up": SetUp,
    "log": NewEntry,
    "leak_off_points": PumpedPoint,
}


class Mapping(BaseModel):
    """How a source is read: which column is which, what the depths are, and how far a profile may be thinned."""

    columns: Annotated[list[Mapped], Field(max_length=40)]
    depth_is: Literal["tvd", "md"] = "tvd"
    tolerance_ppg: Annotated[float, Field(ge=0, le=2)] | None = None


class OfferedColumn(BaseModel):
    column: TargetColumn
    units: list[str]


class Preview(BaseModel):
    """What stands in a file and how it would be read, before anything changes."""

    target: Target
    kind: Literal["LAS", "CSV", "XLSX"]
    header: list[str]
    sample: Cells
    count: int
    notes: list[str]
    offered: list[OfferedColumn]
    mapping: Mapping


class Taken(BaseModel):
    """Rows of the document, and in words what was done to get them."""

    rows: list[dict[str, Any]]
    notes: list[str]


def _open(name: str, data: bytes) -> tuple[Sheet, list[str], Literal["LAS", "CSV", "XLSX"]]:
    if is_xlsx(name, data):
        return _filled(read_sheet(read_xlsx(data))), [], "XLSX"
    text, notes = text_of(data)
    if is_las(name, text):
        sheet, more = read_las(text)
        return sheet, [*notes, *more], "LAS"
    sheet = _filled(read_sheet(text))
    return sheet, [*notes, *(["a comma is read as the decimal sign"] if sheet.decimal_comma else [])], "CSV"


def _filled(sheet: Sheet) -> Sheet:
    if not sheet.cells:
        raise FaultyDesign([Fault(path="", value="no row of data", expected="a table with at least one row")])
    return sheet


def offered(target: Target) -> list[OfferedColumn]:
    return [OfferedColumn(column=c, units=units_offered(c.quantity) if c.quantity else []) for c in TARGETS[target]]


def preview(name: str, data: bytes, target: Target) -> Preview:
    """The columns of a file, the first rows, and a first guess at what is what."""
    sheet, notes, kind = _open(name, data)
    columns = guess(target, sheet.header)
    if kind == "LAS" and target in PROFILES and "emw_ppg" not in {m.key for m in columns}:
        columns.append(Mapped(key="emw_ppg", source=1, unit=""))
    width = max(len(row) for row in [sheet.header, *sheet.cells])
    columns = [m for m in columns if m.source < width]
    depth = next((m for m in columns if m.key == "tvd_ft"), None)
    along = kind == "LAS" and depth is not None and not sheet.header[depth.source].upper().startswith("TVD")
    thinned = target in PROFILES and (kind == "LAS" or len(sheet.cells) > THIN_OVER)
    header = sheet.header or [f"column {i + 1}" for i in range(width)]
    mapping = Mapping(
        columns=columns, depth_is="md" if along else "tvd", tolerance_ppg=USUAL_TOLERANCE_PPG if thinned else None
    )
    return Preview(
        target=target,
        kind=kind,
        header=header,
        sample=sheet.cells[:SAMPLE_ROWS],
        count=len(sheet.cells),
        notes=notes,
        offered=offered(target),
        mapping=mapping,
    )


def take(name: str, data: bytes, target: Target, mapping: Mapping, trajectory: Trajectory, units: UnitSet) -> Taken:
    """The rows that a file gives under a mapping; raises FaultyDesign, and then nothing is taken."""
    sheet, _, kind = _open(name, data)
    notes: list[str] = []
    if kind == "LAS":
        sheet, dropped = _without_nulls(sheet, mapping.columns)
        if dropped:
            notes.append(f"{dropped:,} samples without a value left out")
    rows = tidied(target, read_rows(target, sheet, mapping.columns, units))
    if target in PROFILES or target == "leak_off_tests":
        if mapping.depth_is == "md":
            _to_tvd(rows, trajectory)
            notes.append("measured depths were turned into TVD along the well's path")
        rows.sort(key=lambda row: float(row["tvd_ft"]))
    if target in PROFILES:
        rows, told = _without_twins(rows)
        notes += told
        if mapping.tolerance_ppg is not None and len(rows) > 2:
            rows, note = _thinned(rows, mapping.tolerance_ppg)
            notes.append(note)
    if target in LETTERS:
        rows = numbered(LETTERS[target], rows)
    check_rows(target, rows)
    return Taken(rows=rows, notes=notes)


def tidied(target: Target, rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Entries of a log get their numbers when they are written; their times stand to the minute."""
    if target != "log":
        return rows
    found = [{key: value for key, value in row.items() if key != "number"} for row in rows]
    return [row | {"at": _minute(row["at"])} if isinstance(row.get("at"), str) else row for row in found]


def _minute(text: str) -> str:
    match = _MOMENT.match(text.strip())
    return f"{match.group(1)} {match.group(2)}" if match else text


def _without_nulls(sheet: Sheet, columns: list[Mapped]) -> tuple[Sheet, int]:
    wanted = [m.source for m in columns]
    cells = [row for row in sheet.cells if all(row[i] for i in wanted if i < len(row))]
    return sheet.model_copy(update={"cells": cells}), len(sheet.cells) - len(cells)


def _to_tvd(rows: list[dict[str, Any]], trajectory: Trajectory) -> None:
    path = path_of(trajectory)
    for i, row in enumerate(rows):
        if not 0 <= row["tvd_ft"] <= path.total_md_ft:
            value, expected = f"{row['tvd_ft']:g} ft MD", f"a depth in the well (0 to {path.total_md_ft:g} ft)"
            raise FaultyDesign([Fault(path=f"/rows/{i}/tvd_ft", value=value, expected=expected)])
        row["tvd_ft"] = float(f"{path.tvd(row['tvd_ft']):.6f}")


def _without_twins(rows: list[dict[str, Any]]) -> tuple[list[dict[str, Any]], list[str]]:
    """At one depth the first and the last value stay (a step), and what is left out is told; repeats of a point go."""
    kept: list[dict[str, Any]] = []
    crowded: dict[float, int] = {}
    for row in rows:
        same = [k for k in kept[-2:] if k["tvd_ft"] == row["tvd_ft"]]
        if same and same[-1]["emw_ppg"] == row["emw_ppg"]:
            continue
        if len(same) == 2:
            kept.pop()
            crowded[row["tvd_ft"]] = crowded.get(row["tvd_ft"], 2) + 1
        kept.append(row)
    notes = [
        f"{count} values at {at:g} ft TVD: the first and the last are kept, as a step"
        for at, count in list(crowded.items())[:MOST_TOLD]
    ]
    more = len(crowded) - len(notes)
    return kept, [*notes, *([f"and so at {more} more depths"] if more > 0 else [])]


def _thinned(rows: list[dict[str, Any]], tolerance_ppg: float) -> tuple[list[dict[str, Any]], str]:
    depth, emw = np.array([r["tvd_ft"] for r in rows]), np.array([r["emw_ppg"] for r in rows])
    kept, greatest = thin(depth, emw, tolerance_ppg)
    note = f"thinned to {len(kept)} of {len(rows):,} points; no sample is off by more than {greatest:.3f} ppg"
    return [rows[int(i)] for i in kept], note


def check_rows(target: Target, rows: list[dict[str, Any]]) -> None:
    """Bounds of every value, a fault a cell; raises FaultyDesign."""
    faults: list[Fault] = []
    for i, row in enumerate(rows):
        try:
            _MODELS[target].model_validate(row)
        except ValidationError as error:
            faults += [f.model_copy(update={"path": f"/rows/{i}{f.path}"}) for f in schema_faults(error)]
    if faults:
        raise FaultyDesign(faults[:50])
