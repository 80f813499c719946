"""The ground as its views draw it: profiles, window and pressures as points along the well."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.base.remember import remembered
from knollstack.core.ground.profiles import Profile
from knollstack.core.ground.results import GroundDrawing, PressurePoint, TrackPoint, WindowPoint
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]
STEP_FT = 100.0
EDGE_FT = 0.01


@remembered(16)
def ground_drawing(well: Well) -> GroundDrawing:
    """Of the well alone: asked once, and not again while strings are dragged."""
    return GroundDrawing(
        pore=_track(well, well.ground.pore),
        fracture=_track(well, well.ground.fracture),
        stability=_track(well, well.ground.stability),
        window=_window(well),
        pressures=_pressures(well),
    )


def _track(well: Well, profile: Profile) -> tuple[TrackPoint, ...]:
    """A profile's points on the well's axis, both sides of a step, cut at the well's deepest point."""
    deepest = well.path.deepest_tvd_ft
    points: list[TrackPoint] = []
    mds = well.path.md_at(profile.tvd_ft) if len(profile.tvd_ft) else np.array([])
    for md, z, above, below in zip(mds, profile.tvd_ft, profile.above_ppg, profile.below_ppg, strict=True):
        if z > deepest:
            value = profile.one(deepest)
            if value is not None and points and points[-1].tvd_ft < deepest:
                points.append(TrackPoint(md_ft=well.path.md(deepest), tvd_ft=deepest, emw_ppg=value))
            break
        points.append(TrackPoint(md_ft=float(md), tvd_ft=float(z), emw_ppg=float(above)))
        if above != below:
            points.append(TrackPoint(md_ft=float(md), tvd_ft=float(z), emw_ppg=float(below)))
    return tuple(points)


def _depths(well: Well) -> Floats:
    """A grid, and just either side of every point and boundary."""
    deepest, marks = well.path.deepest_tvd_ft, well.window.depths_ft
    depths = np.concatenate([np.arange(0, deepest, STEP_FT), marks - EDGE_FT, marks + EDGE_FT, [deepest]])
    return np.unique(depths[(depths >= 0) & (depths <= deepest)])


def _known(values: Floats) -> list[float | None]:
    return [float(v) if np.isfinite(v) else None for v in values]


@sweeping()
def _pressures(well: Well) -> tuple[PressurePoint, ...]:
    depths = _depths(well)
    pore = _known(np.asarray(hydrostatic_pressure(well.ground.pore.at(depths), depths)))
    fracture = _known(np.asarray(hydrostatic_pressure(well.ground.fracture.at(depths), depths)))
    return tuple(
        PressurePoint(md_ft=float(md), pore_psi=p, fracture_psi=f)
        for md, p, f in zip(well.path.md_at(depths), pore, fracture, strict=True)
        if p is not None or f is not None
    )


def _window(well: Well) -> tuple[WindowPoint, ...]:
    if not well.knows_pressures:
        return ()
    depths = _depths(well)
    low, high = _known(well.window.lower_at(depths)), _known(well.window.upper_at(depths))
    return tuple(
        WindowPoint(md_ft=float(md), lower_ppg=a, upper_ppg=b)
        for md, a, b in zip(well.path.md_at(depths), low, high, strict=True)
        if a is not None or b is not None
    )
