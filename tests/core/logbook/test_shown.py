"""What is told of a log: findings on both sides of their limits, fact and plan, days, what is free, plan and actual."""

import json

import pytest

from knollstack.core.base.units import plain
from knollstack.core.evaluation.evaluate import evaluate, of_log, workings
from knollstack.core.logbook.drilled import as_drilled, landed_at
from knollstack.core.logbook.free import free_of
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.core.runsheet.asked import BY_ACT
from tests.core.logbook.log import SPUD, SURFACE, entry, logged, told_of
from tests.helpers import CATALOGUE, demo, run


def worked(*rows, document=None):
    return evaluate(parse(logged(*rows, document=document)), CATALOGUE)


def words(findings):
    return " | ".join(plain((*f.subject, ": ", *f.message)) for f in findings)


def planned_strength():
    """Of the demo's ground at 2,000 ft."""
    return program_of(parse(demo()), CATALOGUE).well.ground.fracture.one(2000.0)


@pytest.mark.parametrize(("off", "told"), [(0.1, 0), (-0.04, 0), (-0.06, 1), (-1.0, 1)])
def test_a_leak_off_under_the_plan_is_a_caution(off, told):
    """Within 0.05 ppg it is the same."""
    row = entry("leak-off test", 13, string="s2", mud_ppg=9.0, emw_ppg=planned_strength() + off, test="leak-off")
    found = [f for f in told_of(worked(row), "caution") if "Leak-off at" in plain(f.message)]
    assert len(found) == told
    integrity = worked({**row, "test": "integrity"})
    assert not told_of(integrity, "caution")
    assert len(told_of(integrity, "note")) == told


def test_points_without_a_line_leave_the_strength_unknown():
    flat = [{"volume_bbl": float(i), "pressure_psi": 5.0} for i in range(4)]
    evaluation = worked(entry("leak-off test", 13, string="s2", mud_ppg=9.0, points=flat))
    assert "not known" in words(told_of(evaluation, "unknown"))
    assert evaluation.logbook.tests[0].emw_ppg is None
    assert {p.step: p.state for p in evaluation.path}["logbook"] == "incomplete"


@pytest.mark.parametrize(("deep", "told"), [(6999.0, False), (7000.0, False), (7001.0, True)])
def test_a_hole_deeper_than_the_planned_shoe_is_told(deep, told):
    found = told_of(worked(SURFACE, entry("depth", 20, md_ft=deep)), "caution")
    assert ("deeper than the planned shoe" in words(found)) == told


@pytest.mark.parametrize(
    ("values", "severity", "said"),
    [
        ({"bumped": False}, "caution", "did not bump"),
        ({"bumped": True}, "caution", None),
        ({"returns": "full"}, "caution", None),
        ({"returns": "lost"}, "unknown", "no top of cement is logged"),
        ({"returns": "partial"}, "unknown", "no top of cement is logged"),
        ({"returns": "lost", "top_md_ft": 900.0}, "unknown", None),
        ({"returns": "full"}, "unknown", None),
    ],
)
def test_a_job_that_went_otherwise_is_told(values, severity, said):
    found = told_of(worked(SURFACE, entry("cement", 11, string="s2", **values)), severity)
    assert (said in words(found)) if said else not found


@pytest.mark.parametrize(("passed", "stops"), [(True, 0), (False, 1)])
def test_a_test_that_did_not_hold_is_a_stop(passed, stops):
    assert (
        len(told_of(worked(SURFACE, entry("test", 12, string="s2", pressure_psi=900.0, passed=passed)), "stop"))
        == stops
    )


def test_a_kick_without_its_pressure_is_unknown_and_with_it_a_note():
    kick = entry("kick", 20, md_ft=8000.0, mud_ppg=9.5, volume_bbl=8.0)
    assert "not known" in words(told_of(worked(kick), "unknown"))
    assert "8.0 bbl gained" in words(told_of(worked({**kick, "drill_pipe_psi": 150.0}), "note"))


def test_what_happened_and_is_not_logged_is_assumed():
    def assumed(*rows):
        return [plain(a.text) for a in worked(*rows).assumptions if a.step == "logbook"]

    drilled_out = entry("depth", 14, md_ft=2050.0)
    assert len(assumed(SURFACE)) == 1, "its cement; its strength is not drilled out yet"
    assert ["strength" in text for text in assumed(SURFACE, drilled_out)] == [True, False]
    test = entry("leak-off test", 13, string="s2", mud_ppg=9.0, emw_ppg=13.0)
    job = entry("cement", 11, string="s2", bumped=True)
    assert assumed(SURFACE, drilled_out, test, job) == []


def test_a_finding_is_of_a_fact_where_what_it_judges_stands():
    """Pipe that does not stand its test: of a string that is landed, or only planned."""
    document = demo()
    for string in document["strings"][1:3]:
        string |= {"test_psi": 12_000.0}

    def of(evaluation, index):
        return [f.fact for f in evaluation.findings if f.place.startswith(f"/strings/{index}/") and f.step == "pipe"]

    assert set(of(worked(SPUD, document=document), 1)) == {False}
    assert set(of(worked(SURFACE, document=document), 1)) == {True}
    assert set(of(worked(SURFACE, document=document), 2)) == {False}, "the next one is planned"
    assert all(not f.fact for f in evaluate(parse(document), CATALOGUE).findings)
    test = entry("test", 12, string="s2", pressure_psi=900.0, passed=False)
    assert all(f.fact for f in told_of(worked(SURFACE, test), "stop"))
    short = worked(SURFACE, entry("cement", 11, string="s2", tail_bbl=100.0))
    cement = [f.fact for f in short.findings if f.step == "cement" and f.place.startswith("/strings/1/")]
    assert cement
    assert all(cement)
    only_landed = worked(
        SURFACE, document=demo() | {"strings": [*demo()["strings"][:1], short_of(demo()), *demo()["strings"][2:]]}
    )
    assert not any(f.fact for f in only_landed.findings if f.step == "cement" and f.place == "/strings/1/cement/fluids")


def short_of(document):
    """The surface string with too little tail planned."""
    string = document["strings"][1]
    fluids = [{**f, "volume_bbl": 100.0} if f["kind"] == "tail" else f for f in string["cement"]["fluids"]]
    return {**string, "cement": {**string["cement"], "fluids": fluids}}


def test_days_are_counted_from_the_spud_and_held_beside_the_plan():
    curve = run(demo()).whole.runsheet.curve
    planned = next(p for p in curve if p.md_ft == 2000.0).day
    rows = [SPUD, entry("depth", 9, md_ft=1000.0), entry("depth", 14, md_ft=2000.0)]
    log = worked(*rows).logbook
    assert [(p.day, p.md_ft) for p in log.curve] == [(1.0, 1000.0), (6.0, 2000.0)]
    short = entry("shoe landed", 15, string="s2", md_ft=1900.0)
    for detail in (of_log(parse(logged(*rows, *more)), CATALOGUE)[0] for more in ((), (short,))):
        assert detail.planned == curve, "the plan's own schedule, whatever stands"
        assert detail.days_behind == pytest.approx(6.0 - planned)
    assert worked(rows[1]).logbook.day == 0.0, "without a spud the first depth begins"
    assert worked(entry("note", 9, text="rig on the way")).logbook.day is None


def test_the_working_of_a_test_opens():
    design = parse(logged(entry("leak-off test", 13, string="s2", mud_ppg=9.0, leak_off_psi=400.0)))
    (call,) = workings(design, CATALOGUE)["logbook/test/1"]
    assert call.result == pytest.approx(9.0 + 400 / (12 / 231 * 2000))


OPEN = [SPUD, SURFACE, entry("depth", 20, md_ft=6000.0)]


def test_a_depth_is_free_where_setting_the_shoe_there_brings_no_stop():
    """The edges are held beside the same judgement a foot to either side."""
    made = as_drilled(parse(logged(*OPEN)))
    free = free_of(program_of(made.design, CATALOGUE), made, CATALOGUE)
    assert free.string == 2
    assert free.looked.top_md_ft == 6000.0
    assert free.shoes

    def stops(md_ft):
        evaluation = evaluate(landed_at(made.design, 2, md_ft), CATALOGUE)
        places = ("/strings/1/", "/strings/2/", "/strings/3/")
        return [
            f for f in evaluation.findings if f.severity == "stop" and f.step == "depths" and f.place.startswith(places)
        ]

    for span in free.shoes:
        assert not stops(span.top_md_ft)
        assert not stops(span.base_md_ft)
        assert not stops((span.top_md_ft + span.base_md_ft) / 2)
        if span.base_md_ft < free.looked.base_md_ft:
            assert stops(span.base_md_ft + 1.0)
        if span.top_md_ft > free.looked.top_md_ft:
            assert stops(span.top_md_ft - 1.0)


@pytest.mark.parametrize("profile", ["pore", "fracture"])
def test_nothing_is_free_where_the_rock_is_not_known(profile):
    """Known to 8,000 ft alone: the hole below the next shoe is not judged, so no depth of it is free."""
    document = demo()
    document["ground"][profile] = [p for p in document["ground"][profile] if p["tvd_ft"] < 8000.0]
    free = of_log(parse(logged(*OPEN, document=document)), CATALOGUE)[0].free
    assert free.shoes == ()
    assert "not known" in plain(free.why_not)


def test_what_is_free_follows_what_is_logged():
    def free(*rows):
        return of_log(parse(logged(*rows)), CATALOGUE)[0].free

    before = free(*OPEN)
    weak = free(*OPEN, entry("leak-off test", 13, string="s2", mud_ppg=9.0, emw_ppg=11.5, test="leak-off"))
    assert weak.kick_bbl < before.kick_bbl
    assert sum(s.base_md_ft - s.top_md_ft for s in weak.shoes) < sum(s.base_md_ft - s.top_md_ft for s in before.shoes)
    landed = free(*OPEN, entry("shoe landed", 22, string="s3", md_ft=7000.0))
    assert landed.string == 3
    assert [s.od_in for s in landed.remaining] == [7.0]
    done = free(
        *OPEN,
        entry("shoe landed", 22, string="s3", md_ft=7000.0),
        entry("shoe landed", 28, string="s4", md_ft=12_600.0),
    )
    assert done is None


def test_plan_and_actual_are_held_line_by_line():
    rows = [
        *OPEN,
        entry("cement", 11, string="s2", top_md_ft=60.0),
        entry("leak-off test", 13, string="s2", mud_ppg=9.0, emw_ppg=12.26, test="leak-off"),
        entry("mud", 14, md_ft=2500.0, mud_ppg=9.5),
    ]
    detail, beside = of_log(parse(logged(*rows)), CATALOGUE)
    told = {
        (plain(r.section), r.what): (plain(r.planned), plain(r.actual), plain(r.difference)) for r in detail.comparison
    }
    assert told["13 3/8 in", "shoe"] == ("2,000 ft", "1,985 ft", "15 ft shallower")
    assert told["13 3/8 in", "top of cement"] == ("30 ft", "60 ft", "30 ft deeper")
    assert told["13 3/8 in", "strength at the shoe, leak-off"][1:] == ("12.26 ppg", "1.00 ppg lower")
    assert told["9 5/8 in", "heaviest mud"] == ("9.20 ppg", "9.50 ppg", "0.30 ppg heavier")
    assert told["9 5/8 in", "shoe"] == ("7,000 ft", "not yet", "")
    assert told["20 in", "shoe"] == ("130 ft", "not logged", "")
    assert told["Well", "days from the spud"][1] == "not yet"
    shoes = [r for r in beside.results if (r.step, r.section, r.label) == ("depths", "surface", "shoe")]
    assert [(plain(r.a), plain(r.b), r.differs) for r in shoes] == [("2,000 ft", "1,985 ft", True)]
    whole = [
        *rows,
        *(entry("shoe landed", d, string=s, md_ft=m) for d, s, m in ((22, "s3", 7000.0), (30, "s4", 12_600.0))),
    ]
    last = {
        r.what: plain(r.difference)
        for r in of_log(parse(logged(*whole)), CATALOGUE)[0].comparison
        if plain(r.section) == "Well"
    }
    assert last["total depth"] == "as planned"
    assert last["days from the spud"].endswith("earlier")


@pytest.mark.parametrize("well", [1, 2, 3])
def test_every_step_asks_for_an_entry_that_it_can_be_signed_with(well):
    """Its kind is one of the log's; what is about a string names one of the design."""
    from knollstack.demo import documents

    document = json.loads(documents()[well])
    lines = run(document).detail().lines
    ids = {s["id"] for s in document["strings"]}
    asked = {line.asks for line in lines}
    assert asked >= {"signed", "depth", "shoe landed", "leak-off test", "cement", "test", "spud", "tally"}
    assert set(BY_ACT.values()) <= asked
    for line in lines:
        assert line.about == "" or line.about in ids
        assert (line.about != "") or line.asks not in ("shoe landed", "leak-off test", "tally", "cement"), line.key
    tests = {line.key: line.about for line in lines if line.key.endswith("/leak-off")}
    order = [s["id"] for s in document["strings"]]
    assert all(order.index(about) == order.index(key.split("/")[0]) - 1 for key, about in tests.items())
