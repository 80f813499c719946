"""Leak-off and integrity tests of the log worked: the break of each, and the strength that it shows at the shoe."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from knollstack.core.base.working import headline
from knollstack.core.document.design import Design
from knollstack.core.document.log import LogEntry
from knollstack.core.logbook.formulas import tested_emw
from knollstack.core.logbook.leak_off import Break, break_of
from knollstack.core.path.trajectory import path_of


@dataclass(frozen=True)
class Tested:
    """A test of the log; `emw_ppg` is None where neither a break nor a pressure is known."""

    entry: LogEntry
    index: int
    """Of the string whose shoe it tests."""
    kind: Literal["leak-off", "integrity"]
    md_ft: float
    tvd_ft: float
    found: Break | None
    """By the points."""
    pressure_psi: float | None
    """In force: given by hand, else found."""
    emw_ppg: float | None

    @property
    def working(self) -> str:
        return f"logbook/test/{self.entry.number}"


def tested(design: Design, entry: LogEntry, index: int) -> Tested:
    """A test worked: at the shoe of its string, unless it gives a depth of its own."""
    md = design.strings[index].shoe_md_ft if entry.md_ft is None else entry.md_ft
    tvd = path_of(design.trajectory).tvd(min(md, design.trajectory.stations[-1].md_ft))
    found = break_of(entry.points)
    pressure = entry.leak_off_psi if entry.leak_off_psi is not None else found.pressure_psi if found else None
    emw = entry.emw_ppg
    if pressure is not None and entry.mud_ppg is not None and (emw is None or entry.points):
        with headline(f"logbook/test/{entry.number}"):
            emw = float(tested_emw(entry.mud_ppg, pressure, tvd))
    return Tested(entry, index, _kind(entry, found), md, tvd, found, pressure, emw)


def _kind(entry: LogEntry, found: Break | None) -> Literal["leak-off", "integrity"]:
    """As it was called, else by its points; without any a pressure at the break is a leak-off, an EMW alone shows no break."""
    if entry.test is not None:
        return entry.test
    if found is not None and entry.leak_off_psi is None:
        return found.kind
    return "leak-off" if entry.leak_off_psi is not None else "integrity"
