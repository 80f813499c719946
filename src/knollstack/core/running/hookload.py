"""Hook load through the run: the soft string marched from the shoe up, for many depths of the shoe at once.

Nodes stand where the path bends, where friction changes and where the shoe stands. Each span takes its weight by what is
inside it, and its side load from that weight and the tension below it.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.remember import remembered
from knollstack.core.running.fill import Level, planned
from knollstack.core.running.formulas import lateral_shares
from knollstack.core.running.gear import fill_of
from knollstack.core.running.run import Run
from knollstack.core.running.standoff import Placed

Floats = NDArray[np.float64]
MOST_BENDS = 60
FLUIDS, MOTIONS = ("flooded", "planned", "floated"), ("in", "up", "still")


@dataclass(frozen=True, eq=False)
class Spans:
    """The well between nodes: length, cosine of inclination, and what makes side load, from the top down."""

    nodes_md_ft: Floats
    down: Floats
    share: Floats
    across: Floats
    turn: Floats
    friction: Floats

    @cached_property
    def downward(self) -> Floats:
        """Of a foot of pipe, how much hangs."""
        return np.asarray(self.down / np.diff(self.nodes_md_ft))


@dataclass(frozen=True, eq=False)
class HookLoads:
    """Weight on the hook [lbf], block apart: fluid × motion × depth of the shoe."""

    shoe_md_ft: Floats
    lbf: NDArray[np.float64]
    floats_in: bool
    running_force_lbf: Floats
    """What the centralizers in the hole add to the drag at each depth."""

    def of(self, fluid: str, motion: str) -> Floats:
        return np.asarray(self.lbf[FLUIDS.index(fluid), MOTIONS.index(motion)])

    @cached_property
    def lock_up_md_ft(self) -> float | None:
        """Depth of the shoe at which the string goes down no more by its own weight: full, or empty where it is floated in."""
        weight = self.of("floated" if self.floats_in else "flooded", "in")
        down = np.flatnonzero(weight > 0)
        if not len(down):
            return float(self.shoe_md_ft[0])
        held = np.flatnonzero(weight[down[0] :] <= 0)  # the first joints may be light
        if not len(held):
            return None
        k = int(down[0] + held[0])
        above, here = weight[k - 1 : k + 1]
        share = above / (above - here)
        return float(self.shoe_md_ft[k - 1] + share * (self.shoe_md_ft[k] - self.shoe_md_ft[k - 1]))


def spans_of(run: Run, depths_md_ft: Floats) -> Spans:
    path, policy = run.well.path, run.well.policy.running
    marks = path.marks_md_ft
    marks = marks[:: max(1, len(marks) // MOST_BENDS)]
    deepest = run.tally.shoe_md_ft
    marks = np.concatenate([[0.0, run.string.previous_shoe_md_ft], marks, depths_md_ft])
    nodes = np.unique(marks[(marks >= 0) & (marks <= deepest)])
    way = path.heading_at(nodes)
    share, across, turn = lateral_shares([part[:-1] for part in way], [part[1:] for part in way])
    down = np.diff(path.tvd_at(nodes))
    open_hole = nodes[1:] > run.string.previous_shoe_md_ft + 1e-9
    friction = np.where(open_hole, policy.friction_open, policy.friction_cased)
    return Spans(nodes, down, np.asarray(share), np.asarray(across), np.asarray(turn), friction)


def _weights(run: Run, spans: Spans, shoes: Floats, empties: list[Floats]) -> list[Floats]:
    """Buoyed weight [lb] of the pipe in each span, empty down to some levels: span × depth of the shoe."""
    edges = np.array([leg.low_ft for leg in run.legs] + [run.legs[-1].high_ft + 1e5])
    mud = PSI_PER_PPG_FT * run.mud_ppg
    dry = np.array([leg.weight_ppf - mud * np.pi / 4 * leg.od_in**2 for leg in run.legs])
    wet = np.array([run.bore_bbl_psi(leg) for leg in run.legs])

    def along(values: Floats, up_ft: Floats) -> Floats:
        if len(values) == 1:
            return np.asarray(values[0] * up_ft)
        return np.interp(up_ft, edges, np.concatenate([[0.0], np.cumsum(values * np.diff(edges))]))

    up = np.maximum(shoes[None, :] - spans.nodes_md_ft[:, None], 0.0)
    steel = -np.diff(along(dry, up), axis=0)
    filled = (np.minimum(up, np.maximum(shoes - empty, 0.0)[None, :]) for empty in empties)
    return [steel - np.diff(along(wet, part), axis=0) for part in filled]


def _march(spans: Spans, weights: Floats, signs: Floats) -> Floats:
    """Tension at the rotary, case × depth, from the deepest span up; `weights` are span × case × depth.

    Spans below the shoe weigh nothing, and so add none.
    """
    gained = weights * spans.downward[:, None, None]
    pull, bent = spans.friction[:, None, None] * signs[:, None], spans.turn > 0
    held = ~bent  # the side load of a straight span does not hang on its tension: such spans are summed at once
    gained[held] += pull[held] * np.abs(weights[held] * spans.across[held, None, None])
    aside, across = weights * spans.share[:, None, None], (weights * spans.across[:, None, None]) ** 2
    starts = np.flatnonzero(bent | np.append(True, bent[:-1]))
    gained = np.add.reduceat(gained, starts, axis=0)
    tension, turn = np.zeros(weights.shape[1:]), spans.turn.tolist()
    for k, more in zip(reversed(starts.tolist()), reversed(gained), strict=True):
        if turn[k]:
            side = turn[k] * tension - aside[k]
            side *= side
            side += across[k]
            np.sqrt(side, out=side)
            side *= pull[k]
            tension += side
        tension += more
    return tension


@remembered(64)
def hook_loads(run: Run, placed: Placed) -> HookLoads:
    """All cases, with the drag of the centralizers that are in the hole at each depth."""
    shoes = run.depths_md_ft
    level: Level = planned(run)
    before = np.interp(shoes, level.shoe_md_ft, level.empty_md_ft)
    closed = run.tally.gear.fills not in ("auto", "through")
    floats_in = closed and fill_of(run.well, run.string) in ("floated in", "auto-fill")
    none = np.zeros(len(shoes))
    spans = spans_of(run, shoes)
    full, planned_, empty = _weights(run, spans, shoes, [none, before, shoes])
    after = planned_ if floats_in else full
    weights = np.stack([full, full, planned_, after, empty, empty], axis=1)
    moved = _march(spans, weights, np.array([-1.0, 1.0] * len(FLUIDS))).reshape(len(FLUIDS), 2, len(shoes))
    still = np.tensordot(spans.downward, weights[:, ::2], axes=1)
    tension = np.concatenate([moved, still[:, None, :]], axis=1)
    forces = np.concatenate([[0.0], np.cumsum(placed.running_lbf)])
    entered = forces[np.searchsorted(placed.up_ft, shoes)]
    tension[:, 0] -= entered
    tension[:, 1] += entered
    tension += np.where(shoes > run.tally.total_ft + 1e-6, run.head_lbf, 0.0)
    return HookLoads(shoes, tension, floats_in, entered)
