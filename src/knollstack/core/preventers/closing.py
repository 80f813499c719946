"""The closing unit: fluid of the functions of policy, bottles and their precharge, and closing times."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.formula import Value, sweeping
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.document.preventers import ClosingUnit, PreventersPolicy
from knollstack.core.ground.well import Well
from knollstack.core.preventers.formulas import (
    accumulator_bottles,
    accumulator_usable,
    accumulator_usable_nitrogen,
    accumulator_usable_subsea,
    charging_time,
)
from knollstack.core.preventers.results import AccumulatorRow, ClosingRow
from knollstack.core.preventers.stacks import Cavity

VALVE_GAL = 1.0
"""To open the hydraulic valve of the choke line: a planning value."""
LARGE_ANNULAR_IN = 18.75
STEP_PSI = 25.0
MOST_NITROGEN_PSI = 11_900.0
"""Of the deviation factor's table; beyond it nitrogen is worked as an ideal gas."""
RAMS_HELD = {"annular and one ram": 1, "annular and two rams": 2}


def functions_of(policy: PreventersPolicy, elements: tuple[Cavity, ...]) -> list[tuple[str, float | None]]:
    """What must close and open on the stored fluid alone, with the gallons of each; None where they are not known."""
    found = [(e.title, e.close_gal) for e in elements if e.kind in ("annular", "diverter")]
    rams = [(e.title, e.close_gal) for e in elements if e.kind == "ram"]
    held = RAMS_HELD.get(policy.functions)
    if held is not None:
        known = sorted(rams, key=lambda r: r[1] if r[1] is not None else float("inf"), reverse=True)
        found, rams = found[-1:], known[:held]
    valve = [("choke valve, open", VALVE_GAL)] if any(e.kind == "ram" for e in elements) else []
    return [*found, *rams, *valve]


def on_sea_floor(well: Well, unit: ClosingUnit) -> bool:
    """Whether the bottles stand on the sea floor: where nobody says, they stand where the stack does."""
    return unit.place == "sea floor" or (unit.place == "as the stack" and well.site.setting == "subsea")


def sea_psi(well: Well) -> float:
    """Weight of the sea on the wellhead."""
    return PSI_PER_PPG_FT * SEA_WATER_PPG * well.site.water_depth_ft


def _hydrostatic_psi(well: Well, unit: ClosingUnit) -> float:
    return sea_psi(well) if on_sea_floor(well, unit) else 0.0


def _usable(policy: PreventersPolicy, unit: ClosingUnit, precharge: Value, minimum: Value, sea: float) -> Value:
    """Usable fluid of a bottle between the least pressure and operating pressure, each over that of the sea around it."""
    volume, most = unit.gas_volume_gal, unit.operating_psi
    if policy.gas == "nitrogen" and most + sea <= MOST_NITROGEN_PSI:
        cold = unit.working_f
        return accumulator_usable_nitrogen(
            volume, precharge + sea, unit.precharge_f, minimum + sea, cold, most + sea, cold
        )
    if sea > 0:
        return accumulator_usable_subsea(volume, precharge + sea + 14.7, minimum, most, sea)
    return accumulator_usable(volume, precharge, minimum, most)


def _best_precharge(policy: PreventersPolicy, unit: ClosingUnit, working_psi: float, sea: float) -> float | None:
    """The precharge that makes the most of a bottle; None where operating pressure leaves room for none."""
    most = unit.operating_psi - policy.left_psi
    tried = np.arange(STEP_PSI, most + 1e-9, STEP_PSI)
    if not tried.size or working_psi > unit.operating_psi:
        return None
    with sweeping():
        usable = _usable(policy, unit, tried, np.maximum(tried + policy.left_psi, working_psi), sea)
    return float(tried[int(np.argmax(usable))])


def _working_psi(policy: PreventersPolicy, elements: tuple[Cavity, ...], well_psi: float | None) -> float:
    """Least pressure that still works every function: policy's, or what closes a ram against the well."""
    ratios = [e.closing_ratio for e in elements if e.kind == "ram" and e.closing_ratio is not None]
    against = well_psi / min(ratios) if ratios and well_psi is not None else 0.0
    return max(policy.working_psi, against)


@remembered(64, traced=True)
def accumulators_of(
    well: Well, unit: ClosingUnit, elements: tuple[Cavity, ...], index: int, well_psi: float | None
) -> AccumulatorRow | None:
    """Fluid needed and bottles that hold it; None where nothing closes."""
    policy = well.policy.preventers
    functions = functions_of(policy, elements)
    if not functions:
        return None
    sea, key = _hydrostatic_psi(well, unit), f"preventers/{index}/accumulators"
    needed = None if any(g is None for _, g in functions) else sum(g for _, g in functions if g is not None)
    working = _working_psi(policy, elements, well_psi)
    precharge = unit.precharge_psi if unit.precharge_psi is not None else _best_precharge(policy, unit, working, sea)
    usable = count = minutes = None
    minimum = max(precharge + policy.left_psi, working) if precharge else None
    with headline(key):
        if precharge and minimum is not None and minimum <= unit.operating_psi and unit.gas_volume_gal > 0:
            usable = float(_usable(policy, unit, precharge, minimum, sea))
            if needed is not None and usable > 0:
                count = int(accumulator_bottles(needed, policy.fluid_factor, usable))
        if precharge and unit.pump_gpm and unit.gas_volume_gal > 0 and precharge <= unit.operating_psi:
            fluid = float(_usable(policy, unit, precharge, precharge, sea))
            bottles = unit.bottles if unit.bottles is not None else count
            minutes = float(charging_time(bottles, fluid, unit.pump_gpm)) if bottles is not None else None
    return AccumulatorRow(
        functions=tuple((name, gallons if gallons is not None else 0.0) for name, gallons in functions),
        needed_gal=needed,
        precharge_psi=precharge or None,
        minimum_psi=minimum,
        usable_gal=usable,
        bottles_needed=count,
        bottles=unit.bottles,
        charging_minutes=minutes,
        working=key,
    )


def closing_rows(well: Well, unit: ClosingUnit, elements: tuple[Cavity, ...]) -> tuple[ClosingRow, ...]:
    """Time to close each element at the flow that reaches it, and the time that policy allows."""
    rows, policy, under = [], well.policy.preventers, well.site.setting == "subsea"
    for e in elements:
        if not e.closes or e.kind == "diverter":
            continue
        large = e.bore_in is not None and e.bore_in >= LARGE_ANNULAR_IN
        annular = policy.large_annular_seconds if large else policy.annular_seconds
        allowed = annular if e.kind == "annular" else policy.ram_seconds
        if under:
            allowed = policy.sea_annular_seconds if e.kind == "annular" else policy.sea_ram_seconds
        known = e.close_gal is not None and unit.line_gpm is not None
        seconds = e.close_gal / unit.line_gpm * 60 if known and e.close_gal is not None and unit.line_gpm else None
        rows.append(ClosingRow(element=e.index, seconds=seconds, allowed_seconds=allowed))
    return tuple(rows)
