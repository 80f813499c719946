"""Scenes played by scripted crews: the right one scores full by the school in force, the wrong one is told exactly what."""

import numpy as np
import pytest

from knollstack.core.drills.events import DrillDoing
from knollstack.core.drills.panel import can, panel
from knollstack.core.drills.play import Play, replayed
from knollstack.core.drills.scoring import outcomes, score
from tests.core.drills import crews
from tests.core.drills.crews import Crew
from tests.core.drills.played import PLACES, credits, missed
from tests.core.drills.wells import DEEP, LAND, PLATFORM, play
from tests.helpers import many

SCHOOLS = ({}, {"shut_in": "soft"}, {"first": "pipe rams"}, {"flow_check": False})


@pytest.mark.parametrize("kind", PLACES)
@pytest.mark.parametrize("school", SCHOOLS, ids=lambda s: str(s or "usual"))
def test_the_right_crew_scores_full_in_every_scene_by_every_school(kind, school):
    well, hole = PLACES[kind]
    found = play(well, kind, hole, school, seed=7)
    crews.RIGHT[kind](Crew(found))
    assert missed(found) == set()
    assert score(outcomes(found)) == 100.0


@pytest.mark.parametrize("kind", ["drilling", "failed annular", "gas above"])
@pytest.mark.parametrize("difficulty", ["basic", "demanding"])
def test_difficulty_changes_the_kick_and_not_the_rules(kind, difficulty):
    found = play(DEEP, kind, "s4", seed=3, difficulty=difficulty)
    crews.RIGHT[kind](Crew(found))
    assert missed(found) == set()


def test_every_rule_has_weight_and_says_why():
    keys = set()
    for kind, (well, hole) in PLACES.items():
        for o in outcomes(play(well, kind, hole)):
            keys.add(o.key)
            assert o.weight > 0
            assert o.why
            assert o.expected
            assert o.done
    assert len(keys) > 20


def wrong(kind, *steps, policy=None, wait=400, **more):
    """A crew that only does some things, then lets the clock run."""
    well, hole = PLACES[kind]
    crew = Crew(play(well, kind, hole, policy, **more))
    crew.sign() if kind not in ("drift-off", "gas above") else crew.wait(5)
    for step in steps:
        step(crew)
    crew.wait(wait)
    return crew.play


def does(action, **more):
    return lambda crew: crew.do(action, **more)


def closes(*elements):
    return lambda crew: crew.close(next(e for e in crew.setup.elements if e.element in elements or e.kind in elements))


def stop(crew):
    crew.stop()


def shut(crew):
    crew.shut(crew.find("annular"))


def idle(crew):
    crew.wait(1)


def test_a_drill_begins_with_its_gauges_steady():
    for kind in ("drilling", "diverter", "drift-off"):
        well, hole = PLACES[kind]
        found = play(well, kind, hole, seed=7)
        found.advance(5)
        (first, after), tank = found.read, found.made.setup.pit_bbl
        assert after.pipe_psi == pytest.approx(first.pipe_psi, rel=1e-6)
        assert found.state.pit_bbl == pytest.approx(tank, abs=0.01)


def test_one_who_does_nothing_is_told_all_of_it():
    found = wrong("drilling", idle, wait=900)
    assert {"in time", "pick up", "pumps off", "flow check", "school", "first", "recorded", "stayed"} <= missed(found)
    assert credits(found)["in time"] == 0.0
    assert credits(found)["rock"] == 1.0


def test_closing_on_a_running_pump_without_picking_up():
    found = wrong("drilling", shut)
    assert missed(found) >= {"pick up", "pumps off", "flow check", "recorded"}
    told = {o.key: o.done for o in outcomes(found)}
    assert told["pumps off"] == ("closed at 114 spm",)
    assert told["pick up"] == ("closed without picking up",)


def test_each_school_is_held_to_its_own_order():
    """Hard as played, scored by soft, and the other way round."""
    hard, soft = wrong("drilling", stop, shut), wrong("drilling", stop, shut, policy={"shut_in": "soft"})
    assert (credits(hard)["school"], credits(soft)["school"]) == (1.0, 1.0)
    other = {True: "soft", False: "hard"}
    for found, was_hard in ((hard, True), (soft, False)):
        found.policy = found.policy.model_copy(update={"shut_in": other[was_hard]})
        assert credits(found)["school"] == 0.0
    assert credits(wrong("drilling", stop, closes("variable rams")))["first"] == 0.0
    rams = wrong("drilling", stop, closes("variable rams"), policy={"first": "pipe rams"})
    assert credits(rams)["first"] == 1.0


def test_variable_rams_on_collars_and_blind_rams_on_pipe_are_named():
    found = wrong("collars", closes("pipe rams"))
    assert credits(found)["fits"] == 0.0
    assert found.shut_in_s is None
    (told,) = [o for o in outcomes(found) if o.key == "fits"]
    assert "does not seal on collars" in told.done[0]
    assert told.source == "Rating of the equipment"
    blind = wrong("drilling", stop, closes("blind shear rams"))
    assert credits(blind)["not sheared"] == 0.0
    assert credits(blind)["fits"] == 1.0
    assert blind.state.cut


def test_an_open_string_flows_and_a_valve_left_open_is_told():
    found = wrong("tripping", does("slips"), does("flow check"), shut)
    assert credits(found)["safety valve"] == 0.0
    assert found.state.now.floor_bpm > 0
    assert found.shut_in_s is None
    half = wrong("tripping", does("slips"), does("stab valve"), shut)
    assert credits(half)["safety valve"] == 0.25


def test_the_diverter_closed_on_a_shut_line_breaks_the_shoe():
    found = wrong("diverter", closes("diverter"), wait=1200)
    assert {"overboard", "never shut"} <= missed(found)
    assert found.broke_s is not None
    slow = wrong("diverter", does("open overboard"), closes("diverter"), does("pump", value=30.0))
    assert missed(slow) == {"full rate"}


def test_a_leak_that_nobody_backs_up():
    found = wrong("failed annular", stop, shut)
    assert {"back-up", "in time", "stayed"} <= missed(found)


def test_the_string_dropped_before_the_annular_was_tried():
    found = wrong("unshearable", does("drop"), closes("blind rams"))
    assert {"tried", "safety valve"} <= missed(found)
    assert credits(found)["dropped"] == 1.0


def test_gas_above_the_stack_asks_for_the_diverter_with_its_line_open():
    found = wrong("gas above", stop, shut)
    assert credits(found)["diverter above"] == 0.0
    assert found.state.counted.gas_out > 0
    shut_line = wrong("gas above", stop, shut, closes("diverter"))
    assert credits(shut_line)["diverter above"] == 0.0


def test_a_disconnect_before_the_bore_is_sealed_and_one_too_late():
    early = wrong("drift-off", stop, closes("blind shear rams"))
    assert {"not early", "secured", "unlatched"} <= missed(early)
    late = play(DEEP, "drift-off", "s4")
    crews.drift_off(Crew(late))
    limit = late.made.starts_s + late.made.drift[2]
    left = next(e for e in late.events if e.action == "disconnect")
    for second, credit in ((int(limit), 1.0), (int(limit) + 1, 0.0)):
        late.events[late.events.index(left)] = left = left.model_copy(update={"at_s": second})
        assert credits(late)["unlatched"] == credit


def test_time_and_gain_are_judged_on_both_sides_of_policy():
    found = play(PLATFORM, "drilling", "s4", seed=7)
    crews.drilling(Crew(found))
    minutes = (found.shut_in_s - found.first_sign_s) / 60
    for policy, credit in (
        ({"most_minutes": minutes}, 1.0),
        ({"most_minutes": minutes / 1.01}, 0.5),
        ({"most_minutes": minutes / 1.51}, 0.0),
        ({"most_gain_bbl": found.influx_at_shut_in_bbl}, 1.0),
        ({"most_gain_bbl": found.influx_at_shut_in_bbl / 1.01}, 0.5),
    ):
        found.policy = found.policy.model_copy(update={"most_minutes": 60.0, "most_gain_bbl": 500.0, **policy})
        assert credits(found)["in time"] == credit, policy


@pytest.mark.parametrize(("off", "credit"), [(0.0, 1.0), (29.0, 1.0), (60.0, 0.5)])
def test_recorded_pressures_are_held_against_what_stood(off, credit):
    found = play(PLATFORM, "drilling", "s4", seed=7)
    crew = Crew(found)
    crew.sign()
    crew.stop()
    shut(crew)
    crew.until(lambda: found.settled)
    now = found.state.now
    crew.do("record", sidpp_psi=now.pipe_psi + off, sicp_psi=now.top_psi, gain_bbl=found.gain_bbl)
    assert credits(found)["recorded"] == credit
    early = play(PLATFORM, "drilling", "s4", seed=7)
    hasty = Crew(early)
    hasty.sign()
    hasty.stop()
    shut(hasty)
    hasty.do("record", sidpp_psi=now.pipe_psi, sicp_psi=now.top_psi, gain_bbl=found.gain_bbl)
    assert credits(early)["recorded"] == 0.25


def test_the_same_doings_give_the_same_drill_however_the_clock_was_asked():
    first = play(LAND, "tripping", "s3", seed=11)
    crew = Crew(first)
    crews.tripping(crew)
    doings = [DrillDoing(**{k: getattr(e, k) for k in DrillDoing.model_fields}) for e in first.events]
    again = replayed(first.made, first.policy, doings, first.clock_s)
    assert again.samples == first.samples
    assert panel(again) == panel(first)


def test_random_button_pressers_raise_nothing():
    """Any button at any time in any scene: refused with a reason, or done; numbers stay numbers."""
    rng = np.random.default_rng(5)
    kinds = list(PLACES)
    scenes = {
        (kind, seed): play(*place[:1], kind, place[1], seed=seed) for kind, place in PLACES.items() for seed in range(8)
    }
    for n in range(many(1000)):
        begun = scenes[kinds[n % len(kinds)], n // len(kinds) % 8]
        found = Play(begun.made, begun.policy)
        offered = [*can(found), "close", "open", "choke", "open choke line", "close choke line", "hold casing pressure"]
        offered += ["hold drill pipe pressure", "open overboard", "close overboard", "choke by hand", "report"]
        for _ in range(8):
            action = offered[rng.integers(len(offered))]
            if action == "end":
                continue
            value = {"pump": 120.0, "choke": 1.0, "line up mud": 20.0}.get(action)
            more = {"value": float(rng.uniform(0, value))} if value else {}
            target = int(rng.integers(9)) if action in ("close", "open") else None
            found.act(DrillDoing(at_s=found.clock_s, action=action, target=target, **more))
            found.advance(found.clock_s + int(rng.integers(1, 25)))
        shown = panel(found)
        assert np.isfinite([shown.pit_bbl, shown.flow_out_gpm, shown.hook_lbf, found.state.now.bottom_psi]).all()
        assert 0 <= score(outcomes(found)) <= 100
