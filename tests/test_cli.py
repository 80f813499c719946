"""The command line: one clear line per fault, exit codes, JSON out."""

import json

import pytest

from knollstack.cli import main
from tests.helpers import DATA, demo, run


def test_evaluate_prints_the_evaluation(tmp_path, capsys):
    path = tmp_path / "w.json"
    path.write_text(json.dumps(demo()))
    assert main(["evaluate", str(path)]) == 0
    assert json.loads(capsys.readouterr().out) == json.loads(run(demo()).model_dump_json())


def test_evaluate_says_each_fault_on_a_line(tmp_path, capsys):
    document = demo()
    document["site"]["rig_floor_ft"] = "x"
    document["strings"][1]["mud_ppg"] = -1
    path = tmp_path / "w.json"
    path.write_text(json.dumps(document))
    assert main(["evaluate", str(path)]) == 2
    lines = capsys.readouterr().err.splitlines()
    assert lines == [
        f'{path}: /site/rig_floor_ft: "x"; expected a number',
        f"{path}: /strings/1/mud_ppg: -1; expected at least 0.5 ppg",
    ]
    assert main(["evaluate", str(tmp_path / "none.json")]) == 2
    with (tmp_path / "big.json").open("wb") as big:
        big.truncate(50_000_000)
    assert main(["evaluate", str(tmp_path / "big.json")]) == 2
    assert capsys.readouterr().err.count("\n") == 2


def test_formula_at_a_terminal(capsys):
    assert main(["formula", "hydrostatic_pressure", "mud_ppg=10.4", "tvd_ft=8650"]) == 0
    answer = json.loads(capsys.readouterr().out)
    assert (answer["result"], answer["unit"]) == (pytest.approx(4673.247, abs=1e-3), "psi")
    assert answer["source"].startswith("Hydrostatics")
    assert main(["formula", "hydrostatic_pressure", "mud_ppg=[9,10]", "tvd_ft=1000"]) == 0
    assert json.loads(capsys.readouterr().out)["result"] == pytest.approx([467.53, 519.48], abs=0.01)
    assert main(["formula", "slurry", "water_gal_sk=4.97"]) == 0
    assert json.loads(capsys.readouterr().out)["unit"] == {"density_ppg": "ppg", "yield_ft3_sk": "ft³/sk"}
    assert main(["formula", "--list"]) == 0
    assert "kick_tolerance" in capsys.readouterr().out.split()


@pytest.mark.parametrize(
    ("words", "message"),
    [
        (["nothing"], "nothing: no such formula"),
        (["maasp", "mud_ppg=9"], "fracture_ppg is missing; shoe_tvd_ft is missing"),
        (["maasp", "mud=9"], "mud is not an argument"),
        (["hydrostatic_pressure", "mud_ppg=9", "tvd_ft=x"], "tvd_ft=x: expected key=value with a JSON value"),
        (["hydrostatic_pressure", "mud_ppg=9", "tvd_ft=-1"], "tvd_ft is -1 ft; expected >= 0"),
        (["hydrostatic_pressure", "mud_ppg=9", 'tvd_ft="1"'], "tvd_ft is '1' ft; expected a finite number"),
        (["hydrostatic_pressure", "mud_ppg=9", 'tvd_ft=["a"]'], "expected a finite number"),
    ],
)
def test_formula_refuses_in_one_line(words, message, capsys):
    assert main(["formula", *words]) == 2
    error = capsys.readouterr().err
    assert message in error
    assert error.count("\n") == 1


def test_cases_agree_and_a_wrong_one_is_named(tmp_path, capsys):
    assert main(["formula", "--cases", str(DATA / "formulas.json")]) == 0
    cases = json.loads((DATA / "formulas.json").read_text())
    cases["cases"][0]["expect"] *= 1.01
    (tmp_path / "c.json").write_text(json.dumps(cases))
    capsys.readouterr()
    assert main(["formula", "--cases", str(tmp_path / "c.json")]) == 1
    assert capsys.readouterr().out == "hydrostatic_pressure result: 4673.247, expected 4719.979\n"
    (tmp_path / "c.json").write_text("{")
    assert main(["formula", "--cases", str(tmp_path / "c.json")]) == 2
