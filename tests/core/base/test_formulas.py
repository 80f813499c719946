"""Every formula: its reference value, its limits, its working."""

import csv
import importlib
import inspect
import json
import pkgutil

import numpy as np
import pytest

import knollstack.core
from knollstack.commands.formula import case_faults
from knollstack.core.base.endings import unit_of
from knollstack.core.base.formula import REGISTRY, FormulaError, tracing
from knollstack.core.base.glossary import TERMS
from tests.helpers import CATALOGUE, DATA

for _module in pkgutil.walk_packages(knollstack.core.__path__, "knollstack.core."):
    importlib.import_module(_module.name)

CASES = json.loads((DATA / "formulas.json").read_text())["cases"]


def rows(name):
    with (DATA / name).open() as file:
        return list(csv.DictReader(file))


@pytest.mark.parametrize("case", CASES, ids=[f"{i}-{c['formula']}" for i, c in enumerate(CASES)])
def test_reference_value(case):
    assert case_faults(REGISTRY, case, 1e-4) == []
    wrong = (
        {k: (np.array(v) * 1.001).tolist() for k, v in case["expect"].items()}
        if isinstance(case["expect"], dict)
        else case["expect"] * 1.001 or 1.0
    )
    assert case_faults(REGISTRY, {**case, "expect": wrong}, 1e-4), "the check must be able to fail"


def test_every_formula_has_a_reference_value():
    assert REGISTRY.keys() - {case["formula"] for case in CASES} == set()


def test_registry_is_documented():
    for formula in REGISTRY.values():
        assert formula.source, formula.name
        assert formula.symbolic, formula.name
        assert formula.title, formula.name
        for limit in formula.limits:
            assert limit.argument in formula.arguments, formula.name
            assert limit.other is None or limit.other in formula.arguments, formula.name
    used = {a for f in REGISTRY.values() for a in f.arguments}
    assert used == set(TERMS), "the glossary holds what formulas use, no more"


@pytest.mark.parametrize(
    ("name", "inputs", "argument", "unit"),
    [
        ("pipe_collapse", {"od_in": 7, "wall_in": -0.1, "yield_psi": 80000}, "wall_in", "in"),
        ("pipe_collapse", {"od_in": 7, "wall_in": 3.5, "yield_psi": 80000}, "wall_in", "in"),
        ("pipe_internal_yield", {"od_in": 0, "wall_in": 0.4, "yield_psi": 80000}, "od_in", "in"),
        ("eaton_fracture", {"pore_ppg": 19, "overburden_ppg": 18, "poisson": 0.4}, "overburden_ppg", "ppg"),
        ("hydrostatic_pressure", {"mud_ppg": float("nan"), "tvd_ft": 1}, "mud_ppg", "ppg"),
        ("hydrostatic_pressure", {"mud_ppg": 9, "tvd_ft": float("inf")}, "tvd_ft", "ft"),
        ("hydrostatic_pressure", {"mud_ppg": True, "tvd_ft": 1}, "mud_ppg", "ppg"),
        ("annular_capacity", {"outer_in": 8, "inner_in": 9}, "inner_in", "in"),
        ("conductor_depth_land", {"mud_ppg": 12, "fracture_ppg": 11, "flowline_height_ft": 18}, "fracture_ppg", "ppg"),
        ("weight_up", {"old_mud_ppg": 11, "new_mud_ppg": 10, "volume_bbl": 1}, "new_mud_ppg", "ppg"),
        (
            "minimum_curvature",
            {"md1_ft": 5, "inc1_deg": 0, "azi1_deg": 0, "md2_ft": 4, "inc2_deg": 0, "azi2_deg": 0},
            "md2_ft",
            "ft",
        ),
        (
            "accumulator_usable",
            {"gas_volume_gal": 10, "precharge_psi": 1300, "minimum_psi": 1200, "operating_psi": 3000},
            "minimum_psi",
            "psi",
        ),
    ],
)
def test_outside_validity_is_refused(name, inputs, argument, unit):
    with pytest.raises(FormulaError, match=argument) as refused:
        REGISTRY[name](**inputs)
    assert (refused.value.argument, refused.value.unit) == (argument, unit)
    assert refused.value.value is inputs[argument] or refused.value.value == inputs[argument]


ARRAYS = ["hydrostatic_pressure", "pipe_collapse", "von_mises", "kick_tolerance", "gas_column_top", "eaton_fracture"]


@pytest.mark.parametrize("name", ARRAYS)
def test_arrays_and_floats_agree(name):
    case = next(c for c in CASES if c["formula"] == name)
    scale = np.array([0.97, 1.0, 1.0])
    varied = list(case["inputs"])[-1]
    together = REGISTRY[name](**{**case["inputs"], varied: case["inputs"][varied] * scale})
    for k, factor in enumerate(scale):
        alone = REGISTRY[name](**{**case["inputs"], varied: case["inputs"][varied] * float(factor)})
        for key in alone if isinstance(alone, dict) else [None]:
            got = together if key is None else together[key]
            want = alone if key is None else alone[key]
            assert np.broadcast_to(got, 3)[k] == pytest.approx(want, rel=1e-12)


def test_tracing_records_the_calls_that_ran():
    inputs = next(c for c in CASES if c["formula"] == "kick_tolerance")["inputs"]
    with tracing() as calls:
        result = REGISTRY["kick_tolerance"](**inputs)
    assert [s.formula.name for s in calls] == ["kick_tolerance"]
    inner = {s.formula.name: s.result for s in calls[0].calls}
    assert inner["kick_height"] == result["height_ft"]
    assert inner["kick_volume_on_bottom"] == result["at_bottom_bbl"]
    assert calls[0].inputs["mud_ppg"] == 13.0
    with tracing() as quiet:
        pass
    REGISTRY["kick_tolerance"](**inputs)
    assert quiet == []


def test_units_come_from_names():
    assert [unit_of(n) for n in ("shoe_tvd_ft", "mud_ppg", "influx_psi_ft", "dogleg_deg_100ft", "poisson")] == [
        "ft",
        "ppg",
        "psi/ft",
        "°/100 ft",
        "",
    ]
    for formula in REGISTRY.values():
        assert list(inspect.signature(formula.function).parameters) == list(formula.arguments)


PIPES = rows("published-pipe-ratings.csv")
JOINTS = rows("published-joint-strengths.csv")


@pytest.mark.parametrize("row", PIPES, ids=lambda r: f"{r['od_in']}-{r['weight_ppf']}-{r['min_yield_ksi']}")
def test_published_pipe_ratings(row):
    """API tables, printed to 10 psi and 1,000 lbf."""
    ksi = float(row["min_yield_ksi"]) * 1000
    key = (float(row["od_in"]), float(row["weight_ppf"]), ksi)
    pipe = next(p for p in CATALOGUE.pipes if (p.od_in, p.weight_ppf, p.grade.yield_psi) == key)
    assert pipe.wall_in == float(row["wall_in"])
    assert pipe.collapse_psi == pytest.approx(float(row["collapse_psi"]), abs=10)
    assert pipe.burst_psi == pytest.approx(float(row["internal_yield_psi"]), abs=10)
    assert pipe.body_lbf == pytest.approx(float(row["body_yield_klbf"]) * 1000, abs=1000)


@pytest.mark.parametrize("row", JOINTS, ids=lambda r: f"{r['connection']}-{r['od_in']}-{r['wall_in']}-{r['grade']}")
def test_published_joint_strengths(row):
    key = (row["connection"], float(row["od_in"]), float(row["wall_in"]), row["grade"])
    pipe = next(p for p in CATALOGUE.pipes if (p.connection, p.od_in, p.wall_in, p.grade.grade) == key)
    assert pipe.joint_lbf == pytest.approx(float(row["joint_strength_klbf"]) * 1000, abs=1500)


def test_catalogue_is_consistent():
    """Nominal weight follows wall; drift and coupling follow size; thread lengths are the published ones."""
    for pipe in CATALOGUE.pipes:
        plain_end_ppf = 10.69 * (pipe.od_in - pipe.wall_in) * pipe.wall_in
        assert 0.93 < plain_end_ppf / pipe.weight_ppf < 1.02, (pipe.od_in, pipe.weight_ppf)
        assert pipe.coupling_od_in >= pipe.od_in
        assert pipe.api_drift_in < pipe.id_in
        assert pipe.api_drift_in <= pipe.drift_in <= pipe.id_in
        assert pipe.source
    for od, joints in CATALOGUE.couplings_in.items():
        regular = joints.get("BTC", joints.get("welded"))
        assert {joints[name] for name in ("STC", "LTC", "PTC") if name in joints} <= {regular}, od
        if "BTC-SC" in joints:
            assert od < joints["BTC-SC"] < regular
        assert joints.get("FJ", od) == od <= joints.get("SFJ", od) <= regular
    weights = {}
    for pipe in CATALOGUE.pipes:  # one wall to a weight, and heavier is thicker and drifts less
        weights.setdefault((pipe.kind, pipe.od_in), {}).setdefault(pipe.weight_ppf, set()).add(pipe.wall_in)
    for walls in weights.values():
        assert all(len(found) == 1 for found in walls.values())
        assert sorted(walls) == sorted(walls, key=lambda w: min(walls[w]))
    for connection in CATALOGUE.connections:
        assert connection.source
        assert (connection.kind == "premium") == ("assumed:" in connection.source), (
            "generic types name their assumptions"
        )
    assert [r.range for r in CATALOGUE.ranges] == [1, 2, 3]
    sizes = {p.od_in for p in CATALOGUE.pipes if p.kind == "casing"}
    assert {4.5, 20.0, 26.0, 30.0} <= sizes == {s.od_in for s in CATALOGUE.sizes}
    for row in rows("round-thread-lengths.csv"):
        thread = next(
            p.thread
            for p in reversed(CATALOGUE.by_od[float(row["od_in"])])
            if p.connection == row["connection"] and p.thread.face_in is not None
        )
        assert thread.total_length_in == float(row["total_thread_length_L4_in"])
        assert thread.face_in == float(row["coupling_face_M_in"])


def test_unknown_thread_is_unknown_not_guessed():
    bare = [p for p in CATALOGUE.pipes if p.connection == "STC" and p.od_in == 4.5]
    assert bare
    assert all(p.joint_lbf is None for p in bare)
