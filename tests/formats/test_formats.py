"""The well file and the program sheet."""

import io
import json
import re

import pytest
from pypdf import PdfReader

from knollstack.core.base.units import FIELD, UnitSet, plain
from knollstack.core.reading.read import parse, parse_text
from knollstack.demo import documents
from knollstack.formats import sheet, wellfile
from tests.helpers import demo, empty_demo, run, well


def test_a_well_file_comes_back_as_it_was():
    design = parse(demo())
    text = wellfile.write(design)
    assert parse_text(text) == design
    assert wellfile.write(parse_text(text)) == text
    assert json.loads(text)["strings"][2]["cement"]["slurry_water_gal_sk"] == 4.97


def page(document, units=FIELD, evaluation=None):
    pdf = sheet.write(
        parse(document), evaluation or run(document), units, 7, "2026-11-24T09:30:00+00:00", sheet.Signed()
    )
    pages = PdfReader(io.BytesIO(pdf)).pages
    text = " ".join(" ".join(page.extract_text() for page in pages).split())
    for number, each in enumerate(pages, start=1):
        assert f"page {number}" in each.extract_text()
        assert "local rules prevail" in each.extract_text()
    return text


def test_sheet_holds_the_program():
    text = page(demo())
    evaluation = run(demo())
    for words in (
        "Harrow Fen 3",
        "Revision 7",
        "2026-11-24 09:30:00 UTC",
        "17 1/2 in",
        "13 3/8 in",
        "7,000 ft",
        "13.20 ppg",
        "40.0 lb/ft N80 LTC",
        "12,600 ft TVD",
        "2,187 sk",
        "annular preventer, variable bore rams",
        "licensed engineer",
        "local rules prevail",
        "13 5/8 in 6B R57",
        "Pike limestone",
    ):
        assert words in text, words
    assert f"{evaluation.wellhead.surface_cut_in:.2f} in" in text
    for load in (x for x in evaluation.pipe.strings[2].loads if x.kind in ("burst", "collapse", "tension", "triaxial")):
        assert f"{load.factor:.2f}" in text
    for finding in evaluation.findings:
        assert plain(finding.message) in text
    assert "not judged" in text
    for kick in (row.kick for row in evaluation.depths.strings if row.kick):
        assert f"{kick.tolerance_bbl:.1f} bbl" in text
        assert f"{kick.maasp_psi:,.0f} psi" in text
    for assumption in evaluation.assumptions:
        assert " ".join(plain(assumption.text).split()) in text


def marks_of(pdf):
    """Of each page: the numbers of the marks in its content, and the roles that the parent tree gives them."""
    reader = PdfReader(io.BytesIO(pdf))
    nums = reader.trailer["/Root"]["/StructTreeRoot"]["/ParentTree"]["/Nums"]
    parents = {int(nums[i]): nums[i + 1].get_object() for i in range(0, len(nums), 2)}
    for page in reader.pages:
        content = page.get_contents().get_data().decode("latin-1")
        assert content.count("BDC") + content.count("BMC") == content.count("EMC"), "every mark is closed"
        drawn = [(role, int(number)) for role, number in re.findall(r"/(\w+) <</MCID (\d+)>> BDC", content)]
        held = [str(e.get_object()["/S"]).lstrip("/") for e in parents[page["/StructParents"]]]
        yield drawn, held


def test_the_sheet_is_tagged_in_reading_order():
    """Headings, paragraphs, tables row by row with the heads of their columns, the section with words for it."""
    pdf = sheet.write(parse(demo()), run(demo()), FIELD, 7, "2026-11-24T09:30:00+00:00", sheet.Signed())
    root = PdfReader(io.BytesIO(pdf)).trailer["/Root"]
    assert (root["/MarkInfo"]["/Marked"], root["/Lang"]) == (True, "en")
    for drawn, held in marks_of(pdf):
        assert [number for _, number in drawn] == list(range(len(held)))
        assert [role for role, _ in drawn] == held
    whole = root["/StructTreeRoot"]["/K"][0].get_object()
    kids = [kid.get_object() for kid in whole["/K"]]
    roles = [str(kid["/S"]) for kid in kids]
    assert roles[:4] == ["/H1", "/P", "/Figure", "/Table"]
    assert roles.count("/Table") >= 5
    assert (roles.count("/H1"), roles.count("/H2")) == (1, 3)
    assert kids[2]["/Alt"].startswith("Section of the well Harrow Fen 3")
    rows = [[str(cell.get_object()["/S"]) for cell in row.get_object()["/K"]] for row in kids[3]["/K"]]
    assert rows[0] == ["/TH"] * 11
    assert rows[1:] == [["/TD"] * 11] * (len(rows) - 1)


def test_sheet_in_metric_and_of_a_proposal():
    text = page(empty_demo(), UnitSet("metric"))
    assert "3,840.5 m" in text
    assert "SG" in text
    assert "surface (proposed)" in text
    assert "Assumptions filled in by the tool" in text
    assert "ECD, surge and swab are unknown" in text
    nothing = run(empty_demo()).model_copy(update={"findings": ()})
    assert "No open findings" in page(empty_demo(), UnitSet("metric"), nothing)


@pytest.mark.parametrize(
    "document",
    [
        {"format": "knollstack.well", "version": 9, "name": "<b>" + "W" * 190},
        well(
            ground__zones=[
                {"name": "Ω & <zone> " * 12, "top_tvd_ft": 40.0 + i, "base_tvd_ft": 41.0 + i} for i in range(60)
            ]
        ),
    ],
)
def test_sheet_of_odd_wells_is_set(document):
    assert "Casing program" in page(document)


def test_twelve_strings_with_all_findings_and_assumptions_flow_over_the_pages():
    document = demo()
    document["strings"] = [
        {"role": "intermediate", "shoe_md_ft": 1000.0 * (i + 1), "bit_in": 8.5, "od_in": 9.625, "mud_ppg": 8.0}
        for i in range(12)
    ]
    text, evaluation = page(document), run(document)
    for said in (*(f.message for f in evaluation.findings), *(a.text for a in evaluation.assumptions)):
        assert " ".join(plain(said).split()) in text
    assert text.count("9 5/8 in") >= 12


def test_a_tapered_string_stands_on_the_sheet_section_by_section():
    document = demo()
    document["strings"][3]["sections"] = [
        {"weight_ppf": 26.0, "grade": "P110", "connection": "LTC", "to_md_ft": 8000.0},
        {"weight_ppf": 32.0, "grade": "P110", "connection": "LTC"},
    ]
    text = " ".join(page(document).split())
    assert "26.0 lb/ft P110 LTC to 8,000 ft, 32.0 lb/ft P110 LTC to 12,600 ft" in text


def test_the_sheet_of_a_well_at_sea_prints_what_the_sea_adds():
    text = page(json.loads(documents()[3]))
    for part in (
        "Conductor in the sea floor",
        "Riser, section to",
        "Disconnect, weather",
        "Sealed annulus",
        "Seal lost",
    ):
        assert part in text
    assert "winter gale" in text
    assert "At the sea floor" in text
    on_land = page(demo())
    assert "Riser, section to" not in on_land
    assert "Surface pressure" in on_land
