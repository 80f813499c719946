"""What the gauges that tell a kick read: pit, flow, drill pipe and casing, with their noise."""

from __future__ import annotations

import math

from knollstack.core.base.constants import GAL_PER_BBL
from knollstack.core.base.findings import Result
from knollstack.core.drills.made import Made
from knollstack.core.drills.state import State

NOISE = {"basic": 0.15, "standard": 0.4, "demanding": 0.9}


class Gauges(Result):
    """Of one second; a pressure is None where no gauge stands on it."""

    at_s: int
    pit_bbl: float
    pit_change_bbl: float
    flow_out_gpm: float
    pipe_psi: float | None
    casing_psi: float


def noise(seed: int, second: int, channel: int) -> float:
    """From -1 to 1, the same for the same second."""
    x = math.sin(seed * 12.9898 + second * 78.233 + channel * 37.719) * 43_758.5453
    return 2.0 * (x - math.floor(x)) - 1.0


def gauges(made: Made, state: State, second: int) -> Gauges:
    scene, now = made.scene, state.now
    level = NOISE[scene.difficulty]
    flow_out = now.out_bpm * GAL_PER_BBL * (1 + 0.02 * level * noise(scene.seed, second, 1))
    pit = state.pit_bbl + level * noise(scene.seed, second // 3, 2)
    return Gauges(
        at_s=second,
        pit_bbl=pit,
        pit_change_bbl=pit - made.setup.pit_bbl,
        flow_out_gpm=max(0.0, flow_out),
        pipe_psi=None if state.bit_md_ft is None or state.cut or not state.made_up else now.pipe_psi,
        casing_psi=now.casing_psi,
    )
