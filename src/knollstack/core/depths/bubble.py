"""One bubble of gas: a kick at one depth, the rock at another above it, and the volume that just reaches it.

Heights are vertical, volumes along hole.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import Value
from knollstack.core.base.formulas import annular_capacity, hydrostatic_pressure
from knollstack.core.depths.formulas import (
    choke_line_allowance,
    formation_pressure,
    kick_height,
    kick_volume_at_weak_point,
    kick_volume_on_bottom,
    lesser_kick_volume,
)
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class OpenHole:
    """An open hole to judge: its hole size and the drill string in it."""

    hole_in: float
    pipe_annulus_bbl_ft: float
    collar_annulus_bbl_ft: float
    collar_length_ft: float


@dataclass(frozen=True)
class Tolerance:
    """Kick tolerance [bbl] for a kick at one depth and a weak point above it, and the height [ft] of the bubble."""

    volume_bbl: float
    height_ft: float
    weak_tvd_ft: float
    kick_md_ft: float


def open_hole(well: Well, hole_in: float) -> OpenHole:
    drill = well.drill_string(hole_in)
    return OpenHole(
        hole_in=hole_in,
        pipe_annulus_bbl_ft=annular_capacity(hole_in, min(drill.pipe_od_in, hole_in)),
        collar_annulus_bbl_ft=annular_capacity(hole_in, min(drill.collar_od_in, hole_in)),
        collar_length_ft=drill.collar_length_ft,
    )


def volumes(
    well: Well, hole: OpenHole, weak_tvd: Value, weak_psi: Value, mud: Value, kick_tvd: Value, kick_psi: Value
) -> tuple[Floats, Floats, Floats]:
    """Height, volume at the weak point and volume on bottom, by the registered formulas."""
    path = well.path
    height = kick_height(weak_psi, kick_psi, mud, kick_tvd, weak_tvd, well.policy.depths.influx_psi_ft)
    weak_md, bubble_md, kick_md, rise_md = path.md_at(
        np.array([weak_tvd, weak_tvd + height, kick_tvd, kick_tvd - height])
    )
    at_weak = kick_volume_at_weak_point(
        # a path that climbs again may pass a TVD before the weak point: no length is counted there
        np.maximum(0.0, bubble_md - weak_md),
        np.maximum(0.0, kick_md - weak_md),
        hole.pipe_annulus_bbl_ft,
        hole.collar_annulus_bbl_ft,
        hole.collar_length_ft,
        weak_psi,
        kick_psi,
    )
    on_bottom = kick_volume_on_bottom(
        np.maximum(0.0, kick_md - rise_md), hole.pipe_annulus_bbl_ft, hole.collar_annulus_bbl_ft, hole.collar_length_ft
    )
    return np.asarray(height), np.asarray(at_weak), np.asarray(on_bottom)


def tolerance_of(well: Well, hole_in: float, weak_tvd_ft: float, mud_ppg: float, kick_tvd_ft: float) -> Tolerance:
    """Kick tolerance of one weak point for a kick at one depth, where pore and fracture pressure are known."""
    pore, fracture = well.ground.pore.one(kick_tvd_ft), well.ground.fracture.one(weak_tvd_ft)
    assert pore is not None
    assert fracture is not None
    psi = hydrostatic_pressure(fracture, weak_tvd_ft)
    if well.site.choke_line_psi:
        psi = choke_line_allowance(psi, well.site.choke_line_psi)
    kick_psi = formation_pressure(pore, well.policy.depths.kick_intensity_ppg, kick_tvd_ft)
    height, *both = volumes(well, open_hole(well, hole_in), weak_tvd_ft, psi, mud_ppg, kick_tvd_ft, kick_psi)
    volume = lesser_kick_volume(float(both[0]), float(both[1]))
    return Tolerance(volume, float(height), weak_tvd_ft, well.path.md(kick_tvd_ft))
