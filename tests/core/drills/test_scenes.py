"""Which scenes a hole can be played in, how they are made, and what stands in the way of what a crew does."""

import json
from contextlib import suppress

import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.drills import DrillsPolicy
from knollstack.core.drills.acting import do
from knollstack.core.drills.events import DrillDoing
from knollstack.core.drills.gas import ATMOSPHERE_PSI, gas_of
from knollstack.core.drills.geometry import Way
from knollstack.core.drills.made import NotPlayableError
from knollstack.core.drills.making import EARLY_BBL, made
from knollstack.core.drills.procedures import procedures
from knollstack.core.drills.scene import TITLES, Scene
from knollstack.core.drills.scenes import drift_of, scene_rows
from knollstack.core.drills.state import State
from knollstack.core.drills.theory import Circulating, curve
from knollstack.demo import documents
from tests.core.drills import crews
from tests.core.drills.played import PLACES, missed
from tests.core.drills.wells import ANNULAR, BLIND, DEEP, LAND, PLATFORM, RAMS, demos, play, small
from tests.helpers import demo, put, run

ALL, AT_SEA = set(TITLES), {"gas above", "drift-off"}
UNDER_PREVENTERS = ALL - AT_SEA - {"diverter"}


def rows_of(equipped, results, hole):
    below = next(s for s in equipped.strings if s.id == hole)
    return {r.kind: r.why_not for r in scene_rows(equipped, results, below)}


def playable(rows):
    return {kind for kind, why in rows.items() if not why}


@pytest.mark.parametrize(
    ("well", "hole", "kinds"),
    [
        (LAND, "s2", {"diverter"}),
        (LAND, "s3", UNDER_PREVENTERS - {"leaking ram"}),
        (LAND, "s4", UNDER_PREVENTERS),
        (PLATFORM, "s2", {"diverter"}),
        (PLATFORM, "s4", UNDER_PREVENTERS),
        (DEEP, "s4", UNDER_PREVENTERS | AT_SEA),
        (DEEP, "s5", UNDER_PREVENTERS | AT_SEA),
    ],
)
def test_the_scenes_of_a_hole(well, hole, kinds):
    assert playable(rows_of(*demos()[well], hole)) == kinds


def other_stack(well, hole, kind, cells):
    """Rows of a hole whose stack does otherwise on one thing."""
    equipped, results = demos()[well]
    k = next(s.index for s in equipped.strings if s.id == hole) - 1
    preventers = results["preventers"]
    stack = preventers.strings[k]
    when = equipped.strings[k + 1].hole_words
    cover = tuple(
        r.model_copy(update={"cells": tuple(cells(i, c) for i, c in enumerate(r.cells))})
        if (r.when, r.kind) == (when, kind)
        else r
        for r in stack.coverage
    )
    strings = list(preventers.strings)
    strings[k] = stack.model_copy(update={"coverage": cover})
    changed = preventers.model_copy(update={"strings": tuple(strings)})
    return rows_of(equipped, {**results, "preventers": changed}, hole)


@pytest.mark.parametrize(
    ("kind", "cells", "lost"),
    [
        ("collars", lambda i, cell: "no seal", {"collars", "unshearable"}),
        ("nothing", lambda i, cell: "no seal", {"no pipe", "unshearable"}),
        ("nothing", lambda i, cell: "seals" if i == 4 else "no seal", {"no pipe", "unshearable"}),
        ("drill pipe", lambda i, cell: cell if i in (0, 4) else "no seal", {"leaking ram"}),
        ("drill pipe", lambda i, cell: cell if i == 4 else "no seal", {"leaking ram", "failed annular"}),
        ("drill pipe", lambda i, cell: "unknown" if i == 0 else cell, {"leaking ram"}),
    ],
)
def test_what_the_stack_does_not_close_on_cannot_be_rehearsed(kind, cells, lost):
    """The land well's lower stack: two rams and the annular (index 4) on drill pipe, blind shear rams on nothing."""
    assert playable(other_stack(LAND, "s4", kind, cells)) == UNDER_PREVENTERS - lost


@pytest.mark.parametrize(
    ("changes", "why"),
    [
        ({"strings__3__reading_300": None}, "slow pump pressure"),
        ({"ground__pore": "shallow"}, "pore or fracture"),
        ({"ground__fracture": "shallow"}, "pore or fracture"),
    ],
)
def test_what_is_unknown_is_named_and_no_scene_offered(changes, why):
    document = demo()
    document["drills"]["slow"] = []
    for path, value in changes.items():
        keys = path.split("__")
        known = [p for p in document["ground"][keys[1]] if p["tvd_ft"] < 12_000] if value == "shallow" else value
        put(document, keys, known)
    document["strings"][2]["pipe"] = {"weight_ppf": 53.5, "grade": "P110", "connection": "BTC"}
    document["strings"][1]["pipe"] = {"weight_ppf": 68.0, "grade": "N80", "connection": "BTC"}
    found = next(h for h in run(document).drills.holes if h.id == "s4")
    assert all(why in r.why_not for r in found.scenes)


def test_the_drift_is_that_of_the_fastest_weather_of_which_all_is_known():
    sea = demos()[DEEP][1]["sea"]
    rows = [r for r in sea.disconnect.drift if r.red_s is not None and r.yellow_s is not None]
    assert drift_of(sea).drift_ft_min == max(r.drift_ft_min for r in rows)
    quiet = json.loads(documents()[3])
    quiet["sea"]["weather"] = []
    found = next(h for h in run(quiet).drills.holes if h.id == "s4")
    assert {r.kind: r.why_not for r in found.scenes}["drift-off"] == "no weather with its drift is given"


@pytest.mark.parametrize(
    ("off_ft", "which", "ok"), [(0, "top", False), (1, "top", True), (0, "end", True), (1, "end", False)]
)
def test_a_scene_is_at_any_depth_of_its_hole_and_at_no_other(off_ft, which, ok):
    equipped, results = demos()[LAND]
    below = next(s for s in equipped.strings if s.id == "s4")
    md_ft = off_ft + (below.previous_shoe_md_ft if which == "top" else below.shoe_md_ft)
    scene = Scene(kind="drilling", hole="s4", md_ft=md_ft)
    if ok:
        assert made(equipped, results, scene).setup.hole_md_ft == md_ft
    else:
        with pytest.raises(NotPlayableError, match="not in this hole"):
            made(equipped, results, scene)


@pytest.mark.parametrize("difficulty", ["basic", "standard", "demanding"])
@pytest.mark.parametrize("kind", ["drilling", "no pipe", "tripping", "casing"])
@pytest.mark.parametrize("place", [(LAND, "s3"), (LAND, "s4"), (PLATFORM, "s3"), (DEEP, "s4")])
def test_a_kick_is_no_stronger_than_the_rock_stands(place, kind, difficulty):
    """Shut in early and circulated out it stays 100 psi under fracture at every rock that is watched, or is refused."""
    well, hole = place
    equipped, results = demos()[well]
    below = next(s for s in equipped.strings if s.id == hole)
    scene = Scene(kind=kind, hole=hole, md_ft=below.shoe_md_ft, difficulty=difficulty, seed=1)
    with suppress(NotPlayableError):
        s = made(equipped, results, scene).setup
        stands(s, made(equipped, results, scene.model_copy(update={"kind": "drilling"})).setup.string, difficulty)


def stands(s, string, difficulty):
    assert s.pore_psi > 0.0519 * s.mud_ppg * s.hole_tvd_ft, "the formation is over the mud"
    assert s.rock
    way = Way([*s.choke_line(), *s.annulus(s.hole_md_ft, string)], s.depths)
    gas = gas_of(s.gas_sg)
    amount = gas.amount(EARLY_BBL[difficulty], s.pore_psi + ATMOSPHERE_PSI, s.heat.at(s.hole_tvd_ft))
    held = Circulating(way, gas, s.heat, s.pore_psi, amount, s.mud_ppg, s.mud_ppg, 0.0)
    for rock in s.rock:
        greatest = max(m.shoe_psi for m in curve(held, way.volume_at(rock.md_ft), way.total_bbl))
        assert greatest <= rock.fracture_psi - 95


def test_a_liner_stands_across_the_stack_only_while_it_goes_through():
    equipped = demos()[PLATFORM][0]
    below = next(s for s in equipped.strings if s.id == "s4")
    assert below.run == "liner"
    for seed in range(6):
        found = play(PLATFORM, "casing", "s4", seed=seed).made
        length = below.shoe_md_ft - below.top_md_ft
        assert found.setup.stack_md_ft < found.setup.bit_md_ft < found.setup.stack_md_ft + length
        assert State(found.setup).across(found.setup.elements[-1]) in ("casing", "coupling")
    shut = play(PLATFORM, "casing", "s4", seed=7)
    crews.casing(crews.Crew(shut))
    assert missed(shut) == set()


SAFE = {"safety_valve": "closed", "made_up": False}


@pytest.mark.parametrize(
    ("state", "doing", "why"),
    [
        (SAFE | {"made_up": True}, {"action": "pump", "value": 30.0}, "safety valve in the string is closed"),
        ({"made_up": False}, {"action": "pump", "value": 30.0}, "top drive is not made up"),
        ({"cut": True}, {"action": "pump", "value": 30.0}, "parted"),
        ({}, {"action": "pump", "value": 100.6}, "from 0 to 100"),
        ({}, {"action": "pump", "value": 100.4}, ""),
        ({}, {"action": "stab valve"}, "top drive is made up"),
        (SAFE, {"action": "stab valve"}, "on the string already"),
        ({"made_up": False}, {"action": "stab valve"}, ""),
        ({}, {"action": "close valve"}, "no safety valve"),
        ({"made_up": False}, {"action": "strip in"}, "open on top"),
        (SAFE, {"action": "strip in"}, ""),
        ({"position": {0: 0.0, 1: 1.0, 2: 0.0}}, {"action": "strip in"}, "ram is closed"),
        ({"position": {0: 0.0, 1: 1.0, 2: 0.0}}, {"action": "pick up"}, "ram is closed"),
        ({"position": {0: 0.0, 1: 0.0, 2: 1.0}}, {"action": "hang off"}, "no ram is closed"),
        ({"position": {0: 0.0, 1: 1.0, 2: 0.0}}, {"action": "hang off"}, ""),
        ({"hung": 1}, {"action": "open", "target": 1}, "hangs on it"),
        ({"hung": 1}, {"action": "open", "target": 2}, ""),
        ({"hung": 1}, {"action": "lower"}, "hung off"),
        ({}, {"action": "open", "target": 9}, "no such element"),
        ({}, {"action": "disconnect"}, "no riser"),
        ({}, {"action": "hold casing pressure"}, "not closed"),
        ({}, {"action": "hold drill pipe pressure"}, "not closed"),
        ({}, {"action": "choke", "value": 1.1}, "from 0 to 1"),
        ({}, {"action": "line up mud", "value": 25.1}, "from 5 to 25"),
        ({}, {"action": "fill casing"}, "no casing"),
        ({}, {"action": "open overboard"}, "no diverter"),
        ({}, {"action": "record"}, "nothing was read"),
        ({"disconnected": True}, {"action": "pick up"}, "unlatched"),
        ({"bit_md_ft": None}, {"action": "slips"}, "no pipe"),
    ],
)
def test_what_cannot_be_done_is_refused_with_what_is_in_the_way(state, doing, why):
    found = State(small(elements=(BLIND, RAMS, ANNULAR)))
    for name, value in state.items():
        setattr(found, name, value)
    said = do(found, DrillDoing(at_s=0, **doing), 15.0)
    assert (why in said) if why else said == "", said


def test_the_riser_is_unlatched_only_with_the_string_cut():
    found = State(small(at_sea=True))
    assert "not cut" in do(found, DrillDoing(at_s=0, action="disconnect"), 15.0)
    found.cut = True
    assert do(found, DrillDoing(at_s=0, action="disconnect"), 15.0) == ""


def test_what_is_out_of_service_does_not_close():
    found = play(*PLACES["leaking ram"][:1], "leaking ram", PLACES["leaking ram"][1])
    (gone,) = found.made.out_of_service
    event = found.act(DrillDoing(at_s=5, action="close", target=gone))
    assert event.refused == "it is out of service"
    found.advance(60)
    assert found.state.position[gone] == 0.0


def posted(policy, at_sea):
    rows = procedures(DrillsPolicy(**policy), at_sea)
    return {p.title: [plain(step) for step in p.steps] for p in rows}


def test_the_posted_procedures_are_those_of_the_school_in_force():
    """What is posted is in the order that is scored."""
    hard, soft = posted({}, False), posted({"shut_in": "soft", "first": "pipe rams", "flow_check": False}, True)
    assert hard["While drilling"][2:5] == ["Flow check", "Close annular, choke closed", "Open the choke line valve"]
    assert soft["While drilling"][1:5] == [
        "Pumps off",
        "Open the choke line valve, choke open",
        "Close pipe rams",
        "Close the choke",
    ]
    assert "Close the hang-off ram and hang the string off" in soft["While drilling"]
    assert not any("hang" in step for step in hard["While drilling"])
    assert "Flow check" in hard["While tripping"]
    assert "Flow check" not in soft["While tripping"]
    assert soft["Collars across the stack"][2] == "Close annular", "the annular, whatever closes on drill pipe"
    assert hard["Casing across the stack"][0] == "Fill the casing"
    assert set(soft) - set(hard) == {"Gas above the stack", "Drift-off"}
