"""The mud step: each section's window, planned weight and overbalance, and the mud at rest and moving."""

from __future__ import annotations

from knollstack.core.base.findings import Finding, find
from knollstack.core.base.formulas import circle_capacity, hydrostatic_pressure, interval_volume
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.ground.window import Bound
from knollstack.core.mud.circulation import Bores, moving
from knollstack.core.mud.findings import (
    moving_findings,
    riser_findings,
    riserless_findings,
    step_findings,
    window_findings,
)
from knollstack.core.mud.plan import greatest_overbalance, riser, sweep_volume_bbl, volumes, weighting, zone_overbalance
from knollstack.core.mud.results import BoundResult, MudResult, MudRow, MudStepResult, MudVolumes
from knollstack.core.program.equipped import Equipped
from knollstack.core.program.laid import LaidString


def judge(equipped: Equipped) -> tuple[MudResult, tuple[Finding, ...]]:
    """Each section's window, planned weight and overbalance."""
    rows: list[MudRow] = []
    findings: list[Finding] = []
    before: MudVolumes | None = None
    for laid in equipped.laid.strings:
        bores = equipped.cased_bores(laid)
        held = tuple(bores) if bores is not None else None
        row, found = _judge_section(equipped.well, laid, equipped.laid.previous(laid), held, before)
        before = _volumes(equipped.well, laid, held)
        rows.append(row)
        findings += found
    if equipped.strings and not equipped.well.ground.model.zones:
        text = "No zone is given: differential sticking, losses and the overbalance on pay are not judged."
        findings.append(find("mud", "unknown", "/ground/zones", ("Zones",), text))
    return MudResult(strings=tuple(rows)), tuple(findings)


@remembered(128)
def _volumes(well: Well, string: LaidString, bores: Bores) -> MudVolumes | None:
    return volumes(well, string, bores)


@remembered(128, traced=True)
def _judge_section(
    well: Well, string: LaidString, above: LaidString | None, bores: Bores, before: MudVolumes | None
) -> tuple[MudRow, tuple[Finding, ...]]:
    open_ft = string.shoe_md_ft - string.previous_shoe_md_ft
    bare = MudRow(
        planned_ppg=string.planned_mud_ppg,
        lower=None,
        upper=None,
        open_hole_ft=open_ft,
        hole_volume_bbl=None,
        overbalance_psi=None,
        overbalance_md_ft=None,
        sweep_bbl=sweep_volume_bbl(well, string),
    )
    if not string.drilled or string.role == "conductor":
        return bare, ()
    if is_riserless(well, string.index):
        hole = None if string.bit_in is None else interval_volume(circle_capacity(string.bit_in), open_ft)
        row = bare.model_copy(update={"hole_volume_bbl": hole, "riserless": True})
        return row, tuple(riserless_findings(well, string))
    return _with_riser(well, string, above, bores, before, bare)


def _with_riser(
    well: Well, string: LaidString, above: LaidString | None, bores: Bores, before: MudVolumes | None, bare: MudRow
) -> tuple[MudRow, tuple[Finding, ...]]:
    lower, upper = _bounds(well, string)
    over, steps = _overbalance(well, string), _steps(well, string)
    in_all, moved, no_riser = volumes(well, string, bores), moving(well, string, bores), riser(well, string)
    hole = None
    if string.bit_in is not None:
        with headline(f"mud/{string.index}/hole_volume"):
            hole = interval_volume(circle_capacity(string.bit_in), bare.open_hole_ft)
    row = bare.model_copy(
        update={
            "lower": lower,
            "upper": upper,
            "hole_volume_bbl": hole,
            "overbalance_psi": over[0] if over else None,
            "overbalance_md_ft": over[1] if over else None,
            "top_psi": _psi(well, string, string.previous_shoe_md_ft),
            "bottom_psi": _psi(well, string, string.shoe_md_ft),
            "zones": zone_overbalance(well, string),
            "volumes": in_all,
            "weight_up": weighting(well, string, above, before, in_all),
            "riser": no_riser,
            "steps": steps,
            **(moved.__dict__ if moved is not None else {}),
        }
    )
    return row, (
        *window_findings(string, lower, upper),
        *moving_findings(well, string, moved),
        *riser_findings(well, string, no_riser),
        *step_findings(string, steps),
    )


def _bounds(well: Well, string: LaidString) -> tuple[BoundResult | None, BoundResult | None]:
    """The window of the open hole, each bound worked where it is set."""
    top, bottom = well.path.span(string.previous_shoe_md_ft, string.shoe_md_ft)

    def result(bound: Bound | None) -> BoundResult | None:
        if bound is None:
            return None
        return BoundResult(mud_ppg=bound.mud_ppg, md_ft=well.path.md(bound.tvd_ft), cause=bound.cause)

    with headline(f"mud/{string.index}/lower"):
        lower = well.window.lower_bound(top, bottom)
    with headline(f"mud/{string.index}/upper"):
        upper = well.window.upper_bound(top, bottom)
    return result(lower), result(upper)


def _overbalance(well: Well, string: LaidString) -> tuple[float, float] | None:
    """Greatest overbalance [psi] in the open hole and its depth [ft MD]; None where pore or mud is unknown."""
    mud = string.mud_ppg
    if mud is None:
        return None
    with headline(f"mud/{string.index}/overbalance"):
        found = greatest_overbalance(well, string.previous_shoe_md_ft, string.shoe_md_ft, mud)
    return None if found is None else (found[0], well.path.md(found[1]))


def _psi(well: Well, string: LaidString, md_ft: float) -> float | None:
    """Pressure of the section's mud at a depth."""
    if string.mud_ppg is None:
        return None
    return float(hydrostatic_pressure(string.mud_ppg, well.path.tvd(md_ft)))


def _steps(well: Well, string: LaidString) -> tuple[MudStepResult, ...]:
    """The weights of a section drilled in steps, the last its own, with the window of the hole then open."""
    if not string.own.mud_steps or string.mud_ppg is None:
        return ()
    rows, start = [], string.previous_shoe_md_ft
    for to, mud in (*((s.to_md_ft, s.mud_ppg) for s in string.own.mud_steps), (string.shoe_md_ft, string.mud_ppg)):
        lower, upper = well.window.bounds(*well.path.span(string.previous_shoe_md_ft, to))
        low, high = lower.mud_ppg if lower else None, upper.mud_ppg if upper else None
        rows.append(MudStepResult(from_md_ft=start, to_md_ft=to, mud_ppg=mud, lower_ppg=low, upper_ppg=high))
        start = to
    return tuple(rows)
