"""Remedies tried on the whole design: what clears its finding, and what it brings elsewhere."""

from knollstack.core.base.units import plain
from knollstack.core.evaluation.tried import tried
from knollstack.core.reading.read import parse
from tests.core.evaluation.test_judging import strings
from tests.helpers import CATALOGUE, applied, points, run


def by_label(document):
    """Each remedy that the evaluation offers, with what trying it found."""
    offered = [f for f in run(document).findings if f.remedies]
    found = tried(parse(document), CATALOGUE).findings
    assert [(f.place, f.message) for f in offered] == [(f.place, f.message) for f in found]
    pairs = zip(offered, found, strict=True)
    return {plain(r.label): t for f, made in pairs for r, t in zip(f.remedies, made.remedies, strict=True)}


def test_a_remedy_that_brings_nothing_says_nothing():
    document = strings(strings__3__mud_ppg=9.0, site__cellar_depth_ft=10.0)
    assert [(t.clears, t.brings) for t in by_label(document).values()] == [(True, ())]


def test_a_remedy_says_what_it_brings_to_other_steps():
    """Heavier mud holds the pore pressure, and crushes the weak 7 in casing."""
    rock = {"ground__pore": points((30, 9), (6000, 9), (10_000, 13.5)), "strings__3__mud_ppg": 9.5}
    document = strings(**rock, strings__3__pipe={"weight_ppf": 14.0, "grade": "J55", "connection": "STC"})
    found = by_label(document)["Drill with 13.80 ppg"]
    assert found.clears
    assert {b.severity for b in found.brings} <= {"stop", "caution"}
    remedy = next(r for f in run(document).findings for r in f.remedies if plain(r.label) == "Drill with 13.80 ppg")
    before, after = run(document), run(applied(document, remedy.changes))
    known = {(f.severity, f.step, f.place) for f in before.findings}
    new = [
        f
        for f in after.findings
        if f.severity in ("stop", "caution")
        and (f.severity, f.step, f.place) not in known
        and not (f.severity == "caution" and ("stop", f.step, f.place) in known)
    ]
    assert [plain(b.words) for b in found.brings] == [f"{plain(f.subject)}: {plain(f.message)}" for f in new]


def test_nothing_is_tried_where_nothing_is_offered():
    assert tried(parse(strings(site__cellar_depth_ft=10.0)), CATALOGUE).findings == ()
