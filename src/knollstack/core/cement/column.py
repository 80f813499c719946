"""The cement column at the end of displacement against the rock: where it is nearest to breaking it, and what mends it."""

from __future__ import annotations

import math
from bisect import bisect_left
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from knollstack.core.basics import equivalent_mud_weight, hydrostatic_pressure
from knollstack.core.cement.slurry import bentonite_water, slurry
from knollstack.core.constants import SEA_WATER_PPG
from knollstack.core.findings import Assumption, Change, Finding, Remedy, Words
from knollstack.core.formula import Value
from knollstack.core.program import Planned, Program
from knollstack.core.well import depth, emw

TOP_STEP_FT = 10.0
BENTONITE_PERCENTS = (0.0, 4.0, 8.0, 12.0, 16.0)
Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Column:
    """Mud over slurry in the annulus at the end of displacement; over the mud the sea where there is no riser."""

    mud_ppg: float
    slurry_ppg: float
    top_tvd_ft: float
    mudline_tvd_ft: float = 0.0
    water_depth_ft: float = 0.0

    def psi(self, tvd_ft: Value) -> Value:
        mud_ft = np.maximum(0.0, np.minimum(tvd_ft, self.top_tvd_ft) - self.mudline_tvd_ft)
        above = hydrostatic_pressure(self.mud_ppg, mud_ft)
        if self.water_depth_ft:
            above = above + hydrostatic_pressure(SEA_WATER_PPG, self.water_depth_ft)
        return above + hydrostatic_pressure(self.slurry_ppg, np.maximum(0.0, tvd_ft - self.top_tvd_ft))

    def emw_ppg(self, tvd_ft: Value) -> Value:
        return equivalent_mud_weight(self.psi(tvd_ft), tvd_ft)


def _open_depths(program: Program, string: Planned, cement_top_tvd: float) -> Floats:
    """TVDs in the open hole at which the column is compared with fracture."""
    well = program.well
    top, bottom = well.path.tvd(string.previous_shoe_md_ft), well.path.tvd(string.shoe_md_ft)
    marks = np.append(well.window.depths_ft, cement_top_tvd)
    return np.unique(np.concatenate([[top], marks[(marks > top) & (marks < bottom)], [bottom]]))


def weakest(program: Program, string: Planned, column: Column) -> tuple[float, float] | None:
    """Depth [ft TVD] where column less fracture pressure is greatest, and the fracture there; None where unknown."""
    depths = _open_depths(program, string, column.top_tvd_ft)
    fracture = program.well.ground.fracture.at(depths)
    if np.any(np.isnan(fracture)):
        return None
    k = int(np.argmax(np.asarray(column.emw_ppg(depths)) - fracture))
    return float(depths[k]), float(fracture[k])


def _holds(program: Program, string: Planned, column: Column) -> bool:
    """The rock of the open hole is known to stand the column."""
    worst = weakest(program, string, column)
    return worst is not None and column.emw_ppg(worst[0]) <= worst[1] + 1e-9


def _standing_top(program: Program, string: Planned, column: Column) -> float | None:
    """The highest top of cement [ft MD, in tens] at which the rock stands the column; None when none does.

    A deeper top never raises the column, so the tens are searched by halving.
    """
    path = program.well.path
    tops = np.arange(
        math.ceil((string.cement_top_md_ft or 0.0) / TOP_STEP_FT) * TOP_STEP_FT,
        string.shoe_md_ft,
        TOP_STEP_FT,
    )

    def stands(k: int) -> bool:
        return _holds(program, string, replace(column, top_tvd_ft=path.tvd(float(tops[k]))))

    if not len(tops) or not stands(len(tops) - 1):
        return None
    return float(tops[bisect_left(range(len(tops)), True, key=stands)])


def _recipes(program: Program) -> list[tuple[float, float]]:
    """Neat and bentonite slurries, heaviest first: (bentonite %, water gal/sk)."""
    neat = program.well.policy.slurry_water_gal_sk
    return [(b, bentonite_water(neat, b)) for b in BENTONITE_PERCENTS]


def _lighter(program: Program, string: Planned, column: Column) -> tuple[float, float] | None:
    """The heaviest recipe whose column the rock stands at the top of cement in force."""
    for bentonite, water in _recipes(program):
        density = slurry(water, bentonite_percent=bentonite)["density_ppg"]
        if _holds(program, string, replace(column, slurry_ppg=density)):
            return bentonite, water
    return None


def _breakdown_remedies(program: Program, string: Planned, column: Column) -> list[Remedy]:
    remedies = []
    recipe = _lighter(program, string, column)
    if recipe is not None:
        bentonite, water = recipe
        density = slurry(water, bentonite_percent=bentonite)["density_ppg"]
        label: Words = ("Use ", emw(density), f" slurry: {bentonite:g} % bentonite")
        changes = program.change(string, "cement/bentonite_percent", bentonite)
        changes += (Change(path=f"{string.path}/cement/slurry_water_gal_sk", value=round(water, 2)),)
        remedies.append(Remedy(label=label, changes=changes))
    top = _standing_top(program, string, column)
    if top is not None:
        label = ("Set the top of cement at ", depth(top))
        remedies.append(Remedy(label=label, changes=program.change(string, "cement/top_md_ft", top)))
    return remedies


def breakdown(program: Program, string: Planned, column: Column, tvd: float, fracture: float) -> None:
    path = program.well.path
    zone = program.well.ground.zone_at(tvd)
    remedies = _breakdown_remedies(program, string, column)
    message: Words = (
        f"In {zone} at " if zone else "At ", depth(path.md(tvd)), " the cement column reaches ", emw(column.emw_ppg(tvd)),
        "; the rock breaks at ", emw(fracture), ".",
        *(() if remedies else (" No slurry or top of cement tried here stands; the job needs stages.",)),
    )  # fmt: skip
    program.findings.append(
        Finding(
            severity="stop", step="cement", place=f"{string.path}/cement/top_md_ft",
            subject=(*string.words, " cement"), message=message, value=emw(column.emw_ppg(tvd)), limit=emw(fracture),
            remedies=tuple(remedies), working=f"cement/{string.index}/column",
        )
    )  # fmt: skip


def fill_recipe(program: Program, string: Planned) -> None:
    """Bentonite [%] and water [gal/sk] in force: as decided, else the heaviest recipe that the rock stands."""
    decided = string.own.cement
    neat = program.well.policy.slurry_water_gal_sk
    if decided.slurry_water_gal_sk is not None or decided.bentonite_percent is not None:
        bentonite = decided.bentonite_percent or 0.0
        string.recipe = (bentonite, decided.slurry_water_gal_sk or bentonite_water(neat, bentonite))
        return
    found = None
    if string.mud_ppg is not None and string.cement_top_md_ft is not None:
        column = Column(string.mud_ppg, 0.0, program.well.path.tvd(string.cement_top_md_ft))
        found = _lighter(program, string, column)
    string.recipe = found or (0.0, neat)
    if not string.proposed:
        text: Words = (*string.words, f" cement: {string.recipe[0]:g} % bentonite, the heaviest slurry that the rock stands."
                       if found else " cement: neat slurry by policy.")  # fmt: skip
        program.assumptions.append(
            Assumption(step="cement", place=f"{string.path}/cement/slurry_water_gal_sk", text=text)
        )


def slurry_ppg(string: Planned) -> float:
    """Density [ppg] of the slurry in force."""
    return slurry(string.recipe[1], bentonite_percent=string.recipe[0])["density_ppg"]
