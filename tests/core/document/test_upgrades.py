"""Older versions of the format stay readable for ever: one file of each is kept, and what it says is known."""

import copy
import json

import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.compare import differences
from knollstack.core.document.design import VERSION
from knollstack.core.document.upgrades import UPGRADES, upgraded
from knollstack.core.document.upgrades.version_1 import POLICY
from knollstack.core.reading.read import parse, parse_text
from tests.helpers import DATA, RIG, applied, demo, find, run, surface_psi

ROWS = [{"id": "e1", "element": "pipe rams"}, {"id": "e2", "element": "annular"}]
MOVED = {"packer_md_ft": "packer_md_ft", "stimulation_psi": "treating_psi", "stimulation_fluid_f": "treating_fluid_f"}
"""What stood with each string, and where it stands with the completion."""
FILES = sorted((DATA / "versions").glob("well-*.json"))


def test_a_file_of_every_older_version_is_kept_and_read():
    assert [int(path.stem.split("-")[1]) for path in FILES] == list(range(1, VERSION)) == sorted(UPGRADES)
    for path in FILES:
        design = parse_text(path.read_bytes())
        assert design.version == VERSION
        assert parse(json.loads(design.model_dump_json())) == design, "and written back without losing a thing"


def held(new, old):
    """All that was there, in rows that may hold more now."""
    if isinstance(old, dict):
        old = {k: v for k, v in old.items() if k not in MOVED}
    if isinstance(old, list):
        return len(new) == len(old) and all(held(a, b) for a, b in zip(new, old, strict=True))
    return all(held(new[k], v) for k, v in old.items()) if isinstance(old, dict) else new == old


def test_nothing_of_version_1_is_lost():
    old = json.loads((DATA / "versions" / "well-1.json").read_text())
    new = parse(old).model_dump(mode="json")
    assert set(old["policy"]) == set(POLICY)
    gone = {"production_heat_f", "test_in_green_cement"}
    for key, (step, name) in POLICY.items():
        assert key in gone or held(new["policy"][step][name], old["policy"][key]), key
    # 60 °F at surface and 120 °F more in production; tested in green cement
    assert new["site"] == old["site"] | {"flowing_wellhead_f": 180.0, "assumed": [], **dict.fromkeys(RIG)}
    assert new["policy"]["pipe"]["pressure_test"] == "in green cement"
    for part in ("trajectory", "pipes", "stock", "note", "name"):
        assert new[part] == old[part]
    for before, after in zip(old["strings"], new["strings"], strict=True):
        cement = {k: after["cement"][k] for k in before["cement"]}
        kept = {k: v for k, v in before.items() if k not in MOVED}
        assert kept == {k: after[k] for k in kept} | {"cement": cement}
    # the stack on the second string and the piece on the first casing to surface name them now
    assert [s["id"] for s in new["strings"]] == ["s1", "s2", "s3", "s4"]
    assert [s["string"] for s in new["preventers"]] == ["s2"]
    assert [p["string"] for p in new["wellhead"]["pieces"]] == ["s2"]
    assert old["version"] == 1, "the document that came is left as it was"


@pytest.mark.parametrize(
    ("heat", "site", "profile", "flowing"),
    [
        (0.0, {"surface_temperature_f": 60.0}, [], None),
        (100.0, {"surface_temperature_f": 60.0}, [], 160.0),
        (100.0, {"surface_temperature_f": 60.0}, [{"tvd_ft": 0.0, "temperature_f": 50.0}], 150.0),
        (100.0, {}, [], None),
    ],
)
def test_version_2_gave_the_rise_and_version_3_gives_the_temperature(heat, site, profile, flowing):
    old = {
        "version": 2,
        "site": site,
        "ground": {"temperature": profile},
        "policy": {"pipe": {"production_heat_f": heat, "test_in_green_cement": False, "bump_psi": 400.0}},
    }
    new = upgraded(old)
    assert new["version"] == VERSION
    assert new["site"].get("flowing_wellhead_f") == flowing
    assert new["policy"]["pipe"] == {"bump_psi": 400.0}, "the test counts with the top free from now on"


def test_version_3_named_elements_from_the_top_and_version_4_holds_rows_from_the_bottom():
    old = json.loads((DATA / "versions" / "well-3.json").read_text())
    new = parse(old).model_dump(mode="json")
    for before, after in zip(old["preventers"], new["preventers"], strict=True):
        assert [e["element"] for e in after["elements"]] == before["elements"][::-1]
        assert [e["id"] for e in after["elements"]] == [f"e{n}" for n in range(1, len(before["elements"]) + 1)]
        assert held(after, {k: v for k, v in before.items() if k != "elements"})
    bare = {"version": 3, "preventers": [{"elements": ["annular", "rotating head"]}]}
    rows = upgraded(bare)["preventers"][0]["elements"]
    assert rows[0] == {"id": "e1", "element": "other", "name": "rotating head"}
    for part in ("site", "trajectory", "ground", "strings", "wellhead", "centralizers", "balanced_plugs", "policy"):
        assert held(new[part], old[part]), part


def test_version_5_held_packer_and_treatment_with_each_string_and_version_6_once():
    """On the 9 5/8 in and the 6 5/8 in: the well is produced through the deepest. All else is as it was."""
    old = json.loads((DATA / "versions" / "well-5.json").read_text())
    new = parse(old).model_dump(mode="json")
    for key, place in MOVED.items():
        assert new["completion"][place] == old["strings"][4][key]
    assert new["completion"]["decision"] is None
    for part in ("site", "trajectory", "ground", "strings", "sea", "balanced_plugs", "policy"):
        assert held(new[part], old[part]), part
    assert "completion" not in upgraded({"version": 5, "strings": [{"packer_md_ft": None}]})


def test_ids_that_are_missing_are_given_and_those_that_stand_are_kept():
    document = upgraded({"version": 3, "strings": [{"id": "s2"}, {}, {"id": "x"}, {}], "ground": {"zones": [{}]}})
    assert [s["id"] for s in document["strings"]] == ["s2", "s1", "x", "s3"]
    assert document["ground"]["zones"][0]["id"] == "z1"
    bare = {"version": VERSION, "preventers": [{"id": "b1", "elements": [{"element": "annular"}, {"id": "e1"}]}]}
    assert [e["id"] for e in upgraded(bare)["preventers"][0]["elements"]] == ["e2", "e1"]


def test_a_stack_stays_on_its_string_when_another_goes():
    """A 5,000 psi stack on the 9 5/8 in: with the surface string gone it stands on the 9 5/8 in still."""
    document = demo() | {"closing_unit": {"operating_psi": 5000.0}}
    on_9 = document["strings"][2]["id"]
    document["preventers"] = [{"id": "b1", "string": on_9, "class_psi": 5000.0, "elements": ROWS}]
    assert [row.decided for row in run(document).preventers.strings] == [False, False, True, False]
    shorter = copy.deepcopy(document)
    del shorter["strings"][1]
    after = run(shorter)
    assert [row.decided for row in after.preventers.strings] == [False, True, False]
    assert after.strings[1].id == on_9
    gone = copy.deepcopy(document)
    del gone["strings"][2]
    found = [f for f in find(run(gone), "preventers", "caution") if "no longer in the design" in plain(f.message)]
    assert [f.place for f in found] == ["/preventers/0"]
    after = run(applied(gone, found[0].remedies[0].changes))
    assert not [f for f in find(after, "preventers", "caution") if "no longer" in plain(f.message)]
    twice = copy.deepcopy(document)
    twice["preventers"].append({**document["preventers"][0], "id": "b2", "class_psi": 2000.0})
    said = [plain(f.message) for f in find(run(twice), "preventers", "caution") if f.place == "/preventers/1"]
    assert said == ["Its string carries no stack, or another one; this one is not used."]


def test_a_piece_stays_on_its_string_and_is_told_when_that_goes():
    document = demo()
    piece = {"name": "Head", "height_in": 22.0, "bore_in": 13.625, "top_psi": 3000.0}
    document["wellhead"] = {"pieces": [{**piece, "id": "p1", "string": "s3"}]}
    evaluation = run(document)
    assert evaluation.wellhead.pieces[0].needed_psi == surface_psi(document, 3), "it holds the production casing"
    document["wellhead"]["pieces"][0]["string"] = None
    evaluation = run(document)
    assert evaluation.wellhead.pieces[0].needed_psi == surface_psi(document, 2), "by its place it holds the next"
    document["wellhead"]["pieces"][0]["string"] = "elsewhere"
    found = [f for f in find(run(document), "wellhead", "caution") if f.place == "/wellhead/pieces/0/string"]
    assert len(found[0].remedies) == 2
    for remedy in found[0].remedies:
        assert not find(run(applied(document, remedy.changes)), "wellhead", "caution")


@pytest.mark.parametrize("named", [False, True])
def test_rows_are_compared_by_id_and_by_name_where_ids_were_given_by_position(named):
    """A string put in between is one string added, whatever positions, and ids by position, then say."""
    before = demo()
    between = {"role": "intermediate", "shoe_md_ft": 4500.0, "bit_in": 14.75, "od_in": 11.75}
    after = copy.deepcopy(before)
    after["strings"].insert(2, {**between, "id": "new"} if named else between)
    if not named:
        for document in (before, after):
            for row in document["strings"]:
                row.pop("id", None)
    told = [(d.subject, plain(d.after)) for d in differences(parse(before), parse(after))]
    assert told == [("11.750 in", "added")] or told == [("11 3/4 in", "added")]
