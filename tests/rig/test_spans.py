"""Readings thinned: no peak is lost, none is made up, and no more are kept than may be."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from knollstack.rig.channels import Reading
from knollstack.rig.spans import Held, Span, Thinner, joined, thinned
from knollstack.rig.testing import points_of

VALUES = st.lists(st.tuples(st.integers(0, 500), st.floats(-1e6, 1e6)), min_size=1, max_size=60)


@given(VALUES)
def test_least_last_and_most_are_those_of_a_plain_loop(pairs):
    pairs = sorted(pairs, key=lambda p: p[0])
    thinner = Thinner()
    made = [s for at, v in pairs for s in thinner.add(Reading(at, {"pit_bbl": v}))] + list(thinner.end())
    by_span = {}
    for at, value in pairs:
        by_span.setdefault(at - at % 10, []).append(value)
    assert [(s.begins_s, s.values["pit_bbl"]) for s in made] == [
        (begins, (min(vs), vs[-1], max(vs))) for begins, vs in by_span.items()
    ]


def spans(count):
    return [
        Span(
            10 * i,
            10,
            {"pit_bbl": Held(float(i), float(i), float(i)), **({"hook_lbf": Held(1, 1, 1)} if i % 3 else {})},
        )
        for i in range(count)
    ]


@pytest.mark.parametrize("keep", [10, 37, 100])
@pytest.mark.parametrize("count", [5, 38, 400])
def test_thinned_spans_keep_every_extreme_and_the_newest_as_they_were(count, keep):
    old, new = spans(count), thinned(spans(count), keep)
    assert len(new) <= max(keep, 1)
    assert min(s.values["pit_bbl"].low for s in new) == 0.0
    assert max(s.values["pit_bbl"].high for s in new) == count - 1
    assert [s.begins_s for s in new] == sorted(s.begins_s for s in new)
    assert new[-1] == old[-1]
    assert sum(s.span_s for s in new) == 10 * count, "no time is lost"
    assert (new == old) == (count <= keep)


def test_two_spans_as_one():
    one = joined(
        Span(0, 10, {"pit_bbl": Held(1, 2, 3)}), Span(10, 10, {"pit_bbl": Held(0, 5, 2), "hook_lbf": Held(7, 8, 9)})
    )
    assert (one.begins_s, one.span_s) == (0, 20)
    assert one.values == {"pit_bbl": Held(0, 5, 3), "hook_lbf": Held(7, 8, 9)}


def test_a_clock_that_is_set_back_ends_the_span():
    thinner = Thinner()
    assert list(thinner.add(Reading(100, {"pit_bbl": 1.0}))) == []
    assert [s.begins_s for s in thinner.add(Reading(50, {"pit_bbl": 2.0}))] == [100]


def held(**values):
    return {key: Held(v, v, v) for key, v in values.items()}


def test_points_of_a_test_by_the_cement_unit_and_by_the_rigs_pumps():
    unit = [
        Span(60 * i, 60, held(cement_bbl=10.0 + 0.25 * i, cement_psi=50.0 * i, pump_psi=9.0, flow_in_gpm=0.0))
        for i in range(4)
    ]
    assert points_of(unit) == [(0.0, 0.0), (0.25, 50.0), (0.5, 100.0), (0.75, 150.0)]
    pumps = [Span(60 * i, 60, held(pump_psi=50.0 * i, flow_in_gpm=21.0 if i else 0.0)) for i in range(4)]
    assert points_of(pumps) == [(0.5, 50.0), (1.0, 100.0), (1.5, 150.0)] or points_of(pumps)[0] == (0.0, 0.0)
    assert points_of([Span(0, 60, held(pit_bbl=1.0))]) == []
    assert len(points_of([Span(60 * i, 60, held(cement_bbl=float(i), cement_psi=1.0)) for i in range(1000)])) <= 200
