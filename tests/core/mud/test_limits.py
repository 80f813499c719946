"""Mud on both sides of its limits: swab, surge, riser margin, sticking, choke-line friction, open hole."""

import json

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.depths.bubble import tolerance_of
from knollstack.core.evaluation.steps import WORDS
from knollstack.core.mud.circulation import annulus
from knollstack.core.mud.formulas import annular_velocity, trip_velocity
from knollstack.core.mud.friction import friction_of
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.core.evaluation.test_judging import strings
from tests.helpers import CATALOGUE, find, points, run
from tests.random_wells import random_well

C = 12 / 231
MOVING = {"reading_300": 38.0, "reading_600": 62.0, "flow_gpm": 500.0}


def moved(**values):
    return strings(**{f"strings__3__{k}": v for k, v in (MOVING | values).items()})


def test_swab_and_surge_lie_as_far_below_and_above_the_mud():
    row = run(moved()).mud.strings[3]
    assert row.surge_ppg - 9.5 == pytest.approx(9.5 - row.swab_ppg, rel=1e-9)
    assert row.surge_ppg > 9.5


@pytest.mark.parametrize(("over", "told"), [(0.001, True), (-0.001, False)])
def test_swabbing_below_the_pore_pressure_is_told(over, told):
    """The pore pressure at total depth is set just over and just under what the mud is swabbed to."""
    pore = run(moved()).mud.strings[3].swab_ppg + over
    document = moved()
    document["ground"]["pore"] = points((30, pore), (10_000, pore))
    texts = [plain(f.message) for f in find(run(document), "mud", "caution")]
    assert any("swabs the mud to" in t for t in texts) == told


@pytest.mark.parametrize(("under", "told"), [(0.001, True), (-0.001, False)])
def test_circulating_over_the_fracture_pressure_is_told(under, told):
    rock = run(moved()).mud.strings[3].ecd_bottom_ppg - under
    document = moved()
    document["ground"]["fracture"] = points((30, 16), (9999, 16), (10_000, rock))
    texts = [plain(f.message) for f in find(run(document), "mud", "stop")]
    assert any(t.startswith("Circulating, the equivalent density is") for t in texts) == told


def deep(**changes):
    document = json.loads(documents()[3])
    for path, value in changes.items():
        document["policy"].setdefault("mud", {})[path] = value
    return document


def test_the_riser_margin_holds_the_worst_depth_of_the_open_hole():
    """(P·D − 8.55·h_w)/(D − h_a − h_w), foot by foot over the section."""
    document = deep()
    program = program_of(parse(document), CATALOGUE)
    site, row = program.well.site, run(document).mud.strings[3].riser
    string = program.laid.strings[3]
    top, bottom = (program.well.path.tvd(md) for md in (string.previous_shoe_md_ft, string.shoe_md_ft))
    z = np.linspace(top, bottom, 20_001)
    pore = program.well.ground.pore.at(z)
    needed = (pore * z - 8.55 * site.water_depth_ft) / (z - site.rig_floor_ft - site.water_depth_ft)
    assert row.needed_ppg == pytest.approx(float(np.max(needed)), rel=1e-4)
    for mud, held in ((row.needed_ppg - 0.001, False), (row.needed_ppg + 0.001, True)):
        document["strings"][3]["mud_ppg"] = mud
        assert run(document).mud.strings[3].riser.held == held
    for limit, possible in ((row.needed_ppg - 0.01, False), (row.needed_ppg + 0.01, True)):
        assert run(deep(riser_mud_limit_ppg=limit)).mud.strings[3].riser.possible == possible


def test_the_riser_holds_mud_and_rubs_it():
    """4,500 ft from the rig floor to the mudline in 19.5 in: 0.36938 bbl/ft; a wider one holds more and rubs less."""
    usual, wide = run(deep()).mud.strings[3], run(deep(riser_id_in=21.0)).mud.strings[3]
    site = deep()["site"]
    to_mudline = site["rig_floor_ft"] + site["water_depth_ft"]
    assert usual.volumes.riser_bbl == pytest.approx(19.5**2 / 1029.42 * to_mudline, rel=1e-4)
    more = wide.volumes.riser_bbl - usual.volumes.riser_bbl
    assert wide.volumes.total_bbl - usual.volumes.total_bbl == pytest.approx(more, rel=1e-9)
    assert wide.ecd_bottom_ppg < usual.ecd_bottom_ppg
    assert run(moved()).mud.strings[3].volumes.riser_bbl == 0.0


def test_the_sticking_bound_is_least_inside_a_zone_and_found_there():
    """Pore 8.4 + 0.0003·D over a permeable zone: 8.4 + 0.0003·D + 2,000/(c·D) is least inside, not at the ends."""
    document = strings(
        ground__pore=points((30, 8.409), (30_000, 17.4)),
        ground__fracture=points((30, 18), (30_000, 19.5)),
        ground__zones=[{"name": "S", "top_tvd_ft": 6100.0, "base_tvd_ft": 29_900.0, "permeable": True}],
        trajectory__stations=[{"md_ft": 0.0}, {"md_ft": 30_000.0}],
        policy__mud={"sticking_normal_psi": 2000.0, "sticking_abnormal_psi": 2000.0},
    )
    document["strings"][3]["shoe_md_ft"] = 30_000.0
    z = np.linspace(6100, 29_900, 200_001)
    slope = (17.4 - 8.409) / (30_000 - 30)
    bound = 8.409 + slope * (z - 30) + 2000 / (C * z)
    at = float(z[np.argmin(bound)])
    assert 6200 < at < 29_800
    upper = run(document).mud.strings[3].upper
    assert (upper.cause, upper.mud_ppg) == ("differential sticking", pytest.approx(float(np.min(bound)), rel=1e-9))
    assert upper.md_ft == pytest.approx(at, abs=1.0)


def test_choke_line_friction_is_taken_from_the_weak_point_once():
    """200 psi of friction is as 200 psi less of fracture pressure at the shoe."""
    plain_well = program_of(parse(strings()), CATALOGUE).well
    choked = program_of(parse(strings(site__choke_line_psi=200.0)), CATALOGUE).well
    weaker = 16 - 200 / (C * 6000)
    weak = program_of(parse(strings(ground__fracture=points((30, weaker), (10_000, weaker)))), CATALOGUE).well
    results = [tolerance_of(each, 8.5, 6000.0, 9.5, 10_000.0).volume_bbl for each in (plain_well, choked, weak)]
    assert results[1] == pytest.approx(results[2], rel=1e-9)
    assert results[1] < results[0]


@pytest.mark.parametrize(("limit", "told"), [(4000.0, False), (3999.0, True)])
def test_an_open_hole_longer_than_policy_allows_is_told(limit, told):
    """Both drilled sections are 4,000 ft long."""
    texts = [plain(f.message) for f in find(run(strings(policy__depths__open_hole_limit_ft=limit)), "depths")]
    assert any("open hole" in t.lower() for t in texts) == told, texts


def test_findings_stand_worst_first_and_in_the_order_of_the_work():
    document = strings(site__rotary_room_ft=None, strings__3__mud_ppg=9.0, strings__2__cement__top_md_ft=3000.0)
    found = run(document).findings
    order = ("stop", "caution", "unknown", "note")
    ranks = [(order.index(f.severity), WORDS.index(f.step)) for f in found]
    assert ranks == sorted(ranks)
    assert len({f.severity for f in found}) >= 3
    assert ranks != sorted(ranks, key=lambda r: r[1])


def test_a_step_is_as_bad_as_its_worst_finding():
    """The cement of a subsea well is unknown, and stays so beside a caution."""
    document = strings(site__setting="subsea", site__water_depth_ft=60.0, strings__2__cement__top_md_ft=3000.0)
    evaluation = run(document)
    severities = {f.severity for f in find(evaluation, "cement")}
    assert {"unknown", "caution"} <= severities
    assert {p.step: p.state for p in evaluation.path}["cement"] == ("stop" if "stop" in severities else "incomplete")


@pytest.mark.parametrize("seed", range(5))
def test_the_moving_mud_is_compared_with_the_rock_at_every_foot_along_hole(seed):
    """Friction piece by piece summed down to each foot: ECD and surge over fracture, swab under pore, where each is worst."""
    document = random_well(seed)
    document["policy"] = {"mud": {"rheology": ("Bingham", "power law", "Herschel-Bulkley")[seed % 3]}}
    for string in document["strings"][1:]:
        string |= {"reading_3": 1.0, "reading_6": 1.5}
    evaluation, program = run(document), program_of(parse(document), CATALOGUE)
    made, ground = program.well, program.well.ground
    speed = made.policy.mud.trip_speed_ft_min / 60
    for i, row in enumerate(evaluation.mud.strings):
        string = program.strings[i]
        if row.ecd_worst is None:
            assert i == 0 or program.cased_bores(string) is None, "unknown only where the casing above is"
            continue
        bores = tuple(program.cased_bores(string))
        friction = friction_of(made, string.own, string.mud_ppg)
        marks = made.path.md_at(made.window.depths_ft)
        feet = np.concatenate([np.arange(string.previous_shoe_md_ft, string.shoe_md_ft, 1.0), [string.shoe_md_ft]])
        beside = [m + d for m in marks for d in (-1e-5, 1e-5)]
        md = np.array(sorted({*feet, *(m for m in beside if feet[0] < m < feet[-1])}))
        tvd = made.path.tvd_at(md)
        moves = (
            (row.ecd_worst, 1, lambda p, s=string: annular_velocity(s.own.flow_gpm, p.outer_in, p.inner_in)),
            (row.surge_worst, 1, lambda p: trip_velocity(speed, p.outer_in, p.inner_in)),
            (row.swab_worst, -1, lambda p: trip_velocity(speed, p.outer_in, p.inner_in)),
        )
        for worst, sign, velocity in moves:
            lost = np.zeros(md.shape)
            for piece in annulus(made, string, bores):
                per_ft = friction.psi_ft(velocity(piece), piece.outer_in, piece.inner_in)
                lost += per_ft * np.clip(md - (piece.bottom_md_ft - piece.length_ft), 0.0, piece.length_ft)
            rock = (ground.fracture if sign > 0 else ground.pore).at(tvd)
            beyond = sign * (C * (string.mud_ppg - rock) * tvd + sign * lost)
            own = sign * C * (worst.emw_ppg - worst.rock_ppg) * made.path.tvd(worst.md_ft)
            assert own == pytest.approx(np.max(beyond), abs=0.05), (i, sign)
            wrong = [
                f for f in find(evaluation, "mud") if f.working == f"mud/{i}/{'swab' if sign < 0 else 'ecd'}_worst"
            ]
            if worst is not row.surge_worst and abs(own) > 0.1:
                assert bool(wrong) == (own > 0)


@pytest.mark.filterwarnings("error")
def test_a_hole_along_a_level_is_judged_like_any_other():
    """The last section of a horizontal well has one TVD: ECD is greatest at its end, swab too, and nothing is divided by 0."""
    turn = [{"md_ft": 5900.0 + k * 4100.0, "inclination_deg": 90.0} for k in range(2)]
    document = moved()
    document["trajectory"]["stations"] = [{"md_ft": 0.0}, {"md_ft": 5000.0}, *turn]
    document["ground"]["pore"] = points((30, 9), (10_000, 9))
    document["strings"][2]["shoe_md_ft"] = 6000.0
    row = run(document).mud.strings[3]
    assert row.ecd_worst.md_ft == row.swab_worst.md_ft == 10_000.0
    assert row.ecd_worst.emw_ppg == pytest.approx(row.ecd_bottom_ppg)
    assert (row.swab_worst.emw_ppg, row.swab_worst.rock_ppg) == (pytest.approx(row.swab_ppg), pytest.approx(9.0))
    assert run(document).cement.strings[3].greatest_emw_ppg is not None
