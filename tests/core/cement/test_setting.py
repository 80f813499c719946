"""What goes into the slurries, how long they stay thin, when they are set, gas meanwhile, and the rules of placing them."""

import pytest

from knollstack.core.base.units import plain
from knollstack.core.cement.waiting import hours_to
from knollstack.core.document.cementing import StrengthPoint
from knollstack.core.reading.read import parse
from tests.core.cement.test_job_findings import C, known, said, stage
from tests.helpers import find, run


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


def test_a_top_up_job_by_hand():
    """13 3/8 in in 17 1/2 in hole, from 800 ft to the ground at 30 ft: 110 ft lie in the 20 in conductor, 690 in open hole.

    0.123723 bbl/ft of open hole with 25 %, and of the conductor's bore; sacks and water by the slurry around the shoe.
    """
    document = known(strings__1__cement__top_up_md_ft=800.0, strings__1__cement__excess=0.25)
    row = run(document).cement.strings[1]
    strings = run(document).strings
    conductor = run(document).pipe.strings[0].sections
    bore = conductor[0].id_in if conductor else None
    shoe = strings[0].shoe_md_ft
    inside = (bore**2 - 13.375**2) / 1029.42 * (shoe - 30) if bore else 0.0
    volume = inside + (17.5**2 - 13.375**2) / 1029.42 * (800 - shoe) * 1.25
    assert row.top_up.volume_bbl == pytest.approx(volume, rel=1e-5)
    assert row.top_up.sacks == pytest.approx(volume * 5.614583 / row.yield_ft3_sk, rel=1e-5)
    assert row.top_up.water_bbl == pytest.approx(row.top_up.sacks * row.water_gal_sk / 42, rel=1e-9)


@pytest.mark.parametrize(
    ("index", "depth", "words"),
    [
        (1, 10.0, "cannot have fallen back"),
        (1, 2000.0, "cannot have fallen back"),
        (1, 60.0, None),
        (2, 1990.0, None),
        (2, 2010.0, "no bond into it"),
    ],
)
def test_cement_that_has_fallen_back_is_held_to_ground_shoe_and_the_shoe_above(index, depth, words):
    found = find(run(known(**{f"strings__{index}__cement__top_up_md_ft": depth})), "cement", "caution")
    told = [plain(f.message) for f in found if "top-up" in plain(f.subject)]
    assert len(told) == (words is not None)
    assert all(words in t for t in told)


@pytest.mark.parametrize(("measured", "short"), [(2.0, False), (2.1, True)])
def test_free_fluid_is_held_to_what_is_asked_on_both_sides(measured, short):
    document = known(strings__2__cement__free_fluid_percent=measured)
    found = said(document, "caution", "Free fluid is")
    assert bool(found) == short
    assert [f.place for f in found] == ["/strings/2/cement/free_fluid_percent"] * short


@pytest.mark.parametrize(("deg", "short"), [(29.0, False), (32.0, True)])
def test_none_of_it_is_asked_for_in_an_inclined_hole(deg, short):
    document = known(strings__2__cement__free_fluid_percent=0.5)
    built = [{"md_ft": 3000.0}, {"md_ft": 4000.0, "inclination_deg": deg}, {"md_ft": 10_000.0, "inclination_deg": deg}]
    document["trajectory"] = {"stations": [{"md_ft": 0.0}, *built]}
    assert bool(said(document, "caution", "Free fluid is 0.5 %; asked 0.0 % or less")) == short


@pytest.mark.parametrize(
    ("measured", "gas", "short"), [(200.0, False, False), (201.0, False, True), (51.0, True, True)]
)
def test_fluid_loss_is_held_to_what_is_asked_and_to_less_over_gas(measured, gas, short):
    document = known(strings__2__cement__fluid_loss_cm3=measured)
    if gas:
        document["ground"]["zones"] = [{"name": "G", "top_tvd_ft": 5000.0, "base_tvd_ft": 5100.0, "fluid": "gas"}]
    assert bool(said(document, "caution", "Fluid loss is")) == short


def test_what_is_not_measured_is_said_and_not_kept():
    rules = [r for r in stage(known()).rules if r.title in ("Free fluid", "Fluid loss")]
    assert [(r.title, r.subject, r.found, r.state) for r in rules] == [
        ("Free fluid", ("tail",), ("not measured",), "told"),
        ("Fluid loss", ("tail",), ("not measured",), "told"),
    ]
