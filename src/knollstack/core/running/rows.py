"""Rows of the result, made of what was judged: centralizers, fluids side by side, zones that hold the string, torque."""

from __future__ import annotations

import numpy as np

from knollstack.core.running.centralizing import Interval
from knollstack.core.running.fill import crush_floated, crush_planned
from knollstack.core.running.handling import Torque
from knollstack.core.running.hookload import FLUIDS, HookLoads
from knollstack.core.running.results import FluidRow, IntervalRow, StickingRow, TorqueRow
from knollstack.core.running.run import Run
from knollstack.core.running.standoff import Placed
from knollstack.core.running.sticking import Held

MOST_DRAWN = 300


def drawn_md_ft(run: Run, placed: Placed) -> tuple[float, ...]:
    """Depths of the centralizers, of very many an even share: what a drawing can show apart."""
    every = max(1, -(-len(placed.up_ft) // MOST_DRAWN))
    return tuple(np.round(run.tally.shoe_md_ft - placed.up_ft[::every], 1).tolist())


def interval_row(interval: Interval, count: int) -> IntervalRow:
    return IntervalRow(
        type=interval.kind.type,
        top_md_ft=interval.top_md_ft,
        base_md_ft=interval.base_md_ft,
        number=interval.number,
        joints=interval.joints,
        count=count,
    )


def drag_lbf(placed: Placed) -> float | None:
    """Running force of all centralizers; None where that of some is not given."""
    known = all(kind.running_lbf is not None for kind in placed.kinds)
    return float(placed.running_lbf.sum()) if known else None


def price_of(placed: Placed) -> float | None:
    prices = [kind.price for kind in placed.kinds]
    known = [p for p in prices if p is not None]
    return sum(known) if known and len(known) == len(prices) else None


def sticking_row(held: Held) -> StickingRow:
    return StickingRow(
        zone=held.zone.name,
        top_md_ft=held.top_md_ft,
        base_md_ft=held.base_md_ft,
        overbalance_psi=held.overbalance_psi,
        force_lbf=held.force_lbf,
        centralized=held.centralized,
    )


def fluid_rows(run: Run, loads: HookLoads) -> tuple[FluidRow, ...]:
    """Flooded, filled as planned and floated in, side by side at the end of the run."""
    block = run.well.site.block_lbf
    rows = []
    for fluid in FLUIDS:
        crushed = crush_planned(run) if fluid == "planned" else crush_floated(run)
        factor = float(crushed.factor.min())
        flooded = fluid == "flooded"
        rows.append(
            FluidRow(
                inside=fluid,
                hook_in_lbf=None if block is None else float(loads.of(fluid, "in")[-1]) + block,
                hook_up_lbf=None if block is None else float(loads.of(fluid, "up")[-1]) + block,
                worst_float_psi=0.0 if flooded else float(crushed.float_psi.max()),
                collapse_factor=None if flooded or not np.isfinite(factor) else factor,
            )
        )
    return tuple(rows)


def torque_rows(torques: tuple[tuple[str, Torque], ...]) -> tuple[TorqueRow, ...]:
    """One of each connection of the string."""
    return tuple(
        TorqueRow(connection=c, by=t.by, least_ft_lbf=t.least, best_ft_lbf=t.best, most_ft_lbf=t.most)
        for c, t in dict(torques).items()
    )
