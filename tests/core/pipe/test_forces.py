"""Axial forces and pressures on pipe: each equation by hand, and what must hold whatever the numbers."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from knollstack.core.catalogue.joints import leak_resistance, round_coupling_root
from knollstack.core.catalogue.ratings import derated_yield, worn_wall
from knollstack.core.pipe.formulas import (
    areas_in2,
    ballooning_force,
    bending_force,
    buckling_force,
    carried_load,
    effective_force,
    gas_column_top,
    hanging_force,
    kick_top_pressure,
    shock_load,
    thermal_force,
    weight_below,
)

SEVEN = (7.0, 0.408)
STEEL, BORE, OUTSIDE = 8.4494, 30.0352, 38.4845


def test_areas_by_hand():
    """7 in with 0.408 in wall: bore 6.184 in, π/4·6.184² = 30.035; π/4·49 = 38.485; steel the difference."""
    assert areas_in2(*SEVEN) == pytest.approx((OUTSIDE, BORE, STEEL), abs=5e-4)


def test_hanging_by_hand():
    """29 lb/ft, 10,000 ft in 10 ppg: 290,000 − 5,194.8·8.4494 = 246,107 at the top; −43,893 at the shoe.

    With the same mud inside and out the effective force is the buoyed weight below: 0 at the shoe.
    """
    gradient = 10 * 12 / 231
    below = weight_below(29.0, 10_000.0, 10.0, *SEVEN)
    assert below == pytest.approx(290_000 + gradient * 10_000 * BORE, abs=5)
    assert hanging_force(below, 0.0, gradient * 10_000, *SEVEN) == pytest.approx(246_107, abs=3)
    shoe = gradient * 10_000
    at_shoe = hanging_force(0.0, shoe, shoe, *SEVEN)
    assert at_shoe == pytest.approx(-shoe * STEEL, abs=5)
    assert effective_force(at_shoe, shoe, shoe, *SEVEN) == pytest.approx(0.0, abs=1e-6)


def test_heat_pressure_bending_and_shock_by_hand():
    """207 lbf per in² and °F; 0.6·Δpᵢ·Aᵢ; 218·D·θ·A; 1,780·v·A."""
    assert thermal_force(*SEVEN, 100.0) == pytest.approx(-207 * STEEL * 100, rel=1e-4)
    assert ballooning_force(*SEVEN, 1000.0, 0.0) == pytest.approx(0.6 * 1000 * BORE, rel=1e-4)
    assert ballooning_force(*SEVEN, 0.0, 1000.0) == pytest.approx(-0.6 * 1000 * OUTSIDE, rel=1e-4)
    assert bending_force(7.0, 3.0, STEEL) == pytest.approx(218 * 7 * 3 * STEEL)
    assert shock_load(2.0, STEEL) == pytest.approx(3560 * STEEL)
    assert carried_load([300_000.0], 60_000.0, 15.5, 26.9) == pytest.approx(360_000 * 15.5 / 42.4)
    assert carried_load([300_000.0], 60_000.0, 15.5) == pytest.approx(360_000)


def test_wear_heat_and_joints_by_hand():
    assert worn_wall(0.408, 12.5) == pytest.approx(0.357)
    assert derated_yield(110_000, 0.0003, 270) == pytest.approx(103_400)
    assert derated_yield(110_000, 0.0003, 40) == 110_000
    assert round_coupling_root(6.90337, 3.296) == pytest.approx(6.7716, abs=1e-4)
    # 30·10⁶·0.0625·2.5·0.2·(14.375² − 13.329²)/(2·13.329·14.375²)
    assert leak_resistance(0.0625, 2.5, 0.2, 13.329, 14.375) == pytest.approx(4932, abs=1)


def test_buckling_in_vertical_and_inclined_hole():
    """7 in 29 lb/ft, I = 45.9 in⁴, buoyed 24.6 lb/ft: 1.94·(E·I·w²)^⅓ with w in lb/in; 2·√(E·I·w·sin 45°/0.75)."""
    inertia = np.pi / 64 * (7**4 - 6.184**4)
    per_inch = 24.6 / 12
    upright = 1.94 * (30e6 * inertia * per_inch**2) ** (1 / 3)
    assert buckling_force(*SEVEN, 24.6, 0.0, 0.75) == pytest.approx(upright, rel=1e-6)
    inclined = 2 * np.sqrt(30e6 * inertia * per_inch * np.sin(np.radians(45)) / 0.75)
    assert buckling_force(*SEVEN, 24.6, 45.0, 0.75) == pytest.approx(inclined, rel=1e-6)
    assert inclined > upright


@settings(max_examples=60)
@given(
    formation=st.floats(2000, 14_000),
    mud=st.floats(8.5, 18),
    depth=st.floats(0, 8000),
    below=st.floats(500, 9000),
    kick=st.floats(5, 200),
    annulus=st.floats(0.02, 0.4),
    gas=st.floats(0.02, 0.3),
)
def test_a_kick_circulated_up_balances_the_column_below_it(formation, mud, depth, below, kick, annulus, gas):
    """Top pressure, gas of the expanded bubble and mud under it add up to the formation pressure."""
    bottom = depth + below
    top = kick_top_pressure(formation, mud, bottom, depth, kick, annulus, gas)
    length = kick * formation / (top * annulus)
    mud_psi_ft = mud * 12 / 231
    assert top + gas * length + mud_psi_ft * (below - length) == pytest.approx(formation, rel=1e-6)


@given(st.floats(500, 15_000), st.floats(100, 9000), st.floats(0.55, 1.2), st.floats(0.7, 1.2), st.floats(60, 300))
def test_a_real_gas_column_is_the_same_in_one_piece_and_in_two(bottom, height, gravity, z, heat):
    whole = gas_column_top(bottom, height, gravity, z, heat)
    half = gas_column_top(gas_column_top(bottom, height / 2, gravity, z, heat), height / 2, gravity, z, heat)
    assert whole == pytest.approx(half, rel=1e-9)
    assert 0 < whole < bottom


@given(st.floats(4.5, 20), st.floats(10, 40), st.floats(0, 8000), st.floats(0, 8000), st.floats(-500_000, 900_000))
def test_effective_force_turns_round(od, ratio, inside, outside, force):
    """Real to effective and back; equal pressures on thin pipe change it by the pressure on its steel."""
    size = (od, od / ratio)
    outer, bore, steel = areas_in2(*size)
    effective = effective_force(force, inside, outside, *size)
    assert effective + inside * bore - outside * outer == pytest.approx(force, abs=1e-3)
    assert effective_force(force, inside, inside, *size) - force == pytest.approx(inside * steel, rel=1e-6, abs=1e-3)
