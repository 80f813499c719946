"""What the rig needs to run a string: make-up torque by connection, and what elevators, spider, tongs and hook stand."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from knollstack.core.base.formulas import steel_area_in2
from knollstack.core.base.working import headline
from knollstack.core.catalogue.product import LEAST_TORQUE_SHARE, MOST_TORQUE_SHARE, Pipe
from knollstack.core.running.formulas import load_stretch, self_weight_stretch
from knollstack.core.running.hookload import HookLoads
from knollstack.core.running.run import Run


@dataclass(frozen=True)
class Torque:
    """Make-up of a connection [ft·lbf]: by torque, to its mark, welded, or not known."""

    by: Literal["torque", "mark", "weld", "unknown"]
    least: float | None = None
    best: float | None = None
    most: float | None = None


def torque_of(run: Run, pipe: Pipe) -> Torque:
    """Round thread by its joint strength, buttress to its triangle, others as given (API RP 5C1)."""
    given = run.string.own.running.torque_ft_lbf
    best = pipe.torque_ft_lbf
    if best is None:
        best = given
    if best is not None:
        return Torque("torque", LEAST_TORQUE_SHARE * best, best, MOST_TORQUE_SHARE * best)
    return Torque({"buttress": "mark", "welded": "weld"}.get(pipe.joint.kind, "unknown"))  # type: ignore[arg-type]


@dataclass(frozen=True)
class Pull:
    """The greatest pull of the run [lbf] with the block, the pull that is left, and what sets it; None is not known."""

    hook_up_lbf: float | None
    hook_down_lbf: float | None
    pipe_left_lbf: float | None
    rig_left_lbf: float | None

    @property
    def left_lbf(self) -> float | None:
        known = [v for v in (self.pipe_left_lbf, self.rig_left_lbf) if v is not None]
        return min(known) if len(known) == 2 else None


def _pipe_left(run: Run, up_lbf: float) -> float | None:
    """What each leg stands at its top over the tension there picked up, by its weaker of body and joint."""
    left, above, factor = [], run.head_lbf, run.well.policy.pipe.factors.tension
    path, shoe = run.well.path, run.tally.shoe_md_ft
    for leg in reversed(run.legs):
        top, base = max(shoe - leg.high_ft, 0.0), max(shoe - leg.low_ft, 0.0)
        if leg.pipe is not None:
            if leg.pipe.joint_lbf is None:
                return None
            left.append(min(leg.pipe.body_lbf, leg.pipe.joint_lbf) / factor - (up_lbf - above))
        weight = leg.weight_ppf - (run.bore_bbl_psi(leg) * ((leg.od_in / leg.id_in) ** 2 - 1))
        above += weight * (path.tvd(base) - path.tvd(top))
    return min(left)


def pull_of(run: Run, loads: HookLoads) -> Pull:
    """At the end of the run, filled as planned; hook loads are known with the block alone."""
    site = run.well.site
    up, down = float(loads.of("planned", "up").max()), float(loads.of("planned", "in")[-1])
    block, limit = site.block_lbf, site.hook_load_limit_lbf
    hook = None if block is None else up + block
    return Pull(
        hook_up_lbf=hook,
        hook_down_lbf=None if block is None else down + block,
        pipe_left_lbf=_pipe_left(run, up),
        rig_left_lbf=None if hook is None or limit is None else limit - hook,
    )


def stretch_in(run: Run) -> tuple[float, float]:
    """Stretch [in] under the string's own weight on bottom, and more by the overpull of policy."""
    length = run.well.path.tvd(run.tally.shoe_md_ft)
    at = f"running/{run.string.index}"
    with headline(f"{at}/stretch"):
        own = float(self_weight_stretch(length, run.mud_ppg))
    areas = [(leg.high_ft - leg.low_ft) / steel_area_in2(leg.od_in, leg.id_in) for leg in run.casing_legs]
    total = run.casing_legs[-1].high_ft
    with headline(f"{at}/pulled"):
        pulled = float(load_stretch(run.well.policy.pipe.overpull_lbf, total, total / float(np.sum(areas))))
    return own, pulled
