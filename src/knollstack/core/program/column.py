"""The annulus of a string at the end of its cement job: mud over lead and tail, by stages; what the float then holds."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from knollstack.core.base.constants import SEA_WATER_PPG
from knollstack.core.base.formula import Value, formula
from knollstack.core.base.formulas import equivalent_mud_weight, hydrostatic_pressure
from knollstack.core.document.cementing import stage_collars_md_ft
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString


@dataclass(frozen=True)
class Column:
    """Mud over slurry in the annulus at the end of displacement; over the mud the sea where there is no riser.

    The slurry is that of the tail; a lead stands over it down to its top. With stage collars, lowest first, the slurry below
    each has set before what stands above it is pumped.
    """

    mud_ppg: float
    slurry_ppg: float
    top_tvd_ft: float
    mudline_tvd_ft: float = 0.0
    water_depth_ft: float = 0.0
    lead_ppg: float | None = None
    tail_top_tvd_ft: float = 0.0
    collars: tuple[tuple[float, float], ...] = ()
    """MD and TVD."""

    def psi(self, tvd_ft: Value) -> Value:
        """Pressure with all of it fluid."""
        mud_ft = np.maximum(0.0, np.minimum(tvd_ft, self.top_tvd_ft) - self.mudline_tvd_ft)
        above = hydrostatic_pressure(self.mud_ppg, mud_ft)
        if self.water_depth_ft:
            above = above + hydrostatic_pressure(SEA_WATER_PPG, self.water_depth_ft)
        tail_top = self.top_tvd_ft
        if self.lead_ppg is not None:
            tail_top = max(tail_top, self.tail_top_tvd_ft)
            lead_ft = np.maximum(0.0, np.minimum(tvd_ft, tail_top) - self.top_tvd_ft)
            above = above + hydrostatic_pressure(self.lead_ppg, lead_ft)
        return above + hydrostatic_pressure(self.slurry_ppg, np.maximum(0.0, tvd_ft - tail_top))

    def emw_ppg(self, tvd_ft: Value) -> Value:
        return equivalent_mud_weight(self.psi(tvd_ft), tvd_ft)

    @property
    def marks_tvd_ft(self) -> tuple[float, ...]:
        """Where the column changes its course."""
        marks = (self.top_tvd_ft, None if self.lead_ppg is None else self.tail_top_tvd_ft)
        return (*(mark for mark in marks if mark is not None), *(tvd for _, tvd in self.collars))

    @property
    def stages(self) -> tuple[Column, ...]:
        """What stands on the rock in each stage, from the shoe up: fluid as far as the next collar, mud over that."""
        tops = (*(tvd for _, tvd in self.collars), self.top_tvd_ft)
        return tuple(replace(self, top_tvd_ft=max(self.top_tvd_ft, top), collars=()) for top in tops)

    @property
    def first(self) -> Column:
        """What stands on the shoe: the first stage alone."""
        return self.stages[0]

    def staged(self, well: Well, *collars_md_ft: float) -> Column:
        return replace(self, collars=tuple((md, well.path.tvd(md)) for md in collars_md_ft))

    def wet_psi(self, tvd_ft: Value) -> Value:
        """Pressure while each depth's own cement is wet: under a stage collar that of the stage below it."""
        found = self.psi(tvd_ft)
        for (_, tvd), stage in reversed(list(zip(self.collars, self.stages, strict=False))):
            found = np.where(np.asarray(tvd_ft) < tvd, found, stage.psi(tvd_ft))
        return found


def over_hanger_ft(well: Well, string: LaidString) -> float:
    """Length [ft] of cement over a liner's top until it is reversed out, no higher than the ground."""
    given = string.own.cement.over_hanger_ft
    if given is None or string.run != "liner" or string.cement_top_md_ft != string.top_md_ft:
        return 0.0
    return min(given, max(string.top_md_ft - well.ground_md_ft, 0.0))


def pumped_top_md_ft(well: Well, string: LaidString) -> float | None:
    """Top of the cement [ft MD] when the plug lands: over a liner's top until it is reversed out."""
    top = string.cement_top_md_ft
    return None if top is None else top - over_hanger_ft(well, string)


def column_of(well: Well, string: LaidString) -> Column | None:
    """The column of a string's job; None where its mud, its slurry or its top is unknown."""
    top = pumped_top_md_ft(well, string)
    if string.mud_ppg is None or string.slurry is None or top is None:
        return None
    lead, tail_top, collars = string.lead, string.tail_top_md_ft, stage_collars_md_ft(string.own.cement)
    column = Column(string.mud_ppg, string.slurry.density_ppg, well.path.tvd(top))
    if lead is not None and tail_top is not None:
        column = replace(column, lead_ppg=lead.density_ppg, tail_top_tvd_ft=well.path.tvd(tail_top))
    column = column.staged(well, *dict.fromkeys(min(md, string.shoe_md_ft) for md in collars))
    if not is_riserless(well, string.index):
        return column
    return replace(column, mudline_tvd_ft=well.ground_md_ft, water_depth_ft=well.site.water_depth_ft)


@formula(
    "Δp = p_a − (p_m + p_s − p_c)",
    "psi",
    "Hydrostatics of the annulus and of the casing with its shoe track at the end of displacement",
)
def float_differential(
    annulus_psi: float, inside_to_collar_psi: float, slurry_to_shoe_psi: float, slurry_to_collar_psi: float
) -> float:
    """Differential that the float holds after the job: annulus at the shoe, less what stands inside there."""
    return annulus_psi - (inside_to_collar_psi + (slurry_to_shoe_psi - slurry_to_collar_psi))


STAB_IN = "stab-in float shoe"


def by_inner_string(string: LaidString) -> bool:
    """Pumped through drill pipe inside the casing: as decided, else where the shoe is made for it."""
    form = string.own.cement.form
    return form == "inner string" or (form is None and string.own.running.shoe == STAB_IN)


def landing_md_ft(string: LaidString) -> float:
    """Where the plug lands [ft MD]: on the collar, or on the shoe where there is none."""
    return string.shoe_md_ft if string.collar_md_ft is None else max(string.top_md_ft, string.collar_md_ft)


def bump_over_psi(well: Well, string: LaidString) -> float:
    """What the plug is bumped with over the final pressure: as decided, else by policy."""
    own = string.own.cement.bump_psi
    return well.policy.pipe.bump_psi if own is None else own


def final_differential_psi(well: Well, string: LaidString, column: Column) -> float | None:
    """What the float holds when the plug has landed; None where the displacement fluid is unknown."""
    if string.displacement_ppg is None:
        return None
    shoe = well.path.tvd(string.shoe_md_ft)
    collar = well.path.tvd(landing_md_ft(string))
    # collar and shoe as whole columns: past the horizontal the shoe stands above the collar
    track = (hydrostatic_pressure(column.slurry_ppg, shoe), hydrostatic_pressure(column.slurry_ppg, collar))
    over_collar = hydrostatic_pressure(string.displacement_ppg, collar)
    return float(float_differential(float(column.first.psi(shoe)), over_collar, *track))
