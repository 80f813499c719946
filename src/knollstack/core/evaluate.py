"""The pipeline: a design and a catalogue in, everything that follows from them out. One line a step."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from knollstack.core.catalogue import Catalogue
from knollstack.core.cement.job import fill_tops, judge_cement
from knollstack.core.constants import PSI_PER_PPG_FT
from knollstack.core.design import Design
from knollstack.core.findings import STEPS, Finding, State
from knollstack.core.formula import Step
from knollstack.core.ground import Profile
from knollstack.core.liners import judge_liners
from knollstack.core.notes import judge_ground
from knollstack.core.own_pipes import with_own
from knollstack.core.pipe.choose import choose_pipe
from knollstack.core.preventers import judge_preventers
from knollstack.core.program import Program, build_program
from knollstack.core.results import Evaluation, StepState
from knollstack.core.results_well import (
    Basis,
    GroundResult,
    PressurePoint,
    StringResult,
    TrackPoint,
    WindowPoint,
    ZoneBand,
)
from knollstack.core.sections import judge_mud
from knollstack.core.shoes import judge_depths
from knollstack.core.sizes import judge_sizes
from knollstack.core.well import Well
from knollstack.core.wellhead import judge_wellhead
from knollstack.core.working import recording
from knollstack.core.zones import zone_notes

SEVERITY_ORDER = {"stop": 0, "caution": 1, "unknown": 2, "note": 3}
Floats = NDArray[np.float64]
WINDOW_STEP_FT = 100.0
STEP_EDGE_FT = 0.01


def evaluate(design: Design, catalogue: Catalogue) -> Evaluation:
    """Everything that follows from a design: a pure function of its two arguments."""
    program = build_program(design, with_own(catalogue, design))
    judge_ground(program)
    fill_tops(program)
    pipe = choose_pipe(program)
    depths = judge_depths(program)
    sizes = judge_sizes(program)
    mud = judge_mud(program)
    cement = judge_cement(program)
    wellhead = judge_wellhead(program)
    preventers = judge_preventers(program, wellhead.surface_pressure_psi)
    findings = tuple(sorted(program.findings, key=lambda f: (SEVERITY_ORDER[f.severity], _order(f))))
    return Evaluation(
        basis=_basis(program.well),
        path=tuple(StepState(step=step, state=_state(program, step, findings)) for step in STEPS),
        strings=tuple(_strings(program)),
        ground=_ground(program.well),
        depths=depths,
        sizes=sizes,
        mud=mud,
        pipe=pipe,
        liners=judge_liners(program, pipe, cement),
        cement=cement,
        wellhead=wellhead,
        preventers=preventers,
        findings=findings,
        assumptions=tuple(program.assumptions),
    )


def workings(design: Design, catalogue: Catalogue) -> dict[str, list[Step]]:
    """The working of every headline number of a design's evaluation, by key."""
    with recording() as records:
        evaluate(design, catalogue)
    return records


def _order(finding: Finding) -> int:
    return STEPS.index(finding.step) if finding.step in STEPS else len(STEPS)


def _state(program: Program, step: str, findings: tuple[Finding, ...]) -> State:
    """Worst of a step's findings; blank without strings or ground, and never good on missing data."""
    if step == "ground":
        if not program.design.ground.pore and not program.design.ground.fracture and not program.design.ground.zones:
            return "blank"
    elif not program.strings:
        return "blank"
    severities = {f.severity for f in findings if f.step == step}
    if "stop" in severities:
        return "stop"
    if "unknown" in severities:
        return "incomplete"
    return "caution" if "caution" in severities else "good"


def _basis(well: Well) -> Basis:
    knots = well.path.knots_md_ft
    north, east = well.path.plan_at(knots)
    heat = well.temperatures
    return Basis(
        total_md_ft=well.path.total_md_ft,
        total_tvd_ft=well.path.total_tvd_ft,
        ground_md_ft=well.ground_md_ft,
        at_sea=well.site.setting != "land",
        temperature_tvd_ft=tuple(z for z, _ in heat),
        temperature_f=tuple(t for _, t in heat),
        axis_md_ft=tuple(well.path.knots_md_ft.tolist()),
        axis_tvd_ft=tuple(well.path.knots_tvd_ft.tolist()),
        axis_departure_ft=tuple(well.path.departure_at(knots).tolist()),
        axis_north_ft=tuple(north.tolist()),
        axis_east_ft=tuple(east.tolist()),
        section_azimuth_deg=well.path.section_azimuth_deg,
    )


def _strings(program: Program) -> list[StringResult]:
    tvd = program.well.path.tvd
    return [
        StringResult(
            name=program.design.strings[s.index].name if not s.proposed else "",
            role=s.role, run=s.run, proposed=s.proposed, top_md_ft=s.top_md_ft, shoe_md_ft=s.shoe_md_ft,
            shoe_tvd_ft=tvd(s.shoe_md_ft), previous_shoe_md_ft=s.previous_shoe_md_ft, bit_in=s.bit_in, od_in=s.od_in,
            id_in=s.pipe.id_in if s.pipe else None, tied_back=s.own.tie_back, cement_top_md_ft=s.cement_top_md_ft,
            mud_ppg=s.mud_ppg,
        )
        for s in program.strings
    ]  # fmt: skip


def _track(well: Well, profile: Profile) -> tuple[TrackPoint, ...]:
    """A profile's points on the well's axis, both sides of a step, cut at the well's deepest point."""
    deepest = float(well.path.knots_tvd_ft.max())
    points: list[TrackPoint] = []
    for z, above, below in zip(profile.tvd_ft, profile.above_ppg, profile.below_ppg, strict=True):
        if z > deepest:
            value = profile.one(deepest)
            if value is not None and points and points[-1].tvd_ft < deepest:
                points.append(TrackPoint(md_ft=well.path.md(deepest), tvd_ft=deepest, emw_ppg=value))
            break
        md = well.path.md(float(z))
        points.append(TrackPoint(md_ft=md, tvd_ft=float(z), emw_ppg=float(above)))
        if above != below:
            points.append(TrackPoint(md_ft=md, tvd_ft=float(z), emw_ppg=float(below)))
    return tuple(points)


@lru_cache(maxsize=16)
def _ground(well: Well) -> GroundResult:
    """What the ground is along the well: of the well alone, so it is not worked again while only strings change."""
    deepest = float(well.path.knots_tvd_ft.max())
    zones = [
        ZoneBand(
            index=i, name=z.name, top_md_ft=well.path.md(z.top_tvd_ft),
            base_md_ft=well.path.md(min(z.base_tvd_ft, deepest)), top_tvd_ft=z.top_tvd_ft,
            base_tvd_ft=min(z.base_tvd_ft, deepest), rock=z.rock, fluid=z.fluid, hazards=z.hazards,
        )
        for i, z in enumerate(well.ground.model.zones)
        if z.top_tvd_ft < deepest
    ]  # fmt: skip
    return GroundResult(
        zones=tuple(zones),
        pore=_track(well, well.ground.pore),
        fracture=_track(well, well.ground.fracture),
        stability=_track(well, well.ground.stability),
        window=_window(well),
        pressures=_pressures(well),
        notes=zone_notes(well),
    )


def _drawing_depths(well: Well) -> Floats:
    """A grid, and just either side of every point and boundary."""
    deepest = float(well.path.knots_tvd_ft.max())
    marks = well.window.depths_ft
    depths = np.concatenate(
        [np.arange(0, deepest, WINDOW_STEP_FT), marks - STEP_EDGE_FT, marks + STEP_EDGE_FT, [deepest]]
    )
    return np.unique(depths[(depths >= 0) & (depths <= deepest)])


def _pressures(well: Well) -> tuple[PressurePoint, ...]:
    """Pore and fracture as pressures for drawing."""
    depths = _drawing_depths(well)
    pore = PSI_PER_PPG_FT * well.ground.pore.at(depths) * depths
    fracture = PSI_PER_PPG_FT * well.ground.fracture.at(depths) * depths
    return tuple(
        PressurePoint(
            md_ft=float(md),
            pore_psi=float(p) if np.isfinite(p) else None,
            fracture_psi=float(f) if np.isfinite(f) else None,
        )
        for md, p, f in zip(well.path.md_at(depths), pore, fracture, strict=True)
        if np.isfinite(p) or np.isfinite(f)
    )


def _window(well: Well) -> tuple[WindowPoint, ...]:
    """The window's bounds for drawing: on a grid, and just either side of every point and boundary."""
    if not well.knows_pressures:
        return ()
    depths = _drawing_depths(well)
    low, high = well.window.lower_at(depths), well.window.upper_at(depths)
    known = np.isfinite(low) | np.isfinite(high)
    mds = well.path.md_at(depths)
    return tuple(
        WindowPoint(
            md_ft=float(md),
            lower_ppg=float(a) if np.isfinite(a) else None,
            upper_ppg=float(b) if np.isfinite(b) else None,
        )
        for md, a, b, ok in zip(mds, low, high, known, strict=True)
        if ok
    )
