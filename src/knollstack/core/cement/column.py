"""The cement column at the end of displacement against the rock: where it is nearest to breaking it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import get_args

import numpy as np

from knollstack.core.base.constants import FRESH_WATER_PPG, SEA_WATER_PPG
from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.cement.formulas import additive_per_sack, bentonite_water, slurry
from knollstack.core.document.cementing import Additive, Cement, Dosage, additives_of
from knollstack.core.ground.extremes import open_nodes, worst_depth
from knollstack.core.ground.well import Well
from knollstack.core.program.column import Column
from knollstack.core.program.laid import LaidString, Slurry

STAGE_NAMES = ("first", "second", "third")
BENTONITE_PERCENTS = (0.0, 4.0, 8.0, 12.0, 16.0)


@dataclass(frozen=True)
class Weakest:
    """Where a column is nearest to breaking the rock, or over it by most, and the stage that does it."""

    tvd_ft: float
    fracture_ppg: float
    column: Column
    stage: str

    @property
    def reached_ppg(self) -> float:
        return float(self.column.emw_ppg(self.tvd_ft))

    @property
    def over_ppg(self) -> float:
        return self.reached_ppg - self.fracture_ppg


def _stages(string: LaidString, column: Column) -> list[tuple[Column, float, str]]:
    """Each stage's column with the depth [ft MD] down to which it is on the rock: under a collar the one below has set."""
    if not column.collars:
        return [(column, string.shoe_md_ft, "")]
    bottoms = (string.shoe_md_ft, *(md for md, _ in column.collars))
    return [
        (stage, bottom, f"{name}-stage ")
        for stage, bottom, name in zip(column.stages, bottoms, STAGE_NAMES, strict=False)
        if bottom > string.previous_shoe_md_ft
    ]


@sweeping()
def weakest(well: Well, string: LaidString, column: Column) -> Weakest | None:
    """Where a stage's column over fracture is greatest, and the fracture there; None where unknown."""
    found = []
    for stage, bottom, name in _stages(string, column):
        at = _weakest_of(well, stage, string.previous_shoe_md_ft, bottom)
        if at is None:
            return None
        found.append(Weakest(at, float(well.ground.fracture.at(at)), stage, name))
    return max(found, key=lambda worst: worst.over_ppg)


def _weakest_of(well: Well, column: Column, top_md_ft: float, bottom_md_ft: float) -> float | None:
    marks = (*column.marks_tvd_ft, column.mudline_tvd_ft)
    nodes, fracture = open_nodes(well, top_md_ft, bottom_md_ft, marks), well.ground.fracture
    return worst_depth(
        lambda z: np.asarray(column.psi(z) - hydrostatic_pressure(fracture.at(z), z)), nodes, as_weight=True
    )


@sweeping()
def holds(well: Well, string: LaidString, column: Column, margin_ppg: float = 0.0) -> bool:
    """The rock of the open hole is known to stand the column, with so much to spare."""
    worst = weakest(well, string, column)
    return worst is not None and worst.over_ppg <= 1e-9 - margin_ppg


Additives = tuple[tuple[str, float], ...]
"""Solids that have a field of their own, in percent, and sea water by its density."""
Rows = tuple[Additive, ...]
DOSAGES = get_args(Dosage)


def others(rows: Rows, water_gal_sk: float, water_ppg: float) -> Additives:
    """Further additives as they go into a sack's slurry: their mass and volume together."""
    found = [additive_per_sack(row.amount, DOSAGES.index(row.per), row.sg, water_gal_sk, water_ppg) for row in rows]
    if not found:
        return ()
    return (("other_lb_sk", sum(f["mass_lb"] for f in found)), ("other_gal_sk", sum(f["volume_gal"] for f in found)))


def mixed(bentonite_percent: float, water_gal_sk: float, additives: Additives = (), rows: Rows = ()) -> Slurry:
    water_ppg = dict(additives).get("water_ppg", FRESH_WATER_PPG)
    more = (*additives, *others(rows, water_gal_sk, water_ppg))
    recipe = Slurry(bentonite_percent, water_gal_sk, 0.0, more)
    return replace(recipe, density_ppg=slurry(**recipe.mix)["density_ppg"])


def recipe_with(water_gal_sk: float, bentonite_percent: float, additives: Additives = (), rows: Rows = ()) -> Slurry:
    """A recipe from the water of the neat slurry, with the more that its bentonite takes."""
    return mixed(bentonite_percent, bentonite_water(water_gal_sk, bentonite_percent), additives, rows)


ADDITIVES = ("silica_flour_percent", "barite_percent", "haematite_percent", "salt_percent")
"""Besides bentonite, which brings water of its own: they are mixed as they are given."""


def solids_of(cement: Cement) -> Additives:
    return tuple((name, percent) for name in ADDITIVES if (percent := getattr(cement, name)))


def water_of(cement: Cement) -> Additives:
    """Sea water, where it is mixed with that."""
    return (("water_ppg", SEA_WATER_PPG),) if cement.water == "sea water" else ()


def heaviest_held(well: Well, string: LaidString, column: Column, margin_ppg: float = 0.0) -> Slurry | None:
    """The heaviest recipe whose column the rock stands at the top of cement in force, without bentonite first."""
    neat, own = well.policy.cement.water_gal_sk, string.own.cement
    held = (*solids_of(own), *water_of(own))
    tried = (recipe_with(neat, bentonite, held, additives_of(own, "tail")) for bentonite in BENTONITE_PERCENTS)
    return next((s for s in tried if holds(well, string, replace(column, slurry_ppg=s.density_ppg), margin_ppg)), None)


def lead_held(well: Well, string: LaidString, column: Column, margin_ppg: float = 0.0) -> Slurry | None:
    """The heaviest lead that the rock stands over the tail of a column."""
    neat, own = well.policy.cement.water_gal_sk, string.own.cement
    rows = additives_of(own, "lead")
    tried = (recipe_with(neat, bentonite, water_of(own), rows) for bentonite in BENTONITE_PERCENTS[1:])
    return next((s for s in tried if holds(well, string, replace(column, lead_ppg=s.density_ppg), margin_ppg)), None)
