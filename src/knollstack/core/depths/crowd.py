"""Weak points and kicks of a hole in a dense profile: too many pairs to lay out, so asked block by block.

Of every block of neighbours a volume is known that none of its pairs falls short of. Blocks that cannot hold what is sought
are left alone; the others are laid out a few at a time. What is found is what laying out every pair would find.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.depths.bubble import OpenHole
from knollstack.core.depths.pairs import Pairs, Rock, joined, pairs_of
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]
MANY = 400_000
"""Pairs up to which all are laid out at once."""
BLOCK = 128
AT_ONCE = 24


@dataclass(frozen=True, eq=False)
class Crowd:
    """The rock and the kicks of one open hole; `own` pairs each kick with the rock at its own depth."""

    well: Well
    rock: Rock
    kicks_ft: Floats
    intensity_ppg: float
    roots: bool = True
    own: Pairs | None = None

    @property
    def kick_psi(self) -> Floats:
        pore = self.well.ground.pore.at(self.kicks_ft)
        return np.asarray(PSI_PER_PPG_FT * (pore + self.intensity_ppg) * self.kicks_ft)

    def at(self, weak_tvd_ft: float) -> Pairs:
        """The pairs of one weak point."""
        place = np.flatnonzero(self.rock.tvd_ft == weak_tvd_ft)
        rock = Rock(self.rock.tvd_ft[place], self.rock.emw_ppg[place], self.rock.choke_line_psi)
        return pairs_of(self.well, rock, self.kicks_ft, self.intensity_ppg, roots=False)

    def bounds(self, hole: OpenHole, mud_ppg: Floats) -> Floats:
        """A volume [bbl] that no pair of a block falls short of, row block × kick block; infinite where none breaks.

        `mud_ppg` is that of each point of the rock. A heavier mud never lowers a volume that breaks.
        """
        gas = self.well.policy.depths.influx_psi_ft
        z, k = self.rock.tvd_ft, self.kicks_ft
        weak, kick = self.rock.psi(self.rock.emw_ppg, z), self.kick_psi
        mud = PSI_PER_PPG_FT * _each(np.minimum, mud_ppg, 1)[:, None]
        # the next row is part of a block: what lies between two points is nowhere less than this
        emw, shallow = _each(np.minimum, self.rock.emw_ppg, 1), _each(np.minimum, z, 1)
        least_psi = (PSI_PER_PPG_FT * emw * shallow - self.rock.choke_line_psi)[:, None]
        deep = _each(np.maximum, z, 1)[:, None]
        first, last = _each(np.minimum, k, 0)[None, :], _each(np.maximum, k, 0)[None, :]
        most_kick = _each(np.maximum, kick, 0)[None, :]
        open_ft = np.maximum(0.0, first - deep)
        room = least_psi - most_kick + mud * open_ft
        height = np.clip(room / (mud - gas), 0.0, open_ft)
        if not self.roots:
            height = np.maximum(0.0, room / (mud - gas))
        ratio = np.clip(least_psi / most_kick, 0.0, 1.0)
        volume = min(hole.pipe_annulus_bbl_ft, hole.collar_annulus_bbl_ft) * height * ratio
        breaks = _each(np.maximum, kick - gas * k, 0)[None, :] > _each(np.minimum, weak - gas * z, 1)[:, None]
        return np.asarray(np.where(breaks & (shallow[:, None] <= last), volume, np.inf))

    def laid_out(self, rows: list[int], columns: list[int]) -> Pairs:
        """The pairs of some blocks."""
        found = []
        for row, column in zip(rows, columns, strict=True):
            start = row * BLOCK
            part = slice(start, start + BLOCK + 1 if self.roots else start + BLOCK)
            rock = Rock(self.rock.tvd_ft[part], self.rock.emw_ppg[part], self.rock.choke_line_psi)
            kicks = self.kicks_ft[column * BLOCK : (column + 1) * BLOCK]
            pairs = pairs_of(self.well, rock, kicks, self.intensity_ppg, roots=self.roots)
            found.append(pairs)
        return joined(*found)

    def likely_first(self, hole: OpenHole, mud_ppg: float) -> Iterator[tuple[float, Pairs]]:
        """Groups of pairs with a bound under which none of them or of those that follow lies, the least first."""
        if self.own is not None:
            yield 0.0, self.own
        bounds = self.bounds(hole, np.full(self.rock.tvd_ft.shape, mud_ppg))
        order = np.argsort(bounds, axis=None, kind="stable")
        order = order[np.isfinite(bounds.ravel()[order])]
        for start in range(0, len(order), AT_ONCE):
            rows, columns = np.unravel_index(order[start : start + AT_ONCE], bounds.shape)
            yield float(bounds[rows[0], columns[0]]), self.laid_out(rows.tolist(), columns.tolist())

    def short_rows(self, hole: OpenHole, mud_ppg: Floats, asked_bbl: float) -> Iterator[tuple[int, list[int]]]:
        """Row blocks, the deepest first, with the kick blocks that may hold a pair short of a volume."""
        short = self.bounds(hole, mud_ppg) < asked_bbl
        for row in range(short.shape[0] - 1, -1, -1):
            columns = np.flatnonzero(short[row]).tolist()
            for start in range(0, len(columns), AT_ONCE):
                yield row, columns[start : start + AT_ONCE]

    def deepest_of(self, row: int) -> float:
        """Depth [ft TVD] that no weak point of a row block is below."""
        return float(self.rock.tvd_ft[min((row + 1) * BLOCK, len(self.rock.tvd_ft) - 1)])


def _each(which: np.ufunc, values: Floats, overlap: int) -> Floats:
    """The least or greatest of each block, with so many of the next block's values."""
    starts = range(0, len(values), BLOCK)
    return np.array([which.reduce(values[s : s + BLOCK + overlap]) for s in starts])
