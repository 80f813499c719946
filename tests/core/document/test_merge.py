"""Two documents grown from one: nothing of either is lost, whatever each of them changed."""

import copy
import random

import pytest

from knollstack.core.document.compare import differences
from knollstack.core.document.merge import merge
from knollstack.core.reading.read import parse
from tests.helpers import demo, many, put


def both(theirs, mine, choices=None, base=None):
    return merge(parse(base or demo()), parse(theirs), parse(mine), choices or {})


def changed(*changes):
    document = demo()
    for path, value in changes:
        put(document, path.strip("/").split("/"), value)
    return document


SHOE, MUD = ("/strings/2/shoe_md_ft", 7_100.0), ("/strings/2/mud_ppg", 10.4)


def test_changes_at_different_places_are_both_there_and_no_clash():
    merged = both(changed(SHOE), changed(MUD, ("/policy/mud/trip_margin_ppg", 0.4)))
    assert merged.clashes == []
    assert (merged.from_theirs, merged.from_mine) == (1, 2)
    assert parse(merged.document) == parse(changed(SHOE, MUD, ("/policy/mud/trip_margin_ppg", 0.4)))


@pytest.mark.parametrize(("side", "expected"), [("theirs", 7_100.0), ("mine", 7_200.0)])
def test_a_place_that_both_changed_is_chosen(side, expected):
    place = f"/strings/={demo()['strings'][2]['id']}/shoe_md_ft"
    theirs, mine = changed(SHOE), changed(("/strings/2/shoe_md_ft", 7_200.0), MUD)
    open_ = both(theirs, mine)
    assert [(c.place, open_.left) for c in open_.clashes] == [(place, 1)]
    assert [c.theirs[0].value for c in open_.clashes] == [7_100.0]
    merged = both(theirs, mine, {place: side})
    assert merged.left == 0
    assert merged.document["strings"][2]["shoe_md_ft"] == expected
    assert merged.document["strings"][2]["mud_ppg"] == MUD[1]


def test_the_same_change_on_both_sides_is_none():
    merged = both(changed(SHOE), changed(SHOE))
    assert (merged.clashes, merged.from_theirs, merged.from_mine) == ([], 0, 0)


def test_rows_follow_their_ids_when_others_come_and_go():
    theirs, mine = demo(), demo()
    gone = theirs["ground"]["zones"].pop(0)
    last = mine["ground"]["zones"][-1]
    deeper = {"top_tvd_ft": last["base_tvd_ft"], "base_tvd_ft": last["base_tvd_ft"] + 200.0}
    mine["ground"]["zones"].append({**last, **deeper, "id": "new", "name": "Lower sand"})
    mine["ground"]["zones"][2]["name"] = "Renamed"
    merged = both(theirs, mine)
    names = [z["name"] for z in merged.document["ground"]["zones"]]
    assert merged.clashes == []
    assert gone["name"] not in names
    assert {"Renamed", "Lower sand"} <= set(names)
    assert names.index("Lower sand") == len(names) - 1


def test_a_row_removed_here_and_changed_there_is_chosen():
    theirs, mine = demo(), demo()
    name = theirs["ground"]["zones"].pop(1)["id"]
    mine["ground"]["zones"][1]["name"] = "Renamed"
    place = f"/ground/zones/={name}"
    assert [c.place for c in both(theirs, mine).clashes] == [place]
    kept = both(theirs, mine, {place: "mine"}).document["ground"]["zones"]
    assert [z["name"] for z in kept if z["id"] == name] == ["Renamed"]
    assert all(z["id"] != name for z in both(theirs, mine, {place: "theirs"}).document["ground"]["zones"])


def test_points_of_a_profile_go_by_place_or_as_a_whole():
    theirs, mine = demo(), demo()
    theirs["ground"]["pore"][0]["emw_ppg"] += 0.1
    mine["ground"]["pore"][1]["emw_ppg"] += 0.1
    merged = both(theirs, mine)
    assert merged.clashes == []
    assert [p["emw_ppg"] for p in merged.document["ground"]["pore"][:2]] == [
        theirs["ground"]["pore"][0]["emw_ppg"],
        mine["ground"]["pore"][1]["emw_ppg"],
    ]
    mine["ground"]["pore"].pop()
    assert [c.place for c in both(theirs, mine).clashes] == ["/ground/pore"]


def test_what_two_persons_gave_of_the_basis_is_assumed_no_more():
    base = changed(("/site/assumed", ["rig_floor_ft", "cellar_depth_ft", "total_depth"]))
    theirs, mine = copy.deepcopy(base), copy.deepcopy(base)
    theirs["site"]["assumed"].remove("rig_floor_ft")
    mine["site"]["assumed"].remove("total_depth")
    assert both(theirs, mine, base=base).document["site"]["assumed"] == ["cellar_depth_ft"]


def test_without_a_base_every_difference_is_a_clash():
    merged = merge(None, parse(changed(SHOE)), parse(changed(MUD)), {})
    assert len(merged.clashes) == 2
    assert merged.left == 2
    assert parse(merged.document) == parse(changed(SHOE))


def test_a_merge_of_made_up_edits_is_both_or_tells_the_clash():
    """Against a plain rule, place by place: the side that changed it, or the one that was chosen."""
    numbers = [f"/strings/{i}/{key}" for i in range(1, 4) for key in ("shoe_md_ft", "bit_in", "od_in")]
    numbers += [f"/ground/fracture/{i}/emw_ppg" for i in range(3)] + ["/site/rig_floor_ft"]
    draw = random.Random(10)
    for _ in range(many(60)):
        edits = [{p: draw.randint(0, 3) * 0.01 for p in draw.sample(numbers, 5)} for _ in "ab"]
        original = parse(demo()).model_dump(mode="json")
        sides = [copy.deepcopy(original) for _ in "ab"]
        for side, edit in zip(sides, edits, strict=True):
            for path, by in edit.items():
                put(side, path.strip("/").split("/"), at(original, path) + by)
        choice = draw.choice(["theirs", "mine"])
        theirs, mine = (type(parse(demo())).model_validate(s) for s in sides)
        open_ = merge(parse(demo()), theirs, mine, {})
        merged = merge(parse(demo()), theirs, mine, {c.place: choice for c in open_.clashes})
        for path in numbers:
            t, m = (edit.get(path, 0.0) for edit in edits)
            expected = t if m == 0 else m if t == 0 else m if choice == "mine" else t
            assert at(merged.document, path) == at(original, path) + expected, path
        assert merged.left == 0
        assert not differences(theirs, mine) or open_.from_theirs + open_.from_mine + len(open_.clashes) > 0


def at(document, path):
    for key in path.strip("/").split("/"):
        document = document[int(key)] if isinstance(document, list) else document[key]
    return document
