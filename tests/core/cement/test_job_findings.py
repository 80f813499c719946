"""What is said of a job: each limit on both sides, what is not known, and remedies that were tried."""

import copy
import json

import pytest

from knollstack.core.base.units import plain
from knollstack.core.cement.job import Missing, job_of
from knollstack.core.cement.waiting import hours_to
from knollstack.core.document.cementing import StrengthPoint
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.core.evaluation.test_judging import strings
from tests.helpers import CATALOGUE, applied, find, points, put, run

C = 12 / 231


def known(**parts):
    """Four strings whose muds and slurries are measured; the 9 5/8 in stands in rock that breaks at 16 ppg."""
    document = strings()
    for i in (1, 2, 3):
        document["strings"][i].update(reading_300=26.0, reading_600=40.0)
        document["strings"][i]["cement"] = copy.deepcopy(document["strings"][i].get("cement") or {})
        document["strings"][i]["cement"].update(thickening_minutes=900.0, lead_thickening_minutes=900.0)
    for path, value in parts.items():
        put(document, path.split("__"), value)
    return document


def said(document, severity, words):
    return [f for f in find(run(document), "cement", severity) if words in plain(f.message)]


def stage(document, index=2, number=0):
    return run(document).cement.strings[index].stages[number]


def test_a_known_job_is_good_and_its_headlines_are_those_of_its_moments():
    document = known()
    assert find(run(document), "cement") == []
    found, program = stage(document), program_of(parse(document), CATALOGUE)
    string = program.strings[2]
    (followed,) = job_of(program.well, string, tuple(program.cased_bores(string)))
    course = followed.worked.course
    assert found.final_pump_psi == pytest.approx(course.pump_psi[-1], abs=2.0)
    assert found.greatest_pump_psi == pytest.approx(course.pump_psi.max(), abs=2.0)
    near = followed.fracture
    assert found.greatest_emw_ppg == pytest.approx(near.value / (C * near.md_ft), abs=2.0 / (C * near.md_ft))
    at_rest = run(document).cement.strings[2].float_differential_psi
    assert found.final_pump_psi > at_rest, "friction comes on top of the static differential"


@pytest.mark.parametrize(("spare", "broken"), [(0.01, False), (-0.01, True)])
def test_the_rock_breaks_just_where_the_moving_annulus_is_over_it(spare, broken):
    """At rates that are decided; the rock all along stands what was reached, a hair more or less."""
    document = known(strings__2__cement__steps=[{"rate_bpm": 6.0}])
    reached = stage(document).greatest_emw_ppg
    document["ground"]["fracture"] = points((30, reached + spare), (10_000, reached + spare))
    found = said(document, "stop", "the rock breaks at")
    assert bool(found) == broken
    if broken:
        slower = [r for r in found[0].remedies if "of these rates" in plain(r.label)]
        assert slower, "at a share of them the rock stands"
        assert said(applied(document, slower[0].changes), "stop", "the rock breaks at") == []


def test_rates_that_nobody_decided_are_as_fast_as_the_rock_lets_them_be():
    document = known(strings__2__cement__bentonite_percent=0.0)
    whole = stage(document)
    document["ground"]["fracture"] = points(
        (30, whole.greatest_emw_ppg - 0.01), (10_000, whole.greatest_emw_ppg - 0.01)
    )
    found = stage(document)
    assert found.rate_share < 1
    assert found.greatest_emw_ppg <= found.fracture_ppg + 1e-6
    assert any("of policy's rates" in plain(a.text) for a in run(document).assumptions)


@pytest.mark.parametrize(("limit", "broken"), [(1.001, False), (0.999, True)])
def test_the_pump_is_held_to_its_limit(limit, broken):
    document = known(strings__2__cement__steps=[{"rate_bpm": 6.0}])
    document["policy"]["cement"] = {"pump_limit_psi": stage(document).greatest_pump_psi * limit}
    assert bool([f for f in said(document, "stop", "the pump gives") if "strings/2" in f.place]) == broken


def test_a_light_flush_lets_the_pore_pressure_in_and_a_heavier_one_mends_it():
    light = {
        "id": "f1",
        "kind": "flush",
        "density_ppg": 3.0,
        "volume_bbl": 150.0,
        "reading_300": 2.0,
        "reading_600": 4.0,
    }
    rows = [light, {"id": "f2", "kind": "tail"}, {"id": "f3", "kind": "displacement"}]
    document = known(strings__2__cement__fluids=rows)
    (found,) = said(document, "stop", "pore pressure is 9.00 ppg")
    assert "After" in plain(found.message)
    mended = applied(document, found.remedies[0].changes)
    assert said(mended, "stop", "pore pressure") == []
    heavier = mended["strings"][2]["cement"]["fluids"][0]["density_ppg"]
    for density, broken in ((heavier, False), (heavier - 0.5, True)):
        mended["strings"][2]["cement"]["fluids"][0]["density_ppg"] = density
        assert bool(said(mended, "stop", "pore pressure")) == broken


@pytest.mark.parametrize(
    ("minutes", "severity", "words"),
    [
        (None, "unknown", "Thickening time is not given"),
        (-1.0, "stop", "thickens after"),
        (1.0, "caution", "with the margin of policy"),
        (59.0, "caution", "with the margin of policy"),
        (61.0, None, ""),
    ],
)
def test_a_slurry_stays_thin_as_long_as_the_job_and_the_margin(minutes, severity, words):
    job = stage(known()).thickening[0].job_minutes
    document = known(strings__2__cement__thickening_minutes=None if minutes is None else job + minutes)
    found = [f for f in find(run(document), "cement") if "thicken" in plain(f.message).lower()]
    assert [f.severity for f in found] == ([] if severity is None else [severity])
    assert all(words in plain(f.message) for f in found)


def test_the_job_of_a_slurry_begins_when_it_is_mixed():
    """Spacer 96 bbl at 5 bbl/min are pumped before the tail; the rest of the job is the tail's."""
    found = stage(known())
    assert found.minutes - found.thickening[0].job_minutes == pytest.approx(96 / 5, abs=0.01)


STRENGTH = (StrengthPoint(after_hours=6.0, strength_psi=50.0), StrengthPoint(after_hours=10.0, strength_psi=850.0))


@pytest.mark.parametrize(
    ("strength", "hours"), [(25.0, 3.0), (50.0, 6.0), (500.0, 8.25), (850.0, 10.0), (851.0, None), (0.0, 0.0)]
)
def test_strength_is_straight_between_two_points(strength, hours):
    assert hours_to(STRENGTH, strength) == (hours if hours is None else pytest.approx(hours))


def test_a_strength_that_is_never_reached_is_unknown_and_without_a_table_policy_waits():
    rows = [{"after_hours": 6.0, "strength_psi": 50.0}, {"after_hours": 24.0, "strength_psi": 499.0}]
    document = known(strings__2__cement__strength=rows)
    assert len(said(document, "unknown", "is not reached in the laboratory's table")) == 2
    rows[1]["strength_psi"] = 500.0
    waits = run(known(strings__2__cement__strength=rows)).cement.strings[2].waits
    assert [(w.hours, w.measured) for w in waits] == [(6.0, True), (24.0, True), (24.0, True)]
    assert {w.hours for w in run(known()).cement.strings[2].waits} == {24.0}


@pytest.mark.parametrize(
    ("rows", "path"), [([(6.0, 50.0), (6.0, 90.0)], "1/after_hours"), ([(6.0, 50.0), (8.0, 49.0)], "1/strength_psi")]
)
def test_a_table_of_strength_rises_with_time(rows, path):
    table = [{"after_hours": h, "strength_psi": s} for h, s in rows]
    with pytest.raises(Exception, match="strength") as raised:
        parse(known(strings__2__cement__strength=table))
    assert [f.path for f in raised.value.faults] == [f"/strings/2/cement/strength/{path}"]


@pytest.mark.parametrize(
    ("volume", "words"), [(100.0, "reach up to"), (305.0, None), (2000.0, "come back with the returns")]
)
def test_a_volume_of_ones_own_is_held_to_the_planned_top(volume, words):
    """305.6 bbl of tail fill it: 19.38 and 278.91 bbl of annulus, 5.86 of shoe track and 1.46 of rathole."""
    rows = [{"id": "f1", "kind": "tail", "volume_bbl": volume}, {"id": "f2", "kind": "displacement"}]
    found = [
        f
        for f in find(run(known(strings__2__cement__fluids=rows)), "cement", "caution")
        if "pass" not in plain(f.message)
    ]
    if words is None:
        assert [f for f in found if "5 ft" not in plain(f.message)] == found
    assert any(words in plain(f.message) for f in found) if words else True


@pytest.mark.parametrize(
    ("displacement", "words"),
    [(400.0, "before the plug bumps"), (433.386, None), (450.0, "before the displacement is pumped")],
)
def test_displacement_is_held_to_the_seat_of_the_plug(displacement, words):
    """8.681 in to 5,920 ft: 433.39 bbl."""
    rows = [{"id": "f1", "kind": "tail"}, {"id": "f2", "kind": "displacement", "volume_bbl": displacement}]
    found = run(known(strings__2__cement__fluids=rows))
    cautions = [plain(f.message) for f in find(found, "cement", "caution") if "displacement" in plain(f.message)]
    assert len(cautions) == (words is not None)
    assert all(words in c for c in cautions)


def test_a_light_string_in_heavy_cement_floats():
    """13 3/8 in 48 lb/ft from 2,000 ft, 15.8 ppg outside, light fluid inside: π/4·13.375²·0.05195·15.8 is over 100 lb/ft."""
    pipe = {"weight_ppf": 48.0, "grade": "H40", "connection": "STC"}
    document = known(strings__1__pipe=pipe, strings__1__cement__bentonite_percent=0.0)
    document["strings"][1]["cement"]["displacement_ppg"] = 8.4
    document["ground"]["fracture"] = points((30, 25), (10_000, 25))
    found = said(document, "stop", "The string floats")
    weight = stage(document, 1).hanging_lbf
    assert bool(found) == (weight < 0)
    inside, outside = 12.715, 13.375
    tops = C * 3.14159265 / 4 * ((8.4 * 1920 + 15.823 * 80) * inside**2 - (9.5 * 30 + 15.823 * 1970) * outside**2)
    assert weight == pytest.approx(2000 * 48 + tops, rel=0.03)
    assert found


def test_what_is_wanting_leaves_the_job_unknown():
    for change, words in (
        ({"strings__2__reading_300": None}, "rheometer readings of the mud"),
        ({"strings__2__cement__fluids": [{"id": "f1", "kind": "lead"}]}, "the density of the lead"),
        (
            {"strings__2__cement__fluids": [{"id": "f1", "kind": "tail", "reading_300": 40.0, "reading_600": 90.0}]},
            "that fit a fluid",
        ),
    ):
        document = known(**change)
        found = said(document, "unknown", words)
        assert len(found) == 1, words
        program = program_of(parse(document), CATALOGUE)
        string = program.strings[2]
        assert isinstance(job_of(program.well, string, tuple(program.cased_bores(string))), Missing)
        assert {s.step: s.state for s in run(document).path}["cement"] == "incomplete"


def test_no_slurry_is_no_job():
    rows = [{"id": "f1", "kind": "spacer", "density_ppg": 10.0}, {"id": "f2", "kind": "displacement"}]
    assert said(known(strings__2__cement__fluids=rows), "stop", "No slurry is pumped")


def test_two_stages_by_hand():
    """Stage collar at 4,000 ft: 2,000 ft and a quarter more under it, track and rathole, then 2,000 and 300 ft over it.

    First stage: 0.0557811·2,000·1.25 + 5.856 + 1.458 = 146.77 bbl of slurry, displaced by 433.39 bbl. Second: 139.45 in the
    open hole and 19.38 in casing, 158.83 bbl, displaced by 0.0732061·4,000 = 292.82 bbl. In the first the mud over the collar
    and its spacer, in the second the shoe is behind set cement: the rock is judged down to the collar alone.
    """
    document = known(strings__2__cement__stage_collar_md_ft=4000.0)
    first, second = (stage(document, 2, k) for k in (0, 1))
    tails = [next(f.volume_bbl for f in s.fluids if f.kind == "tail") for s in (first, second)]
    moved = [next(f.volume_bbl for f in s.fluids if f.kind == "displacement") for s in (first, second)]
    assert tails == pytest.approx([146.77, 158.83], abs=0.02)
    assert moved == pytest.approx([433.39, 292.82], abs=0.02)
    assert second.greatest_md_ft <= 4000.0
    assert second.fluids[0].volume_bbl == pytest.approx(96.0)


def test_the_gas_flow_potential_by_hand():
    """Gas at 5,000 to 5,400 ft, pore 9 ppg: least overbalance at its top, 3,300 ft of cement over it from 1,700 ft.

    Overbalance 0.0519481·(9.5·1,700 + 15.823·3,300 − 9·5,000) = 1,212.7 psi; 1.67·3,300/(12.25 − 9.625)/1,212.7 = 1.73.
    """
    zone = {"id": "g", "name": "Gas", "top_tvd_ft": 5000.0, "base_tvd_ft": 5400.0, "fluid": "gas", "permeable": True}
    row = run(known(ground__zones=[zone])).cement.strings[2]
    (flow,) = row.gas
    over = C * (9.5 * 1700 + row.slurry_ppg * 3300 - 9 * 5000)
    assert flow.overbalance_psi == pytest.approx(over, rel=1e-6)
    assert flow.potential == pytest.approx(1.67 * 3300 / 2.625 / over, rel=1e-6)
    assert flow.grade == "minor"


def test_rules_of_placement_by_hand():
    """Spacer of 10.45 ppg is 10 % over 9.5 ppg mud; 15.823 is 51.4 % over it; 96 bbl at 8 bbl/min pass in 12 min at least."""
    rules = stage(known()).rules
    density = {plain(r.subject): (plain(r.found), r.state) for r in rules if r.title == "Density"}
    assert density == {"spacer over mud": ("10.0 % heavier", "kept"), "tail over spacer": ("51.4 % heavier", "kept")}
    (contact,) = [r for r in rules if r.title == "Contact time"]
    assert contact.found[0].value >= 10.0
    document = known()
    document["policy"]["cement"] = {"heavier_percent": 10.0, "contact_minutes": contact.found[0].value + 0.2}
    assert [r.state for r in stage(document).rules if r.title == "Contact time"] == ["short"]
    assert said(document, "caution", "Flushes and spacers pass")
    document["policy"]["cement"]["contact_minutes"] = contact.found[0].value - 0.2
    assert not said(document, "caution", "Flushes and spacers pass")


def test_the_blend_sheet_by_hand():
    """305.595 bbl of neat slurry with 0.3 % of retarder at 1.3 SG and 0.05 gal/sk of a liquid at 1.2 SG.

    A sack: 94 lb and 3.587 gal of cement, 4.97 gal of water, 0.282 lb and 0.02599 gal, 0.5007 lb and 0.05 gal:
    136.1827 lb in 8.63304 gal, 15.775 ppg, 1.15407 ft³; 305.595·5.614583/1.15407 = 1,486.7 sacks, 175.9 bbl of water.
    """
    rows = [{"name": "retarder", "amount": 0.3}, {"name": "liquid", "amount": 0.05, "per": "gal/sk", "sg": 1.2}]
    row = run(known(strings__2__cement__additives=rows)).cement.strings[2]
    assert row.slurry_ppg == pytest.approx(136.1827 / 8.63304, rel=1e-4)
    (blend,) = row.blends
    assert blend.sacks == pytest.approx(1486.7, abs=0.1)
    assert blend.water_bbl == pytest.approx(175.93, abs=0.02)
    held = {item.name: (item.unit, round(item.per_sack, 4), item.per_tank) for item in blend.items}
    assert held["cement"] == ("lb", 94.0, None)
    assert held["retarder"] == ("lb", 0.282, None)
    assert held["liquid"][:2] == ("gal", 0.05)
    assert held["liquid"][2] == pytest.approx(0.05 * 420 / 4.97, rel=1e-9)
    assert held["fresh water"][2] == pytest.approx(420.0)
    salty = run(known(strings__2__cement__water="sea water")).cement.strings[2]
    assert salty.slurry_ppg == pytest.approx((94 + 8.55 * 4.97) / (94 / 8.3454 / 3.14 + 4.97), rel=1e-6)
    assert salty.blends[0].items[-1].name == "sea water"


def test_an_additive_of_the_lead_changes_the_lead_alone():
    rows = [{"slurry": "lead", "name": "spheres", "amount": 15.0, "sg": 0.4}]
    lead = {"tail_top_md_ft": 5500.0, "lead_bentonite_percent": 4.0, "bentonite_percent": 0.0}
    before = run(known(strings__2__cement=lead)).cement.strings[2]
    after = run(known(strings__2__cement=lead | {"additives": rows})).cement.strings[2]
    assert after.slurry_ppg == before.slurry_ppg
    assert after.lead_ppg < before.lead_ppg - 1


def test_displacement_is_measured_larger_at_surface_and_returns_are_what_is_pumped():
    """433.39 bbl at 3·10⁻⁶/psi and the mean of head and shoe: pump pressure and that with 9.5 ppg to 6,000 ft, less friction."""
    found = stage(known())
    document = known()
    document["policy"]["cement"] = {"compressibility_1_psi": 0.0}
    plain_bbl = stage(document).displacement_bbl
    assert plain_bbl == pytest.approx(433.39, abs=0.01)
    mean = (found.displacement_bbl / plain_bbl - 1) / 3e-6
    assert found.final_pump_psi < mean < found.final_pump_psi + C * 15.823 * 6000 / 2
    assert found.returns_bbl == pytest.approx(found.pumped_bbl, abs=1e-6)
    assert found.cement_back_bbl == 0
    rows = [{"id": "f1", "kind": "tail", "volume_bbl": 700.0}, {"id": "f2", "kind": "displacement"}]
    back = stage(known(strings__2__cement__fluids=rows))
    assert back.cement_back_bbl > 0
    assert back.cement_back_bbl < back.returns_bbl


def test_an_inner_string_by_hand():
    """13 3/8 in to 2,000 ft through 5 in drill pipe of 4.276 in bore: displaced by 4.276²/1,029.42·2,000 = 35.5 bbl.

    No more track is left than the shoe is long; the casing stands full of mud, so that the greatest collapse
    is by the column outside against 9.5 ppg, whatever the pump does.
    """
    plugs = stage(known(), 1)
    document = known(strings__1__running__shoe="stab-in float shoe")
    found = stage(document, 1)
    row = run(document).cement.strings[1]
    assert (plugs.inner, found.inner) == (False, True)
    assert found.fluids[-1].volume_bbl == pytest.approx(4.276**2 / 1029.42 * 2000, rel=2e-3)
    assert row.displacement_bbl == pytest.approx(found.fluids[-1].volume_bbl, rel=1e-9)
    assert row.shoe_track_bbl < 0.5, "the shoe's own length"
    slurry = sum(f.volume_bbl for f in found.fluids if f.kind in ("lead", "tail"))
    assert slurry == pytest.approx(row.slurry_bbl, rel=1e-6)
    assert found.bottom_plug_bbl is None
    assert found.minutes < plugs.minutes
    assert not [f for f in find(run(document), "cement") if "stab-in" in plain(f.message)]
    decided = known(strings__1__cement__form="inner string")
    (said_,) = [f for f in find(run(decided), "cement") if "stab-in" in plain(f.message)]
    mended = run(applied(decided, said_.remedies[0].changes))
    assert not [f for f in find(mended, "cement") if "stab-in" in plain(f.message)]
    assert (
        stage(known(strings__1__running__shoe="stab-in float shoe", strings__1__cement__form="two plugs"), 1).inner
        is False
    )


def test_a_string_that_hangs_deep_under_its_landing_string_floats_no_sooner():
    """The demo well at sea: 6 5/8 in from the sea floor at 4,435 ft; what stands over its top lifts it on no side."""
    row = run(json.loads(documents()[3])).cement.strings[4]
    section = run(json.loads(documents()[3])).pipe.strings[4].sections[0]
    air = section.weight_ppf * (16_200 - 4435)
    assert 0.6 * air < row.stages[0].hanging_lbf < 0.95 * air
