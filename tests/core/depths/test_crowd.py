"""Pairs asked block by block give what all of them laid out give."""

import numpy as np
import pytest

from knollstack.core.depths import crowd, tolerance
from knollstack.core.depths.bubble import open_hole
from knollstack.core.depths.crowd import Crowd
from knollstack.core.depths.tolerance import breaking, gives, known_pairs, least_of, of_weak_point
from knollstack.core.ground.well import build_well
from knollstack.core.reading.read import parse
from tests.helpers import many, policy, well

DEEP = 10_000.0


def made(seed, points=60):
    """Rough profiles: pore pressure near what the mud holds, fracture near what a kick reaches."""
    draw = np.random.default_rng(seed)
    depths = np.unique(np.concatenate([[30.0, DEEP], draw.uniform(30, DEEP, points).round(1)]))
    profile = {
        name: [
            {"tvd_ft": float(z), "emw_ppg": float(round(e, 3))}
            for z, e in zip(depths, middle + draw.uniform(-spread, spread, len(depths)), strict=True)
        ]
        for name, middle, spread in (("pore", 9.0, 0.6), ("fracture", 12.5, 1.5))
    }
    bends = [
        {"md_ft": z, "inclination_deg": a} for z, a in ((0.0, 0.0), (3000.0, 0.0), (5000.0, 20.0), (10_600.0, 20.0))
    ]
    stations = bends if seed % 2 else [{"md_ft": 0.0}, {"md_ft": DEEP}]
    return build_well(
        parse(
            well(
                ground__pore=profile["pore"],
                ground__fracture=profile["fracture"],
                trajectory__stations=stations,
                policy=policy(kick_intensity_ppg=0.5 * (seed % 3)),
            )
        )
    )


@pytest.fixture
def in_blocks(monkeypatch):
    monkeypatch.setattr(tolerance, "MANY", 0)
    monkeypatch.setattr(crowd, "BLOCK", 7)
    monkeypatch.setattr(crowd, "AT_ONCE", 3)


@pytest.mark.parametrize("seed", range(many(5)))
def test_the_least_is_that_of_all_pairs(seed, in_blocks, monkeypatch):
    ground = made(seed)
    hole = open_hole(ground, 12.25)
    limited = 0
    for top in (1_000.0, 4_000.0, 7_500.0):
        for mud in (9.6, 10.5, 12.0):
            block = known_pairs(ground, top, mud, DEEP)
            assert isinstance(block, Crowd)
            least = least_of(ground, hole, block, mud)
            with monkeypatch.context() as whole:
                whole.setattr(tolerance, "MANY", 10**9)
                pairs = known_pairs(ground, top, mud, DEEP)
                assert least.volume_bbl == pytest.approx(least_of(ground, hole, pairs, mud).volume_bbl, abs=1e-9)
                own = least_of(ground, hole, of_weak_point(pairs, top), mud)
            assert least_of(ground, hole, of_weak_point(block, top), mud) == own
            limited += np.isfinite(least.volume_bbl)
    assert limited > 0


@pytest.mark.parametrize("seed", range(many(5)))
@pytest.mark.parametrize("asked", [1.0, 20.0, 200.0])
def test_the_shoes_that_give_a_volume_are_the_same(seed, asked, in_blocks, monkeypatch):
    ground = made(seed)
    hole = open_hole(ground, 12.25)
    tops = np.arange(500.0, 9_500.0, 250.0)
    mud = 9.6 + 0.1 * (tops // 2_000)
    found = gives(ground, hole, tops, mud, DEEP, asked)
    monkeypatch.setattr(tolerance, "MANY", 10**9)
    assert found.tolist() == gives(ground, hole, tops, mud, DEEP, asked).tolist()


@pytest.mark.parametrize("seed", range(many(4)))
def test_no_pair_of_a_block_falls_short_of_its_bound(seed, in_blocks):
    ground = made(seed)
    hole = open_hole(ground, 12.25)
    block = breaking(ground, 1_000.0, DEEP)
    mud = np.full(block.rock.tvd_ft.shape, 10.2)
    bounds = block.bounds(hole, mud)
    for row, column in np.argwhere(np.ones(bounds.shape, dtype=bool)).tolist():
        pairs = block.laid_out([row], [column])
        if len(pairs.weak_psi):
            assert least_of(ground, hole, pairs, 10.2).volume_bbl >= bounds[row, column] - 1e-6
