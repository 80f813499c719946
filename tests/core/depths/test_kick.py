"""Kick tolerance in a well: hand numbers, the weak point, and what must always hold."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from knollstack.core.depths.tolerance import least_at, open_hole, tolerance_at, tolerances
from knollstack.core.ground.well import build_well
from knollstack.core.reading.read import parse
from tests.helpers import points, well


def uniform(**parts):
    return build_well(parse(well(**parts)))


def test_by_hand_in_uniform_ground():
    """Shoe 6,000 ft, hole 8 1/2 in to 10,000 ft, mud 9.5 in pore 9.0 + 0.5 and fracture 14.0.

    P_w = 4,363.6; P_f = 0.0519481·9.5·10,000 = 4,935.1; H = (4,363.6 − 4,935.1 + 0.493506·4,000)/(0.393506) = 3,564.4.
    Pipe annulus (8.5² − 5²)/1,029.42 = 0.045899, collars 6 1/2 in × 600 ft: 0.029143 bbl/ft.
    At the weak point the bubble reaches down to 9,564.4 ft, 164.4 ft beside the collars:
    (0.045899·3,400 + 0.029143·164.4)·4,363.6/4,935.1 = 142.2 bbl. On bottom 0.029143·600 + 0.045899·2,964.4 = 153.5.
    """
    ground = uniform()
    section = open_hole(ground, 8.5)
    tolerance = tolerance_at(ground, section, 6000.0, 9.5, 10_000.0)
    assert tolerance.height_ft == pytest.approx(3564.4, abs=0.1)
    assert tolerance.volume_bbl == pytest.approx(142.2, abs=0.1)
    assert tolerance.weak_tvd_ft == 6000.0


def test_weak_point_below_the_shoe():
    """Fracture falls to 12.0 ppg at 8,000 ft: that depth, not the shoe, allows the least bubble."""
    ground = uniform(ground__fracture=points((30, 14), (7000, 14), (8000, 12), (9000, 14), (10_000, 14)))
    tolerance = tolerance_at(ground, open_hole(ground, 8.5), 6000.0, 9.5, 10_000.0)
    assert tolerance.weak_tvd_ft == 8000.0
    strong = uniform()
    assert tolerance.volume_bbl < tolerance_at(strong, open_hole(strong, 8.5), 6000.0, 9.5, 10_000.0).volume_bbl


@given(st.floats(500, 9000), st.floats(10, 900), st.floats(9.0, 12.0))
def test_deeper_shoe_and_heavier_mud_never_lower_it(shoe, deeper, mud):
    ground = uniform()
    section = open_hole(ground, 8.5)
    base = tolerance_at(ground, section, shoe, mud, 10_000.0)
    # in uniform ground a deeper shoe allows a bubble at least as high, until the open hole itself is shorter
    lower = tolerance_at(ground, section, min(shoe + deeper, 9900.0), mud, 10_000.0)
    room = 10_000.0 - lower.weak_tvd_ft
    assert lower.height_ft >= min(base.height_ft, room) - 1e-6
    # a kick is over pore pressure, not over the mud: more mud leaves less of it to hold
    heavier = tolerance_at(ground, section, shoe, mud + 0.1, 10_000.0)
    assert heavier.height_ft >= base.height_ft - 1e-6


def test_many_at_once_are_the_single_ones():
    ground = uniform(ground__pore=points((30, 9), (7000, 9), (9000, 10.5), (10_000, 10)))
    section = open_hole(ground, 12.25)
    tops, mud = np.array([2000.0, 4000.0, 6500.0]), np.array([10.8, 10.9, 11.0])
    kicks = np.array([7100.0, 9000.0, 9500.0])
    together = tolerances(ground, section, tops, mud, kicks).volume_bbl
    alone = [[tolerance_at(ground, section, t, m, k).volume_bbl for k in kicks] for t, m in zip(tops, mud, strict=True)]
    assert together == pytest.approx(np.array(alone), rel=1e-12)
    least = least_at(ground, section, 4000.0, 10.9, 10_000.0)
    assert least.kick_md_ft == 9000.0, "the pore peak inside the section is worse than its end"


def test_a_short_open_hole_does_not_count_as_little_tolerance():
    """Ten feet under the shoe a bubble may fill the whole open hole: nothing is limited by the rock there."""
    ground = uniform()
    kicks = np.array([6010.0, 10_000.0])
    found = tolerances(ground, open_hole(ground, 8.5), np.array([6000.0]), np.array([9.5]), kicks)
    assert found.limited.tolist() == [[False, True]]


def test_no_fracture_data_is_unknown():
    ground = uniform(ground__fracture=points((30, 14), (5000, 14)))
    assert tolerance_at(ground, open_hole(ground, 8.5), 6000.0, 9.5, 10_000.0) is None
    assert least_at(ground, open_hole(ground, 8.5), 6000.0, 9.5, 10_000.0) is None


def test_weak_points_against_a_plain_loop():
    rng = np.random.default_rng(3)
    nodes = np.sort(rng.uniform(100, 9_900, 40)).round()
    fracture = points((30, 14), *[(z, e) for z, e in zip(nodes, rng.uniform(12, 16, 40), strict=True)], (10_000, 16))
    ground = uniform(ground__fracture=fracture)
    tops, mud = np.array([1500.0, 3000.0, 6000.0]), np.array([9.6, 10.0, 9.8])
    kicks = np.array([6500.0, 8000.0, 10_000.0])
    found = tolerances(ground, open_hole(ground, 8.5), tops, mud, kicks).weak_tvd_ft
    for i, top in enumerate(tops):
        for k, kick in enumerate(kicks):
            inside = [top, *(z for z in nodes if top < z < kick)]
            room = [(ground.ground.fracture.one(z) - mud[i]) * z for z in inside]
            assert found[i, k] == inside[int(np.argmin(room))]
