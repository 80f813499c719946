"""One step of the rehearsal: pumps and U-tube, inflow and losses, choke; the pressure on top is that at which all volumes fit.

What flows in and out in a step is taken at the pressures of its end, so that a step of any length is stable; tests hold short
steps beside long ones. All fluids are counted in and out.
"""

from __future__ import annotations

from collections.abc import Callable

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.drills.balance import CHOKE_CV, Trial, choke_bpm, line_psi, marks, outlet_cv, root, trial_of
from knollstack.core.drills.column import Cell
from knollstack.core.drills.gas import ATMOSPHERE_PSI
from knollstack.core.drills.inside import Slug
from knollstack.core.drills.moving import move_elements, move_string
from knollstack.core.drills.state import Counted, Readings, State

CHOKE_S = 0.05
"""Share of its travel that the choke moves in a second."""
APART_BBL = 2.0
"""Mud between two bubbles while gas and mud come in together."""
STIFF_PSI_BBL, SOFT_PSI_BBL = 400.0, 40.0
"""By how much a barrel at the bit changes the pressure there, the well closed or open: no flow in a step overshoots balance."""
RISER_SLIP = 4.0
"""Gas rises so much faster in the wide and open riser than in the annulus: a planning value."""
DRIFT_S = 1.0


def advance(state: State, seconds: float, step_s: float = DRIFT_S) -> None:
    """Steps of no more than `step_s`."""
    left = seconds
    with sweeping():
        while left > 1e-9:
            h = min(step_s, left)
            step(state, h)
            left -= h


def step(state: State, h: float) -> None:
    move_elements(state, h)
    velocity = move_string(state, h)
    state.now.through_bit_bpm = _string(state, h)
    _settle(state, h, velocity)
    _riser(state, h)
    state.t_s += h


def _string(state: State, h: float) -> float:
    """Flow at the bit [bbl/min]: by the pump, by the U-tube, or up an open string."""
    s, inside, now = state.setup, state.inside, state.now
    pumped = state.spm * s.pumps.bbl_stroke if state.connected else 0.0
    if inside is None or state.cut or state.bit_md_ft is None:
        now.pipe_psi = now.floor_bpm = 0.0
        return 0.0
    drive = inside.column_psi - now.bit_psi
    lost = max(s.pumps.slow_psi - s.slow_annulus_psi, 1.0) * inside.mean_ppg / s.mud_ppg
    slow = s.pumps.slow_bpm
    power = s.pumps.power
    gauge = lost * (pumped / slow) ** power - drive
    state.strokes += state.spm * h / 60 if state.connected else 0.0
    flow = pumped
    now.floor_bpm = 0.0
    if gauge <= 0 or inside.void_bbl > 0:
        most = abs(drive) / (STIFF_PSI_BBL if state.tight else SOFT_PSI_BBL) / h * 60
        fall = min(slow * (abs(drive) / lost) ** (1 / power), most)
        # what fell is pushed back up from the hole, until the string is full
        flow = fall if drive > 0 else -min(fall, max(inside.void_bbl / h * 60 - pumped, 0.0))
        gauge = 0.0
    elif pumped == 0 and _open_top(state):
        flow, gauge = -min(slow * (-drive / lost) ** (1 / power), -drive / SOFT_PSI_BBL / h * 60), 0.0
    flow = max(flow, 0.0) if state.float_holds else flow
    now.pipe_psi = gauge if not state.float_holds or pumped > 0 else 0.0
    _through(state, flow * h / 60, pumped * h / 60)
    if flow < 0:
        now.floor_bpm = -flow
    if gauge > s.pumps.relief_psi and pumped > 0:
        state.wanted_spm = state.spm = 0.0
    return flow


def _open_top(state: State) -> bool:
    return not state.made_up and state.safety_valve != "closed"


def _through(state: State, bbl: float, pumped: float) -> None:
    """Move fluids in the string, and into or out of the hole at the bit."""
    inside, column, counted = state.inside, state.column, state.counted
    assert inside is not None
    assert state.bit_md_ft is not None
    at = column.way.volume_at(state.bit_md_ft)
    inside.pump(pumped, state.mud_in_ppg)
    state.pit_bbl -= pumped
    counted.mud_in += pumped
    if bbl >= 0:
        for slug in inside.out_below(min(bbl, inside.held_bbl)):
            column.put_mud(slug.bbl, slug.ppg, at, state.now.top_psi)
        inside.settle()
        return
    for ppg, taken in column.give_mud(-bbl, at, state.now.top_psi):
        inside.into_bottom(Slug(ppg, taken))
    for slug in inside.out_above(max(0.0, inside.held_bbl - inside.total_bbl)):
        state.pit_bbl += slug.bbl
        counted.mud_out += slug.bbl
    inside.settle()


def _settle(state: State, h: float, velocity: float) -> None:
    s, column, now = state.setup, state.column, state.now
    # the U-tube alone moves too little to rub in the annulus
    rate = max(now.through_bit_bpm / s.pumps.slow_bpm, 0.0) ** s.pumps.annulus_power if state.spm > 0 else 0.0
    swab = state.swab_psi * min(1.0, max(0.0, velocity) / 60.0)
    column.rise(s.slip_ft_min * h / 60, now.top_psi)
    trial = trial_of(state, h, rate, swab, marks(state))
    if not state.tight:
        found, psi = _open(state, trial), 0.0
    else:
        cv = _automatic(state, h, trial)
        psi, found = root(lambda p: trial(p, cv), now.top_psi)
        column.void_bbl = max(0.0, -found.over_bbl) if psi <= 0 else 0.0
    _apply(state, found, psi, rate, h)


def _open(state: State, trial: Callable[..., Trial]) -> Trial:
    """No pressure on top: what is over flows out, what is missing is missing on top."""
    found = trial(0.0, 0.0)
    column = state.column
    column.void_bbl = max(0.0, -found.over_bbl)
    if column.void_bbl > 0 and not state.made_up:
        # on a trip the hole is kept full from the trip tank
        column.cells.insert(0, Cell(state.setup.mud_ppg, column.void_bbl))
        state.pit_bbl -= column.void_bbl
        state.counted.mud_in += column.void_bbl
        found, column.void_bbl = trial(0.0, 0.0), 0.0
    elif column.void_bbl > 0:
        found = trial(0.0, 0.0, column.void_bbl)
        column.void_bbl = max(0.0, -found.over_bbl)
    found.out_bbl = max(0.0, found.over_bbl)
    return found


def _automatic(state: State, h: float, trial: Callable[..., Trial]) -> float:
    """Opening of the choke: as it is set, or by what it holds, no faster than it moves."""
    valves, now = state.valves, state.now
    if valves.auto == "by hand" or not valves.choke_line or not state.choke_reached:
        return outlet_cv(state)
    read = now.kill_psi if valves.auto == "casing pressure" else now.pipe_psi
    aim = max(0.0, now.top_psi + valves.target_psi - read)
    asked = trial(aim, 0.0)
    top = state.column.cells[0]
    here = top.amount * top.zt / (aim + ATMOSPHERE_PSI) if top.is_gas else top.bbl
    ppg = top.amount * state.column.gas.mass / here if top.is_gas else top.ppg
    full = choke_bpm(CHOKE_CV, aim, ppg, top.is_gas) * h / 60
    wanted = min(1.0, max(0.0, asked.over_bbl / full)) if full > 0 else (1.0 if asked.over_bbl > 0 else 0.0)
    most = CHOKE_S * h
    valves.choke = min(max(wanted, valves.choke - most), valves.choke + most)
    return outlet_cv(state)


def _apply(state: State, found: Trial, psi: float, rate: float, h: float) -> None:
    s, column, counted = state.setup, state.column, state.counted
    top = psi + line_psi(state)
    column.stand(top, rate, (), column.void_bbl, keep=True)
    if found.out_bbl > 0:
        mud, amount = column.take(found.out_bbl, column.void_bbl, top)
        _surface(state, mud, amount, counted)
    if found.loss_bbl > 0:
        at = column.way.volume_at(s.rock[found.rock].md_ft)
        mud, amount = column.take(found.loss_bbl, at, top)
        counted.mud_lost += mud
        counted.gas_lost += amount
    if found.inflow_bbl > 0:
        _inflow(state, found)
    column.tidy()
    _read(state, found, psi, h)


def _surface(state: State, mud: float, amount: float, counted: Counted) -> None:
    counted.gas_out += amount
    counted.mud_out += mud
    if state.rig_diverter:
        counted.overboard += mud
    else:
        state.pit_bbl += mud


def _inflow(state: State, found: Trial) -> None:
    column, s = state.column, state.setup
    psia = found.psi[-1] + ATMOSPHERE_PSI
    heat = column.heat.at(s.hole_tvd_ft)
    amount = column.gas.amount(found.inflow_bbl, psia, heat)
    column.put_gas(amount, column.gas.zt(psia, heat), found.inflow_bbl, APART_BBL)
    state.counted.gas_in += amount


def _read(state: State, found: Trial, psi: float, h: float) -> None:
    s, now = state.setup, state.now
    count = len(s.rock)
    for k in range(count):
        if found.psi[k] > s.rock[k].fracture_psi:
            state.broken[k] = True
    reached = state.valves.choke_line and state.choke_reached and state.tight
    state.now = Readings(
        top_psi=psi,
        casing_psi=psi if reached else 0.0,
        kill_psi=max(0.0, found.psi[-3] - PSI_PER_PPG_FT * s.mud_ppg * s.stack_md_ft),
        pipe_psi=now.pipe_psi,
        bit_psi=found.psi[-2],
        bottom_psi=found.psi[-1],
        shoe_psi=found.psi[-4],
        rock_psi=tuple(found.psi[:count]),
        out_bpm=found.out_bbl / h * 60,
        hole_bpm=found.out_bbl / h * 60,
        through_bit_bpm=now.through_bit_bpm,
        influx_bpm=found.inflow_bbl / h * 60,
        loss_bpm=found.loss_bbl / h * 60,
        floor_bpm=now.floor_bpm,
    )


def _riser(state: State, h: float) -> None:
    """What stands over a closed stack: gas in it rises and unloads it."""
    riser = state.riser
    if riser is None or not riser.gas_amount:
        return
    riser.rise(RISER_SLIP * state.setup.slip_ft_min * h / 60, 0.0)
    volume, _ = riser.stand(0.0, 0.0, (), riser.void_bbl, keep=True)
    over = volume - riser.way.total_bbl
    riser.void_bbl = max(0.0, -over)
    if over > 0:
        mud, amount = riser.take(over, 0.0, 0.0)
        _surface(state, mud, amount, state.counted)
        state.now.out_bpm += over / h * 60
