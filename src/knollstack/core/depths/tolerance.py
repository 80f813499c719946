"""Kick tolerance of an open hole: the least volume over every weak point and every kick below it.

Infinite stands for no limit, where no kick breaks any rock; NaN and None for unknown. Proposals and judgements ask the
same functions.
"""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import Value, sweeping
from knollstack.core.depths.bubble import OpenHole, volumes
from knollstack.core.depths.crowd import MANY, Crowd
from knollstack.core.depths.pairs import (
    Pairs,
    broken_by,
    joined,
    kick_depths,
    known_from,
    own_pairs,
    pairs_of,
    rock_at,
    rock_of,
)
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Least:
    """The least volume [bbl], infinite where no rock breaks, and the weak point and the kick [ft TVD] that set it."""

    volume_bbl: float
    weak_tvd_ft: float
    kick_tvd_ft: float


ROUNDING_BBL = 1e-6
UNLIMITED = Least(math.inf, math.nan, math.nan)


def _at_least_bbl(well: Well, hole: OpenHole, pairs: Pairs, mud_ppg: Value) -> Floats:
    """Volumes that no pair falls short of, cheaply: the height upright in the narrowest annulus, by Boyle's law."""
    mud = PSI_PER_PPG_FT * mud_ppg
    room = pairs.weak_psi - pairs.kick_psi + mud * (pairs.kick_tvd_ft - pairs.weak_tvd_ft)
    open_ft = pairs.kick_tvd_ft - pairs.weak_tvd_ft
    height = np.clip(room / (mud - well.policy.depths.influx_psi_ft), 0.0, open_ft)
    narrow = min(hole.pipe_annulus_bbl_ft, hole.collar_annulus_bbl_ft)
    return np.asarray(narrow * height * np.minimum(1.0, pairs.weak_psi / pairs.kick_psi) - ROUNDING_BBL)


@sweeping()
def _volume_bbl(well: Well, hole: OpenHole, pairs: Pairs, mud_ppg: Value) -> Floats:
    """Kick tolerance of every pair."""
    _, at_weak, on_bottom = volumes(
        well, hole, pairs.weak_tvd_ft, pairs.weak_psi, mud_ppg, pairs.kick_tvd_ft, pairs.kick_psi
    )
    return np.asarray(np.minimum(at_weak, on_bottom))


def least_of(well: Well, hole: OpenHole, pairs: Pairs | Crowd, mud_ppg: float) -> Least:
    """The least of some pairs; those that cannot be the least are not worked."""
    if isinstance(pairs, Pairs):
        return _least_of(well, hole, pairs, mud_ppg)
    least = UNLIMITED
    for bound, group in pairs.likely_first(hole, mud_ppg):
        if bound - ROUNDING_BBL > least.volume_bbl or least.volume_bbl <= 0:
            break
        found = _least_of(well, hole, group, mud_ppg)
        if found.volume_bbl < least.volume_bbl:
            least = found
    return least


def _least_of(well: Well, hole: OpenHole, pairs: Pairs, mud_ppg: float) -> Least:
    if not len(pairs.weak_psi):
        return UNLIMITED
    bound = _at_least_bbl(well, hole, pairs, mud_ppg)
    first = pairs.those(np.arange(len(bound)) == np.argmin(bound))
    pairs = pairs.those(bound <= ROUNDING_BBL + _volume_bbl(well, hole, first, mud_ppg)[0])
    volume = _volume_bbl(well, hole, pairs, mud_ppg)
    k = int(np.argmin(volume))
    return Least(float(volume[k]), float(pairs.weak_tvd_ft[k]), float(pairs.kick_tvd_ft[k]))


def of_weak_point(pairs: Pairs | Crowd, weak_tvd_ft: float) -> Pairs:
    """The pairs of one weak point alone."""
    return pairs.those(pairs.weak_tvd_ft == weak_tvd_ft) if isinstance(pairs, Pairs) else pairs.at(weak_tvd_ft)


def breaking(well: Well, low_ft: float, high_ft: float, intensity_ppg: float | None = None) -> Pairs | Crowd:
    """The pairs of an open hole in which the rock breaks and the least lies."""
    intensity = well.policy.depths.kick_intensity_ppg if intensity_ppg is None else intensity_ppg
    kicks = kick_depths(well, low_ft, high_ft, intensity)
    own = own_pairs(well, kicks, intensity)
    rock = rock_of(well, low_ft, high_ft)
    if len(rock.tvd_ft) * len(kicks) > MANY:
        return Crowd(well, rock, kicks, intensity, own=own)
    return joined(pairs_of(well, rock, kicks, intensity), own)


def _mud_lifts(well: Well, mud_ppg: Value) -> Value:
    """The mud is heavier than the gas, so that a bubble in it has a height."""
    return PSI_PER_PPG_FT * mud_ppg > well.policy.depths.influx_psi_ft


def known_pairs(
    well: Well, top_md_ft: float, mud_ppg: float, bottom_md_ft: float, intensity_ppg: float | None = None
) -> Pairs | Crowd | None:
    """The pairs of the hole below a shoe; None where pore or fracture pressure is not known all over it."""
    low, high = well.path.span(top_md_ft, bottom_md_ft)
    if low < known_from(well, high) or not _mud_lifts(well, mud_ppg):
        return None
    return breaking(well, low, high, intensity_ppg)


def gives(
    well: Well, hole: OpenHole, tops_md: Floats, mud: Floats, bottom_md: float, asked_bbl: float
) -> NDArray[np.bool_]:
    """Shoes, in rising depths and each with its mud, that give a tolerance over the whole hole below; unknown does not.

    A shoe fails by itself as the weak point, or by a weak point below it: of each mud the deepest one decides.
    """
    path = well.path
    low, high = path.lows(tops_md, bottom_md), path.span(float(tops_md[0]), bottom_md)[1]
    ok = (low >= known_from(well, high)) & np.isfinite(mud) & _mud_lifts(well, mud)
    for kicks in (np.array([high]), None):  # most that fail do so by a kick at the end of the hole
        if np.any(ok):
            ok[ok] = _stand_themselves(well, hole, low[ok], mud[ok], high, kicks, asked_bbl)
    if not np.any(ok):
        return ok
    pairs = breaking(well, float(np.min(low[ok])), high)
    for one in np.unique(mud[ok]):
        with_it = ok & (mud == one)
        ok[with_it] = low[with_it] > _deepest_short(well, hole, pairs, float(one), asked_bbl)
    return ok


def _stand_themselves(
    well: Well, hole: OpenHole, low: Floats, mud: Floats, high_ft: float, kicks: Floats | None, asked_bbl: float
) -> NDArray[np.bool_]:
    """Whether shoes give a tolerance where each is the weak point itself."""
    weak, place = np.unique(low, return_inverse=True)
    heavy = np.full(weak.shape, np.inf)
    np.minimum.at(heavy, place, mud)
    intensity = well.policy.depths.kick_intensity_ppg
    if kicks is None:
        kicks = kick_depths(well, float(weak[0]), high_ft, intensity)
    fails = np.zeros(weak.shape, dtype=bool)
    for pairs in _groups(well, hole, weak, kicks, heavy, asked_bbl):
        own = np.searchsorted(weak, pairs.weak_tvd_ft)
        fails[own[_short(well, hole, pairs, heavy[own], asked_bbl)]] = True
    return np.asarray(~fails[place])


def _groups(well: Well, hole: OpenHole, weak: Floats, kicks: Floats, mud: Floats, asked_bbl: float) -> Iterator[Pairs]:
    """The pairs of some weak points, each with its mud, that may fall short: all at once where they are few."""
    rock, intensity = rock_at(well, weak), well.policy.depths.kick_intensity_ppg
    if len(weak) * len(kicks) <= MANY:
        yield pairs_of(well, rock, kicks, intensity, roots=False)
        return
    crowd = Crowd(well, rock, kicks, intensity, roots=False)
    for row, columns in crowd.short_rows(hole, mud, asked_bbl):
        yield crowd.laid_out([row] * len(columns), columns)


def _short(well: Well, hole: OpenHole, pairs: Pairs, mud: Floats, asked_bbl: float) -> NDArray[np.bool_]:
    """Pairs that fall short of a volume."""
    short = _at_least_bbl(well, hole, pairs, mud) < asked_bbl
    if np.any(short):
        short[short] = _volume_bbl(well, hole, pairs.those(short), mud[short]) < asked_bbl
    return np.asarray(short)


def _deepest_short(well: Well, hole: OpenHole, pairs: Pairs | Crowd, mud_ppg: float, asked_bbl: float) -> float:
    """The deepest weak point [ft TVD] of some pairs that falls short of a volume; -∞ where none does."""

    def deepest(group: Pairs) -> float:
        short = _short(well, hole, group, np.full(group.weak_psi.shape, mud_ppg), asked_bbl)
        return float(np.max(group.weak_tvd_ft[short], initial=-np.inf))

    if isinstance(pairs, Pairs):
        return deepest(pairs)
    found = deepest(pairs.own) if pairs.own is not None else -math.inf
    for row, columns in pairs.short_rows(hole, np.full(pairs.rock.tvd_ft.shape, mud_ppg), asked_bbl):
        if pairs.deepest_of(row) <= found:
            break
        found = max(found, deepest(pairs.laid_out([row] * len(columns), columns)))
    return found


def tolerance_against_depth(well: Well, hole: OpenHole, top_md: float, mud_ppg: float, kicks_md: Floats) -> Floats:
    """Least tolerance [bbl] for a kick at each of some depths: infinite where no rock breaks, NaN where unknown."""
    low, high = well.path.span(top_md, float(kicks_md[-1]))
    if low < known_from(well, high) or not _mud_lifts(well, mud_ppg):
        return np.full(kicks_md.shape, np.nan)
    depths, place = np.unique(well.path.tvd_at(kicks_md), return_inverse=True)
    pairs = broken_by(well, low, depths)
    least = np.full(depths.shape, np.inf)
    np.minimum.at(least, np.searchsorted(depths, pairs.kick_tvd_ft), _volume_bbl(well, hole, pairs, mud_ppg))
    return least[place]


FINE, MOST = 100, 500
"""Hundredths of a ppg in which intensity is told, and the most of them that are tried."""


def greatest_intensity_ppg(
    well: Well, hole: OpenHole, top_md: float, mud_ppg: float, bottom_md: float, volume_bbl: float
) -> float | None:
    """Greatest kick intensity [ppg], in hundredths, at which a volume is still tolerated over the whole hole.

    0 where not even a swabbed kick of that volume is; None where it is unknown. More intensity never raises tolerance.
    """

    def short(hundredths: int) -> bool:
        pairs = known_pairs(well, top_md, mud_ppg, bottom_md, hundredths / FINE)
        return pairs is not None and least_of(well, hole, pairs, mud_ppg).volume_bbl < volume_bbl - 1e-9

    if known_pairs(well, top_md, mud_ppg, bottom_md) is None:
        return None
    first_short = bisect_left(range(1, MOST + 1), True, key=short)
    return first_short / FINE
