"""The list of materials: numbers by hand, spares, dates of orders; and what two sheets and two lists differ in."""

import math

import pytest

from knollstack.core.base.units import plain
from knollstack.core.runsheet.changes import line_changes, material_changes
from tests.core.runsheet.wells import demo_well, edits, with_sheet
from tests.helpers import run


def items(judged):
    return {m.key: m for m in judged.detail().materials}


def test_what_the_production_string_takes():
    """311 joints of 32 lb/ft and 10 spares of 41.0 ft; 785.7 sacks of 94 lb and 15 % over; shoe and collar with one spare."""
    held = items(run(demo_well()))
    pipe = held["s4/pipe/1"]
    assert (pipe.quantity, pipe.spare, pipe.unit) == (311, 10, "joints")
    assert pipe.weight_lb == pytest.approx(321 * 41.0002 * 32, rel=1e-4)
    cement = held["s4/cement"]
    assert cement.quantity == pytest.approx(684.13 + 101.52, abs=0.01)
    assert cement.spare == pytest.approx(0.15 * cement.quantity)
    assert (held["s4/shoe"].quantity, held["s4/shoe"].spare) == (1, 1)
    assert held["s4/centralizers/bow spring"].spare == math.ceil(0.1 * 19)
    assert (held["s4/bits"].quantity, held["s4/bits"].spare) == (4, 1), "a bit more for each trip"
    assert held["s4/mix-water"].quantity == pytest.approx(132.06, abs=0.01)
    assert held["s4/weighting"].quantity == pytest.approx(393_521, rel=1e-5)


def test_every_joint_of_the_head_has_its_ring_and_studs():
    held = items(run(demo_well()))
    assert plain(held["piece/1/ring"].what) == "Ring gasket, 13 5/8 in 6B R57"
    assert plain(held["piece/1/studs"].what) == "12 studs of 1 7/8 in with nuts"
    assert "piece/0/ring" not in held, "the head is welded on"
    assert plain(held["s3/casing-rams"].what).startswith("9 5/8 in casing rams")


def test_an_order_is_placed_by_its_lead_time_before_it_is_wanted():
    """The head is set on day 4.04 and takes 180 days: by day -176; a lead time of one's own comes before policy's."""
    held = items(run(with_sheet(spud="2027-03-08")))
    head = held["piece/0"]
    assert (math.floor(head.needed_day), head.order_day, head.lead_given) == (
        4,
        math.floor(head.needed_day - 180),
        False,
    )
    assert (head.needed_on, head.order_by) == ("2027-03-12", "2026-09-13")
    own = items(run(with_sheet(spud="2027-03-08", orders=[{"id": "o", "item": "piece/0", "lead_days": 10}])))["piece/0"]
    assert (own.order_day, own.lead_given, own.order_by) == (math.floor(own.needed_day - 10), True, "2027-03-02")


def test_what_several_steps_use_is_wanted_by_the_first():
    judged = run(demo_well(3))
    plugs = [line.begins for line in judged.detail().lines if line.key.startswith("end/plug/")]
    assert len(set(plugs)) > 2
    assert items(judged)["plug-cement"].needed_day == min(plugs)


def test_prices_that_are_given_add_up_with_their_spares():
    orders = [{"id": "o", "item": "s4/pipe/1", "price": 1000.0, "ordered": "2026-08-01"}]
    judged = run(with_sheet(orders=orders))
    assert items(judged)["s4/pipe/1"].cost == pytest.approx(321_000.0)
    assert judged.detail().cost == pytest.approx(321_000.0)
    assert judged.detail().prices_unknown == len(judged.detail().materials) - 1


def test_a_well_that_is_abandoned_orders_no_production_string_and_no_tree():
    document = demo_well()
    document["completion"]["decision"] = "plug and abandon"
    held = items(run(document))
    assert not {"s4/pipe/1", "s4/cement", "piece/2", "tree", "tubing"} & set(held)
    assert {"s4/bits", "plug-cement", "s3/pipe/1"} <= set(held)


def sheets(before, after):
    one, other = run(before).detail(), run(after).detail()
    return {c.key: c.what for c in line_changes(one.lines, other.lines)}


def test_only_the_lines_that_say_something_else_have_changed():
    document = demo_well()
    document["strings"][3]["mud_ppg"] = 13.3
    changed = sheets(demo_well(), document)
    assert changed["s4/drill/0"] == changed["s4/mud"] == changed["s4/displace/1"] == "changed"
    assert not [k for k in changed if k.startswith(("site/", "s2/", "s3/"))], "the strings above are as they were"
    assert sheets(demo_well(), demo_well()) == {}


def test_a_number_that_reads_the_same_has_not_changed():
    document = demo_well()
    document["strings"][3]["mud_ppg"] = 13.200001
    assert sheets(demo_well(), document) == {}


def test_steps_that_came_went_and_moved():
    own = {"id": "x1", "text": "Fish", "after": "s3/leak-off"}
    assert sheets(demo_well(), with_sheet(steps=[own])) == {"own/x1": "new"}
    assert sheets(with_sheet(steps=[own]), demo_well()) == {"own/x1": "gone"}
    moved = with_sheet(edits=edits({"step": "s3/watch", "after": "s3/drill/0"}))
    assert sheets(demo_well(), moved) == {"s3/watch": "moved"}
    crossed = with_sheet(edits=edits({"step": "s2/cup", "crossed": True}))
    assert sheets(demo_well(), crossed) == {"s2/cup": "changed"}


def test_what_two_lists_of_materials_differ_in():
    document = demo_well()
    document["strings"][3]["pipe"] = {"weight_ppf": 35.0, "grade": "P110", "connection": "BTC"}
    one, other = run(demo_well()).detail(), run(document).detail()
    found = {plain(c.what): (c.before, c.after) for c in material_changes(one.materials, other.materials)}
    assert found["7 in 32.0 lb/ft P110 LTC"] == (321.0, None)
    assert found["7 in 35.0 lb/ft P110 BTC"][0] is None
    assert "9 5/8 in float shoe" not in found
    assert material_changes(one.materials, one.materials) == ()
