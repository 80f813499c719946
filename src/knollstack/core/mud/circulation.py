"""A section's mud while it moves: friction in the annulus, ECD, and surge and swab of the drill string while tripping.

The annulus of a section is that of its drill string from surface to bottom: in the casing above as far as the previous
shoe, then in open hole, with the collars at the bottom.
"""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.formula import Value
from knollstack.core.base.working import headline
from knollstack.core.ground.well import Well
from knollstack.core.mud.formulas import (
    annular_velocity,
    bingham,
    bingham_gradient,
    circulating_density,
    power_law,
    power_law_gradient,
    trip_velocity,
)
from knollstack.core.program.laid import LaidString

Bores = tuple[tuple[float, float], ...] | None
"""Lengths [ft] and bores [in] of the casing that a hole is drilled from; None where unknown."""


@dataclass(frozen=True)
class Piece:
    """A stretch of annulus of one geometry, and the depth of its lower end."""

    length_ft: float
    outer_in: float
    inner_in: float
    bottom_md_ft: float


@dataclass(frozen=True)
class Moving:
    """Equivalent densities [ppg] with the mud or the string moving, at the previous shoe and at bottom."""

    ecd_shoe_ppg: float | None
    ecd_bottom_ppg: float | None
    surge_ppg: float
    swab_ppg: float


def annulus(well: Well, string: LaidString, bores: Bores) -> list[Piece]:
    """The annulus of a section's drill string, from the ground down; empty where a size is unknown."""
    if string.bit_in is None:
        return []
    drill = well.drill_string(string.bit_in)
    shoe, bottom = string.previous_shoe_md_ft, string.shoe_md_ft
    collars = max(shoe, bottom - drill.collar_length_ft)
    pieces, reached = [], well.ground_md_ft
    for length, bore in bores or ():
        reached += length
        if bore > drill.pipe_od_in:
            pieces.append(Piece(length, bore, drill.pipe_od_in, reached))
    if string.bit_in <= max(drill.pipe_od_in, drill.collar_od_in):
        return []
    pieces.append(Piece(collars - shoe, string.bit_in, drill.pipe_od_in, collars))
    pieces.append(Piece(bottom - collars, string.bit_in, drill.collar_od_in, bottom))
    return [piece for piece in pieces if piece.length_ft > 0]


class Friction:
    """Friction per foot by the rheology of policy, from one pair of rheometer readings."""

    def __init__(self, well: Well, mud_ppg: float, low: float, high: float) -> None:
        self.mud_ppg, self.by_power_law = mud_ppg, well.policy.mud.rheology == "power law"
        self.fitted = power_law(low, high) if self.by_power_law else bingham(low, high)

    def psi(self, piece: Piece, velocity_ft_s: Value) -> float:
        """Loss over a piece of annulus."""
        size = (piece.outer_in, piece.inner_in)
        if self.by_power_law:
            law = self.fitted["flow_index"], self.fitted["consistency_ecp"]
            return piece.length_ft * float(power_law_gradient(velocity_ft_s, *law, *size))
        plastic, yields = self.fitted["plastic_cp"], self.fitted["yield_lb_100ft2"]
        return piece.length_ft * float(bingham_gradient(velocity_ft_s, plastic, yields, self.mud_ppg, *size))


def moving(well: Well, string: LaidString, bores: Bores) -> Moving | None:
    """ECD, surge and swab of a section; None where rheology, mud or geometry is unknown."""
    low, high, mud = string.own.reading_300, string.own.reading_600, string.mud_ppg
    pieces = annulus(well, string, bores)
    if low is None or high is None or mud is None or high <= low or 2 * low < high or not pieces:
        return None
    bottom_tvd, shoe_tvd = well.path.tvd(string.shoe_md_ft), well.path.tvd(string.previous_shoe_md_ft)
    ecd_shoe = ecd_bottom = None
    flow = string.own.flow_gpm
    if flow:
        with headline(f"mud/{string.index}/ecd"):
            friction = Friction(well, mud, low, high)
            losses = [friction.psi(p, annular_velocity(flow, p.outer_in, p.inner_in)) for p in pieces]
            ecd_bottom = float(circulating_density(mud, sum(losses), bottom_tvd))
        cased = (p.bottom_md_ft <= string.previous_shoe_md_ft + 1e-6 for p in pieces)
        to_shoe = sum(loss for loss, inside in zip(losses, cased, strict=True) if inside)
        ecd_shoe = float(circulating_density(mud, to_shoe, shoe_tvd)) if shoe_tvd > 0 else None
    with headline(f"mud/{string.index}/surge"):
        friction = Friction(well, mud, low, high)
        speed = well.policy.mud.trip_speed_ft_min / 60
        trip = sum(friction.psi(p, trip_velocity(speed, p.outer_in, p.inner_in)) for p in pieces)
        surge = float(circulating_density(mud, trip, bottom_tvd))
    return Moving(ecd_shoe, ecd_bottom, surge, float(circulating_density(mud, -trip, bottom_tvd)))
