"""The load cases of a string: what is inside and outside it, at which moment of the well's life.

Each case gives internal and external pressure at any TVD by the registered formulas, so the curve and the
working come from the same calls. Drilling and production cases stand in their own modules.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import numpy as np

from knollstack.core.base.formula import Value
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.document.strings import CustomLoad
from knollstack.core.ground.riserless import column_psi, is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.pipe.formulas import bump_pressure, pressure_under
from knollstack.core.pipe.heat import NO_HEAT, Heat
from knollstack.core.pipe.sea_formulas import pressure_under_wellhead
from knollstack.core.program.column import bump_over_psi, column_of, final_differential_psi
from knollstack.core.program.laid import LaidString

Pressure = Callable[[Value], Value]
Kind = Literal["burst", "collapse", "tension"]
Stage = Literal["running", "cementing", "testing", "drilling", "production", "custom"]


@dataclass(frozen=True)
class LoadCase:
    """One moment of a string's life. A free string hangs in its mud; the others are held by set cement.

    `kind` is what the case is meant to try; every case is judged in every way. An overpull acts on the whole string,
    or above the depth where it is hung. A free top is not landed yet: pressure inside pulls in full down to the cement.
    """

    name: str
    kind: Kind
    stage: Stage
    internal_psi: Pressure
    external_psi: Pressure
    free: bool = False
    free_top: bool = False
    marks_tvd_ft: tuple[float, ...] = ()
    overpull_lbf: float = 0.0
    hung_at_md_ft: float | None = None
    shock_ft_s: float = 0.0
    heat: Heat = NO_HEAT


def mud_column(mud_ppg: float) -> Pressure:
    return lambda z: hydrostatic_pressure(mud_ppg, z)


def lasting_column(well: Well, fluid_ppg: float) -> Pressure:
    """A fluid behind casing for good: under the sea the riser does not stay, and sea water stands over it."""
    if well.site.setting != "subsea":
        return mud_column(fluid_ppg)
    return lambda z: column_psi(well, fluid_ppg, np.asarray(z))


def mud_behind(well: Well, string: LaidString, mud_ppg: float) -> Pressure:
    """The mud that a string was run in: from the rig down, or under the sea before there is a riser."""
    return lasting_column(well, mud_ppg) if is_riserless(well, string.index) else mud_column(mud_ppg)


def under_wellhead(well: Well, psi: float, fluid_ppg: float) -> Pressure:
    """A fluid below a pressure at the wellhead: that of the surface, or on the sea floor."""
    top = well.wellhead_tvd_ft
    if not top:
        return lambda z: pressure_under(psi, fluid_ppg, z)
    return lambda z: pressure_under_wellhead(psi, fluid_ppg, z, top)


def two_fluids(well: Well, upper_ppg: float, lower_ppg: float, at_tvd_ft: float) -> Pressure:
    """A column of one fluid over another, behind casing for good."""
    above = lasting_column(well, upper_ppg)
    return lambda z: (
        above(np.minimum(z, at_tvd_ft)) + hydrostatic_pressure(lower_ppg, np.maximum(np.asarray(z) - at_tvd_ft, 0.0))
    )


def cement_top_tvd_ft(well: Well, string: LaidString) -> float | None:
    top = string.cement_top_md_ft
    return None if top is None else well.path.tvd(top)


def backup(well: Well, string: LaidString) -> Pressure:
    """External pressure in burst of a cemented string, by the school of policy; no credit where it is unknown."""
    policy = well.policy.pipe
    base, open_from = lasting_column(well, policy.base_fluid_ppg), well.path.tvd(string.previous_shoe_md_ft)
    top = cement_top_tvd_ft(well, string)
    if top is not None and policy.burst_backup == "pore":
        behind = _pore_behind(well, max(top, open_from), base)
    elif top is not None and policy.burst_backup == "mix water":
        behind = two_fluids(well, policy.base_fluid_ppg, policy.mix_water_ppg, top)
    elif policy.burst_backup == "mud" and string.mud_ppg is not None:
        behind = lasting_column(well, string.mud_ppg)
    else:
        behind = base
    return _depleted(well, open_from, behind)


def _pore_behind(well: Well, from_tvd_ft: float, above: Pressure) -> Pressure:
    """Pore pressure in cemented open hole, something else above it; no credit where pore is unknown."""
    pore = well.ground.pore
    return lambda z: np.where(
        np.asarray(z) >= from_tvd_ft, hydrostatic_pressure(np.nan_to_num(pore.at(z)), z), above(np.asarray(z))
    )


def is_depleted(well: Well) -> bool:
    """Some rock of the well holds less pressure than the base fluid."""
    pore = well.ground.pore
    return bool(np.any(np.minimum(pore.above_ppg, pore.below_ppg) < well.policy.pipe.base_fluid_ppg))


def _depleted(well: Well, open_from_ft: float, behind: Pressure) -> Pressure:
    """Outside pressure that is no more than the pore pressure of open hole depleted below the base fluid."""
    pore, base_ppg = well.ground.pore, well.policy.pipe.base_fluid_ppg
    if not is_depleted(well):
        return behind

    def limited(z: Value) -> Value:
        depth, usual = np.asarray(z), np.asarray(behind(z))
        rock = pore.lower_at(depth)
        drained = (depth >= open_from_ft) & (rock < base_ppg)
        return np.where(
            drained, np.minimum(usual, hydrostatic_pressure(np.where(drained, rock, base_ppg), depth)), usual
        )

    return limited


def salt_without_overburden_ft(well: Well, string: LaidString) -> float | None:
    """The shallowest TVD [ft] at which salt stands behind a string and the overburden is not known; None where it is."""
    overburden = well.ground.model.overburden
    for low, high in salt_spans(well, string):
        if len(overburden) < 2 or low < overburden[0].tvd_ft:
            return low
        if high > overburden[-1].tvd_ft:
            return max(low, overburden[-1].tvd_ft)
    return None


def salt_spans(well: Well, string: LaidString) -> list[tuple[float, float]]:
    """Spans of TVD [ft] in which a string stands against salt: not behind the casing above."""
    path = well.path
    top, shoe = path.tvd(string.previous_shoe_md_ft), path.tvd(string.shoe_md_ft)
    zones = [z for z in well.ground.model.zones if z.rock == "salt"]
    spans = [(max(z.top_tvd_ft, top), min(z.base_tvd_ft, shoe)) for z in zones]
    return [(low, high) for low, high in spans if high > low]


def with_salt(well: Well, string: LaidString, external: Pressure) -> Pressure:
    """External pressure raised to the overburden over salt, which flows onto the pipe."""
    spans, overburden = salt_spans(well, string), well.ground.model.overburden
    if not spans or len(overburden) < 2:
        return external
    depths, weights = [p.tvd_ft for p in overburden], [p.emw_ppg for p in overburden]

    def raised(z: Value) -> Value:
        depth = np.asarray(z)
        over = np.asarray(hydrostatic_pressure(np.interp(depth, depths, weights), depth))
        inside = np.zeros(depth.shape, dtype=bool)
        for low, high in spans:
            inside |= (depth >= low) & (depth <= high)
        usual = np.asarray(external(z))
        return np.where(inside, np.maximum(usual, over), usual)

    return raised


def running_cases(well: Well, string: LaidString, mud_ppg: float) -> list[LoadCase]:
    """The string being run and cemented: overpull, shock, not yet filled, wet cement outside, the plug bumped."""
    policy, path, pushed = well.policy.pipe, well.path, string.displacement_ppg
    mud, unfilled = mud_behind(well, string, mud_ppg), path.tvd(min(string.shoe_md_ft, policy.unfilled_ft))
    cases = [
        LoadCase("running", "tension", "running", mud, mud, free=True, overpull_lbf=policy.overpull_lbf),
        LoadCase("stopped while running", "tension", "running", mud, mud, free=True, shock_ft_s=policy.shock_ft_s),
        LoadCase(
            "run part empty",
            "collapse",
            "running",
            lambda z: hydrostatic_pressure(mud_ppg, np.maximum(np.asarray(z) - unfilled, 0.0)),
            mud,
            free=True,
            marks_tvd_ft=(unfilled,),
        ),
    ]
    column = column_of(well, string)
    if column is None or pushed is None:
        return cases
    inside, wet, marks = mud_column(pushed), column.wet_psi, column.marks_tvd_ft
    held = final_differential_psi(well, string, column)
    assert held is not None
    bumped = float(bump_pressure(held, bump_over_psi(well, string)))
    cases += [
        LoadCase("cementing", "collapse", "cementing", inside, wet, free=True, marks_tvd_ft=marks),
        LoadCase(
            "plug bump",
            "burst",
            "cementing",
            lambda z: pressure_under(bumped, pushed, z),
            wet,
            free=True,
            marks_tvd_ft=marks,
        ),
    ]
    return cases


def pressure_test_case(well: Well, string: LaidString, mud_ppg: float, psi: float) -> LoadCase:
    """The pressure test at the wellhead: in green cement, or in set cement before or after the string is landed."""
    when, column, inside = well.policy.pipe.pressure_test, column_of(well, string), under_wellhead(well, psi, mud_ppg)
    if when == "in green cement" and column is not None:
        return LoadCase(
            "green-cement test", "burst", "testing", inside, column.wet_psi, free=True, marks_tvd_ft=column.marks_tvd_ft
        )
    return LoadCase("pressure test", "burst", "testing", inside, backup(well, string), free_top=when != "after landing")


def liner_case(mud_ppg: float, hanger_md_ft: float, landed_lbf: float) -> LoadCase:
    """A liner hung in the string: its landed weight on all that is above its hanger."""
    mud = mud_column(mud_ppg)
    return LoadCase(
        "liner hung inside", "tension", "drilling", mud, mud, overpull_lbf=landed_lbf, hung_at_md_ft=hanger_md_ft
    )


def custom_case(well: Well, load: CustomLoad) -> LoadCase:
    """A case of the engineer's own."""
    level = well.path.tvd(min(load.inside_level_md_ft, well.path.total_md_ft))
    return LoadCase(
        load.name,
        load.kind,
        "custom",
        lambda z: load.inside_psi + hydrostatic_pressure(load.inside_ppg, np.maximum(np.asarray(z) - level, 0.0)),
        lambda z: load.outside_psi + hydrostatic_pressure(load.outside_ppg, z),
        marks_tvd_ft=(level,),
        heat=Heat(load.temperature_change_f, load.temperature_change_f),
    )
