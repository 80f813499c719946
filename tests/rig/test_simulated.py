"""The simulated rig: it plays the plan, the same for the same seed, and each trouble shows in what is told of its gauges."""

import json
import math
import socket

import pytest

from knollstack.core.base.dates import days_between
from knollstack.core.logbook.live import Limits, LiveSpan, PlannedHook, PlannedJob, PlannedNow, departures
from knollstack.core.logbook.watches import WATCHES
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from knollstack.rig.channels import moment
from knollstack.rig.simulated.playing import Playing, record
from knollstack.rig.simulated.rig import SimulatedRig
from knollstack.rig.simulated.timeline import timeline_of
from knollstack.rig.simulated.troubles import KINDS, Trouble, parse_trouble
from knollstack.rig.spans import Thinner
from knollstack.rig.wits import Decoder
from tests.helpers import CATALOGUE, demo, empty_demo, run


@pytest.fixture(scope="module")
def timeline():
    return timeline_of(parse(demo()), CATALOGUE)


def played(timeline, *troubles, seed=1, start=0.0, step=60.0):
    return SimulatedRig(timeline, tuple(troubles), seed, start).readings(step)


def test_a_whole_well_is_drilled_cased_and_cemented_as_planned(timeline):
    readings = list(played(timeline, step=120.0))
    deepest = 0.0
    for reading in readings:
        assert reading.values["hole_md_ft"] >= deepest - 1e-6, "a hole never gets shallower"
        assert reading.values["bit_md_ft"] <= reading.values["hole_md_ft"] + 1e-6
        assert all(math.isfinite(v) for v in reading.values.values())
        deepest = max(deepest, reading.values["hole_md_ft"])
    assert deepest == pytest.approx(12_600.0)
    assert {r.values["activity"] for r in readings} == {0.0, 2.0, 8.0, 15.0}
    jobs = [p for p in timeline.phases if p.doing == "cementing" and p.job is not None]
    assert [p.hole_md_ft for p in jobs] == pytest.approx([2000.0, 7000.0, 12_600.0])
    planned = run(demo()).whole.runsheet.curve[-1].day
    assert days_between("2027-03-08 06:00", moment(readings[-1].at_s)) == pytest.approx(planned, abs=1.0)


@pytest.mark.parametrize("well", [0, 2, 3])
def test_every_demo_well_can_be_played(well):
    made = timeline_of(parse(json.loads(documents()[well])), CATALOGUE)
    assert max(r.values["hole_md_ft"] for r in played(made, step=3600.0)) == pytest.approx(made.total_md_ft, rel=0.01)


def test_a_well_without_strings_has_nothing_to_play():
    document = empty_demo()
    document["ground"] = {}
    made = timeline_of(parse(document), CATALOGUE)
    assert made.phases == ()
    assert list(played(made)) == []


def test_the_noise_is_that_of_its_seed(timeline):
    def first(seed):
        rows = played(timeline, seed=seed, start=5000.0)
        return [next(rows).values for _ in range(50)]

    assert first(3) == first(3)
    assert first(3) != first(4)


def test_it_begins_at_the_depth_that_is_asked_for(timeline):
    assert next(played(timeline, start=6000.0)).values["hole_md_ft"] == pytest.approx(6000.0, abs=1.0)


PLAN = PlannedNow(doing="drilling", begins_s=0, day=[], md_ft=[])


def watched(readings, planned=lambda reading: PLAN, every=6):
    """What is told on the way, by watch: the worst of each."""
    thinner, spans, worst = Thinner(), [], {}
    order = ("stop", "caution", "unknown", "note")
    for reading in readings:
        for span in thinner.add(reading):
            spans = [
                *spans,
                LiveSpan(begins_s=span.begins_s, span_s=10, values={k: tuple(v) for k, v in span.values.items()}),
            ][-120:]
            if len(spans) % every == 0 or len(spans) == 120:
                for d in departures(spans, planned(reading), Limits(), WATCHES):
                    if d.watch not in worst or order.index(d.severity) < order.index(worst[d.watch]):
                        worst[d.watch] = d.severity
    return worst


def some(readings, count):
    return [reading for reading, _ in zip(readings, range(count), strict=False)]


def test_without_troubles_no_alarm_is_told(timeline):
    told = watched(some(played(timeline, start=6000.0, step=10.0), 2000))
    assert set(told) <= {"days"}


@pytest.mark.parametrize(
    ("kind", "watch", "severity"),
    [("losses", "pit gain", "caution"), ("losses", "flow", "caution"), ("kick", "pit gain", "stop"), ("kick", "flow", "stop"),
     ("kick", "shut in", "stop"), ("stuck", "stuck pipe", "stop")],
)  # fmt: skip
def test_a_trouble_while_drilling_is_told(timeline, kind, watch, severity):
    """It comes 10 ft below where the rig begins: what is told before is nothing."""
    trouble = Trouble(kind, 6010.0)
    readings = some(played(timeline, trouble, start=6000.0, step=10.0), 700)
    before = [r for r in readings if r.values["hole_md_ft"] < 6009.5]
    assert before
    assert set(watched(before)) <= {"days"}
    assert watched(readings)[watch] == severity


def phase_of(timeline, doing, shoe):
    return next(
        p
        for p in timeline.phases
        if p.doing == doing and max(p.to_md_ft, p.hole_md_ft) == shoe and (doing != "cementing" or p.job)
    )


def in_phase(timeline, phase, *troubles, step=10.0):
    """The readings of one phase: the rig begins there."""
    only = timeline.model_copy(update={"phases": (phase,)})
    return list(SimulatedRig(only, tuple(troubles), 1).readings(step))


def test_tight_hole_takes_weight_off_the_hook_near_it(timeline):
    phase = phase_of(timeline, "running casing", 12_600.0)
    hook = PlannedHook(
        shoe_md_ft=list(phase.hook.shoe_md_ft),
        in_lbf=list(phase.hook.in_lbf),
        up_lbf=list(phase.hook.in_lbf),
        block_lbf=phase.hook.block_lbf,
    )
    planned = PlannedNow(doing="running casing", hook=hook)
    plain_run = watched(in_phase(timeline, phase), lambda _: planned)
    assert "hook load" not in plain_run
    tight = in_phase(timeline, phase, Trouble("tight hole", 9000.0))
    near = [r for r in tight if abs(r.values["bit_md_ft"] - 9000.0) < 100.0]
    assert watched(near, lambda _: planned, every=1)["hook load"] == "caution"
    away = [r for r in tight if r.values["bit_md_ft"] < 8700.0]
    assert "hook load" not in watched(away, lambda _: planned)


def planned_job(phase):
    job = phase.job
    return PlannedJob(pumped_bbl=list(job.pumped_bbl), pump_psi=list(job.pump_psi), out_bpm=list(job.out_bpm))


@pytest.mark.parametrize(
    ("kind", "watch", "severity"), [("no bump", "plug", "stop"), ("lost returns", "returns", "caution")]
)
def test_a_trouble_of_a_job_is_told_in_the_job_next_below_its_depth(timeline, kind, watch, severity):
    for shoe, depth, there in ((7000.0, 6500.0, True), (7000.0, 7001.0, False)):
        phase = phase_of(timeline, "cementing", shoe)
        planned = PlannedNow(doing="cementing", job=planned_job(phase))
        readings = [r for r in in_phase(timeline, phase, Trouble(kind, depth), step=10.0) if "cement_bbl" in r.values]
        told = watched(readings, lambda _, planned=planned: planned, every=1)
        assert told.get(watch) == (severity if there else None)


@pytest.mark.parametrize("kind", KINDS)
def test_a_trouble_is_written_as_it_is_read(kind):
    assert parse_trouble(f"{kind.replace(' ', '-')}@7200") == Trouble(kind, 7200.0)
    assert parse_trouble(f" {kind.upper()}@7200.5 ") == Trouble(kind, 7200.5)


@pytest.mark.parametrize("text", ["losses", "losses@", "losses@deep", "fire@7200", "losses@-1", ""])
def test_what_is_no_trouble_says_what_was_expected(text):
    with pytest.raises(ValueError, match="expected NAME@DEPTH with a depth in ft and one of losses, kick"):
        parse_trouble(text)


def test_over_a_socket_two_readers_get_the_same(timeline):
    playing = Playing(SimulatedRig(timeline, (), 1, 6000.0), 20_000.0)
    playing.start()
    try:
        with socket.create_connection(("127.0.0.1", playing.port), 5) as line:
            line.settimeout(5)
            data, decoder, found = b"", Decoder(), []
            while len(found) < 3:
                data = line.recv(65_536)
                found += list(decoder.feed(data))
    finally:
        playing.stop()
    rows = SimulatedRig(timeline, (), 1, 6000.0).readings(1000.0)
    assert found[:3] == [next(Decoder().feed(record(next(rows)))) for _ in range(3)]
