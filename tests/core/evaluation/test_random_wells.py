"""Whole evaluations of made-up wells against plain loops: foot by foot, with nothing of the core but its inputs."""

import math
from itertools import pairwise

import numpy as np
import pytest

from knollstack.core.base.units import plain
from knollstack.core.document.policy import Policy
from knollstack.core.pipe.exposure import lowest_level_tvd_ft
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from tests.helpers import CATALOGUE, find, many, run
from tests.random_wells import random_well

C = 12 / 231
POLICY = Policy()
SEEDS = range(many(8))


def plain_path(stations):
    """MD and TVD by a walk of half-foot steps along the turning direction."""
    md, tvd = [0.0], [0.0]
    for a, b in pairwise(stations):
        i1, i2 = (math.radians(s.get("inclination_deg", 0.0)) for s in (a, b))
        steps = round(2 * (b["md_ft"] - a["md_ft"]))
        for k in range(steps):
            lean = i1 + (i2 - i1) * (k + 0.5) / steps
            md.append(a["md_ft"] + (b["md_ft"] - a["md_ft"]) * (k + 1) / steps)
            tvd.append(tvd[-1] + math.cos(lean) * (b["md_ft"] - a["md_ft"]) / steps)
    return np.array(md), np.array(tvd)


def worse(points, z, high):
    """The profile at a depth by plain interpolation; at a step the worse side."""
    at = [p["emw_ppg"] for p in points if p["tvd_ft"] == z]
    if at:
        return max(at) if high else min(at)
    for p, q in pairwise(points):
        if p["tvd_ft"] < z < q["tvd_ft"]:
            share = (z - p["tvd_ft"]) / (q["tvd_ft"] - p["tvd_ft"])
            return p["emw_ppg"] + share * (q["emw_ppg"] - p["emw_ppg"])
    return math.nan


class Plain:
    """A well as the loops know it."""

    def __init__(self, seed):
        self.document = random_well(seed)
        self.evaluation = run(self.document)
        self.pore, self.fracture = self.document["ground"]["pore"], self.document["ground"]["fracture"]
        self.md, self.tvd = plain_path(self.document["trajectory"]["stations"])
        self.strings = self.document["strings"]

    def z(self, md):
        return float(np.interp(md, self.md, self.tvd))

    def open_hole(self, i):
        """TVDs of the hole that string i is run in: every foot, every profile point and zone edge, both ends."""
        top, bottom = self.z(self.strings[i - 1]["shoe_md_ft"]), self.z(self.strings[i]["shoe_md_ft"])
        marks = [p["tvd_ft"] for p in (*self.pore, *self.fracture)]
        marks += [z[key] for z in self.document["ground"]["zones"] for key in ("top_tvd_ft", "base_tvd_ft")]
        inside = [m for m in marks if top < m < bottom]
        beside = [m + d for m in (top, *inside, bottom) for d in (-1e-6, 1e-6) if top < m + d < bottom]
        return sorted({top, bottom, *inside, *beside, *np.arange(top, bottom, 1.0).tolist()})

    def drilled(self):
        return range(1, len(self.strings))


@pytest.fixture(scope="module", params=SEEDS)
def made(request):
    return Plain(request.param)


def sticking_limit(made, zone):
    depths = [zone["top_tvd_ft"], zone["base_tvd_ft"], *(p["tvd_ft"] for p in made.pore)]
    inside = [worse(made.pore, z, True) for z in depths if zone["top_tvd_ft"] <= z <= zone["base_tvd_ft"]]
    mud = POLICY.mud
    return mud.sticking_abnormal_psi if np.nanmax(inside) > mud.normal_pore_ppg else mud.sticking_normal_psi


def test_the_window_is_that_of_a_scan(made):
    """Least and greatest mud of every open hole, and the finding where the mud lies outside it."""
    margin = POLICY.mud
    permeable = [z for z in made.document["ground"]["zones"] if z["permeable"]]
    for i in made.drilled():
        low, high = -math.inf, math.inf
        for z in made.open_hole(i):
            pore = worse(made.pore, z, True)
            low = max(low, pore + margin.trip_margin_ppg)
            high = min(high, worse(made.fracture, z, False) - margin.fracture_margin_ppg)
            for zone in permeable:
                if zone["top_tvd_ft"] < z < zone["base_tvd_ft"]:
                    high = min(high, pore + sticking_limit(made, zone) / (C * z))
        row = made.evaluation.mud.strings[i]
        assert row.lower.mud_ppg == pytest.approx(low, abs=2e-3), i
        assert row.upper.mud_ppg == pytest.approx(high, abs=2e-3), i
        mud = made.strings[i]["mud_ppg"]
        outside = low > high or not low <= mud <= high
        if min(abs(low - high), abs(mud - low), abs(mud - high)) > 0.01:  # clear of rounding
            stops = [f for f in find(made.evaluation, "mud", "stop") if f.place == f"/strings/{i}/mud_ppg"]
            said = [plain(f.message) for f in stops]
            assert any(w in s for s in said for w in ("is less than", "is more than", "No one mud")) == outside, said


def scan(made, i, of):
    """Depth and value at which something of the open hole is greatest, foot by foot."""
    depths = made.open_hole(i)
    values = [of(z, worse(made.pore, z, True), worse(made.fracture, z, False)) for z in depths]
    k = int(np.argmax(values))
    return depths[k], values[k]


def test_overbalance_is_greatest_where_a_scan_finds_it(made):
    for i in made.drilled():
        mud = made.strings[i]["mud_ppg"]
        _, greatest = scan(made, i, lambda z, pore, _, mud=mud: C * (mud - pore) * z)
        row = made.evaluation.mud.strings[i]
        assert row.overbalance_psi == pytest.approx(greatest, abs=0.02)
        for zone in row.zones:
            bed = next(z for z in made.document["ground"]["zones"] if z["name"] == zone.name)
            inside = [z for z in made.open_hole(i) if bed["top_tvd_ft"] < z < bed["base_tvd_ft"]]
            beside = max(C * (mud - worse(made.pore, z, True)) * z for z in inside)
            assert zone.overbalance_psi == pytest.approx(beside, abs=0.05)


def test_the_cement_column_is_compared_with_the_rock_at_every_foot(made):
    """Mud over lead over tail as equivalent weight over fracture: the worst foot, and the stop where it breaks there."""
    for i in made.drilled():
        row, mud = made.evaluation.cement.strings[i], made.strings[i]["mud_ppg"]
        if not row.applies or row.greatest_emw_ppg is None:
            continue
        top = made.z(row.top_md_ft)
        tail = top if row.lead_ppg is None else made.z(row.tail_top_md_ft)

        def over(z, _, fracture, mud=mud, row=row, top=top, tail=tail):
            lead = (row.lead_ppg or 0.0) * max(min(z, tail) - top, 0.0)
            return (mud * min(z, top) + lead + row.slurry_ppg * max(z - tail, 0.0)) / z - fracture

        _, worst = scan(made, i, over)
        assert row.greatest_emw_ppg - row.fracture_ppg == pytest.approx(worst, abs=1e-3)
        if abs(worst) > 2e-3:
            stops = [f for f in find(made.evaluation, "cement", "stop") if f.place == f"/strings/{i}/cement/top_md_ft"]
            assert bool(stops) == (worst > 0)


def test_returns_are_lost_at_the_foot_that_leaves_the_lowest_level(made):
    """In a marked loss zone, or where none is marked all over the hole: depth less what the pore pressure holds up."""
    program = program_of(parse(made.document), CATALOGUE)
    for i in made.drilled():
        mud, below = made.strings[i]["mud_ppg"], program.strings[i]
        depths = made.open_hole(i)
        lossy = [z for z in made.document["ground"]["zones"] if "losses" in z["hazards"]]
        marked = [z for z in depths if any(b["top_tvd_ft"] < z < b["base_tvd_ft"] for b in lossy)]
        crossed = [b for b in lossy if b["base_tvd_ft"] > depths[0] and b["top_tvd_ft"] < depths[-1]]
        levels = [z * (1 - worse(made.pore, z, True) / mud) for z in (marked if crossed else depths)]
        assert lowest_level_tvd_ft(program.well, below.laid) == pytest.approx(max(0.0, *levels), abs=0.05)


def test_volumes_are_plain_sums(made):
    """Hole, casing, pits and drill string, foot by foot of their diameters."""

    def area(d):
        return math.pi / 4 * d * d / 144 * 7.48051948 / 42

    for i in made.drilled():
        string, above = made.strings[i], made.strings[i - 1]
        row = made.evaluation.mud.strings[i]
        length = string["shoe_md_ft"] - above["shoe_md_ft"]
        assert row.hole_volume_bbl == pytest.approx(area(string["bit_in"]) * length, rel=1e-6)
        drill = next(d for d in POLICY.mud.drill_strings if string["bit_in"] >= d.from_hole_in)
        sections = made.evaluation.pipe.strings[i - 1].sections
        if row.volumes is None:
            assert not sections, "only an unknown casing above leaves it unknown"
            continue
        cased = sum(
            area(s.id_in) * (min(s.bottom_md_ft, above["shoe_md_ft"]) - max(s.top_md_ft, 30.0)) for s in sections
        )
        assert row.volumes.hole_bbl == pytest.approx(area(string["bit_in"]) * length + cased, rel=1e-6)
        collars = min(drill.collar_length_ft, string["shoe_md_ft"])
        steel = (area(drill.collar_od_in) - area(drill.collar_id_in)) * collars
        steel += (area(drill.pipe_od_in) - area(drill.pipe_id_in)) * (string["shoe_md_ft"] - collars)
        assert row.volumes.string_displacement_bbl == pytest.approx(steel, rel=1e-6)
        total = row.volumes.hole_bbl - steel + POLICY.mud.active_volume_bbl
        assert row.volumes.total_bbl == pytest.approx(total, rel=1e-9)


def test_cement_fills_what_is_empty_foot_by_foot(made):
    """Annulus inside the casing above without excess, open hole with it, shoe track and rathole; sacks from the yield."""
    policy = POLICY.cement

    def area(d):
        return math.pi / 4 * d * d / 144 * 7.48051948 / 42

    for i in made.drilled():
        row, string = made.evaluation.cement.strings[i], made.strings[i]
        if not row.applies or row.slurry_bbl is None:
            continue
        outside = made.evaluation.pipe.strings[i - 1].sections
        cased = opened = 0.0
        edges = sorted({row.top_md_ft, string["shoe_md_ft"], made.strings[i - 1]["shoe_md_ft"]})
        for low, high in pairwise(e for e in edges if e >= row.top_md_ft):
            middle = (low + high) / 2
            if middle < made.strings[i - 1]["shoe_md_ft"]:
                bore = next(s.id_in for s in outside if s.top_md_ft <= middle <= s.bottom_md_ft)
                cased += (area(bore) - area(string["od_in"])) * (high - low)
            else:
                opened += (area(string["bit_in"]) - area(string["od_in"])) * (high - low) * (1 + policy.excess)
        inside = made.evaluation.pipe.strings[i].sections[-1].id_in
        track_ft = made.evaluation.running.strings[i].track_ft
        track = area(inside) * track_ft
        whole = cased + opened + track + area(string["bit_in"]) * policy.rathole_ft
        assert row.cased_annulus_bbl == pytest.approx(cased, rel=1e-6, abs=1e-9)
        assert row.open_annulus_bbl == pytest.approx(opened, rel=1e-6)
        assert row.slurry_bbl == pytest.approx(whole, rel=1e-6)
        lead, lead_sk = row.lead_bbl or 0.0, row.lead_sacks or 0.0
        assert lead_sk == pytest.approx(lead * 42 / 7.48051948 / (row.lead_yield_ft3_sk or 1.0), rel=1e-6)
        assert row.sacks == pytest.approx((whole - lead) * 42 / 7.48051948 / row.yield_ft3_sk, rel=1e-6)
        water = row.sacks * row.water_gal_sk + lead_sk * (row.lead_water_gal_sk or 0.0)
        assert row.mix_water_bbl == pytest.approx(water / 42, rel=1e-6)
        down = string["shoe_md_ft"] - track_ft
        pushed = sum(
            area(s.id_in) * (min(s.bottom_md_ft, down) - s.top_md_ft)
            for s in made.evaluation.pipe.strings[i].sections
            if s.top_md_ft < down
        )
        assert row.displacement_bbl == pytest.approx(pushed, rel=1e-6)


def test_the_shoe_and_the_surface_by_plain_balance(made):
    """MAASP, full gas at the shoe, and the pressure that a hole can bring to surface: lesser of gas and broken shoe."""
    policy = POLICY.depths
    for i in range(1, len(made.strings) - 1):
        kick, below = made.evaluation.depths.strings[i].kick, made.strings[i + 1]
        shoe = made.z(made.strings[i]["shoe_md_ft"])
        strength = worse(made.fracture, round(shoe, 9), False)
        assert kick.maasp_psi == pytest.approx(C * (strength - below["mud_ppg"]) * shoe, abs=1.5)
        # from each kick the gas stands up to the weakest rock above it, the shoe's own included
        greatest, least = -math.inf, math.inf
        for z in reversed(made.open_hole(i + 1)):
            kick_psi = C * (worse(made.pore, z, True) + policy.kick_intensity_ppg) * z - policy.influx_psi_ft * z
            greatest = max(greatest, kick_psi)
            least = min(least, C * worse(made.fracture, z, False) * z - policy.influx_psi_ft * z - greatest)
        assert kick.full_gas_margin_psi == pytest.approx(least, abs=0.5), i
    for i in range(1, len(made.strings) - 1):
        through = made.strings[i + 1]
        shoe, depths = made.z(made.strings[i]["shoe_md_ft"]), made.open_hole(i + 1)
        fed = max(C * worse(made.pore, z, True) * z - POLICY.pipe.gas_psi_ft * z for z in depths)
        broken = C * worse(made.fracture, round(shoe, 9), False) * shoe - POLICY.pipe.gas_psi_ft * shoe
        stack = made.evaluation.preventers.strings[i].pressure_psi
        assert stack == pytest.approx(max(0.0, min(fed, broken)), abs=2.0), through["id"]
        if made.evaluation.preventers.strings[i].class_psi is not None:
            assert made.evaluation.preventers.strings[i].class_psi >= stack


def test_bits_drift_and_couplings_clear_or_it_is_told(made):
    for i in made.drilled():
        row, string = made.evaluation.sizes.strings[i], made.strings[i]
        above = made.evaluation.pipe.strings[i - 1].sections
        places = [f.place for f in find(made.evaluation, "sizes", "stop")]
        if above:
            drift = min(s.drift_in for s in above)
            assert row.outer_drift_in == pytest.approx(drift, abs=1e-9) or row.outer_drift_in >= drift
            passes = string["bit_in"] <= row.outer_drift_in + 1e-9
            assert (f"/strings/{i}/bit_in" in places) != passes
        own = made.evaluation.pipe.strings[i].sections
        if own:
            coupling = max(s.coupling_od_in for s in own)
            assert row.clearance_in == pytest.approx(string["bit_in"] - coupling, abs=1e-9)
            assert (f"/strings/{i}/od_in" in places) == (row.clearance_in < row.tight_in - 1e-9)


def test_each_chosen_pipe_stands_and_each_factor_is_rating_over_load(made):
    for i in made.drilled():
        row = made.evaluation.pipe.strings[i]
        stops = [f for f in find(made.evaluation, "pipe", "stop") if f.place.startswith(f"/strings/{i}/")]
        for load in row.loads:
            assert load.factor == pytest.approx(load.rating / load.load, rel=1e-9)
            if not stops:
                assert load.factor >= load.required - 1e-6, (i, load)
        yields = {g.grade: g.yield_psi for g in CATALOGUE.grades}
        joint = next(r for r in CATALOGUE.ranges if r.range == POLICY.pipe.length_range)
        for section in row.sections:
            outer, inner = made.strings[i]["od_in"], made.strings[i]["od_in"] - 2 * section.wall_in
            steel = math.pi / 4 * (outer**2 - inner**2)
            assert section.id_in == pytest.approx(inner)
            assert section.body_lbf == pytest.approx(steel * yields[section.grade], rel=1e-9)
            assert section.burst_psi == pytest.approx(1.75 * yields[section.grade] * section.wall_in / outer, rel=1e-9)
            length = section.bottom_md_ft - section.top_md_ft
            assert section.joints_least == math.ceil(length / joint.longest_ft)
            assert section.joints_most == math.ceil(length / joint.shortest_ft)


def test_the_state_of_a_step_is_its_worst_finding(made):
    for entry in made.evaluation.path:
        if entry.step == "logbook":
            assert entry.state == "blank", "nothing is logged"
            continue
        severities = {f.severity for f in made.evaluation.findings if f.step == entry.step}
        worst = next((s for s in ("stop", "unknown", "caution") if s in severities), "good")
        assert entry.state == {"stop": "stop", "unknown": "incomplete", "caution": "caution", "good": "good"}[worst]
