"""A kick circulated out by scripted crews, by either method, and each rule of it on both sides of its limit."""

from copy import copy, deepcopy
from types import SimpleNamespace

import pytest

from knollstack.core.drills.debrief import debrief
from knollstack.core.drills.rules_kill import kill_ppg, pumping
from knollstack.core.drills.scoring import outcomes
from tests.core.drills import crews
from tests.core.drills.crews import Crew
from tests.core.drills.played import at, changed, credits, edit, killed, missed, sampled
from tests.core.drills.wells import KPSI, LAND, play

DRILLER, WEIGHT = "driller's method", "wait and weight"


def open_up(crew):
    """Every element opened, and the flow line watched for a while."""
    for e in crew.setup.elements:
        crew.do("open", target=e.index)
    crew.wait(200)


@pytest.mark.parametrize("goal", [DRILLER, WEIGHT])
def test_a_kick_is_circulated_out_by_either_method(goal):
    found = deepcopy(killed(goal))
    assert missed(found) == set()
    told = debrief(found)
    assert told.theory is not None
    assert told.score == 100.0
    greatest = max(s.casing_psi for s in found.samples if s.spm > 1 and s.tight)
    assert greatest <= 1.15 * max(told.theory.casing_psi), "bubbles with mud between lie under the one of the theory"
    open_up(Crew(found))
    assert not found.samples[-1].tight
    assert missed(found) == set(), "a dead well may be opened"


def test_the_margin_of_the_kill_mud_is_no_pressure_too_much():
    assert missed(killed(WEIGHT, kill_margin_ppg=0.5)) == set()


def shut_in(md_ft=3_000.0):
    crew = Crew(play(LAND, "drilling", "s3", md_ft=md_ft, goal=DRILLER, seed=2))
    crews.drilling(crew)
    return crew


def test_a_well_opened_on_gas_flows_and_is_told():
    """Once at its pressure, and once when all of it went through the choke with the pumps off."""
    crew = shut_in()
    crews.start_pumps(crew)
    crew.do("hold drill pipe pressure", value=crew.play.state.now.pipe_psi + 30)
    crew.wait(300)
    assert credits(crew.play)["no second influx"] == credits(crew.play)["stayed"] == 1.0
    crews.stop_pumps(crew)
    crew.do("choke", value=0.5)
    crew.wait(300)
    assert credits(crew.play)["no second influx"] == 0.0
    open_up(crew)
    assert credits(crew.play)["stayed"] == 0.0
    assert {o.key: o.done for o in outcomes(crew.play)}["dead"] == ("the formation still flowed",)


def test_a_choke_held_too_open_lets_a_second_kick_in_and_too_shut_is_told():
    crew = shut_in()
    crew.do("pump", value=30.0)
    crew.do("choke", value=0.6)
    crew.wait(600)
    assert {"no second influx", "gas out", "dead", "kill mud"} <= missed(crew.play)
    tight = shut_in()
    crews.start_pumps(tight)
    tight.do("hold drill pipe pressure", value=tight.play.state.now.pipe_psi + 260)
    tight.wait(900)
    assert credits(tight.play)["not over"] == 0.0
    assert credits(tight.play)["no second influx"] == 1.0


def driller():
    return changed(killed(DRILLER))


def margined(ppg):
    found = driller()
    found.policy = found.policy.model_copy(update={"kill_margin_ppg": ppg})
    return found


@pytest.mark.parametrize(("off_spm", "credit"), [(3.0, 1.0), (-3.0, 1.0), (3.1, 0.0), (-3.1, 0.0)])
def test_the_slow_rate_is_kept(off_spm, credit):
    found = driller()
    spm = found.made.setup.pumps.slow_spm + off_spm
    assert credits(sampled(found, {"spm": spm}, lambda s: s.spm > 1 and s.tight))["slow rate"] == credit


@pytest.mark.parametrize(("bpm", "credit"), [(5.9, 1.0), (6.1, 0.0)])
def test_half_a_barrel_is_a_second_kick_with_the_pumps_on_or_off(bpm, credit):
    """6 bbl/min for the 5 s of a sample are half a barrel."""
    begun = pumping(driller())[0].at_s
    quiet = sampled(driller(), {"influx_bpm": 0.0})
    for spm in (30.0, 0.0):
        found = changed(quiet)
        second = next(s.at_s for s in found.samples if s.at_s > begun and (s.spm > 1) == (spm > 1))
        sampled(found, {"influx_bpm": bpm}, lambda s, n=second: s.at_s == n)
        assert credits(found)["no second influx"] == credit
    before = sampled(changed(quiet), {"influx_bpm": bpm}, lambda s: s.at_s < begun)
    assert credits(before)["no second influx"] == 1.0


@pytest.mark.parametrize(
    ("over_psi", "share", "credit"), [(-1, 1.0, 1.0), (1, 0.09, 1.0), (1, 0.11, 0.5), (1, 0.29, 0.5), (1, 0.31, 0.0)]
)
@pytest.mark.parametrize("margin_ppg", [0.0, 0.4])
def test_pressure_over_what_is_asked_by_its_share_of_the_time(margin_ppg, over_psi, share, credit):
    found = margined(margin_ppg)
    setup = found.made.setup
    margins = 100 + KPSI * margin_ppg * setup.hole_tvd_ft
    most = setup.pore_psi + margins + setup.slow_annulus_psi + setup.choke_line_psi + 60
    rows = pumping(found)
    until = rows[int(share * len(rows)) - 1].at_s
    sampled(found, {"bottom_psi": most - 50})
    sampled(found, {"bottom_psi": most + over_psi}, lambda s: s.at_s <= until)
    assert credits(found)["not over"] == credit


@pytest.mark.parametrize(("off_ppg", "credit"), [(-0.059, 1.0), (-0.061, 0.0), (0.349, 1.0), (0.351, 0.0), (0.0, 1.0)])
@pytest.mark.parametrize("margin_ppg", [0.0, 0.4])
def test_the_weight_of_the_kill_mud(margin_ppg, off_ppg, credit):
    found = margined(margin_ppg)
    setup = found.made.setup
    wanted = setup.pore_psi / (KPSI * setup.hole_tvd_ft) + margin_ppg
    assert kill_ppg(found) == pytest.approx(wanted)
    assert credits(edit(found, at(found, "line up mud"), value=wanted + off_ppg))["kill mud"] == credit


def test_kill_mud_comes_before_circulating_or_after_the_gas():
    weight, begun = changed(killed(WEIGHT)), pumping(killed(WEIGHT))[0].at_s
    for second, credit in ((begun, 1.0), (begun + 1, 0.5)):
        assert credits(edit(weight, at(weight, "line up mud"), at_s=second))["kill mud"] == credit
    found = driller()
    gone = [s.at_s for s in pumping(found) if s.gas_bbl > 0.3][-1]
    for second, credit in ((gone, 1.0), (gone - 1, 0.5)):
        assert credits(edit(found, at(found, "line up mud"), at_s=second))["kill mud"] == credit


@pytest.mark.parametrize(
    ("changes", "key", "credit"),
    [
        ({"column": SimpleNamespace(gas_bbl=0.3)}, "gas out", 1.0),
        ({"column": SimpleNamespace(gas_bbl=0.31)}, "gas out", 0.0),
        ({"spm": 1.0}, "dead", 1.0),
        ({"spm": 1.1}, "dead", 0.0),
        ({"influx_bpm": 0.01}, "dead", 1.0),
        ({"influx_bpm": 0.02}, "dead", 0.0),
        ({"top_psi": 60.0}, "dead", 1.0),
        ({"top_psi": 61.0}, "dead", 0.0),
        ({"pipe_psi": 61.0}, "dead", 0.0),
    ],
)
def test_the_well_is_dead_at_the_end(changes, key, credit):
    found = driller()
    found.state, now = copy(found.state), copy(found.state.now)
    now.top_psi = now.pipe_psi = now.influx_bpm = 0.0
    found.state.now = now
    for name, value in changes.items():
        setattr(now if hasattr(now, name) else found.state, name, value)
    assert credits(found)[key] == credit
