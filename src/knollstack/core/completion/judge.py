"""The completion step: what is learnt, what is decided at total depth, the well handed over or plugged, and its barriers."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Assumption, Finding, assume, depth, emw
from knollstack.core.completion.decision import Decided, Planner, alternative, completion_needs, leaving_needs
from knollstack.core.completion.elements import Site
from knollstack.core.completion.findings import (
    decision_findings,
    point_findings,
    record_findings,
    state_findings,
    survey_findings,
)
from knollstack.core.completion.findings_completion import completion_findings
from knollstack.core.completion.findings_left import left_findings
from knollstack.core.completion.leaving import WAYS, Left
from knollstack.core.completion.plugs import Judged, judged, leaving_row
from knollstack.core.completion.proposing import left_of, proposal_of
from knollstack.core.completion.results import AlternativeRow, CompletionResult, CompletionRow, LeavingRow, StateRow
from knollstack.core.completion.running_order import completion_row
from knollstack.core.completion.states import drilling_states
from knollstack.core.completion.states_left import completion_states, left_states, riser_states
from knollstack.core.completion.surveys import point_rows, survey_rows
from knollstack.core.program.equipped import Equipped
from knollstack.core.sea.judge import judge as judge_sea

DECIDED = {"suspension": "suspend", "abandonment": "plug and abandon"}
Leftover = dict[str, tuple[Left, tuple[Judged, ...]]]


def judge(equipped: Equipped) -> tuple[CompletionResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Evaluation, decision, barriers, completion, suspension and abandonment."""
    if not equipped.strings:
        return CompletionResult(decision=equipped.design.completion.decision), (), ()
    site, own = Site(equipped), equipped.design.completion
    surveys, points = survey_rows(equipped), point_rows(equipped)
    last = equipped.producing
    completion = None if last is None else completion_row(site, last)
    left: Leftover = {}
    for way in WAYS:
        found = left_of(equipped, way)
        if found is not None:
            left[way] = (found, judged(found))
    rows = {way: leaving_row(*pair, proposal_of(equipped, pair[0].way).plugs) for way, pair in left.items()}
    states = tuple(_states(site, left))
    offered = tuple(_alternatives(equipped, completion, left, rows, states))
    result = CompletionResult(
        decision=own.decision,
        surveys=surveys,
        points=points,
        states=states,
        completion=completion,
        suspension=rows.get("suspension"),
        abandonment=rows.get("abandonment"),
        alternatives=offered,
    )
    in_force = tuple(s for s in states if s.alternative in ("", own.decision) and not s.key.startswith(RISER_OFF))
    findings = [
        *decision_findings(equipped, offered),
        *state_findings(in_force),
        *survey_findings(equipped, surveys),
        *point_findings(equipped, points),
        *record_findings(equipped, states),
    ]
    if own.decision == "complete" and last is not None and completion is not None:
        findings += completion_findings(site, last, completion)
    for leaving, plugs in left.values():
        if own.decision == DECIDED[leaving.way]:
            findings += left_findings(equipped, leaving, plugs)
    return result, tuple(findings), tuple(_assumptions(equipped, result))


RISER_OFF = ("emergency disconnect", "leaving before a storm")
"""States whose count the step at sea tells."""


def _states(site: Site, left: Leftover) -> Iterator[StateRow]:
    yield from drilling_states(site)
    if site.well.site.setting == "subsea":
        off = judge_sea(site.equipped)[0].disconnect
        yield from riser_states(site, () if off is None else off.barriers)
    yield from completion_states(site)
    for found, plugs in left.values():
        yield from left_states(site, found, plugs)


def _alternatives(
    equipped: Equipped,
    completion: CompletionRow | None,
    left: Leftover,
    rows: dict[str, LeavingRow],
    states: tuple[StateRow, ...],
) -> Iterator[AlternativeRow]:
    plan = Planner(equipped)
    if completion is not None:
        works = tuple(plan.complete(completion))
        yield alternative("complete", works, completion_needs(completion), states, None)
    for way, (found, _) in left.items():
        decision: Decided = "suspend" if way == "suspension" else "plug and abandon"
        works, needs = tuple(plan.leave(found, rows[way])), leaving_needs(rows[way], way == "abandonment")
        yield alternative(decision, works, needs, states, rows[way])


def _assumptions(equipped: Equipped, result: CompletionResult) -> Iterator[Assumption]:
    """What was put in for what is decided to be done."""
    own, row = equipped.design.completion, result.completion
    if own.decision == "complete" and row is not None:
        if own.fluid_ppg is None:
            yield assume(
                "completion", "/completion/fluid_ppg", "Completion fluid of ", emw(row.fluid_ppg), " by policy."
            )
        if row.packer_proposed and row.packer_md_ft is not None:
            yield assume(
                "completion", "/completion/packer_md_ft", "The packer is proposed at ", depth(row.packer_md_ft), "."
            )
        if row.perforations_proposed and row.perforated:
            text = "The pay above the shoe track is taken as perforated."
            yield assume("completion", "/completion/perforations", text)
        if row.tubing is not None and not row.tubing.decided:
            yield assume(
                "completion", "/completion/tubing", "The cheapest tubing of the size that stands every case is taken."
            )
        if own.flowing_psi is None:
            yield assume(
                "completion", "/completion/flowing_psi", "The tubing is drawn down to no pressure at the wellhead."
            )
    for way, leaving in (("suspension", result.suspension), ("abandonment", result.abandonment)):
        if own.decision == DECIDED[way] and leaving is not None and leaving.proposed:
            yield assume("completion", f"/completion/{way}/plugs", f"Plugs of the {way} are those proposed by policy.")
    if own.decision is not None:
        yield assume(
            "completion", "/policy/completion/rig_day", "Rig times and costs of the alternatives are planning values."
        )
