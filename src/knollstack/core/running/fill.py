"""Filling a string while it is run, and what the mud outside does to it before each fill.

The float keeps mud out: the string is empty from the rotary down by what was run since the last fill. Empty pipe inside
mud is compared with the collapse rating under the tension at that place, hung in its mud with its end closed.
"""

from __future__ import annotations

from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import circle_capacity, hydrostatic_pressure, interval_volume, safety_factor
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.catalogue.ratings import HIGHEST_STRESS_SHARE, equivalent_external_pressure, pipe_collapse
from knollstack.core.document.running import FillMethod
from knollstack.core.pipe.formulas import areas_in2, hanging_force
from knollstack.core.running.formulas import longest_empty_run
from knollstack.core.running.gear import fill_joints_of, fill_of
from knollstack.core.running.run import Leg, Run

Floats = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Level:
    """Depths of the shoe at which the string is emptiest, and the level of the mud inside then, from the rotary."""

    shoe_md_ft: Floats
    empty_md_ft: Floats
    joint: NDArray[np.int64]

    def part(self, kept: slice | NDArray[np.intp]) -> Level:
        return Level(self.shoe_md_ft[kept], self.empty_md_ft[kept], self.joint[kept])

    def every(self, step: int) -> Level:
        """Some of the moments, and the last."""
        return self.part(np.unique(np.append(np.arange(0, len(self.joint), step), len(self.joint) - 1)))

    @classmethod
    def of(cls, *levels: Level) -> Level:
        """One plan after another."""
        columns = ((level.shoe_md_ft, level.empty_md_ft, level.joint) for level in levels)
        shoe, empty, joint = (np.concatenate(column) for column in zip(*columns, strict=True))
        return cls(shoe, empty, joint)


@dataclass(frozen=True, eq=False)
class Crush:
    """The string before each fill: mud outside over what is inside at the float, and where collapse is nearest."""

    level: Level
    float_psi: Floats
    factor: Floats
    load_psi: Floats
    rating_psi: Floats
    at_md_ft: Floats
    leg: NDArray[np.int64]
    axial_lbf: Floats

    def part(self, kept: slice) -> Crush:
        """Some of the moments."""
        columns = {f.name: getattr(self, f.name)[kept] for f in fields(self) if f.name != "level"}
        return Crush(self.level.part(kept), **columns)

    @property
    def worst(self) -> int:
        return int(np.argmin(self.factor))

    @property
    def first(self) -> int | None:
        """The first moment at which the pipe is crushed; None where it never is."""
        crushed = np.flatnonzero(self.factor < 1)
        return int(crushed[0]) if len(crushed) else None


def levels(run: Run, method: FillMethod, joints: int) -> Level:
    """How empty the string gets: by the method of filling, and no emptier than its float equipment lets it be."""
    well, shoes = run.well, run.lowered_md_ft
    count = len(shoes)
    fills = run.tally.gear.fills
    if method in ("floated in", "auto-fill"):
        joints = 1
    at = np.arange(joints - 1, count, joints)
    at = at if count % joints == 0 else np.append(at, count - 1)
    since = 0.0 if method in ("floated in", "auto-fill") else np.concatenate([[0.0], shoes[at[:-1]]])
    empty = np.asarray(shoes[at] - since)
    if fills not in ("closed", "differential"):
        empty = np.zeros(len(at))
    if fills == "differential":
        share = 1 - well.policy.running.differential_share
        held = well.path.md_at(share * well.path.tvd_at(shoes[at]))
        empty = np.minimum(empty, held)
    return Level(shoes[at], empty, at + 1)


@remembered(32)
def planned(run: Run) -> Level:
    """The plan in force; a string that floats in is not filled at all."""
    return levels(run, fill_of(run.well, run.string), fill_joints_of(run.well, run.string))


FLOATED_STEP = 12


@remembered(32)
def crushes(run: Run) -> tuple[Crush, Crush]:
    """By the plan, and floated in: the latter every few joints, since the string only gets emptier."""
    plan = planned(run)
    if fill_of(run.well, run.string) == "floated in":
        whole = crush(run, plan)
        return whole, whole
    floated, count = levels(run, "floated in", 1).every(FLOATED_STEP), len(plan.joint)
    whole = crush(run, Level.of(plan, floated))
    return whole.part(slice(count)), whole.part(slice(count, None))


def crush_planned(run: Run) -> Crush:
    return crushes(run)[0]


def crush_floated(run: Run) -> Crush:
    return crushes(run)[1]


@sweeping()
def crush(run: Run, level: Level) -> Crush:
    """Collapse before each fill, at the float, at both ends of every leg and at the level inside."""
    path, mud = run.well.path, PSI_PER_PPG_FT * run.mud_ppg
    shoes, empty = level.shoe_md_ft, level.empty_md_ft
    shoe_tvd, level_tvd = path.tvd_at(shoes), path.tvd_at(empty)
    float_psi = mud * level_tvd
    best: list[tuple[Floats, ...]] = []
    below, inside_below = np.zeros(len(shoes)), np.zeros(len(shoes))
    end_psi = mud * shoe_tvd
    for k, leg in enumerate(run.legs):
        low, high = np.maximum(shoes - leg.low_ft, 0.0), np.maximum(shoes - leg.high_ft, 0.0)
        md = np.stack([low, np.clip(empty, high, low), high])
        tvd = path.tvd_at(md)
        wet = np.maximum(tvd[0] - np.maximum(tvd, level_tvd), 0.0)
        weight = below + leg.weight_ppf * (tvd[0] - tvd) + inside_below + run.bore_bbl_psi(leg) * wet
        best.append((*_at(run, leg, tvd, weight, level_tvd, end_psi), md, np.full(md.shape, k)))
        below = below + leg.weight_ppf * (tvd[0] - tvd[2])
        inside_below = inside_below + run.bore_bbl_psi(leg) * wet[2]
    factor, load, rating, axial, at, legs = (np.concatenate(column) for column in zip(*best, strict=True))
    pick = np.argmin(factor, axis=0), np.arange(len(shoes))
    return Crush(
        level, float_psi, factor[pick], load[pick], rating[pick], at[pick], legs[pick].astype(np.int64), axial[pick]
    )


def _at(
    run: Run, leg: Leg, tvd: Floats, weight_lbf: Floats, level_tvd: Floats, end_psi: Floats
) -> tuple[Floats, Floats, Floats, Floats]:
    """Factor, load, rating and real axial force at depths in a leg with a weight below; drill pipe is not judged."""
    mud = PSI_PER_PPG_FT * run.mud_ppg
    outside, inside = mud * tvd, mud * np.maximum(tvd - level_tvd, 0.0)
    bore, end = np.pi / 4 * leg.id_in**2, np.pi / 4 * run.legs[0].od_in ** 2
    axial = weight_lbf + inside * bore - end_psi * end
    if leg.pipe is None:
        return np.full(tvd.shape, np.inf), outside, outside, axial
    steel = np.pi / 4 * (leg.od_in**2 - leg.id_in**2)
    stress, strength = axial / steel, leg.pipe.grade.yield_psi
    load = np.asarray(equivalent_external_pressure(outside, inside, leg.od_in, leg.pipe.wall_in))
    spent = stress > HIGHEST_STRESS_SHARE * strength
    rated = _rating(leg.pipe.own.collapse_psi, leg, np.where(spent, 0.0, np.maximum(stress, 0.0)))
    rating = np.where(spent, 0.0, rated)
    return np.where(load > 0, rating / np.where(load > 0, load, 1.0), np.inf), load, rating, axial


def _rating(own_psi: float | None, leg: Leg, stress_psi: Floats) -> Floats:
    """Collapse rating under tension; that of a person's own pipe falls in the same share."""
    assert leg.pipe is not None
    rated = np.asarray(pipe_collapse(leg.od_in, leg.pipe.wall_in, leg.pipe.grade.yield_psi, stress_psi))
    if own_psi is None:
        return rated
    return rated * own_psi / float(pipe_collapse(leg.od_in, leg.pipe.wall_in, leg.pipe.grade.yield_psi))


@dataclass(frozen=True)
class Emptiest:
    """The worst moment of the plan: which joint, where, how near to collapse, and how far the pipe might be empty there."""

    joint: int
    shoe_md_ft: float
    at_md_ft: float
    empty_ft: float
    float_psi: float
    factor: float
    load_psi: float
    rating_psi: float
    longest_empty_tvd_ft: float


def emptiest(run: Run, crushed: Crush, k: int, key: str) -> Emptiest | None:
    """One moment with its working under a key; None where nothing presses in."""
    if not np.isfinite(crushed.factor[k]):
        return None
    leg = run.legs[int(crushed.leg[k])]
    assert leg.pipe is not None
    pipe, asked = leg.pipe, run.well.policy.pipe.factors.collapse
    tvd, level = float(run.well.path.tvd(float(crushed.at_md_ft[k]))), float(crushed.level.empty_md_ft[k])
    at = f"running/{run.string.index}"
    with headline(f"{at}/{key}"):
        outside = float(hydrostatic_pressure(run.mud_ppg, tvd))
        inside = float(hydrostatic_pressure(run.mud_ppg, max(0.0, tvd - run.well.path.tvd(level))))
        rating = float(crushed.rating_psi[k])
        stress = _stress_psi(run, leg, crushed, k, inside)
        if pipe.own.collapse_psi is None and stress <= HIGHEST_STRESS_SHARE * pipe.grade.yield_psi:
            rating = float(pipe_collapse(pipe.od_in, pipe.wall_in, pipe.grade.yield_psi, stress))
        load = float(equivalent_external_pressure(outside, inside, pipe.od_in, pipe.wall_in))
        factor = float(safety_factor(rating, load))
    with headline(f"{at}/{key}_empty"):
        longest = float(longest_empty_run(rating, asked, run.mud_ppg))
    return Emptiest(
        joint=int(crushed.level.joint[k]),
        shoe_md_ft=float(crushed.level.shoe_md_ft[k]),
        at_md_ft=float(crushed.at_md_ft[k]),
        empty_ft=level,
        float_psi=float(crushed.float_psi[k]),
        factor=factor,
        load_psi=load,
        rating_psi=rating,
        longest_empty_tvd_ft=longest,
    )


def _stress_psi(run: Run, leg: Leg, crushed: Crush, k: int, inside_psi: float) -> float:
    """Tension stress at the place of the least factor, by the registered formulas; compression takes no credit."""
    shoe_tvd = float(run.well.path.tvd(float(crushed.level.shoe_md_ft[k])))
    outside, bore, steel = (float(area) for area in areas_in2(leg.od_in, (leg.od_in - leg.id_in) / 2))
    end_psi = float(hydrostatic_pressure(run.mud_ppg, shoe_tvd))
    hung = float(crushed.axial_lbf[k]) - inside_psi * bore + end_psi * outside
    return max(0.0, float(hanging_force(hung, inside_psi, end_psi, leg.od_in, (leg.od_in - leg.id_in) / 2)) / steel)


def fill_bbl(run: Run, joints: int) -> float:
    """Volume of one fill: so many joints of the string's top pipe."""
    top = run.casing_legs[-1]
    length = joints * float(np.mean(run.tally.effective_ft))
    with headline(f"running/{run.string.index}/fill"):
        return float(interval_volume(circle_capacity(top.id_in), length))
