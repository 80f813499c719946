"""The pressure that reaches the top of a string, by the method of policy: for pipe, wellhead and preventers alike.

While a hole is drilled: gas all the way up, gas over mud, or a kick of the design volume circulated out; never more than
what the shoe above stands with its injection margin. In production: the reservoir less a column of gas.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import Value, sweeping
from knollstack.core.base.formulas import annular_capacity, hydrostatic_pressure
from knollstack.core.base.remember import remembered
from knollstack.core.depths.formulas import formation_pressure
from knollstack.core.depths.pairs import kick_depths, known_from
from knollstack.core.ground.extremes import open_nodes, worst_depth
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import Exposure, gas_at_surface
from knollstack.core.pipe.formulas import kick_top_pressure, lesser_surface_pressure, under_mud
from knollstack.core.program.laid import LaidString


def feeding_depth_tvd_ft(
    well: Well, top_md_ft: float, bottom_md_ft: float, gradient_psi_ft: float, intensity_ppg: float = 0.0
) -> float | None:
    """Depth in an open hole that gives most pressure above a column of a gradient; None where pore is unknown."""
    pore = well.ground.pore
    with sweeping():
        nodes = open_nodes(well, top_md_ft, bottom_md_ft)
        return worst_depth(
            lambda z: np.asarray(hydrostatic_pressure(pore.at(z) + intensity_ppg, z) - gradient_psi_ft * z), nodes
        )


def formation_psi(well: Well, tvd_ft: float, intensity_ppg: float = 0.0) -> float:
    pore = well.ground.pore.one(tvd_ft)
    assert pore is not None
    if not intensity_ppg:
        return hydrostatic_pressure(pore, tvd_ft)
    return float(formation_pressure(pore, intensity_ppg, tvd_ft))


def shoe_limit_psi(well: Well, below: LaidString) -> float | None:
    """Pressure at which the shoe above a hole takes fluid: fracture and the injection margin; None where unknown."""
    shoe = well.path.tvd(below.previous_shoe_md_ft)
    fracture = well.ground.fracture.one(shoe)
    if fracture is None:
        return None
    return float(hydrostatic_pressure(fracture + well.policy.pipe.injection_margin_ppg, shoe))


@remembered(128, traced=True)
def section_surface_psi(
    well: Well, below: LaidString, method: str | None = None, top_tvd_ft: float = 0.0
) -> float | None:
    """Greatest surface pressure while one hole is drilled, by a method, else that of the pipe's policy; None where unknown.

    With the top at a depth it is the pressure there: at sea that of the wellhead on the sea floor.
    """
    method = method or well.policy.pipe.burst_method
    if method == "gas over mud":
        return gas_over_mud_psi(well, below, well.path.tvd(below.previous_shoe_md_ft), top_tvd_ft)
    if method == "kick volume":
        kick = worst_kick(well, below)
        return None if kick is None else max(0.0, kick.top_psi(top_tvd_ft))
    return _gas_to_surface_psi(well, below, top_tvd_ft)


def _gas_to_surface_psi(well: Well, below: LaidString, top_tvd_ft: float) -> float | None:
    """Gas to the top: what the formation feeds, unless the shoe above takes it first."""
    policy, shoe = well.policy.pipe, well.path.tvd(below.previous_shoe_md_ft)
    span = below.previous_shoe_md_ft, below.shoe_md_ft
    depth_ft = feeding_depth_tvd_ft(well, *span, policy.gas_psi_ft, policy.surface_intensity_ppg)
    limit = shoe_limit_psi(well, below)
    if depth_ft is None or limit is None:
        return None
    from_formation = gas_at_surface(
        well, formation_psi(well, depth_ft, policy.surface_intensity_ppg), depth_ft, top_tvd_ft
    )
    from_shoe = gas_at_surface(well, limit, shoe, top_tvd_ft)
    if from_formation is None or from_shoe is None:
        return None
    return lesser_surface_pressure(from_formation, from_shoe)


def gas_over_mud_turn_psi(well: Well, below: LaidString, turn_tvd_ft: float) -> float | None:
    """Pressure where gas stands on the mud of a hole: what shoe or formation leave of it under the mud."""
    policy, mud = well.policy.pipe, below.mud_ppg
    limit, shoe = shoe_limit_psi(well, below), well.path.tvd(below.previous_shoe_md_ft)
    if mud is None or limit is None:
        return None
    span = below.previous_shoe_md_ft, below.shoe_md_ft
    depth_ft = feeding_depth_tvd_ft(well, *span, PSI_PER_PPG_FT * mud, policy.surface_intensity_ppg)
    if depth_ft is None:
        return None
    formation = formation_psi(well, depth_ft, policy.surface_intensity_ppg)
    from_shoe = under_mud(limit, mud, shoe, turn_tvd_ft)
    return lesser_surface_pressure(under_mud(formation, mud, depth_ft, turn_tvd_ft), from_shoe)


def gas_over_mud_psi(well: Well, below: LaidString, casing_tvd_ft: float, top_tvd_ft: float = 0.0) -> float | None:
    """Surface pressure with gas over mud in a casing down to a depth."""
    turn = top_tvd_ft + well.policy.pipe.gas_share * (casing_tvd_ft - top_tvd_ft)
    at_turn = gas_over_mud_turn_psi(well, below, turn)
    surface = None if at_turn is None else gas_at_surface(well, at_turn, turn, top_tvd_ft)
    return None if surface is None else max(0.0, surface)


@dataclass(frozen=True)
class Kick:
    """A kick of the design volume in a hole, to be circulated out."""

    formation_psi: float
    mud_ppg: float
    depth_tvd_ft: float
    volume_bbl: float
    annulus_bbl_ft: float
    influx_psi_ft: float

    def at_psi(self, tvd_ft: Value) -> Value:
        """Pressure at its top when that is at a depth."""
        well = (self.volume_bbl, self.annulus_bbl_ft, self.influx_psi_ft)
        return kick_top_pressure(self.formation_psi, self.mud_ppg, self.depth_tvd_ft, tvd_ft, *well)

    def top_psi(self, tvd_ft: float) -> float:
        return float(self.at_psi(tvd_ft))


def worst_kick(well: Well, below: LaidString) -> Kick | None:
    """The kick of a hole that brings most pressure to the surface; None where pore, mud or hole is unknown.

    None too where the mud is no heavier than the influx: such a kick does not come up as a bubble.
    """
    policy, depths, mud, bit = well.policy.pipe, well.policy.depths, below.mud_ppg, below.bit_in
    low, high = well.path.span(below.previous_shoe_md_ft, below.shoe_md_ft)
    if mud is None or bit is None or low < known_from(well, high):
        return None
    if PSI_PER_PPG_FT * mud <= depths.influx_psi_ft:
        return None
    intensity = depths.kick_intensity_ppg
    around = float(annular_capacity(bit, min(well.drill_string(bit).pipe_od_in, bit)))
    with sweeping():
        tried = kick_depths(well, low, high, intensity)
        feeds = np.asarray(formation_pressure(well.ground.pore.at(tried), intensity, tried))
        sizes = (policy.design_kick_bbl, around, depths.influx_psi_ft)
        at = float(tried[int(np.argmax(kick_top_pressure(feeds, mud, tried, well.wellhead_tvd_ft, *sizes)))])
    return Kick(formation_psi(well, at, intensity), mud, at, *sizes)


def drilling_surface_psi(
    well: Well, through: tuple[LaidString, ...], method: str | None = None, top_tvd_ft: float = 0.0
) -> float | None:
    """Maximum anticipated surface pressure on a string while the holes through it are drilled."""
    found = [section_surface_psi(well, below, method, top_tvd_ft) for below in through]
    return max((p for p in found if p is not None), default=None) if None not in found else None


@remembered(128, traced=True)
def shut_in_surface_psi(well: Well, last: LaidString, top_tvd_ft: float = 0.0) -> float | None:
    """Shut-in tubing pressure: reservoir pressure in the last hole less gas to surface."""
    depth_ft = feeding_depth_tvd_ft(well, last.previous_shoe_md_ft, last.shoe_md_ft, well.policy.pipe.gas_psi_ft)
    if depth_ft is None:
        return None
    surface = gas_at_surface(well, formation_psi(well, depth_ft), depth_ft, top_tvd_ft)
    return None if surface is None else max(0.0, surface)


def closed_in_psi(well: Well, exposed: Exposure) -> float | None:
    """Shut-in pressure at the wellhead: as the completion has it, else the reservoir's less a column of gas."""
    if exposed.service is not None and exposed.service.shut_in_psi is not None:
        return exposed.service.shut_in_psi
    last = exposed.produced_from
    return None if last is None else shut_in_surface_psi(well, last, well.wellhead_tvd_ft)


def surface_psi(well: Well, exposed: Exposure) -> float | None:
    """The greatest pressure that a string sees at the wellhead: drilling below it, or production through it."""
    found, top = [], well.wellhead_tvd_ft
    if exposed.through:
        found.append(drilling_surface_psi(well, exposed.through, top_tvd_ft=top))
    if exposed.produced_from is not None:
        found.append(closed_in_psi(well, exposed))
    known = [p for p in found if p is not None]
    return max(known) if known and len(known) == len(found) else None
