"""What a string is exposed to: the holes drilled through it, production, and the pressures that reach its top.

Textbook casing design; maximum anticipated surface pressure by the lesser-of school.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from knollstack.core.base.formula import Value, sweeping
from knollstack.core.document.design import Design
from knollstack.core.ground.extremes import nodes_between, spans_of
from knollstack.core.ground.well import Well
from knollstack.core.pipe.formulas import gas_column_top, gas_gradient_top, gas_pressure, loss_level
from knollstack.core.program.equipped import EquippedString
from knollstack.core.program.laid import Laid, LaidString

Pressure = Callable[[Value], Value]


@dataclass(frozen=True)
class Beside:
    """What stands beside a casing in production: a fluid, what heat builds up in it, and how far down that reaches.

    None is not known.
    """

    fluid_ppg: float
    built_psi: float | None
    to_md_ft: float


@dataclass(frozen=True)
class Heated:
    """Both sides of a casing under the sea, where nobody bleeds an annulus that production heats."""

    inside: Beside
    outside: Beside
    heat_share: float
    """Of the producing string's heating."""


@dataclass(frozen=True)
class Service:
    """What the completion brings to the casing that it is run in; None is not decided."""

    packer_md_ft: float | None
    fluid_ppg: float
    shut_in_psi: float | None
    treating_psi: float | None
    treating_fluid_f: float | None


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
    service: Service | None = None
    """Of the completion, where the well is produced through this string."""
    heated: Heated | None = None
    """Known once all strings have their pipe, since it hangs on them."""


def exposure_of(laid: Laid, string: LaidString, inner: EquippedString | None = None) -> Exposure:
    """The exposure of a string; `inner` is the string below it with its pipe."""
    below = laid.next(string)
    bit = 0.0 if below is None else below.own.opened_from_in or below.bit_in or 0.0
    hung = inner is not None and inner.run == "liner" and not inner.own.tie_back
    last = laid.strings[-1] if _produces(laid, string) else None
    service = None if last is None else service_of(laid.design, laid.well)
    return Exposure(_through(laid, string), last, bit, inner if hung else None, service)


def service_of(design: Design, well: Well) -> Service:
    own = design.completion
    return Service(
        own.packer_md_ft, completion_fluid_ppg(design, well), own.shut_in_psi, own.treating_psi, own.treating_fluid_f
    )


def completion_fluid_ppg(design: Design, well: Well) -> float:
    """What stays over the packer: decided, else policy's packer fluid."""
    own = design.completion.fluid_ppg
    return well.policy.pipe.packer_fluid_ppg if own is None else own


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


def mean_temperature_f(well: Well, tvd_ft: float, top_tvd_ft: float = 0.0) -> float | None:
    """Mean temperature from surface, or from a depth, to another; None where temperature is unknown."""
    points = well.temperatures
    if not points:
        return None
    z, t = zip(*points, strict=True)
    depths = np.linspace(top_tvd_ft, tvd_ft, 21)
    return float(np.mean(np.interp(depths, z, t)))


def gas_at_surface(well: Well, bottom_psi: float, bottom_tvd_ft: float, top_tvd_ft: float = 0.0) -> float | None:
    """Pressure at surface, or at a wellhead below it, of gas from a depth, by policy's gas model; None without temperature."""
    policy, height = well.policy.pipe, max(0.0, bottom_tvd_ft - top_tvd_ft)
    if policy.gas_model == "gradient":
        return gas_gradient_top(bottom_psi, height, policy.gas_psi_ft)
    mean = mean_temperature_f(well, bottom_tvd_ft, top_tvd_ft)
    if mean is None:
        return None
    return gas_column_top(bottom_psi, height, policy.gas_sg, policy.gas_z, mean)


def gas_below(well: Well, surface_psi: float, deepest_tvd_ft: float) -> Pressure:
    """Gas in the casing under a surface pressure, by the gas model of policy."""
    policy = well.policy.pipe
    mean = mean_temperature_f(well, deepest_tvd_ft)
    if policy.gas_model == "gradient" or mean is None:
        return lambda z: gas_pressure(surface_psi, policy.gas_psi_ft, z)
    # the top of a column from z, turned round: what stands at z over the pressure at the top
    return lambda z: surface_psi / gas_column_top(1.0, z, policy.gas_sg, policy.gas_z, mean)


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
