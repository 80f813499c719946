"""The simulated well: volumes kept, steps that do not matter, hydrostatics by hand, gas against the single bubble's theory."""

import pytest

from knollstack.core.drills.balance import CHOKE_CV, LOSS_BPM_PSI, choke_bpm
from knollstack.core.drills.column import Cell
from knollstack.core.drills.formulas import choke_flow
from knollstack.core.drills.gas import ATMOSPHERE_PSI, gas_of
from knollstack.core.drills.setup import ENDLESS, Tube
from knollstack.core.drills.state import State
from knollstack.core.drills.stepping import advance
from knollstack.core.drills.theory import Circulating, curve
from tests.core.drills.wells import ANNULAR, KPSI, small

REST_PSI = 10_000 * KPSI * 10.0


def shut(state):
    state.wanted[ANNULAR.index] = True
    state.valves.choke_line = True
    advance(state, 40)
    assert state.tight


def closed_on(bbl, **changes):
    """Shut in on a slug of gas on bottom that came in at formation pressure, nothing moving."""
    state = State(small(**changes))
    state.flowing = False
    column, setup = state.column, state.setup
    heat = setup.heat.at(setup.hole_tvd_ft)
    psia = setup.pore_psi + ATMOSPHERE_PSI
    column.take(bbl, column.way.total_bbl - bbl, 0.0)
    gas = gas_of(setup.gas_sg)
    column.cells.append(Cell(0.0, bbl, gas.amount(bbl, psia, heat), gas.zt(psia, heat), psia))
    shut(state)
    state.flowing = True
    advance(state, 900)
    return state


def weighed(state):
    """Mud in hole, string, pits and lost, and gas in the hole and gone: what must stay."""
    c = state.counted
    riser = state.riser
    mud = state.column.mud_bbl + state.inside.held_bbl + state.pit_bbl + c.mud_lost + sum(x.bbl for x in state.line)
    mud += riser.mud_bbl if riser else 0.0
    gas = state.column.gas_amount + c.gas_out + c.gas_lost - c.gas_in + (riser.gas_amount if riser else 0.0)
    return mud, gas


def test_at_rest_the_well_stands_as_the_calculator_has_it():
    state = State(small())
    state.flowing = False
    advance(state, 60)
    assert state.now.bottom_psi == pytest.approx(REST_PSI, abs=0.01)
    assert state.now.shoe_psi == pytest.approx(REST_PSI / 2, abs=0.01)
    assert (state.pit_bbl, state.now.out_bpm) == (pytest.approx(500.0, abs=1e-6), pytest.approx(0.0, abs=1e-6))
    state.wanted_spm = state.spm = 60.0
    advance(state, 60)
    # square law: 400 psi at 30 spm is 1,600 at 60; what is pumped comes back
    assert state.now.pipe_psi == pytest.approx(1_600.0, abs=1.0)
    assert state.now.out_bpm == pytest.approx(6.0, abs=0.01)
    assert state.pit_bbl == pytest.approx(500.0, abs=0.01)


def test_shut_in_pressures_are_those_of_the_kill_sheet():
    state = closed_on(20.0)
    # 0.6 ppg over 10,000 ft on the drill pipe; the casing is lighter by the height of the gas
    assert state.now.pipe_psi == pytest.approx(10_000 * KPSI * 0.6, abs=3.0)
    annulus = (8.5**2 - 5.0**2) / 1029.4
    height = state.column.gas_bbl / annulus
    cell = next(c for c in state.column.cells if c.is_gas)
    ppg = cell.amount * state.column.gas.mass / cell.bbl
    assert state.now.casing_psi == pytest.approx(state.now.pipe_psi + KPSI * (10.0 - ppg) * height, rel=0.005)


@pytest.mark.parametrize("bore_in", [3.34, 3.826, 4.276, 4.408, 4.67, 5.045])
@pytest.mark.parametrize("bit_ft", [0.0, 0.37, 1.1])
def test_the_drill_pipe_gauge_reads_whatever_sums_round_to(bore_in, bit_ft):
    """A string that fell and was pushed full again is full: its gauge shows what the formation has over its mud."""
    setup = {"string": (Tube("drill pipe", ENDLESS, 5.5, bore_in, 6.625),), "bit_md_ft": 10_000.0 - bit_ft}
    state = closed_on(12.0, **setup)
    assert state.inside.void_bbl == 0.0
    assert state.now.pipe_psi == pytest.approx(10_000 * KPSI * 0.6, abs=4.0)


def test_the_step_does_not_matter():
    found = []
    for step in (0.25, 1.0, 2.0):
        state = State(small())
        state.spm = state.wanted_spm = 60.0
        advance(state, 180, step)
        state.wanted_spm = 0.0
        advance(state, 30, step)
        state.wanted[ANNULAR.index] = state.valves.choke_line = True
        advance(state, 1_200, step)
        found.append((state.now.casing_psi, state.now.pipe_psi, state.column.gas_bbl, state.pit_bbl))
    for coarse in found[1:]:
        assert coarse == pytest.approx(found[0], rel=0.03, abs=0.3)


def test_nothing_is_made_and_nothing_is_lost():
    state = State(small(rock=small().rock[:1]))
    state.spm = state.wanted_spm = 60.0
    mud, gas = weighed(state)
    advance(state, 240)
    assert weighed(state) == (pytest.approx(mud, abs=1e-3), pytest.approx(gas, abs=1e-6))
    state.wanted_spm = 0.0
    shut(state)
    state.valves.choke = 0.4
    state.wanted_spm = 30.0
    advance(state, 900)
    assert state.counted.gas_in > 100
    assert weighed(state) == (pytest.approx(mud, abs=5e-3), pytest.approx(gas, abs=1e-5))


def test_gas_that_rises_shut_in_brings_its_pressure_up():
    state = closed_on(10.0, slip_ft_min=60.0)
    before, top = state.now.casing_psi, next(a for c, a, _ in state.column.place(0.0) if c.is_gas)
    advance(state, 1_200)
    after = next(a for c, a, _ in state.column.place(0.0) if c.is_gas)
    assert after < top
    assert state.now.casing_psi > before + 150
    assert state.column.gas_amount == pytest.approx(
        state.counted.gas_in + gas_of(0.65).amount(10.0, state.setup.pore_psi + ATMOSPHERE_PSI, 220.0), rel=1e-6
    )


def test_the_shoe_breaks_at_its_strength_and_takes_mud_until_it_closes():
    state = closed_on(10.0)
    fracture = state.setup.rock[0].fracture_psi
    state.wanted_spm = 5.0
    while not state.broken:
        before = state.now.rock_psi[0]
        advance(state, 1)
    assert before <= fracture < state.now.rock_psi[0]
    advance(state, 60)
    assert state.now.loss_bpm > 0
    assert state.counted.mud_lost > 0
    beyond = state.now.rock_psi[0] - 0.92 * fracture
    assert state.now.loss_bpm == pytest.approx(LOSS_BPM_PSI * beyond, rel=0.05)
    state.wanted_spm = 0.0
    advance(state, 1_800)
    assert state.now.rock_psi[0] <= 0.93 * fracture


@pytest.mark.parametrize("gas", [True, False])
def test_flow_through_the_choke_is_the_registered_formula(gas):
    drop = 0.5 * (400 + ATMOSPHERE_PSI) if gas else 400.0
    assert choke_bpm(CHOKE_CV, 400.0, 2.0, gas) * 42 == pytest.approx(float(choke_flow(CHOKE_CV, drop, 2.0)))


@pytest.mark.parametrize(("kill", "method"), [(10.0, "driller"), (10.65, "wait and weight")])
def test_a_bubble_circulated_out_follows_the_theory(kill, method):
    """Greatest casing and shoe pressure within 3 % of one bubble with no friction, bottom-hole pressure held."""
    state = closed_on(20.0)
    amount, string = state.column.gas_amount, state.inside.total_bbl
    state.mud_in_ppg = kill
    state.valves.auto, state.valves.target_psi = "casing pressure", state.now.casing_psi
    state.wanted_spm = 30.0
    advance(state, 20)
    held = state.setup.pore_psi + 20.0
    casing, shoe = [], []
    while state.column.gas_bbl > 0.02:
        # a perfect choke: whatever drill pipe pressure keeps that on bottom
        state.valves.auto = "drill pipe pressure"
        state.valves.target_psi = state.now.pipe_psi + held - state.now.bottom_psi
        advance(state, 10)
        casing.append(state.now.casing_psi)
        shoe.append(state.now.shoe_psi)
        assert abs(state.now.bottom_psi - held) < 40
    begun = Circulating(state.column.way, state.column.gas, state.setup.heat, held, amount, 10.0, kill, string)
    theory = curve(begun, state.column.way.volume_at(5_000.0), state.column.way.total_bbl, 400)
    assert max(casing) == pytest.approx(max(m.casing_psi for m in theory), rel=0.03), method
    assert max(shoe) == pytest.approx(max(m.shoe_psi for m in theory), rel=0.03), method
    if method == "wait and weight":
        plain = curve(Circulating(begun.way, begun.gas, begun.heat, held, amount, 10.0, 10.0, string), 0.0, 400.0, 400)
        assert max(m.casing_psi for m in theory) < max(m.casing_psi for m in plain), "kill mud makes it less"


def test_a_leak_passes_and_a_ram_on_a_tool_joint_does_not_hold():
    state = State(small())
    state.leaks = {ANNULAR.index: 4.0}
    state.wanted[ANNULAR.index] = True
    advance(state, 60)
    assert state.tight
    assert state.leak_cv == 4.0
    assert state.now.out_bpm > 0
    state.wanted[1] = True
    advance(state, 20)
    assert (state.verdict(state.setup.elements[1]), state.leak_cv) == ("seals and hangs", 0.0)
    joint = State(small(bit_md_ft=20.0 + 31.5 * 300))  # a tool joint at 20 ft, where the rams stand
    joint.wanted[1] = True
    advance(joint, 20)
    assert (joint.across(joint.setup.elements[1]), joint.tight) == ("tool joint", False)
    for off, across in ((0.9, "tool joint"), (1.1, "drill pipe")):
        assert State(small(bit_md_ft=20.0 + 31.5 * 300 + off)).across(state.setup.elements[1]) == across


def test_a_ram_under_the_choke_line_keeps_the_well_from_the_choke():
    state = State(small(choke_at=2))
    shut(state)
    assert state.choke_reached
    assert state.now.casing_psi > 0
    state.wanted[1] = True
    advance(state, 20)
    assert not state.choke_reached
    assert state.now.casing_psi == 0.0
