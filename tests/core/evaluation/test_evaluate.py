"""The evaluation as a whole: pure, complete, and with a working for every headline number."""

import json

import pytest

from knollstack.core.base.units import UnitSet, fraction, plain, shown, table
from knollstack.core.evaluation.evaluate import evaluate, workings
from knollstack.core.pipe.judged import judge_sections
from knollstack.core.reading.read import parse
from tests.helpers import CATALOGUE, demo, empty_demo, framed, run, surface_psi


def test_pure():
    first, second = run(demo()), run(demo())
    assert first == second
    assert first.model_dump_json() == second.model_dump_json()
    assert json.loads(first.model_dump_json())["strings"][2]["shoe_md_ft"] == 7000.0


def headline_numbers(document):
    """Key of each working, and the number shown for it."""
    evaluation = run(document)
    yield (
        "wellhead/cut_off",
        {"surface_casing_in": evaluation.wellhead.surface_cut_in, "conductor_in": evaluation.wellhead.conductor_cut_in},
    )
    for i in range(len(evaluation.strings)):
        kick, mud, cement = evaluation.depths.strings[i].kick, evaluation.mud.strings[i], evaluation.cement.strings[i]
        if kick:
            yield f"depths/{i}/kick_tolerance", kick.tolerance_bbl
            if kick.at_shoe_bbl is not None:
                yield f"depths/{i}/kick_tolerance_at_shoe", kick.at_shoe_bbl
            yield f"depths/{i}/maasp", kick.maasp_psi
        if mud.overbalance_psi is not None:
            yield f"mud/{i}/overbalance", mud.overbalance_psi
            yield f"mud/{i}/hole_volume", mud.hole_volume_bbl
        for load in evaluation.pipe.strings[i].loads:
            yield f"pipe/{i}/{load.kind}", load.factor
        if cement.applies:
            yield f"cement/{i}/sacks", cement.sacks
            yield f"cement/{i}/displacement", cement.displacement_bbl
            yield f"cement/{i}/column", cement.greatest_emw_ppg
        yield f"wellhead/{i}/surface_pressure", surface_psi(document, i)


@pytest.mark.parametrize("document", [demo(), empty_demo()], ids=["demo", "proposal"])
def test_the_working_is_the_calculation(document):
    """The last step of each working gives the very number that the evaluation shows."""
    records = workings(parse(document), CATALOGUE)
    numbers = dict(headline_numbers(document))
    assert len(numbers) > 20
    for key, number in numbers.items():
        last = records[key][-1].result
        assert last == (pytest.approx(number, rel=1e-12) if not isinstance(number, dict) else number), key
        assert all(step.formula.source for step in records[key])


def test_loads_along_the_string_pass_through_their_governing_points():
    for index in (1, 2, 3):
        program, string, frame = framed(demo(), index)
        judged = judge_sections(program.well.policy.pipe, frame, string.sections)
        for load in run(demo()).pipe.strings[index].loads:
            point = judged.worst(load.kind)
            assert float(frame.md_ft[point.node]) == load.at_md_ft
            assert point.share == pytest.approx(load.factor / load.required, rel=1e-12), (index, load.kind)


def test_moving_a_shoe_up_breaks_kick_tolerance_with_a_remedy():
    document = demo()
    document["strings"][2]["shoe_md_ft"] = 6500.0
    finding = next(f for f in run(document).findings if f.step == "depths")
    assert finding.place == "/strings/2/shoe_md_ft"
    assert finding.value.value < finding.limit.value == 25.0
    assert plain(finding.remedies[0].label).startswith("Move the shoe 3")
    moved = finding.remedies[0].changes[0].value
    document["strings"][2]["shoe_md_ft"] = moved - 10
    assert any(f.step == "depths" for f in run(document).findings), "ten feet less does not give it"


def test_units_round_trip_and_read_as_people_write():
    assert [fraction(v) for v in (9.625, 13.375, 7.0, 0.5, 8.525)] == ["9 5/8", "13 3/8", "7", "1/2", "8.525"]
    metric = UnitSet("metric")
    assert shown(4921.259842519685, "depth", metric) == "1,500.0 m"
    assert shown(212.0, "temperature", metric) == "100 °C"
    assert shown(8.3454, "emw", metric) == "1.000 SG"
    assert (shown(11_965.0, "mass"), shown(11_965.0, "mass", metric)) == ("11,965 lb", "5,427 kg")
    mixed = UnitSet("field", {"emw": "psi/ft", "size": "mm", "depth": "furlong"})
    assert [shown(10.0, "emw", mixed), shown(9.625, "size", mixed)] == ["0.519 psi/ft", "244.5 mm"]
    assert shown(100.0, "depth", mixed) == "100 ft", "an unknown unit is not taken for another"
    for quantity, units in table().items():
        assert (units.options[0].factor, units.options[0].offset) == (1.0, 0.0), "the first unit is the core's"
        for unit in units.options:
            back = ((1500.0 - unit.offset) / unit.factor) * unit.factor + unit.offset
            assert back == pytest.approx(1500.0, rel=1e-12), (quantity, unit)


def test_evaluate_does_not_need_a_name_or_strings():
    evaluation = evaluate(parse({"format": "knollstack.well", "version": 6, "name": ""}), CATALOGUE)
    assert evaluation.strings == ()
    assert {p.state for p in evaluation.path} <= {"blank", "incomplete"}
