"""Mud: the planned weight of each section against its window, weighting up, the riser margin.

Sources: material balance (textbook mud engineering); hydrostatics.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.basics import circle_capacity, interval_volume
from knollstack.core.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.formula import Value, formula
from knollstack.core.program import Planned, Program
from knollstack.core.results import BoundResult, Finding, MudResult, MudRow, Remedy, Severity, Words
from knollstack.core.well import depth, emw
from knollstack.core.window import Bound
from knollstack.core.working import headline

BALANCE = "Material balance, textbook mud engineering; barite 35 ppg"


@formula(
    "m = V·42·ρₛ·(W₂ − W₁)/(ρₛ − W₂),  ΔV = m/(42·ρₛ)",
    "",
    BALANCE,
    ("old_mud_ppg > 0", "new_mud_ppg >= old_mud_ppg", "new_mud_ppg < solid_ppg", "volume_bbl >= 0"),
)
def weight_up(old_mud_ppg: Value, new_mud_ppg: Value, volume_bbl: Value, solid_ppg: Value = 35.0) -> dict[str, float]:
    """Weighting solid for raising the mud weight, and the volume it adds.

    Example: 100 bbl from 10 to 11 ppg takes 6,125 lb and gains 4.17 bbl.
    """
    mass = volume_bbl * 42 * solid_ppg * (new_mud_ppg - old_mud_ppg) / (solid_ppg - new_mud_ppg)
    return {"mass_lb": mass, "volume_gain_bbl": mass / (42 * solid_ppg)}


@formula(
    "ρ = (P·D − ρ_w·h_w)/(D − h_a − h_w)",
    "ppg",
    "Hydrostatics with the riser gone: mud below mudline plus sea water",
    ("pore_ppg > 0", "tvd_ft > 0", "air_gap_ft >= 0", "water_depth_ft >= 0", "sea_water_ppg > 0"),
)
def riser_margin_mud(
    pore_ppg: Value,
    tvd_ft: Value,
    air_gap_ft: Value,
    water_depth_ft: Value,
    sea_water_ppg: Value = SEA_WATER_PPG,
) -> Value:
    """Mud weight that still holds the pore pressure when the riser is gone."""
    return (pore_ppg * tvd_ft - sea_water_ppg * water_depth_ft) / (tvd_ft - air_gap_ft - water_depth_ft)


@formula("Δp = (ρ − P)·(12/231)·D", "psi", "Hydrostatics", ("mud_ppg > 0", "pore_ppg > 0", "tvd_ft >= 0"))
def overbalance(mud_ppg: Value, pore_ppg: Value, tvd_ft: Value) -> Value:
    """Mud pressure over pore pressure; negative is underbalance."""
    return (mud_ppg - pore_ppg) * PSI_PER_PPG_FT * tvd_ft


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
                )
            )  # fmt: skip
            continue
        bounds = well.window.bounds(well.path.tvd(string.previous_shoe_md_ft), well.path.tvd(string.shoe_md_ft))
        lower, upper = (_bound(program, b) for b in bounds)
        _mud_findings(program, string, lower, upper)
        over = _greatest_overbalance(program, string)
        hole = None
        if string.bit_in is not None:
            with headline(f"mud/{string.index}/hole_volume"):
                hole = interval_volume(circle_capacity(string.bit_in), open_ft)
        rows.append(
            MudRow(
                planned_ppg=string.planned_mud_ppg, lower=lower, upper=upper, open_hole_ft=open_ft,
                hole_volume_bbl=hole, overbalance_psi=over[0] if over else None,
                overbalance_md_ft=over[1] if over else None,
            )
        )  # fmt: skip
    return MudResult(strings=tuple(rows))
