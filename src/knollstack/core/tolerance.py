"""Kick tolerance of a section in a well: weak point, bubble lengths along hole, and the least in the section.

The weak point is the shoe unless the fracture profile is weaker below it: the depth that allows the least
bubble. Between profile points P_frac(z) − G_m·z has its least value at an end wherever fracture exceeds mud,
so shoe and profile points are enough.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.basics import annular_capacity, hydrostatic_pressure
from knollstack.core.constants import PSI_PER_PPG_FT
from knollstack.core.formula import Value
from knollstack.core.kick import (
    formation_pressure,
    kick_height,
    kick_volume_at_weak_point,
    kick_volume_on_bottom,
    lesser_kick_volume,
)
from knollstack.core.well import Well

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Section:
    """An open hole to judge: its hole size and the drill string in it."""

    hole_in: float
    pipe_annulus_bbl_ft: float
    collar_annulus_bbl_ft: float
    collar_length_ft: float


@dataclass(frozen=True)
class Tolerance:
    """Tolerance for a kick at one depth, for one shoe and mud."""

    volume_bbl: float
    height_ft: float
    weak_tvd_ft: float
    kick_md_ft: float


def section_of(well: Well, hole_in: float) -> Section:
    drill = well.drill_string(hole_in)
    return Section(
        hole_in=hole_in,
        pipe_annulus_bbl_ft=annular_capacity(hole_in, min(drill.pipe_od_in, hole_in)),
        collar_annulus_bbl_ft=annular_capacity(hole_in, min(drill.collar_od_in, hole_in)),
        collar_length_ft=drill.collar_length_ft,
    )


def kick_depths_md(well: Well, top_md_ft: float, bottom_md_ft: float) -> Floats:
    """Depths at which a kick is judged: the section's end and every pore point inside it."""
    nodes = well.path.md_at(well.ground.pore.tvd_ft) if well.ground.pore.known else np.array([])
    inside = nodes[(nodes > top_md_ft) & (nodes < bottom_md_ft)]
    return np.append(inside, bottom_md_ft)


def _weak_points(well: Well, tops_tvd: Floats, mud: Floats, kicks_tvd: Floats) -> tuple[Floats, Floats]:
    """Weak point TVD and its fracture pressure, for each case of shoe, mud and kick depth."""
    nodes = well.ground.fracture.tvd_ft
    fracture = well.ground.fracture.at(nodes)
    gradient = PSI_PER_PPG_FT * mud
    weak = tops_tvd.copy()
    pressure = PSI_PER_PPG_FT * well.ground.fracture.at(tops_tvd) * tops_tvd
    if len(nodes):
        inside = (nodes[None, :] > tops_tvd[:, None]) & (nodes[None, :] < kicks_tvd[:, None])
        node_psi = PSI_PER_PPG_FT * fracture * nodes
        room = np.where(inside, node_psi[None, :] - gradient[:, None] * nodes[None, :], np.inf)
        k = np.argmin(room, axis=1)
        weaker = room[np.arange(len(k)), k] < pressure - gradient * tops_tvd
        weak = np.where(weaker, nodes[k], weak)
        pressure = np.where(weaker, node_psi[k], pressure)
    return weak, pressure


def tolerances_bbl(well: Well, section: Section, tops_md: Floats, mud: Floats, kicks_md: Floats) -> Floats:
    """Kick tolerance [bbl] of many cases at once: arrays of shoe, mud and kick depth. NaN is unknown."""
    kicks_tvd, tops_tvd = well.path.tvd_at(kicks_md), well.path.tvd_at(tops_md)
    pore = well.ground.pore.at(kicks_tvd)
    weak, weak_psi = _weak_points(well, tops_tvd, mud, kicks_tvd)
    known = np.isfinite(weak_psi) & np.isfinite(mud) & np.isfinite(pore) & (tops_tvd <= kicks_tvd)
    result = np.full(tops_md.shape, np.nan)
    if np.any(known):
        volumes = _volumes(
            well,
            section,
            weak[known],
            weak_psi[known],
            mud[known],
            pore[known],
            kicks_tvd[known],
            kicks_md[known],
        )
        result[known] = np.minimum(volumes[1], volumes[2])
    return result


def is_limited(well: Well, tops_md: Floats, mud: Floats, kicks_md: Floats) -> NDArray[np.bool_]:
    """Cases in which the rock, not the length of open hole, limits the bubble.

    Just below a shoe the bubble may fill the whole open hole: the clipped volume there says nothing of the rock.
    """
    kicks_tvd, tops_tvd = well.path.tvd_at(kicks_md), well.path.tvd_at(tops_md)
    weak, weak_psi = _weak_points(well, tops_tvd, mud, kicks_tvd)
    pore = well.ground.pore.at(kicks_tvd)
    formation = PSI_PER_PPG_FT * (pore + well.policy.kick_intensity_ppg) * kicks_tvd
    # a bubble over the whole open hole: gas from the kick up to the weak point
    return np.asarray(formation - well.policy.influx_psi_ft * (kicks_tvd - weak) > weak_psi)


def _volumes(
    well: Well,
    section: Section,
    weak_tvd: Value,
    weak_psi: Value,
    mud: Value,
    pore: Value,
    kick_tvd: Value,
    kick_md: Value,
) -> tuple[Floats, Floats, Floats]:
    """Height, volume at the weak point and volume on bottom, by the registered formulas."""
    policy = well.policy
    formation = formation_pressure(pore, policy.kick_intensity_ppg, kick_tvd)
    height = kick_height(weak_psi, formation, mud, kick_tvd, weak_tvd, policy.influx_psi_ft)
    weak_md = well.path.md_at(weak_tvd)
    at_weak = kick_volume_at_weak_point(
        # a path that climbs again may pass a TVD before the weak point: no length is counted there
        np.maximum(0.0, well.path.md_at(weak_tvd + height) - weak_md),
        np.maximum(0.0, kick_md - weak_md),
        section.pipe_annulus_bbl_ft,
        section.collar_annulus_bbl_ft,
        section.collar_length_ft,
        weak_psi,
        formation,
    )
    on_bottom = kick_volume_on_bottom(
        np.maximum(0.0, kick_md - well.path.md_at(kick_tvd - height)),
        section.pipe_annulus_bbl_ft,
        section.collar_annulus_bbl_ft,
        section.collar_length_ft,
    )
    return np.asarray(height), np.asarray(at_weak), np.asarray(on_bottom)


def least_bbl(well: Well, section: Section, tops_md: Floats, mud: Floats, bottom_md: float) -> Floats:
    """Least tolerance over the section for many shoes. NaN is unknown.

    Judged at the section's end, and at every pore point inside where the rock limits the bubble.
    """
    kicks = kick_depths_md(well, float(np.min(tops_md)), bottom_md)
    shape = (len(tops_md), len(kicks))
    cases = [np.ascontiguousarray(np.broadcast_to(a, shape)).ravel() for a in (tops_md[:, None], mud[:, None], kicks)]
    values = tolerances_bbl(well, section, *cases).reshape(shape)
    idle = tops_md[:, None] >= kicks[None, :]
    idle |= ~is_limited(well, *cases).reshape(shape) & ~np.isnan(values)
    idle[:, -1] = False
    return np.asarray(np.min(np.where(idle, np.inf, values), axis=1))


def tolerance_at(well: Well, section: Section, shoe_md: float, mud_ppg: float, kick_md: float) -> Tolerance | None:
    """Tolerance of one shoe for a kick at one depth, with its weak point; None where unknown."""
    kick_tvd, shoe_tvd = well.path.tvd(kick_md), well.path.tvd(shoe_md)
    pore = well.ground.pore.one(kick_tvd)
    weak, weak_psi = _weak_points(well, np.array([shoe_tvd]), np.array([mud_ppg]), np.array([kick_tvd]))
    if pore is None or not np.isfinite(weak_psi[0]) or kick_tvd < shoe_tvd:
        return None
    fracture = well.ground.fracture.one(float(weak[0]))
    assert fracture is not None
    psi = hydrostatic_pressure(fracture, float(weak[0]))
    traced = section_of(well, section.hole_in)
    height, at_weak, on_bottom = _volumes(well, traced, float(weak[0]), psi, mud_ppg, pore, kick_tvd, kick_md)
    volume = lesser_kick_volume(float(at_weak), float(on_bottom))
    return Tolerance(volume, float(height), float(weak[0]), kick_md)


def least_at(well: Well, section: Section, shoe_md: float, mud_ppg: float, bottom_md: float) -> Tolerance | None:
    """Least tolerance of one shoe over the section below it; None when it is unknown anywhere."""
    kicks = kick_depths_md(well, shoe_md, bottom_md)
    same = np.ones(kicks.shape)
    cases = (shoe_md * same, mud_ppg * same, kicks)
    values = tolerances_bbl(well, section, *cases)
    if np.any(np.isnan(values)):
        return None
    idle = ~is_limited(well, *cases)
    idle[-1] = False
    values = np.where(idle, np.inf, values)
    return tolerance_at(well, section, shoe_md, mud_ppg, float(kicks[int(np.argmin(values))]))
