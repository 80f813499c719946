"""A well set in other water, holes without a riser, and a storm that is told before."""

import copy

import pytest

from knollstack.core.base.units import plain
from knollstack.core.reading.read import parse
from knollstack.core.sea.water import at_water_depth
from tests.core.sea.wells import deep
from tests.helpers import find, put, run

BAR = 12 / 231


def moved(document, water_ft):
    changes = at_water_depth(parse(document), water_ft)
    result = copy.deepcopy(parse(document).model_dump(mode="json"))
    for change in changes:
        put(result, change.path.split("/")[1:], change.value)
    return result


def test_everything_below_the_sea_goes_with_its_floor():
    before, after = deep(), moved(deep(), 6800.0)
    by = 2450.0
    assert [s["shoe_md_ft"] for s in after["strings"]] == [s["shoe_md_ft"] + by for s in before["strings"]]
    assert after["strings"][4]["hanger_md_ft"] == before["strings"][4]["hanger_md_ft"] + by
    assert [z["top_tvd_ft"] for z in after["ground"]["zones"]] == [
        z["top_tvd_ft"] + by for z in before["ground"]["zones"]
    ]
    assert after["trajectory"]["stations"][0]["md_ft"] == 0.0
    assert after["trajectory"]["stations"][-1]["md_ft"] == before["trajectory"]["stations"][-1]["md_ft"] + by
    assert after["sea"] == parse(before).model_dump(mode="json")["sea"], "what counts from the mudline stays"


@pytest.mark.parametrize("water", [0.0, 1200.0, 6800.0])
def test_rock_keeps_its_pressure_over_that_of_the_sea(water):
    before, after = deep(), moved(deep(), water)
    sea = BAR * 8.55 * (water - 4350)
    for name in ("pore", "fracture", "overburden"):
        for a, b in zip(before["ground"][name], after["ground"][name], strict=True):
            assert BAR * b["emw_ppg"] * b["tvd_ft"] == pytest.approx(BAR * a["emw_ppg"] * a["tvd_ft"] + sea)
    shoe = 13_100.0 + water - 4350
    assert BAR * after["strings"][3]["mud_ppg"] * shoe == pytest.approx(
        BAR * 11.9 * 13_100 + sea, abs=BAR * 0.005 * shoe
    )


def test_there_and_back_is_the_well_that_it_was():
    before = parse(deep()).model_dump(mode="json")
    back = moved(moved(deep(), 6800.0), 4350.0)
    assert [s["shoe_md_ft"] for s in back["strings"]] == [s["shoe_md_ft"] for s in before["strings"]]
    for a, b in zip(before["ground"]["pore"], back["ground"]["pore"], strict=True):
        assert b["emw_ppg"] == pytest.approx(a["emw_ppg"])
    assert at_water_depth(parse(deep()), 4350.0) == ()


def test_the_margin_that_is_needed_without_the_riser_is_the_same_in_any_water():
    needed = [run(moved(deep(), w)).mud.strings[4].riser.needed_ppg for w in (2000.0, 4350.0, 6800.0)]
    assert needed == pytest.approx([needed[0]] * 3, abs=0.02)


def pad(document, severity=None):
    return [f for f in find(run(document), "sea", severity) if f.place == "/sea/pad_mud_ppg"]


def test_pad_mud_by_hand_and_against_the_rock():
    """26 in from the conductor's shoe at 4,720 ft to 6,900 ft, and half as much again."""
    (row,) = run(deep()).sea.riserless
    hole = 26**2 / 1029.4 * (6900 - 4720)
    assert row.hole_bbl == pytest.approx(hole, rel=1e-3)
    assert row.pad_bbl == pytest.approx(1.5 * row.hole_bbl)
    assert pad(deep()) == []
    assert [f.severity for f in pad(deep(sea__pad_mud_ppg=None))] == ["note"]
    well = run(deep()).program.well
    heaviest = next(
        ppg / 100
        for ppg in range(1000, 2400)
        if any(
            8.55 * 4350 + ppg / 100 * (z - 4435) > float(well.ground.fracture.at(z)) * z + 1e-6
            for z in range(4720, 6901, 20)
        )
    )
    (found,) = pad(deep(sea__pad_mud_ppg=heaviest + 0.01))
    assert found.severity == "stop"
    assert "the rock breaks at" in plain(found.message)
    assert pad(deep(sea__pad_mud_ppg=heaviest - 0.03)) == []
    assert "pore pressure is" in plain(pad(deep(sea__pad_mud_ppg=8.0))[0].message)


def test_a_storm_is_judged_on_both_sides_of_its_warning():
    storm = run(deep()).sea.storm
    joints = sum(row.count for row in run(deep()).sea.riser.joints)
    assert storm.steps[-1].hours == pytest.approx(joints / 2.5)
    assert storm.total_hours == pytest.approx(sum(step.hours for step in storm.steps))
    for warning, expected in ((storm.total_hours + 0.01, []), (storm.total_hours - 0.01, ["stop"]), (None, [])):
        found = [f.severity for f in find(run(deep(sea__storm_hours=warning)), "sea") if f.place == "/sea/storm_hours"]
        assert found == expected
