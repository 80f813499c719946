"""How far a tubing moves in each case and what the packer holds: the four effects against how it is held there."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import sweeping
from knollstack.core.base.working import headline
from knollstack.core.catalogue.product import Pipe
from knollstack.core.completion.formulas import (
    ballooning_change,
    buckling_change,
    fictitious_force,
    holding_force,
    piston_change,
    piston_force,
    temperature_change,
    tubing_axial_force,
    tubing_buoyed_weight,
)
from knollstack.core.completion.producing import Producing
from knollstack.core.completion.tubing_cases import TubingCase
from knollstack.core.document.completion import Completion

Floats = NDArray[np.float64]
LEAST_RADIAL_IN, LEAST_BUOYED_LB_IN = 0.02, 0.01


@dataclass(frozen=True)
class Held:
    """A tubing in its seal bore: sizes, how it is held, and what is slacked off."""

    pipe: Pipe
    length_ft: float
    drop_ft: float
    """TVD from hanger to packer: what its weight counts over."""
    seal_bore_in: float
    radial_in: float
    hold: str
    slack_off_lbf: float

    @property
    def size(self) -> tuple[float, float]:
        return self.pipe.od_in, self.pipe.id_in


def held_of(found: Producing, pipe: Pipe) -> Held:
    own, policy = found.equipped.design.completion, found.well.policy.completion
    slack = own.slack_off_lbf if own.slack_off_lbf is not None else policy.slack_off_lbf
    drop = found.packer_tvd_ft - found.well.path.tvd(found.hanger_md_ft)
    radial = max((found.casing.id_in - pipe.od_in) / 2, LEAST_RADIAL_IN)
    bore = seal_bore_in(own, pipe)
    return Held(pipe, found.length_ft, drop, bore, radial, own.hold, 0.0 if own.hold == "free to move" else slack)


def seal_bore_in(own: Completion, pipe: Pipe) -> float:
    return own.packer_bore_in if own.packer_bore_in is not None else pipe.od_in


@dataclass(frozen=True)
class Moved:
    """A case worked: changes of length [in], the end's way up [in], the packer's push up [lbf] and all of the end's."""

    case: TubingCase
    piston_in: float
    buckling_in: float
    ballooning_in: float
    temperature_in: float
    up_in: float
    push_lbf: float
    end_lbf: float
    helix_ft: float
    bending_lbf: float
    """What buckles at the packer: the fictitious force and the push."""
    buoyed_lb_in: float

    @property
    def total_in(self) -> float:
        return self.piston_in + self.buckling_in + self.ballooning_in + self.temperature_in


def slack_in(held: Held, set_at: TubingCase) -> float:
    """How far the tubing is let down after it has landed, to put so much weight on the packer."""
    if held.slack_off_lbf <= 0:
        return 0.0
    size, buoyed = held.size, _buoyed(held, set_at)
    straight = piston_change(*size, held.length_ft, held.slack_off_lbf)
    return -float(straight + buckling_change(*size, held.length_ft, held.radial_in, held.slack_off_lbf, buoyed))


def _buoyed(held: Held, case: TubingCase) -> float:
    found = tubing_buoyed_weight(*held.size, held.pipe.weight_ppf, case.inside_ppg, case.outside_ppg)
    return max(float(found), LEAST_BUOYED_LB_IN)


def moved(held: Held, set_at: TubingCase, case: TubingCase, key: str | None = None) -> Moved:
    """One case; a key keeps its working."""
    if key is None:
        with sweeping():
            return _moved(held, set_at, case)
    with headline(key):
        return _moved(held, set_at, case)


def _moved(held: Held, set_at: TubingCase, case: TubingCase) -> Moved:
    size, length = held.size, held.length_ft
    pushed = piston_force(held.seal_bore_in, *size, case.under_psi, case.inside_psi[1], case.outside_psi[1])
    before = piston_force(held.seal_bore_in, *size, set_at.under_psi, set_at.inside_psi[1], set_at.outside_psi[1])
    piston = float(piston_change(*size, length, float(pushed) - float(before)))
    inside = _mean(case.inside_psi) - _mean(set_at.inside_psi)
    outside = _mean(case.outside_psi) - _mean(set_at.outside_psi)
    balloon = float(ballooning_change(*size, length, inside, outside))
    heat = float(temperature_change(length, case.heat_f or 0.0))
    force, buoyed = float(fictitious_force(held.seal_bore_in, case.under_psi, case.outside_psi[1])), _buoyed(held, case)
    bent = float(buckling_change(*size, length, held.radial_in, force, buoyed))
    free_in, slack = piston + balloon + heat, slack_in(held, set_at)
    push, up = 0.0, -(free_in + bent)
    if held.hold != "free to move" and not case.pull_lbf:
        push = holding_force(*size, length, held.radial_in, buoyed, force, free_in, -slack)
        up = 0.0
        if held.hold == "landed" and push < 0:  # nothing pulls it down: it leaves its seat
            push, up = 0.0, -(free_in + bent) - slack
    bending = force + push
    helix = min(max(bending, 0.0) / buoyed / 12, length)
    return Moved(
        case, piston, bent, balloon, heat, up, push, float(pushed) + push - case.pull_lbf, helix, bending, buoyed
    )


def _mean(ends: tuple[float, float]) -> float:
    return (ends[0] + ends[1]) / 2


@dataclass(frozen=True)
class Along:
    """A case along the tubing, from the hanger to the packer: fields by node."""

    share: Floats
    inside_psi: Floats
    outside_psi: Floats
    axial_lbf: Floats
    bending_lbf: Floats
    """Compression that bends it, where it is a helix."""


def along(held: Held, done: tuple[Moved, ...], share: Floats) -> Along:
    """Case × share of the way down; pressures and weight grow with TVD."""

    def ends(pairs: list[tuple[float, float]]) -> Floats:
        top, bottom = np.array(pairs).T[:, :, None]
        return np.asarray(top + share * (bottom - top))

    with sweeping():
        below = np.broadcast_to((1 - share) * held.drop_ft, (len(done), len(share)))
        axial = tubing_axial_force(below, held.pipe.weight_ppf, np.array([[m.end_lbf] for m in done]))
    buoyed = np.array([[12 * m.buoyed_lb_in] for m in done])
    bending = np.maximum(np.array([[m.bending_lbf] for m in done]) - buoyed * (1 - share) * held.length_ft, 0.0)
    inside, outside = ends([m.case.inside_psi for m in done]), ends([m.case.outside_psi for m in done])
    return Along(share, inside, outside, np.asarray(axial), bending)
