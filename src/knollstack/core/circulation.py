"""A section's mud while it moves: friction in the annulus, ECD, and surge and swab of the drill string while tripping.

The annulus of a section is that of its drill string from surface to bottom: in the casing above as far as the previous
shoe, then in open hole, with the collars at the bottom.
"""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.formula import Value
from knollstack.core.hydraulics import (
    annular_velocity,
    bingham,
    bingham_gradient,
    circulating_density,
    power_law,
    power_law_gradient,
    trip_velocity,
)
from knollstack.core.program import Planned, Program
from knollstack.core.working import headline


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
    surge_bottom_ppg: float
    swab_bottom_ppg: float


def annulus(program: Program, string: Planned) -> list[Piece]:
    """The annulus of a section's drill string, from the ground down; empty where a size is unknown."""
    well, above = program.well, program.previous(string)
    if string.bit_in is None:
        return []
    drill = well.drill_string(string.bit_in)
    shoe, bottom = string.previous_shoe_md_ft, string.shoe_md_ft
    collars = max(shoe, bottom - drill.collar_length_ft)
    pieces, reached = [], well.ground_md_ft
    for length, bore in (program.cased_bores(string) or []) if above is not None else []:
        reached += length
        if bore > drill.pipe_od_in:
            pieces.append(Piece(length, bore, drill.pipe_od_in, reached))
    if string.bit_in <= max(drill.pipe_od_in, drill.collar_od_in):
        return []
    pieces.append(Piece(collars - shoe, string.bit_in, drill.pipe_od_in, collars))
    pieces.append(Piece(bottom - collars, string.bit_in, drill.collar_od_in, bottom))
    return [piece for piece in pieces if piece.length_ft > 0]


def _gradient(program: Program, string: Planned, piece: Piece, velocity_ft_s: Value) -> float:
    """Friction per foot of a piece by the rheology of policy."""
    low, high = string.own.reading_300, string.own.reading_600
    assert low is not None
    assert high is not None
    assert string.mud_ppg is not None
    if program.well.policy.rheology == "power law":
        fitted = power_law(low, high)
        gradient = power_law_gradient(
            velocity_ft_s, fitted["flow_index"], fitted["consistency_ecp"], piece.outer_in, piece.inner_in
        )
    else:
        fitted = bingham(low, high)
        gradient = bingham_gradient(
            velocity_ft_s,
            fitted["plastic_cp"],
            fitted["yield_lb_100ft2"],
            string.mud_ppg,
            piece.outer_in,
            piece.inner_in,
        )
    return float(gradient)


def moving(program: Program, string: Planned) -> Moving | None:
    """ECD, surge and swab of a section; None where rheology, mud or geometry is unknown."""
    low, high, mud = string.own.reading_300, string.own.reading_600, string.mud_ppg
    pieces = annulus(program, string)
    if low is None or high is None or mud is None or high <= low or 2 * low < high or not pieces:
        return None
    well = program.well
    bottom_tvd, shoe_tvd = well.path.tvd(string.shoe_md_ft), well.path.tvd(string.previous_shoe_md_ft)
    ecd_shoe = ecd_bottom = None
    if string.own.flow_gpm:
        with headline(f"mud/{string.index}/ecd"):
            losses = [
                p.length_ft
                * _gradient(program, string, p, annular_velocity(string.own.flow_gpm, p.outer_in, p.inner_in))
                for p in pieces
            ]
            ecd_bottom = float(circulating_density(mud, sum(losses), bottom_tvd))
        to_shoe = sum(
            loss for loss, p in zip(losses, pieces, strict=True) if p.bottom_md_ft <= string.previous_shoe_md_ft + 1e-6
        )
        ecd_shoe = float(circulating_density(mud, to_shoe, shoe_tvd)) if shoe_tvd > 0 else None
    with headline(f"mud/{string.index}/surge"):
        speed = well.policy.trip_speed_ft_min / 60
        trip = sum(
            p.length_ft * _gradient(program, string, p, trip_velocity(speed, p.outer_in, p.inner_in)) for p in pieces
        )
        surge = float(circulating_density(mud, trip, bottom_tvd))
    return Moving(ecd_shoe, ecd_bottom, surge, float(circulating_density(mud, -trip, bottom_tvd)))
