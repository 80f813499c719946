"""The strength of a tubing in every case along its length: burst, collapse, tension, compression, combined stress."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import safety_factor
from knollstack.core.base.working import headline
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.ratings import (
    HIGHEST_STRESS_SHARE,
    equivalent_external_pressure,
    pipe_collapse,
    von_mises,
)
from knollstack.core.completion.movement import Along, Held, Moved, along
from knollstack.core.document.policy import DesignFactors
from knollstack.core.pipe.buckling import BEND_PSI_IN
from knollstack.core.pipe.formulas import areas_in2, buckled_bending_stress, burst_load

Floats = NDArray[np.float64]
Kind = Literal["burst", "collapse", "tension", "compression", "triaxial"]
KINDS: tuple[Kind, ...] = ("burst", "collapse", "tension", "compression", "triaxial")
SHARES = np.linspace(0.0, 1.0, 25)
"""Loads are straight between the ends but for the helix's bending: its end lies on no node, and its worst at the packer."""


@dataclass(frozen=True)
class Strong:
    """The least factor of a kind, and where."""

    kind: Kind
    case: int
    share: float
    factor: float
    load: float
    rating: float


def internal_psi(pipe: Pipe) -> float | None:
    """What pipe and connection hold inside; None where the connection is not known."""
    if pipe.coupling_psi is None or pipe.leak_psi is None:
        return None
    return min(pipe.burst_psi, pipe.coupling_psi, pipe.leak_psi)


@sweeping()
def _fields(pipe: Pipe, held: Held, at: Along) -> dict[Kind, tuple[Floats, Floats]]:
    """Load and rating of each kind along the tubing, case × node."""
    size, yields = (pipe.od_in, pipe.wall_in), pipe.grade.yield_psi
    steel = float(areas_in2(*size)[2])
    inner, shape = internal_psi(pipe), at.axial_lbf.shape
    stress = np.maximum(at.axial_lbf / steel, 0.0)
    known = stress <= HIGHEST_STRESS_SHARE * yields
    crush = np.where(known, pipe_collapse(*size, yields, np.where(known, stress, 0.0)), np.nan)
    bent = np.asarray(buckled_bending_stress(*size, held.radial_in, at.bending_lbf)) / (BEND_PSI_IN * pipe.od_in)
    combined = np.asarray(von_mises(*size, at.inside_psi, at.outside_psi, at.axial_lbf, bent))

    def rated(value: float | None) -> Floats:
        return np.full(shape, np.nan if value is None else value)

    pull = None if pipe.joint_lbf is None else min(pipe.joint_lbf, pipe.body_lbf)
    push = None if pipe.push_lbf is None else min(pipe.push_lbf, pipe.body_lbf)
    return {
        "burst": (at.inside_psi - at.outside_psi, rated(inner)),
        "collapse": (np.asarray(equivalent_external_pressure(at.outside_psi, at.inside_psi, *size)), crush),
        "tension": (at.axial_lbf, rated(pull)),
        "compression": (-at.axial_lbf, rated(push)),
        "triaxial": (combined, rated(yields)),
    }


def strengths(pipe: Pipe, held: Held, done: tuple[Moved, ...]) -> dict[Kind, tuple[Strong | None, ...]]:
    """Of every case its least factor of each kind; None where it has no such load. A factor is NaN where it is unknown."""
    found: dict[Kind, tuple[Strong | None, ...]] = {}
    for kind, (load, rating) in _fields(pipe, held, along(held, done, SHARES)).items():
        with np.errstate(over="ignore"):
            factor = np.divide(rating, load, out=np.full(load.shape, np.inf), where=load > 0)
        nodes = np.argmin(factor, axis=1)
        rows = [_at(kind, k, n, factor[k, n], load[k, n], rating[k, n]) for k, n in enumerate(nodes.tolist())]
        found[kind] = tuple(rows)
    return found


def _at(kind: Kind, case: int, node: int, factor: float, load: float, rating: float) -> Strong | None:
    if np.isinf(factor):
        return None
    return Strong(kind, case, float(SHARES[node]), float(factor), float(load), float(rating))


def worst(rows: tuple[Strong | None, ...]) -> Strong | None:
    """The least of all cases; an unknown one before all."""
    loaded = [row for row in rows if row is not None]
    unknown = next((row for row in loaded if np.isnan(row.factor)), None)
    return unknown or min(loaded, key=lambda row: row.factor, default=None)


def required(factors: DesignFactors, kind: Kind) -> float:
    return float(getattr(factors, kind))


def least_share(factors: DesignFactors, found: dict[Kind, tuple[Strong | None, ...]]) -> float:
    """The least factor over what is asked; NaN where one is unknown."""
    shares = [s.factor / required(factors, kind) for kind in KINDS if (s := worst(found[kind])) is not None]
    return float(np.min(shares)) if shares else float("inf")


def worked(pipe: Pipe, held: Held, done: Moved, strong: Strong) -> Strong:
    """The governing point again, with its working kept."""
    at = along(held, (done,), np.array([strong.share]))
    inside, outside, axial = float(at.inside_psi[0, 0]), float(at.outside_psi[0, 0]), float(at.axial_lbf[0, 0])
    size, yields = (pipe.od_in, pipe.wall_in), pipe.grade.yield_psi
    rating = strong.rating
    with headline(f"completion/tubing/{strong.kind}"):
        if strong.kind == "burst":
            load = float(burst_load(inside, outside))
        elif strong.kind == "collapse":
            load = float(equivalent_external_pressure(outside, inside, *size))
            rating = float(pipe_collapse(*size, yields, max(axial / float(areas_in2(*size)[2]), 0.0)))
        elif strong.kind == "triaxial":
            bent = float(buckled_bending_stress(*size, held.radial_in, float(at.bending_lbf[0, 0])))
            load = float(von_mises(*size, inside, outside, axial, bent / (BEND_PSI_IN * pipe.od_in)))
        else:
            load = abs(axial)
        factor = float(safety_factor(rating, load))
    return Strong(strong.kind, strong.case, strong.share, factor, load, rating)
