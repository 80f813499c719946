"""The cement of each string: where it stands, its volumes, and what its column does to the rock.

Annular volume is length × capacity by interval, open hole with excess, cased hole without; shoe track and
rathole are added. The column at the end of displacement is compared with fracture at every profile point.
"""

from __future__ import annotations

import math
from bisect import bisect_left
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from knollstack.core.basics import (
    annular_capacity,
    circle_capacity,
    equivalent_mud_weight,
    hydrostatic_pressure,
    interval_volume,
    sacks,
)
from knollstack.core.cement.slurry import bentonite_water, slurry
from knollstack.core.formula import Value
from knollstack.core.program import Planned, Program
from knollstack.core.results import Assumption, CementResult, CementRow, Change, Finding, Remedy, Words
from knollstack.core.well import depth, emw
from knollstack.core.working import headline

TOP_STEP_FT = 10.0
BENTONITE_PERCENTS = (0.0, 4.0, 8.0, 12.0, 16.0)
Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Column:
    """Mud over slurry in the annulus at the end of displacement."""

    mud_ppg: float
    slurry_ppg: float
    top_tvd_ft: float

    def psi(self, tvd_ft: Value) -> Value:
        mud = hydrostatic_pressure(self.mud_ppg, np.minimum(tvd_ft, self.top_tvd_ft))
        return mud + hydrostatic_pressure(self.slurry_ppg, np.maximum(0.0, tvd_ft - self.top_tvd_ft))

    def emw_ppg(self, tvd_ft: Value) -> Value:
        return equivalent_mud_weight(self.psi(tvd_ft), tvd_ft)


def fill_tops(program: Program) -> None:
    """The top of cement in force: as decided, else to the ground for shallow strings, else into the string above."""
    ground = program.well.ground_md_ft
    for string in program.strings:
        if not string.drilled:
            continue
        decided = string.cement.top_md_ft
        if decided is not None:
            string.cement_top_md_ft = max(decided, ground, string.top_md_ft)
        elif string.role in ("conductor", "surface"):
            string.cement_top_md_ft = ground
        elif string.run == "liner":
            string.cement_top_md_ft = string.top_md_ft
        else:
            top = string.previous_shoe_md_ft - program.well.policy.cement_overlap_ft
            string.cement_top_md_ft = max(ground, top)
        if decided is None and not string.proposed:
            text: Words = (
                *string.words,
                " casing: top of cement at ",
                depth(string.cement_top_md_ft),
                " by policy.",
            )
            program.assumptions.append(Assumption(step="cement", place=f"{string.path}/cement/top_md_ft", text=text))


def _outer_spans(program: Program, string: Planned) -> list[tuple[float, float, float | None]]:
    """Spans (top, base, ID of the casing outside) of the cemented annulus; ID None is open hole."""
    top, shoe = string.cement_top_md_ft, string.shoe_md_ft
    assert top is not None
    earlier = program.strings[: string.index]
    marks = {top, shoe, *(m for s in earlier for m in (s.top_md_ft, s.shoe_md_ft) if top < m < shoe)}
    depths = sorted(marks)
    spans = []
    for low, high in pairwise(depths):
        around = [s for s in earlier if s.top_md_ft <= low and s.shoe_md_ft >= high]
        outer = around[-1].pipe.id_in if around and around[-1].pipe else None
        if around and outer is None:
            return []
        spans.append((low, high, outer))
    return spans


def _volumes(program: Program, string: Planned, excess: float) -> dict[str, float] | None:
    """Volumes [bbl] of the job by the registered formulas; None where a size is unknown."""
    pipe, bit, policy = string.pipe, string.bit_in, program.well.policy
    spans = _outer_spans(program, string)
    if pipe is None or bit is None or not spans or any((d or bit) < pipe.od_in for _, _, d in spans):
        return None
    with headline(f"cement/{string.index}/slurry"):
        cased = opened = 0.0
        for top, base, outer in spans:
            capacity = annular_capacity(outer if outer is not None else bit, pipe.od_in)
            if outer is not None:
                cased += interval_volume(capacity, base - top)
            else:
                opened += interval_volume(capacity, base - top, excess)
        track_ft = min(policy.shoe_track_ft, string.shoe_md_ft - string.top_md_ft)
        track = interval_volume(circle_capacity(pipe.id_in), track_ft)
        rathole = interval_volume(circle_capacity(bit), policy.rathole_ft)
    with headline(f"cement/{string.index}/displacement"):
        displacement = interval_volume(circle_capacity(pipe.id_in), string.shoe_md_ft - string.top_md_ft - track_ft)
    return {
        "cased_annulus_bbl": cased,
        "open_annulus_bbl": opened,
        "shoe_track_bbl": track,
        "rathole_bbl": rathole,
        "slurry_bbl": cased + opened + track + rathole,
        "displacement_bbl": displacement,
    }


def _open_depths(program: Program, string: Planned, cement_top_tvd: float) -> Floats:
    """TVDs in the open hole at which the column is compared with fracture."""
    well = program.well
    top, bottom = well.path.tvd(string.previous_shoe_md_ft), well.path.tvd(string.shoe_md_ft)
    marks = np.append(well.window.depths_ft, cement_top_tvd)
    return np.unique(np.concatenate([[top], marks[(marks > top) & (marks < bottom)], [bottom]]))


def _weakest(program: Program, string: Planned, column: Column) -> tuple[float, float] | None:
    """Depth [ft TVD] where column less fracture pressure is greatest, and the fracture there; None where unknown."""
    depths = _open_depths(program, string, column.top_tvd_ft)
    fracture = program.well.ground.fracture.at(depths)
    if np.any(np.isnan(fracture)):
        return None
    k = int(np.argmax(np.asarray(column.emw_ppg(depths)) - fracture))
    return float(depths[k]), float(fracture[k])


def _holds(program: Program, string: Planned, column: Column) -> bool:
    """The rock of the open hole is known to stand the column."""
    weakest = _weakest(program, string, column)
    return weakest is not None and column.emw_ppg(weakest[0]) <= weakest[1] + 1e-9


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
        return _holds(program, string, Column(column.mud_ppg, column.slurry_ppg, path.tvd(float(tops[k]))))

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
        if _holds(program, string, Column(column.mud_ppg, density, column.top_tvd_ft)):
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


def _breakdown(program: Program, string: Planned, column: Column, tvd: float, fracture: float) -> None:
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


def _bond(program: Program, string: Planned) -> None:
    """Surface casing not cemented to the ground, or no cement into the string above: no bond there."""
    top, shoe, ground = string.cement_top_md_ft, string.previous_shoe_md_ft, program.well.ground_md_ft
    if top is None or string.index == 0:
        return
    message: Words = (
        "The top of cement, ",
        depth(top),
        ", is below the shoe above, ",
        depth(shoe),
        ": no bond into it.",
    )
    wanted = max(ground, shoe - program.well.policy.cement_overlap_ft)
    if string.role == "surface" and top > ground + 1:
        message = ("The top of cement is at ", depth(top), ". Surface casing is cemented back to the ground.")
        wanted = ground
    elif top <= shoe:
        return
    label: Words = ("Set the top of cement at ", depth(wanted))
    program.findings.append(
        Finding(
            severity="caution", step="cement", place=f"{string.path}/cement/top_md_ft",
            subject=(*string.words, " cement"), message=message, value=depth(top), limit=depth(shoe),
            remedies=(Remedy(label=label, changes=program.change(string, "cement/top_md_ft", wanted)),),
        )
    )  # fmt: skip


def _recipe(program: Program, string: Planned) -> tuple[float, float]:
    """Bentonite [%] and water [gal/sk] in force: as decided, else the heaviest recipe that the rock stands."""
    decided = string.cement
    neat = program.well.policy.slurry_water_gal_sk
    if decided.slurry_water_gal_sk is not None or decided.bentonite_percent is not None:
        bentonite = decided.bentonite_percent or 0.0
        return bentonite, decided.slurry_water_gal_sk or bentonite_water(neat, bentonite)
    found = None
    if string.mud_ppg is not None and string.cement_top_md_ft is not None:
        column = Column(string.mud_ppg, 0.0, program.well.path.tvd(string.cement_top_md_ft))
        found = _lighter(program, string, column)
    bentonite, water = found or (0.0, neat)
    if not string.proposed:
        text: Words = (*string.words, f" cement: {bentonite:g} % bentonite, the heaviest slurry that the rock stands."
                       if found else " cement: neat slurry by policy.")  # fmt: skip
        program.assumptions.append(
            Assumption(step="cement", place=f"{string.path}/cement/slurry_water_gal_sk", text=text)
        )
    return bentonite, water


def _row(program: Program, string: Planned) -> CementRow:
    if not string.drilled or string.cement_top_md_ft is None:
        return CementRow(applies=False)
    policy = program.well.policy
    bentonite, water = _recipe(program, string)
    excess = string.cement.excess if string.cement.excess is not None else policy.cement_excess
    with headline(f"cement/{string.index}/density"):
        recipe = slurry(water, bentonite_percent=bentonite)
    volumes = _volumes(program, string, excess)
    row: dict[str, float | None] = {
        "top_md_ft": string.cement_top_md_ft, "slurry_ppg": recipe["density_ppg"],
        "yield_ft3_sk": recipe["yield_ft3_sk"], "water_gal_sk": water, "bentonite_percent": bentonite,
        "excess": excess,
    }  # fmt: skip
    if volumes is None:
        message: Words = (
            "Cement volumes are unknown: a hole or pipe size of this string or the one outside is missing.",
        )
        program.findings.append(
            Finding(
                severity="unknown",
                step="cement",
                place=string.path,
                subject=(*string.words, " cement"),
                message=message,
            )
        )
    else:
        with headline(f"cement/{string.index}/sacks"):
            count = sacks(volumes["slurry_bbl"], recipe["yield_ft3_sk"])
        row |= volumes | {"sacks": count, "mix_water_bbl": count * water / 42}
    return CementRow(applies=True, **row, **_column_values(program, string, recipe["density_ppg"]))


def _column_values(program: Program, string: Planned, slurry_ppg: float) -> dict[str, float]:
    """The column against fracture, and what the float holds; nothing where mud or fracture is unknown."""
    path = program.well.path
    if string.mud_ppg is None or string.cement_top_md_ft is None:
        return {}
    column = Column(string.mud_ppg, slurry_ppg, path.tvd(string.cement_top_md_ft))
    weakest = _weakest(program, string, column)
    if weakest is None:
        message: Words = (
            "Whether the rock stands the cement is unknown: fracture is not given over the whole open hole.",
        )
        program.findings.append(
            Finding(
                severity="unknown",
                step="cement",
                place=string.path,
                subject=(*string.words, " cement"),
                message=message,
            )
        )
        return {}
    tvd, fracture = weakest
    with headline(f"cement/{string.index}/column"):
        greatest = column.emw_ppg(tvd)
    if greatest > fracture + 1e-9:
        _breakdown(program, string, column, tvd, fracture)
    shoe = path.tvd(string.shoe_md_ft)
    collar = path.tvd(max(string.top_md_ft, string.shoe_md_ft - program.well.policy.shoe_track_ft))
    with headline(f"cement/{string.index}/float"):
        inside = hydrostatic_pressure(string.mud_ppg, collar) + hydrostatic_pressure(slurry_ppg, shoe - collar)
        differential = column.psi(shoe) - inside
    return {
        "greatest_emw_ppg": greatest, "fracture_ppg": fracture, "greatest_emw_md_ft": path.md(tvd),
        "float_differential_psi": differential,
    }  # fmt: skip


def judge_cement(program: Program) -> CementResult:
    """Cement of every string."""
    rows = []
    for string in program.strings:
        rows.append(_row(program, string))
        _bond(program, string)
    return CementResult(strings=tuple(rows))
