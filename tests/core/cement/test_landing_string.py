"""Jobs on a landing string: cement over the hanger and its reversing out by hand, the rock while it is, darts and plugs."""

import json

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.cement.detail import job_detail_of
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.core.cement.test_job_findings import C, known, said
from tests.helpers import CATALOGUE, applied, demo, run


def liner(over=200.0, **parts):
    """7 in from 5,700 to 10,000 ft under 9 5/8 in of 8.681 in bore to 6,000 ft; landed on 5 in drill pipe of 4.276 in bore."""
    document = known(strings__2__cement__excess=0.0, **parts)
    document["strings"][3].update(run="liner", hanger_md_ft=5700.0, od_in=7.0, mud_ppg=9.5)
    document["strings"][3]["cement"].update(over_hanger_ft=over, slurry_water_gal_sk=4.97, excess=0.0)
    return document


def row(document):
    return run(document).cement.strings[3]


def test_what_stands_over_the_hanger_and_comes_back_by_hand():
    """200 ft between 8.681 and 5 in, 0.0489217 bbl/ft: 9.78 bbl. In the drill pipe 0.0177619 bbl/ft: 550.9 ft of it.

    0.0519481·(15.823 − 9.5)·550.9 = 180.9 psi, and the friction of both on top. Until the last is back the drill pipe,
    5,700·0.0177619 = 101.24 bbl, is pumped too.
    """
    document = liner()
    program = program_of(parse(document), CATALOGUE)
    string = program.well.drill_string(8.5)
    assert (string.pipe_od_in, string.pipe_id_in) == (5.0, 4.276)
    found, plain_row = row(document), row(liner(over=None))
    reverse = found.reversing
    assert found.over_hanger_bbl == pytest.approx(9.784, abs=0.005)
    assert reverse.over_bbl == pytest.approx(found.over_hanger_bbl, rel=1e-6)
    assert found.slurry_bbl - plain_row.slurry_bbl == pytest.approx(9.784, abs=0.005)
    tails = [next(f.volume_bbl for f in r.stages[0].fluids if f.kind == "tail") for r in (found, plain_row)]
    assert tails[0] - tails[1] == pytest.approx(9.784, abs=0.005), "the job pumps it too"
    assert reverse.volume_bbl == pytest.approx(101.24 + 9.78, abs=0.02)
    assert reverse.pump_psi > 180.9
    assert plain_row.reversing is None
    told = job_detail_of(program, 3).stages[0]
    assert told.annulus_md_ft[-1][2] == pytest.approx(5500.0, abs=0.5), "mud and spacer over the slurry"
    minutes = [r.stages[0].thickening[0].job_minutes for r in (found, plain_row)]
    assert minutes[0] - minutes[1] > reverse.volume_bbl / 5.0


def test_the_friction_of_the_reversing_by_plain_sums():
    """Bingham of 40 and 26 on the dial, 14 cP and 12 lbf/100 ft², for the mud; slurry 44 and 8; 210 gal/min."""
    document = liner(policy__mud={"rheology": "Bingham"})
    q, bore = 210.0, 4.276

    def pipe(pv, yp, ppg):
        v = q / (2.448 * bore**2)
        turbulent = ppg**0.75 * v**1.75 * pv**0.25 / (1800 * bore**1.25)
        return max(pv * v / (1500 * bore**2) + yp / (225 * bore), turbulent)

    def around(pv, yp, ppg, outer):
        v = q / (2.448 * (outer**2 - 25.0))
        gap = outer - 5.0
        turbulent = ppg**0.75 * v**1.75 * pv**0.25 / (1396 * gap**1.25)
        return max(pv * v / (1000 * gap**2) + yp / (200 * gap), turbulent)

    reverse = row(document).reversing
    height = reverse.over_bbl / (bore**2 / 1029.42)
    lost = height * pipe(44, 8, 15.823) + (5700 - height) * pipe(14, 12, 9.5) + 5700 * around(14, 12, 9.5, 8.681)
    assert reverse.pump_psi == pytest.approx(C * (15.823 - 9.5) * height + lost, rel=0.03)


@pytest.mark.parametrize(("spare", "told"), [(0.005, False), (-0.005, True)])
def test_the_open_hole_is_judged_while_it_is_reversed_out(spare, told):
    document = liner()
    reached = row(document).reversing.reached_ppg
    document["ground"]["fracture"] = [{"tvd_ft": z, "emw_ppg": reached + spare} for z in (30.0, 10_000.0)]
    assert np.isfinite(reached)
    found = said(document, "caution", "Reversing out, the open hole at")
    assert bool(found) == told
    assert [f.place for f in found] == ["/strings/3/cement/over_hanger_ft"] * told


def test_a_liner_top_without_cement_over_it_is_told_and_mended():
    document = liner(over=None)
    (found,) = said(document, "note", "No cement is pumped over it")
    assert plain(found.remedies[0].label) == "Pump 200 ft over it"
    assert said(applied(document, found.remedies[0].changes), "note", "No cement is pumped over it") == []
    assert said(known(), "note", "No cement is pumped over it") == [], "it is no liner"


def test_a_dart_releases_the_wiper_plug_under_the_landing_string():
    """Behind the slurry it has the drill pipe's 101.24 bbl to go; a liner has no plug ahead of it."""
    document = liner()
    stage = row(document).stages[0]
    slurried = sum(f.volume_bbl for f in stage.fluids if f.kind != "displacement")
    program = program_of(parse(document), CATALOGUE)
    told = job_detail_of(program, 3).stages[0]
    latched = next(e for e in told.events if plain(e.words) == "Dart releases the wiper plug at the liner top")
    moved = told.pumped_bbl[latched.moment]
    assert stage.dart_bbl <= slurried + 101.24 + 0.02
    assert moved == pytest.approx(stage.dart_bbl, abs=8.0), "at the end of a step of the job"
    assert stage.dart_psi == pytest.approx(told.pump_psi[latched.moment] + 1200.0, abs=1.0)
    assert stage.bottom_plug_bbl is None
    assert not told.bottom_plug
    assert not any("Bottom plug" in plain(e.words) for e in told.events)


def test_plugs_of_a_string_hung_at_the_sea_floor_wait_there():
    """The last casing of the deep-water demo: both plugs wait under the landing string, and are released by darts."""
    program = program_of(parse(json.loads(documents()[3])), CATALOGUE)
    words = [plain(e.words) for e in job_detail_of(program, 3).stages[0].events]
    ahead, landed, behind = (
        words.index(w)
        for w in (
            "Dart releases the bottom plug at the wellhead",
            "Bottom plug lands",
            "Dart releases the top plug at the wellhead",
        )
    )
    assert ahead < landed
    assert ahead < behind
    land = job_detail_of(program_of(parse(demo()), CATALOGUE), 2).stages[0]
    assert land.plugs_md_ft == 0.0
    assert not any("Dart" in plain(e.words) for e in land.events)
