"""A string of thousands of nodes: asked a part at a time, it gets the pipe and the findings that all nodes at once give."""

import numpy as np
import pytest

from knollstack.core.base.remember import forget_all
from knollstack.core.pipe import coarse
from knollstack.core.pipe.choose import best_sections
from knollstack.core.pipe.coarse import at_most, failing_nodes, is_long, least_of, restricted, telling_nodes
from knollstack.core.pipe.judge import exposed_of
from knollstack.core.pipe.judged import stands
from knollstack.core.pipe.order import candidates
from knollstack.core.pipe.strength import least_shares
from tests.helpers import CATALOGUE, demo, framed, policy, run

TOTAL_FT = 12_600.0


def surveyed(seed, count=300, **values):
    """The demo well in a survey of many stations, each with a dogleg of its own."""
    draw = np.random.default_rng(seed)
    document = demo()
    steps = np.linspace(0, TOTAL_FT, count)
    turns = np.cumsum(draw.uniform(-0.3, 0.3, count)).clip(-4, 4) + 4
    turns[0] = 0.0
    document["trajectory"] = {
        "stations": [
            {"md_ft": float(md), "inclination_deg": float(round(a, 3))} for md, a in zip(steps, turns, strict=True)
        ]
    }
    document["strings"][-1]["shoe_md_ft"] = TOTAL_FT
    document["policy"] = policy(burst_backup="pore", **values)
    return document


@pytest.mark.parametrize(("seed", "values"), [(1, {}), (2, {"connections": ["STC"]}), (1, {"derate_per_f": 0.002})])
def test_a_part_at_a_time_gives_what_all_at_once_gives(monkeypatch, values, seed):
    document = surveyed(seed, **values)
    assert is_long(framed(document, 3)[2])
    forget_all()
    found = run(document).judged("pipe")
    monkeypatch.setattr(coarse, "FEW", 10**6)
    forget_all()
    assert found == run(document).judged("pipe")


@pytest.mark.parametrize("most", [2, 3])
def test_a_string_of_sections_found_on_a_part_of_the_nodes_stands_on_all(most):
    program, string, frame = framed(surveyed(1, most_sections=most), 1)
    best = best_sections(program.well, CATALOGUE, string, exposed_of(program, string), frame, most)
    assert 1 < len(best.sections) <= most
    assert not len(failing_nodes(program.well.policy.pipe, frame, best.sections))
    single = best_sections(program.well, CATALOGUE, string, exposed_of(program, string), frame, 1)

    def cost(sections):
        return sum(s.pipe.cost_per_ft * s.length_ft for s in sections)

    assert not single.sections or cost(best.sections) <= cost(single.sections)


def test_a_search_that_was_cut_says_so():
    document = surveyed(1, count=40, most_sections=2)
    program, string, frame = framed(document, 1)
    whole = best_sections(program.well, CATALOGUE, string, exposed_of(program, string), frame, 2)
    cut = best_sections(program.well, CATALOGUE, string, exposed_of(program, string), frame, 2, effort=10.0)
    assert (whole.cut, cut.cut) == (False, True)
    assert stands(program.well.policy.pipe, frame, cut.sections) or not cut.sections


def test_no_pipe_is_better_on_all_nodes_than_on_the_telling_ones():
    document = surveyed(3)
    program, string, frame = framed(document, 2)
    pipes = candidates(program.well, CATALOGUE, string, exposed_of(program, string))
    bound = at_most(program.well.policy.pipe, frame, pipes)
    assert 10 < len(telling_nodes(frame)) < len(frame.md_ft) / 2
    exact = np.nan_to_num(least_shares(program.well.policy.pipe, frame, pipes), nan=-1.0)
    assert np.all(bound >= exact - 1e-12)
    assert [least_of(program.well.policy.pipe, frame, p) for p in pipes] == exact.tolist()


def test_a_restricted_frame_has_the_same_loads_on_its_nodes():
    frame = framed(surveyed(4), 2)[2]
    nodes = telling_nodes(frame)
    part = restricted(frame, nodes)
    assert part.inside_psi.shape == (len(frame.cases), len(nodes))
    assert part.md_ft.tolist() == frame.md_ft[nodes].tolist()
    assert part.below_tvd_ft.tolist() == frame.below_tvd_ft[nodes].tolist()
    assert part.shoe_inside_psi is frame.shoe_inside_psi
