"""The job in time: what is pumped is somewhere, free fall balances, and a job worked by hand at five moments."""

from dataclasses import replace

import numpy as np
import pytest

from knollstack.core.cement.balance import Balance
from knollstack.core.cement.checks import worked
from knollstack.core.cement.conduit import Conduit, Stretch
from knollstack.core.cement.pressures import at_depths
from knollstack.core.cement.rheology import Law, law_of
from knollstack.core.cement.simulate import PIECES, follow
from knollstack.core.cement.stage import Pumped, Stage
from knollstack.core.document.cementing import JobStep
from knollstack.core.document.design import Station, Trajectory
from knollstack.core.path.trajectory import path_of
from tests.helpers import many

C = 12 / 231
NONE = Law("Bingham", (1e-9, 0.0))
VERTICAL = path_of(Trajectory(stations=(Station(md_ft=0.0), Station(md_ft=10_000.0))))


def area(d):
    return d * d * np.pi / 4 / 144 / 5.614583333333333


def conduit(path=VERTICAL, rathole=0.0, back=0.0):
    """9 5/8 in casing of 8.535 in bore to 10,000 ft, collar at 9,920 ft; 12.415 in bore to 4,000 ft, 12 1/4 in hole under it."""
    annulus = (Stretch(0.0, 4000.0, 12.415, 9.625), Stretch(4000.0, 10_000.0, 12.25, 9.625))
    return Conduit(path, (Stretch(0.0, 10_000.0, 8.535),), annulus, rathole, 9920.0, False, back)


def pumped(kind, density, volume, law=NONE, rate=5.0):
    return Pumped(kind, kind, density, law, volume, rate, None, False)


def job(fluids, steps=None, mud=10.0, law=NONE, way=None):
    """A stage with a displacement that ends with the plug on its seat."""
    way = way or conduit()
    stage = Stage(1, way, mud, law, tuple(fluids), ())
    left = stage.plug_bbl + way.to_md_bbl(way.seat_md_ft) - stage.edges_bbl[-1]
    fluids = (*fluids, pumped("displacement", mud, left, law))
    whole = sum(f.volume_bbl for f in fluids)
    given = steps or [JobStep(volume_bbl=None, rate_bpm=5.0)]
    known = sum(s.volume_bbl or 0.0 for s in given)
    filled = [s if s.volume_bbl is not None else s.model_copy(update={"volume_bbl": whole - known}) for s in given]
    return Stage(1, way, mud, law, fluids, tuple(filled))


SLURRIES = (pumped("spacer", 12.0, 50.0), pumped("lead", 13.0, 200.0), pumped("tail", 16.0, 150.0))


def test_a_two_slurry_job_by_hand_at_five_moments():
    """Pipe holds 0.0707635 bbl/ft, open hole around it 0.0557811, casing 0.0597311; the shoe is at 707.635 bbl.

    Bingham 20 cP and 10 lbf/100 ft² in all of it, 2 bbl/min = 84 gal/min. In pipe v = 84/(2.448·8.535²) = 0.471046 ft/s and
    g = 20·0.471046/(1500·8.535²) + 10/(225·8.535) = 0.00529356 psi/ft; in the hole v = 0.597838, gap 2.625 in:
    20·0.597838/(1000·2.625²) + 10/(200·2.625) = 0.0207829; in casing v = 0.558301, gap 2.79: 0.0193557.
    10 ppg mud, 14 ppg lead of 200 bbl, 13 ppg tail of 100 bbl behind a mud of 13.5 ppg that is displaced by 13 ppg: the
    annulus is heavier all along, so that the pump never loses its hold.
    """
    law = Law("Bingham", (20.0, 10.0))
    fluids = [pumped("lead", 13.4, 200.0, law), pumped("tail", 13.5, 100.0, law)]
    stage = job(fluids, [JobStep(volume_bbl=None, rate_bpm=2.0)], mud=13.5, law=law)
    friction = 10_000 * 0.00529356 + 6000 * 0.0207829 + 4000 * 0.0193557
    pipe, hole, cased = 0.0707635, 0.0557811, 0.0597311
    moments = {
        0.0: 0.0,
        100.0: 0.1 * C * 100 / pipe,
        300.0: 0.1 * C * 200 / pipe,
        # 100 bbl of the lead are round the shoe, 100 still in the pipe
        807.635: 0.1 * C * (100 / pipe - 100 / hole),
        # all of it in the hole, from 200 bbl over its lower end at 301.98 bbl
        1001.97: -0.1 * C * 200 / hole,
    }
    course = worked(stage).course
    for after, over in moments.items():
        k = int(np.argmin(np.abs(course.pumped_bbl - after)))
        exact = Balance(stage).pump_psi(np.array([after]), np.array([2.0]))[0]
        assert exact == pytest.approx(friction + over, abs=0.05), after
        assert np.interp(after, course.pumped_bbl[1:], course.pump_psi[1:]) == pytest.approx(exact, abs=0.3), k
    assert not course.falls
    assert hole > 0
    assert cased > hole


def volumes(stage, course, k):
    """Of each fluid: in the pipe, round the shoe and up the annulus, by the depths of its boundaries."""
    balance = Balance(stage)
    moved, empty = course.moved_bbl[k : k + 1], course.empty_bbl[k : k + 1]
    inside = balance.in_pipe_md_ft(moved, empty)[0]
    outside = balance.in_annulus_md_ft(moved)[0]
    pipe = (inside[:-1] - inside[1:]) * area(8.535)

    def up(md):
        return np.where(
            md > 4000,
            (10_000 - md) * (area(12.25) - area(9.625)),
            6000 * (area(12.25) - area(9.625)) + (4000 - md) * (area(12.415) - area(9.625)),
        )

    return pipe, up(outside[:-1]) - up(outside[1:])


def test_every_fluid_is_somewhere_at_every_moment():
    stage = job(SLURRIES, [JobStep(volume_bbl=400.0, rate_bpm=6.0, stop_minutes=8.0), JobStep(rate_bpm=8.0)])
    course = follow(stage, Balance(stage))
    assert course.falls
    assert np.max(np.abs(course.moved_bbl - course.empty_bbl - course.pumped_bbl)) < 1e-9
    assert course.pumped_bbl[-1] == pytest.approx(sum(f.volume_bbl for f in stage.fluids), abs=1e-6)
    edges = stage.edges_bbl
    whole = area(8.535) * 10_000 + 6000 * (area(12.25) - area(9.625)) + 4000 * (area(12.415) - area(9.625))
    for k in range(0, len(course.minutes), 7):
        pipe, annulus = volumes(stage, course, k)
        for j in range(1, len(stage.fluids) + 1):
            entered = np.clip(course.pumped_bbl[k] - edges[j - 1], 0.0, stage.fluids[j - 1].volume_bbl)
            returned = np.clip(course.moved_bbl[k] - edges[j - 1] - whole, 0.0, entered)
            assert pipe[j] + annulus[j] + returned == pytest.approx(entered, abs=1e-6)


def test_without_friction_the_level_is_that_of_the_columns_alone():
    """After 400 bbl and a long stop: L ft empty over mud, spacer, lead and tail in the pipe weigh what mud does outside."""
    stage = job(SLURRIES, [JobStep(volume_bbl=400.0, rate_bpm=5.0, stop_minutes=300.0), JobStep(rate_bpm=5.0)])
    course = follow(stage, Balance(stage))
    k = int(np.flatnonzero(course.in_bpm == 0)[-1])
    level = course.empty_bbl[k] / area(8.535)
    heavy = (12.0 * 50 + 13.0 * 200 + 16.0 * 150) / area(8.535)
    mud = 10_000 - level - 400 / area(8.535)
    assert mud > 0, "nothing heavy is round the shoe yet"
    assert heavy + 10.0 * mud == pytest.approx(10.0 * 10_000, abs=2.0)
    assert course.pump_psi[k] == 0


@pytest.mark.parametrize("law", [NONE, Law("Bingham", (15.0, 8.0))])
def test_nothing_falls_where_nothing_pumped_is_heavier(law):
    fluids = [pumped("spacer", 10.0, 50.0, law), pumped("tail", 10.0, 300.0, law)]
    steps = [JobStep(volume_bbl=350.0, rate_bpm=5.0, stop_minutes=10.0), JobStep(rate_bpm=8.0)]
    assert not worked(job(fluids, steps, law=law)).course.falls


LAW = Law("Bingham", (30.0, 10.0))
THICK = tuple(replace(f, law=LAW) for f in SLURRIES)


@pytest.mark.parametrize("rate", [2.0, 5.0, 11.0])
def test_the_end_at_rest_is_that_of_any_rate(rate):
    steps = [JobStep(volume_bbl=400.0, rate_bpm=rate, stop_minutes=5.0), JobStep(rate_bpm=rate)]
    stage = job(THICK, steps, law=LAW)
    held, usual = worked(stage), worked(job(THICK, [JobStep(rate_bpm=5.0)], law=LAW))
    assert held.course.empty_bbl[-1] == pytest.approx(0.0, abs=1e-9)
    assert held.annulus.md_ft[-1] == pytest.approx(usual.annulus.md_ft[-1], abs=1e-6)
    assert held.pipe.md_ft[-1] == pytest.approx(usual.pipe.md_ft[-1], abs=1e-6)
    top_of_tail = 10_000 - (150 - 80 * area(8.535)) / (area(12.25) - area(9.625))
    assert held.annulus.md_ft[-1, -3] == pytest.approx(top_of_tail, abs=0.01)


@pytest.mark.parametrize("densities", [(12.0, 13.0, 16.0), (11.0, 14.5, 15.8), (9.0, 12.5, 18.0)])
def test_the_step_changes_no_result_by_half_a_percent(densities):
    fluids = [replace(f, density_ppg=d, law=LAW) for f, d in zip(SLURRIES, densities, strict=True)]
    steps = [JobStep(volume_bbl=400.0, rate_bpm=5.0, stop_minutes=5.0), JobStep(volume_bbl=650.0, rate_bpm=8.0)]
    stage = job(fluids, [*steps, JobStep(rate_bpm=2.0)], law=LAW)

    def told(pieces):
        course = follow(stage, Balance(stage), pieces)
        annulus = at_depths(Balance(stage), worked(stage).annulus, np.array([4000.0, 10_000.0])).max(axis=0)
        return [course.empty_bbl.max(), course.pump_psi.max(), course.pump_psi[-1], *annulus], course.out_bpm.max()

    (usual, most), (fine, finest) = told(PIECES), told(8 * PIECES)
    assert usual == pytest.approx(fine, rel=5e-3)
    assert most == pytest.approx(finest, rel=0.015), "the greatest return rate is that of one moment"


def test_the_return_rate_balances_columns_and_friction_while_the_pipe_runs_empty():
    """Pressures of both sides meet at the shoe at every moment of free fall, and where the pump has hold of it."""
    held = worked(job(THICK, [JobStep(rate_bpm=6.0)], law=LAW))
    inside, outside = held.pipe.psi[:, -1], held.annulus.psi[:, -1]
    moving = held.course.out_bpm > 1e-3
    assert held.course.falls
    assert np.max(np.abs(inside - outside)[moving]) < 0.5
    falling = held.course.empty_bbl > 1e-6
    assert np.all(held.course.pump_psi[falling] == 0)
    assert np.max(held.course.out_bpm[falling]) > 6.0


def test_pressure_at_a_depth_is_the_sum_of_what_is_above():
    """At the end: mud, spacer, lead and tail in the annulus, each by hand; friction at 6 bbl/min by the formula of Bingham."""
    held = worked(job(THICK, [JobStep(rate_bpm=6.0)], law=LAW))
    depths = np.array([3000.0, 6500.0, 9999.0])
    found = at_depths(held.balance, held.annulus, depths)[-1]
    tops = held.annulus.md_ft[-1]
    for z, psi in zip(depths, found, strict=True):
        column = sum(
            density * max(min(z, tops[k + 1]) - tops[k], 0.0) for k, density in enumerate(held.balance.density)
        )
        lost = 0.0
        for top, base, hole in ((0.0, 4000.0, 12.415), (4000.0, 10_000.0, 12.25)):
            gap, v = hole - 9.625, 252 / (2.448 * (hole**2 - 9.625**2))
            lost += max(min(z, base) - top, 0.0) * (30 * v / (1000 * gap**2) + 10 / (200 * gap))
        assert psi == pytest.approx(C * column + lost, abs=0.5)


def test_many_readings_give_the_law_that_lies_nearest():
    bingham = tuple((rpm, 10 + 40 * rpm / 300) for rpm in (100, 200, 300, 600))
    power = tuple((rpm, 300 / 510 * (1.703 * rpm) ** 0.7) for rpm in (100, 200, 300, 600))
    yielding = tuple((rpm, 4 + 1.2 / 1.066 * (1.703 * rpm) ** 0.6) for rpm in (3, 6, 100, 300, 600))
    assert law_of(bingham, "power law").model == "Bingham"
    assert law_of(power, "Bingham").model in ("power law", "Herschel-Bulkley")
    assert law_of(power, "Bingham").misfit < 1e-6
    assert law_of(yielding, "Bingham").model == "Herschel-Bulkley"
    assert law_of(((300, 40.0), (600, 62.0)), "power law").model == "power law"


@pytest.mark.parametrize(
    "readings", [(), ((300, 40.0),), ((300, 40.0), (600, 81.0)), ((300, 40.0), (600, 39.0)), ((3, 9.0), (300, 40.0))]
)
def test_readings_of_no_fluid_give_no_law(readings):
    assert law_of(readings, "Bingham") is None


@pytest.mark.parametrize("block", range(4))
def test_random_jobs_are_followed_without_a_number_that_is_none(block):
    rng = np.random.default_rng(block)
    for _ in range(many(12)):
        laws = [Law("Bingham", (float(rng.uniform(1, 80)), float(rng.uniform(0, 40)))) for _ in range(4)]
        laws[0] = Law("power law", (float(rng.uniform(0.3, 1)), float(rng.uniform(10, 2000))))
        laws[1] = Law(
            "Herschel-Bulkley", (float(rng.uniform(0, 20)), float(rng.uniform(0.4, 1)), float(rng.uniform(0.1, 5)))
        )
        kinds = ("spacer", "lead", "tail")
        fluids = [
            pumped(kind, float(rng.uniform(6, 20)), float(rng.uniform(0, 400)), law)
            for kind, law in zip(kinds, laws, strict=False)
        ]
        steps = [
            JobStep(volume_bbl=float(rng.uniform(0, 200)), rate_bpm=float(rng.uniform(0.2, 20)), stop_minutes=float(m))
            for m in rng.choice([0.0, 0.0, 3.0, 60.0], 3)
        ]
        steps = [s for s in steps if (s.volume_bbl or 0) > 0]
        stage = job(
            fluids,
            [*steps, JobStep(volume_bbl=None, rate_bpm=float(rng.uniform(0.2, 15)))],
            float(rng.uniform(7, 18)),
            laws[3],
        )
        if sum(s.volume_bbl for s in stage.steps[:-1]) > stage.bump_bbl:
            continue
        held = worked(stage)
        for name, values in vars(held.course).items():
            assert np.all(np.isfinite(values)), name
            assert np.all(values >= 0), name
        assert np.all(np.isfinite(held.annulus.psi))
        assert np.all(np.isfinite(held.pipe.psi))
        assert np.all(np.diff(held.course.moved_bbl) >= -1e-9), "the float lets nothing back"
