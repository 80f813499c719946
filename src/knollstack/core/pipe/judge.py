"""The pipe step: the governing loads of every string, and what it carries."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from knollstack.core.base.findings import Assumption, Finding, Words
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.ground.well import Well
from knollstack.core.pipe.annuli_loads import heated_of
from knollstack.core.pipe.buckling import buckled
from knollstack.core.pipe.choose import breaks_of, is_judged
from knollstack.core.pipe.explain import Explained
from knollstack.core.pipe.exposure import Exposure, exposure_of
from knollstack.core.pipe.findings import hanger_findings, service_findings, stock_findings, string_findings
from knollstack.core.pipe.frame import KEPT_BYTES, Frame, build_frame, test_psi_of
from knollstack.core.pipe.heat import assumed
from knollstack.core.pipe.hung import judge_hung
from knollstack.core.pipe.judged import KINDS, Judged, judge_sections
from knollstack.core.pipe.order import passes, suits_service
from knollstack.core.pipe.reasons import ends_because
from knollstack.core.pipe.results import LoadKind, LoadResult, PipeResult, PipeRow, SectionResult
from knollstack.core.pipe.sea_formulas import gauge_at_rig
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.program.section import Section

MOST_SHARE = 10.0


@remembered(8, traced=True)  # the completion asks it again
def judge(equipped: Equipped) -> tuple[PipeResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Pipe and governing loads of every string."""
    rows: list[PipeRow] = []
    findings = [*hanger_findings(equipped), *equipped.findings]
    assumptions: dict[str, Assumption] = {}
    for string in equipped.strings:
        exposed = exposed_of(equipped, string)
        row, found = _judge_string(equipped.well, equipped.catalogue, string, exposed)
        rows.append(row)
        findings += found
        if exposed.produced_from is not None and is_judged(string):
            heats = assumed(equipped.well, string.laid, exposed)
            assumptions |= {heat.place: heat for heat in heats}
    hung, on_top = judge_hung(equipped, tuple(rows))
    said = (*findings, *stock_findings(equipped), *service_findings(equipped), *on_top)
    return PipeResult(strings=hung), said, tuple(assumptions.values())


def exposed_of(equipped: Equipped, string: EquippedString) -> Exposure:
    """The exposure of a string whose pipe is known, as is that of all others."""
    return replace(
        exposure_of(equipped.laid, string, equipped.next(string)), heated=heated_of(equipped).get(string.index)
    )


def frame_of(well: Well, string: EquippedString, exposed: Exposure) -> Frame | None:
    """The loads that a string is judged by, with nodes where its sections meet: those that it was chosen for."""
    return build_frame(well, string.laid, exposed, breaks_of(string.sections))


@remembered(128, traced=True, most_bytes=KEPT_BYTES)
def judged_string(well: Well, string: EquippedString, exposed: Exposure) -> Judged | None:
    """A string against all its loads; None where it is not judged, or its pipe or mud is unknown."""
    frame = frame_of(well, string, exposed) if is_judged(string) and string.sections else None
    return judge_sections(well.policy.pipe, frame, string.sections) if frame is not None else None


@remembered(128, traced=True)
def _judge_string(
    well: Well, catalogue: Catalogue, string: EquippedString, exposed: Exposure
) -> tuple[PipeRow, tuple[Finding, ...]]:
    judged = judged_string(well, string, exposed)
    row = _row(well, catalogue, string, exposed, judged)
    return row, tuple(string_findings(well, catalogue, exposed, judged, row)) if judged is not None else ()


def _load(well: Well, judged: Judged, kind: LoadKind) -> LoadResult | None:
    """The governing point of a kind, worked again with its working kept."""
    frame, point = judged.frame, judged.worst(kind)
    if point is None:
        return None
    case, explained = frame.cases[point.case], Explained(well.policy.pipe, judged, point)
    with headline(f"pipe/{frame.string.index}/{kind}"):
        load, rating, factor = explained.work(kind)
    return LoadResult(
        name=case.name,
        stage=case.stage,
        kind=kind,
        factor=factor,
        required=explained.required(kind),
        at_md_ft=float(frame.md_ft[point.node]),
        section=point.section,
        load=load,
        rating=rating,
    )


def _test_share(judged: Judged) -> float | None:
    """How far the string stands its pressure test, over all kinds of load."""
    at = next((c for c, case in enumerate(judged.frame.cases) if case.stage == "testing"), None)
    if at is None:
        return None
    least = float(np.min([np.min(judged.of(kind)[:, at]) for kind in KINDS]))
    return None if math.isnan(least) else min(least, MOST_SHARE)


def _section(well: Well, catalogue: Catalogue, exposed: Exposure, section: Section, because: Words) -> SectionResult:
    pipe, bit, length = section.pipe, exposed.next_bit_in, section.length_ft
    allowed = well.policy.sizes.special_drift
    special = pipe.api_drift_in < bit - 1e-9 and passes(allowed, pipe, bit)
    lengths = next(r for r in catalogue.ranges if r.range == well.policy.pipe.length_range)
    return SectionResult(
        joints_least=math.ceil(length / lengths.longest_ft),
        joints_most=math.ceil(length / lengths.shortest_ft),
        top_md_ft=section.top_md_ft,
        bottom_md_ft=section.bottom_md_ft,
        weight_ppf=pipe.weight_ppf,
        grade=pipe.grade.grade,
        connection=pipe.connection,
        wall_in=pipe.wall_in,
        id_in=pipe.id_in,
        drift_in=pipe.drift_in if special else pipe.api_drift_in,
        special_drift=special,
        coupling_od_in=pipe.coupling_od_in,
        burst_psi=pipe.burst_psi,
        coupling_psi=pipe.coupling_psi,
        leak_psi=pipe.leak_psi,
        collapse_psi=pipe.collapse_psi,
        body_lbf=pipe.body_lbf,
        joint_lbf=pipe.joint_lbf,
        torque_ft_lbf=pipe.torque_ft_lbf,
        torque_least_ft_lbf=pipe.torque_least_ft_lbf,
        suits_service=suits_service(well, pipe, section.top_md_ft),
        cost=pipe.cost_per_ft * length,
        priced=pipe.price_per_ft is not None,
        ends_because=because,
    )


def _row(well: Well, catalogue: Catalogue, string: EquippedString, exposed: Exposure, judged: Judged | None) -> PipeRow:
    reasons = ends_because(well.policy.pipe, judged) if judged is not None else [()] * len(string.sections)
    pairs = zip(string.sections, reasons, strict=True)
    sections = tuple(_section(well, catalogue, exposed, s, why) for s, why in pairs)
    chosen = string.own.pipe is not None or bool(string.own.sections)
    if judged is None:
        return PipeRow(chosen=chosen, sections=sections)
    loads = [_load(well, judged, kind) for kind in KINDS]
    bent = buckled(well.policy.pipe, judged)
    with headline(f"pipe/{string.index}/test"):
        tested = test_psi_of(well, string.laid, exposed)
        at_rig = None
        if tested is not None and well.wellhead_tvd_ft:
            at_rig = float(gauge_at_rig(tested, judged.frame.mud_ppg, well.wellhead_tvd_ft))
    return PipeRow(
        test_psi=tested,
        test_rig_psi=at_rig,
        test_share=_test_share(judged),
        chosen=chosen,
        sections=sections,
        loads=tuple(load for load in loads if load is not None),
        buckles=bent.words(well.policy.pipe.factors.triaxial) if bent else (),
        buckles_md_ft=bent.from_md_ft if bent else None,
        buckled_factor=bent.factor if bent else None,
    )
