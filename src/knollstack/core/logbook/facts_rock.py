"""What the log tells of the rock: strength by tests and by losses, pore pressure by a shut-in kick, each with its provenance."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Iterator
from typing import Any

import numpy as np

from knollstack.core.document.design import Design, Point
from knollstack.core.document.log import LogEntry
from knollstack.core.ground.profiles import build_profile
from knollstack.core.logbook.facts import Fact
from knollstack.core.logbook.formulas import kicking_pore_emw
from knollstack.core.logbook.tests_of import tested
from knollstack.core.logbook.told import Told
from knollstack.core.path.trajectory import path_of

SAME_PLACE_FT = 1.0


def provenance(what: str, entry: LogEntry) -> str:
    return f"{what}, log entry {entry.number}, {entry.at}"


def test_facts(told: Told, design: Design) -> Iterator[Fact]:
    """Every test of the log in the ground; one that is planned, or typed, at the same depth gives way."""
    rows = [t.model_dump(mode="json") for t in design.ground.leak_off_tests]
    by: list[int] = []
    for entry in told.about("leak-off test"):
        if entry.string not in told.index:
            continue
        test = tested(design, entry, told.index[entry.string])
        if test.emw_ppg is None:
            continue
        what = "leak-off test" if test.kind == "leak-off" else "integrity test"
        made = {"tvd_ft": test.tvd_ft, "emw_ppg": test.emw_ppg, "kind": test.kind, "source": provenance(what, entry)}
        rows = [row for row in rows if abs(row["tvd_ft"] - test.tvd_ft) > SAME_PLACE_FT]
        rows.append(made)
        by.append(entry.number)
    if by:
        yield Fact("/ground/leak_off_tests", sorted(rows, key=lambda r: float(r["tvd_ft"])), tuple(by))


def _tvd(design: Design, entry: LogEntry) -> float:
    return path_of(design.trajectory).tvd(min(entry.md_ft or 0.0, design.trajectory.stations[-1].md_ft))


def _point(points: list[dict[str, Any]], tvd: float, emw: float, source: str) -> list[dict[str, Any]]:
    """A profile with one point in place of what stands at its depth."""
    depths = [p["tvd_ft"] for p in points]
    first, last = bisect_left(depths, tvd), bisect_right(depths, tvd)
    return [*points[:first], {"tvd_ft": tvd, "emw_ppg": emw, "source": source}, *points[last:]]


def kick_facts(told: Told, design: Design) -> Iterator[Fact]:
    """Pore pressure at the depth of a kick that was shut in: the mud with the drill pipe pressure on it."""
    points = [p.model_dump(mode="json") for p in design.ground.pore]
    by: list[int] = []
    for entry in told.about("kick"):
        if entry.drill_pipe_psi is None or entry.mud_ppg is None or len(points) < 2:
            continue
        tvd = _tvd(design, entry)
        if tvd <= 0:
            continue
        emw = float(kicking_pore_emw(entry.mud_ppg, entry.drill_pipe_psi, tvd))
        points = _point(points, tvd, emw, provenance("shut-in kick", entry))
        by.append(entry.number)
    if by:
        yield Fact("/ground/pore", points, tuple(by))


def losses_facts(told: Told, design: Design) -> Iterator[Fact]:
    """Rock that took mud is no stronger than the equivalent mud weight at which it did."""
    points = [p.model_dump(mode="json") for p in design.ground.fracture]
    by: list[int] = []
    for entry in told.about("losses"):
        if entry.emw_ppg is None or len(points) < 2:
            continue
        tvd = _tvd(design, entry)
        held = build_profile(tuple(Point(**p) for p in points), worse_is_high=False)
        known = float(held.at(np.array([tvd]))[0])
        if known <= entry.emw_ppg:
            continue
        points = _point(points, tvd, entry.emw_ppg, provenance("losses", entry))
        by.append(entry.number)
    if by:
        yield Fact("/ground/fracture", points, tuple(by))
