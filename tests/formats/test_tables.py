"""Tables from text: pasted blocks, CSV and LAS files, whatever their separators, decimal signs and units."""

import numpy as np
import pytest

from knollstack.core.base.units import FIELD, UnitSet
from knollstack.core.document.design import Trajectory
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.ground.thinning import thin
from knollstack.core.reading.read import parse
from knollstack.formats.cells import guess, read_rows, read_sheet, unclear
from knollstack.formats.export import rows_of, write_table
from knollstack.formats.importing import Mapping
from knollstack.formats.targets import TARGETS
from tests.formats.helpers import preview, take
from tests.helpers import demo

METRIC = UnitSet("metric")
VERTICAL = Trajectory.model_validate({"stations": [{"md_ft": 0.0}, {"md_ft": 10_000.0}]})


def rows(text, target="pore", first=None, units=FIELD, whole=True):
    sheet = read_sheet(text)
    width = max(len(row) for row in sheet.cells)
    return read_rows(target, sheet, [m for m in guess(target, sheet.header, first) if m.source < width], units, whole)


def faults(text, target="pore", **more):
    with pytest.raises(FaultyDesign) as refused:
        rows(text, target, **more)
    return [(f.path, f.value, f.expected) for f in refused.value.faults]


@pytest.mark.parametrize(
    "text",
    [
        "1000\t9.1\n2000\t9.25",
        "1,000\t9.1\n2,000\t9.25",
        "1000,9.1\n2000,9.25\n",
        '"1,000",9.1\r\n"2,000",9.25',
        "1000;9,1\n2000;9,25",
        "1.000;9,1\n2.000;9,25",
        "1000\t9,1\n2000\t9,25",
        "1000  9.1\n2000  9.25",
        "1000 9.1\n2000 9.25",
        "TVD (ft)\tEMW [ppg]\n1000\t9.1\n2000\t9.25",
        "EMW ppg,TVD ft\n9.1,1000\n9.25,2000",
        "\ufefftvd;pore\n1000;9,1\n2000;9,25",
    ],
)
def test_every_way_to_write_two_points(text):
    assert rows(text) == [{"tvd_ft": 1000.0, "emw_ppg": 9.1}, {"tvd_ft": 2000.0, "emw_ppg": 9.25}]


def test_units_in_the_header_are_understood_and_others_refused():
    assert rows("TVD (m)\tPore (SG)\n1500\t1.1", units=FIELD)[0]["tvd_ft"] == pytest.approx(4921.259842520)
    assert rows("TVD (m)\tPore (g/cc)\n1500\t1.1")[0]["emw_ppg"] == pytest.approx(1.1 * 8.345404452, rel=1e-9)
    assert rows("1500\t1.1", units=METRIC)[0]["tvd_ft"] == pytest.approx(4921.259842520), "no header: the person's own"
    # 4,680 psi at 9,000 ft is 4680/(9000·12/231) ppg
    assert rows("TVD ft,PP psi\n9000,4680".replace("PP", "pp"))[0]["emw_ppg"] == pytest.approx(4680 / (9000 * 12 / 231))
    assert faults("TVD (furlong)\tEMW\n3\t9") == [("/columns/tvd_ft", 'unit "furlong"', "one of ft, m")]


def test_each_cell_that_cannot_be_read_is_one_fault():
    assert faults("1000\tabout nine\n\t9.2") == [
        ("/rows/0/emw_ppg", '"about nine"', "a number in ppg"),
        ("/rows/1/tvd_ft", "nothing", "a number in ft"),
    ]
    text = "name\ttop\tbase\trock\tpermeable\nA\t10\t20\tgranit\tperhaps"
    assert [f[:2] for f in faults(text, "zones")] == [("/rows/0/rock", '"granit"'), ("/rows/0/permeable", '"perhaps"')]
    assert faults("1000\n2000") == [("/columns/emw_ppg", "no column", "a column for EMW")]
    assert len(faults("\n".join(f"x{i}\ty" for i in range(100)))) == 51, "the rest is counted"


def test_a_block_begins_where_it_is_pasted():
    assert rows("9.1\n9.2", first="emw_ppg", whole=False) == [{"emw_ppg": 9.1}, {"emw_ppg": 9.2}]
    assert rows("12 1/4\t9 5/8", "strings", first="bit_in", whole=False) == [{"bit_in": 12.25, "od_in": 9.625}]
    assert rows("yes\tno\tx", "zones", first="permeable", whole=False) == [
        {"permeable": True, "hazards": ["overpressure"]}
    ]


@pytest.mark.parametrize("units", [FIELD, METRIC, UnitSet("field", {"depth": "m", "emw": "kPa/m"})])
@pytest.mark.parametrize("target", sorted(TARGETS))
def test_what_is_exported_comes_back(target, units):
    document = demo()
    document["ground"]["leak_off_tests"] = [{"tvd_ft": 2010.0, "emw_ppg": 13.4}]
    design = parse(document)
    text = write_table(design, target, units)
    if not rows_of(design, target):
        assert text.count("\n") == 1
        return
    taken = take("x.csv", text, target, preview("x.csv", text, target).mapping, VERTICAL, FIELD).rows
    for row, held in zip(taken, rows_of(design, target), strict=True):
        assert {k: v for k, v in row.items() if not isinstance(v, float)}.items() <= held.items()
        for key, value in row.items():
            if isinstance(value, float):
                assert value == pytest.approx(held[key], rel=1e-8), key


@pytest.mark.parametrize("target", sorted(TARGETS))
def test_every_heading_that_is_written_is_read_as_its_own_column(target):
    """Also of a column that the demo leaves empty or at its default: a title like "Set in" would be read as inches."""
    heading = write_table(parse(demo()), target, FIELD).splitlines()[0]
    found = preview("x.csv", heading + "\n" + "1," * heading.count(",") + "1\n", target).mapping.columns
    assert [column.key for column in found] == [column.key for column in TARGETS[target]]


def las(depths, values, unit="M", null=-999.25):
    body = "\n".join(f"{d:.3f} {v:.4f} {null}" for d, v in zip(depths, values, strict=True))
    return (
        f"~Version\nVERS. 2.0 :\nWRAP. NO :\n~Well\nSTRT.{unit} {depths[0]} :\nSTOP.{unit} {depths[-1]} :\n"
        f"STEP.{unit} 0 :\nNULL. {null} :\n~Curves\nDEPT.{unit} : depth\nPP.SG : pore pressure\nGR.GAPI : gamma\n~A\n{body}\n"
    )


def test_las_with_nulls_metres_and_a_reversed_index_is_thinned_with_its_error_stated():
    depths = np.arange(1000.0, 99.9, -0.5)
    truth = np.interp(depths, [100, 400, 700, 1000], [1.05, 1.05, 1.30, 1.25])
    values = np.where((depths > 500) & (depths < 510), -999.25, truth)
    text = las(depths, values)
    shown = preview("pp.las", text, "pore")
    assert (shown.kind, shown.header, shown.count) == ("LAS", ["DEPT (M)", "PP (SG)", "GR (GAPI)"], 1801)
    assert "the index runs upward and was reversed" in shown.notes
    assert [(m.key, m.source, m.unit) for m in shown.mapping.columns] == [("tvd_ft", 0, "m"), ("emw_ppg", 1, "SG")]
    assert (shown.mapping.depth_is, shown.mapping.tolerance_ppg) == ("md", 0.05)
    taken = take("pp.las", text, "pore", shown.mapping, VERTICAL, FIELD)
    assert "19 samples without a value left out" in taken.notes
    assert any(
        note.startswith("thinned to 4 of 1,782 points; no sample is off by more than 0.0") for note in taken.notes
    )
    assert [row["tvd_ft"] for row in taken.rows] == pytest.approx(np.array([100, 400, 700, 1000]) / 0.3048)
    assert [row["emw_ppg"] for row in taken.rows] == pytest.approx(
        np.array([1.05, 1.05, 1.30, 1.25]) * 8.345404, rel=1e-6
    )


def test_las_along_a_deviated_well_becomes_tvd_and_a_bad_one_is_refused():
    # straight at 60° from 0: TVD = MD/2
    slant = Trajectory.model_validate(
        {"stations": [{"md_ft": 0.0, "inclination_deg": 60.0}, {"md_ft": 8000.0, "inclination_deg": 60.0}]}
    )
    text = las([1000.0, 2000.0], [1.1, 1.2], unit="FT")
    taken = take("pp.las", text, "pore", preview("pp.las", text, "pore").mapping, slant, FIELD)
    assert [row["tvd_ft"] for row in taken.rows] == pytest.approx([500, 1000])
    deep = las([1000.0, 9000.0], [1.1, 1.2], unit="FT")
    with pytest.raises(FaultyDesign, match="9000 ft MD; expected a depth in the well"):
        take("pp.las", deep, "pore", preview("pp.las", deep, "pore").mapping, slant, FIELD)
    for bad in ("~Version\nVERS. 2.0", "~V\n~A\nx y z", "~V nonsense \x00"):
        with pytest.raises(FaultyDesign, match=r"curve|no text"):
            preview("bad.las", bad, "pore")


def test_a_value_out_of_bounds_is_refused_at_its_cell():
    mapping = Mapping.model_validate({"columns": [{"key": "tvd_ft", "source": 0}, {"key": "emw_ppg", "source": 1}]})
    with pytest.raises(FaultyDesign, match=r'/rows/1/emw_ppg: "99"; expected at most 30 ppg'):
        take("x.csv", "100,9\n200,99", "pore", mapping, VERTICAL, FIELD)
    with pytest.raises(FaultyDesign, match="no row of data"):
        preview("x.csv", "", "pore")


def test_thinning_keeps_steps_and_holds_its_tolerance():
    rng = np.random.default_rng(7)
    depth = np.sort(rng.uniform(0, 10_000, 3_000))
    depth[1500] = depth[1499]  # a step
    value = np.interp(depth, [0, 3000, 3001, 10_000], [8, 9, 11, 14]) + rng.uniform(-0.04, 0.04, 3_000)
    kept, greatest = thin(depth, value, 0.1)
    assert {1499, 1500} <= set(kept)
    back = np.interp(depth, depth[kept], value[kept])
    away = np.delete(np.abs(back - value), [1499, 1500])
    assert away.max() == pytest.approx(greatest)
    assert greatest <= 0.1
    assert len(kept) < 30


@pytest.mark.parametrize(
    ("target", "header", "keys", "left"),
    [
        ("pore", "TVD (ft)\tPore pressure (ppg)", ["tvd_ft", "emw_ppg"], []),
        ("fracture", "Depth, m\tFracture gradient", ["tvd_ft", "emw_ppg"], []),
        ("fracture", "TVD\tPore pressure\tFracture gradient", ["tvd_ft", "emw_ppg"], ["Pore pressure"]),
        ("pore", "TVD\tPore pressure\tFracture gradient", ["tvd_ft", "emw_ppg"], ["Fracture gradient"]),
        ("temperature", "TVD, m\tTemperature, °C", ["tvd_ft", "temperature_f"], []),
        ("temperature", "TVD_ft\tTemp. (degF)", ["tvd_ft", "temperature_f"], []),
        ("stations", "MD (m)\tInc (deg)\tAzi (deg)", ["md_ft", "inclination_deg", "azimuth_deg"], []),
        ("pore", "Alpha\tBeta", [], ["Alpha", "Beta"]),
        ("pore", "TVD\tGamma ray", ["tvd_ft"], ["Gamma ray"]),
    ],
)
def test_headings_are_understood_or_left_over(target, header, keys, left):
    sheet = read_sheet(header + "\n100\t2\t3\n200\t3\t4")
    width = len(header.split("\t"))
    sheet = sheet.model_copy(update={"cells": [row[:width] for row in sheet.cells]})
    mapping = guess(target, sheet.header)
    assert [m.key for m in mapping] == keys
    assert unclear(target, sheet, mapping) == left


def test_more_columns_than_the_table_has_are_left_over():
    sheet = read_sheet("100\t9.1\t12\n200\t9.2\t13")
    assert unclear("pore", sheet, [m for m in guess("pore", sheet.header) if m.source < 3]) == ["column 3"]
    assert unclear("pore", read_sheet("100\t9.1\t\n200\t9.2\t"), guess("pore", [])) == []


@pytest.mark.parametrize(
    ("typed", "inches"),
    [
        ("244.5", 9.625),
        ("339.7", 13.375),
        ("311", 12.25),
        ("216", 8.5),
        ("445", 17.5),
        ("177.8", 7.0),
        ("202", 202 / 25.4),
    ],
)
def test_sizes_in_millimetres_are_the_sizes_of_the_trade(typed, inches):
    row = rows(f"7000\t{typed}", "strings", first="shoe_md_ft", units=METRIC, whole=False)[0]
    assert row["bit_in"] == pytest.approx(inches, abs=1e-9)


@pytest.mark.parametrize(("typed", "feet"), [("0 m", 0.0), ("100 m", 328.083989501), ("100 ft", 100.0)])
def test_a_cell_may_carry_its_own_unit(typed, feet):
    assert rows(f"{typed}\t9", whole=False)[0]["tvd_ft"] == pytest.approx(feet)


@pytest.mark.parametrize("typed", ["−5", "–5", "-5"])
def test_a_true_minus_is_one_and_a_number_beyond_its_bounds_is_refused_at_its_cell(typed):
    assert faults(f"{typed}\t9", whole=False) == [("/rows/0/tvd_ft", f'"{typed}"', "at least 0 ft")]


def test_one_column_with_a_heading_of_two_words_is_one_column():
    """A tally pasted from one column: its heading has a blank, its numbers have none; every fault has its own row."""
    text = "Joint length (ft)\n41.2\n41.x\n-40\n61\n40.0"
    sheet = read_sheet(text)
    assert sheet.header == ["Joint length (ft)"]
    assert faults(text, "joints") == [
        ("/rows/1/length_ft", '"41.x"', "a number in ft"),
        ("/rows/2/length_ft", '"-40"', "at least 1 ft"),
        ("/rows/3/length_ft", '"61"', "at most 60 ft"),
    ]


def test_a_tally_comes_with_sections_kinds_and_what_is_left_out():
    text = "Length (m);Section;Type;Not run\n12,5;2;joint;no\n1,2;1;pup joint;yes"
    first, second = rows(text, "joints")
    assert first == {"length_ft": pytest.approx(41.0105, abs=1e-4), "section": 2, "kind": "joint", "left_out": False}
    assert (second["section"], second["kind"], second["left_out"]) == (1, "pup joint", True)
    assert isinstance(first["section"], int)
    assert faults("Length\tSection\n41\t1.5", "joints") == [("/rows/0/section", '"1.5"', "a whole number")]


def test_a_share_of_gas_or_wear_may_end_in_its_sign():
    assert faults("5 kg\t9", whole=False) == [("/rows/0/tvd_ft", '"5 kg"', "a number in ft")]
