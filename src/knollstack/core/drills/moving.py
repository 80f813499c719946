"""Pipe and preventers in motion: elements close, the string is raised, run, stripped, cut or dropped."""

from __future__ import annotations

from dataclasses import replace

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.drills.column import Column
from knollstack.core.drills.geometry import Way
from knollstack.core.drills.setup import Element
from knollstack.core.drills.state import State

SPM_S = 10.0
"""By how much the pumps change their strokes a minute in a second."""
STAND_FT = 93.0
STAND_S = 75.0
"""To break out and rack back a stand."""
TRIP_FT_MIN, PICK_FT_MIN, STRIP_FT_MIN = 90.0, 60.0, 30.0


def move_elements(state: State, h: float) -> None:
    for e in state.setup.elements:
        step = h / max(e.seconds, 0.1)
        before = state.position[e.index]
        after = min(1.0, before + step) if state.wanted[e.index] else max(0.0, before - step)
        state.position[e.index] = after
        if before < 1.0 <= after:
            _shut(state, e)
    state.spm += max(-SPM_S * h, min(SPM_S * h, state.wanted_spm - state.spm))
    tight = bool(state.sealing) or (state.setup.diverter and state.diverting and not state.valves.overboard)
    if tight and not state.tight:
        seal(state)
    elif not tight and state.tight:
        unseal(state)


def _shut(state: State, e: Element) -> None:
    """Blades that close on pipe which they cut, cut it."""
    if e.element in ("blind shear rams", "casing shear rams") and state.verdict(e) in ("shears", "shears and seals"):
        cut(state, e.md_ft)


def cut(state: State, at_md_ft: float) -> None:
    """The string is in two; what is not hung off falls to bottom."""
    if state.bit_md_ft is None:
        return
    lengths, left = [], state.bit_md_ft - at_md_ft
    for tube in state.string:
        if left <= 0:
            break
        lengths.append(replace(tube, length_ft=min(tube.length_ft, left)))
        left -= tube.length_ft
    state.string, state.cut, state.moves.target_md_ft = tuple(lengths), True, None
    state.moves.pulling = False
    before = state.column.way.total_bbl
    if state.hung is None:
        state.bit_md_ft = state.setup.hole_md_ft
    refit(state)
    pushed = before - state.column.way.total_bbl
    if pushed > 0:
        # what the falling string pushes out before it comes to rest
        mud, amount = state.column.take(pushed, 0.0, state.now.top_psi)
        state.pit_bbl += mud
        state.filled_bbl -= mud
        state.counted.mud_out += mud
        state.counted.gas_out += amount


def drop(state: State) -> None:
    """Let go of the string: it falls to bottom and leaves the stack."""
    if state.bit_md_ft is not None and not state.cut:
        cut(state, 0.0)


def refit(state: State) -> None:
    """The way around the string as it now stands."""
    state.column.way = state.tight_way() if state.tight else state.open_way()


def seal(state: State) -> None:
    """What stands over the stack is by itself from now on; the way out leads through the choke line."""
    column = state.column
    i = column.split(column.way.volume_at(state.setup.stack_md_ft), 0.0)
    upper, lower = column.cells[:i], column.cells[i:]
    riser = Column(_riser_way(state), column.gas, state.setup.mud_ppg, state.setup.heat)
    riser.cells, riser.void_bbl = upper, column.void_bbl
    state.riser, state.tight, state.now.hole_bpm = riser, True, 0.0
    column.cells, column.void_bbl = [*state.line, *lower], 0.0
    state.line = []
    refit(state)


def unseal(state: State) -> None:
    column, riser = state.column, state.riser
    line = sum(p.length_ft * p.capacity_bbl_ft for p in state.setup.choke_line())
    i = column.split(line, state.now.top_psi) if line > 0 else 0
    state.line, lower = column.cells[:i], column.cells[i:]
    column.cells = [*(riser.cells if riser is not None else []), *lower]
    state.riser, state.tight = None, False
    refit(state)
    column.tidy()


def _riser_way(state: State) -> Way:
    whole = state.setup.annulus(state.bit_md_ft, state.string, 0.0)
    over = [p for p in whole if p.bottom_md_ft <= state.setup.stack_md_ft + 1e-9]
    return Way(over, state.setup.depths)


def move_string(state: State, h: float) -> float:
    """Move the bit; gives the velocity [ft/min, up is over 0] at which it moved."""
    moves, bit = state.moves, state.bit_md_ft
    if bit is None or state.inside is None or state.cut or state.hung is not None:
        return 0.0
    if moves.pulling:
        return _pull(state, bit, h)
    if moves.target_md_ft is None:
        return 0.0
    step = moves.speed_ft_min * h / 60
    after = max(moves.target_md_ft, bit - step) if moves.target_md_ft < bit else min(moves.target_md_ft, bit + step)
    _to(state, after)
    if after == moves.target_md_ft:
        moves.target_md_ft = None
    return (bit - after) / h * 60


def _pull(state: State, bit: float, h: float) -> float:
    moves = state.moves
    if moves.slips_s > 0:
        moves.slips_s -= h
        return 0.0
    step = min(TRIP_FT_MIN * h / 60, STAND_FT - moves.pulled_ft)
    _to(state, bit - step)
    moves.pulled_ft += step
    if moves.pulled_ft >= STAND_FT - 1e-9:
        moves.pulled_ft, moves.slips_s = 0.0, STAND_S
    return step / h * 60


def _to(state: State, bit_md_ft: float) -> None:
    """What the string gives up of its volume goes into the hole; what it gains is filled from the pits."""
    inside = state.inside
    assert inside is not None
    depths, was = state.setup.depths, state.bit_md_ft
    state.now.bit_psi += PSI_PER_PPG_FT * state.setup.mud_ppg * (depths.at(bit_md_ft) - depths.at(was or 0.0))
    state.bit_md_ft = bit_md_ft
    inside.fit(state.string, bit_md_ft)
    over = inside.held_bbl + inside.void_bbl - inside.total_bbl
    before = state.column.way.total_bbl
    refit(state)
    state.filled_bbl += state.column.way.total_bbl - before - over
    if over > 0:
        filled = min(over, inside.void_bbl)
        inside.void_bbl -= filled
        at = state.column.way.volume_at(bit_md_ft)
        for slug in inside.out_below(over - filled):
            state.column.put_mud(slug.bbl, slug.ppg, at, state.now.top_psi)
    else:
        inside.pump(-over, state.mud_in_ppg)
        state.pit_bbl += over
        state.counted.mud_in -= over
