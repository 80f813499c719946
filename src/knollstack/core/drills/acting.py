"""What the crew may do: each action checked against what stands, then done. A refusal says what is in the way."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from knollstack.core.drills.acting_stack import (
    by_hand,
    choke,
    choke_line,
    close_element,
    hold_casing,
    hold_pipe,
    open_element,
    overboard,
)
from knollstack.core.drills.events import ActionName, DrillDoing
from knollstack.core.drills.moving import PICK_FT_MIN, STRIP_FT_MIN, drop
from knollstack.core.drills.state import State

SPACE_FT = 1.5
"""Kept between a tool joint and the middle of an element when the string is spaced out."""
MOST_PICK_FT = 60.0


def do(state: State, doing: DrillDoing, pick_up_ft: float) -> str:
    """Do it; '' or why it cannot be done."""
    if state.disconnected and doing.action not in ("record", "report", "end", "pump"):
        return "the riser package is unlatched"
    if doing.action == "pick up":
        return _pick_up(state, pick_up_ft)
    return _DO[doing.action](state, doing)


def spaced(state: State) -> bool:
    """No tool joint or coupling stands in an element that closes on pipe."""
    return all(
        state.across(e) not in ("tool joint", "coupling") for e in state.setup.elements if e.kind in ("ram", "annular")
    )


def _pump(state: State, doing: DrillDoing) -> str:
    rate = doing.value or 0.0
    if rate > 0 and not state.made_up:
        return "the top drive is not made up"
    if rate > 0 and state.cut:
        return "the string is parted"
    if rate > 0 and state.safety_valve == "closed":
        return "the safety valve in the string is closed"
    if not 0 <= rate <= state.setup.pumps.most_spm + 0.5:
        return f"the pumps run from 0 to {state.setup.pumps.most_spm:.0f} spm"
    state.wanted_spm = rate
    return ""


def _no_string(state: State) -> str:
    if state.bit_md_ft is None:
        return "there is no pipe in the hole"
    if state.cut:
        return "the string is parted"
    if state.hung is not None:
        return "the string is hung off on the ram"
    return ""


def _pick_up(state: State, least_ft: float) -> str:
    """Up by policy's height at least, and on until no tool joint stands in the stack."""
    why = _no_string(state)
    if why:
        return why
    assert state.bit_md_ft is not None
    if any(state.closed(e) and e.kind == "ram" for e in state.setup.elements):
        return "a ram is closed on the pipe"
    was, up = state.bit_md_ft, least_ft
    best = up
    while up <= least_ft + MOST_PICK_FT:
        state.bit_md_ft = was - up
        if _clear(state):
            best = up
            break
        up += 0.25
    state.bit_md_ft = was
    state.moves.pulling = False
    state.moves.target_md_ft, state.moves.speed_ft_min = was - best, PICK_FT_MIN
    return ""


def _clear(state: State) -> bool:
    """Tool joints stand clear of every element by some margin."""
    bit = state.bit_md_ft
    for shift in (-SPACE_FT, 0.0, SPACE_FT):
        state.bit_md_ft = None if bit is None else bit + shift
        ok = spaced(state)
        state.bit_md_ft = bit
        if not ok:
            return False
    return True


def _lower(state: State, doing: DrillDoing) -> str:
    why = _no_string(state)
    if why:
        return why
    state.moves.pulling = False
    state.moves.target_md_ft, state.moves.speed_ft_min = state.setup.hole_md_ft, PICK_FT_MIN
    return ""


def _slips(state: State, doing: DrillDoing) -> str:
    why = _no_string(state)
    state.moves.pulling, state.moves.target_md_ft, state.moves.slips_s = False, None, 0.0
    return why


def _flow_check(state: State, doing: DrillDoing) -> str:
    return ""


def _stab(state: State, doing: DrillDoing) -> str:
    why = _no_string(state)
    if why:
        return why
    if state.made_up:
        return "the top drive is made up: its own valve closes the string"
    if state.safety_valve != "off":
        return "a safety valve is on the string already"
    if state.moves.pulling:
        return "the string is moving: set it in the slips first"
    state.safety_valve = "open"
    return ""


def _close_valve(state: State, doing: DrillDoing) -> str:
    if state.safety_valve == "off":
        return "no safety valve is on the string"
    state.safety_valve = "closed"
    return ""


def _open_valve(state: State, doing: DrillDoing) -> str:
    if state.safety_valve == "off":
        return "no safety valve is on the string"
    state.safety_valve = "open"
    return ""


def _make_up(state: State, doing: DrillDoing) -> str:
    why = _no_string(state)
    if why:
        return why
    if state.moves.pulling:
        return "the string is moving: set it in the slips first"
    state.made_up = True
    return ""


def _line_up(state: State, doing: DrillDoing) -> str:
    if doing.value is None or not 5 <= doing.value <= 25:
        return "a mud weight from 5 to 25 ppg"
    state.mud_in_ppg = doing.value
    return ""


def _hang_off(state: State, doing: DrillDoing) -> str:
    """The string is lowered until a tool joint stands on the ram, and its weight slacked off."""
    why = _no_string(state)
    if why:
        return why
    rams = [e for e in state.setup.elements if state.closed(e) and state.verdict(e) == "seals and hangs"]
    if not rams:
        return "no ram is closed that hangs this pipe"
    state.hung, state.moves.target_md_ft = rams[-1].index, None
    return ""


def _disconnect(state: State, doing: DrillDoing) -> str:
    if not state.setup.at_sea:
        return "there is no riser"
    if state.bit_md_ft is not None and not state.cut:
        return "pipe stands across the connector: it is not cut"
    state.disconnected = True
    return ""


def _strip(state: State, doing: DrillDoing) -> str:
    why = _no_string(state)
    if why:
        return why
    if any(state.closed(e) and e.kind == "ram" for e in state.setup.elements):
        return "a ram is closed on the pipe: strip through the annular"
    if not state.made_up and state.safety_valve != "closed":
        return "the string is open on top"
    state.moves.pulling = False
    state.moves.target_md_ft, state.moves.speed_ft_min = state.setup.hole_md_ft, STRIP_FT_MIN
    return ""


def _stop(state: State, doing: DrillDoing) -> str:
    state.moves.target_md_ft, state.moves.pulling = None, False
    return ""


def _drop(state: State, doing: DrillDoing) -> str:
    why = _no_string(state)
    if why:
        return why
    drop(state)
    return ""


def _fill(state: State, doing: DrillDoing) -> str:
    if state.inside is None or state.setup.string[0].kind != "casing":
        return "no casing is in the hole"
    added = state.inside.void_bbl
    state.inside.pump(added, state.mud_in_ppg)
    state.inside.void_bbl = 0.0
    state.pit_bbl -= added
    state.filled_bbl += added
    state.counted.mud_in += added
    return ""


def _record(state: State, doing: DrillDoing) -> str:
    if doing.sidpp_psi is None and doing.sicp_psi is None and doing.gain_bbl is None:
        return "nothing was read"
    return ""


_DO: Mapping[ActionName, Callable[[State, DrillDoing], str]] = {
    "pump": _pump,
    "lower": _lower,
    "slips": _slips,
    "flow check": _flow_check,
    "stab valve": _stab,
    "close valve": _close_valve,
    "open valve": _open_valve,
    "make up": _make_up,
    "close": close_element,
    "open": open_element,
    "open choke line": choke_line(True),
    "close choke line": choke_line(False),
    "choke": choke,
    "choke by hand": by_hand,
    "hold casing pressure": hold_casing,
    "hold drill pipe pressure": hold_pipe,
    "line up mud": _line_up,
    "open overboard": overboard(True),
    "close overboard": overboard(False),
    "hang off": _hang_off,
    "disconnect": _disconnect,
    "strip in": _strip,
    "stop pipe": _stop,
    "drop": _drop,
    "fill casing": _fill,
    "record": _record,
    "report": _flow_check,
    "end": _flow_check,
}
