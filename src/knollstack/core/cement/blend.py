"""The blend sheet: what each slurry of a job takes, by the sack, in all, and to each tank of mix water."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from knollstack.core.base.constants import FRESH_WATER_PPG, GAL_PER_BBL
from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import sacks
from knollstack.core.cement.column import DOSAGES
from knollstack.core.cement.formulas import SACK_LB, additive_per_sack, slurry
from knollstack.core.document.cementing import SlurryKind, additives_of
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import EquippedString
from knollstack.core.program.laid import Slurry

NAMES = {
    "bentonite_percent": "bentonite",
    "silica_flour_percent": "silica flour",
    "barite_percent": "barite",
    "haematite_percent": "haematite",
}
SACK_FT3 = 1.0
"""A sack of cement in bulk."""
Unit = Literal["lb", "gal"]


@dataclass(frozen=True)
class Item:
    """One thing that is blended: by the sack, in all, and in each tank of mix water, where it goes there."""

    name: str
    unit: Unit
    per_sack: float
    total: float
    per_tank: float | None


@dataclass(frozen=True)
class Blend:
    """One slurry of one stage."""

    slurry: SlurryKind
    stage: int
    volume_bbl: float
    sacks: float
    bulk_ft3: float
    water_bbl: float
    tanks: float
    items: tuple[Item, ...]


@sweeping()
def blend_of(well: Well, string: EquippedString, kind: SlurryKind, stage: int, volume_bbl: float) -> Blend | None:
    """What a volume of lead or tail takes; None where there is no such slurry."""
    recipe = string.lead if kind == "lead" else string.slurry
    if recipe is None or volume_bbl <= 0:
        return None
    mixed = slurry(**recipe.mix)
    count = float(sacks(volume_bbl, mixed["yield_ft3_sk"]))
    water_bbl = count * recipe.water_gal_sk / GAL_PER_BBL
    tank = well.policy.cement.mix_tank_bbl
    tanks = water_bbl / tank if tank > 0 else 0.0
    items = tuple(_item(*row, count, tanks) for row in _per_sack(string, kind, recipe))
    return Blend(kind, stage, volume_bbl, count, count * SACK_FT3, water_bbl, tanks, items)


def _item(name: str, unit: Unit, per_sack: float, in_water: bool, count: float, tanks: float) -> Item:
    total = per_sack * count
    return Item(name, unit, per_sack, total, total / tanks if in_water and tanks > 0 else None)


def _per_sack(string: EquippedString, kind: SlurryKind, recipe: Slurry) -> list[tuple[str, Unit, float, bool]]:
    """Name, unit, amount by the sack, and whether it is dissolved in the mix water: cement first, water last."""
    mix = recipe.mix
    water_ppg = mix.get("water_ppg", FRESH_WATER_PPG)
    found: list[tuple[str, Unit, float, bool]] = [("cement", "lb", SACK_LB, False)]
    found += [(NAMES[key], "lb", SACK_LB * mix[key] / 100, False) for key in NAMES if mix.get(key)]
    if mix.get("salt_percent"):
        found.append(("salt", "lb", water_ppg * recipe.water_gal_sk * mix["salt_percent"] / 100, True))
    for row in additives_of(string.own.cement, kind):
        share = additive_per_sack(row.amount, DOSAGES.index(row.per), row.sg, recipe.water_gal_sk, water_ppg)
        liquid = row.per == "gal/sk"
        amount = share["volume_gal"] if liquid else share["mass_lb"]
        found.append((row.name, "gal" if liquid else "lb", amount, liquid or row.per == "% of water"))
    found.append((string.own.cement.water, "gal", recipe.water_gal_sk, True))
    return found
