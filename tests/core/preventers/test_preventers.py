"""Stacks on both sides of their limits: class, bore, room under the rotary, and the string they stand on."""

import pytest

from knollstack.core.base.units import plain
from tests.core.evaluation.test_judging import strings
from tests.helpers import applied, elements, find, run

STACK = {
    "id": "p1",
    "string": "s3",
    "class_psi": 5000.0,
    "elements": elements("pipe rams", "blind shear rams", "annular"),
}


def said(document, severity="stop"):
    return [plain(f.message) for f in find(run(document), "preventers", severity)]


@pytest.mark.parametrize(
    ("least_psi", "classes"), [(2000.0, [2000, 5000]), (2001.0, [3000, 5000]), (5001.0, [10000, 10000])]
)
def test_no_stack_is_under_the_least_class_of_policy(least_psi, classes):
    """The surface casing sees 1,462 psi and the intermediate 3,675: the least class lifts what is under it."""
    stacks = run(strings(policy__preventers__minimum_class_psi=least_psi)).preventers.strings
    assert [row.class_psi for row in stacks[1:3]] == classes


@pytest.mark.parametrize(("class_psi", "stands"), [(3700.0, True), (3675.0, True), (3600.0, False)])
def test_a_decided_class_is_judged_by_the_pressure_under_it(class_psi, stands):
    document = strings(preventers=[STACK | {"class_psi": class_psi}])
    needed = run(document).preventers.strings[2].pressure_psi
    assert needed == pytest.approx(3675.0, abs=1.0)
    document = strings(preventers=[STACK | {"class_psi": needed if class_psi == 3675.0 else class_psi}])
    found = [f for f in find(run(document), "preventers", "stop") if f.place.startswith("/preventers/0")]
    assert (found == []) == stands
    for finding in found:
        assert said(applied(document, finding.remedies[0].changes)) == []


@pytest.mark.parametrize(("bit_in", "passes"), [(11.0, True), (11.01, False)])
def test_the_bit_passes_the_stack_or_not(bit_in, passes):
    """On 9 5/8 in at 5,000 psi the flange is 11 in; the bit below passes at that size and not over it."""
    document = strings(strings__3__bit_in=bit_in)
    assert run(document).preventers.strings[2].bore_in == 11.0
    texts = [t for t in said(document) if "does not pass" in t]
    assert (texts == []) == passes


@pytest.mark.parametrize(("room_ft", "fits"), [(14.7, True), (14.6, False)])
def test_the_tallest_stack_stands_under_the_rotary_or_not(room_ft, fits):
    """176 in of elements on the tubing spool, whose top flange is at ground level, reach 14.67 ft."""
    document = strings(site__rotary_room_ft=room_ft)
    assert run(document).preventers.strings[2].height_in == 176.0
    assert ([t for t in said(document) if "heads and stack reach" in t] == []) == fits


def test_a_stack_stays_on_its_string_when_another_is_deleted():
    """Two stacks; the surface casing goes: the intermediate keeps its own, the other is told as standing on nothing."""
    low = STACK | {"id": "p0", "string": "s2", "class_psi": 3000.0}
    document = strings(preventers=[low, STACK])
    assert [row.class_psi for row in run(document).preventers.strings] == [None, 3000.0, 5000.0, 5000.0]
    for n, string in enumerate(document["strings"], start=1):
        string["id"] = f"s{n}"
    del document["strings"][1]
    evaluation = run(document)
    assert [row.class_psi for row in evaluation.preventers.strings] == [None, 5000.0, 5000.0]
    finding = next(f for f in find(evaluation, "preventers", "caution") if "no longer" in plain(f.message))
    assert (finding.place, plain(finding.message)) == (
        "/preventers/0",
        "The string that it is installed on is no longer in the design.",
    )
    assert [s["id"] for s in applied(document, finding.remedies[0].changes)["preventers"]] == ["p1"]


@pytest.mark.parametrize(("room_ft", "told"), [(16.0, None), (15.66, None), (15.65, "caution"), (14.6, "stop")])
def test_the_stack_is_lifted_under_the_rotary_to_set_slips_or_not(room_ft, told):
    """On the 9 5/8 in 176 in stand 24.16 in under the ground: they reach 12.653 ft, 15.653 lifted; the last is not lifted."""
    found = [
        f for f in find(run(strings(site__rotary_room_ft=room_ft)), "preventers") if f.place == "/site/rotary_room_ft"
    ]
    assert [f.severity for f in found] == ([] if told is None else [told])
    mandrel = strings(site__rotary_room_ft=room_ft, policy__running__hanger="mandrel")
    severe = [f.severity for f in find(run(mandrel), "preventers") if f.place == "/site/rotary_room_ft"]
    assert severe == (["stop"] if told == "stop" else [])


@pytest.mark.parametrize(
    ("names", "choke", "told"),
    [
        (("pipe rams", "drilling spool", "blind rams", "annular"), None, False),
        (("pipe rams", "blind rams", "drilling spool", "annular"), None, True),
        (("pipe rams", "blind rams", "drilling spool", "annular"), "e2", False),
        (("pipe rams", "blind rams", "annular"), None, False),
    ],
)
def test_a_line_stands_below_a_ram_or_is_told(names, choke, told):
    stack = STACK | {"elements": elements(*names), "choke": choke, "kill": choke}
    found = [
        f
        for f in find(run(strings(preventers=[stack])), "preventers", "caution")
        if "line stands above" in plain(f.message)
    ]
    assert [f.place for f in found] == (["/preventers/0/choke", "/preventers/0/kill"] if told else [])
    for finding in found:
        after = run(applied(strings(preventers=[stack]), finding.remedies[0].changes))
        left = [f.place for f in find(after, "preventers", "caution") if "line stands above" in plain(f.message)]
        assert finding.place not in left


@pytest.mark.parametrize(
    ("mounting", "words"),
    [("slip-on weld", "test the welds"), ("threaded", "made up to its torque"), ("slip-on grips", "set its grips")],
)
def test_the_head_is_set_as_it_is_mounted(mounting, words):
    steps = run(strings(wellhead={"mounting": mounting, "base_plate_in": 0.0})).preventers.strings[0].steps
    assert words in plain(steps[2])
    assert "base plate" not in plain(steps[2])
