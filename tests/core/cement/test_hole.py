"""The hole by its caliper and by intervals of excess, in the volumes and in the job alike."""

import itertools

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.cement.conduit import conduit_of
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from tests.core.cement.test_job_findings import known
from tests.helpers import CATALOGUE, find, run

IN2 = 1029.42


def row(document):
    return run(document).cement.strings[2]


def whole_of(document):
    program = program_of(parse(document), CATALOGUE)
    string = program.strings[2]
    way = conduit_of(program.well, string, tuple(program.cased_bores(string)), 6000.0, 5920.0)
    return way.over_md_bbl(1700.0)


def test_each_interval_has_its_excess():
    """12 1/4 in hole around 9 5/8 in, 0.0557811 bbl/ft: 1,000 ft at 10 %, 500 at 60 %, and 2,500 at the string's 25 %."""
    rows = [
        {"top_md_ft": 2500.0, "base_md_ft": 3500.0, "excess": 0.1},
        {"top_md_ft": 5500.0, "base_md_ft": 6000.0, "excess": 0.6},
    ]
    document = known(strings__2__cement__excesses=rows, strings__2__cement__excess=0.25)
    by_hand = 0.0557811 * (1000 * 1.1 + 500 * 1.6 + 2500 * 1.25)
    assert row(document).open_annulus_bbl == pytest.approx(by_hand, rel=1e-5)
    assert whole_of(document) == pytest.approx(by_hand + row(document).cased_annulus_bbl, rel=1e-5)


def readings(seed=3, low=2100.0, high=6000.0):
    rng = np.random.default_rng(seed)
    depths = np.unique(rng.uniform(low, high, 300).round(1))
    depths[0], depths[-1] = low, high
    return [
        {"md_ft": float(z), "diameter_in": float(d)}
        for z, d in zip(depths, rng.uniform(11.5, 16.0, len(depths)).round(2), strict=True)
    ]


def test_a_caliper_gives_the_volume_of_a_plain_sum():
    """Averaged capacities between readings, 10 % of policy over them; above the first reading the bit with 25 %."""
    points = readings()
    by_hand = 0.0557811 * 100 * 1.25
    for a, b in itertools.pairwise(points):
        mean = sum(max(p["diameter_in"], 9.625) ** 2 - 9.625**2 for p in (a, b)) / 2 / IN2
        by_hand += mean * (b["md_ft"] - a["md_ft"]) * 1.1
    document = known(strings__2__cement__caliper=points, strings__2__cement__excess=0.25)
    assert row(document).open_annulus_bbl == pytest.approx(by_hand, rel=1e-4)
    assert whole_of(document) == pytest.approx(
        row(document).open_annulus_bbl + row(document).cased_annulus_bbl, rel=1e-9
    )
    found = [plain(f.message) for f in find(run(document), "cement") if "aliper" in plain(f.subject)]
    assert found == []


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (lambda p: [r | {"diameter_in": r["diameter_in"] / 2} for r in p], "is it of another hole?"),
        (lambda p: [r | {"md_ft": r["md_ft"] + 5000} for r in p], "no readings in the open hole"),
        (lambda p: [r for r in p if not 3000 < r["md_ft"] < 3150], "It has a gap from"),
        (lambda p: [r for r in p if r["md_ft"] < 5800], "the rest has the bit's excess"),
    ],
)
def test_a_caliper_that_is_not_of_this_hole_or_not_whole_is_told(change, words):
    document = known(strings__2__cement__caliper=change(readings()))
    said = [plain(f.message) for f in find(run(document), "cement") if "aliper" in plain(f.subject)]
    assert any(words in s for s in said), said


def test_an_interval_outside_the_open_hole_is_told():
    rows = [{"top_md_ft": 500.0, "base_md_ft": 1900.0, "excess": 0.1}]
    said = [plain(f.message) for f in find(run(known(strings__2__cement__excesses=rows)), "cement")]
    assert any("is not in the open hole" in s for s in said)


@pytest.mark.parametrize(
    ("key", "rows", "at"),
    [
        ("caliper", [(3000.0, 12.0), (3000.0, 12.5)], "caliper/1/md_ft"),
        ("excesses", [(3000.0, 3500.0), (3400.0, 3600.0)], "excesses/1/top_md_ft"),
        ("excesses", [(3000.0, 3000.0)], "excesses/0/base_md_ft"),
    ],
)
def test_readings_and_intervals_stand_in_order(key, rows, at):
    made = [
        {"md_ft": a, "diameter_in": b} if key == "caliper" else {"top_md_ft": a, "base_md_ft": b, "excess": 0.2}
        for a, b in rows
    ]
    with pytest.raises(FaultyDesign) as raised:
        parse(known(**{f"strings__2__cement__{key}": made}))
    assert [f.path for f in raised.value.faults] == [f"/strings/2/cement/{at}"]
