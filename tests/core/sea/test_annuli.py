"""Pressure that heat builds up in sealed annuli: against a plain solution, bounds, and ways out that were tried."""

import pytest

from knollstack.core.base.units import plain
from knollstack.core.pipe.detail import loads_of
from tests.core.sea.wells import deep
from tests.helpers import applied, find, run

ALPHA, E, NU = 6.9e-6, 30e6, 0.3
FLUID, STIFF = 2.5e-4, 2.8e-6
DECIDED = {
    f"strings__{i}__pipe": {"weight_ppf": weight, "grade": "Q125", "connection": connection}
    for i, weight, connection in ((2, 72.0, "PTC"), (3, 53.5, "LTC"), (4, 32.0, "LTC"))
}
"""Pipe that no choice makes fit for what builds up beside it."""


def rows(document):
    return {row.string: row for row in run(document).sea.annuli}


def said(document, severity=None):
    return [f for f in find(run(document), "sea", severity) if f.subject[-1] == " annulus"]


def moved(radius, pipe, inside, outside, heat):
    """Radial displacement of a thick cylinder held in length, written out."""
    a2, b2 = (pipe.id_in / 2) ** 2, (pipe.od_in / 2) ** 2
    even = (1 + NU) * (1 - 2 * NU) / E * (inside * a2 - outside * b2) / (b2 - a2) * radius
    hoop = (1 + NU) / E * (inside - outside) * a2 * b2 / (b2 - a2) / radius
    return (1 + NU) * ALPHA * heat * radius + even + hoop


def test_all_annuli_balance_at_once():
    """Put back into their own equations, the pressures leave nothing over: fluid, both casings, and the neighbours."""
    program = run(deep()).program
    found = rows(deep())
    order = [4, 3, 2]
    pressure = [0.0, *(found[i].pressure_psi for i in order), 0.0]
    for k, i in enumerate(order, start=1):
        middle = (found[i].top_md_ft + found[i].bottom_md_ft) / 2
        inner, outer = (
            next(s.pipe for s in program.strings[j].sections if s.bottom_md_ft >= middle) for j in (i, i - 1)
        )
        heat, small, large = found[i].heating_f, inner.od_in / 2, outer.id_in / 2
        grown = moved(large, outer, pressure[k], pressure[k + 1], heat) * large
        grown -= moved(small, inner, pressure[k - 1], pressure[k], heat) * small
        volume = 2 * grown / (large**2 - small**2)
        assert FLUID * heat - volume - STIFF * pressure[k] == pytest.approx(0.0, abs=1e-6)


def test_heat_falls_outwards_and_cold_builds_up_nothing():
    warm, cold = rows(deep()), rows(deep(site__flowing_wellhead_f=38.0))
    assert warm[3].heating_f < warm[4].heating_f / 0.8
    assert all(cold[i].pressure_psi < warm[i].pressure_psi for i in warm)
    hot = rows(deep(site__flowing_wellhead_f=220.0))
    assert all(hot[i].pressure_psi > warm[i].pressure_psi for i in warm)


def test_cement_under_the_shoe_opens_it_to_the_rock_there():
    """The 13 3/8 in annulus: under the 20 in shoe at 6,900 ft the rock stands 11.4 ppg and more, 10.2 ppg mud fills it."""
    found = rows(deep(strings__2__cement__top_md_ft=7100.0, site__flowing_wellhead_f=230.0))[2]
    assert found.sealed is False
    fracture = 10.8 + (6900 - 6000) / 1600 * 1.1
    assert found.bound_psi == pytest.approx(6900 * 12 / 231 * (fracture - 10.2), rel=1e-6)
    assert found.pressure_psi == pytest.approx(found.bound_psi)
    assert rows(deep(strings__2__cement__top_md_ft=6900.0))[2].sealed is True
    assert rows(deep(strings__2__cement__top_md_ft=6901.0))[2].sealed is False


def test_what_relieves_an_annulus():
    hot = {"site__flowing_wellhead_f": 230.0}
    bare = rows(deep(**hot))[2].pressure_psi
    disk = rows(deep(sea__annuli=[{"string": "s3", "relief": "rupture disk", "disk_psi": 2500.0}], **hot))[2]
    assert (disk.pressure_psi, disk.bound_psi) == (2500.0, 2500.0)
    before = bare
    for share in (0.005, 0.02, 0.05):
        foam = [{"string": "s3", "relief": "compressible fluid", "share": share}]
        now = rows(deep(sea__annuli=foam, **hot))[2].pressure_psi
        assert now < before
        before = now


def test_a_disk_opens_against_what_stands_outside_of_it():
    """The 9 5/8 in annulus behind a disk in the 13 3/8 in: 300 psi over what builds up in the next one out."""
    relief = [{"string": "s4", "relief": "rupture disk", "disk_psi": 300.0}]
    found = rows(deep(sea__annuli=relief, site__flowing_wellhead_f=230.0))
    assert found[2].pressure_psi > 1000
    assert found[3].pressure_psi == pytest.approx(300 + found[2].pressure_psi, abs=0.1)


def test_a_casing_that_fails_is_found_and_every_way_out_clears_it():
    hot = deep(site__flowing_wellhead_f=230.0, **DECIDED)
    (found,) = said(hot, "stop")
    assert "at the wellhead on the sea floor" in plain(found.message)
    assert [plain(r.label).split()[0] for r in found.remedies] == ["Leave", "Fit", "Fill"]
    for remedy in found.remedies:
        assert said(applied(hot, remedy.changes)) == [], plain(remedy.label)


def test_burst_of_the_outer_casing_is_judged_on_both_sides_of_its_rating_and_its_factor():
    """A disk sets the pressure to a pound. With 10.2 ppg over sea water down to 6,600 ft the 20 in sees 566 psi more.

    It bursts at 5,684 psi, and has policy's factor of 1.10 up to 5,167.
    """
    column = 12 / 231 * (10.2 - 8.55) * 6600
    for load, expected in ((5160.0, []), (5175.0, ["caution"]), (5680.0, ["caution"]), (5690.0, ["stop"])):
        relief = [{"string": "s3", "relief": "rupture disk", "disk_psi": load - column}]
        document = deep(site__flowing_wellhead_f=230.0, sea__annuli=relief, **DECIDED)
        assert [f.severity for f in said(document)] == expected, load
        assert rows(document)[2].burst_load_psi == pytest.approx(load)


def test_collapse_counts_the_columns_on_either_side():
    """The tie-back in 11.9 and 12.9 ppg with packer fluid inside, at the depth where that is worst."""
    row = rows(deep())[4]
    column = 12 / 231 * (12.9 - 8.6) * 12_700
    assert row.collapse_load_psi == pytest.approx(row.pressure_psi + column)


def test_what_is_missing_or_lost_is_told():
    lost = deep(sea__annuli=[{"string": "gone", "relief": "rupture disk", "disk_psi": 2000.0}])
    (found,) = [f for f in find(run(lost), "sea") if f.place.startswith("/sea/annuli")]
    assert found.severity == "caution"
    assert not [f for f in find(run(applied(lost, found.remedies[0].changes)), "sea") if "/annuli" in f.place]
    for relief in ("rupture disk", "compressible fluid"):
        bare = deep(sea__annuli=[{"string": "s3", "relief": relief}])
        assert [f.severity for f in find(run(bare), "sea") if f.place.startswith("/sea/annuli")] == ["unknown"]
    cold = deep(site__bottom_temperature_f=None)
    assert {f.severity for f in said(cold)} == {"unknown"}
    assert len(said(cold)) == 3


def test_the_loads_of_the_pipe_take_the_heat_of_sealed_annuli():
    """Where it governs, the pipe's own row tells it; where heat builds up little, what governed before does."""
    name = "annular pressure build-up"
    hot, cool = (run(deep(site__flowing_wellhead_f=f, **DECIDED)) for f in (230.0, 40.0))
    burst = next(load for load in hot.pipe.strings[1].loads if load.kind == "burst")
    row = rows(deep(site__flowing_wellhead_f=230.0, **DECIDED))[2]
    assert (burst.name, burst.load) == (name, pytest.approx(row.burst_load_psi))
    told = [plain(f.message) for f in find(hot, "pipe", "stop") if f.place.startswith("/strings/1")]
    assert [text for text in told if text.startswith(f"{name.capitalize()}: burst factor is")]
    assert not [load for s in cool.pipe.strings for load in s.loads if load.name == name]
    assert not [f for f in find(cool, "pipe") if plain(f.message).startswith(name.capitalize())]
    on_land = deep(site__setting="platform", site__flowing_wellhead_f=230.0, **DECIDED)
    assert not [load for s in run(on_land).pipe.strings for load in s.loads if load.name == name]


def test_an_annulus_that_is_unknown_leaves_the_casings_beside_it_unknown():
    """The mud around the 9 5/8 in: what the 13 3/8 in sees inside is then not known, and it is not told as good."""
    known, bare = (run(deep(**{"ground__pore": [], **DECIDED, **mud})) for mud in ({}, {"strings__3__mud_ppg": None}))
    text = "What heat builds up in the annuli beside it"
    for found, places in ((known, []), (bare, ["/strings/2/pipe"])):  # without its mud the 9 5/8 in has no load at all
        assert [f.place for f in find(found, "pipe", "unknown") if plain(f.message).startswith(text)] == places


@pytest.mark.parametrize(
    ("flowing_f", "grades"),
    [(120.0, ("R95", "P110", "R95")), (160.0, ("P110", "P110", "R95")), (200.0, ("Q125", "P110", "P110"))],
)
def test_what_is_chosen_stands_what_builds_up_beside_it(flowing_f, grades):
    """The hotter, the more builds up; what is chosen stands it with policy's factors, or it is told that nothing does."""
    found = run(deep(site__flowing_wellhead_f=flowing_f))
    for index, grade in zip((2, 3, 4), grades, strict=True):
        assert found.pipe.strings[index].sections[0].grade == grade
        cases = {case.name: case for case in loads_of(found.program, index).cases}
        shares = [f.share for f in cases["annular pressure build-up"].factors]
        assert len(shares) >= 3
        none = [
            f for f in find(found, "pipe", "stop") if "comes nearest" in plain(f.message) and f"/{index}/" in f.place
        ]
        assert (min(shares) >= 1 - 1e-9) == (not none)
