"""Drills in a worker process: each played on from where it is held, or played again from what was done."""

from __future__ import annotations

import json
from collections import OrderedDict
from typing import Any

from pydantic import BaseModel, TypeAdapter

from knollstack.catalogue import load
from knollstack.core.base.formula import Call
from knollstack.core.base.units import UnitSet
from knollstack.core.document.design import Design
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.drills.asked import AskedSheet, asked_of, asked_sheet, asked_workings
from knollstack.core.drills.debrief import debrief
from knollstack.core.drills.events import DrillDoing
from knollstack.core.drills.gauges import Gauges
from knollstack.core.drills.made import NotPlayableError
from knollstack.core.drills.making import made
from knollstack.core.drills.panel import DrillPanel, can, panel
from knollstack.core.drills.play import SAMPLE_S, Play
from knollstack.core.drills.scene import Scene
from knollstack.core.evaluation.evaluate import evaluated
from knollstack.core.logbook.drilled import as_drilled
from knollstack.core.program.equipped import Equipped
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.formats import kill_sheet as pages

MOST_HELD = 12
TREND_S = 600
STEP_S = 6_000
"""Of the drill's clock in one call: a long drill is played again in parts, so that nobody waits for all of it."""
DOINGS: TypeAdapter[list[DrillDoing]] = TypeAdapter(list[DrillDoing])
_held: OrderedDict[str, tuple[Play, list[DrillDoing]]] = OrderedDict()


class DrillState(BaseModel):
    """A drill as it stands; while it is played again its clock is behind."""

    clock_s: int
    ended: bool
    behind: bool
    done_s: tuple[int, ...]
    """At which second each thing was done: no earlier than the clock stood."""
    panel: DrillPanel
    can: tuple[str, ...]
    trend: tuple[Gauges, ...]
    """Gauges as they were read on the way; of a drill that is taken up again those of the last ten minutes."""


def _play(key: str, document: Any, scene: Scene, doings: list[DrillDoing]) -> Play:
    """The drill as far as it was played; begun anew where it is not held, or something else was done in it."""
    held = _held.pop(key, None)
    if held is None or doings[: len(held[1])] != held[1]:
        drilled = as_drilled(parse(document))
        equipped = program_of(drilled.design, load())
        try:
            found = made(equipped, dict(evaluated(equipped, drilled)), scene)
        except NotPlayableError as error:
            raise FaultyDesign([Fault(path="/scene", value=scene.kind, expected=f"another scene: {error}")]) from error
        held = (Play(found, equipped.well.policy.drills), [])
    _held[key] = held
    while len(_held) > MOST_HELD:
        _held.popitem(last=False)
    return held[0]


def play_on(key: str, document: Any, scene: Scene, doings: list[DrillDoing], to_s: int, taken_up: bool = False) -> str:
    """Bring a drill to a second of its clock, with what was done on the way, as far as one call goes."""
    play = _play(key, document, scene, doings)
    since = 0 if taken_up else play.clock_s
    done, until = _held[key][1], play.clock_s + STEP_S
    for doing in doings[len(done) :]:
        if doing.at_s > until:
            break
        done.append(doing.model_copy(update={"at_s": max(doing.at_s, play.clock_s)}))
        play.act(done[-1])
    behind = len(done) < len(doings)
    if not behind:
        play.advance(min(to_s, until))
        behind = play.clock_s < to_s and not play.ended
    else:
        play.advance(min(doings[len(done)].at_s, until))
    state = DrillState(
        clock_s=play.clock_s,
        ended=play.ended,
        behind=behind,
        done_s=tuple(d.at_s for d in done),
        panel=panel(play),
        can=can(play),
        trend=tuple(r for r in play.read[-TREND_S // SAMPLE_S :] if r.at_s > since),
    )
    return state.model_dump_json()


def debrief_of(key: str, document: Any, scene: Scene, doings: list[DrillDoing], to_s: int) -> tuple[float, str] | None:
    """Score and debrief; None while the drill is still being played again."""
    state = json.loads(play_on(key, document, scene, doings, to_s))
    if state["behind"]:
        return None
    found = debrief(_held[key][0])
    return found.score, found.model_dump_json()


def create_kill_sheet(document: Any, asked: AskedSheet) -> str | None:
    found = asked_sheet(_worked(parse(document)), asked)
    return None if found is None else found.model_dump_json()


def asked_working(document: Any, key: str) -> list[Call] | None:
    """The working of a number of an asked sheet; None where the key is of none."""
    asked = asked_of(key)
    return None if asked is None else asked_workings(_worked(parse(document)), asked).get(key)


def _worked(design: Design) -> Equipped:
    return program_of(as_drilled(design).design, load())


def write_kill_sheet(design: Design, asked: AskedSheet, units: UnitSet, revision: int, saved_at: str) -> bytes | None:
    found = asked_sheet(_worked(design), asked)
    return None if found is None else pages.write_kill_sheet(design.name, found, units, revision, saved_at)
