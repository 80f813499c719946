"""The pipeline: a design and a catalogue in, everything that follows from them out."""

from __future__ import annotations

from typing import Any

from knollstack.core.base.findings import SEVERITIES, Assumption, Change, Finding, State, Step
from knollstack.core.base.formula import Call
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import recording
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.design import Design
from knollstack.core.evaluation.results import Basis, Evaluation, StepState, StringResult
from knollstack.core.evaluation.side_by_side import SideBySide, side_by_side
from knollstack.core.evaluation.steps import STEPS, WORDS, outcome
from knollstack.core.ground.well import Well
from knollstack.core.logbook.detail import logbook_detail
from knollstack.core.logbook.drilled import Drilled, as_drilled
from knollstack.core.logbook.marking import marked
from knollstack.core.logbook.results import LogbookDetail
from knollstack.core.program.equipped import Equipped
from knollstack.core.proposal.equipping import program_of
from knollstack.core.proposal.liners import liner_options
from knollstack.core.runsheet.detail import sheet_detail
from knollstack.core.runsheet.results import SheetDetail

ORDER = {word: i for i, word in enumerate(WORDS)}


def evaluate(design: Design, catalogue: Catalogue) -> Evaluation:
    """Everything that follows from a design, with the facts of its log in force: a pure function of its two arguments."""
    drilled = as_drilled(design)
    return evaluated(program_of(drilled.design, catalogue), drilled)


def evaluated(equipped: Equipped, drilled: Drilled | None = None) -> Evaluation:
    """Every step's judgement of a program, and what was found and assumed on the way, in order."""
    drilled = drilled or Drilled(equipped.design, equipped.design)
    results: dict[str, Any] = {}
    found: list[Finding] = list(equipped.laid.findings)
    assumed: list[Assumption] = [*equipped.laid.assumptions, *equipped.assumptions]
    for entry in STEPS:
        results[entry.step], findings, assumptions = outcome(entry.judged(equipped, results, drilled))
        found += findings
        assumed += assumptions
    steps = [entry.step for entry in STEPS if entry.applies(equipped.well)]
    findings = marked(tuple(found), drilled)
    findings = tuple(sorted(findings, key=lambda f: (SEVERITIES.index(f.severity), ORDER.get(f.step, len(ORDER)))))
    return Evaluation(
        basis=_basis(equipped.well),
        path=tuple(StepState(step=word, state=_state(equipped, word, findings, drilled)) for word in steps),
        strings=tuple(_strings(equipped)),
        **results,
        liners=liner_options(equipped, results["cement"]),
        findings=_adopting(equipped, findings),
        assumptions=tuple(assumed),
    )


def with_sheet(design: Design, catalogue: Catalogue) -> tuple[Evaluation, SheetDetail]:
    """An evaluation with the whole run sheet and its materials, which only their views and papers ask for."""
    drilled = as_drilled(design)
    equipped = program_of(drilled.design, catalogue)
    evaluation = evaluated(equipped, drilled)
    return evaluation, sheet_detail(equipped, dict(evaluation))


def of_log(design: Design, catalogue: Catalogue) -> tuple[LogbookDetail, SideBySide]:
    """What is still free, the plan beside the well as drilled, and how their results differ."""
    drilled = as_drilled(design)
    planned, actual = program_of(drilled.plan, catalogue), program_of(drilled.design, catalogue)
    before, after = evaluated(planned), evaluated(actual, drilled)
    lines = sheet_detail(planned, dict(before)).lines
    detail = logbook_detail(planned, actual, drilled, after.logbook, lines, before.runsheet.curve, catalogue)
    return detail, side_by_side(before, after)


def workings(design: Design, catalogue: Catalogue) -> dict[str, list[Call]]:
    """The working of every headline number of a design's evaluation, by key."""
    with recording() as records:
        evaluate(design, catalogue)
    return records


def _adopting(equipped: Equipped, findings: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """With nothing decided, a remedy that edits a string adopts the proposal first."""
    if equipped.design.strings or not equipped.strings:
        return findings
    adoption = Change(path="/strings", value=[s.adopted().model_dump(mode="json") for s in equipped.strings])

    def adopted(finding: Finding) -> Finding:
        remedies = tuple(
            r.model_copy(update={"changes": (adoption, *r.changes)})
            if any(change.path.startswith("/strings/") for change in r.changes)
            else r
            for r in finding.remedies
        )
        return finding.model_copy(update={"remedies": remedies}) if finding.remedies else finding

    return tuple(adopted(finding) for finding in findings)


def _state(equipped: Equipped, step: Step, findings: tuple[Finding, ...], drilled: Drilled) -> State:
    """Worst of a step's findings; blank without strings, ground or log, and never good on missing data."""
    ground = equipped.design.ground
    if step == "logbook" and not drilled.log:
        return "blank"
    if step == "ground":
        if not ground.pore and not ground.fracture and not ground.zones:
            return "blank"
    elif not equipped.strings:
        return "blank"
    severities = {f.severity for f in findings if f.step == step}
    if "stop" in severities:
        return "stop"
    if "unknown" in severities:
        return "incomplete"
    return "caution" if "caution" in severities else "good"


@remembered(16)
def _basis(well: Well) -> Basis:
    knots = well.path.knots_md_ft
    north, east = well.path.plan_at(knots)
    heat = well.temperatures
    return Basis(
        total_md_ft=well.path.total_md_ft,
        total_tvd_ft=well.path.total_tvd_ft,
        ground_md_ft=well.ground_md_ft,
        at_sea=well.site.setting != "land",
        sea_level_md_ft=well.site.rig_floor_ft,
        temperature_tvd_ft=tuple(z for z, _ in heat),
        temperature_f=tuple(t for _, t in heat),
        axis_md_ft=tuple(well.path.knots_md_ft.tolist()),
        axis_tvd_ft=tuple(well.path.knots_tvd_ft.tolist()),
        axis_departure_ft=tuple(well.path.departure_at(knots).tolist()),
        axis_north_ft=tuple(north.tolist()),
        axis_east_ft=tuple(east.tolist()),
        section_azimuth_deg=well.path.section_azimuth_deg,
    )


def _strings(equipped: Equipped) -> list[StringResult]:
    return [
        StringResult(
            id=s.id,
            name=s.own.name,
            role=s.role,
            run=s.run,
            proposed=s.proposed,
            top_md_ft=s.top_md_ft,
            shoe_md_ft=s.shoe_md_ft,
            previous_shoe_md_ft=s.previous_shoe_md_ft,
            bit_in=s.bit_in,
            od_in=s.od_in,
            id_in=s.pipe.id_in if s.pipe else None,
            tied_back=s.own.tie_back,
            collar_md_ft=s.collar_md_ft,
            cement_top_md_ft=s.cement_top_md_ft,
            mud_ppg=s.mud_ppg,
            tail_top_md_ft=s.tail_top_md_ft,
            stage_collar_md_ft=s.own.cement.stage_collar_md_ft,
            upper_collar_md_ft=s.own.cement.upper_collar_md_ft,
        )
        for s in equipped.strings
    ]
