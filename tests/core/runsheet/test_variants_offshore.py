"""What another way of doing it changes in the platform's sheet and in that of the deep well: which steps come, which go."""

from itertools import pairwise

import pytest

from knollstack.core.base.units import plain
from tests.core.runsheet.test_variants import COMPLETED, abandoned, of, suspended
from tests.core.runsheet.wells import broken, demo_well, keys, line_of
from tests.helpers import run

PLATFORM, DEEP = 2, 3
RUN = [
    "tally", "gear", "lines", "shoe", "pipe/1", "fill", "speed", "hook", "land", "break", "circulate", "plugs", "job",
    "pump/1-1", "pump/1-2", "displace/1", "bump/1", "returns", "release", "clear", "wait",
]  # fmt: skip
LINER = [*RUN, "rams", "bonnets", "rams-back", "liner-top"]
HUNG = [*RUN, "bushing-out", "cover", "pack-off", "bushing-in"]


def plugs(*numbers):
    return [f"plug/k{n}-{what}" for n in numbers for what in ("set", "verify")]


def completed(document):
    document["completion"]["decision"] = "complete"


def drilled(document):
    document["strings"][0].update(run="cased", bit_in=36.0)


def hammered(document):
    document["strings"][0]["run"] = "driven"


def no_mudline_hangers(document):
    document["wellhead"]["mudline_hangers"] = "none"


VARIANTS = [
    (PLATFORM, completed, of("end", COMPLETED), of("end", ["pipe", *plugs(1), "mud", "cap"])),
    (PLATFORM, abandoned, of("end", [*plugs(2, 3, 4), "cut"]), of("s4", LINER) | {"end/cap"}),
    (PLATFORM, no_mudline_hangers, set(), {"s2/mudline", "s3/mudline"}),
    (PLATFORM, drilled, {"site/conductor-hole", "site/conductor-cement", "s2/drill-out"}, {"site/conductor"}),
    (DEEP, suspended, of("s5", HUNG) | {"end/cap"}, of("end", [*plugs(2, 3), "cut"])),
    (DEEP, completed, of("s5", HUNG) | of("end", COMPLETED), of("end", ["pipe", *plugs(1, 2, 3), "mud", "cut"])),
    (DEEP, drilled, {"s1/conductor-hole", "s1/conductor-cement", "s2/drill-out"}, {"s1/jet", "s1/soak"}),
    (DEEP, hammered, {"s1/hammer"}, {"s1/jet", "s1/soak"}),
]


@pytest.mark.parametrize(
    ("which", "change", "come", "gone"), VARIANTS, ids=[f"{r[1].__name__}-{r[0]}" for r in VARIANTS]
)
def test_which_steps_come_and_go(which, change, come, gone):
    document = demo_well(which)
    before = set(keys(run(document)))
    change(document)
    after = set(keys(run(document)))
    assert (after - before, before - after) == (come, gone)
    assert broken(document) == []


@pytest.mark.parametrize("which", [PLATFORM, DEEP])
def test_a_drilled_conductor_is_cemented_before_its_shoe_is_drilled_out(which):
    document = demo_well(which)
    drilled(document)
    judged = run(document)
    found, row = keys(judged), judged.cement.strings[0]
    head = "site" if which == PLATFORM else "s1"
    steps = [f"{head}/conductor-hole", f"{head}/conductor-cement", "s2/drill-out"]
    assert sorted(steps, key=found.index) == steps
    cemented = line_of(judged, steps[1])
    assert f"{row.slurry_bbl:,.1f} bbl of slurry, {row.sacks + (row.lead_sacks or 0.0):,.0f} sk" in plain(cemented.text)
    assert [d.act for d in cemented.does] == ["cemented", "set"]
    assert ("to the sea floor, camera" in plain(cemented.text)) is (which == DEEP)


def test_the_hole_of_a_conductor_is_on_the_curve_only_once_the_clock_runs():
    """At sea the well is spudded with its conductor; on a platform that stands before the rig comes."""
    for which, starts in ((DEEP, 4435.0), (PLATFORM, 700.0)):
        document = demo_well(which)
        drilled(document)
        curve = run(document).runsheet.curve
        assert curve[0].md_ft == starts
        assert max(row.md_ft for row in curve) == document["strings"][-1]["shoe_md_ft"]
        assert all(a.md_ft <= b.md_ft and a.day <= b.day for a, b in pairwise(curve))
