"""What is remembered never changes an answer, and unchanged parts of a document are the same objects again."""

import copy
import json
import random

import pytest

from knollstack.core.base.remember import forget_all, remembered
from knollstack.core.base.working import headline, recording
from knollstack.core.document.policy import Policy
from knollstack.core.evaluation.evaluate import workings
from knollstack.core.ground.well import build_well
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.helpers import CATALOGUE, demo, many, put, run

WELLS = [json.loads(text) for text in documents()[1:]]


def edited(document, chance):
    """One edit as a person makes it: a shoe, a mud, wear, a top of cement, a policy, a profile point."""
    changed = copy.deepcopy(document)
    i = chance.randrange(1, len(changed["strings"]) - 1)
    what = chance.randrange(6)
    string = changed["strings"][i]
    if what == 0:
        string["shoe_md_ft"] += chance.choice((-20.0, 10.0, 30.0))
    elif what == 1:
        string["mud_ppg"] = round(9.0 + chance.random(), 1)
    elif what == 2:
        string["wear_percent"] = float(chance.randrange(0, 20))
    elif what == 3:
        put(changed, ["policy", "mud", "trip_margin_ppg"], round(0.2 + 0.3 * chance.random(), 2))
    elif what == 4:
        put(changed, ["policy", "pipe", "burst_backup"], chance.choice(("pore", "mud", "mix water")))
    else:
        changed["ground"]["pore"][-1]["emw_ppg"] = round(changed["ground"]["pore"][-1]["emw_ppg"] + 0.01, 3)
    return changed


@pytest.mark.parametrize("k", range(len(WELLS)))
def test_a_run_of_edits_is_evaluated_as_each_alone_from_nothing(k):
    chance = random.Random(k)
    document = WELLS[k]
    run_of = [document]
    for _ in range(many(3)):
        document = edited(document, chance)
        run_of.append(document)
    warm = [run(d).model_dump_json() for d in run_of]
    for d, was in zip(run_of, warm, strict=True):
        forget_all()
        assert run(d).model_dump_json() == was


def test_a_moved_shoe_leaves_the_parts_beside_it_the_same_objects():
    one, other = demo(), demo()
    other["strings"][2]["shoe_md_ft"] += 10.0
    a, b = parse(one), parse(other)
    assert a.ground is b.ground
    assert a.trajectory is b.trajectory
    whole = json.loads(parse(one).model_dump_json())["policy"]
    assert list(whole) == list(Policy.model_fields)
    c, d = parse(one | {"policy": whole}), parse(other | {"policy": copy.deepcopy(whole)})
    for group in Policy.model_fields:
        assert getattr(c.policy, group) is getattr(d.policy, group), group
    assert build_well(c) is build_well(d)
    assert a.strings[1] is b.strings[1]
    assert a.strings[2] is not b.strings[2]


def test_what_is_recorded_is_worked_and_not_remembered():
    calls = []

    @remembered(4, traced=True)
    def squared(x):
        calls.append(x)
        return x * x

    assert [squared(3), squared(3)] == [9, 9]
    assert calls == [3]
    with recording(), headline("any"):
        assert squared(3) == 9
    assert calls == [3, 3]
    for x in range(10):
        squared(x)
    assert len(squared.kept) == 4, "no more than its size"


def test_inputs_of_a_working_that_are_results_open_into_theirs():
    """Burst of the surface casing: its load opens into the test pressure, and that into the surface pressure."""
    call = workings(parse(demo()), CATALOGUE)["pipe/1/burst"][-1]
    for name, formula in (
        ("load_value", "burst_load"),
        ("internal_psi", "pressure_under"),
        ("surface_psi", "casing_test_pressure"),
        ("surface_psi", "lesser_surface_pressure"),
        ("from_pore_psi", "gas_gradient_top"),
    ):
        inner = call.sources[name]
        assert inner.formula.name == formula
        assert inner.result == call.inputs[name]
        call = inner
