"""What differs, in words; two evaluations side by side."""

import copy

import pytest

from knollstack.core.base.units import UnitSet, plain
from knollstack.core.document.compare import differences
from knollstack.core.evaluation.side_by_side import side_by_side
from knollstack.core.reading.read import parse
from tests.helpers import demo, elements, put, run


def changed(path, value):
    document = demo()
    put(document, path.split("/"), value)
    return document


def told(document):
    return [f"{d.subject}: {plain(d.before)} → {plain(d.after)}" for d in differences(parse(demo()), parse(document))]


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        ("strings/2/shoe_md_ft", 7400.0, "9 5/8 in shoe: 7,000 ft → 7,400 ft"),
        ("strings/3/od_in", 6.625, "7 in casing size: 7 in → 6 5/8 in"),
        ("strings/2/cement/top_md_ft", 3000.0, "9 5/8 in top of cement: not decided → 3,000 ft"),
        (
            "strings/2/pipe",
            {"weight_ppf": 47.0, "grade": "L80", "connection": "BTC"},
            "9 5/8 in pipe: not decided → 47.0 lb/ft L80 BTC",
        ),
        ("ground/pore/2/emw_ppg", 9.0, "pore point 3: 8.80 ppg at 8,600 ft → 9.00 ppg at 8,600 ft"),
        ("ground/zones/3/case_before_deeper", True, "Pike limestone case off before drilling ahead: no → yes"),
        ("ground/zones/3/hazards", [], "Pike limestone hazards: losses → none"),
        ("ground/pore", demo()["ground"]["pore"][:4], "pore profile: 7 points → 4 points"),
        ("strings", demo()["strings"][:3], "7 in: there → removed"),
        ("policy/pipe/most_sections", 2, "maximum sections of a proposed string: 1 → 2"),
        ("policy/mud/trip_margin_ppg", 0.4, "trip margin: 0.30 ppg → 0.40 ppg"),
        ("site/cellar_depth_ft", 9.0, "cellar depth: 7 ft → 9 ft"),
        ("site/h2s_ppm", None, "H2S in the gas: 0 ppm → not decided"),
    ],
)
def test_a_change_in_words(path, value, words):
    assert told(changed(path, value)) == [words]


def test_nothing_differs_from_itself_and_words_follow_the_units():
    assert told(demo()) == []
    change = differences(parse(demo()), parse(changed("strings/2/shoe_md_ft", 7400.0)))[0]
    assert (change.place, plain(change.after, UnitSet("metric"))) == ("/strings/2/shoe_md_ft", "2,255.5 m")


def test_side_by_side_shows_what_follows_and_what_each_has_alone():
    a, b = run(demo()), run(changed("strings/2/shoe_md_ft", 6600.0))
    pair = side_by_side(a, b)
    rows = {(r.section, r.label): r for r in pair.results}
    kick = rows["intermediate", "kick tolerance at the shoe"]
    assert kick.differs
    assert plain(kick.a) == "27.5 bbl"
    assert plain(rows["intermediate", "shoe"].b) == "6,600 ft"
    assert not rows["surface", "shoe"].differs
    assert [f.step for f in pair.findings_b] == ["depths", "completion"], "and logs begin above the shoe then"
    assert pair.findings_a == []
    weight = sum(
        r.sections[0].weight_ppf * (s.shoe_md_ft - s.top_md_ft) for r, s in zip(a.pipe.strings, a.strings, strict=True)
    )
    assert rows["whole well", "weight of steel in air"].a[0].value == pytest.approx(weight)
    shorter = side_by_side(a, run(changed("strings", demo()["strings"][:3])))
    assert plain({(r.section, r.label): r for r in shorter.results}["production", "shoe"].b) == "–"
    mirrored = side_by_side(b, a)
    assert (mirrored.findings_a, mirrored.findings_b) == (pair.findings_b, pair.findings_a)


def test_a_stack_and_a_piece_are_told_by_their_names():
    before = demo()
    rows = elements("pipe rams", "blind shear rams", "variable rams", "annular")
    before["preventers"] = [{"id": "b1", "string": "s3", "class_psi": 5000.0, "elements": rows}]
    after = copy.deepcopy(before)
    stack = after["preventers"][0]
    stack |= {"casing_ram": "e3", "string": "s2"}
    stack["elements"][2]["to_in"] = 6.0
    stack["elements"].insert(3, {"id": "e9", "element": "casing shear rams"})
    piece = {"id": "p1", "name": "", "kind": "tubing spool", "height_in": 24.0, "bore_in": 11.0, "top_psi": 5000.0}
    after["wellhead"] = {"pieces": [piece]}
    told = {(d.subject, plain(d.before), plain(d.after)) for d in differences(parse(before), parse(after))}
    assert told == {
        ("tubing spool", "none", "added"),
        ("casing shear rams", "none", "added"),
        ("variable rams range to", "not decided", "6 in"),
        ("stack 1 casing rams in", "not decided", "variable rams"),
        ("stack 1 stands on", "9 5/8 in", "13 3/8 in"),
    }
