"""The debrief: what was done and what should have been, the truth of the well against its limits, theory, and the replay."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words, depth
from knollstack.core.drills.gas import ATMOSPHERE_PSI
from knollstack.core.drills.judging import RuleOutcome, clock
from knollstack.core.drills.play import Play, Sample
from knollstack.core.drills.rules_kill import kill_ppg, pumping
from knollstack.core.drills.scene import Scene
from knollstack.core.drills.scoring import outcomes, score
from knollstack.core.drills.theory import Circulating, curve
from knollstack.core.drills.told import told

MOST_SAMPLES = 500


class TimelineRow(Result):
    at_s: int
    kind: Literal["done", "refused", "happened"]
    words: Words
    why: str = ""


class DrillSeries(Result):
    """The well second by second, thinned; every list has one entry a moment."""

    at_s: tuple[int, ...]
    pipe_psi: tuple[float, ...]
    casing_psi: tuple[float, ...]
    bottom_psi: tuple[float, ...]
    shoe_psi: tuple[float, ...]
    gain_bbl: tuple[float, ...]
    spm: tuple[float, ...]
    pumped_bbl: tuple[float, ...]
    bit_md_ft: tuple[float | None, ...]
    gas: tuple[tuple[tuple[float, float], ...], ...]
    """Top and bottom MD [ft] of every bubble."""
    closed: tuple[tuple[int, ...], ...]
    loss_bpm: tuple[float, ...]


class DrillTheory(Result):
    """One bubble circulated out by the textbook, against what was pumped since circulating began."""

    begun_bbl: float
    pumped_bbl: tuple[float, ...]
    casing_psi: tuple[float, ...]
    shoe_psi: tuple[float, ...]


class DrillLimits(Result):
    formation_psi: float
    shoe_fracture_psi: float
    class_psi: float | None
    shoe_md_ft: float
    hole_md_ft: float
    stack_md_ft: float
    kill_ppg: float
    weak: tuple[tuple[float, float], ...]
    """MD [ft] and fracture pressure [psi] of the depths that were watched."""
    broke_md_ft: float | None


class Debrief(Result):
    scene: Scene
    score: float
    clock_s: int
    outcomes: tuple[RuleOutcome, ...]
    timeline: tuple[TimelineRow, ...]
    series: DrillSeries
    theory: DrillTheory | None
    limits: DrillLimits
    elements: tuple[tuple[int, str], ...]
    school: Words


def debrief(play: Play) -> Debrief:
    found = outcomes(play)
    setup = play.made.setup
    policy = play.policy
    return Debrief(
        scene=play.made.scene,
        score=score(found),
        clock_s=play.clock_s,
        outcomes=found,
        timeline=tuple(_timeline(play)),
        series=_series(_thinned(play.samples)),
        theory=_theory(play),
        limits=DrillLimits(
            formation_psi=setup.pore_psi,
            shoe_fracture_psi=setup.rock[0].fracture_psi,
            class_psi=setup.class_psi,
            shoe_md_ft=setup.shoe_md_ft,
            hole_md_ft=setup.hole_md_ft,
            stack_md_ft=setup.stack_md_ft,
            kill_ppg=kill_ppg(play),
            weak=tuple((r.md_ft, r.fracture_psi) for r in setup.rock),
            broke_md_ft=play.broke_md_ft,
        ),
        elements=tuple((e.index, e.title) for e in setup.elements),
        school=(
            f"{policy.shut_in} shut-in, {policy.first} first, {'with' if policy.flow_check else 'without'} flow check",
        ),
    )


def _timeline(play: Play) -> list[TimelineRow]:
    rows = [
        TimelineRow(
            at_s=e.at_s, kind="refused" if e.refused else "done", words=told(play, e), why=e.refused or _across(play, e)
        )
        for e in play.events
    ]
    broke: Words = ("Rock broke at ", depth(play.broke_md_ft)) if play.broke_md_ft is not None else ()
    happened: list[tuple[int | None, Words]] = [
        (play.first_sign_s, ("First sign of the kick at surface",)),
        (play.shut_in_s, ("Well shut in",)),
        (play.broke_s, broke),
    ]
    if play.made.drift is not None:
        names = ("Yellow circle", "Red circle", "Limit of the flex joint")
        happened += [(int(play.made.starts_s + s), (n,)) for s, n in zip(play.made.drift, names, strict=True)]
    rows += [
        TimelineRow(at_s=at, kind="happened", words=words)
        for at, words in happened
        if at is not None and at <= play.clock_s
    ]
    return sorted(rows, key=lambda r: (r.at_s, r.kind != "happened"))


def _across(play: Play, event: object) -> str:
    across, verdict = getattr(event, "across", ""), getattr(event, "verdict", "")
    return f"on {across}: {verdict}" if across else ""


def _thinned(samples: list[Sample]) -> list[Sample]:
    every = max(1, -(-len(samples) // MOST_SAMPLES))
    return [*samples[::every], *(samples[-1:] if (len(samples) - 1) % every else ())]


def _series(rows: list[Sample]) -> DrillSeries:
    return DrillSeries(
        at_s=tuple(r.at_s for r in rows),
        pipe_psi=tuple(r.pipe_psi for r in rows),
        casing_psi=tuple(r.casing_psi for r in rows),
        bottom_psi=tuple(r.bottom_psi for r in rows),
        shoe_psi=tuple(r.shoe_psi for r in rows),
        gain_bbl=tuple(r.gain_bbl for r in rows),
        spm=tuple(r.spm for r in rows),
        pumped_bbl=tuple(r.pumped_bbl for r in rows),
        bit_md_ft=tuple(r.bit_md_ft for r in rows),
        gas=tuple(r.gas for r in rows),
        closed=tuple(r.closed for r in rows),
        loss_bpm=tuple(r.loss_bpm for r in rows),
    )


def _theory(play: Play) -> DrillTheory | None:
    """From the gas that stood in the well as circulating began, with the pressure that was held on bottom."""
    rows = pumping(play)
    if not rows or play.state.inside is None or play.made.scene.goal == "shut in":
        return None
    setup, column = play.made.setup, play.state.column
    held = sorted(r.bottom_psi for r in rows)[len(rows) // 2]
    begun = rows[0]
    heat = column.heat.at(setup.hole_tvd_ft)
    amount = column.gas.amount(begun.gas_bbl, held + ATMOSPHERE_PSI, heat)
    kill = kill_ppg(play) if play.made.scene.goal == "wait and weight" else setup.mud_ppg
    circulating = Circulating(
        column.way, column.gas, setup.heat, held, amount, setup.mud_ppg, kill, play.state.inside.total_bbl
    )
    found = curve(circulating, column.way.volume_at(setup.shoe_md_ft), column.way.total_bbl * 1.15)
    return DrillTheory(
        begun_bbl=begun.pumped_bbl,
        pumped_bbl=tuple(m.pumped_bbl for m in found),
        casing_psi=tuple(m.casing_psi for m in found),
        shoe_psi=tuple(m.shoe_psi for m in found),
    )


def summary(found: Debrief) -> str:
    """In one line, for a list of scores."""
    missed = [o.title for o in found.outcomes if o.credit < 1]
    return f"{found.score:.0f} % in {clock(found.clock_s)}" + (f"; {', '.join(missed)}" if missed else "")
