"""What a string is exposed to: the holes drilled through it, production, and the pressures that reach its top.

Textbook casing design; maximum anticipated surface pressure by the lesser-of school.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from knollstack.core.base.formula import Value, sweeping
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.base.remember import remembered
from knollstack.core.ground.extremes import nodes_between, open_nodes, spans_of, worst_depth
from knollstack.core.ground.well import Well
from knollstack.core.pipe.formulas import (
    gas_column_top,
    gas_gradient_top,
    gas_pressure,
    lesser_surface_pressure,
    loss_level,
)
from knollstack.core.program.equipped import EquippedString
from knollstack.core.program.laid import Laid, LaidString

Pressure = Callable[[Value], Value]


@dataclass(frozen=True)
class Exposure:
    """What reaches a string from the others of the program."""

    through: tuple[LaidString, ...]
    """Strings whose holes are drilled through it."""
    produced_from: LaidString | None
    """The last string, where the well is produced through this one."""
    next_bit_in: float
    """The largest bit that must pass it; 0 for none."""
    liner: EquippedString | None
    """A liner hung in it; with its pipe only once that is chosen."""


def exposure_of(laid: Laid, string: LaidString, inner: EquippedString | None = None) -> Exposure:
    """The exposure of a string; `inner` is the string below it with its pipe."""
    below = laid.next(string)
    bit = 0.0 if below is None else below.own.opened_from_in or below.bit_in or 0.0
    hung = inner is not None and inner.run == "liner" and not inner.own.tie_back
    last = laid.strings[-1] if _produces(laid, string) else None
    return Exposure(_through(laid, string), last, bit, inner if hung else None)


def _through(laid: Laid, string: LaidString) -> tuple[LaidString, ...]:
    """Strings whose holes are drilled through a string: down to the first that covers it up to the wellhead."""
    found: list[LaidString] = []
    for below in laid.strings[string.index + 1 :]:
        found.append(below)
        if below.run != "liner":
            break
    return tuple(found)


def _produces(laid: Laid, string: LaidString) -> bool:
    """The well is produced through this string: nothing stands inside it up to the wellhead."""
    if string.role == "conductor":
        return False
    return all(b.run == "liner" and not b.own.tie_back for b in laid.strings[string.index + 1 :])


def feeding_depth_tvd_ft(well: Well, top_md_ft: float, bottom_md_ft: float) -> float | None:
    """Depth in an open hole from which gas gives the greatest surface pressure; None where pore is unknown."""
    pore, gas = well.ground.pore, well.policy.pipe.gas_psi_ft
    with sweeping():
        nodes = open_nodes(well, top_md_ft, bottom_md_ft)
        return worst_depth(lambda z: np.asarray(hydrostatic_pressure(pore.at(z), z) - gas * z), nodes)


def mean_temperature_f(well: Well, tvd_ft: float) -> float | None:
    """Mean temperature from surface to a depth; None where temperature is unknown."""
    points = well.temperatures
    if not points:
        return None
    z, t = zip(*points, strict=True)
    depths = np.linspace(0.0, tvd_ft, 21)
    return float(np.mean(np.interp(depths, z, t)))


def gas_at_surface(well: Well, bottom_psi: float, bottom_tvd_ft: float) -> float | None:
    """Pressure at surface of gas from a depth, by the gas model of policy; None where temperature is missing."""
    policy = well.policy.pipe
    if policy.gas_model == "gradient":
        return gas_gradient_top(bottom_psi, bottom_tvd_ft, policy.gas_psi_ft)
    mean = mean_temperature_f(well, bottom_tvd_ft)
    if mean is None:
        return None
    return gas_column_top(bottom_psi, bottom_tvd_ft, policy.gas_sg, policy.gas_z, mean)


def gas_below(well: Well, surface_psi: float, deepest_tvd_ft: float) -> Pressure:
    """Gas in the casing under a surface pressure, by the gas model of policy."""
    policy = well.policy.pipe
    mean = mean_temperature_f(well, deepest_tvd_ft)
    if policy.gas_model == "gradient" or mean is None:
        return lambda z: gas_pressure(surface_psi, policy.gas_psi_ft, z)
    # the top of a column from z, turned round: what stands at z over the pressure at the top
    return lambda z: surface_psi / gas_column_top(1.0, z, policy.gas_sg, policy.gas_z, mean)


def formation_psi(well: Well, tvd_ft: float) -> float:
    pore = well.ground.pore.one(tvd_ft)
    assert pore is not None
    return hydrostatic_pressure(pore, tvd_ft)


@remembered(128, traced=True)
def section_surface_psi(well: Well, below: LaidString) -> float | None:
    """Gas to surface while one hole is drilled: what the formation feeds, unless the shoe above breaks down first."""
    shoe = well.path.tvd(below.previous_shoe_md_ft)
    depth_ft = feeding_depth_tvd_ft(well, below.previous_shoe_md_ft, below.shoe_md_ft)
    fracture = well.ground.fracture.one(shoe)
    if depth_ft is None or fracture is None:
        return None
    from_formation = gas_at_surface(well, formation_psi(well, depth_ft), depth_ft)
    from_shoe = gas_at_surface(well, hydrostatic_pressure(fracture, shoe), shoe)
    if from_formation is None or from_shoe is None:
        return None
    return lesser_surface_pressure(from_formation, from_shoe)


def drilling_surface_psi(well: Well, through: tuple[LaidString, ...]) -> float | None:
    """Maximum anticipated surface pressure on a string while the holes through it are drilled."""
    found = [section_surface_psi(well, below) for below in through]
    return max((p for p in found if p is not None), default=None) if None not in found else None


@remembered(128, traced=True)
def shut_in_surface_psi(well: Well, last: LaidString) -> float | None:
    """Shut-in tubing pressure: reservoir pressure in the last hole less gas to surface."""
    depth_ft = feeding_depth_tvd_ft(well, last.previous_shoe_md_ft, last.shoe_md_ft)
    if depth_ft is None:
        return None
    surface = gas_at_surface(well, formation_psi(well, depth_ft), depth_ft)
    return None if surface is None else max(0.0, surface)


def surface_psi(well: Well, exposed: Exposure) -> float | None:
    """The greatest pressure that the top of a string sees: drilling below it, or production through it."""
    found = []
    if exposed.through:
        found.append(drilling_surface_psi(well, exposed.through))
    if exposed.produced_from is not None:
        found.append(shut_in_surface_psi(well, exposed.produced_from))
    known = [p for p in found if p is not None]
    return max(known) if known and len(known) == len(found) else None


def lowest_level_tvd_ft(well: Well, below: LaidString) -> float | None:
    """Deepest mud level in the casing when returns are lost in a hole, worked where the loss that leaves it is."""
    worst = _worst_loss(well, below)
    if worst is None or below.mud_ppg is None:
        return None
    at, pore = worst
    return 0.0 if at == 0 else float(loss_level(at, pore, below.mud_ppg))


@sweeping()
def _worst_loss(well: Well, below: LaidString) -> tuple[float, float] | None:
    """Depth [ft TVD] and pore pressure [ppg] of the loss that leaves the deepest level; None where unknown.

    Judged in every loss zone of the hole; where none is marked, all over it. Zeros where no mud falls.
    """
    mud, pore = below.mud_ppg, well.ground.pore
    top, bottom = well.path.span(below.previous_shoe_md_ft, below.shoe_md_ft)
    zones = [
        z for z in well.ground.model.zones if "losses" in z.hazards and z.base_tvd_ft > top and z.top_tvd_ft < bottom
    ]
    spans = [(max(top, z.top_tvd_ft), min(bottom, z.base_tvd_ft)) for z in zones] or [(top, bottom)]
    if mud is None:
        return None
    deepest, worst = 0.0, (0.0, 0.0)
    for low, high in spans:
        found = spans_of(lambda z: np.asarray(mud * z - pore.at(z) * z), nodes_between(well, low, high)).worst()
        if found is None:
            return None
        at, held = found.depth_ft, pore.beside(found.depth_ft, found.side)
        level = float(loss_level(at, held, mud))
        if level > deepest:
            deepest, worst = level, (at, held)
    return worst
