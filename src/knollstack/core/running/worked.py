"""The working of the hook load at the end of the run: the same march, span by span, by the registered formulas.

It is worked only while workings are asked for: some hundred spans, that give the number of the fields to the last digit.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from knollstack.core.base.working import headline, is_recording
from knollstack.core.running.fill import planned
from knollstack.core.running.formulas import buoyed_weight, hook_load, lateral_load, soft_string_tension
from knollstack.core.running.hookload import HookLoads, Spans, spans_of
from knollstack.core.running.run import Run


def _pieces(run: Run, top_md_ft: float, base_md_ft: float, level_md_ft: float) -> Iterator[tuple[float, float, float]]:
    """Length, and buoyed weight per foot, of a span's parts of one pipe and one content, from the bottom up."""
    shoe = run.tally.shoe_md_ft
    for k, leg in enumerate(run.legs):
        low = min(shoe - leg.low_ft, base_md_ft)
        high = top_md_ft if k == len(run.legs) - 1 else max(shoe - leg.high_ft, top_md_ft)
        for content, base, top in ((run.mud_ppg, low, max(high, level_md_ft)), (0.0, min(low, level_md_ft), high)):
            if base > top + 1e-9:
                yield base - top, float(buoyed_weight(leg.weight_ppf, leg.od_in, leg.id_in, content, run.mud_ppg)), base


def worked_hook_load(run: Run, loads: HookLoads) -> None:
    """Running in and picking up at the end of the run."""
    if not is_recording():
        return
    spans = spans_of(run, loads.shoe_md_ft)
    level = planned(run)
    for motion, sign in (("in", -1.0), ("up", 1.0)):
        empty = float(level.empty_md_ft[-1]) if motion == "in" or loads.floats_in else 0.0
        with headline(f"running/{run.string.index}/hook_{motion}"):
            tension = _march(run, spans, empty, sign)
            if run.well.site.block_lbf is not None:
                drag = sign * float(loads.running_force_lbf[-1])
                hook_load(tension, run.well.site.block_lbf, drag, run.head_lbf)


def _march(run: Run, spans: Spans, empty_md_ft: float, sign: float) -> float:
    nodes = spans.nodes_md_ft
    inclination, azimuth = run.well.path.direction_at(nodes)
    tvd = run.well.path.tvd_at(nodes)
    tension = 0.0
    for k in range(len(nodes) - 2, -1, -1):
        top, base = float(nodes[k]), float(nodes[k + 1])
        parts = list(_pieces(run, top, base, empty_md_ft))
        weight = sum(length * per_ft for length, per_ft, _ in parts) / (base - top)
        angles = float(inclination[k]), float(azimuth[k]), float(inclination[k + 1]), float(azimuth[k + 1])
        side = float(lateral_load(max(weight, 0.0), base - top, *angles, tension))
        height = float(np.diff(tvd[k : k + 2])[0])
        friction = sign * float(spans.friction[k])
        tension = float(soft_string_tension(tension, weight, height, friction, side))
    return tension
