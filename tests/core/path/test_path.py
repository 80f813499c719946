"""The well path: exact on arcs, its inverse, and the planned shapes."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from knollstack.core.path.formulas import minimum_curvature
from knollstack.core.path.planning import PathPlan, PlanError, hold_angle_rad, radius_ft, stations_of
from knollstack.core.path.trajectory import DepthError, build_path

LEGS = st.lists(st.tuples(st.floats(50, 900), st.floats(0, 120), st.floats(0, 360)), min_size=1, max_size=7)


def stations(legs):
    found, md = [(0.0, 0.0, 0.0)], 0.0
    for length, inclination, azimuth in legs:
        md += length
        found.append((md, inclination, azimuth))
    return found


def path_of(planned):
    return build_path([(s.md_ft, s.inclination_deg, s.azimuth_deg) for s in planned])


def walked(points, step_ft=1.0):
    """North, east and depth by a plain walk: the direction turned evenly from station to station, foot by foot."""
    place, track = np.zeros(3), [np.zeros(3)]
    depths = [0.0]

    def direction(inclination, azimuth):
        i, a = math.radians(inclination), math.radians(azimuth)
        return np.array([math.sin(i) * math.cos(a), math.sin(i) * math.sin(a), math.cos(i)])

    for (md1, i1, a1), (md2, i2, a2) in pairwise(points):
        first, last = direction(i1, a1), direction(i2, a2)
        angle = math.acos(max(-1.0, min(1.0, float(first @ last))))
        steps = max(1, round((md2 - md1) / step_ft))
        for k in range(steps):
            share = (k + 0.5) / steps
            if angle < 1e-9:
                way = first
            else:
                way = (math.sin((1 - share) * angle) * first + math.sin(share * angle) * last) / math.sin(angle)
            place = place + way * (md2 - md1) / steps
            track.append(place)
            depths.append(md1 + (md2 - md1) * (k + 1) / steps)
    return np.array(depths), np.array(track)


def test_quarter_circle_is_exact():
    """Building 90° over 1,500 ft along hole is a circle of radius 1,500/(π/2) = 954.93 ft."""
    path = build_path([(0, 0, 0), (1000, 0, 0), (2500, 90, 0), (4000, 90, 0)])
    radius = 1500 / (math.pi / 2)
    assert path.total_tvd_ft == pytest.approx(1000 + radius, abs=1e-9)
    assert path.tvd(1000 + 750) == pytest.approx(1000 + radius * math.sin(math.pi / 4), abs=1e-6)
    assert path.tvd(3000) == pytest.approx(1000 + radius, abs=1e-6)
    with pytest.raises(DepthError, match="does not reach 2,000 ft TVD; its deepest point is 1,955 ft"):
        path.md(2000)


@given(
    st.lists(st.tuples(st.floats(50, 900), st.floats(0, 80), st.floats(0, 360)), min_size=1, max_size=8),
    st.floats(0, 1),
)
def test_md_and_tvd_invert_each_other(legs, share):
    stations, md = [(0.0, 0.0, 0.0)], 0.0
    for length, inclination, azimuth in legs:
        md += length
        stations.append((md, inclination, azimuth))
    path = build_path(stations)
    depth = share * path.total_md_ft
    assert path.md(path.tvd(depth)) == pytest.approx(depth, abs=1e-3)
    assert float(path.md_at(path.tvd(depth))) == pytest.approx(depth, abs=1e-3)
    assert path.tvd(path.total_md_ft) == pytest.approx(path.total_tvd_ft, abs=1e-6)


@settings(max_examples=25, deadline=None)
@given(LEGS)
def test_a_path_is_where_a_plain_walk_comes_to(legs):
    """Every coordinate at every foot, past horizontal too, against a walk along the turning direction."""
    points = stations(legs)
    path = build_path(points)
    md, track = walked(points)
    north, east = path.plan_at(md)
    assert np.max(np.abs(path.tvd_at(md) - track[:, 2])) < 0.02
    assert np.max(np.abs(north - track[:, 0])) < 0.02
    assert np.max(np.abs(east - track[:, 1])) < 0.02
    assert path.deepest_tvd_ft == pytest.approx(np.max(track[:, 2]), abs=0.02)


@settings(max_examples=50, deadline=None)
@given(LEGS, st.floats(0, 1))
def test_a_tvd_is_first_reached_where_a_scan_first_finds_it(legs, share):
    """On a path that may climb again, a TVD is crossed more than once: the first crossing counts."""
    path = build_path(stations(legs))
    wanted = share * path.deepest_tvd_ft
    found = path.md(wanted)
    assert path.tvd(found) == pytest.approx(wanted, abs=1e-3)
    above = np.arange(0.0, found - 0.05, 0.5)
    assert not np.any(path.tvd_at(above) > wanted + 1e-6), "nowhere above is it as deep"


def test_a_leg_by_hand():
    """From 15°, N20°E to 25°, N45°E over 100 ft: cos β = cos 10° − sin 15°·sin 25°·(1 − cos 25°) = 0.97456, β = 12.952°;
    ratio factor 1.004279; 50·(0.96593 + 0.90631)·1.004279 = 94.012 ft down, 27.218 ft north, 19.451 ft east.
    """
    leg = minimum_curvature(md1_ft=3500.0, inc1_deg=15.0, azi1_deg=20.0, md2_ft=3600.0, inc2_deg=25.0, azi2_deg=45.0)
    assert leg["dogleg_deg_100ft"] == pytest.approx(12.952, abs=0.001)
    assert [leg[k] for k in ("tvd_ft", "north_ft", "east_ft")] == pytest.approx([94.012, 27.218, 19.451], abs=0.001)


def test_depths_outside_the_well_are_refused_or_held_at_its_ends():
    path = build_path([(0, 0, 0), (5000, 0, 0)])
    assert path.is_straight
    for outside in (-1.0, 5000.01):
        with pytest.raises(DepthError, match="its deepest point is 5,000 ft"):
            path.md(outside)
    assert (float(path.md_at(6000.0)), float(path.tvd_at(7000.0)), path.md(5000.0005)) == (5000.0, 5000.0, 5000.0)
    bent = build_path([(0, 0, 0), (1000, 0, 0), (2000, 60, 90)])
    assert not bent.is_straight
    assert (float(bent.tvd_at(3000.0)), float(bent.md_at(9000.0))) == (bent.total_tvd_ft, 2000.0)


def test_knots_draw_an_arc_within_a_hand():
    """Straight lines between the knots stay within half a foot of the arc, and hold its lowest point."""
    path = build_path([(0, 0, 0), (1000, 0, 0), (3000, 120, 0)])
    knots = path.knots_md_ft
    assert path.deepest_tvd_ft == pytest.approx(np.max(path.knots_tvd_ft), abs=1e-9)
    md = np.linspace(0, 3000, 4001)
    assert np.max(np.abs(np.interp(md, knots, path.knots_tvd_ft) - path.tvd_at(md))) < 0.5
    assert set(path.md_ft) <= set(knots)


def test_departure_is_along_the_plane_of_the_farthest_point():
    path = build_path([(0, 0, 0), (1000, 0, 0), (2000, 30, 300), (5000, 30, 300)])
    assert path.section_azimuth_deg == pytest.approx(300)
    held = 3000 * math.sin(math.radians(30))
    assert float(path.departure_at(5000.0) - path.departure_at(2000.0)) == pytest.approx(held, abs=1e-6)
    assert float(path.departure_at(500.0)) == pytest.approx(0.0, abs=1e-9)


@pytest.mark.parametrize(
    "plan",
    [
        {"shape": "build and hold", "target_tvd_ft": 10_000, "target_departure_ft": 4000, "kick_off_ft": 2000},
        {
            "shape": "S",
            "target_tvd_ft": 10_000,
            "target_departure_ft": 3000,
            "kick_off_ft": 2000,
            "end_inclination_deg": 10,
        },
        {
            "shape": "build and hold",
            "target_tvd_ft": 3500,
            "target_departure_ft": 5000,
            "kick_off_ft": 500,
            "build_deg_100ft": 5,
        },
    ],
)
def test_a_planned_path_hits_its_target_at_its_rates(plan):
    stations = stations_of(PathPlan(azimuth_deg=60, **plan))
    path = build_path([(s.md_ft, s.inclination_deg, s.azimuth_deg) for s in stations])
    assert path.total_tvd_ft == pytest.approx(plan["target_tvd_ft"], abs=0.05)
    assert float(path.departure_at(path.total_md_ft)) == pytest.approx(plan["target_departure_ft"], abs=0.05)
    assert path.section_azimuth_deg == pytest.approx(60, abs=1e-3)
    assert max(path.dogleg_deg_100ft) <= plan.get("build_deg_100ft", 3.0) + 0.01


def test_a_horizontal_lands_at_its_depth_and_impossible_targets_are_refused():
    plan = PathPlan(shape="horizontal", target_tvd_ft=8000, kick_off_ft=2000, build_deg_100ft=6, lateral_ft=3000)
    stations = stations_of(plan)
    path = build_path([(s.md_ft, s.inclination_deg, s.azimuth_deg) for s in stations])
    assert (stations[-1].inclination_deg, radius_ft(6)) == (90.0, pytest.approx(18_000 / (6 * math.pi)))
    assert path.total_tvd_ft == pytest.approx(8000, abs=0.05)
    for bad, why in (
        ({"shape": "horizontal", "target_tvd_ft": 2500, "kick_off_ft": 2000}, "of depth below the kick-off"),
        ({"shape": "build and hold", "target_tvd_ft": 1500, "kick_off_ft": 2000}, "below the kick-off"),
        (
            {"shape": "build and hold", "target_tvd_ft": 3000, "target_departure_ft": 1500, "kick_off_ft": 2000},
            "build radius",
        ),
    ):
        with pytest.raises(PlanError, match=why):
            stations_of(PathPlan(**bad))


@settings(max_examples=30, deadline=None)
@given(
    kick_off=st.floats(300, 4000),
    down=st.floats(2500, 9000),
    away=st.floats(0, 8000),
    build=st.floats(1.5, 8),
    drop=st.floats(1, 4),
    end=st.sampled_from([0.0, 8.0, 20.0]),
    shape=st.sampled_from(["build and hold", "S"]),
)
def test_a_random_target_is_hit_or_refused_for_a_reason(kick_off, down, away, build, drop, end, shape):
    plan = PathPlan(
        shape=shape,
        target_tvd_ft=kick_off + down,
        target_departure_ft=away,
        kick_off_ft=kick_off,
        build_deg_100ft=build,
        drop_deg_100ft=drop,
        end_inclination_deg=end,
    )
    try:
        made = stations_of(plan)
    except PlanError:
        # refused only where it truly cannot be: the target within the radius, or past what 90° reaches
        radius, second = radius_ft(build), radius_ft(drop) if shape == "S" else 0.0
        bottom = math.radians(end) if shape == "S" else 0.0
        for degrees in np.arange(end if shape == "S" else 0.0, 90.0, 0.1):
            angle = math.radians(float(degrees))
            length = (down - radius * math.sin(angle) - second * (math.sin(angle) - math.sin(bottom))) / math.cos(angle)
            across = radius * (1 - math.cos(angle)) + length * math.sin(angle)
            across += second * (math.cos(bottom) - math.cos(angle))
            assert length < 0 or abs(across - away) > 0.01, f"a hold of {degrees:.1f}° would reach it"
        return
    path = path_of(made)
    assert path.total_tvd_ft == pytest.approx(plan.target_tvd_ft, abs=0.1)
    assert float(np.hypot(path.north_ft[-1], path.east_ft[-1])) == pytest.approx(away, abs=0.1)
    assert made[-1].inclination_deg == pytest.approx(
        end if shape == "S" else max(s.inclination_deg for s in made), abs=1e-3
    )
    turned = [d for s, d in zip(made, path.dogleg_deg_100ft, strict=True) if s.md_ft > kick_off + 1]
    assert max(turned, default=0.0) <= max(build, drop if shape == "S" else 0.0) * 1.01 + 0.01


def test_hold_angle_of_a_slant_by_hand():
    """Radius 1,909.86 ft; 2,090.14 ft past it and 8,000 ft down: √(2,090.14² + 8,000² − 1,909.86²) = 8,044.94 ft of hold."""
    radius = radius_ft(3.0)
    assert radius == pytest.approx(1909.86, abs=0.01)
    angle = hold_angle_rad(8000.0, 4000.0, radius)
    length = (8000.0 - radius * math.sin(angle)) / math.cos(angle)
    assert radius * (1 - math.cos(angle)) + length * math.sin(angle) == pytest.approx(4000.0, abs=1e-6)
    assert (length, math.degrees(angle)) == (pytest.approx(8044.94, abs=0.01), pytest.approx(27.997, abs=0.001))
    assert stations_of(PathPlan(shape="vertical", target_tvd_ft=9000))[-1].md_ft == 9000.0
