"""What follows for evaluation, decision, barriers, completion, and a well that is left."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Change, Result, Words
from knollstack.core.cement.results import PlugRow
from knollstack.core.document.completion import WellPlug
from knollstack.core.wellhead.results import TreeRow

Stands = Literal["stands", "fails", "unknown"]
Verified = Literal["verified", "planned", "failed"]


class SurveyRow(Result):
    """A piece of evaluation with the section that it is done in, before that is cased."""

    section: Words
    string: int | None
    hours: float
    given: bool
    working: str


class PointRow(Result):
    """A logged pressure as equivalent weight, beside what the profile has there; `in_profile`: it is a point of it."""

    tvd_ft: float
    emw_ppg: float
    profile_ppg: float | None
    in_profile: bool
    changes: tuple[Change, ...]
    """What makes it a point of the profile."""
    working: str


class ElementRow(Result):
    """An element of an envelope: whether it stands, why not, how it is verified, and where it is drawn."""

    key: str
    title: Words
    stands: Stands
    why: Words
    verify: str
    """How it is verified by plan."""
    pressure_psi: float | None
    state: Verified
    said: Words
    """What was recorded of it."""
    place: str
    where: Literal["bore", "wall", "annulus", "hole", "top"]
    from_md_ft: float
    to_md_ft: float
    string: int | None


class EnvelopeRow(Result):
    name: Literal["primary", "secondary"]
    elements: tuple[ElementRow, ...]
    stands: Stands


class StateRow(Result):
    """A state of the well: its envelopes, how many stand, and how many are asked before it is entered."""

    key: str
    title: Words
    string: int
    depth_md_ft: float
    """How deep the hole is then."""
    cased: int
    """How many strings stand in it."""
    removal: Words
    """What is taken away to enter it; empty where nothing is."""
    alternative: str
    envelopes: tuple[EnvelopeRow, ...]
    count: int
    most: int
    """With what is unknown counted as standing."""
    needed: int
    verified: int
    """Of those that stand, how many have every element recorded as verified."""
    allowed: Literal["allowed", "forbidden", "unknown"]
    note: str
    stack_on: bool
    """Diverter or BOPs stand on the well; under the sea the riser too."""
    shared: tuple[Words, ...] = ()
    """Titles of what stands in both envelopes, at different depths."""


class EffectRow(Result):
    """A case of the tubing: pressures at its ends, its four changes of length, and what the packer holds."""

    name: str
    inside_top_psi: float
    inside_packer_psi: float
    outside_top_psi: float
    outside_packer_psi: float
    heat_f: float | None
    piston_in: float
    buckling_in: float
    ballooning_in: float
    temperature_in: float
    total_in: float
    moved_in: float
    """Of the end in the seal bore, upwards."""
    on_packer_lbf: float
    """Pressed down on the packer; below zero it is pulled up."""
    helix_ft: float
    """Length over the packer that is buckled."""
    top_lbf: float
    bottom_lbf: float
    factors: dict[str, float]
    working: str


class TubingLoad(Result):
    kind: str
    case: str
    factor: float
    required: float
    md_ft: float
    load: float
    rating: float
    working: str


class TubingRow(Result):
    decided: bool
    od_in: float
    weight_ppf: float
    grade: str
    connection: str
    id_in: float
    drift_in: float
    coupling_od_in: float
    length_ft: float
    seal_bore_in: float
    packer_md_ft: float
    hanger_md_ft: float
    joints: int
    pups_ft: tuple[float, ...]
    spaced_off_ft: float
    """What joints and pups leave over or short of the length."""
    slack_off_lbf: float
    slack_off_in: float
    stroke_ft: float
    up_in: float
    down_in: float
    hanging_lbf: float
    """On the hanger when spaced out."""
    cases: tuple[EffectRow, ...]
    loads: tuple[TubingLoad, ...]


class CleanRow(Result):
    """Drill-out and clean-up of the production casing, and the guns."""

    drill_out_md_ft: float | None
    clean_to_md_ft: float
    volume_bbl: float | None
    pumped_bbl: float | None
    formation_psi: float | None
    hole_psi: float | None
    underbalance_psi: float
    level_md_ft: float | None
    """Of the fluid in the tubing, where that is what gives it."""
    shots: float | None


class CompletionRow(Result):
    fluid_ppg: float
    packer_md_ft: float | None
    packer_proposed: bool
    perforated: tuple[tuple[float, float], ...]
    perforations_proposed: bool
    shut_in_psi: float | None
    clean: CleanRow | None
    tubing: TubingRow | None
    tree: TreeRow | None
    steps: tuple[Words, ...]


class LeftPlug(Result):
    """A plug that is left in the well, and whether it counts as a barrier."""

    id: str
    name: str
    place: str
    decided: bool
    inside: Literal["open hole", "casing"]
    base: str
    top_md_ft: float
    bottom_md_ft: float
    verify: str
    test_psi: float | None
    tag_lbf: float | None
    counts: Stands
    why: Words
    volumes: PlugRow | None


class NeedRow(Result):
    """What a plug is asked for: from and to, and whether plugs fill it."""

    what: Words
    top_md_ft: float
    bottom_md_ft: float
    covered: bool


class LeavingRow(Result):
    production_run: bool
    proposed: bool
    plugs: tuple[LeftPlug, ...]
    needs: tuple[NeedRow, ...]
    cut_md_ft: float
    cut_below_ft: float
    mud_ppg: float | None
    proposal: tuple[WellPlug, ...]
    """The plugs that policy asks for, as decisions."""


class WorkRow(Result):
    what: str
    hours: float
    cost: float


class AlternativeRow(Result):
    """An alternative at total depth: what it needs, its days and cost, and whether its barriers are there."""

    decision: Literal["complete", "suspend", "plug and abandon"]
    works: tuple[WorkRow, ...]
    hours: float
    cost: float
    needs: tuple[Words, ...]
    barriers: tuple[Words, ...]
    """Title and count of its states, in words."""
    allowed: Literal["allowed", "forbidden", "unknown"]
    plugs: int
    cement_bbl: float


class CompletionResult(Result):
    decision: Literal["complete", "suspend", "plug and abandon"] | None = None
    surveys: tuple[SurveyRow, ...] = ()
    points: tuple[PointRow, ...] = ()
    states: tuple[StateRow, ...] = ()
    completion: CompletionRow | None = None
    suspension: LeavingRow | None = None
    abandonment: LeavingRow | None = None
    alternatives: tuple[AlternativeRow, ...] = ()
