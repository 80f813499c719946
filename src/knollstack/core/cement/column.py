"""The cement column at the end of displacement against the rock: where it is nearest to breaking it."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from knollstack.core.base.constants import SEA_WATER_PPG
from knollstack.core.base.formula import Value, sweeping
from knollstack.core.base.formulas import equivalent_mud_weight, hydrostatic_pressure
from knollstack.core.cement.formulas import bentonite_water, slurry
from knollstack.core.ground.extremes import open_nodes, worst_depth
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString, Slurry

BENTONITE_PERCENTS = (0.0, 4.0, 8.0, 12.0, 16.0)


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


@sweeping()
def weakest(well: Well, string: LaidString, column: Column) -> tuple[float, float] | None:
    """Depth [ft TVD] where column over fracture is greatest, and the fracture there; None where unknown."""
    nodes = open_nodes(well, string.previous_shoe_md_ft, string.shoe_md_ft, (column.top_tvd_ft, column.mudline_tvd_ft))
    fracture = well.ground.fracture
    at = worst_depth(
        lambda z: np.asarray(column.psi(z) - hydrostatic_pressure(fracture.at(z), z)), nodes, as_weight=True
    )
    return None if at is None else (at, float(fracture.at(at)))


@sweeping()
def holds(well: Well, string: LaidString, column: Column) -> bool:
    """The rock of the open hole is known to stand the column."""
    worst = weakest(well, string, column)
    return worst is not None and bool(column.emw_ppg(worst[0]) <= worst[1] + 1e-9)


def mixed(bentonite_percent: float, water_gal_sk: float) -> Slurry:
    return Slurry(
        bentonite_percent, water_gal_sk, slurry(water_gal_sk, bentonite_percent=bentonite_percent)["density_ppg"]
    )


def recipe_with(water_gal_sk: float, bentonite_percent: float) -> Slurry:
    """A recipe from the water of the neat slurry, with the more that its bentonite takes."""
    return mixed(bentonite_percent, bentonite_water(water_gal_sk, bentonite_percent))


def heaviest_held(well: Well, string: LaidString, column: Column) -> Slurry | None:
    """The heaviest recipe whose column the rock stands at the top of cement in force, neat first."""
    neat = well.policy.cement.water_gal_sk
    tried = (recipe_with(neat, bentonite) for bentonite in BENTONITE_PERCENTS)
    return next((s for s in tried if holds(well, string, replace(column, slurry_ppg=s.density_ppg))), None)
