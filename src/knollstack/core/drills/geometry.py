"""The way from the outlet down to the bottom of the hole, by volume: where a barrel stands, and what it rubs along."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from knollstack.core.base.constants import BBL_PER_FT_PER_IN2


@dataclass(frozen=True)
class Stretch:
    """A length between two diameters, and its friction at the slow rate with the design's mud [psi]."""

    top_md_ft: float
    bottom_md_ft: float
    outer_in: float
    inner_in: float = 0.0
    friction_psi: float = 0.0

    @property
    def capacity_bbl_ft(self) -> float:
        return capacity(self.outer_in, self.inner_in)

    @property
    def length_ft(self) -> float:
        return self.bottom_md_ft - self.top_md_ft


@dataclass(frozen=True)
class Line:
    """Values at rising points, straight between them: TVD by MD, temperature by TVD."""

    points: tuple[float, ...]
    values: tuple[float, ...]

    def at(self, point: float) -> float:
        return _between(self.points, self.values, point)


def _between(xs: Sequence[float], ys: Sequence[float], x: float) -> float:
    i = min(max(bisect_right(xs, x) - 1, 0), len(xs) - 2)
    span = xs[i + 1] - xs[i]
    share = (x - xs[i]) / span if span > 0 else 0.0
    return ys[i] + (ys[i + 1] - ys[i]) * min(max(share, 0.0), 1.0)


class Way:
    """Volumes from the outlet down; every list has one entry a node."""

    def __init__(self, stretches: Iterable[Stretch], depths: Line) -> None:
        self.bbl: list[float] = [0.0]
        self.md: list[float] = []
        self.tvd: list[float] = []
        self.friction: list[float] = [0.0]
        for part in stretches:
            if not self.md:
                self.md.append(part.top_md_ft)
                self.tvd.append(depths.at(part.top_md_ft))
            if part.length_ft <= 0:
                continue
            knots = [m for m in depths.points if part.top_md_ft < m < part.bottom_md_ft]
            for md in (*knots, part.bottom_md_ft):
                length = md - self.md[-1]
                if part.capacity_bbl_ft <= 0:
                    continue
                self.bbl.append(self.bbl[-1] + length * part.capacity_bbl_ft)
                self.friction.append(self.friction[-1] + part.friction_psi * length / part.length_ft)
                self.tvd.append(depths.at(md))
                self.md.append(md)

    @property
    def total_bbl(self) -> float:
        return self.bbl[-1]

    def at(self, bbl: float) -> tuple[float, float]:
        """TVD [ft] and friction down to there [psi at the slow rate]."""
        bbls, tvd, friction = self.bbl, self.tvd, self.friction
        if bbl <= 0.0:
            return tvd[0], 0.0
        if bbl >= bbls[-1]:
            return tvd[-1], friction[-1]
        i = bisect_right(bbls, bbl) - 1
        low = bbls[i]
        share = (bbl - low) / (bbls[i + 1] - low)
        return tvd[i] + (tvd[i + 1] - tvd[i]) * share, friction[i] + (friction[i + 1] - friction[i]) * share

    def volume_at(self, md_ft: float) -> float:
        return _between(self.md, self.bbl, md_ft)

    def md_at(self, bbl: float) -> float:
        return _between(self.bbl, self.md, bbl)

    def capacity_at(self, bbl: float) -> float:
        """bbl/ft around a volume."""
        i = min(max(bisect_right(self.bbl, bbl) - 1, 0), len(self.bbl) - 2)
        length = self.md[i + 1] - self.md[i]
        return (self.bbl[i + 1] - self.bbl[i]) / length if length > 0 else 0.0


def capacity(outer_in: float, inner_in: float = 0.0) -> float:
    """bbl/ft between two diameters."""
    return BBL_PER_FT_PER_IN2 * max(outer_in**2 - inner_in**2, 0.0)
