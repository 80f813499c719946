"""What happens in a stage of the job, in order, each at its moment."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import Words, depth, emw, pressure, volume
from knollstack.core.cement.closing import Closed, State, lands
from knollstack.core.cement.job import HELD, Followed
from knollstack.core.cement.results_job import JobEvent


def events_of(followed: Followed, shut: Closed) -> tuple[JobEvent, ...]:
    """Fluids at the end of the pipe and back at surface, plugs, free fall, the rock, and how it ends."""
    parts = (_arrivals(followed), _falling(followed), _rock(followed), _end(followed), _closing(followed, shut))
    return tuple(sorted((event for part in parts for event in part), key=lambda event: event.moment))


def emw_of(followed: Followed, psi: float, md_ft: float) -> float | None:
    tvd = followed.well.path.tvd(md_ft)
    return psi / (PSI_PER_PPG_FT * tvd) if tvd > 0 else None


def _arrivals(followed: Followed) -> Iterator[JobEvent]:
    """Fluids and plugs at the places of their way."""
    stage, course = followed.worked.stage, followed.worked.course
    end = "shoe" if stage.number == 1 else "stage collar"
    there: list[tuple[float, str]] = []
    for begun, fluid in zip(stage.edges_bbl, stage.fluids, strict=False):
        if fluid.kind != "displacement":
            there.append((begun + stage.conduit.pipe_bbl, f"{fluid.name.capitalize()} at the {end}"))
            there.append((begun + stage.conduit.whole_bbl, f"{fluid.name.capitalize()} in the returns"))
    if stage.plugs_md_ft > 0 and stage.bottom_plug:
        there.append((stage.bottom_dart_bbl, "Dart releases the bottom plug at the wellhead"))
        there.append((stage.top_dart_bbl, "Dart releases the top plug at the wellhead"))
    elif stage.plugs_md_ft > 0:
        there.append((stage.top_dart_bbl, "Dart releases the wiper plug at the liner top"))
    if stage.bottom_plug:
        there.append((stage.bottom_plug_bbl, "Bottom plug lands"))
    for moved, words in there:
        moments = np.flatnonzero(course.moved_bbl >= moved - 1e-6)
        if len(moments):
            yield JobEvent(moment=int(moments[0]), words=(words,))


def _falling(followed: Followed) -> Iterator[JobEvent]:
    """How far the pipe runs empty, and when the pump has caught up for good."""
    held, course = followed.worked, followed.worked.course
    falling = np.flatnonzero(course.empty_bbl > 1.0)
    if not len(falling):
        return
    most = int(np.argmax(course.empty_bbl))
    level: Words = ("Pipe empty to ", depth(float(held.pipe.md_ft[most, 0])), " in free fall")
    yield JobEvent(moment=most, words=level)
    full = np.flatnonzero(course.empty_bbl[falling[-1] :] <= 0)
    if len(full):
        yield JobEvent(moment=int(falling[-1] + full[0]), words=("Pump catches up",))


def _rock(followed: Followed) -> Iterator[JobEvent]:
    """The first moment at which the annulus is over what the rock stands, and where; and that at which it is nearest."""
    hole, near = followed.hole, followed.fracture
    if hole is None or near is None:
        return
    over = hole.annulus_psi - hole.fracture_psi
    passed = np.flatnonzero(over.max(axis=1) > -HELD)
    if len(passed):
        m = int(passed[0])
        md = float(hole.md_ft[int(np.argmax(over[m]))])
        zone = followed.well.ground.zone_at(followed.well.path.tvd(md))
        yield JobEvent(moment=m, words=(f"{zone or 'The rock'} breaks at ", depth(md)))
    reached = emw_of(followed, near.value, near.md_ft)
    if reached is not None:
        yield JobEvent(moment=near.moment, words=("Nearest to fracture: ", emw(reached), " at ", depth(near.md_ft)))


def _end(followed: Followed) -> Iterator[JobEvent]:
    held, stage = followed.worked, followed.worked.stage
    words: Words = ("Displacement ends ", volume(stage.short_bbl), " short of the bump")
    if stage.conduit.inner:
        words = ("Displacement ends: pick up the inner string",)
    elif lands(held):
        plug = "Top" if stage.bottom_plug else "Wiper"
        words = (f"{plug} plug lands; final pump pressure ", pressure(float(held.course.pump_psi[-1])))
    yield JobEvent(moment=len(held.course.minutes) - 1, words=words)


def _closing(followed: Followed, shut: Closed) -> Iterator[JobEvent]:
    level = followed.well.rig_words
    for k, state in enumerate(shut.states):
        psi = pressure(float(shut.worked.course.pump_psi[k]))
        said: dict[State, Words] = {
            "bump": ("Plug bumped at ", psi, level),
            "test": ("Casing tested at ", psi, f"{level} on green cement"),
            "bled": ("Pressure bled back",),
        }
        yield JobEvent(moment=len(followed.worked.course.minutes) + k, words=said[state])
