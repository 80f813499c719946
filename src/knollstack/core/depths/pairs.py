"""Weak points and kicks, two by two, among which the least kick tolerance of an open hole is found.

Kicks come from where formation pressure can be greatest: the end of the hole, every pore point, and where the pressure
turns between two of them. A kick at k breaks the rock at w above it where P_f(k) − G_i·k > P_frac(w) − G_i·w: gas from k
up to w is then more than w stands. Between two fracture points the volume that does so has its least at one of them, or
where the rock just begins to break: there the bubble fills the hole from w to k, and the volume jumps to no limit. So the
shoe, the fracture points and these roots hold the least; where the path bends, depths between are added.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.ground.profiles import Profile
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]
Places = NDArray[np.intp]
ROOT_STEPS = 4


@dataclass(frozen=True, eq=False)
class Pairs:
    """Depths [ft TVD] and pressures [psi] of weak points and of kicks that break them."""

    weak_tvd_ft: Floats
    weak_psi: Floats
    kick_tvd_ft: Floats
    kick_psi: Floats

    def those(self, chosen: NDArray[np.bool_]) -> Pairs:
        return Pairs(self.weak_tvd_ft[chosen], self.weak_psi[chosen], self.kick_tvd_ft[chosen], self.kick_psi[chosen])


@dataclass(frozen=True, eq=False)
class Rock:
    """What the rock stands along a hole, less the friction in the choke line: points with both sides of every step."""

    tvd_ft: Floats
    emw_ppg: Floats
    choke_line_psi: float

    def psi(self, emw_ppg: Floats, tvd_ft: Floats) -> Floats:
        return np.asarray(PSI_PER_PPG_FT * emw_ppg * tvd_ft - self.choke_line_psi)

    def root(self, span: Places, gradient: float, target: Floats) -> tuple[Floats, Floats]:
        """Depth and pressure within spans at which pressure less a gradient times depth is a target that lies between."""
        z0, e0 = self.tvd_ft[span], self.emw_ppg[span]
        reach, rise = self.tvd_ft[span + 1] - z0, self.emw_ppg[span + 1] - e0
        # at a share s of the span: a quadratic in s, from the secant by Newton's steps
        ends = [self.psi(e0 + rise * s, z0 + reach * s) - gradient * (z0 + reach * s) - target for s in (0.0, 1.0)]
        curve = PSI_PER_PPG_FT * rise * reach
        slope = ends[1] - ends[0] - curve
        s = ends[0] / (ends[0] - ends[1])
        for _ in range(ROOT_STEPS):
            s = np.clip(s - (ends[0] + (slope + curve * s) * s) / (slope + 2 * curve * s), 0.0, 1.0)
        z = z0 + reach * s
        return z, self.psi(e0 + rise * s, z)


def known_from(well: Well, high_ft: float) -> float:
    """TVD [ft] from which pore and fracture pressure are known down to a depth; infinite where they are not known there."""
    profiles = (well.ground.pore, well.ground.fracture)
    if not all(p.known and high_ft <= p.tvd_ft[-1] for p in profiles):
        return math.inf
    return float(max(p.tvd_ft[0] for p in profiles))


def broken_by(well: Well, low_ft: float, kick_tvd_ft: Floats) -> Pairs:
    """The pairs of some kicks alone, in rising depths, with all weak points above them."""
    rock, intensity = rock_of(well, low_ft, float(kick_tvd_ft[-1])), well.policy.depths.kick_intensity_ppg
    return pairs_of(well, rock, kick_tvd_ft, intensity)


def kick_depths(well: Well, low_ft: float, high_ft: float, intensity_ppg: float) -> Floats:
    """TVDs [ft] of a hole at which formation pressure can be greatest: pore points, turns between them, the end."""
    pore = well.ground.pore
    found = np.concatenate([pore.tvd_ft, _turns(pore, intensity_ppg)])
    return np.append(np.unique(found[(found >= low_ft) & (found < high_ft)]), high_ft)


def _turns(pore: Profile, intensity_ppg: float) -> Floats:
    """Depths inside the spans of a profile at which (P + i)·D has its greatest value."""
    low, high = pore.tvd_ft[:-1], pore.tvd_ft[1:]
    rise = pore.above_ppg[1:] - pore.below_ppg[:-1]
    falls = rise < 0
    slope = rise[falls] / (high - low)[falls]
    at = (low[falls] - (pore.below_ppg[:-1][falls] + intensity_ppg) / slope) / 2
    return np.asarray(at[(at > low[falls]) & (at < high[falls])])


def rock_of(well: Well, low_ft: float, high_ft: float) -> Rock:
    """The rock of an open hole: shoe, fracture points, the end, and stations and bends of the path."""
    marks = np.array([]) if well.path.is_straight else well.path.tvd_at(well.path.marks_md_ft)
    return Rock(*well.ground.fracture.between(low_ft, high_ft, marks), well.site.choke_line_psi or 0.0)


def rock_at(well: Well, tvd_ft: Floats) -> Rock:
    return Rock(tvd_ft, well.ground.fracture.at(tvd_ft), well.site.choke_line_psi or 0.0)


def pairs_of(well: Well, rock: Rock, kicks_ft: Floats, intensity_ppg: float, *, roots: bool = True) -> Pairs:
    """Every point of the rock that a kick below it breaks, and where between two points it begins or ceases to."""
    gradient = well.policy.depths.influx_psi_ft
    strength = rock.psi(rock.emw_ppg, rock.tvd_ft)
    formation = PSI_PER_PPG_FT * (well.ground.pore.at(kicks_ft) + intensity_ppg) * kicks_ft
    target = formation - gradient * kicks_ft
    breaks = target[None, :] > (strength - gradient * rock.tvd_ft)[:, None]
    depths = rock.tvd_ft[:, None], kicks_ft[None, :]
    i, k = np.nonzero(breaks & (depths[0] <= depths[1]))
    found = Pairs(rock.tvd_ft[i], strength[i], kicks_ft[k], formation[k])
    if not roots:
        return found
    i, k = np.nonzero((breaks[1:] != breaks[:-1]) & (np.diff(rock.tvd_ft) > 0)[:, None])
    border = Pairs(*rock.root(i, gradient, target[k]), kicks_ft[k], formation[k])
    return joined(found, border.those(border.weak_tvd_ft <= border.kick_tvd_ft))


def own_pairs(well: Well, kicks_ft: Floats, intensity_ppg: float) -> Pairs:
    """Every kick that breaks the rock at its own depth."""
    rock = rock_at(well, kicks_ft)
    strength = rock.psi(rock.emw_ppg, rock.tvd_ft)
    formation = PSI_PER_PPG_FT * (well.ground.pore.at(kicks_ft) + intensity_ppg) * kicks_ft
    every = Pairs(kicks_ft, strength, kicks_ft, formation)
    return every.those(formation > strength)


def joined(*groups: Pairs) -> Pairs:
    """Pairs of several groups, in their order."""

    def all_of(name: str) -> Floats:
        return np.concatenate([getattr(group, name) for group in groups])

    return Pairs(all_of("weak_tvd_ft"), all_of("weak_psi"), all_of("kick_tvd_ft"), all_of("kick_psi"))
