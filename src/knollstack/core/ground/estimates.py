"""A fracture profile where only pore pressure and overburden are known, by the textbook estimators."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from knollstack.core.document.design import Design, Point
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.ground.formulas import eaton_fracture, hubbert_willis_fracture, matthews_kelly_fracture
from knollstack.core.ground.profiles import build_ground, build_profile


@dataclass(frozen=True)
class Estimate:
    method: Literal["Eaton", "Hubbert and Willis", "Matthews and Kelly"]
    poisson: float
    matrix_stress_ratio: float


def estimate_fracture(design: Design, by: Estimate) -> list[Point]:
    """Points of the estimated profile: at every point of pore and overburden where both are known, steps kept.

    Every estimator is linear in pore and overburden, so between these points the profile is exact. Raises FaultyDesign
    where there is nothing to estimate from, or pore exceeds overburden.
    """
    ground = build_ground(design.ground, design.policy.pipe.gas_psi_ft)
    pore, load = ground.pore, build_profile(design.ground.overburden, worse_is_high=False)
    if not pore.known or not load.known:
        name = "pore" if not pore.known else "overburden"
        raise FaultyDesign([Fault(path=f"/ground/{name}", value="fewer than two points", expected="a profile")])
    depths = np.unique(np.concatenate([pore.tvd_ft, load.tvd_ft]))
    depths = depths[(depths >= max(pore.tvd_ft[0], load.tvd_ft[0])) & (depths <= min(pore.tvd_ft[-1], load.tvd_ft[-1]))]
    points: list[Point] = []
    for z in depths:
        for side in (-1e-6, 1e-6):  # just above and just below: a step in either profile is a step in the estimate
            inside = float(np.clip(z + side, depths[0], depths[-1]))
            p, s = pore.one(inside), load.one(inside)
            if p is None or s is None:
                continue
            if p > s + 1e-9:
                fault = Fault(
                    path="/ground/overburden", value=f"{s:.2f} ppg at {z:g} ft", expected=f"at least pore, {p:.2f} ppg"
                )
                raise FaultyDesign([fault])
            value = round(float(_by(by, p, max(p, s))), 4)
            if not points or points[-1].tvd_ft != z or abs(points[-1].emw_ppg - value) > 1e-3:
                points.append(Point(tvd_ft=float(z), emw_ppg=value))
    return points


def _by(by: Estimate, pore_ppg: float, overburden_ppg: float) -> float:
    if by.method == "Eaton":
        return float(eaton_fracture(pore_ppg, overburden_ppg, by.poisson))
    if by.method == "Matthews and Kelly":
        return float(matthews_kelly_fracture(pore_ppg, overburden_ppg, by.matrix_stress_ratio))
    return float(hubbert_willis_fracture(pore_ppg, overburden_ppg))
