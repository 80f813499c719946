"""Rules for placing cement well, each with its number: weights and frictions in order, contact time, regime of flow."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np

from knollstack.core.base.constants import GAL_PER_BBL
from knollstack.core.base.findings import Words, depth, minutes, percent, pump_rate
from knollstack.core.base.formula import sweeping
from knollstack.core.cement.conduit import Stretch
from knollstack.core.cement.job import Followed
from knollstack.core.cement.stage import Pumped
from knollstack.core.document.cementing import SLURRIES, stage_collars_md_ft
from knollstack.core.ground.well import Well
from knollstack.core.mud.formulas import annular_velocity
from knollstack.core.program.equipped import EquippedString

FASTEST_BPM, LEAST_BPM = 60.0, 0.05
CLOSE_MINUTES = 0.05
State = Literal["kept", "short", "told"]


@dataclass(frozen=True)
class Rule:
    """One rule held to the job: what it is about, the number found and what is asked; `told` asks nothing."""

    title: str
    subject: Words
    found: Words
    asked: Words
    state: State


def standoff_rule(found_percent: float | None, asked_percent: float) -> Rule:
    """The least standoff along the cement, of the running step."""
    asked: Words = (percent(asked_percent), " or more")
    if found_percent is None:
        return Rule("Standoff", ("least along the cement",), ("unknown",), asked, "told")
    state: State = "kept" if found_percent >= asked_percent - 1e-9 else "short"
    return Rule("Standoff", ("least along the cement",), (percent(found_percent),), asked, state)


@sweeping()
def rules_of(well: Well, string: EquippedString, followed: Followed) -> tuple[Rule, ...]:
    """Every rule over the fluids ahead of the displacement, mud first."""
    stage = followed.worked.stage
    mud = Pumped("displacement", "mud", stage.mud_ppg, stage.mud_law, 0.0, 0.0, None, False)
    train = [mud, *(fluid for fluid in stage.fluids if fluid.kind != "displacement" and fluid.volume_bbl > 0)]
    narrow = _hole(stage.conduit.annulus)
    found: list[Rule] = []
    for ahead, behind in pairwise(train):
        found += [_heavier(well, ahead, behind), _thicker(ahead, behind, narrow)]
    return (*found, *_contact(well, string, followed), *(_regime(f, narrow) for f in train[1:]))


def _hole(annulus: tuple[Stretch, ...]) -> Stretch:
    """The deepest stretch of the annulus: what is to be cemented."""
    return annulus[-1]


def _heavier(well: Well, ahead: Pumped, behind: Pumped) -> Rule:
    asked = well.policy.cement.heavier_percent
    more = 100 * (behind.density_ppg / ahead.density_ppg - 1)
    words: Words = (f"{behind.name} over {ahead.name}",)
    state: State = "kept" if more >= asked - 1e-9 else "short"
    found: Words = (percent(abs(more)), " heavier" if more >= 0 else " lighter")
    return Rule("Density", words, found, (percent(asked), " heavier"), state)


def _compared(share: float, what: str) -> Words:
    return (percent(100 * abs(share)), f" {'more' if share >= 0 else 'less'} {what}")


def _psi_ft(fluid: Pumped, rate_bpm: float, hole: Stretch) -> float:
    speed = annular_velocity(rate_bpm * GAL_PER_BBL, hole.outer_in, hole.inner_in)
    return float(fluid.law.annulus_psi_ft(speed, fluid.density_ppg, hole.outer_in, hole.inner_in))


def _thicker(ahead: Pumped, behind: Pumped, hole: Stretch) -> Rule:
    """At the rate at which the one behind is pumped."""
    less, more = (_psi_ft(fluid, behind.rate_bpm, hole) for fluid in (ahead, behind))
    words: Words = (f"{behind.name} over {ahead.name}",)
    found = _compared(more / less - 1, "friction") if less > 0 else ("no friction ahead",)
    return Rule("Friction", words, found, ("no less",), "kept" if more >= less - 1e-12 else "short")


def _contact(well: Well, string: EquippedString, followed: Followed) -> list[Rule]:
    """How long flushes and spacers pass the top of each zone to be sealed, or the shoe above where none is marked."""
    held, course = followed.worked, followed.worked.course
    stage, way = held.stage, held.stage.conduit
    washed = [i for i, fluid in enumerate(stage.fluids) if fluid.kind not in (*SLURRIES, "displacement")]
    asked = well.policy.cement.contact_minutes
    found: list[Rule] = []
    for name, md in _tops(well, string, way.end_md_ft):
        passed = 0.0
        for i in washed:
            over = way.pipe_bbl + way.rathole_bbl + way.over_md_bbl(md)
            ends = [stage.edges_bbl[i] + over, stage.edges_bbl[i + 1] + over]
            begun, ended = np.interp(ends, course.moved_bbl, course.minutes)
            passed += float(ended - begun)
        state: State = "kept" if passed >= asked - CLOSE_MINUTES else "short"
        subject: Words = (f"{name} at ", depth(md))
        found.append(Rule("Contact time", subject, (minutes(passed),), (minutes(asked), " or more"), state))
    return found


def _tops(well: Well, string: EquippedString, end_md_ft: float) -> list[tuple[str, float]]:
    """Tops of the permeable zones behind this stage's cement; the shoe above, or the collar over it, where there is none."""
    collars = stage_collars_md_ft(string.own.cement)
    top, over = max(string.cement_top_md_ft or 0.0, string.previous_shoe_md_ft), "shoe above"
    above = [md for md in collars if top < md < end_md_ft]
    if above:
        top, over = max(above), "stage collar"
    found = []
    for zone in well.ground.model.zones:
        if not zone.permeable or zone.top_tvd_ft > well.path.deepest_tvd_ft:
            continue
        md = well.path.md(zone.top_tvd_ft)
        if top < md < end_md_ft:
            found.append((zone.name, md))
    return found or [(over, min(top, end_md_ft))]


def _regime(fluid: Pumped, hole: Stretch) -> Rule:
    """Laminar or turbulent in the hole at its rate, and the rate from which it is turbulent."""

    def turbulent(rate_bpm: float) -> float:
        speed = float(annular_velocity(rate_bpm * GAL_PER_BBL, hole.outer_in, hole.inner_in))
        return float(fluid.law.turbulence(speed, fluid.density_ppg, hole.outer_in, hole.inner_in)) - 1

    now = "turbulent" if turbulent(max(fluid.rate_bpm, LEAST_BPM)) >= 0 else "laminar"
    if turbulent(FASTEST_BPM) < 0:
        from_rate: Words = ("turbulent at no rate up to ", pump_rate(FASTEST_BPM))
    else:
        low, high = LEAST_BPM, FASTEST_BPM
        while high - low > 0.01:
            middle = (low + high) / 2
            low, high = (low, middle) if turbulent(middle) >= 0 else (middle, high)
        from_rate = ("turbulent from ", pump_rate(high))
    return Rule("Flow", (fluid.name,), (f"{now} at ", pump_rate(fluid.rate_bpm)), from_rate, "told")
