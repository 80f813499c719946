"""Rules of circulating a kick out, by either method, held against the kill sheet and the formation."""

from __future__ import annotations

from statistics import median

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import Words, emw, pressure, volume
from knollstack.core.drills.judging import (
    DEAD_PSI,
    OUT_BBL,
    POLICY,
    PRACTICE,
    SHEET,
    Rule,
    Said,
    clock,
    done_events,
    first,
)
from knollstack.core.drills.play import FED_BPM, SAMPLE_S, Play, Sample

RATE_OFF_SPM = 3.0
LIGHT_PPG, HEAVY_PPG = 0.06, 0.35
SECOND_BBL = 0.5
START_S = 120
SLACK_PSI = 60.0


def circulates(play: Play) -> bool:
    return play.made.scene.goal != "shut in"


def pumping(play: Play) -> list[Sample]:
    """Samples of circulating through the choke."""
    begun = play.shut_in_s
    return [s for s in play.samples if begun is not None and s.at_s > begun and s.tight and s.spm > 1]


def kill_ppg(play: Play) -> float:
    """Mud that balances the formation of the drill, with policy's margin."""
    setup = play.made.setup
    return setup.pore_psi / (PSI_PER_PPG_FT * setup.hole_tvd_ft) + play.policy.kill_margin_ppg


def _rate(play: Play) -> Said:
    rows = pumping(play)[24:]
    if not rows:
        return Said(0.0, ("not circulated",))
    middle = median(s.spm for s in rows)
    ok = abs(middle - play.made.setup.pumps.slow_spm) <= RATE_OFF_SPM
    return Said(1.0 if ok else 0.0, (f"circulated at {middle:.0f} spm",), rows[0].at_s)


def _no_more(play: Play) -> Said:
    rows = pumping(play)
    if not rows:
        return Said(0.0, ("not circulated",))
    begun = rows[0].at_s
    taken = sum(s.influx_bpm for s in play.samples if s.at_s >= begun) * SAMPLE_S / 60
    return Said(1.0 if taken <= SECOND_BBL else 0.0, ("taken in since circulating began: ", volume(taken)), begun)


def _not_over(play: Play) -> Said:
    """Bottom-hole pressure over the formation no more than friction and policy's two margins make it."""
    setup, rows = play.made.setup, pumping(play)
    if not rows:
        return Said(0.0, ("not circulated",))
    asked = play.policy.choke_margin_psi + PSI_PER_PPG_FT * play.policy.kill_margin_ppg * setup.hole_tvd_ft
    most = asked + setup.slow_annulus_psi + setup.choke_line_psi + SLACK_PSI
    over = [s for s in rows if s.bottom_psi - setup.pore_psi > most]
    share = len(over) / len(rows)
    worst = max(s.bottom_psi - setup.pore_psi for s in rows)
    return Said(
        1.0 if share <= 0.1 else 0.5 if share <= 0.3 else 0.0,
        ("greatest pressure on bottom ", pressure(worst), " over the formation"),
        over[0].at_s if over else None,
    )


def _mud(play: Play) -> Said:
    wanted, rows = kill_ppg(play), pumping(play)
    lined = done_events(play, "line up mud")
    if not lined:
        return Said(0.0, ("no kill mud was lined up",))
    last = lined[-1]
    right = wanted - LIGHT_PPG <= (last.value or 0.0) <= wanted + HEAVY_PPG
    if not right:
        return Said(0.0, ("lined up ", emw(last.value or 0.0)), last.at_s)
    begun = rows[0].at_s if rows else 10**9
    if play.made.scene.goal == "wait and weight":
        ok = first(e for e in lined if e.at_s <= begun) is not None
        return Said(1.0 if ok else 0.5, (emw(last.value or 0.0), " lined up at ", clock(last.at_s)), last.at_s)
    gas = [s for s in rows if s.gas_bbl > OUT_BBL]
    ok = not gas or last.at_s >= gas[-1].at_s
    return Said(1.0 if ok else 0.5, (emw(last.value or 0.0), " lined up at ", clock(last.at_s)), last.at_s)


def _mud_expected(play: Play) -> Words:
    if play.made.scene.goal == "wait and weight":
        return (emw(kill_ppg(play)), " before circulating begins")
    return (emw(kill_ppg(play)), " for the second circulation, once the gas is out")


def _gas_out(play: Play) -> Said:
    left = play.state.column.gas_bbl
    if not pumping(play):
        return Said(0.0, ("not circulated",))
    return Said(1.0 if left <= OUT_BBL else 0.0, ("left in the annulus: ", volume(left)))


def _dead(play: Play) -> Said:
    state = play.state
    if not pumping(play):
        return Said(0.0, ("not circulated",))
    if state.spm > 1:
        return Said(0.0, ("the pumps were still on",))
    if state.now.influx_bpm > FED_BPM:
        return Said(0.0, ("the formation still flowed",))
    psi = max(state.now.top_psi, state.now.pipe_psi)
    return Said(1.0 if psi <= DEAD_PSI else 0.0, ("pressure left at surface: ", pressure(psi)))


KILL_RULES: tuple[Rule, ...] = (
    Rule(
        "slow rate",
        "Slow rate kept",
        lambda p: (f"{p.made.setup.pumps.slow_spm:.0f} spm, at which the slow pump pressure was read",),
        "Only at the rate of the kill sheet do its pressures hold.",
        SHEET,
        8,
        circulates,
        _rate,
    ),
    Rule(
        "no second influx",
        "Formation held while circulating",
        lambda p: ("casing pressure held while the pumps come up, then drill pipe pressure by the schedule",),
        "Pressure on bottom under the formation's lets a second kick in.",
        PRACTICE,
        15,
        circulates,
        _no_more,
    ),
    Rule(
        "not over",
        "No more pressure than asked",
        lambda p: ("schedule and ", pressure(p.policy.choke_margin_psi), " over it at most"),
        "What the choke holds too much stands on the shoe.",
        POLICY,
        10,
        circulates,
        _not_over,
    ),
    Rule(
        "kill mud",
        "Kill mud",
        _mud_expected,
        "Driller's method: gas out with the old mud, then the kill mud. Wait and weight: once, with kill mud.",
        SHEET,
        10,
        circulates,
        _mud,
    ),
    Rule(
        "gas out",
        "Gas circulated out",
        lambda p: ("no gas left below the choke",),
        "The well is dead only without gas in it.",
        PRACTICE,
        10,
        circulates,
        _gas_out,
    ),
    Rule(
        "dead",
        "Well dead",
        lambda p: ("pumps off, choke closed: no pressure on drill pipe and casing",),
        "Mud alone holds the formation again.",
        PRACTICE,
        12,
        circulates,
        _dead,
    ),
)
