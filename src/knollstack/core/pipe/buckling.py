"""Where free pipe above the cement buckles, and the bending that its helix adds to the stress."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT, STEEL_MODULUS_PSI
from knollstack.core.base.findings import Words, depth, pressure
from knollstack.core.base.formula import sweeping
from knollstack.core.base.working import headline
from knollstack.core.catalogue.ratings import von_mises
from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.formulas import areas_in2, buckled_bending_stress, buckling_force
from knollstack.core.pipe.judged import Judged
from knollstack.core.pipe.strength import triaxial_wall

Floats = NDArray[np.float64]
LEAST_CLEARANCE_IN = 0.1
BEND_PSI_IN = 218.0
"""Bending stress over OD and dogleg, psi per in and °/100 ft."""


@dataclass(frozen=True)
class Buckled:
    """The case in which most of the free pipe buckles, from where down, and what its bending makes of it."""

    case: str
    from_md_ft: float
    bending_psi: float
    factor: float

    def words(self, asked: float) -> Words:
        said: Words = (
            f"In {self.case} the uncemented pipe buckles from ",
            depth(self.from_md_ft),
            " down; bending adds up to ",
            pressure(self.bending_psi),
        )
        if self.factor < asked - 1e-9:
            return *said, f", and the triaxial factor is {self.factor:.2f} with it; policy asks {asked:.3g}."
        return *said, f": triaxial factor {self.factor:.2f} with it."


def _clearance_in(judged: Judged) -> float | None:
    hole = judged.frame.string.bit_in
    return None if hole is None else max((hole - float(judged.side.od_in[0, 0, 0])) / 2, LEAST_CLEARANCE_IN)


@sweeping()
def _bent(judged: Judged, clearance_in: float) -> tuple[NDArray[np.bool_], Floats]:
    """Where pipe is beyond its buckling force, and its effective compression: section × case × node."""
    frame, side = judged.frame, judged.side
    steel = np.asarray(areas_in2(side.od_in, side.wall_in)[2])
    buoyed = np.maximum(side.weight_ppf - PSI_PER_PPG_FT * frame.mud_ppg * steel, 0.0)
    critical = np.asarray(buckling_force(side.od_in, side.wall_in, buoyed, frame.inclination_deg, clearance_in))
    push = -judged.effective_lbf()
    return (push > critical) & judged.within[:, None, :] & frame.uncemented & ~frame.free[None, :, None], push


@sweeping()
def _long_enough(judged: Judged, bent: NDArray[np.bool_], push: Floats) -> NDArray[np.bool_]:
    """Of each case: the bent length holds half a pitch of the helix, π·√(8·E·J/F)."""
    frame, side = judged.frame, judged.side
    stiffness = STEEL_MODULUS_PSI * np.pi / 64 * (side.od_in**4 - (side.od_in - 2 * side.wall_in) ** 4)
    half_ft = np.pi / 2 * np.sqrt(8 * stiffness / np.maximum(push, 1.0)) / 12
    anywhere = np.asarray(bent.any(axis=0))
    first = frame.md_ft[np.argmax(anywhere, axis=1)]
    last = frame.md_ft[anywhere.shape[1] - 1 - np.argmax(anywhere[:, ::-1], axis=1)]
    needed = np.min(np.where(bent, half_ft, np.inf), axis=(0, 2))
    return np.asarray((last - first >= needed)[None, :, None])


def buckled(policy: PipePolicy, judged: Judged) -> Buckled | None:
    """The buckling of a string; None where it does not, or where nothing is free to."""
    frame, side, clearance = judged.frame, judged.side, _clearance_in(judged)
    if clearance is None or not np.any(frame.uncemented):
        return None
    bent, push = _bent(judged, clearance)
    bent &= _long_enough(judged, bent, push)
    if not np.any(bent):
        return None
    case = int(np.argmax(bent.any(axis=0).sum(axis=1)))
    here, most = bent[:, case], np.where(bent[:, case], push[:, case], 0.0)
    s, m = (int(i) for i in np.unravel_index(int(np.argmax(most)), most.shape))
    size = float(side.od_in[s, 0, 0]), float(side.wall_in[s, 0, 0])
    with headline(f"pipe/{frame.string.index}/buckled_bending_stress"):
        bending = float(buckled_bending_stress(*size, clearance, float(most[s, m])))
    from_md = float(frame.md_ft[int(np.argmax(here.any(axis=0)))])
    return Buckled(frame.cases[case].name, from_md, bending, _factor(policy, judged, case, bent, push, clearance))


@sweeping()
def _factor(
    policy: PipePolicy, judged: Judged, case: int, bent: NDArray[np.bool_], push: Floats, clearance_in: float
) -> float:
    """The least triaxial factor where the pipe is buckled in a case, with the bending of its helix."""
    frame, side = judged.frame, judged.side
    od, wall = side.od_in[:, 0], triaxial_wall(policy, side)[:, 0]
    extra = np.asarray(buckled_bending_stress(od, side.wall_in[:, 0], clearance_in, np.maximum(push[:, case], 0.0)))
    dogleg = frame.dogleg_deg_100ft + extra / (BEND_PSI_IN * od)
    pressures = frame.inside_psi[case], frame.outside_psi[case]
    stress = np.asarray(von_mises(od, wall, *pressures, judged.shares.axial_lbf[:, case], dogleg))
    return float(np.min(np.where(bent[:, case], side.yield_psi[:, 0] * frame.yield_share / stress, np.inf)))
