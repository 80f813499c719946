"""The depths step for the program in force: every shoe by the rules that also propose."""

from __future__ import annotations

from knollstack.core.base.findings import Finding
from knollstack.core.base.remember import remembered
from knollstack.core.depths.findings import (
    conductor_findings,
    diverter_findings,
    fresh_water_findings,
    kick_findings,
    length_findings,
    rule_findings,
    total_depth_findings,
)
from knollstack.core.depths.kick import kick_at_shoe
from knollstack.core.depths.notes import zone_notes
from knollstack.core.depths.results import DepthsResult, KickResult, ProposedShoe, ShoeRow
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import Laid, LaidString, Shoe, role_list


def judge(laid: Laid) -> tuple[DepthsResult, tuple[Finding, ...]]:
    """Every shoe of the program, and the proposal beside it."""
    well, rows = laid.well, []
    findings: list[Finding] = []
    reasons = {shoe.md_ft: shoe for shoe in laid.proposal.shoes}
    for string in laid.strings:
        kick, found = _judge_shoe(well, string, laid.previous(string), laid.next(string))
        findings += found
        shoe = reasons.get(string.shoe_md_ft)
        rows.append(ShoeRow(kick=kick, rule=shoe.rule if shoe else None, reason=shoe.reason if shoe else ()))
    if laid.strings:
        findings += total_depth_findings(well, laid.strings[-1])
    result = DepthsResult(
        proposal=listed(laid.proposal.shoes),
        failure=laid.proposal.failure,
        failure_place=laid.proposal.place,
        strings=tuple(rows),
        zone_notes=zone_notes(well),
    )
    return result, tuple(findings)


@remembered(128, traced=True)
def _judge_shoe(
    well: Well, string: LaidString, above: LaidString | None, below: LaidString | None
) -> tuple[KickResult | None, tuple[Finding, ...]]:
    kick = kick_at_shoe(well, string, below)
    return kick, (
        *conductor_findings(well, string),
        *fresh_water_findings(well, string, above, below),
        *rule_findings(well, string, above),
        *diverter_findings(well, string, above),
        *length_findings(well, string),
        *kick_findings(well, string, below, kick),
    )


def listed(shoes: tuple[Shoe, ...]) -> tuple[ProposedShoe, ...]:
    """Proposed shoes with the roles of their strings."""
    return tuple(
        ProposedShoe(role=role, md_ft=s.md_ft, rule=s.rule, reason=s.reason)
        for role, s in zip(role_list(len(shoes)), shoes, strict=True)
    )
