"""Each section's mud against its window: planned weight, overbalance, and the mud at rest and moving."""

from __future__ import annotations

import numpy as np

from knollstack.core.basics import circle_capacity, hydrostatic_pressure, interval_volume
from knollstack.core.circulation import Moving, moving
from knollstack.core.findings import Finding, Remedy, Severity, Words
from knollstack.core.mud import overbalance
from knollstack.core.mud_plan import riser, sweep_volume_bbl, volumes, weighting, zone_overbalance
from knollstack.core.program import Planned, Program
from knollstack.core.results_well import BoundResult, MudResult, MudRow, MudStepResult, RiserResult
from knollstack.core.riserless import column_emw, depths_of, is_riserless
from knollstack.core.well import depth, emw
from knollstack.core.window import Bound
from knollstack.core.working import headline


def _bound(program: Program, bound: Bound | None) -> BoundResult | None:
    if bound is None:
        return None
    return BoundResult(mud_ppg=bound.mud_ppg, md_ft=program.well.path.md(bound.tvd_ft), cause=bound.cause)


def _greatest_overbalance(program: Program, string: Planned) -> tuple[float, float] | None:
    """Greatest overbalance [psi] in the open hole and its depth [ft MD], at every profile point and the ends."""
    well, mud = program.well, string.mud_ppg
    if mud is None:
        return None
    top, bottom = well.path.tvd(string.previous_shoe_md_ft), well.path.tvd(string.shoe_md_ft)
    nodes = well.window.depths_ft
    depths = np.concatenate([[top], nodes[(nodes > top) & (nodes < bottom)], [bottom]])
    pore = well.ground.pore.at(depths)
    if np.any(np.isnan(pore)):
        return None
    k = int(np.argmax((mud - pore) * depths))
    with headline(f"mud/{string.index}/overbalance"):
        value = overbalance(mud, float(pore[k]), float(depths[k]))
    return value, well.path.md(float(depths[k]))


def _mud_findings(program: Program, string: Planned, lower: BoundResult | None, upper: BoundResult | None) -> None:
    place = f"{string.path}/mud_ppg"
    subject: Words = (*string.words, " hole, mud")

    def add(severity: Severity, message: Words, mud: float | None = None) -> None:
        remedies: tuple[Remedy, ...] = ()
        if mud is not None:
            remedies = (Remedy(label=("Drill with ", emw(mud)), changes=program.change(string, "mud_ppg", mud)),)
        program.findings.append(
            Finding(
                severity=severity,
                step="mud",
                place=place,
                subject=subject,
                message=message,
                remedies=remedies,
            )
        )

    if lower is None or upper is None:
        add("unknown", ("The mud window is unknown: pore or fracture is not given over the whole open hole.",))
        return
    if lower.mud_ppg > upper.mud_ppg + 1e-9:
        add("stop", (
            "No one mud drills this section: ", emw(lower.mud_ppg), f" is asked by {lower.cause} at ", depth(lower.md_ft),
            " and ", emw(upper.mud_ppg), f" is all that {upper.cause} at ", depth(upper.md_ft), " allows.",
        ))  # fmt: skip
        return
    mud, planned = string.mud_ppg, string.planned_mud_ppg
    if mud is None:
        add("unknown", ("No mud weight is known for this section.",))
    elif mud < lower.mud_ppg - 1e-9:
        add("stop", (emw(mud), f" is less than {lower.cause} at ", depth(lower.md_ft), " asks, ", emw(lower.mud_ppg), "."),
            planned)  # fmt: skip
    elif mud > upper.mud_ppg + 1e-9:
        add("stop", (emw(mud), f" is more than {upper.cause} at ", depth(upper.md_ft), " allows, ", emw(upper.mud_ppg), "."),
            planned)  # fmt: skip


def _say(program: Program, string: Planned, severity: Severity, message: Words, working: str | None = None) -> None:
    subject: Words = (*string.words, " hole, mud")
    program.findings.append(
        Finding(
            severity=severity,
            step="mud",
            place=f"{string.path}/mud_ppg",
            subject=subject,
            message=message,
            working=working,
        )
    )


def _moving_findings(program: Program, string: Planned, upper: BoundResult | None, moved: Moving | None) -> None:
    """ECD and surge against the rock, swab against the pore pressure, all at the section's bottom."""
    well = program.well
    if moved is None:
        return
    bottom = well.path.tvd(string.shoe_md_ft)
    fracture, pore = well.ground.fracture.one(bottom), well.ground.pore.one(bottom)
    for value, what, key in (
        (moved.ecd_bottom_ppg, "Circulating", "ecd"),
        (moved.surge_bottom_ppg, "Tripping in", "surge"),
    ):
        if value is not None and upper is not None and fracture is not None and value > fracture:
            _say(program, string, "stop", (f"{what}, the mud stands as ", emw(value), " at ", depth(string.shoe_md_ft),
                 "; the rock breaks at ", emw(fracture), "."), f"mud/{string.index}/{key}")  # fmt: skip
    if pore is not None and moved.swab_bottom_ppg < pore:
        _say(program, string, "caution", ("Tripping out at ", f"{well.policy.trip_speed_ft_min:g} ft/min",
             " swabs the mud to ", emw(moved.swab_bottom_ppg), "; pore pressure is ", emw(pore), ". Trip slower or pump out."),
             f"mud/{string.index}/surge")  # fmt: skip


def _riser_finding(program: Program, string: Planned, found: RiserResult | None) -> None:
    if found is None or found.held:
        return
    limit = program.well.policy.riser_mud_limit_ppg
    window = program.well.window.bounds(
        program.well.path.tvd(string.previous_shoe_md_ft), program.well.path.tvd(string.shoe_md_ft)
    )[1]
    key = f"mud/{string.index}/riser"
    fits = window is not None and found.needed_ppg <= window.mud_ppg
    if found.possible and fits:
        message: Words = ("With the riser gone ", emw(found.needed_ppg), " is needed to hold the pore pressure at ",
                          depth(found.at_md_ft), "; ", emw(found.margin_ppg), " more than is carried.")  # fmt: skip
    else:
        why: Words = ("more than the window allows",) if not fits else ("more than the practical limit of ", emw(limit))
        message = ("The riser margin cannot be held: ", emw(found.needed_ppg), " would be needed at ", depth(found.at_md_ft),
                   ", ", *why, ". Other barriers must stand in before the riser is disconnected.")  # fmt: skip
    _say(program, string, "caution", message, key)


def _riserless_findings(program: Program, string: Planned) -> None:
    """Returns to the sea floor: sea water and mud together must hold the pore pressure and not break the rock."""
    well = program.well
    if string.mud_ppg is None:
        _say(program, string, "unknown", ("No mud is known to stand in this riserless hole.",))
        return
    depths = depths_of(well, well.path.tvd(string.previous_shoe_md_ft), well.path.tvd(string.shoe_md_ft))
    column, pore = column_emw(well, string.mud_ppg, depths), well.ground.pore.at(depths)
    fracture = well.ground.fracture.at(depths)
    if np.any(np.isnan(pore)) or np.any(np.isnan(fracture)):
        _say(program, string, "unknown", ("Pore or fracture is not given over the whole riserless hole.",))
        return
    under, over = pore - column, column - fracture
    for excess, rock, limit in ((under, "pore pressure is", pore), (over, "the rock breaks at", fracture)):
        k = int(np.argmax(excess))
        if excess[k] > 1e-9:
            at = well.path.md(float(depths[k]))
            _say(program, string, "stop", ("With returns to the sea floor the column is ", emw(float(column[k])), " at ",
                 depth(at), f"; {rock} ", emw(float(limit[k])), "."))  # fmt: skip


def _riserless_row(program: Program, string: Planned, open_ft: float) -> MudRow:
    hole = None if string.bit_in is None else interval_volume(circle_capacity(string.bit_in), open_ft)
    return MudRow(
        planned_ppg=string.planned_mud_ppg, lower=None, upper=None, open_hole_ft=open_ft, hole_volume_bbl=hole,
        overbalance_psi=None, overbalance_md_ft=None, riserless=True, sweep_bbl=sweep_volume_bbl(program, string),
    )  # fmt: skip


def _psi(program: Program, string: Planned, md_ft: float) -> float | None:
    """Pressure of the section's mud at a depth."""
    if string.mud_ppg is None:
        return None
    return float(hydrostatic_pressure(string.mud_ppg, program.well.path.tvd(md_ft)))


def _steps(program: Program, string: Planned) -> tuple[MudStepResult, ...]:
    """The weights of a section drilled in steps, the last its own; each judged over the hole then open."""
    if not string.own.mud_steps or string.mud_ppg is None:
        return ()
    well, rows, start = program.well, [], string.previous_shoe_md_ft
    for to, mud in (*((s.to_md_ft, s.mud_ppg) for s in string.own.mud_steps), (string.shoe_md_ft, string.mud_ppg)):
        lower, upper = well.window.bounds(well.path.tvd(string.previous_shoe_md_ft), well.path.tvd(to))
        low, high = lower.mud_ppg if lower else None, upper.mud_ppg if upper else None
        rows.append(MudStepResult(from_md_ft=start, to_md_ft=to, mud_ppg=mud, lower_ppg=low, upper_ppg=high))
        start = to
    for row in rows[:-1]:  # the last is the section's own weight, judged already
        if row.lower_ppg is None or row.upper_ppg is None:
            continue
        if not row.lower_ppg - 1e-9 <= row.mud_ppg <= row.upper_ppg + 1e-9:
            _say(program, string, "stop", ("Down to ", depth(row.to_md_ft), " with ", emw(row.mud_ppg), ": the window is ",
                 emw(row.lower_ppg), " to ", emw(row.upper_ppg), "."))  # fmt: skip
    return tuple(rows)


def _moving_values(moved: Moving | None) -> dict[str, float | None]:
    if moved is None:
        return {}
    return {
        "ecd_shoe_ppg": moved.ecd_shoe_ppg,
        "ecd_bottom_ppg": moved.ecd_bottom_ppg,
        "surge_ppg": moved.surge_bottom_ppg,
        "swab_ppg": moved.swab_bottom_ppg,
    }


def judge_mud(program: Program) -> MudResult:
    """Each section's window, planned weight and overbalance."""
    rows = []
    well = program.well
    for string in program.strings:
        open_ft = string.shoe_md_ft - string.previous_shoe_md_ft
        if not string.drilled or string.role == "conductor":
            rows.append(
                MudRow(
                    planned_ppg=string.planned_mud_ppg, lower=None, upper=None, open_hole_ft=open_ft,
                    hole_volume_bbl=None, overbalance_psi=None, overbalance_md_ft=None,
                    sweep_bbl=sweep_volume_bbl(program, string),
                )
            )  # fmt: skip
            continue
        if is_riserless(well, string.index):
            _riserless_findings(program, string)
            rows.append(_riserless_row(program, string, open_ft))
            continue
        bounds = well.window.bounds(well.path.tvd(string.previous_shoe_md_ft), well.path.tvd(string.shoe_md_ft))
        lower, upper = (_bound(program, b) for b in bounds)
        _mud_findings(program, string, lower, upper)
        over = _greatest_overbalance(program, string)
        in_all, moved, no_riser = volumes(program, string), moving(program, string), riser(program, string)
        _moving_findings(program, string, upper, moved)
        _riser_finding(program, string, no_riser)
        hole = None
        if string.bit_in is not None:
            with headline(f"mud/{string.index}/hole_volume"):
                hole = interval_volume(circle_capacity(string.bit_in), open_ft)
        rows.append(
            MudRow(
                planned_ppg=string.planned_mud_ppg, lower=lower, upper=upper, open_hole_ft=open_ft,
                hole_volume_bbl=hole, overbalance_psi=over[0] if over else None,
                overbalance_md_ft=over[1] if over else None, top_psi=_psi(program, string, string.previous_shoe_md_ft),
                bottom_psi=_psi(program, string, string.shoe_md_ft), zones=zone_overbalance(program, string),
                volumes=in_all, weight_up=weighting(program, string, in_all), riser=no_riser,
                sweep_bbl=sweep_volume_bbl(program, string), steps=_steps(program, string), **_moving_values(moved),
            )
        )  # fmt: skip
    return MudResult(strings=tuple(rows))
