"""A section's mud while it moves: friction in the annulus, ECD, and surge and swab of the drill string while tripping.

The annulus of a section is that of its drill string from surface to bottom: in the casing above as far as the previous
shoe, then in open hole, with the collars at the bottom.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate, pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import Value
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.ground.extremes import Spans, inside_of, spans_of, spans_through
from knollstack.core.ground.well import Well
from knollstack.core.mud.formulas import annular_velocity, circulating_density, trip_velocity
from knollstack.core.mud.friction import Friction, friction_of
from knollstack.core.mud.results import Nearest
from knollstack.core.program.laid import LaidString

Floats = NDArray[np.float64]
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
    """Equivalent densities [ppg] with the mud or the string moving, at the previous shoe and at bottom, and where in
    the open hole each is nearest to what the rock stands, or farthest beyond it.
    """

    ecd_shoe_ppg: float | None
    ecd_bottom_ppg: float | None
    surge_ppg: float
    swab_ppg: float
    ecd_worst: Nearest | None
    surge_worst: Nearest | None
    swab_worst: Nearest | None


def annulus(well: Well, string: LaidString, bores: Bores) -> list[Piece]:
    """The annulus of a section's drill string, from the ground or the top of a riser down; empty where a size is unknown."""
    if string.bit_in is None or bores is None:
        return []
    drill = well.drill_string(string.bit_in)
    shoe, bottom = string.previous_shoe_md_ft, string.shoe_md_ft
    collars = max(shoe, bottom - drill.collar_length_ft)
    pieces, reached = [], well.ground_md_ft
    riser_in = well.policy.mud.riser_id_in
    if well.site.setting == "subsea" and riser_in > drill.pipe_od_in:
        pieces.append(Piece(reached, riser_in, drill.pipe_od_in, reached))
    for length, bore in bores:
        reached += length
        if bore > drill.pipe_od_in:
            pieces.append(Piece(length, bore, drill.pipe_od_in, reached))
    if string.bit_in <= max(drill.pipe_od_in, drill.collar_od_in):
        return []
    pieces.append(Piece(collars - shoe, string.bit_in, drill.pipe_od_in, collars))
    pieces.append(Piece(bottom - collars, string.bit_in, drill.collar_od_in, bottom))
    return [piece for piece in pieces if piece.length_ft > 0]


class Losses:
    """Friction along a section's annulus, from the ground down, for one movement of the mud in it."""

    def __init__(self, friction: Friction, pieces: list[Piece], velocity_of: Callable[[Piece], float]) -> None:
        self.friction, self.pieces, self.velocity_of = friction, pieces, velocity_of
        self.psi = [self._lost(p, p.length_ft) for p in pieces]
        self._along: Spans | None = None

    def _lost(self, piece: Piece, length_ft: float) -> float:
        """Loss [psi] over a length of a piece."""
        return length_ft * self.friction.psi_ft(self.velocity_of(piece), piece.outer_in, piece.inner_in)

    @property
    def total_psi(self) -> float:
        return sum(self.psi)

    @cached_property
    def _line(self) -> tuple[list[float], list[float]]:
        ends = [m for p in self.pieces for m in (p.bottom_md_ft - p.length_ft, p.bottom_md_ft)]
        sums = list(accumulate(self.psi, initial=0.0))
        return ends, [s for pair in pairwise(sums) for s in pair]

    def to(self, md_ft: Value) -> Floats:
        """Loss [psi] from the ground to depths."""
        return np.asarray(np.interp(md_ft, *self._line))

    def along(self, nodes_md_ft: Floats) -> Spans:
        if self._along is None:
            self._along = spans_of(self.to, nodes_md_ft)
        return self._along

    def worked_to(self, md_ft: float) -> float:
        """The same at one depth, piece by piece by the formulas: what a working shows."""
        reached = 0.0
        for piece in self.pieces:
            length = min(piece.length_ft, md_ft - (piece.bottom_md_ft - piece.length_ft))
            if length > 0:
                reached += self._lost(piece, length)
        return reached


@dataclass(frozen=True, eq=False)
class Along:
    """An open hole by measured depth: the column of 1 ppg, fracture and pore pressure [psi], whole and at both ends."""

    nodes_md_ft: Floats
    column: Spans
    fracture: Spans
    pore: Spans
    ends: Floats
    """Of top and bottom: column, fracture and pore, at a step the worse side."""


@remembered(16)
def _marks_of(well: Well) -> Floats:
    """Measured depths at which rock or path change their course."""
    return np.concatenate([well.path.md_at(well.window.depths_ft), well.path.marks_md_ft])


@remembered(64)
def _along(well: Well, top_md_ft: float, bottom_md_ft: float, marks_md_ft: tuple[float, ...]) -> Along:
    """Friction grows with measured depth, the column with TVD: nodes stand where either, or the rock, turns."""
    path, ground = well.path, well.ground
    marks = np.concatenate([_marks_of(well), marks_md_ft])
    inside = marks[(marks > top_md_ft) & (marks < bottom_md_ft)]
    nodes = np.unique(np.concatenate([[top_md_ft, bottom_md_ft], inside]))

    def pressures(md: Floats) -> list[Floats]:
        tvd = path.tvd_at(md)
        column = PSI_PER_PPG_FT * tvd
        return [column, ground.fracture.at(tvd) * column, ground.pore.at(tvd) * column]

    column, fracture, pore = (spans_through(nodes, values) for values in pressures(inside_of(nodes)))
    return Along(nodes, column, fracture, pore, np.array(pressures(np.array([top_md_ft, bottom_md_ft]))))


def _nearest(
    well: Well, string: LaidString, mud: float, losses: Losses, what: Literal["ecd", "surge", "swab"]
) -> Nearest | None:
    """Where the moving mud is farthest over the fracture pressure, or under the pore pressure; None where unknown."""
    top, bottom = string.previous_shoe_md_ft, string.shoe_md_ft
    hole = _along(well, top, bottom, tuple(p.bottom_md_ft for p in losses.pieces))
    sign, rock, k = (-1, hole.pore, 2) if what == "swab" else (1, hole.fracture, 1)
    lost = losses.along(hole.nodes_md_ft)
    found = Spans(hole.nodes_md_ft, lost.terms + sign * (mud * hole.column.terms - rock.terms)).worst()
    if found is None or math.isnan(hole.ends[k, 0] + hole.ends[k, 1]):
        return None
    at, value = found.depth_ft, found.value
    for n, end in enumerate((top, bottom)):  # the rock at the shoe counts with the worse side of a step
        here = float(losses.to(end)) + sign * float(mud * hole.ends[0, n] - hole.ends[k, n])
        at, value = (end, here) if here > value else (at, value)
    tvd = well.path.tvd(at)
    if tvd <= 0:
        return None
    with headline(f"mud/{string.index}/{what}_worst"):
        density = float(circulating_density(mud, sign * losses.worked_to(at), tvd))
    return Nearest(md_ft=at, emw_ppg=density, rock_ppg=density - sign * value / (PSI_PER_PPG_FT * tvd))


def moving(well: Well, string: LaidString, bores: Bores) -> Moving | None:
    """ECD, surge and swab of a section; None where rheology, mud or geometry is unknown."""
    mud, pieces = string.mud_ppg, annulus(well, string, bores)
    if mud is None or not pieces or friction_of(well, string.own, mud) is None:
        return None

    def losses(velocity_of: Callable[[Piece], float]) -> Losses:
        friction = friction_of(well, string.own, mud)  # again, inside the working
        assert friction is not None
        return Losses(friction, pieces, velocity_of)

    bottom_tvd, shoe_tvd = well.path.tvd(string.shoe_md_ft), well.path.tvd(string.previous_shoe_md_ft)
    speed = well.policy.mud.trip_speed_ft_min / 60
    ecd_shoe = ecd_bottom = ecd_worst = None
    flow = string.own.flow_gpm
    if flow:
        with headline(f"mud/{string.index}/ecd"):
            pumped = losses(lambda p: annular_velocity(flow, p.outer_in, p.inner_in))
            ecd_bottom = float(circulating_density(mud, pumped.total_psi, bottom_tvd))
        to_shoe = float(pumped.to(np.array(string.previous_shoe_md_ft)))
        ecd_shoe = float(circulating_density(mud, to_shoe, shoe_tvd)) if shoe_tvd > 0 else None
        ecd_worst = _nearest(well, string, mud, pumped, "ecd")
    with headline(f"mud/{string.index}/surge"):
        tripped = losses(lambda p: trip_velocity(speed, p.outer_in, p.inner_in))
        surge = float(circulating_density(mud, tripped.total_psi, bottom_tvd))
    return Moving(
        ecd_shoe_ppg=ecd_shoe,
        ecd_bottom_ppg=ecd_bottom,
        surge_ppg=surge,
        swab_ppg=float(circulating_density(mud, -tripped.total_psi, bottom_tvd)),
        ecd_worst=ecd_worst,
        surge_worst=_nearest(well, string, mud, tripped, "surge"),
        swab_worst=_nearest(well, string, mud, tripped, "swab"),
    )
