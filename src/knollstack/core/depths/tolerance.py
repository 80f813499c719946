"""Kick tolerance of a section in a well: weak point, bubble lengths along hole, and the least in the section.

The weak point is the shoe unless the fracture profile is weaker below it: the depth that allows the least
bubble. Between profile points P_frac(z) − G_m·z has its least value at an end wherever fracture exceeds mud,
so shoe and profile points are enough.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import Value, sweeping
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
    """Tolerance for a kick at one depth, for one shoe and mud.

    `limited` is false where the bubble may fill the whole open hole: then the rock stands a kick of any volume.
    """

    volume_bbl: float
    limited: bool
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


def kick_depths_md(well: Well, top_md_ft: float, bottom_md_ft: float) -> Floats:
    """Depths at which a kick is judged: the section's end and every pore point inside it."""
    nodes = well.path.md_at(well.ground.pore.tvd_ft) if well.ground.pore.known else np.array([])
    inside = nodes[(nodes > top_md_ft) & (nodes < bottom_md_ft)]
    return np.append(inside, bottom_md_ft)


def _weak_points(well: Well, tops_tvd: Floats, mud: Floats, kicks_tvd: Floats) -> tuple[Floats, Floats]:
    """Weak point TVD and its fracture pressure for every shoe with its mud (rows) and every kick depth (columns)."""
    nodes, node_psi = well.ground.fracture.tvd_ft, well.ground.fracture_psi
    open_to = (nodes > np.min(tops_tvd)) & (nodes < np.max(kicks_tvd))
    nodes, node_psi = nodes[open_to], node_psi[open_to]
    gradient = PSI_PER_PPG_FT * mud[:, None]
    top_psi = PSI_PER_PPG_FT * well.ground.fracture.at(tops_tvd) * tops_tvd
    shape = (len(tops_tvd), len(kicks_tvd))
    weak, pressure = np.full(shape, tops_tvd[:, None]), np.full(shape, top_psi[:, None])
    if not len(nodes):
        return weak, pressure
    room = np.where(nodes[None, :] > tops_tvd[:, None], node_psi - gradient * nodes, np.inf)
    # the least room of all nodes down to each, and the node that has it
    least = np.minimum.accumulate(room, axis=1)
    fresh = np.concatenate([np.ones((len(room), 1), dtype=bool), least[:, 1:] < least[:, :-1]], axis=1)
    holder = np.maximum.accumulate(np.where(fresh, np.arange(len(nodes)), 0), axis=1)
    last = np.searchsorted(nodes, kicks_tvd, side="left") - 1
    reached = np.where(last >= 0, least[:, last], np.inf)
    weaker = reached < (top_psi - gradient[:, 0] * tops_tvd)[:, None]
    k = holder[:, last]
    return np.where(weaker, nodes[k], weak), np.where(weaker, node_psi[k], pressure)


@dataclass(frozen=True)
class Tolerances:
    """Tolerance [bbl] of every shoe (rows) for a kick at every depth (columns). NaN is unknown.

    `limited`: the rock, not the length of open hole, limits the bubble. Just below a shoe the bubble may fill the
    whole open hole: the clipped volume there says nothing of the rock.
    """

    volume_bbl: Floats
    limited: NDArray[np.bool_]
    weak_tvd_ft: Floats
    height_ft: Floats


@sweeping()
def tolerances(
    well: Well, hole: OpenHole, tops_md: Floats, mud: Floats, kicks_md: Floats, intensity_ppg: Floats | None = None
) -> Tolerances:
    """Kick tolerance of many shoes, each with its mud, for kicks at many depths; of one shoe also at many intensities."""
    intensity = np.array([well.policy.depths.kick_intensity_ppg]) if intensity_ppg is None else intensity_ppg
    kicks_tvd, tops_tvd = well.path.tvd_at(kicks_md), well.path.tvd_at(tops_md)
    pore = well.ground.pore.at(kicks_tvd)
    weak, weak_psi = _weak_points(well, tops_tvd, mud, kicks_tvd)
    weak_psi = weak_psi - (well.site.choke_line_psi or 0.0)
    known = np.isfinite(weak_psi) & np.isfinite(mud)[:, None] & np.isfinite(pore)
    known &= tops_tvd[:, None] <= kicks_tvd[None, :]
    shape = (max(len(tops_md), len(intensity)), len(kicks_md))
    parts = (weak, weak_psi, mud[:, None], pore, kicks_tvd, kicks_md, intensity[:, None])
    whole = [np.broadcast_to(part, shape) for part in parts]
    limited = np.asarray(_limited(well, whole[3], kicks_tvd, whole[0], whole[1], whole[6]))
    volume, height = np.full(shape, np.nan), np.full(shape, np.nan)
    if np.any(known):
        some = np.broadcast_to(known, shape)
        heights, at_weak, on_bottom = _volumes(well, hole, *(part[some] for part in whole))
        volume[some], height[some] = np.minimum(at_weak, on_bottom), heights
    return Tolerances(volume, limited, whole[0], height)


def _limited(well: Well, pore: Value, kick_tvd: Value, weak_tvd: Value, weak_psi: Value, intensity: Value) -> Value:
    """Whether a bubble over the whole open hole, gas from the kick up to the weak point, breaks the weak point."""
    formation = PSI_PER_PPG_FT * (pore + intensity) * kick_tvd
    return formation - well.policy.depths.influx_psi_ft * (kick_tvd - weak_tvd) > weak_psi


def _volumes(
    well: Well,
    hole: OpenHole,
    weak_tvd: Value,
    weak_psi: Value,
    mud: Value,
    pore: Value,
    kick_tvd: Value,
    kick_md: Value,
    intensity: Value,
) -> tuple[Floats, Floats, Floats]:
    """Height, volume at the weak point and volume on bottom, by the registered formulas."""
    policy = well.policy.depths
    formation = formation_pressure(pore, intensity, kick_tvd)
    height = kick_height(weak_psi, formation, mud, kick_tvd, weak_tvd, policy.influx_psi_ft)
    weak_md, bubble_md, rise_md = well.path.md_at(np.array([weak_tvd, weak_tvd + height, kick_tvd - height]))
    at_weak = kick_volume_at_weak_point(
        # a path that climbs again may pass a TVD before the weak point: no length is counted there
        np.maximum(0.0, bubble_md - weak_md),
        np.maximum(0.0, kick_md - weak_md),
        hole.pipe_annulus_bbl_ft,
        hole.collar_annulus_bbl_ft,
        hole.collar_length_ft,
        weak_psi,
        formation,
    )
    on_bottom = kick_volume_on_bottom(
        np.maximum(0.0, kick_md - rise_md), hole.pipe_annulus_bbl_ft, hole.collar_annulus_bbl_ft, hole.collar_length_ft
    )
    return np.asarray(height), np.asarray(at_weak), np.asarray(on_bottom)


def _judged(found: Tolerances, tops_md: Floats, kicks_md: Floats) -> Floats:
    """Volumes that count: where the rock limits the bubble. Infinite where it does not, NaN where unknown."""
    idle = tops_md[:, None] >= kicks_md[None, :]
    free = ~found.limited & ~np.isnan(found.volume_bbl)
    return np.where(idle | free, np.inf, found.volume_bbl)


def least_bbl(well: Well, hole: OpenHole, tops_md: Floats, mud: Floats, bottom_md: float) -> Floats:
    """Least tolerance over the section for many shoes: infinite where the rock limits nothing. NaN is unknown."""
    kicks = kick_depths_md(well, float(np.min(tops_md)), bottom_md)
    return np.asarray(np.min(_judged(tolerances(well, hole, tops_md, mud, kicks), tops_md, kicks), axis=1))


def gives(
    well: Well, hole: OpenHole, tops_md: Floats, mud: Floats, bottom_md: float, asked_bbl: float
) -> NDArray[np.bool_]:
    """Shoes that give a tolerance over the whole section; unknown does not.

    Most that fail do so at the section's end, so the depths inside are worked only for those that pass there.
    """
    ends = np.array([bottom_md])
    ok = np.asarray(_judged(tolerances(well, hole, tops_md, mud, ends), tops_md, ends)[:, 0] >= asked_bbl)
    if np.any(ok):
        ok[ok] = least_bbl(well, hole, tops_md[ok], mud[ok], bottom_md) >= asked_bbl
    return ok


def tolerance_at(well: Well, hole: OpenHole, shoe_md: float, mud_ppg: float, kick_md: float) -> Tolerance | None:
    """Tolerance of one shoe for a kick at one depth, with its weak point; None where unknown."""
    kick_tvd, shoe_tvd = well.path.tvd(kick_md), well.path.tvd(shoe_md)
    pore = well.ground.pore.one(kick_tvd)
    points, pressures = _weak_points(well, np.array([shoe_tvd]), np.array([mud_ppg]), np.array([kick_tvd]))
    weak = float(points[0, 0])
    if pore is None or not np.isfinite(pressures[0, 0]) or kick_tvd < shoe_tvd:
        return None
    fracture = well.ground.fracture.one(weak)
    assert fracture is not None
    psi = hydrostatic_pressure(fracture, weak)
    if well.site.choke_line_psi:
        psi = choke_line_allowance(psi, well.site.choke_line_psi)
    intensity = well.policy.depths.kick_intensity_ppg
    traced = open_hole(well, hole.hole_in)
    height, at_weak, on_bottom = _volumes(well, traced, weak, psi, mud_ppg, pore, kick_tvd, kick_md, intensity)
    volume = lesser_kick_volume(float(at_weak), float(on_bottom))
    return Tolerance(volume, bool(_limited(well, pore, kick_tvd, weak, psi, intensity)), float(height), weak, kick_md)


def _worst_md(judged: Floats, kicks_md: Floats) -> float:
    """Depth of the kick of which a shoe tolerates least; the section's end where nothing is limited."""
    return float(kicks_md[int(np.argmin(judged)) if np.any(np.isfinite(judged)) else -1])


def least_kick_md(well: Well, hole: OpenHole, shoe_md: float, mud_ppg: float, bottom_md: float) -> float | None:
    """Depth of the kick of which one shoe tolerates least over the section below it; None when it is unknown anywhere."""
    kicks, tops = kick_depths_md(well, shoe_md, bottom_md), np.array([shoe_md])
    judged = _judged(tolerances(well, hole, tops, np.array([mud_ppg]), kicks), tops, kicks)[0]
    return None if np.any(np.isnan(judged)) else _worst_md(judged, kicks)


def least_at(well: Well, hole: OpenHole, shoe_md: float, mud_ppg: float, bottom_md: float) -> Tolerance | None:
    """Least tolerance of one shoe over the section below it; None when it is unknown anywhere."""
    kick_md = least_kick_md(well, hole, shoe_md, mud_ppg, bottom_md)
    return None if kick_md is None else tolerance_at(well, hole, shoe_md, mud_ppg, kick_md)


COARSE_PPG, FINE_PPG, MOST_PPG = 0.2, 0.01, 5.0


def greatest_intensity_ppg(
    well: Well, hole: OpenHole, shoe_md: float, mud_ppg: float, bottom_md: float, volume_bbl: float
) -> float | None:
    """Greatest kick intensity [ppg], in hundredths, at which a volume is still tolerated over the whole section.

    0 where not even a swabbed kick of that volume is; None where it is unknown. More intensity never raises tolerance.
    """
    kicks, low, top = kick_depths_md(well, shoe_md, bottom_md), 0.0, np.array([shoe_md])
    for step, span in ((COARSE_PPG, MOST_PPG), (FINE_PPG, COARSE_PPG)):
        tried = low + np.arange(0.0, span + step / 2, step)
        found = _judged(tolerances(well, hole, top, np.array([mud_ppg]), kicks, tried), top, kicks)
        least = np.min(found, axis=1)
        if np.any(np.isnan(least)):
            return None
        holds = np.flatnonzero(least >= volume_bbl - 1e-9)
        if not len(holds):
            return 0.0
        low = float(tried[holds[-1]])
    return round(low, 2)
