"""The rules of setting depths, each with its name, its test and its reason: one object for search, judgement and words."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from knollstack.core.base.findings import Words, depth, emw, volume
from knollstack.core.base.remember import remembered
from knollstack.core.depths.bubble import OpenHole, open_hole
from knollstack.core.depths.full_gas import stand_full_gas
from knollstack.core.depths.rule import Bools, Rule, Tried
from knollstack.core.depths.tolerance import gives
from knollstack.core.document.design import Zone
from knollstack.core.ground.well import Well


class OneMud(Rule):
    """One mud holds the pore pressure and is held by the rock over the whole open hole."""

    def holds(self, at: Tried) -> Bools:
        low, high = self.well.window.over(at.tops_tvd_ft, at.bottom_tvd_ft)
        return np.asarray(low <= high + 1e-9)

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        path = self.well.path
        lower, upper = self.well.window.bounds(path.tvd(top_md_ft), path.tvd(bottom_md_ft))
        if lower is None or upper is None:
            return ("The mud window is not known above.",)
        return (
            f"{where}, {lower.cause} at ",
            depth(path.md(lower.tvd_ft)),
            " asks ",
            emw(lower.mud_ppg),
            f" and {upper.cause} at ",
            depth(path.md(upper.tvd_ft)),
            " allows ",
            emw(upper.mud_ppg),
            ".",
        )


class FreshWater(Rule):
    """All fresh water stands behind the shoes below the conductor, with cover."""

    @cached_property
    def base_tvd_ft(self) -> float | None:
        """Of what the well drills."""
        deepest = self.well.path.deepest_tvd_ft
        drilled = [z for z in self.well.ground.model.zones if z.top_tvd_ft < deepest]
        return max((z.base_tvd_ft for z in drilled if z.fluid == "fresh water"), default=None)

    @cached_property
    def least_tvd_ft(self) -> float:
        """Least TVD of every shoe below the conductor."""
        return 0.0 if self.base_tvd_ft is None else self.covered_from(self.base_tvd_ft)

    def covered_from(self, base_tvd_ft: float) -> float:
        return base_tvd_ft + self.well.policy.depths.fresh_water_cover_ft

    def holds(self, at: Tried) -> Bools:
        return np.asarray(at.tops_tvd_ft >= self.least_tvd_ft - 1e-6)

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        cover = depth(self.well.policy.depths.fresh_water_cover_ft)
        return ("Fresh water must be behind the shoe with ", cover, " of cover.")


class SurfaceShoe(Rule):
    """Fresh water gets a surface shoe: the last hole is not drilled through it from the conductor shoe."""

    @cached_property
    def fresh_water(self) -> FreshWater:
        return FreshWater(self.well, "fresh water")

    def holds(self, at: Tried) -> Bools:
        last = at.bottom_md_ft >= self.well.path.total_md_ft - 1e-6
        return np.asarray(self.fresh_water.holds(at)) if last else np.ones(at.tops_md_ft.shape, dtype=bool)

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        return self.fresh_water.why(top_md_ft, bottom_md_ft, where)


@dataclass(frozen=True)
class Band:
    """A zone to be cased off before drilling ahead, and the TVD between which a shoe does so."""

    zone: Zone
    shallow_tvd_ft: float
    deep_tvd_ft: float


class CaseOff(Rule):
    """A zone to be cased off before drilling ahead has a shoe in its band before the hole goes below it."""

    def band(self, zone: Zone) -> Band:
        policy = self.well.policy.depths
        return Band(zone, zone.base_tvd_ft + policy.zone_cover_ft, zone.base_tvd_ft + policy.zone_reach_ft)

    @cached_property
    def bands(self) -> tuple[Band, ...]:
        return tuple(self.band(zone) for zone in self.well.ground.model.zones if zone.case_before_deeper)

    def holds(self, at: Tried) -> Bools:
        passed = np.zeros(at.tops_tvd_ft.shape, dtype=bool)
        for band in self.bands:
            passed |= (at.tops_tvd_ft < band.shallow_tvd_ft) & (at.bottom_tvd_ft > band.deep_tvd_ft)
        return ~passed

    def passed_by(self, top_md_ft: float, bottom_md_ft: float) -> list[Band]:
        """Bands that a hole passes without a shoe in them."""
        top, bottom = self.well.path.tvd(top_md_ft), self.well.path.tvd(bottom_md_ft)
        return [band for band in self.bands if top < band.shallow_tvd_ft and bottom > band.deep_tvd_ft]

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        zone = self.passed_by(top_md_ft, bottom_md_ft)[0].zone
        if where == "Deeper":
            return (f"{zone.name} must be cased before drilling deeper.",)
        cover = depth(self.well.policy.depths.zone_cover_ft)
        return (f"{zone.name} must be cased, with ", cover, " of cover, before drilling deeper.")


@dataclass(frozen=True)
class Barred:
    """A zone in which no shoe may stand, and the TVD between which none does: its cover included."""

    zone: Zone
    top_tvd_ft: float
    base_tvd_ft: float


class NoShoe(Rule):
    """No shoe stands in a zone where none is allowed, nor within the cover below it."""

    def barred(self, zone: Zone) -> Barred:
        return Barred(zone, zone.top_tvd_ft, zone.base_tvd_ft + self.well.policy.depths.zone_cover_ft)

    @cached_property
    def spans(self) -> tuple[Barred, ...]:
        return tuple(self.barred(zone) for zone in self.well.ground.model.zones if not zone.shoe_allowed)

    def holds(self, at: Tried) -> Bools:
        inside = np.zeros(at.tops_tvd_ft.shape, dtype=bool)
        for span in self.spans:
            inside |= (at.tops_tvd_ft > span.top_tvd_ft) & (at.tops_tvd_ft < span.base_tvd_ft)
        return ~inside

    def span_at(self, md_ft: float) -> Barred | None:
        tvd = self.well.path.tvd(md_ft)
        return next((span for span in self.spans if span.top_tvd_ft < tvd < span.base_tvd_ft), None)

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        return (f"No shoe may be set in the rock just {'below' if where == 'Deeper' else 'above'}.",)


class OpenHoleLength(Rule):
    """The open hole is no longer than policy allows."""

    @property
    def limit_ft(self) -> float:
        return self.well.policy.depths.open_hole_limit_ft

    def holds(self, at: Tried) -> Bools:
        return np.asarray(at.bottom_md_ft - at.tops_md_ft <= self.limit_ft)

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        return ("Open hole is limited to ", depth(self.limit_ft), ".")


class DiverterLimit(Rule):
    """The hole drilled on the conductor, where no kick can be shut in, goes no deeper than policy allows."""

    @property
    def limit_ft(self) -> float:
        return self.well.policy.depths.diverter_limit_ft

    def holds(self, at: Tried) -> Bools:
        return np.full(at.tops_md_ft.shape, at.bottom_md_ft - self.well.ground_md_ft <= self.limit_ft)

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        return ("The hole on the diverter is limited to ", depth(self.limit_ft), " below the ground.")


class DiverterHydrocarbons(Rule):
    """No marked oil or gas is drilled on the conductor, where no kick can be shut in."""

    @cached_property
    def marked(self) -> list[Zone]:
        return [z for z in self.well.ground.model.zones if z.fluid in ("oil", "gas")]

    def drilled(self, top_md_ft: float, bottom_md_ft: float) -> list[Zone]:
        """Zones marked oil or gas in a hole."""
        top, bottom = self.well.path.span(top_md_ft, bottom_md_ft)
        return [z for z in self.marked if z.top_tvd_ft < bottom and z.base_tvd_ft > top]

    def holds(self, at: Tried) -> Bools:
        return np.array([not self.drilled(float(top), at.bottom_md_ft) for top in at.tops_md_ft], dtype=bool)

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        zone = self.drilled(top_md_ft, bottom_md_ft)[0]
        return (f"{zone.name}, marked {zone.fluid}, may not be drilled on the diverter.",)


@dataclass(frozen=True, eq=False)
class KickTolerance(Rule):
    """A kick in the hole below can be circulated out: by a minimum volume, or full of gas, as policy has it."""

    hole: OpenHole
    asked_bbl: float

    def holds(self, at: Tried) -> Bools:
        if self.well.policy.depths.kick_criterion == "full gas":
            return stand_full_gas(self.well, at.tops_tvd_ft, at.bottom_tvd_ft)
        low, high = self.well.window.over(at.tops_tvd_ft, at.bottom_tvd_ft)
        rounded = np.ceil(np.round(low * 10, 6)) / 10
        mud = np.where(rounded <= high, rounded, low)
        return gives(self.well, self.hole, at.tops_md_ft, mud, at.bottom_md_ft, self.asked_bbl)

    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        if where == "Deeper":
            return ("Kick tolerance drilling deeper would be under ", volume(self.asked_bbl), ".")
        return ("Kick tolerance below the shoe would be under ", volume(self.asked_bbl), " any shallower.")


@dataclass(frozen=True, eq=False)
class DepthRules:
    """The rules of one well that do not depend on the hole size, in the order in which they are spoken of."""

    one_mud: OneMud
    fresh_water: FreshWater
    case_off: CaseOff
    no_shoe: NoShoe
    open_hole: OpenHoleLength
    diverter: DiverterLimit
    hydrocarbons: DiverterHydrocarbons
    surface_shoe: SurfaceShoe

    @property
    def all(self) -> tuple[Rule, ...]:
        """Those that every section below a surface shoe keeps."""
        return self.one_mud, self.fresh_water, self.case_off, self.no_shoe, self.open_hole

    @property
    def on_the_diverter(self) -> tuple[Rule, ...]:
        """Those of the hole below the conductor, which cannot shut a kick in: no kick rule, but these."""
        return self.diverter, self.hydrocarbons, self.surface_shoe, self.case_off, self.open_hole

    def where_a_shoe_may_stand(self, at: Tried) -> Bools:
        """What a shoe asks of its own place, whatever is drilled below it."""
        return self.fresh_water.holds(at) & self.no_shoe.holds(at)

    def marks_tvd_ft(self) -> list[float]:
        """Depths at which a rule changes its answer."""
        ends = [z for band in self.case_off.bands for z in (band.shallow_tvd_ft, band.deep_tvd_ft)]
        tops = [zone.top_tvd_ft for zone in self.hydrocarbons.marked]
        return [self.fresh_water.least_tvd_ft, *ends, *(span.base_tvd_ft for span in self.no_shoe.spans), *tops]


@remembered(32)
def depth_rules(well: Well) -> DepthRules:
    return DepthRules(
        OneMud(well, "mud window"),
        FreshWater(well, "fresh water"),
        CaseOff(well, "case before deeper"),
        NoShoe(well, "no shoe"),
        OpenHoleLength(well, "open-hole length"),
        DiverterLimit(well, "diverter limit"),
        DiverterHydrocarbons(well, "hydrocarbons on the diverter"),
        SurfaceShoe(well, "fresh water"),
    )


def kick_rule(well: Well, hole_in: float) -> KickTolerance:
    """The rule for a hole size, with the volume that policy asks in it."""
    return KickTolerance(well, "kick tolerance", open_hole(well, hole_in), well.kick_minimum_bbl(hole_in))
