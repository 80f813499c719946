"""What stands in the string: fluids one over the other, moved by the pump or by the U-tube."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.drills.geometry import Line, capacity
from knollstack.core.drills.setup import Tube

SPECK_BBL = 1e-9


@dataclass(slots=True)
class Slug:
    ppg: float
    bbl: float


class Inside:
    """Slugs from the rig floor down; `void_bbl` is what is missing on top."""

    def __init__(self, string: tuple[Tube, ...], bit_md_ft: float, depths: Line, mud_ppg: float) -> None:
        self.depths = depths
        self.void_bbl = 0.0
        self.fit(string, bit_md_ft)
        self.slugs = [Slug(mud_ppg, self.total_bbl)]

    def fit(self, string: tuple[Tube, ...], bit_md_ft: float) -> None:
        """Take the lengths of a string with its bit at a depth; what is inside stays."""
        parts, left = [], bit_md_ft
        for tube in string:
            length = min(tube.length_ft, left)
            parts.append((length, capacity(tube.id_in)))
            left -= length
        self.parts = [p for p in reversed(parts) if p[0] > 0]
        self.total_bbl = sum(length * area for length, area in self.parts)

    def md_at(self, bbl: float) -> float:
        md = 0.0
        for length, area in self.parts:
            if bbl <= length * area or area <= 0:
                return md + (bbl / area if area > 0 else 0.0)
            bbl -= length * area
            md += length
        return md

    @property
    def column_psi(self) -> float:
        """Weight of what stands in it, at the bit."""
        at = self.void_bbl
        tvd, psi = self.depths.at(self.md_at(at)), 0.0
        for slug in self.slugs:
            at += slug.bbl
            down = self.depths.at(self.md_at(at))
            psi += PSI_PER_PPG_FT * slug.ppg * (down - tvd)
            tvd = down
        return psi

    @property
    def mean_ppg(self) -> float:
        """Density by volume: by it friction in the string grows."""
        whole = sum(s.bbl for s in self.slugs)
        return sum(s.bbl * s.ppg for s in self.slugs) / whole if whole > 0 else 0.0

    def pump(self, bbl: float, ppg: float) -> None:
        """Fluid in at the top."""
        if bbl <= 0:
            return
        if self.slugs and abs(self.slugs[0].ppg - ppg) < 1e-9:
            self.slugs[0].bbl += bbl
        else:
            self.slugs.insert(0, Slug(ppg, bbl))

    def out_below(self, bbl: float) -> list[Slug]:
        """What leaves at the bit, the first first."""
        return self._out(bbl, -1)

    def out_above(self, bbl: float) -> list[Slug]:
        """What flows out at the rig floor."""
        return self._out(bbl, 0)

    def _out(self, bbl: float, end: int) -> list[Slug]:
        gone = []
        while bbl > SPECK_BBL and self.slugs:
            slug = self.slugs[end]
            share = min(1.0, bbl / slug.bbl) if slug.bbl > 0 else 1.0
            part = Slug(slug.ppg, slug.bbl * share)
            gone.append(part)
            bbl -= part.bbl
            if share >= 1.0:
                self.slugs.pop(end)
            else:
                slug.bbl -= part.bbl
        return gone

    def into_bottom(self, slug: Slug) -> None:
        """What comes up into it from the hole."""
        last = self.slugs[-1] if self.slugs else None
        if last is not None and abs(last.ppg - slug.ppg) < 1e-9:
            last.bbl += slug.bbl
        else:
            self.slugs.append(slug)

    def settle(self) -> None:
        """What is missing on top; a rounding of sums is nothing, or the gauge would read nothing for ever."""
        missing = self.total_bbl - self.held_bbl
        self.void_bbl = missing if missing > SPECK_BBL else 0.0

    @property
    def held_bbl(self) -> float:
        return sum(s.bbl for s in self.slugs)
