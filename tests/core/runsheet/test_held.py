"""What the design itself does not allow: the sheet stops there and says why; what is not known is no barrier."""

import json

import pytest

from knollstack.core.base.units import plain
from knollstack.demo import documents
from tests.core.runsheet.wells import demo_well, line_of
from tests.helpers import elements, find, run


def leaking(*elements):
    document = demo_well()
    rows = [
        {"id": f"w{k}", "element": e, "how": "pressure test", "result": "leaks", "date": "2027-03-20"}
        for k, e in enumerate(elements)
    ]
    document["completion"]["verified"] = rows
    return document


def test_bops_do_not_come_off_over_a_barrier_that_leaks():
    judged = run(leaking("casing s3"))
    line = line_of(judged, "s3/lift")
    assert line.held is not None
    assert (plain(line.held.why), line.held.unknown) == ("1 of 2 barriers stand", False)
    told = [plain(f.message) for f in find(judged, "runsheet", "stop")]
    assert "The sheet stops here: 1 of 2 barriers stand." in told
    assert line_of(run(demo_well()), "s3/lift").held is None


def test_the_tree_does_not_go_on_either():
    judged = run(leaking("packer"))
    assert line_of(judged, "end/off").held is not None
    assert line_of(judged, "end/tree").held is not None
    assert line_of(judged, "s3/lift").held is None


def test_what_is_not_known_holds_it_as_unknown():
    document = demo_well()
    document["ground"]["pore"] = []
    judged = run(document)
    line = line_of(judged, "s3/lift")
    assert line.held is not None
    assert line.held.unknown
    assert find(judged, "runsheet", "unknown")[0].place == "/runsheet"


@pytest.mark.parametrize(("capacity", "held"), [(241_000.0, True), (242_000.0, False)])
def test_nothing_heavier_is_hung_than_the_bowl_carries(capacity, held):
    """The 9 5/8 in hangs 241,682 lbf."""
    document = demo_well()
    judged = run(document)
    pieces = []
    for k, p in enumerate(judged.wellhead.pieces[:3]):
        row = {"id": f"p{k}", "name": p.name, "height_in": p.height_in, "bore_in": p.bore_in, "top_psi": p.top_psi}
        pieces.append(
            {**row, "bottom_psi": p.bottom_psi, "string": p.string_id, "gap_in": p.gap_in, "bowl_lbf": capacity}
        )
    document["wellhead"] = {"pieces": pieces}
    assert (line_of(run(document), "s3/slips").held is not None) is held


@pytest.mark.parametrize(
    ("names", "why"),
    [
        (("drilling spool", "blind rams", "pipe rams"), "nothing in the stack seals on it"),
        (("drilling spool", "blind rams", "pipe rams", "annular"), None),
    ],
)
def test_casing_that_nothing_closes_on_is_not_run(names, why):
    """Without the annular and without rams of its size nothing seals on the 9 5/8 in."""
    document = demo_well()
    stack = {"id": "b1", "string": "s2", "class_psi": 2000.0, "elements": elements(*names), "casing_ram": None}
    document["preventers"] = [stack]
    held = line_of(run(document), "s3/cover").held
    assert (None if held is None else plain(held.why)) == why


def test_a_suspended_well_stops_over_a_plug_that_leaks():
    document = json.loads(documents()[2])
    document["completion"]["verified"] = [{"id": "w", "element": "casing s4", "how": "log", "result": "leaks"}]
    line = line_of(run(document), "end/off")
    assert line.held is not None
