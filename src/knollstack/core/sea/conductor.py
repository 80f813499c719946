"""The conductor in the sea floor: its capacity by the soil hour by hour, and what it carries until the second string is set.

Jetted, it bears at once what was set down on it; hammered, a share of its long-run friction. Either grows with time as the
soil sets up. Drilled and cemented, it bears on the soil once its cement has set.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import SEA_WATER_PPG
from knollstack.core.base.formulas import safety_factor
from knollstack.core.base.working import headline
from knollstack.core.document.sea import SeaConductor
from knollstack.core.document.sea_policy import SetUp
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.formulas import (
    alpha_shaft_friction,
    set_up_capacity,
    shaft_capacity,
    space_out,
    weight_in_sea_water,
)
from knollstack.core.sea.results import CarryRow, ConductorResult
from knollstack.core.sea.soil import Soil, soil_of
from knollstack.core.wellhead.subsea import set_down_lbf

Floats = NDArray[np.float64]
STANDS, LANDED = "Conductor stands, released", "Second string landed, cement not set"


@dataclass(frozen=True, eq=False)
class Standing:
    """A conductor with all that is known of its capacity."""

    string: EquippedString
    own: SeaConductor
    soil: Soil | None
    penetration_ft: float
    friction_psf: float | None
    long_run_lbf: float | None
    immediate_lbf: float | None
    set_up: tuple[SetUp, ...]

    @property
    def jetted(self) -> bool:
        return self.string.run == "jetted"

    @property
    def cemented(self) -> bool:
        return self.string.run not in ("jetted", "driven")

    def share(self, hours: float) -> float:
        """How much of the set-up has come after some hours."""
        rows = sorted(self.set_up, key=lambda row: row.hours)
        return float(np.interp(hours, [r.hours for r in rows], [r.share for r in rows]))

    def capacity_lbf(self, hours: float) -> float | None:
        if self.long_run_lbf is None or self.immediate_lbf is None:
            return None
        most = max(self.immediate_lbf, self.long_run_lbf)
        return float(set_up_capacity(self.immediate_lbf, most, self.share(hours)))

    def hours_for(self, needed_lbf: float) -> float | None:
        """Hours until it bears so much: the first at which its capacity is no less; None where it never is."""
        hours = sorted({0.0, *(row.hours for row in self.set_up)})
        reached = [self.capacity_lbf(h) for h in hours]
        before: tuple[float, float] | None = None
        for h, capacity in zip(hours, reached, strict=True):
            if capacity is None:
                return None
            if capacity >= needed_lbf:
                if before is None:
                    return h
                return before[0] + (h - before[0]) * (needed_lbf - before[1]) / (capacity - before[1])
            before = h, capacity
        return None


def conductor_of(equipped: Equipped) -> EquippedString | None:
    """The first string where it is a conductor, and the well stands at sea."""
    if equipped.well.site.setting == "land" or not equipped.strings:
        return None
    first = equipped.strings[0]
    return first if first.role == "conductor" else None


def standing_of(equipped: Equipped, string: EquippedString, shoe_md_ft: float | None = None) -> Standing:
    """The conductor as it is planned, or with its shoe at another depth."""
    sea, policy, well = equipped.design.sea, equipped.well.policy.sea, equipped.well
    soil, depth = soil_of(sea.soil), (shoe_md_ft if shoe_md_ft is not None else string.shoe_md_ft) - well.ground_md_ft
    friction = soil.mean_friction_psf(depth) if soil is not None and depth > 0 else None
    long_run = None
    if friction is not None and string.od_in is not None:
        long_run = float(shaft_capacity(friction, string.od_in, depth))
    immediate = sea.conductor.last_bit_weight_lbf
    if string.run == "driven":
        immediate = None if long_run is None else policy.remoulded_share * long_run
    elif string.run != "jetted":
        immediate = long_run
    return Standing(string, sea.conductor, soil, depth, friction, long_run, immediate, policy.set_up)


def own_weight_lbf(equipped: Equipped, string: EquippedString) -> float | None:
    """Weight of the conductor from the top of its housing to its shoe, in the sea and, over it, in air."""
    if not string.sections:
        return None
    sea_level = equipped.well.site.rig_floor_ft
    top = equipped.well.ground_md_ft - equipped.design.sea.conductor.stick_up_ft
    top = top if equipped.well.site.setting == "subsea" else 0.0
    weight = 0.0
    for k, section in enumerate(string.sections):
        high = top if k == 0 else section.top_md_ft
        dry = max(0.0, min(section.bottom_md_ft, sea_level) - high)
        wet = section.bottom_md_ft - high - dry
        if dry:
            weight += float(weight_in_sea_water(section.pipe.weight_ppf, dry, 0.0))
        weight += float(weight_in_sea_water(section.pipe.weight_ppf, wet, SEA_WATER_PPG))
    return weight


def _on_top_lbf(equipped: Equipped) -> float:
    """Low-pressure housing and guide base of a well on the sea floor."""
    own, policy = equipped.design.sea.conductor, equipped.well.policy.sea
    if equipped.well.site.setting != "subsea":
        return 0.0
    base = own.guide_base_lbf if own.guide_base_lbf is not None else policy.guide_base_lbf
    return base + (own.low_housing_lbf if own.low_housing_lbf is not None else policy.low_housing_lbf)


def bit_out_in(equipped: Equipped, standing: Standing) -> float | None:
    """How far the jetting bit stands out of the shoe: typed, else by the length of its assembly; None is not known."""
    own = standing.own
    if own.bit_out_in is not None or own.assembly_ft is None or not own.assembly_ft:
        return own.bit_out_in
    below = standing.penetration_ft + own.low_over_ft
    if below <= 0:
        return None
    with headline("sea/space_out"):
        return float(space_out(own.assembly_ft, below))


def second_of(equipped: Equipped) -> EquippedString | None:
    """The string that is landed in the conductor's housing on the sea floor."""
    if equipped.well.site.setting != "subsea" or len(equipped.strings) < 2:
        return None
    string = equipped.strings[1]
    return string if string.run == "cased" else None


def loads_of(equipped: Equipped, standing: Standing) -> list[tuple[str, float, float | None]]:
    """What it carries: moment, hours after it was set, load."""
    own, policy = standing.own, equipped.well.policy.sea
    weight = own_weight_lbf(equipped, standing.string)
    alone = None if weight is None else weight + _on_top_lbf(equipped)
    released = own.soak_hours if own.soak_hours is not None else policy.soak_hours
    if standing.cemented:
        released = equipped.well.policy.cement.wait_hours
    found = [(STANDS, released, alone)]
    second = second_of(equipped)
    if second is not None:
        after = own.second_hours if own.second_hours is not None else policy.second_hours
        hung = set_down_lbf(equipped, second)
        held = None if hung is None else max(0.0, hung - own.held_lbf)
        load = None if alone is None or held is None else alone + equipped.housing_lbf + held
        found.append((LANDED, max(after, released), load))
    return found


def carry_rows(equipped: Equipped, standing: Standing) -> tuple[CarryRow, ...]:
    """Load and capacity at each moment, with their working."""
    rows = []
    for k, (moment, hours, _) in enumerate(loads_of(equipped, standing)):
        key, factor = f"sea/conductor/{k}", None
        with headline(key):
            load = loads_of(equipped, standing)[k][2]
            capacity = _worked_lbf(standing, hours)
            if load is not None and capacity is not None and load > 0:
                factor = float(safety_factor(capacity, load))
        rows.append(
            CarryRow(moment=moment, hours=hours, load_lbf=load, capacity_lbf=capacity, factor=factor, working=key)
        )
    return tuple(rows)


def _worked_lbf(standing: Standing, hours: float) -> float | None:
    """Capacity with its working: friction at the shoe, its mean over the shaft, the long run, set-up."""
    soil, od, depth = standing.soil, standing.string.od_in, standing.penetration_ft
    if soil is None or standing.friction_psf is None or od is None or standing.immediate_lbf is None:
        return None
    at = np.array([depth])
    strength, stress = float(soil.strength_at(at)[0]), float(soil.stress_at(at)[0])
    if strength > 0 and stress > 0:
        alpha_shaft_friction(strength, stress)
    long_run = max(float(shaft_capacity(standing.friction_psf, od, depth)), standing.immediate_lbf)
    return float(set_up_capacity(standing.immediate_lbf, long_run, standing.share(hours)))


def result_of(equipped: Equipped, standing: Standing, rows: tuple[CarryRow, ...]) -> ConductorResult:
    string, soil, well = standing.string, standing.soil, equipped.well
    z: Floats = np.zeros(0) if soil is None else np.linspace(0.0, min(soil.deepest_ft, standing.penetration_ft), 40)
    friction = np.zeros(0) if soil is None else soil.friction_at(z)
    hours = sorted(row.hours for row in standing.set_up)
    capacity = [standing.capacity_lbf(h) for h in hours]
    known = [(h, c) for h, c in zip(hours, capacity, strict=True) if c is not None]
    needed = rows[0].load_lbf
    subsea = well.site.setting == "subsea"
    return ConductorResult(
        how="jetted" if standing.jetted else "driven" if string.run == "driven" else "cased",
        od_in=string.od_in,
        penetration_ft=standing.penetration_ft,
        top_md_ft=well.ground_md_ft - standing.own.stick_up_ft if subsea else 0.0,
        weight_lbf=own_weight_lbf(equipped, string),
        friction_psf=standing.friction_psf,
        long_run_lbf=standing.long_run_lbf,
        immediate_lbf=standing.immediate_lbf,
        bit_out_in=bit_out_in(equipped, standing),
        soak_needed_hours=None if needed is None else standing.hours_for(needed * well.policy.sea.conductor_factor),
        rows=rows,
        soil_md_ft=tuple((z + well.ground_md_ft).tolist()),
        soil_friction_psf=tuple(friction.tolist()),
        capacity_hours=tuple(h for h, _ in known),
        capacity_lbf=tuple(c for _, c in known),
    )
