"""The cement column against the rock, by plain sums over the depths of the open hole."""

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.program.column import Column
from tests.core.evaluation.test_judging import strings
from tests.helpers import applied, find, points, run

C = 12 / 231


@pytest.mark.parametrize("depth", [300.0, 1699.0, 1700.0, 1701.0, 6000.0])
def test_mud_stands_over_slurry_and_neither_goes_past_the_top(depth):
    column = Column(mud_ppg=9.5, slurry_ppg=15.8, top_tvd_ft=1700.0)
    mud, slurry = min(depth, 1700.0), max(depth - 1700.0, 0.0)
    assert float(column.psi(depth)) == pytest.approx(C * (9.5 * mud + 15.8 * slurry), rel=1e-12)
    sea = Column(mud_ppg=9.5, slurry_ppg=15.8, top_tvd_ft=1700.0, mudline_tvd_ft=400.0, water_depth_ft=320.0)
    over = max(mud - 400.0, 0.0)
    assert float(sea.psi(depth)) == pytest.approx(C * (8.55 * 320 + 9.5 * over + 15.8 * slurry), rel=1e-12)


def worst(fracture, top, shoe, mud=9.5, slurry=15.823013805):
    """Greatest share of the fracture pressure over the open hole, foot by foot."""
    z = np.arange(2000.0, shoe + 1)
    psi = C * (mud * np.minimum(z, top) + slurry * np.maximum(z - top, 0))
    return float(np.max(psi / (C * np.interp(z, *fracture) * z)))


@pytest.mark.parametrize("ppg", [13.9, 14.02, 14.04, 14.2])
def test_the_rock_stands_the_column_or_not(ppg):
    """The column reaches 14.03 ppg at the shoe: rock of less breaks, and what is offered holds, foot by foot."""
    document = strings(ground__fracture=points((30, ppg), (10_000, ppg)))
    share = worst(([30, 10_000], [ppg, ppg]), 1700.0, 6000.0)
    found = [f for f in find(run(document), "cement", "stop") if f.place.startswith("/strings/2")]
    assert bool(found) == (share > 1) == (ppg < 14.03)
    for finding in found:
        assert len(finding.remedies) == 4, "slurry, lead and tail, two stages, top"
        lower_top = next(r for r in finding.remedies if plain(r.label).startswith("Set the top"))
        top = lower_top.changes[0].value
        assert worst(([30, 10_000], [ppg, ppg]), top, 6000.0) <= 1 < worst(([30, 10_000], [ppg, ppg]), top - 10, 6000.0)
        for offer in finding.remedies:
            after = find(run(applied(document, offer.changes)), "cement", "stop")
            assert not [f for f in after if f.place == finding.place]


def test_the_weak_depth_inside_the_open_hole_is_found():
    """A weak bed between 3,900 and 4,100 ft breaks though shoe and top do not."""
    document = strings(ground__fracture=points((30, 16), (3900, 16), (3900, 12), (4100, 12), (4100, 16), (10_000, 16)))
    row = run(document).cement.strings[2]
    assert row.greatest_emw_ppg == pytest.approx((9.5 * 1700 + 15.823 * 2400) / 4100, abs=0.001)
    found = find(run(document), "cement", "stop")
    assert any("4,100 ft" in plain(f.message) and "12.00 ppg" in plain(f.message) for f in found), [
        plain(f.message) for f in found
    ]


def test_a_liner_is_displaced_through_its_landing_string():
    """5 in drill pipe of 4.276 in bore down to the liner top: 4.276²/1,029.42 = 0.017762 bbl/ft over 5,700 ft, 101.2 bbl."""
    row = run(strings(strings__3__run="liner", strings__3__hanger_md_ft=5700.0)).cement.strings[3]
    assert row.landing_string_bbl == pytest.approx(101.24, abs=0.01)
    whole = run(strings()).cement.strings[3]
    assert whole.landing_string_bbl == 0.0
    bore = whole.displacement_bbl / (10_000 - 80)
    assert row.displacement_bbl == pytest.approx(101.24 + bore * (10_000 - 80 - 5700), abs=0.05)
    drill = {"from_hole_in": 1.0, "pipe_od_in": 5.0, "collar_od_in": 6.5, "collar_length_ft": 600.0}
    unknown = strings(strings__3__run="liner", strings__3__hanger_md_ft=5700.0, policy__mud__drill_strings=[drill])
    evaluation = run(unknown)
    assert evaluation.cement.strings[3].displacement_bbl is None
    said = [f.place for f in find(evaluation, "cement", "unknown") if "Displacement is unknown" in plain(f.message)]
    assert said == ["/policy/mud/drill_strings"]


def test_additives_are_mixed_as_they_are_given():
    """20 % silica flour and 10 % barite in 7.1 gal/sk: 15.355 ppg; 18 % of salt in the water of a neat slurry: 16.1 ppg."""
    made = {"slurry_water_gal_sk": 7.1, "silica_flour_percent": 20.0, "barite_percent": 10.0}
    assert run(strings(strings__3__cement=made)).cement.strings[3].slurry_ppg == pytest.approx(15.35504, abs=1e-5)
    salted = run(strings(strings__3__cement={"salt_percent": 18.0})).cement.strings[3]
    plain_one = run(strings(strings__3__cement={"slurry_water_gal_sk": 4.97})).cement.strings[3]
    assert salted.water_gal_sk == plain_one.water_gal_sk
    assert salted.slurry_ppg > plain_one.slurry_ppg
    assert salted.yield_ft3_sk > plain_one.yield_ft3_sk
