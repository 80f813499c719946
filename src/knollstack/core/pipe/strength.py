"""Many pipes against all cases of a string at all depths at once: forces, ratings, and factor over required factor.

Arrays are pipe × case × node. What a pipe carries enters as one number a node: the weight of the string below and
of the mud inside it. A share of 1 or more stands.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.ratings import (
    HIGHEST_STRESS_SHARE,
    equivalent_external_pressure,
    pipe_body_yield,
    pipe_collapse,
    reduced_yield,
    von_mises,
    worn_wall,
)
from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.formulas import (
    areas_in2,
    ballooning_force,
    bending_force,
    closed_end_force,
    hanging_force,
    shock_load,
    thermal_force,
    weight_with_other_fluid,
)
from knollstack.core.pipe.frame import Frame

Floats = NDArray[np.float64]
MINIMUM_WALL = 0.875
LEAST_YIELD_PSI = 6_500.0
"""Under what the greatest known tension leaves of any grade, 0.176 of 40,000 psi: below it collapse is unknown."""


def column(values: Sequence[float]) -> Floats:
    return np.array(values, dtype=float)[:, None, None]


@dataclass(frozen=True, eq=False)
class Rack:
    """Pipes as arrays, each pipe × 1 × 1, worn as the string will be. NaN is an unknown rating."""

    od_in: Floats
    wall_in: Floats
    worn_in: Floats
    yield_psi: Floats
    weight_ppf: Floats
    internal_psi: Floats
    collapse_scale: Floats
    pull_lbf: Floats
    push_lbf: Floats


def rack(pipes: Sequence[Pipe], wear_percent: float) -> Rack:
    """Pipes of one size side by side."""
    return _rack(tuple(pipes), wear_percent)


@remembered(128)
def _rack(pipes: tuple[Pipe, ...], wear_percent: float) -> Rack:
    wall = column([p.wall_in for p in pipes])
    worn = np.asarray(worn_wall(wall, wear_percent))
    left = 1 - wear_percent / 100
    none = np.nan
    inner = [
        min(
            p.burst_psi * left,
            p.coupling_psi if p.coupling_psi is not None else none,
            p.leak_psi if p.leak_psi is not None else none,
        )
        if p.coupling_psi is not None and p.leak_psi is not None
        else none
        for p in pipes
    ]
    bodies = [worn_body_lbf(p, wear_percent) for p in pipes]
    pull = [none if p.joint_lbf is None else min(p.joint_lbf, body) for p, body in zip(pipes, bodies, strict=True)]
    push = [none if p.push_lbf is None else min(p.push_lbf, body) for p, body in zip(pipes, bodies, strict=True)]
    scale = [1.0 if p.own.collapse_psi is None else p.own.collapse_psi / plain_collapse(p) for p in pipes]
    return Rack(
        od_in=column([p.od_in for p in pipes]),
        wall_in=wall,
        worn_in=worn,
        yield_psi=column([p.grade.yield_psi for p in pipes]),
        weight_ppf=column([p.weight_ppf for p in pipes]),
        internal_psi=column(inner),
        collapse_scale=column(scale),
        pull_lbf=column(pull),
        push_lbf=column(push),
    )


def worn_body_lbf(pipe: Pipe, wear_percent: float) -> float:
    """Body yield [lbf] of a pipe as worn."""
    if not wear_percent:
        return pipe.body_lbf
    size = pipe.od_in, float(worn_wall(pipe.wall_in, wear_percent))
    left = float(areas_in2(*size)[2] / areas_in2(pipe.od_in, pipe.wall_in)[2])
    return pipe.own.body_lbf * left if pipe.own.body_lbf else float(pipe_body_yield(*size, pipe.grade.yield_psi))


def plain_collapse(pipe: Pipe) -> float:
    return float(pipe_collapse(pipe.od_in, pipe.wall_in, pipe.grade.yield_psi))


def added_force(frame: Frame, pipes: Rack) -> Floats:
    """Real axial force less the weight below: of each pipe in each case at each node."""
    size, fluid = (pipes.od_in, pipes.wall_in), (frame.mud_ppg, frame.below_tvd_ft)
    inside, shoe = frame.inside_psi[None], frame.shoe_outside_psi[None, :, None]
    # what stands inside is the mud in most cases, but not in all
    other = weight_with_other_fluid(0.0, frame.shoe_inside_psi[None, :, None], inside, *fluid, *size)
    hung = np.asarray(hanging_force(other, inside, shoe, *size))
    at_set = frame.set_inside_psi[None, None]
    displaced = weight_with_other_fluid(0.0, float(frame.set_inside_psi[-1]), at_set, *fluid, *size)
    as_set = np.asarray(hanging_force(displaced, at_set, float(frame.set_outside_psi[-1]), *size))
    ballooned = ballooning_force(*size, frame.inside_change_psi[None], frame.outside_change_psi[None])
    if np.any(frame.free_top):
        pulled = closed_end_force(*size, (frame.inside_psi - frame.set_inside_psi)[None])
        ballooned = np.where(frame.free_top, pulled, ballooned)
    held = as_set + thermal_force(*size, frame.heat_f[None]) + ballooned
    steel = areas_in2(*size)[2]
    extra = frame.added_lbf[None] + np.asarray(shock_load(frame.shock_ft_s[None, :, None], steel))
    return np.asarray(np.where(frame.free[None, :, None], hung, held) + extra)


def weight_per_ft(frame: Frame, pipes: Rack) -> Floats:
    """Weight of pipe and of the mud in it per foot of TVD."""
    return np.asarray(pipes.weight_ppf + PSI_PER_PPG_FT * frame.mud_ppg * areas_in2(pipes.od_in, pipes.wall_in)[1])


@dataclass(frozen=True)
class Shares:
    """Safety factor over required factor, and the loads and ratings that gave it. Infinite is no load; NaN unknown."""

    burst: Floats
    collapse: Floats
    tension: Floats
    compression: Floats
    triaxial: Floats
    axial_lbf: Floats
    bending_lbf: Floats
    burst_psi: Floats
    collapse_psi: Floats
    collapse_rating_psi: Floats
    stress_psi: Floats

    def least(self) -> Floats:
        """The least share of each pipe over all cases and nodes; NaN where anything that counts is unknown."""
        parts = (self.burst, self.collapse, self.tension, self.compression, self.triaxial)
        return np.asarray(np.min([np.min(part, axis=(1, 2)) for part in parts], axis=0))


def _over(rating: Floats, load: Floats, required: Floats | float) -> Floats:
    """Rating over load over required factor; infinite where there is no load."""
    with np.errstate(over="ignore"):  # next to no load is none
        return np.divide(rating, load * required, out=np.full(load.shape, np.inf), where=load > 0)


def collapse_rating(frame: Frame, pipes: Rack, axial_lbf: Floats) -> Floats:
    """Collapse resistance under the axial stress of each case: NaN beyond the stress up to which it is known."""
    yields = np.broadcast_to(pipes.yield_psi * frame.yield_share, axial_lbf.shape)
    stress = np.maximum(axial_lbf / areas_in2(pipes.od_in, pipes.wall_in)[2], 0.0)
    highest = HIGHEST_STRESS_SHARE * yields
    known = (stress <= highest) & (reduced_yield(yields, np.minimum(stress, highest)) >= LEAST_YIELD_PSI)
    usual = float(np.max(pipes.yield_psi))
    rating = pipe_collapse(pipes.od_in, pipes.worn_in, np.where(known, yields, usual), np.where(known, stress, 0.0))
    return np.asarray(np.where(known, rating, np.nan) * pipes.collapse_scale)


def triaxial_wall(policy: PipePolicy, pipes: Rack) -> Floats:
    """The wall that counts in triaxial stress: worn, and the least that is delivered where policy takes that."""
    return pipes.worn_in * (MINIMUM_WALL if policy.triaxial_wall == "minimum" else 1.0)


@sweeping()
def shares(policy: PipePolicy, frame: Frame, pipes: Rack, below_lbf: Floats) -> Shares:
    """Every pipe in every case at every node, given the weight below each node."""
    factors, size = policy.factors, (pipes.od_in, pipes.wall_in)
    axial = below_lbf + added_force(frame, pipes)
    steel = np.asarray(areas_in2(*size)[2])
    bending = np.asarray(bending_force(pipes.od_in, frame.dogleg_deg_100ft, steel))
    inside, outside = frame.inside_psi[None], frame.outside_psi[None]
    burst = np.broadcast_to(inside - outside, axial.shape)
    crush = np.asarray(equivalent_external_pressure(outside, inside, pipes.od_in, pipes.worn_in))
    rating = collapse_rating(frame, pipes, axial)
    yields = pipes.yield_psi * frame.yield_share
    wall = triaxial_wall(policy, pipes)
    stress = np.asarray(von_mises(pipes.od_in, wall, inside, outside, axial, frame.dogleg_deg_100ft))
    return Shares(
        burst=_over(pipes.internal_psi * frame.yield_share, burst, factors.burst),
        collapse=_over(rating, crush, frame.collapse_required[None]),
        tension=_over(pipes.pull_lbf * frame.yield_share, axial + bending, factors.tension),
        compression=_over(pipes.push_lbf * frame.yield_share, bending - axial, factors.compression),
        triaxial=_over(yields, stress, factors.triaxial),
        axial_lbf=axial,
        bending_lbf=bending,
        burst_psi=burst,
        collapse_psi=crush,
        collapse_rating_psi=rating,
        stress_psi=stress,
    )


@remembered(64)
def _alone(pipes: tuple[Pipe, ...]) -> dict[str, Floats]:
    """What each pipe stands by itself, as arrays; NaN where a rating is unknown."""
    none = np.nan
    joints = [(p.coupling_psi or none, p.leak_psi or none, p.joint_lbf or none) for p in pipes]
    coupling, leak, joint = np.array(joints, dtype=float).reshape(-1, 3).T
    od, bore = np.array([p.od_in for p in pipes]), np.array([p.id_in for p in pipes])
    return {
        "burst": np.array([p.burst_psi for p in pipes]),
        "joint_psi": np.minimum(coupling, leak),
        "collapse": np.array([p.collapse_psi for p in pipes]),
        "pull": np.minimum(joint, np.array([p.body_lbf for p in pipes])),
        "weight": np.array([p.weight_ppf for p in pipes]),
        "steel": np.pi / 4 * (od**2 - bore**2),
    }


def may_stand(policy: PipePolicy, frame: Frame, pipes: tuple[Pipe, ...]) -> tuple[Pipe, ...]:
    """Pipes left after what needs no working along the string: burst, collapse without tension, hanging in mud."""
    if not pipes:
        return ()
    factors, left, have = policy.factors, 1 - frame.string.own.wear_percent / 100, _alone(pipes)
    burst = float(np.max((frame.inside_psi - frame.outside_psi) / frame.yield_share)) * factors.burst
    crush = float(np.max((frame.outside_psi - frame.inside_psi) * frame.collapse_required))
    buoyed = (have["weight"] - PSI_PER_PPG_FT * frame.mud_ppg * have["steel"]) * float(frame.below_tvd_ft[0])
    inner = np.minimum(have["burst"] * left, have["joint_psi"])
    # a comparison with an unknown rating is false
    ok = (inner >= burst - 1e-6) & (have["collapse"] >= crush - 1e-6)
    ok &= have["pull"] >= buoyed * factors.tension - 1e-6
    return tuple(pipe for pipe, stands in zip(pipes, ok.tolist(), strict=True) if stands)


def least_shares(policy: PipePolicy, frame: Frame, pipes: Sequence[Pipe]) -> Floats:
    """The least share of each pipe as the whole string; NaN where a rating that counts is unknown."""
    side = rack(pipes, frame.string.own.wear_percent)
    return shares(policy, frame, side, weight_per_ft(frame, side) * frame.below_tvd_ft).least()
