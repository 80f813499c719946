"""Where centralizers stand: by the runs decided, else over the cemented open hole at the standoff of policy.

A run is a pattern (so many on so many joints), or the widest of the patterns that keeps a wanted standoff; a centralizer
stands midway on its joint, two on one joint at its thirds. Positions are distances above the shoe.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.catalogue.rows import Catalogue, Centralizer
from knollstack.core.document.design import CentralizerType
from knollstack.core.document.running import CentralizerRun
from knollstack.core.running.run import Run

Floats = NDArray[np.float64]
PATTERNS = ((1, 8), (1, 6), (1, 5), (1, 4), (1, 3), (1, 2), (2, 3), (1, 1), (2, 1), (3, 1), (4, 1))
"""Centralizers on joints, the widest first: what a wanted standoff is sought among."""


@dataclass(frozen=True)
class Interval:
    """One run of centralizers as it is in force: its kind, where, and how many on how many joints."""

    place: str
    top_md_ft: float
    base_md_ft: float
    kind: Centralizer
    number: int
    joints: int
    standoff_percent: float | None


def types_for(od_in: float, catalogue: Catalogue, own: tuple[CentralizerType, ...]) -> dict[str, Centralizer]:
    """Centralizers for a casing size by name: a person's own before the generic ones of the same name."""
    known = {row.type: row for row in catalogue.centralizers if row.od_in == od_in}
    for row in own:
        if row.od_in == od_in:
            known[row.name] = Centralizer(
                type=row.name,
                kind=row.kind,
                od_in=row.od_in,
                restoring_lbf=row.restoring_lbf,
                starting_lbf=row.starting_lbf,
                running_lbf=row.running_lbf,
                blade_in=row.blade_in,
                source="the person's own",
                price=row.price,
            )
    return known


def decided(run: Run, types: dict[str, Centralizer]) -> Iterator[tuple[CentralizerRun, Centralizer | None, str]]:
    """The decided runs with their kinds, None where no such centralizer is known for the size."""
    for k, row in enumerate(run.string.own.running.centralizers):
        yield row, types.get(row.type), f"{run.string.path}/running/centralizers/{k}"


def wanted_span(run: Run) -> tuple[float, float] | None:
    """The cemented open hole [ft MD], where policy asks for standoff; None where nothing is cemented there."""
    top = run.string.cement_top_md_ft
    if top is None:
        return None
    low = max(top, run.string.previous_shoe_md_ft)
    return (low, run.string.shoe_md_ft) if low < run.string.shoe_md_ft else None


def wanted_percent(run: Run, md_ft: Floats) -> Floats:
    """Standoff asked at depths [%]: policy's behind cement in open hole, more across zones that ask for it, else 0."""
    asked = np.zeros(len(md_ft))
    span = wanted_span(run)
    if span is None:
        return asked
    inside = (md_ft >= span[0] - 1e-6) & (md_ft <= span[1] + 1e-6)
    asked[inside] = run.well.policy.running.standoff_percent
    zones = [zone for zone in run.well.ground.model.zones if zone.standoff_percent is not None]
    tvd = run.well.path.tvd_at(md_ft) if zones else md_ft
    for zone in zones:
        if zone.standoff_percent is not None:
            asked[inside & (tvd >= zone.top_tvd_ft) & (tvd <= zone.base_tvd_ft)] = zone.standoff_percent
    return asked


def joints_of(run: Run, interval: Interval) -> NDArray[np.intp]:
    """Whole joints whose middle stands in an interval."""
    tally, shoe = run.tally, run.tally.shoe_md_ft
    low, high = shoe - interval.base_md_ft, shoe - interval.top_md_ft
    return np.flatnonzero((tally.middle_ft >= low) & (tally.middle_ft <= high) & tally.whole)


def positions(run: Run, on: NDArray[np.intp], number: int, joints: int) -> Floats:
    """Distances above the shoe of so many centralizers on so many joints, over the joints given."""
    bottom, effective = run.tally.bottom_ft, run.tally.effective_ft
    if not len(on):
        return np.zeros(0)
    if number == 1:
        joint = on[::joints] if (len(on) - 1) % joints == 0 else np.append(on[::joints], on[-1])
        return np.asarray(run.tally.middle_ft[joint])
    if number < joints:  # no joint carries two
        held = np.arange(len(on)) % joints < number
        held[-1] = True  # the top of an interval is held
        return np.asarray(run.tally.middle_ft[on[held]])
    counts = number // joints + (np.arange(len(on)) % joints < number % joints)
    joint = np.repeat(on, counts)
    turn = np.arange(len(joint)) - np.repeat(np.cumsum(counts) - counts, counts) + 1
    return np.asarray(bottom[joint] + effective[joint] * turn / (np.repeat(counts, counts) + 1))
