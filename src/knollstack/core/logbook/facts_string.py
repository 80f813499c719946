"""What the log tells of a string that was run: its tally, its cement, its pressure test."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from knollstack.core.document.cementing import FluidKind, JobFluid
from knollstack.core.document.design import Design
from knollstack.core.document.log import LogEntry
from knollstack.core.logbook.facts import Fact
from knollstack.core.logbook.told import Told

PUMPED: tuple[tuple[FluidKind, str, str], ...] = (
    ("spacer", "spacer_bbl", ""),
    ("lead", "lead_bbl", "lead_ppg"),
    ("tail", "tail_bbl", "tail_ppg"),
    ("displacement", "displacement_bbl", ""),
)
"""Fluids of a job in the order pumped, and where an entry has their volume and density."""


def tally_facts(told: Told, design: Design) -> Iterator[Fact]:
    """The joints as they went in."""
    for index, entry in sorted(told.of_string("tally").items()):
        joints = [j.model_dump(mode="json") for j in entry.joints]
        yield Fact(f"/strings/{index}/running/joints", joints, (entry.number,))


def cement_facts(told: Told, design: Design) -> Iterator[Fact]:
    """What was pumped, and the top of cement where it was found."""
    for index, entry in sorted(told.cemented.items()):
        path, cement, by = f"/strings/{index}/cement", design.strings[index].cement, (entry.number,)
        if any(getattr(entry, volume) is not None for _, volume, _ in PUMPED):
            yield Fact(f"{path}/fluids", _fluids(cement.fluids, entry), by)
        if entry.top_md_ft is not None:
            yield Fact(f"{path}/top_md_ft", entry.top_md_ft, by)


def _fluids(planned: tuple[JobFluid, ...], entry: LogEntry) -> list[dict[str, Any]]:
    """The planned fluids with what was pumped of them; with none planned those that were pumped."""
    rows = [f.model_dump(mode="json") for f in planned]
    if not rows:
        kinds = [kind for kind, volume, _ in PUMPED if getattr(entry, volume) is not None]
        rows = [JobFluid(id=f"log-{kind}", kind=kind).model_dump(mode="json") for kind in kinds]
    for kind, volume, density in PUMPED:
        row = next((r for r in rows if r["kind"] == kind and r["stage"] == 1), None)
        if row is None or getattr(entry, volume) is None:
            continue
        row["volume_bbl"] = getattr(entry, volume)
        row["annulus_ft"] = row["contact_minutes"] = None
        if density and getattr(entry, density) is not None:
            row["density_ppg"] = getattr(entry, density)
    return rows


def casing_test_facts(told: Told, design: Design) -> Iterator[Fact]:
    """The pressure at which a string was tested and held."""
    found = {
        told.index[e.string]: e
        for e in told.about("test")
        if e.string in told.index and e.passed and e.element == "" and told.index[e.string] in told.landed
    }
    for index, entry in sorted(found.items()):
        yield Fact(f"/strings/{index}/test_psi", entry.pressure_psi, (entry.number,))
