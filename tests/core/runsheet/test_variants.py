"""What another way of doing it changes in the land demo's sheet: which steps come, which go, and in which order they stand."""

import pytest

from knollstack.core.base.units import plain
from tests.core.runsheet.wells import broken, demo_well, keys, line_of
from tests.helpers import run

TOP = [
    "count", "lift", "slips", "rough-cut", "final-cut", "spool", "prove/1", "prove/2", "nipple-up", "plug", "test/e1", "test/e3",
    "test/e4", "test/e5", "test/choke", "test/kill", "function", "plug-out", "cup",
]  # fmt: skip
COMPLETED = ["casing-test", "clean", "fluid", "bond", "packer", "tubing", "space-out", "land", "bpv", "tree", "tree-joint",
             *(f"tree-valve/{n}" for n in range(1, 6)), "bpv-out", "guns-through"]  # fmt: skip


def of(head, words):
    return {f"{head}/{word}" for word in words}


def liner(document):
    document["strings"][3].update(run="liner", hanger_md_ft=6600.0)


def two_stages(document):
    document["strings"][2]["cement"]["stage_collar_md_ft"] = 4000.0


def conductor_drilled(document):
    document["strings"][0].update(run="cased", bit_in=26.0)


def multi_bowl(document):
    document["wellhead"] = {}
    document["policy"]["wellhead"] = {"arrangement": "multi-bowl head"}


def two_muds(document):
    document["strings"][3]["mud_steps"] = [{"to_md_ft": 10_000.0, "mud_ppg": 12.9}]


def nothing_learnt(document):
    document["completion"]["evaluation"] = []


def suspended(document):
    document["completion"]["decision"] = "suspend"


def abandoned(document):
    document["completion"]["decision"] = "plug and abandon"


VARIANTS = [
    (
        liner,
        {"s3/test/e4-2", "s4/release", "s4/rams-back", "s4/liner-top"},
        of("s4", [*TOP, "bushing-out", "bushing-in"]),
    ),
    (two_stages, of("s3", ["open/2", "pump/2-1", "pump/2-2", "displace/2", "bump/2"]), set()),
    (conductor_drilled, {"site/conductor-hole", "site/conductor-cement", "s2/drill-out"}, {"site/conductor"}),
    (multi_bowl, of("s3", ["pack-off", "rams-back"]), of("s3", TOP)),
    (two_muds, {"s4/drill/5"}, set()),
    (
        nothing_learnt,
        {"s4/trip/3"},
        {"s2/while-drilling/y1", "s3/evaluate/y2", "s3/wiper"}
        | of("s4", ["while-drilling/y4", "core/y5", "evaluate/y6", "wiper"]),
    ),
    (suspended, of("end", ["pipe", "plug/k1-set", "plug/k1-verify", "mud", "cap"]), of("end", COMPLETED)),
]


@pytest.mark.parametrize(("change", "come", "gone"), VARIANTS, ids=[row[0].__name__ for row in VARIANTS])
def test_which_steps_come_and_go(change, come, gone):
    document = demo_well()
    before = set(keys(run(document)))
    change(document)
    after = set(keys(run(document)))
    assert (after - before, before - after) == (come, gone)
    assert broken(document) == []


def test_an_abandoned_well_runs_no_production_string():
    document = demo_well()
    abandoned(document)
    found = keys(run(document))
    last = [key for key in found if key.startswith("s4/")][-1]
    assert last == "s4/decision"
    assert [key for key in found if key.startswith("end/plug/")] == [
        f"end/plug/k{n}-{what}" for n in range(1, 5) for what in ("set", "verify")
    ]
    assert broken(document) == []


def test_each_stage_is_displaced_and_shut_before_the_next_is_pumped():
    document = demo_well()
    two_stages(document)
    judged = run(document)
    found = keys(judged)
    stages = ["pump/1-1", "pump/1-2", "displace/1", "bump/1", "open/2", "pump/2-1", "pump/2-2", "displace/2", "bump/2"]
    at = found.index("s3/pump/1-1")
    assert found[at : at + 9] == [f"s3/{word}" for word in stages]
    told = {word: plain(line_of(judged, f"s3/{word}").text) for word in stages}
    assert told["open/2"].startswith("Drop the opening plug; open the stage collar at 4,000 ft")
    assert told["pump/2-2"].startswith("Mix and pump")
    assert told["displace/2"].startswith("Drop the closing plug")
    assert told["bump/2"].startswith("Shut the stage collar at")
    assert [d.act for d in line_of(judged, "s3/bump/1").does] == []
    assert [d.act for d in line_of(judged, "s3/bump/2").does] == ["cemented"]
    assert plain(line_of(judged, "s4/drill-out").text).startswith(
        "Drill out the stage collar at 4,000 ft, plugs, collar at"
    )


def test_a_mud_raised_on_the_way_is_told_at_its_depth():
    document = demo_well()
    two_muds(document)
    judged = run(document)
    assert plain(line_of(judged, "s4/mud").text).startswith(
        "Bring the mud from 9.20 ppg to 12.90 ppg, to 13.20 ppg by the end of the section: "
    )
    drilled = [plain(line.text) for line in judged.sheet().lines if line.key.startswith("s4/drill/")]
    assert "from 9,715 ft to 10,000 ft with 12.90 ppg mud" in drilled[2]
    assert "from 10,000 ft to 11,065 ft with 13.20 ppg mud" in drilled[3]
