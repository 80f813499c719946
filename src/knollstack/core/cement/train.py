"""What is pumped, in order, and how fast: as decided, else a spacer, the slurries and the displacement by policy."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import pairwise

from knollstack.core.cement.conduit import Bores, conduit_of
from knollstack.core.cement.rheology import Law, law_of
from knollstack.core.cement.stage import Pumped, Stage
from knollstack.core.document.cementing import SLURRIES, FluidKind, JobFluid, JobStep, stage_collars_md_ft
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.mud.formulas import herschel_bulkley
from knollstack.core.mud.friction import friction_of
from knollstack.core.program.column import landing_md_ft, pumped_top_md_ft
from knollstack.core.program.equipped import EquippedString

SAME_BBL = 1e-6


@dataclass(frozen=True)
class Missing:
    """Why a job cannot be followed: what is wanting, and where it is given."""

    place: str
    words: str


WATER = Law("Bingham", (1.0, 0.0))
"""Of water at 68 °F."""


def flows_as_water(well: Well, string: EquippedString) -> bool:
    """A hole with returns to the sea floor is drilled with sea water, whose readings nobody takes."""
    return is_riserless(well, string.index) and string.own.reading_300 is None and string.own.reading_600 is None


def mud_law(well: Well, string: EquippedString) -> Law | None:
    """The law of the hole's mud by the model of policy."""
    own, model = string.own, well.policy.mud.rheology
    if flows_as_water(well, string):
        return WATER
    if string.mud_ppg is None or friction_of(well, own, string.mud_ppg) is None:
        return None
    low, high = own.reading_300, own.reading_600
    assert low is not None
    assert high is not None
    if model != "Herschel-Bulkley":
        return law_of(((300, low), (600, high)), model)
    fit = herschel_bulkley(own.reading_3 or 0.0, own.reading_6 or 0.0, low, high)
    keys = ("yield_stress_lb_100ft2", "flow_index", "consistency_lb_sn_100ft2")
    return Law("Herschel-Bulkley", tuple(float(fit[key]) for key in keys))


def stages_of(well: Well, string: EquippedString, bores: Bores) -> tuple[Stage, ...] | Missing:
    """The stages of a string's job, or what is wanting for them."""
    own = string.own.cement
    law = mud_law(well, string)
    if string.mud_ppg is None:
        return Missing(string.path, "the mud weight of this hole")
    if law is None:
        return Missing(f"{string.path}/reading_300", "rheometer readings of the mud")
    top = pumped_top_md_ft(well, string.laid)
    ends = [(string.shoe_md_ft, landing_md_ft(string))]
    collars = [md for md in stage_collars_md_ft(own) if top is not None and top < md < landing_md_ft(string)]
    ends += [(md, md) for md in collars]
    found: list[Stage] = []
    for number, (end, seat) in enumerate(ends, 1):
        conduit = conduit_of(well, string, bores, end, seat)
        if conduit is None:
            return Missing(
                string.path, "a size of this string or of what is around it, or the ID of the landing string"
            )
        lowest = ends[number][0] if number < len(ends) else top or 0.0
        waiting = 0.0 if conduit.inner else max(string.top_md_ft, 0.0)
        bottom = not conduit.inner and string.run != "liner"
        bare = Stage(number, conduit, string.mud_ppg, law, (), (), waiting, bottom)
        fluids = _fluids(well, string, bare, lowest)
        if isinstance(fluids, Missing):
            return fluids
        filled = replace(bare, fluids=fluids)
        found.append(replace(filled, steps=_steps(well, string, filled)))
    return tuple(found)


def rows_of(string: EquippedString) -> list[JobFluid]:
    """The fluids of every stage as rows of the document: those decided, and those proposed for a stage that has none."""
    own, found = string.own.cement, list[JobFluid]()
    for number in range(1, 2 + len(stage_collars_md_ft(own))):
        found += [row for row in own.fluids if row.stage == number] or _proposed(string, number)
    return found


def _proposed(string: EquippedString, number: int) -> list[JobFluid]:
    lead: list[FluidKind] = ["lead"] if string.lead is not None else []
    kinds: list[FluidKind] = ["spacer", *lead, "tail", "displacement"]
    return [JobFluid(id=f"{kind}-{number}", kind=kind, stage=number) for kind in kinds]


def usual_rates(string: EquippedString) -> bool:
    """Nobody has decided how fast this job is pumped."""
    own = string.own.cement
    return not own.steps and all(row.rate_bpm is None for row in own.fluids)


def slowed(stage: Stage, share: float) -> Stage:
    """The same job at a share of its rates; what is pumped is the same, contact times are longer."""
    fluids = tuple(replace(fluid, rate_bpm=fluid.rate_bpm * share) for fluid in stage.fluids)
    steps = tuple(step.model_copy(update={"rate_bpm": step.rate_bpm * share}) for step in stage.steps)
    return replace(stage, fluids=fluids, steps=steps)


def _rate_bpm(well: Well, row: JobFluid) -> float:
    policy = well.policy.cement
    if row.rate_bpm is not None:
        return row.rate_bpm
    if row.kind in SLURRIES:
        return policy.slurry_rate_bpm
    return policy.displacement_rate_bpm if row.kind == "displacement" else policy.spacer_rate_bpm


def _density_ppg(
    well: Well, string: EquippedString, mud_ppg: float, row: JobFluid, first_slurry: float | None
) -> float | None:
    """As given, else of its recipe; a spacer is as much heavier than the mud as the rule asks, no more than midway."""
    if row.density_ppg is not None:
        return row.density_ppg
    if row.kind == "lead":
        return None if string.lead is None else string.lead.density_ppg
    if row.kind == "tail":
        return None if string.slurry is None else string.slurry.density_ppg
    if row.kind == "displacement":
        return string.displacement_ppg
    if first_slurry is None:
        return None
    return min((mud_ppg + first_slurry) / 2, (1 + well.policy.cement.heavier_percent / 100) * mud_ppg)


def _law(well: Well, stage: Stage, row: JobFluid) -> tuple[Law | None, bool]:
    """The law of a fluid, and whether it is assumed."""
    policy = well.policy.cement
    if row.readings:
        return law_of(row.readings, well.policy.mud.rheology), False
    if row.kind == "displacement":
        return stage.mud_law, False
    key = {"lead": "lead", "tail": "slurry"}.get(row.kind, "spacer")
    held = ((300, getattr(policy, f"{key}_reading_300")), (600, getattr(policy, f"{key}_reading_600")))
    return law_of(held, well.policy.mud.rheology), True


def _slurry_bbl(string: EquippedString, stage: Stage, kind: FluidKind, top_md_ft: float) -> float:
    """Volume of lead or tail between the top of this stage's cement and where the fluids come out; the tail fills the rest."""
    conduit = stage.conduit
    border = string.tail_top_md_ft if string.lead is not None and string.tail_top_md_ft is not None else top_md_ft
    border = min(max(border, top_md_ft), conduit.end_md_ft)
    under = conduit.over_md_bbl(border)
    if kind == "lead":
        return conduit.over_md_bbl(top_md_ft) - under
    return under + conduit.rathole_bbl + stage.track_bbl


def _fluids(well: Well, string: EquippedString, stage: Stage, top_md_ft: float) -> tuple[Pumped, ...] | Missing:
    own = [(i, row) for i, row in enumerate(string.own.cement.fluids) if row.stage == stage.number]
    rows: list[tuple[int | None, JobFluid]] = list(own) if own else [(None, r) for r in _proposed(string, stage.number)]
    slurry = next((_density_ppg(well, string, stage.mud_ppg, r, None) for _, r in rows if r.kind in SLURRIES), None)
    given: list[tuple[Pumped, JobFluid]] = []
    for at, row in rows:
        place = f"{string.path}/cement/fluids" + (f"/{at}" if at is not None else "")
        name = row.name or row.kind
        density = _density_ppg(well, string, stage.mud_ppg, row, slurry)
        law, assumed = _law(well, stage, row)
        if density is None:
            return Missing(f"{place}/density_ppg", f"the density of the {name}")
        if law is None:
            return Missing(f"{place}/reading_300", f"rheometer readings of the {name} that fit a fluid")
        rate = _rate_bpm(well, row)
        given.append((Pumped(row.kind, name, density, law, -1.0, rate, at, assumed), row))
    return _filled(well, string, stage, top_md_ft, given)


def _filled(
    well: Well, string: EquippedString, stage: Stage, top_md_ft: float, given: list[tuple[Pumped, JobFluid]]
) -> tuple[Pumped, ...]:
    """The volume of each: as given, by length or contact time, of slurries by their tops, of displacement what is left."""
    seat = stage.conduit.to_md_bbl(stage.conduit.seat_md_ft)
    over = top_md_ft  # the foot of the next fluid over the slurry, from the last flush up
    volumes: dict[int, float] = {}
    for i, (fluid, row) in reversed(list(enumerate(given))):
        if row.volume_bbl is not None:
            volumes[i] = row.volume_bbl
        elif row.annulus_ft is not None:
            high = max(over - row.annulus_ft, stage.conduit.returns_md_ft)
            volumes[i] = stage.conduit.over_md_bbl(high) - stage.conduit.over_md_bbl(over)
        elif fluid.kind in SLURRIES:
            volumes[i] = _slurry_bbl(string, stage, fluid.kind, top_md_ft)
        elif row.contact_minutes is not None:
            volumes[i] = row.contact_minutes * fluid.rate_bpm
        elif fluid.kind != "displacement":  # passes as fast as it is displaced
            rate = max(fluid.rate_bpm, well.policy.cement.displacement_rate_bpm)
            volumes[i] = well.policy.cement.spacer_minutes * rate
        if fluid.kind in ("flush", "spacer"):
            over = stage.conduit.rise_md_ft(over, volumes[i])
    open_rows = [i for i in range(len(given)) if i not in volumes]
    said = sum(volumes[i] for i, (fluid, _) in enumerate(given) if fluid.kind == "displacement" and i in volumes)
    for i in open_rows:  # all of it to the last that has no volume of its own
        volumes[i] = max(seat - said, 0.0) if i == open_rows[-1] else 0.0
    return tuple(replace(fluid, volume_bbl=volumes[i]) for i, (fluid, _) in enumerate(given))


def _steps(well: Well, string: EquippedString, stage: Stage) -> tuple[JobStep, ...]:
    """The steps decided, as far as there is fluid; else each fluid at its rate, a stop for the plug, the last barrels slow."""
    own = [step for step in string.own.cement.steps if step.stage == stage.number]
    left = min(stage.edges_bbl[-1], stage.bump_bbl)
    found: list[JobStep] = []
    for step in own or _usual(well, stage):
        volume = left if step.volume_bbl is None else min(step.volume_bbl, left)
        left -= volume
        if volume > SAME_BBL or step.stop_minutes > 0:
            found.append(JobStep.model_construct(**{**step.model_dump(), "volume_bbl": volume}))
    if left > SAME_BBL and found:
        found.append(found[-1].model_copy(update={"volume_bbl": left, "stop_minutes": 0.0}))
    return tuple(found)


def _usual(well: Well, stage: Stage) -> list[JobStep]:
    policy, found = well.policy.cement, list[JobStep]()
    edges, slow_from = stage.edges_bbl, stage.bump_bbl - policy.slow_bbl
    cuts = sorted({*edges, max(slow_from, stage.plug_bbl)})
    for low, high in pairwise(cuts):
        k = max(i for i in range(len(stage.fluids)) if edges[i] <= low + SAME_BBL)
        slow = low >= max(slow_from, stage.plug_bbl) - SAME_BBL
        rate = min(policy.slow_rate_bpm, stage.fluids[k].rate_bpm) if slow else stage.fluids[k].rate_bpm
        stop = policy.plug_minutes if abs(high - stage.plug_bbl) < SAME_BBL else 0.0
        found.append(
            JobStep.model_construct(stage=stage.number, volume_bbl=high - low, rate_bpm=rate, stop_minutes=stop)
        )
    return found
