"""The cement step: where each string's cement stands, its volumes, and what its column does to the rock.

Annular volume is length × capacity by interval, open hole with excess, cased hole without; shoe track and
rathole are added. The column at the end of displacement is compared with fracture wherever their difference can turn.
"""

from __future__ import annotations

import math

from knollstack.core.base.findings import Assumption, Finding
from knollstack.core.base.formulas import sacks
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.cement.blend import blend_of
from knollstack.core.cement.closing import green_test_psi
from knollstack.core.cement.column import weakest
from knollstack.core.cement.conduit import Bores
from knollstack.core.cement.findings import (
    bond_findings,
    breakdown,
    placement_findings,
    unknown_displacement,
    unknown_rock,
    unknown_volumes,
)
from knollstack.core.cement.findings_hole import hole_findings
from knollstack.core.cement.findings_setting import gas_findings, waiting_findings
from knollstack.core.cement.formulas import mix_water, slurry
from knollstack.core.cement.gas import gas_flows
from knollstack.core.cement.judge_job import judge_job
from knollstack.core.cement.mending import Mending
from knollstack.core.cement.plugs import judge_plugs
from knollstack.core.cement.quality import standoff_rule
from knollstack.core.cement.results import BlendItem, BlendRow, CementResult, CementRow, GasRow, StageRow, WaitRow
from knollstack.core.cement.topping import top_up_findings, top_up_of
from knollstack.core.cement.volumes import job_volumes
from knollstack.core.cement.waiting import waits
from knollstack.core.ground.well import Well
from knollstack.core.pipe.formulas import bump_pressure
from knollstack.core.program.column import bump_over_psi, column_of, final_differential_psi
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.running.run import run_of
from knollstack.core.running.spacing import placing
from knollstack.core.running.standoff import least


def judge(equipped: Equipped) -> tuple[CementResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Cement of every string."""
    rows: list[CementRow] = []
    findings: list[Finding] = []
    assumptions: list[Assumption] = []
    for string in equipped.strings:
        bores = equipped.cased_bores(string)
        held = None if bores is None else tuple(bores)
        earlier = equipped.strings[: string.index]
        standoff, test_psi = _standoff_percent(equipped, string), green_test_psi(equipped, string)
        row, found, assumed = _judge_string(equipped.well, string, earlier, held, standoff, test_psi)
        rows.append(row)
        findings += found
        assumptions += assumed
    plugs, told = judge_plugs(equipped)
    return CementResult(strings=tuple(rows), plugs=plugs), (*findings, *told), tuple(assumptions)


def _standoff_percent(equipped: Equipped, string: EquippedString) -> float | None:
    """The least standoff along the cement, of the running step; None where it is not known or asked."""
    run = run_of(equipped, string) if string.drilled else None
    if run is None:
        return None
    whole = placing(run, equipped.catalogue, equipped.design.centralizers).whole
    worst = least(run, whole)
    return None if worst is None or math.isnan(whole.midway[worst]) else float(whole.midway[worst])


@remembered(128, traced=True)
def _judge_string(
    well: Well,
    string: EquippedString,
    earlier: tuple[EquippedString, ...],
    bores: Bores,
    standoff: float | None,
    test_psi: float | None,
) -> tuple[CementRow, tuple[Finding, ...], tuple[Assumption, ...]]:
    if not string.drilled or string.slurry is None:
        return CementRow(applies=False), tuple(bond_findings(well, string)), ()
    own = string.own.cement
    excess = own.excess if own.excess is not None else well.policy.cement.excess
    column, found = _column(well, string, bores)
    rule = standoff_rule(standoff, well.policy.running.standoff_percent)
    broken = any(f.severity == "stop" for f in found)
    flows = gas_flows(well, string, column_of(well, string))
    stages, reversing, in_time, assumed = judge_job(well, string, bores, (rule, flows), test_psi, broken=broken)
    volumes, volumes_found = _volumes(well, string, earlier)
    row = CementRow(
        applies=True,
        top_md_ft=string.cement_top_md_ft,
        water_gal_sk=string.slurry.water_gal_sk,
        bentonite_percent=string.slurry.bentonite_percent,
        displacement_ppg=string.displacement_ppg,
        stage_collar_md_ft=own.stage_collar_md_ft,
        upper_collar_md_ft=own.upper_collar_md_ft,
        excess=excess,
        **volumes,
        **_lead(string),
        **column,
        stages=stages,
        mix_water=own.water,
        blends=_blends(well, string, stages, volumes),
        reversing=reversing,
        bump_over_psi=bump_over_psi(well, string.laid),
        top_up=top_up_of(well, string, bores),
        gas=tuple(GasRow(**vars(flow), working=f"gas{k}") for k, flow in enumerate(flows)),
        waits=tuple(WaitRow(**vars(wait)) for wait in waits(well, string)),
    )
    setting = (*gas_findings(string, flows), *waiting_findings(string, row))
    hole = (*hole_findings(string), *top_up_findings(well, string))
    placed = (*setting, *hole, *placement_findings(well, string), *bond_findings(well, string))
    return row, (*volumes_found, *found, *in_time, *placed), assumed


def _blends(
    well: Well, string: EquippedString, stages: tuple[StageRow, ...], volumes: dict[str, float | None]
) -> tuple[BlendRow, ...]:
    """By the job's own volumes where it can be followed, else by those of the annulus."""
    pumped = [(f.kind, s.number, f.volume_bbl) for s in stages for f in s.fluids]
    if not pumped:
        whole = volumes.get("tail_bbl") if string.lead is not None else volumes.get("slurry_bbl")
        pumped = [("lead", 1, volumes.get("lead_bbl") or 0.0), ("tail", 1, whole or 0.0)]
    found = (blend_of(well, string, kind, stage, bbl) for kind, stage, bbl in pumped if kind in ("lead", "tail"))
    return tuple(
        BlendRow(**{**vars(blend), "items": tuple(BlendItem(**vars(item)) for item in blend.items)})
        for blend in found
        if blend is not None
    )


def _lead(string: EquippedString) -> dict[str, float | None]:
    if string.lead is None:
        return {}
    return {
        "tail_top_md_ft": string.tail_top_md_ft,
        "lead_water_gal_sk": string.lead.water_gal_sk,
        "lead_bentonite_percent": string.lead.bentonite_percent,
    }


def _volumes(
    well: Well, string: EquippedString, earlier: tuple[EquippedString, ...]
) -> tuple[dict[str, float | None], list[Finding]]:
    """Slurries with their weight and yield, the volumes of the job, and the sacks and the water that they take."""
    assert string.slurry is not None
    with headline(f"cement/{string.index}/density"):
        mixed = slurry(**string.slurry.mix)
    row: dict[str, float | None] = {"slurry_ppg": mixed["density_ppg"], "yield_ft3_sk": mixed["yield_ft3_sk"]}
    lead = None
    if string.lead is not None:
        with headline(f"cement/{string.index}/lead_density"):
            lead = slurry(**string.lead.mix)
        row |= {"lead_ppg": lead["density_ppg"], "lead_yield_ft3_sk": lead["yield_ft3_sk"]}
    volumes = job_volumes(well, string, earlier)
    if volumes is None:
        return row, [unknown_volumes(string)]
    with headline(f"cement/{string.index}/sacks"):
        count = sacks((volumes["tail_bbl"] if lead else volumes["slurry_bbl"]) or 0.0, mixed["yield_ft3_sk"])
    lead_count = None
    if lead is not None:
        with headline(f"cement/{string.index}/lead_sacks"):
            lead_count = sacks(volumes["lead_bbl"] or 0.0, lead["yield_ft3_sk"])
    with headline(f"cement/{string.index}/mix_water"):
        water = mix_water(count, string.slurry.water_gal_sk)
        if string.lead is not None and lead_count is not None:
            water += mix_water(lead_count, string.lead.water_gal_sk)
    row |= volumes | {"sacks": count, "lead_sacks": lead_count, "mix_water_bbl": water}
    return row, [] if volumes["displacement_bbl"] is not None else [unknown_displacement(string)]


def _column(well: Well, string: EquippedString, bores: Bores) -> tuple[dict[str, float | None], list[Finding]]:
    """The column against fracture, what the float holds and the plug bumps at; nothing where mud or fracture is unknown."""
    column = column_of(well, string)
    if column is None:
        return {}, []
    worst = weakest(well, string, column)
    if worst is None:
        return {}, [unknown_rock(string)]
    with headline(f"cement/{string.index}/column"):
        greatest = worst.reached_ppg
    findings = []
    if worst.over_ppg > 1e-9:
        findings.append(breakdown(well, string, worst, tuple(Mending(well, string, bores).ways())))
    with headline(f"cement/{string.index}/float"):
        differential = final_differential_psi(well, string.laid, column)
    bump = None
    if differential is not None:
        with headline(f"cement/{string.index}/bump"):
            bump = float(bump_pressure(differential, bump_over_psi(well, string.laid)))
    return {
        "greatest_emw_ppg": greatest,
        "fracture_ppg": worst.fracture_ppg,
        "greatest_emw_md_ft": well.path.md(worst.tvd_ft),
        "float_differential_psi": differential,
        "bump_psi": bump,
    }, findings
