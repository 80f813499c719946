"""Casing landed on the sea floor on drill pipe: its pull with heave against hook and landing string; and gas in the riser."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.findings import Finding, find, force, pressure
from knollstack.core.base.formulas import steel_area_in2
from knollstack.core.base.working import headline
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.preventers.tubulars import GRADES_PSI, drill_pipe_id_in
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.running import judge as running
from knollstack.core.sea.formulas import gas_expanded, heave_load, landing_strength
from knollstack.core.sea.makeup import MadeUp
from knollstack.core.sea.results import DiverterResult, LandingRow
from knollstack.core.sea.riser import through_riser


def landing_rows(equipped: Equipped) -> tuple[LandingRow, ...]:
    """Each string that is landed in the housing."""
    rows, found = running.judge(equipped)[0].strings, []
    for string in equipped.strings:
        if not string.drilled or string.role == "conductor":
            continue
        found.append(_row(equipped, string, rows[string.index].hook_up_lbf))
    return tuple(found)


def _row(equipped: Equipped, string: EquippedString, hook_lbf: float | None) -> LandingRow:
    well, key = equipped.well, f"sea/landing/{string.index}"
    policy, drill = well.policy.sea, well.drill_string(string.bit_in or 0.0)
    bore, heaved, strength = drill_pipe_id_in(equipped.catalogue, drill), None, None
    with headline(key):
        if hook_lbf is not None:
            heaved = float(heave_load(hook_lbf, policy.heave_share))
        if bore is not None:
            area = float(steel_area_in2(drill.pipe_od_in, bore))
            strength = float(
                landing_strength(area, GRADES_PSI[well.policy.preventers.drill_pipe_grade], policy.landing_share)
            )
    return LandingRow(
        string=string.index,
        what=string.words,
        through="open water" if is_riserless(well, string.index) else "riser",
        pipe_in=drill.pipe_od_in,
        hook_lbf=hook_lbf,
        heaved_lbf=heaved,
        limit_lbf=well.site.hook_load_limit_lbf,
        block_lbf=well.site.block_lbf,
        strength_lbf=strength,
        working=key,
    )


def landing_findings(rows: tuple[LandingRow, ...]) -> Iterator[Finding]:
    """The heaviest pull with heave, against the hook and against the pipe that carries it."""
    known = [row for row in rows if row.heaved_lbf is not None]
    if len(known) < len(rows):
        text = "What heave adds to the hook load is unknown: a string, the block's weight or its mud is not given."
        yield find("sea", "unknown", "/site/block_lbf", ("Landing string",), text)
    for row in known:
        load, block = row.heaved_lbf or 0.0, row.block_lbf or 0.0
        subject = (*row.what, " landing string")
        if row.limit_lbf is not None and load > row.limit_lbf:
            yield find(
                "sea",
                "stop",
                "/site/hook_load_limit_lbf",
                subject,
                "With heave the hook carries ",
                force(load),
                "; the rig holds ",
                force(row.limit_lbf),
                ".",
                value=force(load),
                limit=force(row.limit_lbf),
                working=row.working,
            )
        if row.strength_lbf is None:
            text = "The strength of its drill pipe is unknown: its ID is not given."
            yield find("sea", "unknown", "/policy/mud/drill_strings", subject, text)
        elif load - block > row.strength_lbf:
            yield find(
                "sea",
                "stop",
                "/policy/mud/drill_strings",
                subject,
                "With heave it carries ",
                force(load - block),
                "; policy allows ",
                force(row.strength_lbf),
                ".",
                value=force(load - block),
                limit=force(row.strength_lbf),
                working=row.working,
            )


def diverter_of(equipped: Equipped, made: MadeUp) -> DiverterResult | None:
    """A kick of the design volume let past the stack: its pressure there, and what it is at the flow line."""
    muds = [s.mud_ppg for s in through_riser(equipped) if s.mud_ppg is not None]
    if not muds:
        return None
    kick = equipped.well.policy.pipe.design_kick_bbl
    at_stack = PSI_PER_PPG_FT * max(muds) * made.foot_md_ft
    with headline("sea/diverter"):
        expanded = float(gas_expanded(kick, at_stack))
    return DiverterResult(
        kick_bbl=kick,
        at_stack_psi=at_stack,
        at_flow_line_bbl=expanded,
        empty_psi=PSI_PER_PPG_FT * SEA_WATER_PPG * max(0.0, made.foot_md_ft - equipped.well.site.rig_floor_ft),
        collapse_psi=equipped.design.sea.riser.collapse_psi,
        working="sea/diverter",
    )


def diverter_findings(found: DiverterResult | None) -> Iterator[Finding]:
    """Gas that unloads the riser leaves the sea outside and nothing within."""
    if found is None:
        return
    place, subject = "/sea/riser/collapse_psi", ("Gas in the riser",)
    if found.collapse_psi is None:
        text = "The riser's collapse rating is not given: whether it stands when gas empties it is unknown."
        yield find("sea", "unknown", place, subject, text)
    elif found.empty_psi > found.collapse_psi:
        yield find(
            "sea",
            "caution",
            place,
            subject,
            "Emptied by gas the riser sees ",
            pressure(found.empty_psi),
            " at its foot and collapses at ",
            pressure(found.collapse_psi),
            ": keep it full, and let no gas past the stack.",
            value=pressure(found.empty_psi),
            limit=pressure(found.collapse_psi),
        )
