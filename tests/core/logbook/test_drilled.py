"""The well as drilled: each kind of entry at its place, both sides of every limit, and the same as with the facts typed in."""

import json

import pytest

from knollstack.core.base.findings import Change
from knollstack.core.base.units import plain
from knollstack.core.document.changes import changed
from knollstack.core.document.log import in_force
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.core.logbook.drilled import as_drilled
from knollstack.core.reading.read import parse
from tests.core.logbook.log import SPUD, SURFACE, drilled, entry, facts, logged, told_of
from tests.helpers import CATALOGUE, demo

TALLY = [{"length_ft": 39.0}, {"length_ft": 41.5}]
STORY = (
    SPUD,
    entry("depth", 9, md_ft=1500.0, mud_ppg=8.9),
    entry("survey", 9, md_ft=1400.0, inclination_deg=0.5, azimuth_deg=120.0),
    {**SURFACE, "step": "s2/land", "weight_ppf": 61.0, "grade": "K55", "connection": "BTC"},
    entry("tally", 10, string="s2", joints=[{"length_ft": 40.0}] * 50),
    entry(
        "cement", 11, string="s2", tail_bbl=380.0, displacement_bbl=290.0, top_md_ft=30.0, bumped=True, returns="full"
    ),
    entry("test", 12, string="s2", pressure_psi=1180.0, minutes=30.0, passed=True),
    entry("leak-off test", 13, string="s2", mud_ppg=9.0, leak_off_psi=420.0),
    entry("mud", 13, md_ft=2040.0, mud_ppg=9.2),
    entry("kick", 16, md_ft=4800.0, mud_ppg=9.2, drill_pipe_psi=60.0, volume_bbl=6.0),
    entry("losses", 17, md_ft=4500.0, emw_ppg=11.2, volume_bbl=40.0),
    entry("depth", 18, md_ft=5000.0, mud_ppg=9.5),
)


def test_the_well_as_drilled_is_the_plan_with_the_facts_typed_in():
    """All of the evaluation but what tells of the log itself."""
    design = parse(logged(*STORY))
    made = as_drilled(design)
    assert not made.unfit
    typed = changed(parse(demo()), tuple(Change(path=f.path, value=f.value) for f in made.facts))
    assert typed == made.design
    of_log, by_hand = (evaluate(d, CATALOGUE).model_dump(mode="json") for d in (design, typed))
    for told in (of_log, by_hand):
        told.pop("logbook")
        told["path"] = [p for p in told["path"] if p["step"] != "logbook"]
        told["findings"] = [{**f, "fact": False} for f in told["findings"] if f["step"] != "logbook"]
        told["assumptions"] = [a for a in told["assumptions"] if a["step"] != "logbook"]
    assert json.dumps(of_log) == json.dumps(by_hand)
    assert evaluate(parse(demo()), CATALOGUE).model_dump(mode="json")["findings"] != of_log["findings"]


def test_without_a_log_the_plan_is_worked_as_it_is():
    design = parse(demo())
    made = as_drilled(design)
    assert made.plan is made.design is design
    assert evaluate(design, CATALOGUE).logbook.entries == 0
    states = {p.step: p.state for p in evaluate(design, CATALOGUE).path}
    assert states["logbook"] == "blank", "nothing that is not logged is good"


@pytest.mark.parametrize(
    ("rows", "path", "value"),
    [
        ([SPUD], "/runsheet/spud", "2027-03-08"),
        ([SURFACE], "/strings/1/shoe_md_ft", 1985.0),
        ([{**SURFACE, "od_in": 14.0, "bit_in": 18.5}], "/strings/1/od_in", 14.0),
        ([{**SURFACE, "od_in": 14.0, "bit_in": 18.5}], "/strings/1/bit_in", 18.5),
        ([entry("tally", 9, string="s3", joints=TALLY)], "/strings/2/running/joints", 2),
        ([entry("cement", 9, string="s3", top_md_ft=1900.0)], "/strings/2/cement/top_md_ft", 1900.0),
        ([SURFACE, entry("test", 12, string="s2", pressure_psi=900.0, passed=True)], "/strings/1/test_psi", 900.0),
        ([SURFACE, entry("test", 12, string="s2", pressure_psi=900.0, passed=False)], "/strings/1/test_psi", None),
        ([entry("test", 12, string="s2", pressure_psi=900.0, passed=True)], "/strings/1/test_psi", None),
        ([entry("test", 12, pressure_psi=900.0, passed=False, element="casing s2")], "/completion/verified", 2),
        ([entry("signed", 9, step="s2/bha")], "/runsheet/edits", 3),
        ([entry("signed", 9, step="s4/leak-off")], "/runsheet/edits", 2),
        ([entry("depth", 30, md_ft=12_600.0)], "/trajectory/stations", None),
        ([entry("depth", 30, md_ft=12_601.0)], "/trajectory/stations", 3),
        ([entry("losses", 17, md_ft=3500.0, emw_ppg=12.0)], "/ground/fracture", 1),
        ([entry("losses", 17, md_ft=3500.0, emw_ppg=15.0)], "/ground/fracture", None),
        ([entry("losses", 17, md_ft=3500.0)], "/ground/fracture", None),
        ([entry("kick", 17, md_ft=9000.0, mud_ppg=10.0)], "/ground/pore", None),
    ],
)
def test_each_entry_overrules_its_place_and_no_other(rows, path, value):
    found = facts(drilled(*rows))
    held = found.get(path)
    if path == "/ground/fracture" and value is not None:
        assert [p["emw_ppg"] for p in held if "log entry" in p["source"]] == [12.0]
    else:
        assert (len(held) if isinstance(held, list) else held) == value


def test_a_shut_in_kick_gives_the_pore_pressure():
    points = facts(drilled(entry("kick", 20, md_ft=8000.0, mud_ppg=9.5, drill_pipe_psi=200.0)))["/ground/pore"]
    (point,) = (p for p in points if "log entry 1" in p["source"])
    assert point["emw_ppg"] == pytest.approx(9.5 + 200 / (12 / 231 * 8000))


def steps_of(*rows, string=2):
    found = facts(drilled(*rows))
    steps = found.get(f"/strings/{string}/mud_steps")
    return None if steps is None else [(s["to_md_ft"], s["mud_ppg"]) for s in steps], found.get(
        f"/strings/{string}/mud_ppg"
    )


def test_muds_hold_from_where_they_were_logged_down_to_today():
    """13 3/8 in at 1,985 ft; the plan's 9.2 ppg holds below today's depth."""
    mud = [entry("mud", 12, md_ft=2100.0, mud_ppg=9.0), entry("mud", 14, md_ft=4000.0, mud_ppg=9.4)]
    assert steps_of(SURFACE, *mud, entry("depth", 15, md_ft=5000.0)) == ([(4000.0, 9.0), (5000.0, 9.4)], None)
    lighter = entry("mud", 15, md_ft=4000.0, mud_ppg=9.3)
    assert steps_of(SURFACE, *mud, lighter, entry("depth", 16, md_ft=5000.0))[0] == [(4000.0, 9.0), (5000.0, 9.3)]
    same = entry("mud", 15, md_ft=4500.0, mud_ppg=9.4)
    assert steps_of(SURFACE, *mud, same, entry("depth", 16, md_ft=5000.0))[0] == [(4000.0, 9.0), (5000.0, 9.4)]


@pytest.mark.parametrize(("deepest", "whole"), [(6999.0, False), (7000.0, True), (7100.0, True)])
def test_a_hole_that_is_down_has_the_last_mud_for_the_whole_of_its_end(deepest, whole):
    """To the planned shoe, 7,000 ft, or beyond it, nothing of the plan is left."""
    rows = [SURFACE, entry("mud", 12, md_ft=2100.0, mud_ppg=9.0), entry("mud", 20, md_ft=6500.0, mud_ppg=9.6)]
    steps, last = steps_of(*rows, entry("depth", 22, md_ft=deepest))
    assert last == (9.6 if whole else None)
    assert steps == ([(6500.0, 9.0)] if whole else [(6500.0, 9.0), (deepest, 9.6)])


def test_mud_logged_before_the_shoe_landed_is_of_the_hole_above():
    """At 2,030 ft, in the pocket under the shoe at 1,985 ft."""
    early = entry("mud", 9, md_ft=2030.0, mud_ppg=8.8)
    assert facts(drilled(SURFACE, early))["/strings/1/mud_ppg"] == 8.8
    assert "/strings/2/mud_steps" not in facts(drilled(SURFACE, early))
    late = {**early, "at": "2027-03-11 06:00"}
    assert steps_of(SURFACE, late)[0] == [(2030.0, 8.8)]


def test_what_the_plan_has_below_a_shoe_goes_and_what_it_has_above_stays():
    document = demo()
    document["strings"][2] |= {"mud_steps": [{"to_md_ft": d, "mud_ppg": 9.0} for d in (3000.0, 6400.0)]}
    document["strings"][2]["cement"] |= {"top_md_ft": 6350.0}
    short = entry("shoe landed", 20, string="s3", md_ft=6300.0)
    made = drilled(short, document=document)
    assert not made.unfit
    assert [s.to_md_ft for s in made.design.strings[2].mud_steps] == [3000.0]
    assert made.design.strings[2].cement.top_md_ft is None
    deep = drilled({**short, "md_ft": 6500.0}, document=document)
    assert deep.design.strings[2].cement.top_md_ft == 6350.0
    assert len(deep.design.strings[2].mud_steps) == 2


@pytest.mark.parametrize(("md_ft", "fits"), [(12_599.0, True), (12_600.0, False), (12_900.0, False)])
def test_a_shoe_below_the_next_planned_one_is_not_in_force_and_a_stop(md_ft, fits):
    rows = [entry("shoe landed", 25, string="s3", md_ft=md_ft)]
    made = drilled(*rows)
    assert bool(made.unfit) != fits
    evaluation = evaluate(parse(logged(*rows)), CATALOGUE)
    told = [f for f in told_of(evaluation, "stop") if "not in force" in plain(f.message)]
    assert bool(told) != fits
    assert (evaluation.strings[2].shoe_md_ft == md_ft) == fits


def test_two_shoes_that_only_fit_together_are_both_in_force():
    """The third string deeper than the fourth was planned, and the fourth deeper still."""
    document = demo()
    document["strings"][3]["shoe_md_ft"] = 9000.0
    rows = [entry("shoe landed", 20, string="s3", md_ft=9500.0), entry("shoe landed", 28, string="s4", md_ft=12_000.0)]
    made = drilled(*rows, document=document)
    assert not made.unfit
    assert [s.shoe_md_ft for s in made.design.strings[2:]] == [9500.0, 12_000.0]


def test_a_correction_stands_for_what_it_corrects_and_a_withdrawal_for_nothing():
    rows = [SURFACE, {**SURFACE, "md_ft": 1990.0, "corrects": 1}, entry("withdrawn", 12, corrects=2), SPUD]
    log = parse(logged(*rows)).log
    assert [e.number for e in in_force(log)] == [4]
    assert [e.number for e in in_force(log[:2])] == [2]
    assert facts(drilled(*rows[:2]))["/strings/1/shoe_md_ft"] == 1990.0
    assert "/strings/1/shoe_md_ft" not in facts(drilled(*rows))


def test_an_entry_about_a_string_that_the_plan_does_not_have_is_told():
    rows = [{**SURFACE, "string": "s9"}]
    assert facts(drilled(*rows)) == {}
    told = told_of(evaluate(parse(logged(*rows)), CATALOGUE), "caution")
    assert [f.place for f in told] == ["/log/1"]


def test_logged_volumes_take_the_place_of_the_planned_ones_and_make_the_fluids_where_none_is_planned():
    pumped = entry("cement", 11, string="s2", tail_bbl=380.0, tail_ppg=15.6, displacement_bbl=290.0, spacer_bbl=40.0)
    rows = facts(drilled(pumped))["/strings/1/cement/fluids"]
    assert [(r["kind"], r["volume_bbl"], r["density_ppg"]) for r in rows] == [
        ("flush", 90.0, 8.7), ("tail", 380.0, 15.6), ("displacement", 290.0, None)
    ]  # fmt: skip
    bare = facts(drilled({**pumped, "string": "s3"}))["/strings/2/cement/fluids"]
    assert [(r["kind"], r["volume_bbl"]) for r in bare] == [("spacer", 40.0), ("tail", 380.0), ("displacement", 290.0)]


def test_what_the_plan_has_below_today_stays_and_a_string_not_landed_is_drilled_still():
    document = demo()
    document["strings"][2] |= {"mud_steps": [{"to_md_ft": d, "mud_ppg": 9.0} for d in (3000.0, 6400.0)]}
    rows = [SURFACE, entry("mud", 12, md_ft=2100.0, mud_ppg=9.4), entry("depth", 15, md_ft=5000.0)]
    made = drilled(*rows, document=document)
    assert [(s.to_md_ft, s.mud_ppg) for s in made.design.strings[2].mud_steps] == [(5000.0, 9.4), (6400.0, 9.0)]
    assert drilled(entry("depth", 9, md_ft=2100.0)).told.drilling == 1, (
        "the conductor is driven; 13 3/8 in is not landed"
    )
    assert drilled(entry("depth", 9, md_ft=100.0)).told.drilling == 0


@pytest.mark.parametrize(("passed", "result"), [(True, "holds"), (False, "leaks")])
def test_a_barrier_element_that_was_tested_holds_or_leaks(passed, result):
    rows = facts(drilled(entry("test", 12, pressure_psi=900.0, passed=passed, element="casing s2")))[
        "/completion/verified"
    ]
    assert [r["result"] for r in rows if r["element"] == "casing s2"] == [result]
