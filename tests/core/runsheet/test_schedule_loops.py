"""Made-up sheets in time, against a plain walk over all that must come before, and against what a delay does to the end."""

import random

import pytest

from knollstack.core.document.runsheet_policy import RunSheetPolicy
from knollstack.core.runsheet.rule import NEXT_BUT_ONE, Does, Line
from knollstack.core.runsheet.schedule import schedule_of
from tests.helpers import many

PLAIN = RunSheetPolicy(npt_share=0.0, spread=())


def sheet(seed):
    """Some forty steps, a third of them beside the rig: waited for by a later step, the next but one, an earlier one or none."""
    chance = random.Random(seed)
    count = chance.randint(3, 40)
    spud = chance.randrange(count)
    lines = []
    for k in range(count):
        waits = chance.choice(["", "", "", "", NEXT_BUT_ONE, f"k{chance.randrange(count)}", "none of them"])
        lines.append(
            Line(
                f"k{k}",
                "drilling",
                ("",),
                "",
                "runsheet",
                hours=chance.choice([0.0, None, chance.uniform(0, 30)]),
                beside="" if k == spud else waits,
                crossed=k != spud and chance.random() < 0.1,
                does=(Does("spud"),) if k == spud else (),
            )
        )
    return lines


def ends_by_walking(lines, longer="", by=0.0):
    """When each step ends [h from the first], by asking each for all that it waits for, again and again."""
    done = [line for line in lines if not line.crossed]
    hours = {line.key: (line.hours or 0.0) + (by if line.key == longer else 0.0) for line in done}
    waiting = {line.key: set() for line in done}
    last_beside = {}
    for k, line in enumerate(done):
        rig_before = [x.key for x in done[:k] if not x.beside]
        if rig_before:
            waiting[line.key].add(rig_before[-1])
        if not line.beside:
            continue
        later = [x.key for x in done[k + 1 :] if not x.beside]
        wanted_by = None
        if line.beside == NEXT_BUT_ONE:
            wanted_by = later[1] if len(later) > 1 else None
        elif later:
            wanted_by = line.beside if line.beside in later else later[0]
        if wanted_by in last_beside:
            waiting[line.key].add(last_beside[wanted_by])
        last_beside[wanted_by] = line.key
        if wanted_by is not None:
            waiting[wanted_by].add(line.key)
    ends = {}
    while len(ends) < len(done):
        for line in done:
            if line.key not in ends and waiting[line.key] <= ends.keys():
                ends[line.key] = max((ends[w] for w in waiting[line.key]), default=0.0) + hours[line.key]
    return ends


@pytest.mark.parametrize("dozen", range(many(4)))
def test_each_step_begins_when_all_that_it_waits_for_has_ended(dozen):
    for seed in range(25 * dozen, 25 * dozen + 25):
        lines = sheet(seed)
        ends = ends_by_walking(lines)
        slots = {s.line.key: s for s in schedule_of(lines, PLAIN).slots}
        assert slots.keys() == ends.keys()
        spud = next(line.key for line in lines if line.does)
        zero = ends[spud] - (next(line.hours for line in lines if line.does) or 0.0)
        for key, end in ends.items():
            assert slots[key].ends * 24 == pytest.approx(end - zero, abs=1e-6), (seed, key)


@pytest.mark.parametrize("seed", range(many(8)))
def test_a_step_may_be_late_by_its_slack_and_no_more(seed):
    lines = sheet(1000 + seed)
    end = max(ends_by_walking(lines).values())
    for slot in schedule_of(lines, PLAIN).slots:
        key, slack = slot.line.key, slot.slack_hours
        assert slack >= -1e-9
        assert max(ends_by_walking(lines, key, slack).values()) == pytest.approx(end, abs=1e-6), key
        assert max(ends_by_walking(lines, key, slack + 1.0).values()) == pytest.approx(end + 1.0, abs=1e-6), key


@pytest.mark.parametrize("seed", range(many(4)))
def test_time_that_is_not_known_is_told_and_takes_none(seed):
    lines = sheet(2000 + seed)
    schedule = schedule_of(lines, PLAIN)
    assert schedule.unknown == tuple(line.key for line in lines if not line.crossed and line.hours is None)
    known = [line._replace(hours=line.hours or 0.0) for line in lines]
    assert [s.ends for s in schedule_of(known, PLAIN).slots] == [s.ends for s in schedule.slots]


@pytest.mark.parametrize("seed", range(many(4)))
def test_lost_time_and_spread_stretch_every_step_alike(seed):
    """15 % lost and a mean of (0.8 + 4 + 1.6)/6 over the likely: every day of the sheet is longer by their product."""
    lines = sheet(3000 + seed)
    spread = [{"kind": "drilling", "least": 0.8, "most": 1.6}]
    policy = RunSheetPolicy.model_validate({"npt_share": 0.15, "spread": spread})
    plain, real = schedule_of(lines, PLAIN), schedule_of(lines, policy)
    for a, b in zip(plain.slots, real.slots, strict=True):
        assert b.begins == pytest.approx(a.begins * 1.15 * 6.4 / 6, abs=1e-9)
        assert b.slack_hours == pytest.approx(a.slack_hours * 1.15 * 6.4 / 6, abs=1e-6)
        assert (b.least_hours, b.most_hours) == pytest.approx((0.8 * b.likely_hours, 1.6 * b.likely_hours))
