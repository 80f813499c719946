"""The load cases of a string: what is inside and outside it, at which moment of the well's life.

Each case gives internal and external pressure at any TVD by the registered formulas, so the curve and the
working come from the same calls. Textbook casing design: gas kick and tubing leak in burst, evacuation and
lost returns in collapse.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import numpy as np

from knollstack.core.basics import hydrostatic_pressure
from knollstack.core.formula import Value
from knollstack.core.pipe.loads import (
    gas_gradient_top,
    gas_pressure,
    lesser_surface_pressure,
    loss_level,
    pressure_under,
)
from knollstack.core.program import Planned, Program

Pressure = Callable[[Value], Value]


@dataclass(frozen=True)
class LoadCase:
    name: str
    kind: Literal["burst", "collapse"]
    internal_psi: Pressure
    external_psi: Pressure
    marks_tvd_ft: tuple[float, ...] = ()


def feeding_depth_tvd_ft(program: Program, top_md_ft: float, bottom_md_ft: float) -> float | None:
    """Depth in an open hole from which gas gives the greatest surface pressure; None where pore is unknown."""
    well = program.well
    top, bottom = well.path.tvd(top_md_ft), well.path.tvd(bottom_md_ft)
    nodes = well.ground.pore.tvd_ft
    depths = np.concatenate([[top], nodes[(nodes > top) & (nodes < bottom)], [bottom]])
    pore = well.ground.pore.at(depths)
    if np.any(np.isnan(pore)):
        return None
    surface = 12 / 231 * pore * depths - well.policy.gas_psi_ft * depths
    return float(depths[int(np.argmax(surface))])


def _from_formation(program: Program, depth_ft: float) -> float:
    pore = program.well.ground.pore.one(depth_ft)
    assert pore is not None
    return gas_gradient_top(hydrostatic_pressure(pore, depth_ft), depth_ft, program.well.policy.gas_psi_ft)


def drilling_surface_psi(program: Program, string: Planned) -> float | None:
    """Maximum anticipated surface pressure on a string while the next section is drilled (lesser-of)."""
    below, well = program.next(string), program.well
    if below is None:
        return None
    depth_ft = feeding_depth_tvd_ft(program, string.shoe_md_ft, below.shoe_md_ft)
    shoe = well.path.tvd(string.shoe_md_ft)
    fracture = well.ground.fracture.one(shoe)
    if depth_ft is None or fracture is None:
        return None
    from_fracture = gas_gradient_top(hydrostatic_pressure(fracture, shoe), shoe, well.policy.gas_psi_ft)
    return lesser_surface_pressure(_from_formation(program, depth_ft), from_fracture)


def shut_in_surface_psi(program: Program, string: Planned) -> float | None:
    """Shut-in tubing pressure of the producing string: reservoir pressure less gas to surface."""
    depth_ft = feeding_depth_tvd_ft(program, string.previous_shoe_md_ft, string.shoe_md_ft)
    return None if depth_ft is None else max(0.0, _from_formation(program, depth_ft))


def surface_psi(program: Program, string: Planned) -> float | None:
    """The greatest pressure that the top of a string sees: drilling below it, or production through it."""
    if program.next(string) is None:
        return shut_in_surface_psi(program, string)
    return drilling_surface_psi(program, string)


def _backup(program: Program, string: Planned) -> Pressure:
    policy, pore = program.well.policy, program.well.ground.pore
    if policy.burst_backup == "mud" and string.mud_ppg is not None:
        mud = string.mud_ppg
        return lambda z: hydrostatic_pressure(mud, z)
    if policy.burst_backup == "pore":
        # no credit where the pore pressure is not known
        return lambda z: hydrostatic_pressure(np.nan_to_num(pore.at(z)), z)
    return lambda z: hydrostatic_pressure(policy.base_fluid_ppg, z)


def burst_case(program: Program, string: Planned) -> LoadCase | None:
    """Gas kick from the next section, or a tubing leak in the producing string; None where unknown."""
    surface = surface_psi(program, string)
    if surface is None:
        return None
    policy = program.well.policy
    backup = _backup(program, string)
    if program.next(string) is None:
        return LoadCase("tubing leak", "burst", lambda z: pressure_under(surface, policy.packer_fluid_ppg, z), backup)
    return LoadCase("gas kick", "burst", lambda z: gas_pressure(surface, policy.gas_psi_ft, z), backup)


def lowest_level_tvd_ft(program: Program, string: Planned, below: Planned) -> float | None:
    """Deepest mud level in a string when returns are lost below it.

    Judged at every loss zone of the next hole; where none is marked, at every profile point of it.
    """
    well, mud = program.well, below.mud_ppg
    top, bottom = well.path.tvd(string.shoe_md_ft), well.path.tvd(below.shoe_md_ft)
    zones = [
        z for z in well.ground.model.zones if "losses" in z.hazards and z.base_tvd_ft > top and z.top_tvd_ft < bottom
    ]
    spans = [(max(top, z.top_tvd_ft), min(bottom, z.base_tvd_ft)) for z in zones] or [(top, bottom)]
    if mud is None:
        return None
    deepest = 0.0
    for low, high in spans:
        nodes = well.ground.pore.tvd_ft
        depths = np.concatenate([[low], nodes[(nodes > low) & (nodes < high)], [high]])
        pore = well.ground.pore.at(depths)
        if np.any(np.isnan(pore)):
            return None
        deepest = max(deepest, float(np.max(loss_level(depths, pore, mud))))
    return deepest


def collapse_case(program: Program, string: Planned) -> LoadCase | None:
    """Evacuation of shallow and producing strings, lost returns of the others; None where unknown."""
    below, mud = program.next(string), string.mud_ppg
    if mud is None:
        return None
    if below is None or string.role == "surface":
        name = "evacuation"
        return LoadCase(
            name, "collapse", lambda z: hydrostatic_pressure(0.0, z), lambda z: hydrostatic_pressure(mud, z)
        )
    level = lowest_level_tvd_ft(program, string, below)
    if level is None or below.mud_ppg is None:
        return None
    inner = below.mud_ppg
    return LoadCase(
        "lost returns",
        "collapse",
        lambda z: hydrostatic_pressure(inner, np.maximum(np.asarray(z) - level, 0.0)),
        lambda z: hydrostatic_pressure(mud, z),
        (level,),
    )
