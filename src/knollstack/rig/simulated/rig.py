"""The simulated rig from second to second: where it is in its phases, what its gauges read, and what a trouble does to them."""

from __future__ import annotations

import random
from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np

from knollstack.core.logbook.channels import Channel
from knollstack.rig.channels import Reading, clock_s
from knollstack.rig.simulated.effects import BUMP_PSI, EFFECTS
from knollstack.rig.simulated.timeline import DRILL_COLLARS_LB, Phase, Timeline
from knollstack.rig.simulated.troubles import Trouble

STAND_FT, JOINT_FT = 93.0, 40.0
CONNECTION_H = 4.0 / 60.0
"""In slips, of every stand drilled."""
JOINT_SHARE = 0.3
"""Of the time of a joint of casing, in slips."""
PITS_BBL = 900.0
STANDPIPE_PSI = 2_400.0
WEIGHT_ON_BIT_LBF = 22_000.0
STEEL_PPG = 65.5
ACTIVITIES = {"drilling": 2, "tripping": 8, "running casing": 15, "cementing": 15, "other": 0}
"""Activity codes of the daily report."""


@dataclass
class SimulatedRig:
    """Plays a timeline. Time that a trouble takes is added: the phases come later by it."""

    timeline: Timeline
    troubles: tuple[Trouble, ...] = ()
    seed: int = 1
    from_md_ft: float = 0.0
    _begun: dict[Trouble, float] = field(default_factory=dict)
    _pits: float = PITS_BBL

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)
        self._start = clock_s(self.timeline.begins.replace("-", "")[2:], "060000") or 0

    @property
    def begins_h(self) -> float:
        """When the play begins: the phase in which the hole gets deeper than asked, or the first."""
        for phase in self.timeline.phases:
            if phase.doing == "drilling" and phase.to_md_ft > self.from_md_ft:
                done = max(0.0, self.from_md_ft - phase.from_md_ft) / max(1.0, phase.to_md_ft - phase.from_md_ft)
                return phase.begins_h + done * phase.hours
        return self.timeline.phases[0].begins_h if self.timeline.phases else 0.0

    def readings(self, step_s: float) -> Iterator[Reading]:
        """What the gauges read, so many seconds of the rig's clock apart, to the end of the well."""
        if not self.timeline.phases:
            return
        clock = at = self.begins_h * 3_600.0
        end = max(p.begins_h + p.hours for p in self.timeline.phases) * 3_600.0
        while at < end:
            phase = self._phase(at / 3_600.0)
            values, halted = self._read(phase, at, clock, step_s)
            yield Reading(self._start + int(clock), values)
            clock += step_s
            at += 0.0 if halted else step_s

    def _phase(self, hours: float) -> Phase:
        begun = [p for p in self.timeline.phases if p.begins_h <= hours]
        return begun[-1] if begun else self.timeline.phases[0]

    def _read(self, phase: Phase, at: float, clock: float, step_s: float) -> tuple[dict[Channel, float], bool]:
        share = min(1.0, max(0.0, (at / 3_600.0 - phase.begins_h) / phase.hours))
        read = {
            "drilling": self._drilling,
            "tripping": self._tripping,
            "running casing": self._running,
            "cementing": self._cementing,
            "other": self._idle if phase.job is None else self._cementing,
        }[phase.doing]
        values = read(phase, share)
        values["activity"] = float(ACTIVITIES[phase.doing])
        halted = self._troubled(phase, values, clock, step_s)
        values["pit_bbl"] = self._pits + self._noise(0.25)
        return self._rounded(values), halted

    def _noise(self, spread: float) -> float:
        return self._random.gauss(0.0, spread)

    def _near(self, value: float, share: float) -> float:
        return max(0.0, value * (1.0 + self._noise(share)))

    def _hanging(self, phase: Phase, md_ft: float) -> float:
        """Block, drill pipe and collars in their mud."""
        weight = self.timeline.pipe_lb_ft * md_ft + (DRILL_COLLARS_LB if md_ft > 0 else 0.0)
        return self.timeline.block_lbf + weight * (1.0 - phase.mud_ppg / STEEL_PPG)

    def _drilling(self, phase: Phase, share: float) -> dict[Channel, float]:
        way = phase.to_md_ft - phase.from_md_ft
        stands = max(1.0, way / STAND_FT)
        stand, within = divmod(share * stands, 1.0)
        on_bottom = 1.0 - min(0.5, CONNECTION_H * stands / phase.hours)
        in_slips = within > on_bottom
        bit = phase.from_md_ft + way * min(1.0, (stand + min(1.0, within / on_bottom)) / stands)
        hook = self._hanging(phase, bit)
        values = self._idle(phase, share)
        values |= {"bit_md_ft": bit, "hole_md_ft": bit, "mud_in_ppg": self._near(phase.mud_ppg, 0.002)}
        if in_slips:
            return values
        flow = phase.flow_gpm
        values["hook_lbf"] = self._near(hook - WEIGHT_ON_BIT_LBF, 0.006)
        values["flow_in_gpm"] = self._near(flow, 0.004)
        values["flow_out_gpm"] = self._near(flow, 0.015)
        values["pump_psi"] = self._near(STANDPIPE_PSI * (0.4 + 0.6 * bit / self.timeline.total_md_ft), 0.01)
        return values

    def _tripping(self, phase: Phase, share: float) -> dict[Channel, float]:
        md = phase.from_md_ft + (phase.to_md_ft - phase.from_md_ft) * share
        values = self._idle(phase, share)
        return values | {"bit_md_ft": md, "hook_lbf": self._near(self._hanging(phase, md), 0.01)}

    def _running(self, phase: Phase, share: float) -> dict[Channel, float]:
        way = phase.to_md_ft - phase.from_md_ft
        joint, within = divmod(share * way / JOINT_FT, 1.0)
        shoe = min(phase.to_md_ft, phase.from_md_ft + (joint + min(1.0, within / (1.0 - JOINT_SHARE))) * JOINT_FT)
        values = self._idle(phase, share) | {"bit_md_ft": shoe}
        if phase.hook is not None and within <= 1.0 - JOINT_SHARE:
            values["hook_lbf"] = self._near(float(np.interp(shoe, phase.hook.shoe_md_ft, phase.hook.in_lbf)), 0.008)
        return values

    def _cementing(self, phase: Phase, share: float) -> dict[Channel, float]:
        values = self._idle(phase, share) | {"bit_md_ft": phase.hole_md_ft}
        job = phase.job
        if job is None:
            return values
        minute = share * phase.hours * 60.0
        if not job.minutes[0] <= minute <= job.minutes[-1]:
            return values
        curves: dict[Channel, tuple[float, ...]] = {
            "cement_in_bpm": job.in_bpm,
            "cement_out_bpm": job.out_bpm,
            "cement_psi": job.pump_psi,
        }
        for channel, curve in curves.items():
            values[channel] = self._near(float(np.interp(minute, job.minutes, curve)), 0.01)
        values["cement_bbl"] = float(np.interp(minute, job.minutes, job.pumped_bbl))
        if phase.doing == "cementing" and minute >= job.minutes[-1] - 0.5:
            values["cement_psi"] += BUMP_PSI
        return values

    def _idle(self, phase: Phase, share: float) -> dict[Channel, float]:
        return {
            "hole_md_ft": phase.hole_md_ft,
            "bit_md_ft": 0.0,
            "hook_lbf": self._near(self.timeline.block_lbf, 0.01),
            "flow_in_gpm": 0.0,
            "flow_out_gpm": 0.0,
            "pump_psi": 0.0,
            "casing_psi": 0.0,
        }

    def _rounded(self, values: dict[Channel, float]) -> dict[Channel, float]:
        return {channel: round(value, 2) for channel, value in values.items()}

    def _troubled(self, phase: Phase, values: dict[Channel, float], clock: float, step_s: float) -> bool:
        """What the troubles of this phase do to its gauges; true where the work stands still."""
        halted = False
        for trouble in self.troubles:
            halted |= EFFECTS[trouble.kind](self, trouble, phase, values, clock, step_s)
        return halted

    def since(self, trouble: Trouble, met: bool, clock: float) -> float | None:
        """Seconds since a trouble began; None before it is met."""
        if met and trouble not in self._begun:
            self._begun[trouble] = clock
        return None if trouble not in self._begun else clock - self._begun[trouble]

    def gain(self, bbl: float) -> None:
        self._pits += bbl
