"""The watches on a rig live: gain and loss, flow, a well shut in, days, hook load, stuck pipe, and the cement job."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from knollstack.core.base.findings import Amount, Words, force, pressure, volume
from knollstack.core.logbook.live import RECENT, Departure, Now, Watch, interpolated

Level = Literal["stop", "caution", "unknown", "note"]
FLOWING_GPM = 20.0
"""Pumps count as on from here."""
SHUT_IN_PSI = 50.0
STILL_FT = 1.0
STILL_MINUTES = 8.0
PULLED_LBF = 30_000.0
OUT_OF_SLIPS = 1.15
"""Hook load over that of the block alone, where a string hangs in the hook."""
PUMPING_BPM = 0.5
SECONDS_A_DAY = 86_400.0


def _told(severity: Level, watch: str, *words: str | Amount) -> Departure:
    return Departure(severity=severity, watch=watch, words=words)


def _pits(now: Now) -> Iterator[Departure]:
    rows, last = now.column("pit_bbl"), now.recent("pit_bbl")
    assert last is not None
    minutes = Amount(value=now.limits.window_minutes, quantity="minutes")
    gained = last - min(row[0] for row in rows)
    lost = max(row[2] for row in rows) - last
    if gained > now.limits.pit_gain_bbl:
        yield _told(
            "stop", "pit gain", "Pit gain ", volume(gained), " within ", minutes, ": flow check; if it flows, shut in."
        )
    elif lost > now.limits.pit_loss_bbl:
        yield _told("caution", "pit gain", "Losses: the pits fell ", volume(lost), " within ", minutes, ".")


def _flow(now: Now) -> Iterator[Departure]:
    flow_in, flow_out = now.recent("flow_in_gpm"), now.recent("flow_out_gpm")
    if flow_in is None or flow_out is None or flow_in < FLOWING_GPM:
        return
    share = 100.0 * (flow_out - flow_in) / flow_in
    if abs(share) <= now.limits.flow_percent:
        return
    told: Words = (Amount(value=abs(share), quantity="percent"), " of what is pumped")
    if share > 0:
        yield _told("stop", "flow", "Flow out is over flow in by ", *told, ": flow check; if it flows, shut in.")
    else:
        yield _told("caution", "flow", "Flow out is under flow in by ", *told, ": losses.")


def _shut_in(now: Now) -> Iterator[Departure]:
    casing, flow = now.recent("casing_psi"), now.last("flow_in_gpm") or 0.0
    if casing is None or casing < SHUT_IN_PSI or flow > FLOWING_GPM:
        return
    pipe = now.recent("pump_psi")
    on_pipe: Words = () if pipe is None else (pressure(pipe), " on the drill pipe, ")
    yield _told(
        "stop", "shut in", "The well is shut in under pressure: ", *on_pipe, pressure(casing), " on the casing."
    )


def _days(now: Now) -> Iterator[Departure]:
    planned, depth = now.planned, now.last("hole_md_ft")
    if planned.begins_s is None or depth is None:
        yield _told("unknown", "days", "No spud is logged: days are not held beside the plan.")
        return
    day = (now.spans[-1].begins_s - planned.begins_s) / SECONDS_A_DAY
    should = interpolated(planned.md_ft, planned.day, depth)
    if should is None:
        return
    late = day - should
    if abs(late) > now.limits.behind_days:
        days = Amount(value=abs(late), quantity="days")
        yield _told("note", "days", days, " behind the plan" if late > 0 else " ahead of the plan", " at this depth.")


def _hook(now: Now) -> Iterator[Departure]:
    hook, shoe = now.planned.hook, now.last("bit_md_ft")
    if hook is None or shoe is None:
        yield _told("unknown", "hook load", "The planned hook load is not known: it is not watched.")
        return
    planned_in = interpolated(hook.shoe_md_ft, hook.in_lbf, shoe)
    planned_up = interpolated(hook.shoe_md_ft, hook.up_lbf, shoe)
    hanging = [row[2] for row in now.column("hook_lbf")[-6:] if row[2] > hook.block_lbf * OUT_OF_SLIPS]
    if planned_in is None or planned_up is None or not hanging:
        return
    read, share = hanging[-1], now.limits.hook_percent / 100.0
    string = max(1.0, planned_in - hook.block_lbf)
    if read < planned_in - share * string:
        yield _told(
            "caution", "hook load", "Hook load ", force(planned_in - read), " under the planned one running in: ",
            "tight hole, a ledge, or fill that went wrong. Pick up, wash down; do not push.",
        )  # fmt: skip
    elif read > planned_up + share * string:
        yield _told(
            "caution",
            "hook load",
            "Hook load ",
            force(read - planned_up),
            " over the planned one picking up: overpull.",
        )


def _stuck(now: Now) -> Iterator[Departure]:
    end = now.spans[-1].begins_s
    late = [s for s in now.spans if s.begins_s >= end - STILL_MINUTES * 60.0]
    bits = [s.values["bit_md_ft"] for s in late if "bit_md_ft" in s.values]
    hooks = [s.values["hook_lbf"] for s in late if "hook_lbf" in s.values]
    if not bits or not hooks or late[0].begins_s > end - (STILL_MINUTES - 1.0) * 60.0:
        return
    still = max(b[2] for b in bits) - min(b[0] for b in bits) < STILL_FT
    pulled = max(h[2] for h in hooks) - min(h[0] for h in hooks)
    usual = sorted(h[2] for h in (s.values["hook_lbf"] for s in now.spans if "hook_lbf" in s.values))[0]
    if still and max(h[2] for h in hooks) > usual + PULLED_LBF and pulled > PULLED_LBF:
        minutes = Amount(value=STILL_MINUTES, quantity="minutes")
        yield _told(
            "stop",
            "stuck pipe",
            "The pipe has not moved for ",
            minutes,
            " while it is worked with ",
            force(pulled),
            ": stuck.",
        )


def _cement_pressure(now: Now) -> Iterator[Departure]:
    job, pumped, read = now.planned.job, now.last("cement_bbl"), now.recent("cement_psi", 1)
    if job is None or pumped is None or read is None or len(job.pumped_bbl) < 2:
        yield _told("unknown", "pump pressure", "The planned job is not known: pump pressure is not watched.")
        return
    total = job.pumped_bbl[-1]
    planned = interpolated(job.pumped_bbl, job.pump_psi, pumped)
    if pumped > total + now.limits.past_plug_bbl:
        yield _told(
            "stop", "plug", "The plug has not bumped: ", volume(pumped - total), " over the planned displacement. ",
            "Stop at half the shoe track; hold what the float does not.",
        )  # fmt: skip
        return
    if planned is None or (now.last("cement_in_bpm") or 0.0) < PUMPING_BPM or pumped > total - now.limits.past_plug_bbl:
        return
    allowed = max(now.limits.pump_psi, planned * now.limits.pump_percent / 100.0)
    if abs(read - planned) > allowed:
        side = "over" if read > planned else "under"
        yield _told(
            "caution", "pump pressure", "Pump pressure ", pressure(abs(read - planned)), f" {side} the planned one at ",
            volume(pumped), " pumped.",
        )  # fmt: skip


def _returns(now: Now) -> Iterator[Departure]:
    """Beside what is planned to come back: while cement falls ahead of the pumps it is less than what is pumped."""
    rate_in, rate_out = now.recent("cement_in_bpm"), now.recent("cement_out_bpm")
    if rate_in is None or rate_out is None or rate_in < PUMPING_BPM:
        return
    planned = _planned_returns(now, rate_in)
    if planned is None or planned < PUMPING_BPM:
        return
    share = 100.0 * rate_out / planned
    if share < now.limits.returns_percent:
        yield _told(
            "caution",
            "returns",
            "Returns are ",
            Amount(value=share, quantity="percent"),
            " of what should come back: slow down; the top of cement will stand lower than planned.",
        )


def _planned_returns(now: Now, rate_in: float) -> float | None:
    """The least that should come back over the spans that are looked at; what is pumped, where the plan does not tell."""
    job = now.planned.job
    if job is None or len(job.out_bpm) != len(job.pumped_bbl):
        return rate_in
    volumes = [row[1] for row in now.column("cement_bbl")[-RECENT:]]
    rates = [interpolated(job.pumped_bbl, job.out_bpm, volume) for volume in volumes]
    return min((rate for rate in rates if rate is not None), default=None)


WATCHES: tuple[Watch, ...] = (
    Watch("pit gain", ("drilling",), ("pit_bbl",), _pits, "a kick shows in the pits; of a trip the trip sheet tells"),
    Watch("flow", ("drilling",), ("flow_in_gpm", "flow_out_gpm"), _flow, "a kick shows in the flow first"),
    Watch("shut in", ("drilling", "tripping", "other"), ("casing_psi",), _shut_in, "pressure with the pumps off"),
    Watch("days", ("drilling",), ("hole_md_ft",), _days, "the schedule by depth"),
    Watch("hook load", ("running casing",), ("hook_lbf", "bit_md_ft"), _hook, "what the hole takes shows in the hook"),
    Watch("stuck pipe", ("drilling", "running casing"), ("hook_lbf", "bit_md_ft"), _stuck, "worked, and it stays"),
    Watch("pump pressure", ("cementing",), ("cement_psi", "cement_bbl"), _cement_pressure, "the job by volume"),
    Watch("returns", ("cementing",), ("cement_in_bpm", "cement_out_bpm"), _returns, "what the rock takes is missing"),
)
