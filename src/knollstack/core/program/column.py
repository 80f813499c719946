"""The annulus of a string at the end of its cement job: mud over slurry, and what the float then holds."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from knollstack.core.base.constants import SEA_WATER_PPG
from knollstack.core.base.formula import Value, formula
from knollstack.core.base.formulas import equivalent_mud_weight, hydrostatic_pressure
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString


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


def column_of(well: Well, string: LaidString, slurry_ppg: float) -> Column | None:
    """The column of a string's job; None where its mud or its top is unknown."""
    if string.mud_ppg is None or string.cement_top_md_ft is None:
        return None
    column = Column(string.mud_ppg, slurry_ppg, well.path.tvd(string.cement_top_md_ft))
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


def final_differential_psi(well: Well, string: LaidString, column: Column) -> float | None:
    """What the float holds when the plug has landed; None where the displacement fluid is unknown."""
    if string.displacement_ppg is None:
        return None
    shoe = well.path.tvd(string.shoe_md_ft)
    collar = well.path.tvd(max(string.top_md_ft, string.shoe_md_ft - well.policy.cement.shoe_track_ft))
    # collar and shoe as whole columns: past the horizontal the shoe stands above the collar
    track = (hydrostatic_pressure(column.slurry_ppg, shoe), hydrostatic_pressure(column.slurry_ppg, collar))
    over_collar = hydrostatic_pressure(string.displacement_ppg, collar)
    return float(float_differential(float(column.psi(shoe)), over_collar, *track))
