"""Nothing is tested above what stands, and no cement job begun over rock or casing: over made-up wells, and at each limit."""

import pytest

from knollstack.core.base.units import plain
from tests.core.runsheet.wells import demo_well, line_of
from tests.helpers import elements, find, many, run
from tests.legal_wells import legal_well

HELD_STOPS = ("the rock breaks at", "pore pressure is", "the burst factor", "the collapse factor")


def pressures(line):
    return [w.value for w in line.text if not isinstance(w, str) and w.quantity == "pressure"]


def rated(judged, index):
    """The least of what a test over a string presses: rams, and the piece that they stand on."""
    found = [e.class_psi for e in judged.preventers.strings[index].elements if e.kind != "annular" and e.class_psi]
    pieces = [p.top_psi for p in judged.wellhead.pieces if p.string_id == judged.program.strings[index].id]
    return min([*found, *pieces], default=float("inf"))


def wells():
    return [demo_well(1), demo_well(2), demo_well(3), *(legal_well(seed) for seed in range(40, 40 + many(14)))]


@pytest.mark.parametrize("document", wells(), ids=lambda d: d["name"])
def test_no_test_presses_what_stands_over_its_rating(document):
    judged = run(document)
    if not judged.program.strings:
        return
    for line in judged.sheet().lines:
        if line.string is None or line.held is not None or not pressures(line):
            continue
        kind, above = line.key.split("/")[1], judged.program.previous(judged.program.strings[line.string])
        if kind in ("test", "cup", "bonnets"):
            on = above.index if kind == "bonnets" else line.string
            while judged.preventers.strings[on].elements == ():
                on -= 1
            assert max(pressures(line)) <= rated(judged, on) + 1e-6, (line.key, plain(line.text))
        if kind == "cup":
            burst = judged.pipe.strings[line.string].sections[0].burst_psi
            assert pressures(line)[0] <= judged.program.well.policy.preventers.cup_share * burst + 1e-6
        if kind == "casing-test":
            row = judged.pipe.strings[above.index]
            assert not [x for x in row.loads if x.stage == "testing" and x.factor < x.required * (1 - 1e-6)]


@pytest.mark.parametrize("document", wells(), ids=lambda d: d["name"])
def test_a_job_that_the_cement_step_stops_is_not_begun(document):
    judged = run(document)
    stops = [f for f in find(judged, "cement", "stop") if any(w in plain(f.message) for w in HELD_STOPS)]
    for line in judged.sheet().lines if judged.program.strings else ():
        if line.key.endswith("/job") and line.string is not None:
            own = judged.program.strings[line.string].path
            told = [f for f in stops if f.place.startswith(f"{own}/")]
            assert line.held is not None if told else line.held is None, (line.key, line.held, told)


def why(document, key):
    """Why a step is held, in words; nothing where it is not."""
    held = line_of(run(document), key).held
    return "" if held is None else plain(held.why)


def decided(test_psi, rams_psi=5000.0, spool_psi=5000.0, burst=1.1):
    """The land demo, 40 lb/ft N80 on its 9 5/8 in, with stack and spool over it of a class each."""
    document = demo_well()
    document["strings"][2] |= {"pipe": {"weight_ppf": 40.0, "grade": "N80", "connection": "LTC"}, "test_psi": test_psi}
    document["policy"]["pipe"] = {"factors": {"burst": burst}}
    rows = elements("pipe rams", "drilling spool", "blind rams", "annular")
    document["preventers"] = [{"id": "b1", "string": "s3", "class_psi": rams_psi, "elements": rows}]
    pieces = run(document).wellhead.pieces
    document["wellhead"] = {
        "pieces": [
            {"id": f"p{k}", "name": p.name, "height_in": p.height_in, "bore_in": p.bore_in, "string": p.string_id}
            | {"top_psi": spool_psi if k == 1 else p.top_psi, "bottom_psi": p.bottom_psi, "gap_in": p.gap_in}
            for k, p in enumerate(pieces)
        ]
    }
    return document


@pytest.mark.parametrize(
    ("changes", "told"),
    [
        ({"rams_psi": 3000.0}, ""),
        ({"rams_psi": 2999.0}, "it is over the class of the pipe rams, 2,999 psi"),
        ({"spool_psi": 3000.0}, ""),
        ({"spool_psi": 2999.0}, "it is over the class of the casing spool, 2,999 psi"),
    ],
)
def test_a_casing_test_stays_within_stack_and_wellhead(changes, told):
    assert why(decided(3000.0, **changes), "s4/casing-test") == told


@pytest.mark.parametrize("over", [1.0 - 1e-4, 1.0 + 1e-4])
def test_a_casing_test_asks_no_more_of_the_pipe_than_policy_allows(over):
    """The factor at which burst in the test is stood just so is what the default one leaves over."""
    share = run(decided(4700.0)).pipe.strings[2].test_share
    document = decided(4700.0, burst=1.1 * share * over)
    stops = [f for f in find(run(document), "pipe", "stop") if "Pressure test: burst" in plain(f.message)]
    told = why(document, "s4/casing-test")
    assert (told != "", stops != []) == (over > 1, over > 1)
    assert told in ("", "with policy's design factors the casing stands 100.0 % of its load")


@pytest.mark.parametrize(
    ("psi", "told"), [(9999.0, ""), (10_000.0, ""), (10_001.0, "it is over the class of the tubing spool, 10,000 psi")]
)
def test_tubing_is_tested_within_the_class_of_what_it_hangs_in(psi, told):
    document = demo_well()
    document["policy"]["completion"] = {"tubing_test_psi": psi}
    assert why(document, "end/land") == told


@pytest.mark.parametrize("over", [1.0 - 1e-4, 1.0 + 1e-4])
def test_tubing_is_tested_within_what_it_stands(over):
    """2.719 at 5,000 psi with policy's factor of tension put just under it and over it."""
    case = next(c for c in run(demo_well()).completion.completion.tubing.cases if c.name == "tubing test")
    document = demo_well()
    tubing = run(document).completion.completion.tubing
    document["completion"]["tubing"] = {k: getattr(tubing, k) for k in ("od_in", "weight_ppf", "grade", "connection")}
    document["policy"]["pipe"] = {"factors": {"burst": case.factors["burst"] * over}}
    assert (why(document, "end/land") != "") is (over > 1)


def test_the_joint_under_the_tree_is_tested_to_the_weaker_side():
    document = demo_well()
    document["completion"].setdefault("tree", {})["class_psi"] = 15_000.0
    assert pressures(line_of(run(document), "end/tree-joint")) == [10_000.0]
    document["completion"]["tree"]["class_psi"] = 5000.0
    assert pressures(line_of(run(document), "end/tree-joint")) == [5000.0]


@pytest.mark.parametrize(("low_psi", "told"), [(3500.0, ""), (3501.0, "its low-pressure test is over its high one")])
def test_a_low_pressure_test_over_the_high_one_is_not_made(low_psi, told):
    """The annular on the 9 5/8 in is tested to 3,500 psi."""
    document = demo_well()
    document["policy"]["preventers"] = {"low_test_psi": low_psi}
    assert why(document, "s3/test/e5") == told


def test_a_test_whose_pressure_is_not_known_is_held_as_unknown():
    document = decided(None)
    document["ground"]["pore"] = []
    judged = run(document)
    for key in ("s4/casing-test", "s3/test/e1"):
        held = line_of(judged, key).held
        assert held is not None
        assert held.unknown


@pytest.mark.parametrize(
    ("class_psi", "told"), [(3000.0, ""), (2999.0, "it is over the class of the annular, 2,999 psi")]
)
def test_without_rams_the_annular_bounds_the_casing_test(class_psi, told):
    document = decided(3000.0, rams_psi=class_psi)
    document["preventers"][0]["elements"] = elements("annular")
    assert why(document, "s4/casing-test").replace("annular preventer", "annular") == told


def test_an_annular_over_rams_does_not_bound_the_casing_test():
    """The test is made against closed blind rams: an annular of 2,000 psi stands open over them."""
    document = decided(3000.0)
    document["preventers"][0]["elements"][3]["class_psi"] = 2000.0
    assert why(document, "s4/casing-test") == ""


@pytest.mark.parametrize(("low_psi", "held"), [(1600.0, False), (1700.0, False), (1701.0, True)])
def test_bonnets_and_cup_are_held_with_the_other_tests(low_psi, held):
    """On the 13 3/8 in the annular is tested to 1,400 psi, rams and cup to 1,700 psi."""
    document = demo_well()
    document["policy"]["preventers"] = {"low_test_psi": low_psi}
    told = "its low-pressure test is over its high one" if held else ""
    assert [why(document, key) for key in ("s2/test/e2", "s2/cup", "s3/bonnets")] == [told] * 3


@pytest.mark.parametrize(("low_psi", "held"), [(3500.0, False), (3501.0, True)])
def test_a_test_that_falls_due_is_held_where_one_of_its_elements_is(low_psi, held):
    document = demo_well()
    document["policy"]["preventers"] = {"low_test_psi": low_psi}
    assert (why(document, "s4/due1/test") != "") is held


def test_what_holds_many_steps_is_told_once_with_their_number():
    document = demo_well()
    document["policy"]["preventers"] = {"low_test_psi": 3501.0}
    judged = run(document)
    same = [x for x in judged.sheet().lines if x.held is not None and "low-pressure" in plain(x.held.why)]
    told = [plain(f.message) for f in find(judged, "runsheet", "stop") if "low-pressure" in plain(f.message)]
    reason = "The sheet stops here: its low-pressure test is over its high one."
    assert told == [f"{reason} {len(same) - 1} more are held for this."]


def test_tubing_and_casing_that_are_not_known_hold_their_tests_as_unknown():
    document = demo_well()
    document["completion"]["tubing"] = {"od_in": 3.5, "weight_ppf": 9.2, "grade": "P110", "connection": "none such"}
    held = line_of(run(document), "end/land").held
    assert held is not None
    assert (plain(held.why), held.unknown) == ("the tubing is not known", True)


def test_a_casing_test_on_pipe_whose_strength_is_not_known_is_held_as_unknown():
    """The thread of a person's own pipe has no joint strength: what it stands in the test is not known."""
    document = decided(3000.0)
    size = {"od_in": 9.625, "weight_ppf": 40.0, "wall_in": 0.395, "coupling_od_in": 10.625}
    document["pipes"] = [size | {"grade": "XS", "yield_psi": 80_000.0, "connection": "OWN"}]
    document["strings"][2]["pipe"] = {"weight_ppf": 40.0, "grade": "XS", "connection": "OWN"}
    judged = run(document)
    assert (judged.pipe.strings[2].test_psi, judged.pipe.strings[2].test_share) == (3000.0, None)
    held = line_of(judged, "s4/casing-test").held
    assert held is not None
    assert (plain(held.why), held.unknown) == ("what the casing stands in it is not known", True)
