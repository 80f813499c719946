"""LAS files as they come: text beside numbers, words for no value, other separators, headers with rubbish in them."""

import pytest

from knollstack.core.base.units import UnitSet
from knollstack.core.document.design import Trajectory
from knollstack.core.document.faults import FaultyDesign
from knollstack.formats.importing import preview, take
from knollstack.formats.las import read_las

FIELD = UnitSet("field", {})
VERTICAL = Trajectory.model_validate({"stations": [{"md_ft": 0.0}, {"md_ft": 10_000.0}]})


def las(rows, curves="DEPT.FT :\nEMW.PPG :", version="VERS. 2.0 :\nWRAP. NO :", null="-999.25", extra=""):
    return f"~Version\n{version}\n~Well\nNULL. {null} :\n{extra}~Curve\n{curves}\n~ASCII\n" + "\n".join(rows) + "\n"


def points(text):
    data = text if isinstance(text, bytes) else text.encode()
    shown = preview("log.las", data, "pore")
    taken = take("log.las", data, "pore", shown.mapping, VERTICAL, FIELD).rows
    return [(row["tvd_ft"], row["emw_ppg"]) for row in taken]


TWO = [(1000.0, 9.0), (1100.0, 9.5)]


@pytest.mark.parametrize(
    "null", ["(null)", "NULL", "ERR", "-", "--", "---", "NaN", "-1.#IND0000", "-999.25", "1.#QNAN"]
)
def test_every_word_for_no_value(null):
    assert points(las(["1000 9.0", f"1050 {null}", "1100 9.5"])) == TWO


def test_a_text_column_beside_numbers():
    curves = "DEPT.FT :\nLITH. :\nEMW.PPG :"
    sheet, notes = read_las(las(["1000 shale 9.0", "1100 sand 9.5"], curves))
    assert sheet.cells == [["1000.0", "shale", "9.0"], ["1100.0", "sand", "9.5"]]
    assert notes[0].startswith("2 samples of 2 curves")


@pytest.mark.parametrize(("word", "sign"), [("COMMA", ","), ("TAB", "\t")])
def test_version_3_by_its_separator(word, sign):
    version = f"VERS. 3.0 :\nWRAP. NO :\nDLM. {word} :"
    assert points(las([f"1000{sign}9.0", f"1100{sign}9.5"], version=version)) == TWO


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "utf-16-le", "utf-16-be", "latin-1"])
def test_every_encoding(encoding):
    text = las(["1000 9.0", "1100 9.5"], extra="COMP. Bürogemeinschaft Höhe : °\n")
    assert points(text.encode(encoding)) == TWO


def test_rubbish_in_a_header_is_passed_over():
    assert points(las(["1000 9.0", "1100 9.5"], extra="-------------\nno dot here\n")) == TWO


def test_an_index_that_runs_upward_is_reversed():
    assert points(las(["1100 9.5", "1000 9.0"])) == TWO


@pytest.mark.parametrize(
    ("text", "why"),
    [
        (las([]), "no curve with data"),
        (las(["1000", "1100"], "DEPT.FT :"), "one column alone, DEPT"),
        ("~V\nnothing of a log", "curve"),
        (las(["1000 9.0 1", "1100 9.5"]), "."),
        (las(["1000 9.0"], "\n".join(f"C{i}. :" for i in range(600))), "600 curves; at most 500"),
        (las(["1000 9.0"], extra="X." + " " * 5_000 + ": y\n"), "line 6 has 5,005 characters"),
        (las(["1000 9.0"], extra="X. 1 : y\n" * 5_000), "lines of header"),
    ],
)
def test_the_rest_is_refused_with_the_reason(text, why):
    with pytest.raises(FaultyDesign, match=why):
        read_las(text)


HARD = ["A" + "." * 1_900, "A." + ": " * 900, "A" + " ." * 900, "{" * 1_900, "A.{" + "S" * 1_900, " " * 1_990 + "."]


@pytest.mark.parametrize("line", HARD)
def test_no_header_line_takes_long(line):
    """A line that a pattern could go back and forth on is read in a moment: the test ends at all."""
    assert points(las(["1000 9.0", "1100 9.5"], extra=line + "\n")) == TWO
