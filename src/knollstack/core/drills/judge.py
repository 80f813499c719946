"""The step of drills: a kill sheet for every hole under preventers, the posted procedures, the scenes it can be played in."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from knollstack.core.base.findings import Assumption, Finding
from knollstack.core.base.remember import remembered
from knollstack.core.document.drills import DrillsPolicy
from knollstack.core.drills.findings import (
    hole_assumptions,
    hole_findings,
    line_assumption,
    lost_findings,
    played_assumption,
    string_assumption,
)
from knollstack.core.drills.killsheet import design_kick, kill_sheet
from knollstack.core.drills.procedures import procedures
from knollstack.core.drills.results import DrillsResult, HoleDrill, KillSheet
from knollstack.core.drills.scenes import only_diverter, scene_rows
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.disconnect import stack_over


def judge(
    equipped: Equipped, results: Mapping[str, Any]
) -> tuple[DrillsResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Of every hole that is drilled under a stack or a diverter."""
    policy: DrillsPolicy = equipped.well.policy.drills
    holes, findings = [], list(lost_findings(equipped))
    assumptions: list[Assumption] = []
    for below in equipped.strings[1:]:
        stack = stack_over(equipped, results["preventers"], below)
        if stack is None:
            continue
        diverter = only_diverter(stack)
        sheet = None if diverter else sheet_at_end(equipped, below)
        holes.append(
            HoleDrill(
                string=below.index,
                id=below.id,
                hole=below.hole_words,
                top_md_ft=below.previous_shoe_md_ft,
                bottom_md_ft=below.shoe_md_ft,
                sheet=sheet,
                scenes=scene_rows(equipped, results, below),
            )
        )
        if not diverter:
            findings += hole_findings(equipped, below, sheet, stack)
            assumptions += [*hole_assumptions(below, sheet), *string_assumption(equipped, below)]
    if not holes:
        return DrillsResult(), tuple(findings), ()
    at_sea = equipped.well.site.setting == "subsea"
    result = DrillsResult(holes=tuple(holes), procedures=procedures(policy, at_sea))
    if at_sea:
        assumptions.append(line_assumption())
    return result, tuple(findings), (*assumptions, played_assumption(policy))


@remembered(64, traced=True)
def sheet_at_end(equipped: Equipped, below: EquippedString) -> KillSheet | None:
    """For the kick of policy with the bit at the end of the hole."""
    kick = design_kick(equipped, below, below.shoe_md_ft)
    return kill_sheet(equipped, below, below.shoe_md_ft, kick, f"drills/{below.index}/sheet")
