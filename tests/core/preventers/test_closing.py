"""Shear and hang-off, bottles and their gas, closing times, and the test plan: by hand and on both sides of each limit."""

import csv

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.preventers.nitrogen import density_lb_ft3
from tests.core.preventers.test_coverage import five, stack
from tests.helpers import DATA, applied, find, run


def on_9(document):
    return run(document).preventers.strings[3]


def said(document, words):
    return [f for f in find(run(document), "preventers") if words in plain(f.message)]


def unit(**values):
    document = five((4, stack()), casing_ram="e4")
    document["closing_unit"] = {"operating_psi": 5000.0} | values
    return document


def test_shearing_by_hand():
    """0.577·135,000·π/4·(5² − 4.276²)·1.2 = 493,038 lbf; over 210 in², and the well's pressure over 7."""
    row = on_9(unit())
    shear = row.shear[0]
    assert shear.force_lbf == pytest.approx(493_038, rel=1e-5)
    assert shear.needed_psi == pytest.approx(493_038 / 210 + row.pressure_psi / 7, rel=1e-5)


@pytest.mark.parametrize(("over_psi", "cut"), [(1.0, True), (0.0, True), (-1.0, False)])
def test_pipe_is_cut_where_the_closing_unit_gives_what_it_takes(over_psi, cut):
    needed = on_9(unit()).shear[0].needed_psi
    document = unit(operating_psi=needed + over_psi)
    assert on_9(document).shear[0].shears is cut
    found = [f for f in said(document, "do not cut 5 in") if f.place == "/preventers/0/elements/2"]
    assert (found == []) == cut
    for finding in found:
        assert not said(applied(document, finding.remedies[0].changes), "do not cut 5 in drill pipe")


@pytest.mark.parametrize(("grade", "psi"), [("E", 75_000), ("X", 95_000), ("G", 105_000), ("S", 135_000)])
def test_the_grade_of_drill_pipe_says_its_yield(grade, psi):
    document = unit()
    document["policy"]["preventers"] = {"drill_pipe_grade": grade}
    assert on_9(document).shear[0].force_lbf == pytest.approx(493_038 * psi / 135_000, rel=1e-4)


def test_hang_off_by_hand():
    """5 in at 22.3 lb/ft with collars of 3.4·π/4·6.5² = 112.8 lb/ft over 600 of 9,000 ft, in 9.5 ppg."""
    rows = [r for r in on_9(unit()).hang_off if plain(r.what) == "8 1/2 in hole"]
    expected = (22.3 * 8400 + 3.4 * np.pi / 4 * 6.5**2 * 600) * (1 - 9.5 / 65.5)
    assert [r.element for r in rows] == [0, 3]
    assert {round(r.load_lbf) for r in rows} == {round(expected)}
    spans = on_9(unit())
    tops = [30 + 6 - (spans.base_in + spans.elements[r.element].top_in) / 12 for r in rows]
    assert [r.tool_joint_md_ft for r in rows] == pytest.approx(tops)


@pytest.mark.parametrize(("share", "told"), [(1.0, False), (0.999, True)])
def test_a_string_too_heavy_for_every_ram_is_told(share, told):
    load = on_9(unit()).hang_off[0].load_lbf
    rows = stack(e1={"hang_off_lbf": load * share}, e4={"hang_off_lbf": load * share})
    assert bool(said(five((4, rows), casing_ram="e4"), "its rams hang")) == told


def test_nitrogen_is_that_of_the_reference_equation_of_state():
    with (DATA / "nitrogen.csv").open() as file:
        rows = list(csv.DictReader(file))
    gauge, heat, density = (
        np.array([float(r[key]) for r in rows]) for key in ("gauge_psi", "temperature_f", "density_lb_ft3")
    )
    assert len(rows) == 55
    assert np.abs(density_lb_ft3(gauge, heat) / density - 1).max() < 3e-5


def test_fluid_and_bottles_by_hand():
    """Annular 14, rams 4 and 4, blind shear 6, a valve of 1: 29 gal; 1.5 times that by the bottle's fluid.

    With 1,000 psi left over at 1,200 a bottle of ideal gas gives 10·(1,000/1,200 − 1,000/5,000) = 6.3333 gal.
    """
    document = unit(precharge_psi=1000.0)
    document["policy"]["preventers"] = {"gas": "ideal gas"}
    row = on_9(document).accumulators
    assert row.needed_gal == 29.0
    assert row.usable_gal == pytest.approx(6.33333)
    assert row.bottles_needed == 7
    document["policy"]["preventers"] |= {"functions": "annular and one ram"}
    assert on_9(document).accumulators.needed_gal == 14 + 6 + 1, "the ram that takes most"


def test_the_best_precharge_gives_the_most():
    best = on_9(unit()).accumulators
    for precharge in (best.precharge_psi - 50, best.precharge_psi + 50, 600.0, 2000.0):
        assert on_9(unit(precharge_psi=precharge)).accumulators.usable_gal <= best.usable_gal + 1e-9
    assert best.minimum_psi >= max(1200.0, best.precharge_psi + 200)


@pytest.mark.parametrize(("spare", "holds"), [(0, True), (-1, False), (3, True)])
def test_bottles_hold_the_fluid_or_are_told_with_their_number(spare, holds):
    needed = max(r.accumulators.bottles_needed for r in run(unit()).preventers.strings if r.accumulators)
    document = unit(bottles=needed + spare)
    found = said(document, "the functions of policy ask")
    assert (found == []) == holds
    for finding in found:
        assert not said(applied(document, finding.remedies[0].changes), "the functions of policy ask")


@pytest.mark.parametrize(
    ("values", "place", "words"),
    [
        ({"gas_volume_gal": 0.0}, "gas_volume_gal", "hold no gas"),
        ({"precharge_psi": 0.0}, "precharge_psi", "no precharge"),
        ({"precharge_psi": 4800.0}, "operating_psi", "leaves no fluid"),
        ({"operating_psi": 150.0}, "operating_psi", "leaves no fluid"),
    ],
)
def test_bottles_that_give_nothing_are_said_once(values, place, words):
    found = [f for f in find(run(unit(**values)), "preventers", "stop") if f.place.startswith("/closing_unit")]
    assert [f.place for f in found] == [f"/closing_unit/{place}"]
    assert words in plain(found[0].message)


@pytest.mark.parametrize(("line_gpm", "late"), [(28.0, False), (27.9, True)])
def test_an_annular_of_14_gal_closes_in_30_seconds_or_is_told(line_gpm, late):
    found = [f for f in said(unit(line_gpm=line_gpm), "It closes in") if plain(f.subject) == "Annular preventer"]
    slow = [c.seconds for c in on_9(unit(line_gpm=line_gpm)).closing if c.element == 4]
    assert slow == [pytest.approx(14 / line_gpm * 60)]
    assert bool([s for s in slow if s > 30]) == late
    assert found or not late


@pytest.mark.parametrize(("minutes_over", "told"), [(-0.01, False), (0.01, True)])
def test_pumps_charge_in_time_or_are_told(minutes_over, told):
    longest = max(
        r.accumulators.charging_minutes for r in run(unit(pump_gpm=20.0)).preventers.strings if r.accumulators
    )
    document = unit(pump_gpm=20.0)
    document["policy"]["preventers"] = {"pump_minutes": longest - minutes_over}
    assert bool(said(document, "The pumps charge it")) == told


def test_the_test_plan_by_hand():
    """On 9 5/8 in of class 5,000: rams to the surface pressure and 500 psi, to the next 50; the annular to 0.7 of its class."""
    row = on_9(unit())
    by_title = {t.title: t for t in row.tests}
    asked = 50 * np.ceil((row.pressure_psi + 500) / 50)
    head = run(unit()).wellhead.pieces[2].top_psi
    assert by_title["pipe rams"].high_psi == min(5000.0, head, asked)
    assert by_title["annular preventer"].high_psi == min(3500.0, head, asked)
    assert by_title["annular preventer"].by == (
        "policy's share of its class" if asked > 3500 else by_title["pipe rams"].by
    )
    assert {t.low_psi for t in row.tests} == {300.0}
    assert plain(by_title["blind shear rams"].across) == "no pipe"
    variable = [plain(t.across) for t in row.tests if t.title == "variable bore rams"]
    assert variable == ["3 1/2 in pipe", "5 in pipe"], "its least and its largest pipe"
    bonnets = [plain(t.across) for t in row.tests if "bonnets" in t.title]
    assert bonnets == ["7 in test joint", "4 1/2 in test joint"]
    assert all("below the plug open" in t.opened for t in row.tests if t.tool == "test plug")


def test_a_cup_test_stays_under_burst_and_tension():
    row = run(unit()).preventers.strings[2]
    cup = next(t for t in row.tests if t.tool == "cup tester")
    casing = run(unit()).pipe.strings[2].sections[0]
    assert cup.high_psi <= 0.8 * casing.burst_psi + 1e-6
    assert cup.tension_lbf == pytest.approx(cup.high_psi * np.pi / 4 * (casing.id_in**2 - 25.0), rel=1e-6)
    told = bool(said(unit(), "A cup test pulls"))
    tests = [t for r in run(unit()).preventers.strings for t in r.tests if t.tension_lbf is not None]
    assert told == any(t.tension_lbf > t.most_lbf for t in tests)


def test_what_is_left_still_closes_rams_against_the_well():
    """A ram of ratio 2 takes half of the well's pressure, more than the 1,200 psi of policy; the others ask less."""
    rows = stack(e1={"closing_ratio": 2.0})
    document = five((4, rows), casing_ram="e4")
    document["closing_unit"] = {"operating_psi": 5000.0}
    row = on_9(document)
    assert row.pressure_psi / 2 > 1200
    assert row.accumulators.minimum_psi >= row.pressure_psi / 2 - 1e-6
    assert on_9(unit(precharge_psi=800.0)).accumulators.minimum_psi == 1200.0


@pytest.mark.parametrize(("bore_in", "seconds"), [(18.74, 30.0), (18.75, 45.0)])
def test_a_large_annular_has_longer_to_close(bore_in, seconds):
    rows = on_9(five((4, stack(e5={"bore_in": bore_in})))).closing
    assert rows[-1].allowed_seconds == seconds
    assert rows[0].allowed_seconds == 30.0


def test_pipe_wider_than_the_blades_is_told_by_its_width():
    """0.52 of a bore of 9 1/2 in is 4.94 in: 5 in pipe is wider, whatever the closing unit gives; of 9.7 in it is not."""
    for bore_in, wide in ((9.5, True), (9.7, False)):
        document = five((4, stack(e3={"bore_in": bore_in, "area_in2": 300.0})), casing_ram="e4")
        document["closing_unit"] = {"operating_psi": 10_000.0}
        row = on_9(document).shear[0]
        assert (row.shears is False, row.widest_in is not None) == (wide, wide)
        found = said(document, "wider than their blades cut")
        assert bool(found) == wide
        assert all(not f.remedies for f in found)
