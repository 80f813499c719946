"""A hole full of gas from a kick up to the shoe: where the rock above the kick has least to spare over it.

From a kick at k the gas stands at w with P(k) − G_i·(k − w); the rock there stands R(w). Written as
(R(w) − G_i·w) − (P(k) − G_i·k), the least over every w above every k needs each term once along the hole.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.ground.extremes import nodes_between, spans_of
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class FullGas:
    """What the weakest rock has over the gas [psi], negative where it breaks, and the depths [ft TVD] that set it."""

    margin_psi: float
    weak_tvd_ft: float
    kick_tvd_ft: float


def _rock(well: Well, tvd_ft: Floats) -> Floats:
    return np.asarray(
        PSI_PER_PPG_FT * well.ground.fracture.at(tvd_ft) * tvd_ft - well.policy.depths.influx_psi_ft * tvd_ft
    )


def _kick(well: Well, tvd_ft: Floats) -> Floats:
    policy = well.policy.depths
    formation = PSI_PER_PPG_FT * (well.ground.pore.at(tvd_ft) + policy.kick_intensity_ppg) * tvd_ft
    return np.asarray(formation - policy.influx_psi_ft * tvd_ft)


def _depths(well: Well, top_tvd_ft: float, bottom_tvd_ft: float) -> Floats:
    """Every depth at which rock, kick, or the one over the other can turn."""
    nodes = nodes_between(well, top_tvd_ft, bottom_tvd_ft)
    rock, kick = spans_of(lambda z: _rock(well, z), nodes), spans_of(lambda z: _kick(well, z), nodes)
    return np.sort(np.concatenate([nodes, rock.turns(), kick.turns(), rock.plus(kick, -1.0).turns()]))


def full_gas(well: Well, top_tvd_ft: float, bottom_tvd_ft: float) -> FullGas | None:
    """The least margin of a hole; None where pore or fracture is not known all over it."""
    depths = _depths(well, top_tvd_ft, bottom_tvd_ft)
    rock, kick = _rock(well, depths), _kick(well, depths)
    if np.any(np.isnan(rock)) or np.any(np.isnan(kick)):
        return None
    worst = np.maximum.accumulate(kick[::-1])[::-1]
    weak = int(np.argmin(rock - worst))
    below = weak + int(np.argmax(kick[weak:]))
    return FullGas(float(rock[weak] - worst[weak]), float(depths[weak]), float(depths[below]))


def stand_full_gas(well: Well, tops_tvd_ft: Floats, bottom_tvd_ft: float) -> NDArray[np.bool_]:
    """Whether the rock below each of many shoes stands a hole full of gas down to a bottom; unknown does not."""
    depths = _depths(well, float(np.min(tops_tvd_ft)), bottom_tvd_ft)
    rock, kick = _rock(well, depths), _kick(well, depths)
    worst = np.maximum.accumulate(kick[::-1])[::-1]
    spare = np.minimum.accumulate((rock - worst)[::-1])[::-1]
    k = np.searchsorted(depths, tops_tvd_ft, side="left").clip(max=len(depths) - 1)
    own = _rock(well, tops_tvd_ft) - np.maximum(_kick(well, tops_tvd_ft), worst[k])
    return np.asarray(np.minimum(own, spare[k]) >= 0)
