"""What each trouble does to the gauges while it lasts."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol

from knollstack.core.logbook.channels import Channel
from knollstack.rig.simulated.timeline import Phase, Timeline
from knollstack.rig.simulated.troubles import Kind, Trouble

LOSSES_S, KICK_S, KICK_BBL, STUCK_S = 3_600.0, 7_200.0, 14.0, 5_400.0
LOSS_SHARE, KICK_SHARE, RETURNS_SHARE, TIGHT_SHARE = 0.35, 0.18, 0.8, 0.35
TIGHT_FT = 250.0
SHUT_IN_PSI = (320.0, 450.0)
"""On drill pipe and casing, once a kick is shut in."""
PAST_THE_PLUG = 1.06
BUMP_PSI = 600.0


class Hand(Protocol):
    """The rig as an effect has it in hand."""

    timeline: Timeline

    def since(self, trouble: Trouble, met: bool, clock: float) -> float | None: ...

    def gain(self, bbl: float) -> None: ...


Values = dict[Channel, float]
Effect = Callable[[Hand, Trouble, Phase, Values, float, float], bool]
GALLONS_BBL = 42.0
OVERPULL_LBF = 70_000.0


def _met(trouble: Trouble, phase: Phase, values: Values) -> bool:
    """The bit has drilled to the depth."""
    return phase.doing == "drilling" and values["bit_md_ft"] >= trouble.md_ft > phase.from_md_ft - 1e-9


def _losses(rig: Hand, trouble: Trouble, phase: Phase, values: Values, clock: float, step_s: float) -> bool:
    since = rig.since(trouble, _met(trouble, phase, values), clock)
    if since is None or since > LOSSES_S or values["flow_in_gpm"] <= 0:
        return False
    lost = values["flow_out_gpm"] * LOSS_SHARE
    values["flow_out_gpm"] -= lost
    rig.gain(-lost / GALLONS_BBL * step_s / 60.0)
    return False


def _kick(rig: Hand, trouble: Trouble, phase: Phase, values: Values, clock: float, step_s: float) -> bool:
    """Flow rises and the pits gain until the gain is seen; then pumps off and shut in, until it is circulated out."""
    since = rig.since(trouble, _met(trouble, phase, values), clock)
    if since is None or since > KICK_S:
        return False
    gaining_s = KICK_BBL * GALLONS_BBL / max(1.0, phase.flow_gpm * KICK_SHARE) * 60.0
    if since <= gaining_s:
        more = phase.flow_gpm * KICK_SHARE
        values["flow_out_gpm"] = values["flow_in_gpm"] + more
        rig.gain(more / GALLONS_BBL * step_s / 60.0)
        return False
    built = min(1.0, (since - gaining_s) / 300.0)
    values |= {"flow_in_gpm": 0.0, "flow_out_gpm": 0.0}
    values["pump_psi"], values["casing_psi"] = (built * psi for psi in SHUT_IN_PSI)
    return True


def _tight(rig: Hand, trouble: Trouble, phase: Phase, values: Values, clock: float, step_s: float) -> bool:
    """Weight is lost to the hole going down, and more is pulled coming up."""
    there = abs(values["bit_md_ft"] - trouble.md_ft) < TIGHT_FT / 2
    if not there or phase.doing not in ("running casing", "tripping"):
        return False
    down = phase.to_md_ft >= phase.from_md_ft
    block = rig.timeline.block_lbf
    hanging = max(0.0, values["hook_lbf"] - block)
    values["hook_lbf"] += hanging * (-TIGHT_SHARE if down else TIGHT_SHARE)
    return False


def _stuck(rig: Hand, trouble: Trouble, phase: Phase, values: Values, clock: float, step_s: float) -> bool:
    moving = phase.doing in ("drilling", "running casing")
    met = moving and phase.from_md_ft <= trouble.md_ft <= values["bit_md_ft"]
    since = rig.since(trouble, met, clock)
    if since is None or since > STUCK_S:
        return False
    pulling = int(since // 120) % 2 == 0
    values["hook_lbf"] += OVERPULL_LBF if pulling else -min(OVERPULL_LBF, values["hook_lbf"] * 0.4)
    return True


def _of_job(trouble: Trouble, phase: Phase) -> bool:
    """The job of the string that is set at the depth, or next below it."""
    return phase.doing == "cementing" and phase.job is not None and phase.hole_md_ft >= trouble.md_ft


def _no_bump(rig: Hand, trouble: Trouble, phase: Phase, values: Values, clock: float, step_s: float) -> bool:
    """The plug does not come: more is pumped than planned, and pressure does not rise."""
    job = phase.job
    pumped = values.get("cement_bbl")
    if job is None or pumped is None or not _of_job(trouble, phase) or not _first(rig, trouble, phase):
        return False
    if pumped >= job.pumped_bbl[-1] - job.in_bpm[-1] * 0.6:
        over = rig.since(trouble, True, clock) or 0.0
        rate = max(job.in_bpm[-1], 2.0)
        values["cement_bbl"] = min(job.pumped_bbl[-1] * PAST_THE_PLUG, job.pumped_bbl[-1] + over / 60.0 * rate)
        values["cement_in_bpm"] = values["cement_out_bpm"] = rate
        values["cement_psi"] = max(0.0, min(values["cement_psi"], job.pump_psi[-1]))
        return bool(values["cement_bbl"] < job.pumped_bbl[-1] * PAST_THE_PLUG)
    return False


def _first(rig: Hand, trouble: Trouble, phase: Phase) -> bool:
    """Of the jobs below the depth, the shallowest."""
    jobs = [p for p in rig.timeline.phases if _of_job(trouble, p)]
    return bool(jobs) and jobs[0].key == phase.key


def _lost_returns(rig: Hand, trouble: Trouble, phase: Phase, values: Values, clock: float, step_s: float) -> bool:
    job = phase.job
    if job is None or "cement_bbl" not in values or not _of_job(trouble, phase) or not _first(rig, trouble, phase):
        return False
    if values["cement_bbl"] > job.pumped_bbl[-1] * 0.5:
        values["cement_out_bpm"] *= 1.0 - RETURNS_SHARE
        values["cement_psi"] = max(0.0, values["cement_psi"] - BUMP_PSI * 0.2)
    return False


EFFECTS: dict[Kind, Effect] = {
    "losses": _losses,
    "kick": _kick,
    "tight hole": _tight,
    "stuck": _stuck,
    "no bump": _no_bump,
    "lost returns": _lost_returns,
}
