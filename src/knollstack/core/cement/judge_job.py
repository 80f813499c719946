"""The job of one string in time as it is told: a row a stage, what was found, and what was assumed."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import Assumption, Finding, Words, assume, emw, percent, volume
from knollstack.core.base.working import headline
from knollstack.core.cement.checks import Nearest, Worked, float_psi
from knollstack.core.cement.closing import lands
from knollstack.core.cement.conduit import Bores
from knollstack.core.cement.findings_job import JobFindings, unknown_job
from knollstack.core.cement.gas import GasFlow
from knollstack.core.cement.job import Followed, job_of
from knollstack.core.cement.lab import lab_rules
from knollstack.core.cement.quality import Rule, rules_of
from knollstack.core.cement.results import FluidRow, ReversingRow, RuleRow, StageRow, StepRow, ThickeningRow
from knollstack.core.cement.reversing import nearest, reversing_findings, reversing_of
from knollstack.core.cement.shown import shown_displacement_bbl, shown_emw_ppg, shown_hanging_lbf, shown_pump_psi
from knollstack.core.cement.stage import Stage
from knollstack.core.cement.train import Missing, flows_as_water
from knollstack.core.cement.waiting import thickenings
from knollstack.core.document.cementing import SLURRIES
from knollstack.core.ground.well import Well
from knollstack.core.pipe.formulas import bump_pressure
from knollstack.core.program.column import bump_over_psi
from knollstack.core.program.equipped import EquippedString


class Judged(NamedTuple):
    """What is told of a job."""

    stages: tuple[StageRow, ...]
    reversing: ReversingRow | None
    findings: tuple[Finding, ...]
    assumptions: tuple[Assumption, ...]


Beside = tuple[Rule, tuple[GasFlow, ...]]
"""What is known besides the job: the rule of standoff, and the gas behind the cement."""


def _rules(well: Well, string: EquippedString, followed: Followed, beside: Beside) -> tuple[Rule, ...]:
    standoff, flows = beside
    return (*rules_of(well, string, followed), standoff, *lab_rules(well, string, followed, flows))


def judge_job(
    well: Well, string: EquippedString, bores: Bores, beside: Beside, test_psi: float | None, *, broken: bool
) -> Judged:
    """Every stage followed; `broken` tells that the column at rest breaks the rock, which is told for itself."""
    job = job_of(well, string, bores)
    if isinstance(job, Missing):
        return Judged((), None, (unknown_job(string, job),), ())
    last = job[-1].worked
    rows = tuple(_row(well, string, stage, beside, test_psi) for stage in job)
    found = tuple(JobFindings(well, string, bores, job, broken, test_psi).all())
    found += tuple(reversing_findings(well, string, last))
    assumed = () if string.proposed else tuple(a for stage in job for a in _assumed(well, string, stage))
    return Judged(rows, reversing_row(well, string, last), found, assumed)


def reversing_row(well: Well, string: EquippedString, held: Worked) -> ReversingRow | None:
    reverse = reversing_of(well, string, held)
    if reverse is None:
        return None
    found = nearest(well, string, held, reverse)
    told = {key: value for key, value in vars(reverse).items() if key != "hanger_psi"}
    keys = ("md_ft", "reached_ppg", "fracture_ppg")
    return ReversingRow(**told, **(dict.fromkeys(keys) if found is None else vars(found)))


def _row(well: Well, string: EquippedString, followed: Followed, beside: Beside, test_psi: float | None) -> StageRow:
    held = followed.worked
    course, stage, key = held.course, held.stage, f"cement/{string.index}/stage{held.stage.number}"
    most = int(np.argmax(course.pump_psi))
    full = len(course.minutes) - 1
    final = float(course.pump_psi[-1])
    return StageRow(
        number=stage.number,
        inner=stage.conduit.inner,
        **_program(stage),
        rate_share=followed.share,
        minutes=float(course.minutes[-1]),
        pumped_bbl=float(course.pumped_bbl[-1]),
        bump_bbl=stage.bump_bbl,
        displacement_bbl=shown_displacement_bbl(f"{key}/displacement", well, held),
        returns_bbl=float(course.moved_bbl[-1]),
        cement_back_bbl=_cement_back_bbl(followed),
        overdisplace_bbl=well.policy.cement.overdisplace_share * stage.track_bbl,
        **_bottom_plug(well, followed),
        **_dart(well, followed),
        final_pump_psi=shown_pump_psi(f"{key}/final", held, full) if final > 0 else final,
        bumped_psi=_bumped_psi(f"{key}/bumped", well, string, followed),
        test_psi=test_psi if lands(held) else None,
        greatest_pump_psi=shown_pump_psi(f"{key}/pump", held, most) if course.pump_psi[most] > 0 else 0.0,
        greatest_return_bpm=float(course.out_bpm.max()),
        fall_bbl=float(course.empty_bbl.max()),
        fall_level_md_ft=float(held.pipe.md_ft[:, 0].max()),
        **_rock(well, followed, followed.fracture, key, ("greatest", "fracture")),
        **_rock(well, followed, followed.pore, key, ("least", "pore")),
        collapse_factor=None if followed.collapse is None else followed.collapse.value,
        burst_factor=None if followed.burst is None else followed.burst.value,
        float_psi=float_psi(held),
        hanging_lbf=shown_hanging_lbf(f"{key}/hanging", well, string, held),
        rules=tuple(RuleRow(**vars(rule)) for rule in _rules(well, string, followed, beside)),
        thickening=tuple(
            ThickeningRow(**{k: v for k, v in vars(t).items() if k != "kind"})
            for t in thickenings(well, string, followed)
        ),
    )


def _bumped_psi(key: str, well: Well, string: EquippedString, followed: Followed) -> float | None:
    """At the pump with the plug bumped; None where it does not land."""
    if not lands(followed.worked):
        return None
    with headline(key):
        return float(bump_pressure(float(followed.worked.course.pump_psi[-1]), bump_over_psi(well, string.laid)))


def _program(stage: Stage) -> dict[str, Any]:
    """What is pumped and how fast."""
    fluids = tuple(
        FluidRow(
            kind=f.kind,
            name=f.name,
            density_ppg=f.density_ppg,
            volume_bbl=f.volume_bbl,
            rate_bpm=f.rate_bpm,
            model=f.law.model,
            assumed=f.assumed,
            row=f.row,
        )
        for f in stage.fluids
    )
    steps = tuple(
        StepRow(volume_bbl=s.volume_bbl or 0.0, rate_bpm=s.rate_bpm, stop_minutes=s.stop_minutes) for s in stage.steps
    )
    return {"fluids": fluids, "steps": steps}


def _cement_back_bbl(followed: Followed) -> float:
    held = followed.worked
    slurries = [k for k, f in enumerate(held.stage.fluids) if f.kind in SLURRIES]
    if not slurries:
        return 0.0
    first = held.stage.edges_bbl[slurries[0]] + held.stage.conduit.whole_bbl
    return max(float(held.course.moved_bbl[-1]) - first, 0.0)


def _bottom_plug(well: Well, followed: Followed) -> dict[str, float | None]:
    """When the bottom plug lands, and what the pump then gives; nothing where it does not get there."""
    course, landed = followed.worked.course, followed.worked.stage.bottom_plug_bbl
    there = np.flatnonzero(course.moved_bbl >= landed - 1e-6)
    if not len(there) or not followed.worked.stage.bottom_plug:
        return {"bottom_plug_bbl": None, "bottom_plug_psi": None}
    m = int(there[0])
    psi = float(course.pump_psi[m]) + well.policy.cement.rupture_psi
    return {"bottom_plug_bbl": landed - float(course.empty_bbl[m]), "bottom_plug_psi": psi}


def _dart(well: Well, followed: Followed) -> dict[str, float | None]:
    """When the dart behind the slurry latches, and what releases the plug; nothing where plugs start at the head."""
    held, course = followed.worked, followed.worked.course
    there = np.flatnonzero(course.moved_bbl >= held.stage.top_dart_bbl - 1e-6)
    if held.stage.plugs_md_ft <= 0 or not len(there):
        return {"dart_bbl": None, "dart_psi": None}
    m = int(there[0])
    psi = float(course.pump_psi[m]) + well.policy.cement.release_psi
    return {"dart_bbl": held.stage.top_dart_bbl - float(course.empty_bbl[m]), "dart_psi": psi}


def _rock(
    well: Well, followed: Followed, near: Nearest | None, key: str, names: tuple[str, str]
) -> dict[str, float | None]:
    """The annulus where it is nearest to the rock, by the names of its fields."""
    name, rock = names
    keys = (f"{name}_emw_ppg", f"{rock}_ppg", f"{name}_md_ft", f"{name}_after_bbl")
    if near is None or well.path.tvd(near.md_ft) <= 0:
        return dict.fromkeys(keys)
    shown = shown_emw_ppg(f"{key}/{name}", followed.worked, near)
    limit = near.limit / (PSI_PER_PPG_FT * well.path.tvd(near.md_ft))
    after = float(followed.worked.course.pumped_bbl[near.moment])
    return dict(zip(keys, (shown, limit, near.md_ft, after), strict=True))


def _assumed(well: Well, string: EquippedString, followed: Followed) -> list[Assumption]:
    """What was filled in: spacer, rates and rheology."""
    stage, place, said = followed.worked.stage, f"{string.path}/cement", list[Assumption]()
    subject: Words = (*string.words, " cement job")
    for fluid in stage.fluids:
        if fluid.row is None and fluid.kind == "spacer":
            text: Words = (": a spacer of ", volume(fluid.volume_bbl), ", ", emw(fluid.density_ppg), ", by policy.")
            said.append(assume("cement", f"{place}/fluids", *subject, *text))
    if flows_as_water(well, string) and stage.number == 1:
        said.append(assume("cement", f"{string.path}/reading_300", *subject, ": the mud flows as water."))
    if followed.share < 1.0:
        text = (": pumped at ", percent(100 * followed.share), " of policy's rates, the most that the rock stands.")
        said.append(assume("cement", f"{place}/steps", *subject, *text))
    guessed = sorted({fluid.name for fluid in stage.fluids if fluid.assumed})
    if guessed:
        text = (f": rheology of {', '.join(guessed)} by policy.",)
        said.append(assume("cement", f"{place}/fluids", *subject, *text))
    return said
