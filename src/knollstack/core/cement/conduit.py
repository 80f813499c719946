"""The way that the fluids of a job take: down the pipe, around its end, up the annulus; volume against depth.

A place on the way is told by the volume from the cementing head down to it. The rathole under the shoe is filled on the way,
as the volumes of the job have it. Open hole holds its excess; its friction is that of the bit's size.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate, pairwise

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import annular_capacity, circle_capacity, interval_volume
from knollstack.core.cement.hole import hole_of
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.path.trajectory import Path
from knollstack.core.program.column import by_inner_string
from knollstack.core.program.equipped import EquippedString

Floats = NDArray[np.float64]
Bores = tuple[tuple[float, float], ...] | None
"""Lengths [ft] and bores [in] of the casing around a string, from the ground down; None where unknown."""


@dataclass(frozen=True)
class Stretch:
    """A length of one bore: of pipe with `inner_in` 0, or of annulus; `excess` is what a washed-out hole holds more."""

    top_md_ft: float
    base_md_ft: float
    outer_in: float
    inner_in: float = 0.0
    excess: float = 0.0

    @property
    def length_ft(self) -> float:
        return self.base_md_ft - self.top_md_ft

    @cached_property
    def volume_bbl(self) -> float:
        with sweeping():
            if self.inner_in:
                return float(
                    interval_volume(annular_capacity(self.outer_in, self.inner_in), self.length_ft, self.excess)
                )
            return float(interval_volume(circle_capacity(self.outer_in), self.length_ft))


@dataclass(frozen=True, eq=False)
class Conduit:
    """Pipe from the head down and annulus from the top down, both to the place where the fluids come out."""

    path: Path
    pipe: tuple[Stretch, ...]
    annulus: tuple[Stretch, ...]
    rathole_bbl: float
    seat_md_ft: float
    """Where the top plug lands."""
    inner: bool
    """Down an inner string: the casing around it stands full of mud down to the seat."""
    back_psi: float
    """On top of the annulus: the sea over a hole with returns to the sea floor."""

    @property
    def end_md_ft(self) -> float:
        return self.pipe[-1].base_md_ft

    @property
    def returns_md_ft(self) -> float:
        return self.annulus[0].top_md_ft

    @cached_property
    def pipe_bbl(self) -> float:
        return sum(s.volume_bbl for s in self.pipe)

    @cached_property
    def annulus_bbl(self) -> float:
        return sum(s.volume_bbl for s in self.annulus)

    @property
    def whole_bbl(self) -> float:
        return self.pipe_bbl + self.rathole_bbl + self.annulus_bbl

    @cached_property
    def _down(self) -> tuple[Floats, Floats]:
        """Volumes from the head and depths, down the pipe."""
        volumes = list(accumulate((s.volume_bbl for s in self.pipe), initial=0.0))
        return np.array(volumes), np.array([self.pipe[0].top_md_ft, *(s.base_md_ft for s in self.pipe)])

    @cached_property
    def _up(self) -> tuple[Floats, Floats]:
        """Volumes from the head and depths, up the annulus."""
        rising = self.annulus[::-1]
        start = self.pipe_bbl + self.rathole_bbl
        volumes = list(accumulate((s.volume_bbl for s in rising), initial=start))
        return np.array(volumes), np.array([rising[0].base_md_ft, *(s.top_md_ft for s in rising)])

    def pipe_md_ft(self, volume_bbl: Floats) -> Floats:
        return np.asarray(np.interp(volume_bbl, *self._down))

    def annulus_md_ft(self, volume_bbl: Floats) -> Floats:
        return np.asarray(np.interp(volume_bbl, *self._up))

    def to_md_bbl(self, md_ft: float) -> float:
        """Volume from the head down the pipe to a depth."""
        volumes, depths = self._down
        return float(np.interp(md_ft, depths, volumes))

    def to_mds_bbl(self, md_ft: Floats) -> Floats:
        volumes, depths = self._down
        return np.asarray(np.interp(md_ft, depths, volumes))

    def over_md_bbl(self, md_ft: float) -> float:
        """Volume of the annulus from where the fluids come out up to a depth."""
        volumes, depths = self._up
        return float(np.interp(md_ft, depths[::-1], volumes[::-1])) - float(volumes[0])

    def rise_md_ft(self, md_ft: float, volume_bbl: float) -> float:
        """Depth that so much more reaches in the annulus, over a depth."""
        volumes, _ = self._up
        return float(self.annulus_md_ft(np.array(volumes[0] + self.over_md_bbl(md_ft) + volume_bbl)))

    @cached_property
    def marks_bbl(self) -> Floats:
        """Places at which the way changes its size."""
        return np.unique(np.concatenate([self._down[0], self._up[0]]))


def _cut(spans: list[Stretch], base_md_ft: float) -> tuple[Stretch, ...]:
    """Stretches as far as a depth."""
    kept = [s for s in spans if s.top_md_ft < base_md_ft - 1e-9]
    if kept and kept[-1].base_md_ft > base_md_ft:
        last = kept[-1]
        kept[-1] = Stretch(last.top_md_ft, base_md_ft, last.outer_in, last.inner_in, last.excess)
    return tuple(kept)


def _pipe(well: Well, string: EquippedString, inner_to_ft: float) -> list[Stretch] | None:
    """Inner or landing string, and casing, from the rig floor down; None where a bore is unknown."""
    found: list[Stretch] = []
    drill_pipe_ft = max(string.top_md_ft, inner_to_ft)
    if drill_pipe_ft > 0:
        bore = well.drill_string(string.bit_in or 0.0).pipe_id_in
        if bore is None:
            return None
        found.append(Stretch(0.0, drill_pipe_ft, bore))
    casing = [Stretch(max(s.top_md_ft, drill_pipe_ft), s.bottom_md_ft, s.pipe.id_in) for s in string.sections]
    return found + [s for s in casing if s.length_ft > 1e-9]


def _outer(well: Well, string: EquippedString, bores: Bores) -> list[tuple[float, float, float, bool]] | None:
    """Top, base and bore of what is around the string, from the rig floor or the sea floor down, and whether it is open hole."""
    if bores is None or string.bit_in is None:
        return None
    at = well.ground_md_ft
    riserless = is_riserless(well, string.index)
    spans = [] if riserless else [(0.0, at, well.policy.mud.riser_id_in, False)]
    for length, bore in bores:
        spans.append((at, at + length, bore, False))
        at += length
    spans.append((at, string.shoe_md_ft, string.bit_in, True))
    if well.site.setting != "subsea" and len(spans) > 1:  # casing, or the hole itself, goes on up to the flow line
        spans[0] = (0.0, spans[0][1], spans[1][2], False)
    return spans


def _annulus(well: Well, string: EquippedString, bores: Bores) -> list[Stretch] | None:
    around, hole = _outer(well, string, bores), hole_of(well, string)
    if around is None or hole is None or not string.sections:
        return None
    landing_od = well.drill_string(string.bit_in or 0.0).pipe_od_in
    inner = [(0.0, string.top_md_ft, landing_od)] if string.top_md_ft > 0 else []
    inner += [(s.top_md_ft, s.bottom_md_ft, s.pipe.od_in) for s in string.sections]
    edges = sorted({m for top, base, *_ in (*around, *inner) for m in (top, base)})
    found: list[Stretch] = []
    for top, base in pairwise(edges):
        middle = (top + base) / 2
        outside = next(((bore, opened) for t, b, bore, opened in around if t <= middle < b), None)
        pipe = next((od for t, b, od in inner if t <= middle < b), None)
        if outside is None or pipe is None:
            continue
        if outside[0] <= pipe:
            return None
        parts = hole.parts(top, base, pipe) if outside[1] else [(top, base, 0.0)]
        found += [Stretch(low, high, outside[0], pipe, more) for low, high, more in parts]
    return found


def conduit_of(well: Well, string: EquippedString, bores: Bores, end_md_ft: float, seat_md_ft: float) -> Conduit | None:
    """The way of a job that comes out at a depth; None where a size on it is unknown."""
    inner = by_inner_string(string)
    pipe, annulus = _pipe(well, string, seat_md_ft if inner else 0.0), _annulus(well, string, bores)
    if not pipe or not annulus or not string.sections:
        return None
    at_shoe = end_md_ft >= string.shoe_md_ft - 1e-9
    with sweeping():
        rathole = float(interval_volume(circle_capacity(string.bit_in or 0.0), well.policy.cement.rathole_ft))
    sea = PSI_PER_PPG_FT * SEA_WATER_PPG * well.site.water_depth_ft
    return Conduit(
        path=well.path,
        pipe=_cut(pipe, end_md_ft),
        annulus=_cut(annulus, end_md_ft),
        rathole_bbl=rathole if at_shoe else 0.0,
        seat_md_ft=min(seat_md_ft, end_md_ft),
        inner=inner,
        back_psi=sea if is_riserless(well, string.index) else 0.0,
    )
