"""What a pressure at the outlet makes of the annulus in a step, and the pressure at which all volumes fit."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from knollstack.core.base.constants import GAL_PER_BBL, PPG_PER_SG
from knollstack.core.drills.gas import ATMOSPHERE_PSI
from knollstack.core.drills.state import State

CHOKE_CV = 60.0
"""Flow coefficient of the choke wide open: a planning value, of a 3 in choke."""
LOSS_BPM_PSI = 0.03
"""Mud that a broken rock takes for each psi over the pressure at which it closes."""
CLOSES_AT = 0.92
"""Share of the breakdown pressure at which broken rock takes mud."""
MOST_PSI = 25_000.0
FIT_BBL = 2e-6
SECANTS = 8


@dataclass(slots=True)
class Trial:
    """What a pressure at the outlet makes of the annulus."""

    over_bbl: float
    volume_bbl: float
    inflow_bbl: float
    loss_bbl: float
    rock: int
    out_bbl: float
    psi: list[float]


def marks(state: State) -> tuple[list[float], list[int]]:
    """Volumes at which pressure is wanted, rising, and the place of each among: rock …, shoe, stack, bit, bottom."""
    way, s = state.column.way, state.setup
    wanted = [way.volume_at(r.md_ft) for r in s.rock]
    wanted.append(way.volume_at(s.shoe_md_ft))
    wanted.append(way.volume_at(s.stack_md_ft))
    wanted.append(way.volume_at(state.bit_md_ft if state.bit_md_ft is not None else s.hole_md_ft))
    wanted.append(way.total_bbl)
    order = sorted(range(len(wanted)), key=wanted.__getitem__)
    return [wanted[k] for k in order], order


def choke_bpm(cv: float, psi: float, ppg: float, is_gas: bool) -> float:
    """`formulas.choke_flow` in bbl/min; for gas with the drop of choked flow."""
    drop = min(psi, 0.5 * (psi + ATMOSPHERE_PSI)) if is_gas else psi
    return cv * math.sqrt(max(drop, 0.0) / (ppg / PPG_PER_SG)) / GAL_PER_BBL


def outlet_cv(state: State) -> float:
    """Flow coefficient of all that is open at the top of a closed well."""
    choke = CHOKE_CV * state.valves.choke if state.valves.choke_line and state.choke_reached else 0.0
    return choke + state.leak_cv


def trial_of(
    state: State, h: float, rate: float, swab: float, marks: tuple[list[float], list[int]]
) -> Callable[..., Trial]:
    column, s, total = state.column, state.setup, state.column.way.total_bbl
    top = next((c for c in column.cells), None)
    rubbed = line_psi(state)
    count = len(s.rock)

    def tried(psi: float, cv: float, void: float = 0.0) -> Trial:
        volume, found = column.stand(psi + rubbed, rate, marks[0], void)
        at = [0.0] * len(found)
        for place, value in zip(marks[1], found, strict=True):
            at[place] = value
        inflow = s.inflow_bpm_psi * max(0.0, s.pore_psi - at[-1] + swab) * h / 60 if state.flowing else 0.0
        rock, over = -1, 0.0
        for k in range(count):
            beyond = at[k] - CLOSES_AT * s.rock[k].fracture_psi if state.broken.get(k) else 0.0
            if beyond > over:
                rock, over = k, beyond
        loss = LOSS_BPM_PSI * over * h / 60
        out = 0.0
        if cv > 0 and top is not None:
            here = top.amount * top.zt / (psi + rubbed + ATMOSPHERE_PSI) if top.is_gas else top.bbl
            ppg = top.amount * column.gas.mass / here if top.is_gas else top.ppg
            out = min(choke_bpm(cv, psi, ppg, top.is_gas) * h / 60, here)
        return Trial(volume + inflow - loss - out - total, volume, inflow, loss, rock, out, at)

    return tried


def line_psi(state: State) -> float:
    """Friction of the choke line at the flow of the last step."""
    s, now = state.setup, state.now
    if not state.tight or s.choke_line_psi <= 0 or not state.column.cells:
        return 0.0
    top = state.column.cells[0]
    ppg = s.mud_ppg if not top.is_gas else max(top.amount * state.column.gas.mass / max(top.bbl, 1e-6), 0.05)
    return min(s.choke_line_psi * (now.hole_bpm / s.pumps.slow_bpm) ** 2 * ppg / s.mud_ppg, 3_000.0)


def root(trial: Callable[[float], Trial], first: float) -> tuple[float, Trial]:
    """The pressure at which nothing is over or missing, and what it makes: what is over falls as it rises."""
    psi, found = first, trial(first)
    step = max(1.0, 0.01 * first) if found.over_bbl > 0 else -max(1.0, 0.01 * first)
    for _ in range(SECANTS):  # as a rule the pressure moves little in a step
        if abs(found.over_bbl) < FIT_BBL:
            return psi, found
        after = max(0.0, psi + step)
        if after == psi:
            break
        other = trial(after)
        slope = (other.over_bbl - found.over_bbl) / (after - psi)
        psi, found = after, other
        if slope >= 0 or psi > MOST_PSI:
            break
        step = -found.over_bbl / slope
    return (psi, found) if abs(found.over_bbl) < FIT_BBL else _bracketed(trial, first)


def _bracketed(trial: Callable[[float], Trial], first: float) -> tuple[float, Trial]:
    """By halving between a pressure that is too low and one that is too high; 0 where nothing is over without any."""
    low, high, found = 0.0, max(2 * first, 50.0), trial(0.0)
    if found.over_bbl <= 0:
        return 0.0, found
    while trial(high).over_bbl > 0 and high < MOST_PSI:
        low, high = high, 2 * high
    for _ in range(60):
        psi = 0.5 * (low + high)
        found = trial(psi)
        if abs(found.over_bbl) < FIT_BBL:
            break
        low, high = (psi, high) if found.over_bbl > 0 else (low, psi)
    return psi, found
