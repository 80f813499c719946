"""The cement column at the end of displacement against the rock: where it is nearest to breaking it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.cement.formulas import bentonite_water, slurry
from knollstack.core.ground.extremes import open_nodes, worst_depth
from knollstack.core.ground.well import Well
from knollstack.core.program.column import Column
from knollstack.core.program.laid import LaidString, Slurry

BENTONITE_PERCENTS = (0.0, 4.0, 8.0, 12.0, 16.0)


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


Additives = tuple[tuple[str, float], ...]


def mixed(bentonite_percent: float, water_gal_sk: float, additives: Additives = ()) -> Slurry:
    recipe = Slurry(bentonite_percent, water_gal_sk, 0.0, additives)
    return replace(recipe, density_ppg=slurry(**recipe.mix)["density_ppg"])


def recipe_with(water_gal_sk: float, bentonite_percent: float, additives: Additives = ()) -> Slurry:
    """A recipe from the water of the neat slurry, with the more that its bentonite takes."""
    return mixed(bentonite_percent, bentonite_water(water_gal_sk, bentonite_percent), additives)


def heaviest_held(well: Well, string: LaidString, column: Column, additives: Additives = ()) -> Slurry | None:
    """The heaviest recipe whose column the rock stands at the top of cement in force, without bentonite first."""
    neat = well.policy.cement.water_gal_sk
    tried = (recipe_with(neat, bentonite, additives) for bentonite in BENTONITE_PERCENTS)
    return next((s for s in tried if holds(well, string, replace(column, slurry_ppg=s.density_ppg))), None)
