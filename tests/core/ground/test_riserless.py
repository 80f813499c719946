"""Holes with returns to the sea floor: the column of sea and mud against the rock, on both sides of each limit."""

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.ground.judge import judge
from knollstack.core.ground.riserless import is_riserless, planned_ppg, stands
from knollstack.core.ground.well import build_well
from knollstack.core.reading.read import parse
from tests.helpers import find, points, run, well

C = 12 / 231
FLOOR, WATER = 80.0, 3000.0
MUDLINE = FLOOR + WATER


def at_sea(pore_ppg=8.6, fracture=((MUDLINE, 8.7), (10_000.0, 13.0)), **parts):
    return well(
        site__setting="subsea",
        site__rig_floor_ft=FLOOR,
        site__water_depth_ft=WATER,
        ground__pore=points((MUDLINE, pore_ppg), (10_000, pore_ppg)),
        ground__fracture=points(*fracture),
        **parts,
    )


def built(document):
    return build_well(parse(document))


def column(mud, z):
    """Sea water down to the mudline, mud below it, as mud weight from the rig floor."""
    return (8.55 * WATER + mud * (z - MUDLINE)) / z


@pytest.mark.parametrize("setting", ["land", "platform", "subsea"])
def test_only_the_first_two_holes_under_the_sea_are_riserless(setting):
    document = at_sea()
    document["site"]["setting"] = setting
    made = built(document)
    assert [is_riserless(made, i) for i in range(4)] == [setting == "subsea"] * 2 + [False, False]


@pytest.mark.parametrize("bottom", [4000.0, 5500.0])
def test_the_column_is_held_from_pore_to_fracture_and_not_beyond(bottom):
    """The mud that just balances pore at the bottom, a hundredth less, and the one that just breaks the rock."""
    pore = 8.5
    made = built(at_sea(pore_ppg=pore, fracture=((MUDLINE, 8.6), (MUDLINE + 1, 9.4), (10_000.0, 9.4))))
    balance = (pore * bottom - 8.55 * WATER) / (bottom - MUDLINE)
    assert column(balance, bottom) == pytest.approx(pore)
    # from the mudline down, sea water over the depth from the floor is the thin spot
    assert stands(made, balance + 0.01, MUDLINE + 900.0, bottom) is (column(balance + 0.01, MUDLINE + 900.0) >= pore)
    breaks = (9.4 * bottom - 8.55 * WATER) / (bottom - MUDLINE)
    top = MUDLINE + 900.0
    pore_at_top = (pore * top - 8.55 * WATER) / (top - MUDLINE)
    least = max(balance, pore_at_top)
    assert stands(made, least + 0.001, top, bottom)
    assert not stands(made, least - 0.001, top, bottom)
    greatest = min(breaks, (9.4 * top - 8.55 * WATER) / (top - MUDLINE))
    assert stands(made, greatest - 0.001, top, bottom)
    assert not stands(made, greatest + 0.001, top, bottom)


def test_every_profile_point_of_the_hole_is_asked():
    """A thin bed of weak rock inside the hole breaks a column that both ends stand."""
    fracture = ((MUDLINE, 9.0), (4000.0, 11.0), (4500.0, 9.0), (4501.0, 11.0), (10_000.0, 12.0))
    made = built(at_sea(fracture=fracture))
    mud = 10.5
    assert column(mud, 4500.0) > 9.0
    assert column(mud, 5500.0) < 11.0
    assert stands(made, mud, 4000.0, 4300.0)
    assert not stands(made, mud, 4000.0, 5500.0)


def test_what_is_not_known_over_the_whole_hole_is_unknown():
    made = built(at_sea(fracture=((MUDLINE, 9.0), (5000.0, 11.0))))
    assert stands(made, 9.0, 4000.0, 5000.0) is not None
    assert stands(made, 9.0, 4000.0, 5001.0) is None
    assert planned_ppg(made, 4000.0, 5001.0) is None


def test_the_planned_mud_is_sea_water_or_the_least_tenth_that_holds():
    made = built(at_sea(pore_ppg=8.3, fracture=((MUDLINE, 12.0), (10_000.0, 14.0))))
    assert planned_ppg(made, MUDLINE + 900, 4500.0) == 8.55, "sea water holds it"
    made = built(at_sea(pore_ppg=8.6, fracture=((MUDLINE, 12.0), (10_000.0, 14.0))))
    top, bottom = MUDLINE + 900.0, 5500.0
    needed = max((8.6 * z - 8.55 * WATER) / (z - MUDLINE) for z in np.arange(top, bottom + 1))
    planned = planned_ppg(made, top, bottom)
    assert planned == pytest.approx(np.ceil(needed * 10) / 10)
    assert stands(made, planned, top, bottom)
    assert not stands(made, round(planned - 0.1, 2), top, bottom)
    hard = built(at_sea(pore_ppg=8.6, fracture=((MUDLINE, 8.61), (10_000.0, 8.61))))
    assert planned_ppg(hard, top, bottom) is None, "no mud up to 14 ppg is held by so weak a rock"


@pytest.mark.parametrize(("mud", "said"), [(8.8, "pore pressure is"), (9.5, None), (14.0, "the rock breaks at")])
def test_a_decided_riserless_mud_is_judged(mud, said):
    strings = [
        {"role": "conductor", "run": "jetted", "shoe_md_ft": MUDLINE + 300, "od_in": 30.0},
        {"role": "surface", "shoe_md_ft": 5000.0, "bit_in": 26.0, "od_in": 20.0, "mud_ppg": mud},
        {"role": "production", "shoe_md_ft": 10_000.0, "bit_in": 17.5, "od_in": 13.375, "mud_ppg": 9.5},
    ]
    document = at_sea(pore_ppg=7.9, fracture=((MUDLINE, 8.7), (5000.0, 10.2), (10_000.0, 13.0)), strings=strings)
    document["ground"]["pore"] = points((MUDLINE, 7.9), (5000, 8.7), (10_000, 8.8))
    top = MUDLINE + 300
    wanted = "pore" if column(mud, 5000.0) < 8.7 or column(mud, top) < 7.9 + 0.8 * 300 / (5000 - MUDLINE) else ""
    wanted = "rock" if column(mud, 5000.0) > 10.2 else wanted
    stops = [plain(f.message) for f in find(run(document), "mud", "stop") if f.place == "/strings/1/mud_ppg"]
    assert [said in s for s in stops] == ([True] if said else [])
    assert wanted == {"pore pressure is": "pore", "the rock breaks at": "rock", None: ""}[said]


def test_zones_are_drawn_down_to_the_deepest_point_and_what_is_missing_is_told():
    document = well(ground__pore=points((30, 9), (9000, 9)))
    document["ground"]["zones"] = [
        {"id": "a", "name": "A", "top_tvd_ft": 100.0, "base_tvd_ft": 9500.0},
        {"id": "b", "name": "B", "top_tvd_ft": 9500.0, "base_tvd_ft": 12_000.0},
        {"id": "c", "name": "C", "top_tvd_ft": 12_000.0, "base_tvd_ft": 13_000.0},
    ]
    result, findings, _ = judge(built(document))
    assert [(z.name, z.top_md_ft, z.base_md_ft) for z in result.zones] == [("A", 100, 9500), ("B", 9500, 10_000)]
    assert [z.index for z in result.zones] == [0, 1]
    said = [(f.place, plain(f.message)) for f in findings]
    assert said == [
        ("/ground/pore", "The profile ends at 9,000 ft TVD; total depth is 10,000 ft. Below it nothing is known.")
    ]
    bare = well(ground__pore=points((30, 9)))
    places = {f.place: f.severity for f in judge(built(bare))[1]}
    assert places == {"/ground/pore": "unknown", "/ground/zones": "unknown"}
    whole = well(ground__zones=document["ground"]["zones"][:1])
    assert judge(built(whole))[1] == ()
