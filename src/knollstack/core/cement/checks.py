"""A stage of the job judged at every moment and depth: rock above and below, the pipe, and the pump.

The annulus is compared with the rock at every place where the rock or the well changes its course, at least every hundred feet,
and at every boundary between two fluids; the pipe at both ends of every section and at least every `PIPE_FT`.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.catalogue.ratings import HIGHEST_STRESS_SHARE, equivalent_external_pressure, pipe_collapse
from knollstack.core.cement.balance import Balance
from knollstack.core.cement.pressures import Side, annulus_of, at_depths, pipe_of
from knollstack.core.cement.simulate import Course, follow
from knollstack.core.cement.stage import Stage
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import EquippedString
from knollstack.core.program.section import Section

Floats = NDArray[np.float64]
ROCK_FT = 100.0
PIPE_FT = 200.0


@dataclass(frozen=True)
class Nearest:
    """The moment and place at which something is nearest to its limit, or over it by most."""

    moment: int
    md_ft: float
    value: float
    limit: float
    left: float
    """What is left to the limit, as pressure [psi] or as a factor over that of policy; below 0 it is passed."""


@dataclass(frozen=True, eq=False)
class OpenHole:
    """The annulus along the open hole by moment [psi], and what the rock there stands and holds."""

    md_ft: Floats
    annulus_psi: Floats
    fracture_psi: Floats
    pore_psi: Floats


@dataclass(frozen=True, eq=False)
class Worked:
    """A stage followed, with the pressures on both sides of the pipe."""

    stage: Stage
    balance: Balance
    course: Course
    annulus: Side
    pipe: Side
    plug_psi: Floats | None = None
    """Pressure across the plug that has landed, by moment: what stands under it has none of it."""

    def inside_psi(self, md_ft: Floats) -> Floats:
        """In the pipe at depths: moment × depth."""
        found = at_depths(self.balance, self.pipe, md_ft)
        if self.plug_psi is None:
            return found
        under = md_ft > self.stage.conduit.seat_md_ft + 1e-6
        return found - np.where(under[None, :], self.plug_psi[:, None], 0.0)

    @cached_property
    def _beside(self) -> dict[tuple[float, float], tuple[Floats, Floats, Floats]]:
        return {}

    @sweeping()
    def beside(self, section: Section) -> tuple[Floats, Floats, Floats]:
        """Depths along a section as far as the fluids come, and the pressures outside and inside there."""
        key = section.top_md_ft, section.bottom_md_ft
        if key not in self._beside:
            md = _section_md_ft(section, self.stage.conduit.end_md_ft)
            outside, inside = at_depths(self.balance, self.annulus, md), self.inside_psi(md)
            if self.stage.conduit.inner:
                inside = np.where(md <= self.stage.conduit.seat_md_ft + 1e-9, self.mud_psi(md), inside)
            self._beside[key] = (md, outside, inside)
        return self._beside[key]

    def mud_psi(self, md_ft: Floats) -> Floats:
        """The mud that was there, at rest up to the rig floor."""
        return np.asarray(PSI_PER_PPG_FT * self.stage.mud_ppg * self.stage.conduit.path.tvd_at(md_ft))

    @property
    def end_psi(self) -> Floats:
        """On the inside of the casing's closed end, by moment."""
        if not self.stage.conduit.inner:
            return self.pipe.psi[:, -1]
        return np.full(len(self.course.minutes), float(self.mud_psi(np.array([self.stage.conduit.end_md_ft]))[0]))


def breaks_at_rest(well: Well, hole: OpenHole, held: Worked) -> bool:
    """The columns at the end of the stage break the rock by themselves: no rate helps."""
    at_rest = at_depths(held.balance, annulus_of(held.balance, _still(held)), hole.md_ft)[0]
    return bool(np.any(at_rest > hole.fracture_psi))


@sweeping()
def worked(stage: Stage, balance: Balance | None = None) -> Worked:
    """A stage followed; columns and frictions by rate may be those of the same stage at other rates."""
    balance = balance or Balance(stage)
    course = follow(stage, balance)
    return Worked(stage, balance, course, annulus_of(balance, course), pipe_of(balance, course))


def rock_md_ft(well: Well, top_md_ft: float, base_md_ft: float) -> Floats:
    """Depths at which an open hole is judged."""
    marks = np.concatenate(
        [well.path.md_at(well.window.depths_ft), well.path.marks_md_ft, np.arange(top_md_ft, base_md_ft, ROCK_FT)]
    )
    return np.unique(np.concatenate([[top_md_ft, base_md_ft], marks[(marks > top_md_ft) & (marks < base_md_ft)]]))


def open_hole(well: Well, string: EquippedString, held: Worked) -> OpenHole | None:
    """None where this stage touches no open hole."""
    top, base = string.previous_shoe_md_ft, held.stage.conduit.end_md_ft
    if base <= top:
        return None
    md = rock_md_ft(well, top, base)
    tvd = well.path.tvd_at(md)
    ground = well.ground
    return OpenHole(
        md,
        at_depths(held.balance, held.annulus, md),
        PSI_PER_PPG_FT * ground.fracture.at(tvd) * tvd,
        PSI_PER_PPG_FT * ground.pore.at(tvd) * tvd,
    )


def rock_nearest(well: Well, hole: OpenHole, held: Worked, what: str) -> Nearest | None:
    """Where the annulus is nearest to fracture, or to pore pressure; None where that is not known all along."""
    sign, rock = (1.0, hole.fracture_psi) if what == "fracture" else (-1.0, hole.pore_psi)
    profile = well.ground.fracture if what == "fracture" else well.ground.pore
    if np.any(np.isnan(rock)):
        return None
    left = sign * (rock[None, :] - hole.annulus_psi)
    m, n = np.unravel_index(int(np.argmin(left)), left.shape)
    best = Nearest(int(m), float(hole.md_ft[n]), float(hole.annulus_psi[m, n]), float(rock[n]), float(left[m, n]))
    side = held.annulus
    md, tvd, psi = side.md_ft[:, 1:-1], side.tvd_ft[:, 1:-1], side.psi[:, 1:-1]
    inside = (md > hole.md_ft[0]) & (md < hole.md_ft[-1])
    if not np.any(inside):
        return best
    there = np.where(inside, PSI_PER_PPG_FT * profile.at(tvd) * tvd, np.nan)
    between = sign * (there - psi)
    k = int(np.nanargmin(between))
    m, n = np.unravel_index(k, between.shape)
    if between[m, n] < best.left:
        return Nearest(int(m), float(md[m, n]), float(psi[m, n]), float(there[m, n]), float(between[m, n]))
    return best


def pump_nearest(held: Worked, limit_psi: float) -> Nearest:
    m = int(np.argmax(held.course.pump_psi))
    value = float(held.course.pump_psi[m])
    return Nearest(m, 0.0, value, limit_psi, limit_psi - value)


def _section_md_ft(section: Section, end_md_ft: float) -> Floats:
    base = min(section.bottom_md_ft, end_md_ft)
    count = max(int(np.ceil((base - section.top_md_ft) / PIPE_FT)), 1) + 1
    return np.linspace(section.top_md_ft, base, count)


@sweeping()
def pipe_nearest(well: Well, string: EquippedString, held: Worked, what: str) -> Nearest | None:
    """Where the casing is nearest to collapse, or to burst, by the factor of policy; None where a rating is unknown."""
    asked = getattr(well.policy.pipe.factors, what)
    best: Nearest | None = None
    for section in string.sections:
        if section.top_md_ft >= held.stage.conduit.end_md_ft:
            continue
        md, outside, inside = held.beside(section)
        rated = _collapse if what == "collapse" else _burst
        found = rated(well, string, section, held, md, outside, inside)
        if found is None:
            return None
        load, rating = found
        factor = np.where(load > 1.0, rating / np.maximum(load, 1.0), np.inf)
        m, n = np.unravel_index(int(np.argmin(factor)), factor.shape)
        if np.isfinite(factor[m, n]) and (best is None or factor[m, n] - asked < best.left):
            left = float(factor[m, n]) - asked
            best = Nearest(int(m), float(md[n]), float(factor[m, n]), asked, left)
    return best


def _burst(
    well: Well, string: EquippedString, section: Section, held: Worked, md: Floats, outside: Floats, inside: Floats
) -> tuple[Floats, Floats] | None:
    coupling = section.pipe.coupling_psi
    if coupling is None:
        return None
    worn = 1 - string.own.wear_percent / 100
    return inside - outside, np.full(outside.shape, min(section.pipe.burst_psi * worn, coupling))


def _collapse(
    well: Well, string: EquippedString, section: Section, held: Worked, md: Floats, outside: Floats, inside: Floats
) -> tuple[Floats, Floats] | None:
    """Load with what stands inside, and the rating under the tension of that moment: the string hangs from its top."""
    pipe = section.pipe
    tension = _hung_lbf(well, string, held, md)
    steel = np.pi / 4 * (pipe.od_in**2 - pipe.id_in**2)
    strength = pipe.grade.yield_psi
    stress = np.maximum(tension / steel, 0.0)
    spent = stress > HIGHEST_STRESS_SHARE * strength
    rated = np.asarray(pipe_collapse(pipe.od_in, pipe.wall_in, strength, np.where(spent, 0.0, stress)))
    if pipe.own.collapse_psi is not None:
        rated = rated * pipe.own.collapse_psi / float(pipe_collapse(pipe.od_in, pipe.wall_in, strength))
    load = np.asarray(equivalent_external_pressure(outside, inside, pipe.od_in, pipe.wall_in))
    return load, np.where(spent, 0.0, rated)


def _still(held: Worked) -> Course:
    """The last moment with nothing moving and the pump's pressure bled off."""
    last = Course(*(values[-1:] for values in vars(held.course).values()))
    return replace(last, out_bpm=np.zeros(1), pump_psi=np.zeros(1))


def at_rest_psi(held: Worked, md_ft: Floats) -> tuple[Floats, Floats]:
    """Inside and outside at depths once the plug has landed and the float holds."""
    still = _still(held)
    outside = at_depths(held.balance, annulus_of(held.balance, still), md_ft)[0]
    if held.stage.conduit.inner:
        return held.mud_psi(md_ft), outside
    return at_depths(held.balance, pipe_of(held.balance, still), md_ft)[0], outside


def float_psi(held: Worked) -> float:
    """What presses on the float from outside once the pressure is bled back; below 0 it is pressed open."""
    inside, outside = at_rest_psi(held, np.array([held.stage.conduit.end_md_ft]))
    return float(outside[0] - inside[0])


def hanging_lbf(well: Well, string: EquippedString, held: Worked) -> float:
    """What the string weighs at rest after the stage, less the lift of what stands beside it; below 0 it floats."""
    top, end = string.top_md_ft, held.stage.conduit.end_md_ft
    weight = sum(
        s.pipe.weight_ppf * (well.path.tvd(min(s.bottom_md_ft, end)) - well.path.tvd(s.top_md_ft))
        for s in string.sections
        if s.top_md_ft < end
    )
    inside, outside = (psi[1] - psi[0] for psi in at_rest_psi(held, np.array([top, end])))
    last = string.sections[-1].pipe
    return float(weight + np.pi / 4 * (inside * last.id_in**2 - outside * last.od_in**2))


def _hung_lbf(well: Well, string: EquippedString, held: Worked, md: Floats) -> Floats:
    """Real axial force at depths by moment: steel below in air, and both pressures on the closed end, or on the plug."""
    tvd, weight = well.path.tvd_at(md), np.zeros(len(md))
    for section in string.sections:
        base = well.path.tvd(section.bottom_md_ft)
        top = well.path.tvd(section.top_md_ft)
        weight += section.pipe.weight_ppf * np.maximum(base - np.maximum(tvd, top), 0.0)
    last = string.sections[-1].pipe
    inside, outside = held.end_psi, held.annulus.psi[:, -1]
    ends = np.pi / 4 * (inside * last.id_in**2 - outside * last.od_in**2)
    found = weight[None, :] + ends[:, None]
    if held.plug_psi is None:
        return found
    pulled = np.pi / 4 * held.plug_psi * last.id_in**2  # what presses on the plug pulls above its seat alone
    return found - np.where(md[None, :] > held.stage.conduit.seat_md_ft + 1e-6, pulled[:, None], 0.0)
