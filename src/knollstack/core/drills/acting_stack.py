"""What the crew does on the stack and its valves: elements, choke line, choke, the diverter's line."""

from __future__ import annotations

from collections.abc import Callable

from knollstack.core.drills.events import DrillDoing
from knollstack.core.drills.setup import Element
from knollstack.core.drills.state import State


def element(state: State, doing: DrillDoing) -> Element | None:
    return next((e for e in state.setup.elements if e.index == doing.target), None)


def close_element(state: State, doing: DrillDoing) -> str:
    e = element(state, doing)
    if e is None:
        return "no such element in the stack"
    state.wanted[e.index] = True
    return ""


def open_element(state: State, doing: DrillDoing) -> str:
    e = element(state, doing)
    if e is None:
        return "no such element in the stack"
    if state.hung == e.index:
        return "the string hangs on it"
    state.wanted[e.index] = False
    return ""


def choke_line(opened: bool) -> Callable[[State, DrillDoing], str]:
    def act(state: State, doing: DrillDoing) -> str:
        if state.setup.choke_at is None:
            return "there is no choke line on this stack"
        state.valves.choke_line = opened
        return ""

    return act


def choke(state: State, doing: DrillDoing) -> str:
    if doing.value is None or not 0 <= doing.value <= 1:
        return "the choke opens from 0 to 1"
    state.valves.choke, state.valves.auto = doing.value, "by hand"
    return ""


def by_hand(state: State, doing: DrillDoing) -> str:
    state.valves.auto = "by hand"
    return ""


def hold_casing(state: State, doing: DrillDoing) -> str:
    if not state.tight or not state.valves.choke_line:
        return "the well is not closed with its choke line open"
    state.valves.auto = "casing pressure"
    state.valves.target_psi = doing.value if doing.value is not None else state.now.kill_psi
    return ""


def hold_pipe(state: State, doing: DrillDoing) -> str:
    if not state.tight or not state.valves.choke_line:
        return "the well is not closed with its choke line open"
    if state.inside is None or state.cut:
        return "there is no string to read"
    state.valves.auto = "drill pipe pressure"
    state.valves.target_psi = doing.value if doing.value is not None else state.now.pipe_psi
    return ""


def overboard(opened: bool) -> Callable[[State, DrillDoing], str]:
    def act(state: State, doing: DrillDoing) -> str:
        if not any(e.kind == "diverter" for e in state.setup.elements):
            return "there is no diverter"
        state.valves.overboard = opened
        return ""

    return act
