"""What a worker process writes of a run sheet: pages, tables and a calendar. None where there is nothing to write."""

from __future__ import annotations

from knollstack.catalogue import load
from knollstack.core.base.units import UnitSet
from knollstack.core.document.design import Design
from knollstack.core.evaluation.evaluate import with_sheet
from knollstack.formats import calendar, materials, run_sheet
from knollstack.formats.sheet import at


def write_run_sheet(design: Design, design_id: int, units: UnitSet, revision: int, saved_at: str) -> bytes | None:
    evaluation, detail = with_sheet(design, load())
    if not detail.lines:
        return None
    stops = sum(f.severity == "stop" and f.step != "runsheet" for f in evaluation.findings)
    heading = f"Revision {revision}", f"saved {at(saved_at)}"
    return run_sheet.write_run_sheet(design.name, detail, evaluation.runsheet, stops, units, *heading)


def write_run_sheet_csv(design: Design, design_id: int, units: UnitSet, revision: int, saved_at: str) -> str | None:
    detail = with_sheet(design, load())[1]
    return run_sheet.write_run_sheet_csv(detail, units) if detail.lines else None


def write_materials_csv(design: Design, design_id: int, units: UnitSet, revision: int, saved_at: str) -> str | None:
    detail = with_sheet(design, load())[1]
    return materials.write_materials_csv(detail, units) if detail.materials else None


def write_materials_xlsx(design: Design, design_id: int, units: UnitSet, revision: int, saved_at: str) -> bytes | None:
    detail = with_sheet(design, load())[1]
    return materials.write_materials_xlsx(design.name, detail, units) if detail.materials else None


def write_calendar(design: Design, design_id: int, units: UnitSet, revision: int, saved_at: str) -> str | None:
    return calendar.write_calendar(design.name, design_id, with_sheet(design, load())[1], units, saved_at)
