"""Casing held still across permeable rock: the pull that frees it, zone by zone, against the pull that is left."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from knollstack.core.base.working import headline
from knollstack.core.document.design import Zone
from knollstack.core.mud.plan import greatest_overbalance
from knollstack.core.running.formulas import sticking_force
from knollstack.core.running.run import Run
from knollstack.core.running.standoff import Standoffs


@dataclass(frozen=True)
class Held:
    """A permeable zone beside the string: its length along hole, the overbalance in it, and the pull that frees the pipe."""

    zone: Zone
    index: int
    top_md_ft: float
    base_md_ft: float
    overbalance_psi: float | None
    force_lbf: float | None
    centralized: bool


def held_zones(run: Run, found: Standoffs) -> tuple[Held, ...]:
    """Permeable zones of the open hole, from the top down; unknown pore pressure leaves the force unknown."""
    well, policy = run.well, run.well.policy.running
    top, bottom = run.string.previous_shoe_md_ft, run.tally.shoe_md_ft
    zones = []
    for i, zone in enumerate(well.ground.model.zones):
        if not zone.permeable:
            continue
        high = max(float(well.path.md_at(zone.top_tvd_ft)), top)
        low = min(float(well.path.md_at(zone.base_tvd_ft)), bottom)
        if low <= high or zone.base_tvd_ft <= well.path.tvd(top):
            continue
        with headline(f"running/{run.string.index}/overbalance/{i}"):
            worst = greatest_overbalance(well, high, low, run.mud_ppg)
        pressure, force = worst[0] if worst else None, None
        if pressure is not None:
            with headline(f"running/{run.string.index}/sticking/{i}"):
                force = float(
                    sticking_force(max(pressure, 0.0), low - high, policy.contact_in, policy.sticking_friction)
                )
        zones.append(Held(zone, i, high, low, pressure, force, _held_off(found, high, low)))
    return tuple(zones)


def _held_off(found: Standoffs, high_md_ft: float, low_md_ft: float) -> bool:
    """Centralizers keep the pipe off the wall over the whole of a stretch."""
    if not len(found.midway):
        return False
    over = (found.low_md_ft > high_md_ft) & (found.high_md_ft < low_md_ft)
    covered = found.high_md_ft.min() <= high_md_ft and np.any(over)
    return bool(covered and np.all(found.midway[over] > 0))
