"""Where every fluid of a stage stands, what it weighs and what it loses by friction, for any volume moved.

Columns are exact at every boundary between two fluids. Friction per foot of each fluid in each stretch is tabled by rate.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import GAL_PER_BBL, PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.cement.conduit import Stretch
from knollstack.core.cement.rheology import Law
from knollstack.core.cement.stage import Stage
from knollstack.core.mud.formulas import annular_velocity
from knollstack.core.mud.pipe_flow import bore_velocity

Floats = NDArray[np.float64]
RATES = 64
LEAST_RANGE_BPM = 40.0
EVEN = 80
KNOT_FT = 50.0


class Balance:
    """A stage's columns and frictions. Fluid 0 is the mud that was there, the others in the order pumped."""

    Left = Callable[[float], float]

    def __init__(self, stage: Stage) -> None:
        self.stage, self.conduit = stage, stage.conduit
        self.edges = np.array(stage.edges_bbl)
        self.density = np.array([stage.mud_ppg, *(fluid.density_ppg for fluid in stage.fluids)])
        self.laws = (stage.mud_law, *(fluid.law for fluid in stage.fluids))
        fastest = max((step.rate_bpm for step in stage.steps), default=1.0)
        self.most_bpm = max(4 * fastest, LEAST_RANGE_BPM)

    # --- where fluids stand -------------------------------------------------------------------------------------

    def places_bbl(self, moved: Floats) -> Floats:
        """Place on the way of each boundary, deepest fluid first: moved × (fluids + 1); ends at the way's own."""
        inner = moved[:, None] - self.edges[None, :-1]
        whole = np.full((len(moved), 1), self.conduit.whole_bbl)
        return np.concatenate([whole, inner, np.zeros((len(moved), 1))], axis=1)

    def in_pipe_md_ft(self, moved: Floats, empty: Floats) -> Floats:
        """Depth of each boundary in the pipe: fluid j stands between columns j + 1 (above) and j."""
        places = self.places_bbl(moved)
        held = np.clip(places, np.minimum(empty, self.conduit.pipe_bbl)[:, None], self.conduit.pipe_bbl)
        return self.conduit.pipe_md_ft(held)

    def in_annulus_md_ft(self, moved: Floats) -> Floats:
        """Depth of each boundary in the annulus: fluid j stands between columns j (above) and j + 1."""
        start = self.conduit.pipe_bbl + self.conduit.rathole_bbl
        return self.conduit.annulus_md_ft(np.clip(self.places_bbl(moved), start, self.conduit.whole_bbl))

    # --- what they weigh ----------------------------------------------------------------------------------------

    def pipe_psi(self, moved: Floats, empty: Floats) -> Floats:
        """Column in the pipe, at its end."""
        tvd = self.conduit.path.tvd_at(self.in_pipe_md_ft(moved, empty))
        return np.asarray(PSI_PER_PPG_FT * np.sum(self.density * (tvd[:, :-1] - tvd[:, 1:]), axis=1))

    def annulus_psi(self, moved: Floats) -> Floats:
        """Column in the annulus at the same depth, and what stands on it."""
        tvd = self.conduit.path.tvd_at(self.in_annulus_md_ft(moved))
        column = np.sum(self.density * (tvd[:, 1:] - tvd[:, :-1]), axis=1)
        return np.asarray(PSI_PER_PPG_FT * column + self.conduit.back_psi)

    # --- what they lose -----------------------------------------------------------------------------------------

    @cached_property
    def rates_bpm(self) -> Floats:
        """Rates of the table, closer where they are small."""
        return np.asarray(self.most_bpm * np.linspace(0.0, 1.0, RATES) ** 2)

    @cached_property
    def pipe_table(self) -> Floats:
        """Friction [psi/ft] in pipe: fluid × stretch × rate."""
        return self._table(self.conduit.pipe, annulus=False)

    @cached_property
    def annulus_table(self) -> Floats:
        return self._table(self.conduit.annulus, annulus=True)

    @sweeping()
    def _table(self, stretches: tuple[Stretch, ...], *, annulus: bool) -> Floats:
        """None at rest: what a yield stress holds then is left out, so that a column comes to its own balance."""
        outer = np.array([s.outer_in for s in stretches])[:, None]
        inner = np.array([s.inner_in for s in stretches])[:, None]
        flow = self.rates_bpm[None, 1:] * GAL_PER_BBL
        table = np.zeros((len(self.laws), len(stretches), RATES))
        known: dict[tuple[Law, float], Floats] = {}
        for k, (law, density) in enumerate(zip(self.laws, self.density.tolist(), strict=True)):
            if (law, density) not in known:
                if annulus:
                    speed = annular_velocity(flow, outer, inner)
                    known[law, density] = np.asarray(law.annulus_psi_ft(speed, density, outer, inner))
                else:
                    known[law, density] = np.asarray(law.bore_psi_ft(bore_velocity(flow, outer), density, outer))
            table[k, :, 1:] = known[law, density]
        return table

    def _weights(self, rate_bpm: Floats) -> tuple[NDArray[np.intp], Floats]:
        """Rates as a place in the table and the share of the next."""
        k = np.clip(np.searchsorted(self.rates_bpm, rate_bpm, side="right") - 1, 0, RATES - 2)
        low, high = self.rates_bpm[k], self.rates_bpm[k + 1]
        return k, np.clip((rate_bpm - low) / (high - low), 0.0, 1.0)

    def gradients(self, table: Floats, rate_bpm: Floats) -> Floats:
        """Friction [psi/ft] at rates: rate × fluid × stretch."""
        k, share = self._weights(rate_bpm)
        low, high = table[:, :, k], table[:, :, k + 1]
        return np.moveaxis(low + (high - low) * share, 2, 0)

    @staticmethod
    def lengths(upper_md_ft: Floats, lower_md_ft: Floats, stretches: tuple[Stretch, ...]) -> Floats:
        """Length of each fluid in each stretch: moment × fluid × stretch."""
        top = np.array([s.top_md_ft for s in stretches])
        base = np.array([s.base_md_ft for s in stretches])
        under, over = np.minimum(lower_md_ft[:, :, None], base), np.maximum(upper_md_ft[:, :, None], top)
        return np.maximum(under - over, 0.0)

    @cached_property
    def kinks_bbl(self) -> Floats:
        """Volumes moved at which a boundary passes a change of size."""
        kinks = np.unique((self.conduit.marks_bbl[:, None] + self.edges[None, :]).ravel())
        kinks = kinks[(kinks > 0) & (kinks < self.edges[-1])]
        return kinks[np.diff(kinks, prepend=-1.0) > 1e-6]

    @cached_property
    def _grid(self) -> Floats:
        """Volumes moved, even and at every kink; between them all is linear where the well is straight."""
        return np.unique(np.concatenate([np.linspace(0.0, self.edges[-1], EVEN), self.kinks_bbl]))

    def _losses(self, moved: Floats) -> tuple[Floats, Floats]:
        """Friction in full pipe and annulus by the table's rates: moved × rate."""
        pipe, annulus = self.in_pipe_md_ft(moved, np.zeros(len(moved))), self.in_annulus_md_ft(moved)
        inside = self.lengths(pipe[:, 1:], pipe[:, :-1], self.conduit.pipe)
        outside = self.lengths(annulus[:, :-1], annulus[:, 1:], self.conduit.annulus)
        return (
            np.tensordot(inside, self.pipe_table, axes=([1, 2], [0, 1])),
            np.tensordot(outside, self.annulus_table, axes=([1, 2], [0, 1])),
        )

    # --- balance ------------------------------------------------------------------------------------------------

    def pump_psi(self, moved: Floats, rate_bpm: Floats) -> Floats:
        """What the pump must give with the pipe full; below 0 the pipe runs empty at its top."""
        pipe, annulus = self._losses(moved)
        k, share = self._weights(rate_bpm)
        row, both = np.arange(len(moved)), pipe + annulus
        lost = both[row, k] + (both[row, k + 1] - both[row, k]) * share
        return np.asarray(self.annulus_psi(moved) - self.pipe_psi(moved, np.zeros(len(moved))) + lost)

    @cached_property
    def _tables(self) -> tuple[list[float], list[float], list[list[float]]]:
        """By volume moved: what the full column in the pipe has over the annulus, and friction by rate."""
        grid = self._grid
        over = self.pipe_psi(grid, np.zeros(len(grid))) - self.annulus_psi(grid)
        pipe, annulus = self._losses(grid)
        return grid.tolist(), over.tolist(), (pipe + annulus).tolist()

    def left_psi(self, moved: float, empty: float, out_bpm: float) -> float:
        """What drives the fluids at the pump's zero pressure, less both frictions."""
        grid, over, lost = self._tables
        i = min(max(bisect_right(grid, moved) - 1, 0), len(grid) - 2)
        a = (moved - grid[i]) / (grid[i + 1] - grid[i])
        x = RATES - 1 if out_bpm >= self.most_bpm else (out_bpm / self.most_bpm) ** 0.5 * (RATES - 1)
        k = min(int(x), RATES - 2)
        low, high = self._rate_list[k], self._rate_list[k + 1]
        b = (out_bpm - low) / (high - low)

        row, next_row = lost[i], lost[i + 1]
        here = row[k] + (row[k + 1] - row[k]) * b
        there = next_row[k] + (next_row[k + 1] - next_row[k]) * b
        column, spared = self._void(moved, empty, k, b)
        return over[i] + (over[i + 1] - over[i]) * a - column - (here + (there - here) * a) + spared

    @cached_property
    def _rate_list(self) -> list[float]:
        found: list[float] = self.rates_bpm.tolist()
        return found

    @cached_property
    def _top(self) -> tuple[list[float], list[float]]:
        """Down the pipe at knots: volume and TVD."""
        depths = [m for s in self.conduit.pipe for m in np.arange(s.top_md_ft, s.base_md_ft, KNOT_FT)]
        depths.append(self.conduit.end_md_ft)
        knots = np.array(depths)
        return self.conduit.to_mds_bbl(knots).tolist(), self.conduit.path.tvd_at(knots).tolist()

    @cached_property
    def _stretches(self) -> tuple[list[float], list[float], list[list[list[float]]]]:
        """Of each stretch of pipe: volume at its base, capacity [bbl/ft], and friction by fluid and rate."""
        bases = [self.conduit.to_md_bbl(s.base_md_ft) for s in self.conduit.pipe]
        return bases, [s.volume_bbl / s.length_ft for s in self.conduit.pipe], self.pipe_table.tolist()

    def _tvd(self, volume: float) -> float:
        volumes, tvds = self._top
        i = min(bisect_right(volumes, volume) - 1, len(volumes) - 2)
        return tvds[i] + (tvds[i + 1] - tvds[i]) * (volume - volumes[i]) / (volumes[i + 1] - volumes[i])

    def _void(self, moved: float, empty: float, k: int, b: float) -> tuple[float, float]:
        """Column [psi] and friction [psi] of the fluids that would stand in the part of the pipe that is empty."""
        bases, capacity, table = self._stretches
        edges, at, above, column, spared = self._edge_list, 0.0, self._tvd(0.0), 0.0, 0.0
        j = min(bisect_right(edges, moved) - 1, len(edges) - 2)  # the fluid at the head of a full pipe
        k_pipe = 0
        while at < empty:
            end = empty if j < 0 else min(empty, moved - edges[j])
            stop = min(end, bases[k_pipe])
            if stop > at:
                below = self._tvd(stop)
                column += self._density_list[j + 1] * (below - above)
                row = table[j + 1][k_pipe]
                spared += (row[k] + (row[k + 1] - row[k]) * b) * (stop - at) / capacity[k_pipe]
                at, above = stop, below
            if stop >= end:
                j -= 1
            elif k_pipe == len(bases) - 1:
                break
            else:
                k_pipe += 1
        return PSI_PER_PPG_FT * column, spared

    @cached_property
    def _edge_list(self) -> list[float]:
        found: list[float] = self.edges.tolist()
        return found

    @cached_property
    def _density_list(self) -> list[float]:
        found: list[float] = self.density.tolist()
        return found
