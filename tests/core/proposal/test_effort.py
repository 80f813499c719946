"""A search that has gone far enough says so, and is never taken for one that found nothing."""

import itertools
import json

import pytest

from knollstack.core.proposal import search
from knollstack.core.proposal.effort import CUT, CutShortError, Effort
from knollstack.core.proposal.schools import both_schools
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.helpers import CATALOGUE, empty_demo, find, policy, run


def gaps(count, **other):
    """The demo ground in layers of which every other one takes no shoe."""
    document = empty_demo()
    top, base = 30.0, 12_600.0
    edges = [top + (base - top) * i / count for i in range(count + 1)]
    document["ground"]["zones"] = [
        {
            "id": f"z{i}",
            "name": f"Layer {i}",
            "top_tvd_ft": edges[i],
            "base_tvd_ft": edges[i + 1],
            "shoe_allowed": bool(i % 2),
        }
        for i in range(count)
    ]
    document["policy"] = policy(**other)
    return document


def test_work_is_counted_to_the_last_unit():
    effort = Effort(2.0)
    effort.spend(2.0)
    with pytest.raises(CutShortError):
        effort.spend(0.1)
    with pytest.raises(CutShortError):
        Effort(9.0, lambda: False).spend(1.0)


def test_dead_ends_are_sought_once():
    """Without a program every way up ends in the same few places: their number grows with the layers, not by powers."""
    spent = []
    for count in (20, 40, 80):
        evaluation = run(gaps(count, diverter_limit_ft=200.0))
        assert find(evaluation, "depths", "stop"), "there is no program, and that is said"
        design = parse(gaps(count, diverter_limit_ft=200.0))
        from knollstack.core.proposal.laid_out import laid_out

        spent.append(laid_out(design, CATALOGUE).proposal.effort)
    assert spent[1] < 5 * spent[0]
    assert spent[2] < 5 * spent[1]


@pytest.mark.parametrize("method", ["bottom up", "top down"])
def test_a_proposal_that_was_cut_is_unknown(monkeypatch, method):
    from knollstack.core.proposal import laid_out

    document = gaps(12, method=method)
    for module in (search, laid_out):
        monkeypatch.setattr(module, "MOST_PROPOSED", 0.5)
    evaluation = run(json.loads(json.dumps(document)) | {"name": f"cut {method}"})
    (found,) = [f for f in find(evaluation, "depths") if f.message == CUT]
    assert found.severity == "unknown"
    assert evaluation.path[1].state == "blank", "nothing is good"


@pytest.mark.parametrize("questions", [0, 3, 40])
def test_all_programs_are_sought_as_long_as_one_lets_it(questions):
    left = iter(range(questions))
    found = both_schools(parse(json.loads(documents()[0])), CATALOGUE, lambda: next(left, None) is not None)
    assert found.cut
    assert found.failure == CUT
    assert found.bottom_up, "what was found before is shown"


def test_what_frees_a_program_is_cut_too_and_the_search_before_it_is_not():
    document = gaps(4, diverter_limit_ft=200.0)
    asked = itertools.count()
    whole = both_schools(parse(document), CATALOGUE, lambda: next(asked) >= 0)
    assert (whole.cut, whole.reliefs_cut) == (False, False)
    left = iter(range(next(asked) - 1))
    cut = both_schools(parse(document), CATALOGUE, lambda: next(left, None) is not None)
    assert (cut.cut, cut.reliefs_cut) == (False, True)
    assert cut.failure == whole.failure, "no program exists: that much is sure"
    assert len(cut.reliefs) <= len(whole.reliefs)
