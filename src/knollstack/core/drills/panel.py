"""What the trainee sees: gauges with their noise, the stack, valves and pumps, what was said. Nothing tells the answer."""

from __future__ import annotations

import math
from typing import Literal

from knollstack.core.base.constants import GAL_PER_BBL, STEEL_PPG
from knollstack.core.base.findings import Result, Words
from knollstack.core.drills.events import ActionName
from knollstack.core.drills.gauges import gauges
from knollstack.core.drills.play import Play
from knollstack.core.drills.scene import TITLES
from knollstack.core.drills.setup import Element
from knollstack.core.drills.told import told

STEEL_LB_IN2_FT = 3.4
BLOCK_LBF = 60_000.0


class PanelLight(Result):
    """An element of the stack on the panel; `position` is 0 open to 1 closed."""

    index: int
    title: str
    kind: str
    element: str
    position: float
    wanted: bool
    out_of_service: bool
    hung: bool


class RecordLine(Result):
    """A line of the drill's record."""

    at_s: int
    words: Words
    refused: str


class DrillPanel(Result):
    title: str
    hole: Words
    clock_s: int
    ended: bool
    goal: str
    stopped_for: str = ""
    hole_md_ft: float
    bit_md_ft: float | None
    string: str
    hook_lbf: float
    moving: Literal["still", "pulling", "picking up", "running in"]
    spm: float
    most_spm: float
    slow_spm: float
    strokes: float
    pipe_psi: float | None
    casing_psi: float
    kill_psi: float | None
    flow_in_gpm: float
    flow_out_gpm: float
    pit_bbl: float
    pit_change_bbl: float
    fill_asked_bbl: float | None
    fill_taken_bbl: float | None
    mud_in_ppg: float
    mud_ppg: float
    choke: float
    choke_mode: str
    choke_target_psi: float
    choke_line: bool
    has_choke: bool
    overboard: bool
    has_diverter: bool
    at_sea: bool
    made_up: bool
    safety_valve: str
    floor_flow: bool
    """Mud comes up the open string."""
    cut: bool
    hung: bool
    disconnected: bool
    offset: float | None
    """Share of the way to the limit of the flex joint; None where the rig stays."""
    circle: Literal["", "green", "yellow", "red"] = ""
    elements: tuple[PanelLight, ...]
    record: tuple[RecordLine, ...]


def panel(play: Play) -> DrillPanel:
    state, scene, setup = play.state, play.made.scene, play.made.setup
    now, read = state.now, gauges(play.made, state, play.clock_s)
    tripping = scene.kind in ("tripping", "swab")
    offset, circle = _drift(play)
    return DrillPanel(
        title=TITLES[scene.kind],
        hole=play.made.words,
        clock_s=play.clock_s,
        ended=play.ended,
        goal=scene.goal,
        hole_md_ft=setup.hole_md_ft,
        bit_md_ft=state.bit_md_ft,
        string=_string(play),
        hook_lbf=_hook(play),
        moving=_moving(play),
        spm=state.spm,
        most_spm=setup.pumps.most_spm,
        slow_spm=setup.pumps.slow_spm,
        strokes=state.strokes,
        pipe_psi=read.pipe_psi,
        casing_psi=read.casing_psi,
        kill_psi=now.kill_psi if setup.at_sea and state.tight else None,
        flow_in_gpm=state.spm * setup.pumps.bbl_stroke * GAL_PER_BBL if state.connected else 0.0,
        flow_out_gpm=read.flow_out_gpm,
        pit_bbl=read.pit_bbl,
        pit_change_bbl=read.pit_change_bbl,
        fill_asked_bbl=state.filled_bbl if tripping else None,
        fill_taken_bbl=-read.pit_change_bbl if tripping else None,
        mud_in_ppg=state.mud_in_ppg,
        mud_ppg=setup.mud_ppg,
        choke=state.valves.choke,
        choke_mode=state.valves.auto,
        choke_target_psi=state.valves.target_psi,
        choke_line=state.valves.choke_line,
        has_choke=setup.choke_at is not None and not setup.diverter,
        overboard=state.valves.overboard,
        has_diverter=any(e.kind == "diverter" for e in setup.elements),
        at_sea=setup.at_sea,
        made_up=state.made_up,
        safety_valve=state.safety_valve,
        floor_flow=now.floor_bpm > 0.02,
        cut=state.cut,
        hung=state.hung is not None,
        disconnected=state.disconnected,
        offset=offset,
        circle=circle,
        elements=tuple(_light(play, e) for e in reversed(setup.elements)),
        record=tuple(RecordLine(at_s=e.at_s, words=told(play, e), refused=e.refused) for e in play.events),
    )


def _light(play: Play, e: Element) -> PanelLight:
    state = play.state
    return PanelLight(
        index=e.index,
        title=e.title,
        kind=e.kind,
        element=e.element,
        position=state.position[e.index],
        wanted=state.wanted[e.index],
        out_of_service=e.index in play.made.out_of_service,
        hung=state.hung == e.index,
    )


def _string(play: Play) -> str:
    if play.state.bit_md_ft is None:
        return "no pipe in the hole"
    if play.state.cut:
        return "string parted"
    kind = play.made.scene.kind
    return {"casing": "casing", "collars": "collars at surface", "unshearable": "collars at surface"}.get(
        kind, "drill pipe"
    )


def _moving(play: Play) -> Literal["still", "pulling", "picking up", "running in"]:
    moves, bit = play.state.moves, play.state.bit_md_ft
    if moves.pulling:
        return "pulling"
    if moves.target_md_ft is None or bit is None:
        return "still"
    return "picking up" if moves.target_md_ft < bit else "running in"


def _hook(play: Play) -> float:
    state, setup = play.state, play.made.setup
    bit = state.bit_md_ft
    if bit is None or state.cut or state.hung is not None:
        return BLOCK_LBF
    weight, left = 0.0, bit
    for tube in state.string:
        length = min(tube.length_ft, left)
        weight += length * STEEL_LB_IN2_FT * math.pi / 4 * (tube.od_in**2 - tube.id_in**2)
        left -= length
    return BLOCK_LBF + weight * (1 - setup.mud_ppg / STEEL_PPG)


def _drift(play: Play) -> tuple[float | None, Literal["", "green", "yellow", "red"]]:
    drift = play.made.drift
    if drift is None:
        return None, ""
    gone = max(0.0, play.clock_s - play.made.starts_s)
    yellow, red, limit = drift
    circle: Literal["green", "yellow", "red"] = (
        "red" if gone >= red else "yellow" if gone >= yellow and gone > 0 else "green"
    )
    return gone / limit if limit > 0 else 1.0, circle


def can(play: Play) -> tuple[ActionName, ...]:
    """What the panel offers in this scene."""
    setup, kind = play.made.setup, play.made.scene.kind
    found: list[ActionName] = ["flow check", "record", "end"]
    if setup.bit_md_ft is not None and kind != "casing":
        found += ["pump", "pick up", "lower", "make up", "line up mud"]
    if setup.bit_md_ft is not None:
        found += ["slips", "stab valve", "close valve", "open valve", "strip in", "stop pipe", "drop", "hang off"]
    if kind == "casing":
        found += ["fill casing"]
    if setup.at_sea:
        found += ["disconnect"]
    return tuple(found)
