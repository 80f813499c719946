"""Kick tolerance in a well: hand numbers, the least of every weak point and kick by a plain scan, and what must always hold."""

import math
import random
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from knollstack.core.depths.bubble import open_hole, tolerance_of
from knollstack.core.depths.tolerance import gives, known_pairs, least_of, tolerance_against_depth
from knollstack.core.ground.well import build_well
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from tests.helpers import CATALOGUE, find, points, run, well
from tests.random_wells import random_well

C = 12 / 231


def uniform(**parts):
    return build_well(parse(well(**parts)))


def least(made, hole_in, shoe, mud, bottom, intensity=None):
    pairs = known_pairs(made, shoe, mud, bottom, intensity)
    return None if pairs is None else least_of(made, open_hole(made, hole_in), pairs, mud)


def give(made, hole_in, shoes, muds, bottom, asked):
    return gives(made, open_hole(made, hole_in), np.array(shoes), np.array(muds), bottom, asked).tolist()


def test_by_hand_in_uniform_ground():
    """Shoe 6,000 ft, hole 8 1/2 in to 10,000 ft, mud 9.5 in pore 9.0 + 0.5 and fracture 14.0.

    P_w = 4,363.6; P_f = 0.0519481·9.5·10,000 = 4,935.1; H = (4,363.6 − 4,935.1 + 0.493506·4,000)/(0.393506) = 3,564.4.
    Pipe annulus (8.5² − 5²)/1,029.42 = 0.045899, collars 6 1/2 in × 600 ft: 0.029143 bbl/ft.
    At the weak point the bubble reaches down to 9,564.4 ft, 164.4 ft beside the collars:
    (0.045899·3,400 + 0.029143·164.4)·4,363.6/4,935.1 = 142.2 bbl. On bottom 0.029143·600 + 0.045899·2,964.4 = 153.5.
    """
    made = uniform()
    found = tolerance_of(made, 8.5, 6000.0, 9.5, 10_000.0)
    assert found.height_ft == pytest.approx(3564.4, abs=0.1)
    assert found.volume_bbl == pytest.approx(142.2, abs=0.1)
    assert least(made, 8.5, 6000.0, 9.5, 10_000.0).weak_tvd_ft == 6000.0


def reference(total, pore, fracture, shoe, mud):
    return {
        "format": "knollstack.well",
        "version": 6,
        "name": "Reference",
        "site": {"rig_floor_ft": 0.0, "h2s_ppm": 0.0, "flowline_height_ft": 0.0},
        "trajectory": {"stations": [{"md_ft": 0.0}, {"md_ft": total}]},
        "ground": {"pore": points(*pore), "fracture": points(*fracture)},
        "strings": [
            {"id": "c", "role": "conductor", "run": "driven", "shoe_md_ft": 100.0, "od_in": 20.0},
            {"id": "s", "role": "surface", "shoe_md_ft": shoe, "bit_in": 17.5, "od_in": 13.375, "mud_ppg": 8.8},
            {"id": "p", "role": "production", "shoe_md_ft": total, "bit_in": 12.25, "od_in": 9.625, "mud_ppg": mud},
        ],
    }


FALLING_BED = [(0, 11.5), (4400, 11.7), (6400, 9.9), (6800, 11.3)]


def test_least_room_just_above_the_kick_is_not_least_volume():
    """A weak bed 400 ft above the kick leaves least pressure, but no bubble there breaks it: the shoe sets 37.5 bbl."""
    document = reference(6800.0, [(0, 8.2), (6800, 8.6)], FALLING_BED, 2250.0, 9.0)
    evaluation = run(document)
    kick = evaluation.depths.strings[1].kick
    assert (kick.tolerance_bbl, kick.height_ft) == (pytest.approx(37.5, abs=0.05), pytest.approx(731.5, abs=0.05))
    assert (kick.limited, kick.weak_is_shoe, kick.at_shoe_bbl) == (True, True, None)
    assert len(find(evaluation, "depths", "stop")) == 1


def test_boyles_law_changes_the_order_of_weak_points():
    """Least pressure to spare lies in the last leg; the least volume at 7,801 ft, not at the shoe with its 278 bbl."""
    rock = [(0, 12.0), (7000, 15.0), (10_000, 12.0)]
    kick = run(reference(10_000.0, [(0, 8.6), (10_000, 11.0)], rock, 7000.0, 11.4)).depths.strings[1].kick
    assert kick.tolerance_bbl == pytest.approx(235.4, abs=0.05)
    assert kick.weak_md_ft == pytest.approx(7801.1, abs=0.05)
    assert not kick.weak_is_shoe
    assert kick.at_shoe_bbl == pytest.approx(277.98, abs=0.005)


def scan(made, hole, shoe, mud, bottom, step_ft):
    """Every weak point above every kick, one after another, with nothing of the core but profiles and path.

    Kicks come from the pore points, the end, and where formation pressure is greater than just above and just below.
    """
    policy, path = made.policy.depths, made.path
    low, high = path.span(shoe, bottom)
    marks = np.concatenate([made.ground.pore.tvd_ft, made.ground.fracture.tvd_ft])
    z = np.unique([low, high, *np.arange(low, high, step_ft), *marks[(marks > low) & (marks < high)]])
    rock = C * made.ground.fracture.at(z) * z - (made.site.choke_line_psi or 0.0)
    formation = C * (made.ground.pore.at(z) + policy.kick_intensity_ppg) * z
    md, gas, found = path.md_at(z), policy.influx_psi_ft, np.inf
    peak = np.append(np.diff(formation) <= 0, True) & np.append(True, np.diff(formation) >= 0)
    for k in np.flatnonzero(peak | np.isin(z, [*made.ground.pore.tvd_ft, high])):
        p = formation[k]
        above = np.flatnonzero(p - gas * (z[k] - z[: k + 1]) > rock[: k + 1])
        w, strength = z[above], rock[above]
        height = np.clip((strength - p + C * mud * (z[k] - w)) / (C * mud - gas), 0, z[k] - w)
        length = path.md_at(w + height) - md[above]
        collars = np.maximum(0, length - np.maximum(0, md[k] - md[above] - hole.collar_length_ft))
        there = hole.pipe_annulus_bbl_ft * (length - collars) + hole.collar_annulus_bbl_ft * collars
        length = md[k] - path.md_at(z[k] - height)
        collars = np.minimum(length, hole.collar_length_ft)
        bottom_bbl = hole.pipe_annulus_bbl_ft * (length - collars) + hole.collar_annulus_bbl_ft * collars
        found = min(found, np.min(np.minimum(there * strength / p, bottom_bbl), initial=np.inf))
    return float(found)


@pytest.mark.parametrize("seed", range(8))
def test_the_least_of_every_weak_point_and_kick_on_made_up_wells(seed):
    """Weak rock, all intensities, choke-line friction: the exact pairs find what a scan of 10 ft finds, or a little less."""
    chance, document = random.Random(seed), random_well(seed)
    cut = chance.uniform(0.5, 2.5)
    for point in document["ground"]["fracture"]:
        point["emw_ppg"] -= cut
    document["site"]["choke_line_psi"] = chance.choice([None, 120.0])
    document["policy"] = {"depths": {"kick_intensity_ppg": chance.choice([0.0, 0.3, 0.5, 1.0])}}
    program = program_of(parse(document), CATALOGUE)
    made, strings = program.well, program.laid.strings
    for above, below in pairwise(strings[1:]):
        shoe, mud, bottom = above.shoe_md_ft, below.mud_ppg, below.shoe_md_ft
        found = least(made, below.bit_in, shoe, mud, bottom).volume_bbl
        plain = scan(made, open_hole(made, below.bit_in), shoe, mud, bottom, 10.0)
        assert (np.isinf(found) and np.isinf(plain)) or plain - 1.0 < found <= plain + 0.03
        if np.isfinite(found):
            assert give(made, below.bit_in, [shoe], [mud], bottom, found - 1e-6) == [True]
            assert give(made, below.bit_in, [shoe], [mud], bottom, found + 1e-6) == [False]


@pytest.mark.parametrize("seed", range(4))
def test_many_shoes_with_their_muds_are_the_single_ones(seed):
    """The search asks for many shoes at once what the judge asks for one."""
    made = build_well(parse(random_well(seed)))
    bottom = made.path.total_md_ft
    shoes = np.arange(1000.0, bottom - 100, 130.0)
    muds = np.round(13.5 - 3.0 * shoes / bottom, 1)
    volumes = [least(made, 12.25, s, m, bottom).volume_bbl for s, m in zip(shoes, muds, strict=True)]
    for asked in (10.0, 50.0, 200.0):
        assert give(made, 12.25, shoes, muds, bottom, asked) == [v >= asked for v in volumes]


@given(st.floats(500, 9000), st.floats(10, 900), st.floats(9.6, 12.0))
def test_a_deeper_shoe_and_heavier_mud_never_lower_it(shoe, deeper, mud):
    """In uniform ground; heavier mud leaves less of the same kick to hold."""
    made = uniform()
    base = least(made, 8.5, shoe, mud, 10_000.0).volume_bbl
    assert least(made, 8.5, min(shoe + deeper, 9900.0), mud, 10_000.0).volume_bbl >= base - 1e-6
    assert least(made, 8.5, shoe, mud + 0.1, 10_000.0).volume_bbl >= base - 1e-6
    assert least(made, 8.5, shoe, mud, 10_000.0, intensity=0.6).volume_bbl <= base + 1e-6


def test_kicks_inside_the_hole_count_and_the_curve_shows_them():
    made = uniform(ground__pore=points((30, 9), (7000, 9), (9000, 10.5), (10_000, 10)))
    found = least(made, 12.25, 4000.0, 10.9, 10_000.0)
    assert found.kick_tvd_ft == 9000.0, "the pore peak inside the section is worse than its end"
    kicks = np.array([4100.0, 9000.0, 10_000.0])
    curve = tolerance_against_depth(made, open_hole(made, 12.25), 4000.0, 10.9, kicks)
    assert np.isinf(curve[0]), "a hundred feet under the shoe a bubble may fill the whole open hole"
    assert curve[1] == pytest.approx(found.volume_bbl, rel=1e-12)
    assert curve[2] > curve[1]


def test_a_kick_that_breaks_its_own_rock_is_none_at_all():
    """Pore 9.0 with 0.5 of intensity in rock of 9.6 and of 9.4 ppg at total depth."""
    for strength, volume in ((9.501, "some"), (9.499, "none")):
        rock = points((30, 14), (9000, 14), (10_000, strength))
        found = least(uniform(ground__fracture=rock), 8.5, 6000.0, 9.3, 10_000.0).volume_bbl
        assert (found == 0.0) == (volume == "none")


def test_not_limited_only_where_nothing_can_break():
    """Full of gas from 10,000 ft the shoe at 6,000 ft sees 4,935.1 − 400 = 4,535.1 psi: 14.55 ppg."""
    for strength, limited in ((14.54, True), (14.56, False)):
        made = uniform(ground__fracture=points((30, strength), (10_000, strength)))
        assert math.isfinite(least(made, 8.5, 6000.0, 9.5, 10_000.0).volume_bbl) is limited


def test_missing_data_is_unknown():
    """Rock not known to the end, pore not known under the shoe, a mud no heavier than the gas."""
    shallow = uniform(ground__fracture=points((30, 14), (5000, 14)))
    gap = uniform(ground__pore=points((7000, 9), (10_000, 9)))
    for made in (shallow, gap):
        assert least(made, 8.5, 6000.0, 9.5, 10_000.0) is None
        assert give(made, 8.5, [6000.0], [9.5], 10_000.0, 1.0) == [False]
    assert least(gap, 8.5, 7000.0, 9.5, 10_000.0) is not None
    heavy_gas = uniform(policy={"depths": {"influx_psi_ft": 0.4}})
    assert least(heavy_gas, 8.5, 6000.0, 7.7, 10_000.0) is None, "7.7 ppg weighs 0.4 psi/ft, as the gas"
    assert least(heavy_gas, 8.5, 6000.0, 7.8, 10_000.0) is not None


def test_a_path_that_climbs_again_is_judged_from_its_shallowest_to_its_deepest():
    """The rock is weak only at 5,000 ft, where the path comes back to after 6,000 ft."""
    bent = {"md_ft": 6000.0, "inclination_deg": 0.0}, {"md_ft": 6900.0, "inclination_deg": 90.0}
    up = {"md_ft": 7300.0, "inclination_deg": 120.0}, {"md_ft": 10_000.0, "inclination_deg": 120.0}
    made = uniform(
        trajectory__stations=[{"md_ft": 0.0}, *bent, *up],
        ground__fracture=points((30, 14), (5190, 14), (5200, 10), (5300, 14), (10_000, 14)),
    )
    low, high = made.path.span(6000.0, 10_000.0)
    assert low < 5200 < 6000 < high
    assert made.path.lows(np.array([5000.0, 6000.0, 9900.0]), 10_000.0) == pytest.approx([5000.0, low, low], abs=1e-6)
    assert least(made, 8.5, 6000.0, 9.5, 10_000.0).weak_tvd_ft == 5200.0
