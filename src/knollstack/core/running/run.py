"""A string while it is run: its legs of one pipe from the shoe up, the pipe it is landed on, and the depths of its shoe."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.running.tally import Tally, tally_of

Floats = NDArray[np.float64]
STEEL_LB_FT_IN2 = 3.4
"""Weight of steel pipe per foot over its cross section (490 lb/ft³)."""
STAND_FT = 93.0
"""Drill pipe is run in stands of three joints."""
MOST_DEPTHS = 32


@dataclass(frozen=True)
class Leg:
    """A length of one pipe, in ft above the shoe's nose; `pipe` is None of the drill pipe on which a string is landed."""

    low_ft: float
    high_ft: float
    weight_ppf: float
    od_in: float
    id_in: float
    pipe: Pipe | None


@dataclass(frozen=True, eq=False)
class Run:
    """What every judgement of the run works on."""

    well: Well
    string: EquippedString
    tally: Tally
    mud_ppg: float
    legs: tuple[Leg, ...]
    outers: tuple[tuple[float, float, float], ...]
    """Top, base and bore of what is around the string, from the top down; the last is the open hole."""
    head_lbf: float
    """Weight of the housing that is landed with it, picked up once all its joints are run."""

    @cached_property
    def lowered_md_ft(self) -> Floats:
        """Depth of the shoe when each joint, and each stand of a landing string, is lowered to the rotary."""
        shoe = self.tally.shoe_md_ft
        joints = np.minimum(self.tally.top_ft, shoe)
        landing = np.arange(self.tally.total_ft + STAND_FT, shoe + STAND_FT, STAND_FT)
        return np.append(joints, np.minimum(landing, shoe)) if self.tally.total_ft < shoe else joints

    @cached_property
    def depths_md_ft(self) -> Floats:
        """Some of these depths, evenly, and the last."""
        every = np.unique(np.append(self.lowered_md_ft, self.tally.shoe_md_ft))
        few = np.unique(np.linspace(0, len(every) - 1, MOST_DEPTHS).astype(int))
        return np.asarray(every[few])

    @property
    def casing_legs(self) -> tuple[Leg, ...]:
        return tuple(leg for leg in self.legs if leg.pipe is not None)

    def bore_bbl_psi(self, leg: Leg) -> float:
        """Weight [lb/ft] of the mud inside a leg."""
        return PSI_PER_PPG_FT * self.mud_ppg * np.pi / 4 * leg.id_in**2


def _pipe_legs(string: EquippedString, tally: Tally) -> list[Leg]:
    """Legs of the casing: joints of one section after another, shoe and collars with the joint above them."""
    decided, ends = bool(string.own.sections), [s.bottom_md_ft for s in string.sections[:-1]]
    middle = string.shoe_md_ft - (tally.bottom_ft + tally.top_ft) / 2
    place = np.minimum(tally.section, len(string.sections) - 1) if decided else np.searchsorted(np.array(ends), middle)
    starts = np.flatnonzero(np.diff(place, prepend=-1))
    tops = [*tally.bottom_ft[starts[1:]].tolist(), tally.total_ft]
    legs, low = [], 0.0
    for start, top in zip(starts.tolist(), tops, strict=True):
        pipe = string.sections[int(place[start])].pipe
        legs.append(Leg(low, top, pipe.weight_ppf, pipe.od_in, pipe.id_in, pipe))
        low = top
    return legs


def _landing_leg(well: Well, string: EquippedString, tally: Tally) -> Leg | None:
    """The drill pipe that lands a liner, or at sea a string; on land the landing joint is casing. None where unknown."""
    if tally.hung == "mandrel" and well.site.setting != "subsea":
        pipe = string.sections[0].pipe
        return Leg(tally.total_ft, tally.shoe_md_ft, pipe.weight_ppf, pipe.od_in, pipe.id_in, pipe)
    drill = well.drill_string(string.bit_in or 0.0)
    if drill.pipe_id_in is None:
        return None
    weight = STEEL_LB_FT_IN2 * np.pi / 4 * (drill.pipe_od_in**2 - drill.pipe_id_in**2)
    return Leg(tally.total_ft, tally.shoe_md_ft, weight, drill.pipe_od_in, drill.pipe_id_in, None)


def _around(
    string: EquippedString, bores: tuple[tuple[float, float], ...], ground_ft: float
) -> list[tuple[float, float, float]]:
    spans, at = [], ground_ft
    for length, bore in bores:
        spans.append((at, at + length, bore))
        at += length
    return [*spans, (string.previous_shoe_md_ft, string.shoe_md_ft, string.bit_in or 0.0)]


@remembered(32)
def _run(
    well: Well, string: EquippedString, catalogue: Catalogue, bores: tuple[tuple[float, float], ...], head_lbf: float
) -> Run | None:
    tally = tally_of(well, string, catalogue)
    if tally is None or string.mud_ppg is None or not string.sections or string.bit_in is None:
        return None
    legs = _pipe_legs(string, tally)
    if tally.hung != "slips" and tally.landing_md_ft > 0:
        landing = _landing_leg(well, string, tally)
        if landing is None:
            return None
        legs.append(landing)
    around = _around(string, bores, well.ground_md_ft)
    widest = max(section.pipe.od_in for section in string.sections)
    if any(bore <= widest for _, _, bore in around):
        return None
    # before the riser is on the string is run through open water, filled with it
    mud = SEA_WATER_PPG if is_riserless(well, string.index) else string.mud_ppg
    return Run(well, string, tally, mud, tuple(legs), tuple(around), head_lbf)


def run_of(equipped: Equipped, string: EquippedString) -> Run | None:
    """The run of a string; None where it is not run into a drilled hole, or a size, its pipe or its mud is unknown."""
    bores = equipped.cased_bores(string)
    head = equipped.housing_lbf if equipped.carrier is string else 0.0
    return None if bores is None else _run(equipped.well, string, equipped.catalogue, tuple(bores), head)
