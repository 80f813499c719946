"""Lead and tail, and cement in two stages, by plain sums."""

from itertools import product

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.pipe.cases import running_cases
from knollstack.core.program.column import Column, column_of
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from tests.core.evaluation.test_judging import strings
from tests.helpers import CATALOGUE, applied, find, points, run

C = 12 / 231
NEAT, LEAD_8 = 15.823013805, 13.3534
"""Absolute volumes by hand: 4.97 gal/sk; 8 % bentonite in 9.77 gal/sk, 182.90 lb in 13.697 gal."""


def cemented(**cement):
    """The shoe track is 80 ft: two joints that add 38.3 ft each, made up to the triangle of buttress, 4.8125 in."""
    return strings(strings__2__cement=cement, policy__running__joint_mean_ft=38.3 + 4.8125 / 12)


def rows(document):
    return run(document).cement.strings[2]


@pytest.mark.parametrize("depth", [1000.0, 1700.0, 3000.0, 3999.0, 4000.0, 4001.0, 5500.0, 5501.0, 6000.0])
def test_mud_lead_and_tail_stand_over_one_another(depth):
    column = Column(9.5, 15.8, 1700.0, lead_ppg=13.0, tail_top_tvd_ft=5500.0, collars=((4000.0, 4000.0),))

    def psi(top):
        lead = min(depth, 5500.0) - top
        return C * (9.5 * min(depth, top) + 13.0 * max(lead, 0.0) + 15.8 * max(depth - 5500.0, 0.0))

    assert float(column.psi(depth)) == pytest.approx(psi(1700.0), rel=1e-12)
    assert float(column.first.psi(depth)) == pytest.approx(psi(4000.0), rel=1e-12)
    assert float(column.wet_psi(depth)) == pytest.approx(psi(1700.0 if depth < 4000.0 else 4000.0), rel=1e-12)


def test_a_lead_of_which_only_the_top_of_the_tail_is_given_is_the_heaviest_that_the_rock_stands():
    """9.5 ppg to 1,700 ft, lead to 5,500, neat tail to 6,000: 13.07 ppg there with 4 % bentonite, 12.47 with 8 %."""
    for fracture, percent in ((13.08, 4.0), (13.06, 8.0), (12.47, 8.0), (12.46, 12.0)):
        document = cemented(tail_top_md_ft=5500.0)
        document["policy"]["mud"] = {"fracture_margin_ppg": 0.0}
        document["ground"]["fracture"] = points((30, 16), (5900, 16), (6000, fracture), (10_000, fracture))
        row = rows(document)
        reached = (9.5 * 1700 + row.lead_ppg * 3800 + row.slurry_ppg * 500) / 6000
        assert row.slurry_ppg == pytest.approx(NEAT, abs=1e-6)
        assert row.lead_bentonite_percent == percent
        assert reached <= fracture
        assert row.greatest_emw_ppg == pytest.approx(reached, abs=1e-6)
    said = [plain(a.text) for a in run(document).assumptions if a.place.endswith("cement/lead_water_gal_sk")]
    assert said == ["9 5/8 in cement: lead with 12 % bentonite, the heaviest that keeps the fracture margin."]


@pytest.mark.parametrize(("margin", "percent"), [(0.0, 4.0), (0.02, 8.0), (0.6, 8.0), (0.7, 12.0)])
def test_a_lead_proposed_keeps_the_fracture_margin_where_one_does(margin, percent):
    """13.07 ppg with 4 % bentonite, 12.47 with 8 % and 12.12 with 12 % where the rock breaks at 13.08."""
    document = cemented(tail_top_md_ft=5500.0)
    document["policy"]["mud"] = {"fracture_margin_ppg": margin}
    document["ground"]["fracture"] = points((30, 16), (5900, 16), (6000, 13.08), (10_000, 13.08))
    assert rows(document).lead_bentonite_percent == percent


def test_a_lead_alone_gets_a_tail_by_policy():
    row = rows(cemented(lead_bentonite_percent=8.0))
    assert (row.tail_top_md_ft, row.lead_water_gal_sk) == (5500.0, pytest.approx(9.77))
    assert row.lead_ppg == pytest.approx(LEAD_8, abs=1e-4)
    assert (
        rows(strings(policy__cement__tail_ft=800.0, strings__2__cement={"lead_bentonite_percent": 8.0})).tail_top_md_ft
        == 5200.0
    )
    assert rows(cemented()).lead_ppg is None


def test_volumes_of_lead_tail_and_second_stage_are_those_by_hand():
    """12 1/4 in hole, 9 5/8 in casing, excess 0.5, 13 3/8 in casing outside down to 2,000 ft; collar at 4,000 ft."""
    both = rows(cemented(tail_top_md_ft=5500.0, lead_bentonite_percent=8.0, stage_collar_md_ft=4000.0))
    one = rows(cemented(slurry_water_gal_sk=4.97))
    opened = (12.25**2 - 9.625**2) / 1029.4 * 1.5
    cased = one.cased_annulus_bbl
    assert both.lead_bbl == pytest.approx(cased + opened * 3500, rel=1e-4)
    assert both.tail_bbl == pytest.approx(opened * 500 + one.shoe_track_bbl + one.rathole_bbl, rel=1e-4)
    assert both.slurry_bbl == pytest.approx(both.lead_bbl + both.tail_bbl, rel=1e-12)
    assert both.slurry_bbl == pytest.approx(one.slurry_bbl, rel=1e-9)
    assert both.second_stage_bbl == pytest.approx(cased + opened * 2000, rel=1e-4)
    assert both.second_displacement_bbl == pytest.approx(both.displacement_bbl * 4000 / 5920, rel=1e-9)
    assert both.lead_sacks == pytest.approx(both.lead_bbl * 5.614583 / both.lead_yield_ft3_sk, rel=1e-5)
    assert both.sacks == pytest.approx(both.tail_bbl * 5.614583 / both.yield_ft3_sk, rel=1e-5)
    assert both.mix_water_bbl == pytest.approx((both.sacks * 4.97 + both.lead_sacks * 9.77) / 42, rel=1e-9)


def stage_stands(fracture, collar):
    """Foot by foot: the first stage with mud over the collar on the whole hole, the second on what is over the collar."""
    z = np.arange(2000.0, 6001.0)
    rock = C * np.interp(z, *fracture) * z
    first = C * (9.5 * np.minimum(z, collar) + NEAT * np.maximum(z - collar, 0))
    second = C * (9.5 * 1700 + NEAT * (z - 1700))
    return np.all(first <= rock + 1e-6), np.all((second <= rock + 1e-6)[z <= collar])


@pytest.mark.parametrize("ppg", [11.0, 12.0, 13.0, 13.9])
def test_the_stage_collar_offered_is_midway_between_the_ends_that_a_scan_finds(ppg):
    fracture = ([30, 10_000], [ppg, ppg])
    document = strings(ground__fracture=points((30, ppg), (10_000, ppg)))
    document["strings"][2]["cement"] = {"slurry_water_gal_sk": 4.97}
    found = next(f for f in find(run(document), "cement", "stop") if f.place.startswith("/strings/2"))
    offered = [r.changes[0].value for r in found.remedies if "two stages" in plain(r.label)]
    stands = [c for c in np.arange(2010.0, 5920.0, 10.0) if all(stage_stands(fracture, c))]
    assert bool(offered) == bool(stands)
    if stands:
        assert offered == [stands[(len(stands) - 1) // 2]]
        ends = ((stands[0], True), (stands[0] - 10, False), (stands[-1], True), (stands[-1] + 10, False))
        for collar, ok in (end for end in ends if 2000 < end[0] < 5920):
            document["strings"][2]["cement"] = {"slurry_water_gal_sk": 4.97, "stage_collar_md_ft": float(collar)}
            stops = [f for f in find(run(document), "cement", "stop") if f.place.startswith("/strings/2")]
            assert bool(stops) != ok, collar


def three_stand(ppg, lower, upper):
    """Foot by foot: under the lower collar the first stage, between the collars the second, over the upper the third."""
    z = np.arange(2000.0, 6001.0)
    rock, ends = C * ppg * z, [(6000.0, lower), (lower, upper), (upper, 1700.0)]
    return all(
        np.all((C * (9.5 * np.minimum(z, top) + NEAT * np.maximum(z - top, 0)) <= rock + 1e-6)[z <= shoe])
        for shoe, top in ends
    )


@pytest.mark.parametrize(("ppg", "some"), [(11.0, False), (11.8, True), (12.0, True)])
def test_three_stages_are_offered_where_two_do_not_stand_and_all_of_them_do(ppg, some):
    document = strings(ground__fracture=points((30, ppg), (10_000, ppg)))
    document["strings"][2]["cement"] = {"slurry_water_gal_sk": 4.97}
    found = next(f for f in find(run(document), "cement", "stop") if f.place.startswith("/strings/2"))
    offered = [r for r in found.remedies if "three stages" in plain(r.label)]
    pairs = product(np.arange(2020.0, 5920.0, 50.0), np.arange(2010.0, 5900.0, 50.0))
    stands = [(low, high) for low, high in pairs if high < low and three_stand(ppg, low, high)]
    assert bool(stands) == some
    assert bool(offered) == some
    if some:
        lower, upper = (change.value for change in offered[0].changes)
        assert three_stand(ppg, lower, upper)
        after = run(applied(document, offered[0].changes))
        assert not [f for f in find(after, "cement", "stop") if f.place.startswith("/strings/2")]


def test_three_stages_by_hand():
    """9 5/8 in from 6,000 ft in 12 1/4 in hole, collars at 4,500 and 3,000, cement to 1,700; no excess.

    0.0557811 bbl/ft of hole: 83.67 bbl from each of the lower intervals. Above 3,000 ft 1,000 ft of hole, 55.78 bbl, and 300 ft
    between 12.615 and 9 5/8 in, 0.0645980: 19.38 bbl. Each depth bears its own stage alone: 9.5 ppg mud to the collar over it.
    """
    document = cemented(
        stage_collar_md_ft=4500.0,
        upper_collar_md_ft=3000.0,
        slurry_water_gal_sk=4.97,
        excess=0.0,
        bentonite_percent=0.0,
    )
    document["strings"][2].update(reading_300=26.0, reading_600=40.0)
    row = rows(document)
    assert row.second_stage_bbl == pytest.approx(83.67, abs=0.01)
    assert row.third_stage_bbl == pytest.approx(55.78 + 19.38, abs=0.01)
    assert row.third_displacement_bbl == pytest.approx(3000 * 8.681**2 / 1029.42, rel=1e-4)
    program = program_of(parse(document), CATALOGUE)
    wet = column_of(program.well, program.strings[2])
    slurry = row.slurry_ppg
    for z, top in ((6000, 4500), (4501, 4500), (4499, 3000), (3001, 3000), (2999, 1700), (1600, 1700)):
        assert float(wet.wet_psi(z)) == pytest.approx(C * (9.5 * min(z, top) + slurry * max(z - top, 0)), abs=0.01), z
    stages = row.stages
    assert [s.number for s in stages] == [1, 2, 3]
    tails = [next(f.volume_bbl for f in s.fluids if f.kind == "tail") for s in stages]
    assert tails[1:] == pytest.approx([row.second_stage_bbl, row.third_stage_bbl], rel=1e-6)
    assert [s.bump_bbl - sum(f.volume_bbl for f in s.fluids[:-1]) for s in stages[1:]] == pytest.approx(
        [row.second_displacement_bbl, row.third_displacement_bbl], rel=1e-6
    )


@pytest.mark.parametrize(
    ("cement", "told"),
    [
        ({"stage_collar_md_ft": 4000.0, "upper_collar_md_ft": 4000.0}, "upper stage collar"),
        ({"stage_collar_md_ft": 4000.0, "upper_collar_md_ft": 3999.0}, None),
        ({"upper_collar_md_ft": 3000.0}, "upper stage collar"),
        ({"stage_collar_md_ft": 4000.0, "upper_collar_md_ft": 1700.0}, "upper stage collar"),
        ({"stage_collar_md_ft": 1700.0}, "stage collar"),
        ({"stage_collar_md_ft": 1701.0}, None),
        ({"stage_collar_md_ft": 5919.0}, None),
        ({"stage_collar_md_ft": 5920.0}, "stage collar"),
        ({"tail_top_md_ft": 1700.0}, "top of the tail"),
        ({"tail_top_md_ft": 1701.0}, None),
        ({"tail_top_md_ft": 5999.0}, None),
        ({"tail_top_md_ft": 6000.0}, "top of the tail"),
    ],
)
def test_a_collar_or_a_tail_outside_of_the_cement_is_told(cement, told):
    document = cemented(**cement)
    document["ground"]["fracture"] = points((30, 17), (10_000, 17))
    found = [plain(f.message) for f in find(run(document), "cement", "caution") if f.place.startswith("/strings/2")]
    assert [told in text for text in found] == ([True] if told else [])


def test_the_pipe_sees_each_stage_while_it_is_wet():
    """Cementing, plug bump and the state as set: under the collar the first stage with mud over it, above it the second."""
    program = program_of(parse(cemented(stage_collar_md_ft=4000.0, slurry_water_gal_sk=4.97)), CATALOGUE)
    string = program.strings[2].laid
    cases = {case.name: case for case in running_cases(program.well, string, 9.5)}
    low, high = C * (9.5 * 4000 + NEAT * 1000), C * (9.5 * 1700 + NEAT * 1300)
    for name in ("cementing", "plug bump"):
        assert np.asarray(cases[name].external_psi(np.array([3000.0, 5000.0]))) == pytest.approx([high, low], rel=1e-9)
        assert 4000.0 in cases[name].marks_tvd_ft
    row = rows(cemented(stage_collar_md_ft=4000.0, slurry_water_gal_sk=4.97))
    annulus = C * (9.5 * 4000 + NEAT * 2000)
    assert row.float_differential_psi == pytest.approx(annulus - C * (9.5 * 5920 + NEAT * 80), abs=0.01)
