"""What of a rig live departs from the plan: every watch on both sides of its limit, and unknown where nothing comes."""

import pytest

from knollstack.core.base.units import plain
from knollstack.core.logbook.live import Limits, LiveSpan, PlannedHook, PlannedJob, PlannedNow, departures, interpolated
from knollstack.core.logbook.watches import WATCHES

LIMITS = Limits()
DRILLING = PlannedNow(doing="drilling", begins_s=0, day=[0, 10], md_ft=[0, 10_000])
STEADY = {
    "hole_md_ft": 5000.0, "bit_md_ft": 5000.0, "hook_lbf": 150_000.0, "flow_in_gpm": 600.0, "flow_out_gpm": 600.0,
    "pit_bbl": 800.0, "casing_psi": 0.0, "pump_psi": 2000.0,
}  # fmt: skip
FIVE_DAYS = 432_000


def spans(count=60, begins=FIVE_DAYS, **channels):
    """Ten seconds each; a channel is a number, or a function of the span's place; None leaves it out."""
    rows = []
    for k in range(count):
        values = {}
        for name, value in (STEADY | channels).items():
            read = value(k) if callable(value) else value
            if read is not None:
                values[name] = read if isinstance(read, tuple) else (read, read, read)
        rows.append(LiveSpan(begins_s=begins + 10 * k, span_s=10, values=values))
    return rows


def told(rows, planned=DRILLING, limits=LIMITS):
    return {d.watch: (d.severity, plain(d.words)) for d in departures(rows, planned, limits, WATCHES)}


def test_a_rig_on_its_plan_tells_nothing_and_none_tells_nothing():
    assert told(spans()) == {}
    assert told([]) == {}


@pytest.mark.parametrize(("gain", "severity"), [(4.9, None), (5.1, "stop"), (-9.9, None), (-10.1, "caution")])
def test_pits(gain, severity):
    found = told(spans(pit_bbl=lambda k: 800.0 + gain * min(1.0, k / 50)))
    assert found.get("pit gain", (None,))[0] == severity
    if severity == "stop":
        assert "shut in" in found["pit gain"][1]


def test_a_gain_is_seen_over_the_window_alone_and_by_its_least():
    slow = spans(count=400, pit_bbl=lambda k: 800.0 + 0.03 * k)
    assert "pit gain" not in told(slow), "90 spans are a window of 15 minutes: 2.7 bbl"
    assert told(slow, limits=Limits(window_minutes=60.0))["pit gain"][0] == "stop"
    dipped = spans(pit_bbl=lambda k: (794.0, 800.0, 800.0) if k == 20 else 800.0)
    assert told(dipped)["pit gain"][0] == "stop", "the least of a span counts"


@pytest.mark.parametrize(("share", "severity"), [(1.09, None), (1.11, "stop"), (0.91, None), (0.89, "caution")])
def test_flow(share, severity):
    assert told(spans(flow_out_gpm=600.0 * share)).get("flow", (None,))[0] == severity
    assert "flow" not in told(spans(flow_in_gpm=0.0, flow_out_gpm=0.0)), "pumps off"
    odd = spans(flow_out_gpm=lambda k: 900.0 if k == 59 else 600.0)
    assert "flow" not in told(odd), "one odd reading tells nothing"


@pytest.mark.parametrize(("casing", "flow", "severity"), [(49.0, 0.0, None), (60.0, 0.0, "stop"), (60.0, 600.0, None)])
def test_shut_in(casing, flow, severity):
    rows = spans(casing_psi=casing, flow_in_gpm=flow, flow_out_gpm=flow)
    assert told(rows).get("shut in", (None,))[0] == severity


@pytest.mark.parametrize(
    ("days", "severity", "side"), [(5.4, None, ""), (5.6, "note", "behind"), (4.6, None, ""), (4.4, "note", "ahead")]
)
def test_days(days, severity, side):
    """At 5,000 ft the plan is on day 5."""
    found = told(spans(begins=int(days * 86_400))).get("days", (None, ""))
    assert found[0] == severity
    assert side in found[1]


def test_days_without_a_spud_are_unknown():
    assert told(spans(), DRILLING.model_copy(update={"begins_s": None}))["days"][0] == "unknown"
    assert "days" not in told(spans(hole_md_ft=20_000.0)), "beyond the plan's depth nothing is said"


HOOK = PlannedHook(shoe_md_ft=[0, 8000], in_lbf=[40_000, 240_000], up_lbf=[40_000, 280_000], block_lbf=40_000)
RUNNING = PlannedNow(doing="running casing", hook=HOOK)
"""At 4,000 ft 140,000 lbf going in, 160,000 picked up; the string weighs 100,000: 15 % are 15,000."""


@pytest.mark.parametrize(
    ("hook", "severity"), [(126_000.0, None), (124_000.0, "caution"), (174_000.0, None), (176_000.0, "caution")]
)
def test_hook_load(hook, severity):
    rows = spans(bit_md_ft=lambda k: 3940.0 + k, hook_lbf=hook)
    assert told(rows, RUNNING).get("hook load", (None,))[0] == severity


def test_hook_load_in_slips_tells_nothing_and_without_a_plan_is_unknown():
    assert "hook load" not in told(spans(bit_md_ft=4000.0, hook_lbf=42_000.0), RUNNING)
    assert told(spans(bit_md_ft=4000.0), PlannedNow(doing="running casing"))["hook load"][0] == "unknown"


@pytest.mark.parametrize(
    ("moving", "pulled", "severity"), [(0.0, 70_000.0, "stop"), (0.05, 70_000.0, None), (0.0, 20_000.0, None)]
)
def test_stuck_pipe(moving, pulled, severity):
    """Ten minutes; a foot and more of movement in eight of them is none."""
    rows = spans(
        bit_md_ft=lambda k: 5000.0 + moving * k,
        hook_lbf=lambda k: 40_000.0 if k < 6 else 150_000.0 + (pulled if k % 2 else 0.0),
    )
    assert told(rows).get("stuck pipe", (None,))[0] == severity


def test_a_connection_is_no_stuck_pipe():
    assert "stuck pipe" not in told(spans(hook_lbf=lambda k: 150_000.0 if k < 5 else 40_000.0))


JOB = PlannedJob(pumped_bbl=[0, 100, 200], pump_psi=[0, 1000, 2000])
CEMENTING = PlannedNow(doing="cementing", job=JOB)


def job(bbl, psi, rate_in=5.0, rate_out=5.0):
    return spans(cement_bbl=bbl, cement_psi=psi, cement_in_bpm=rate_in, cement_out_bpm=rate_out)


@pytest.mark.parametrize(
    ("bbl", "psi", "severity"),
    [(100.0, 1240.0, None), (100.0, 1260.0, "caution"), (100.0, 760.0, None), (100.0, 740.0, "caution"),
     (190.0, 2270.0, None), (190.0, 2290.0, "caution"), (199.0, 2900.0, None)],
)  # fmt: skip
def test_pump_pressure_by_volume(bbl, psi, severity):
    """250 psi, or a fifth of what is planned there; the plug bumping is no departure."""
    assert told(job(bbl, psi), CEMENTING).get("pump pressure", (None,))[0] == severity


@pytest.mark.parametrize(("bbl", "severity"), [(201.9, None), (202.1, "stop")])
def test_a_plug_that_does_not_come(bbl, severity):
    assert told(job(bbl, 2000.0), CEMENTING).get("plug", (None,))[0] == severity


@pytest.mark.parametrize(("out", "rate", "severity"), [(3.6, 5.0, None), (3.4, 5.0, "caution"), (0.0, 0.4, None)])
def test_returns(out, rate, severity):
    assert told(job(100.0, 1000.0, rate, out), CEMENTING).get("returns", (None,))[0] == severity


def test_returns_are_held_beside_what_should_come_back():
    """While cement falls 2 bbl/min come back of 5 by plan; and nothing is told while next to nothing should."""
    falls = CEMENTING.model_copy(update={"job": JOB.model_copy(update={"out_bpm": [5.0, 2.0, 0.2]})})
    assert "returns" not in told(job(100.0, 1000.0, 5.0, 1.5), falls)
    assert told(job(100.0, 1000.0, 5.0, 1.3), falls)["returns"][0] == "caution"
    assert "returns" not in told(job(199.0, 1990.0, 5.0, 0.0), falls)


@pytest.mark.parametrize("watch", WATCHES, ids=lambda w: w.name)
def test_what_does_not_come_is_not_watched_and_says_so(watch):
    channels = STEADY | {"cement_bbl": 100.0, "cement_psi": 1000.0, "cement_in_bpm": 5.0, "cement_out_bpm": 5.0}
    for needed in watch.needs:
        for doing in watch.doing:
            planned = PlannedNow(doing=doing, begins_s=0, day=[0, 10], md_ft=[0, 10_000], hook=HOOK, job=JOB)
            found = told(spans(**(channels | {needed: None})), planned)
            assert found[watch.name][0] == "unknown"
            assert "is not watched" in found[watch.name][1]
    others = {"drilling", "tripping", "running casing", "cementing", "other"} - set(watch.doing)
    for doing in others:
        assert watch.name not in told(spans(**dict.fromkeys(STEADY)), PlannedNow(doing=doing))


def test_the_worst_is_told_first():
    rows = spans(pit_bbl=lambda k: 800.0 + k, flow_out_gpm=500.0, begins=900_000)
    found = departures(rows, DRILLING, LIMITS, WATCHES)
    assert [d.severity for d in found] == ["stop", "caution", "note"]


@pytest.mark.parametrize(("x", "y"), [(0, 0), (5, 50), (10, 100), (15, 100), (-1, None), (21, None)])
def test_a_planned_value_between_its_points(x, y):
    assert interpolated([0, 10, 20], [0, 100, 100], x) == y
