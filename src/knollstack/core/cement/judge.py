"""The cement step: where each string's cement stands, its volumes, and what its column does to the rock.

Annular volume is length × capacity by interval, open hole with excess, cased hole without; shoe track and
rathole are added. The column at the end of displacement is compared with fracture wherever their difference can turn.
"""

from __future__ import annotations

from itertools import pairwise

from knollstack.core.base.findings import Finding
from knollstack.core.base.formulas import annular_capacity, circle_capacity, interval_volume, sacks
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.cement.column import weakest
from knollstack.core.cement.findings import (
    bond_findings,
    breakdown,
    setting_findings,
    unknown_displacement,
    unknown_rock,
    unknown_volumes,
)
from knollstack.core.cement.formulas import landing_displacement, mix_water, slurry, slurry_volume
from knollstack.core.cement.results import CementResult, CementRow
from knollstack.core.ground.well import Well
from knollstack.core.pipe.formulas import bump_pressure
from knollstack.core.program.column import column_of, final_differential_psi
from knollstack.core.program.equipped import Equipped, EquippedString


def judge(equipped: Equipped) -> tuple[CementResult, tuple[Finding, ...]]:
    """Cement of every string."""
    rows: list[CementRow] = []
    findings = list(setting_findings(equipped.well))
    for string in equipped.strings:
        row, found = _judge_string(equipped.well, string, equipped.strings[: string.index])
        rows.append(row)
        findings += found
    return CementResult(strings=tuple(rows)), tuple(findings)


@remembered(128, traced=True)
def _judge_string(
    well: Well, string: EquippedString, earlier: tuple[EquippedString, ...]
) -> tuple[CementRow, tuple[Finding, ...]]:
    if not string.drilled or string.slurry is None:
        return CementRow(applies=False), tuple(bond_findings(well, string))
    recipe, decided = string.slurry, string.own.cement
    excess = decided.excess if decided.excess is not None else well.policy.cement.excess
    with headline(f"cement/{string.index}/density"):
        mixed = slurry(**recipe.mix)
    row: dict[str, float | None] = {
        "top_md_ft": string.cement_top_md_ft,
        "slurry_ppg": mixed["density_ppg"],
        "yield_ft3_sk": mixed["yield_ft3_sk"],
        "water_gal_sk": recipe.water_gal_sk,
        "bentonite_percent": recipe.bentonite_percent,
        "displacement_ppg": string.displacement_ppg,
        "excess": excess,
    }
    findings: list[Finding] = []
    volumes = _volumes(well, string, earlier, excess)
    if volumes is None:
        findings.append(unknown_volumes(string))
    else:
        if volumes["displacement_bbl"] is None:
            findings.append(unknown_displacement(string))
        with headline(f"cement/{string.index}/sacks"):
            count = sacks(volumes["slurry_bbl"] or 0.0, mixed["yield_ft3_sk"])
        with headline(f"cement/{string.index}/mix_water"):
            row["mix_water_bbl"] = mix_water(count, recipe.water_gal_sk)
        row |= volumes | {"sacks": count}
    column, found = _column(well, string, mixed["density_ppg"])
    return CementRow(applies=True, **row, **column), (*findings, *found, *bond_findings(well, string))


def _outer_spans(
    string: EquippedString, earlier: tuple[EquippedString, ...]
) -> list[tuple[float, float, float | None]]:
    """Spans (top, base, ID of the casing outside) of the cemented annulus; ID None is open hole."""
    top, shoe = string.cement_top_md_ft, string.shoe_md_ft
    assert top is not None
    edges = [m for s in earlier for m in (s.top_md_ft, s.shoe_md_ft, *(part.bottom_md_ft for part in s.sections))]
    depths = sorted({top, shoe, *(m for m in edges if top < m < shoe)})
    spans: list[tuple[float, float, float | None]] = []
    for low, high in pairwise(depths):
        around = [s for s in earlier if s.top_md_ft <= low and s.shoe_md_ft >= high]
        bores = around[-1].bores(low, high) if around else []
        if around and not bores:
            return []
        spans.append((low, high, bores[0][1] if bores else None))
    return spans


def _bore_bbl(string: EquippedString, top_md_ft: float, bottom_md_ft: float) -> float:
    """Volume [bbl] inside a string between two depths."""
    return sum(interval_volume(circle_capacity(bore), length) for length, bore in string.bores(top_md_ft, bottom_md_ft))


def _volumes(
    well: Well, string: EquippedString, earlier: tuple[EquippedString, ...], excess: float
) -> dict[str, float | None] | None:
    """Volumes [bbl] of the job by the registered formulas; None where a size is unknown."""
    pipe, bit, policy = string.pipe, string.bit_in, well.policy.cement
    spans = _outer_spans(string, earlier)
    if pipe is None or bit is None or not spans or any((d or bit) < pipe.od_in for _, _, d in spans):
        return None
    with headline(f"cement/{string.index}/slurry"):
        cased = opened = 0.0
        for top, base, outer in spans:
            capacity = annular_capacity(outer if outer is not None else bit, pipe.od_in)
            if outer is not None:
                cased += interval_volume(capacity, base - top)
            else:
                opened += interval_volume(capacity, base - top, excess)
        track_ft = min(policy.shoe_track_ft, string.shoe_md_ft - string.top_md_ft)
        collar_ft = string.shoe_md_ft - track_ft
        track = _bore_bbl(string, collar_ft, string.shoe_md_ft)
        rathole = interval_volume(circle_capacity(bit), policy.rathole_ft)
        whole = slurry_volume(cased, opened, track, rathole)
    with headline(f"cement/{string.index}/displacement"):
        inside, landing = _bore_bbl(string, string.top_md_ft, collar_ft), _landing_string_bbl(well, string, bit)
        displacement = None if landing is None else landing_displacement(inside, landing)
    return {
        "cased_annulus_bbl": cased,
        "open_annulus_bbl": opened,
        "shoe_track_bbl": track,
        "rathole_bbl": rathole,
        "slurry_bbl": whole,
        "landing_string_bbl": landing,
        "displacement_bbl": displacement,
    }


def _landing_string_bbl(well: Well, string: EquippedString, bit_in: float) -> float | None:
    """Volume inside the drill pipe that a string is landed on; None where its bore is not given."""
    if string.top_md_ft <= 0:
        return 0.0
    bore = well.drill_string(bit_in).pipe_id_in
    return None if bore is None else interval_volume(circle_capacity(bore), string.top_md_ft)


def _column(well: Well, string: EquippedString, slurry_ppg: float) -> tuple[dict[str, float | None], list[Finding]]:
    """The column against fracture, what the float holds and the plug bumps at; nothing where mud or fracture is unknown."""
    path, column = well.path, column_of(well, string, slurry_ppg)
    if column is None:
        return {}, []
    worst = weakest(well, string, column)
    if worst is None:
        return {}, [unknown_rock(string)]
    tvd, fracture = worst
    with headline(f"cement/{string.index}/column"):
        greatest = float(column.emw_ppg(tvd))
    findings = [breakdown(well, string, column, tvd, fracture)] if greatest > fracture + 1e-9 else []
    with headline(f"cement/{string.index}/float"):
        differential = final_differential_psi(well, string.laid, column)
    bump = None
    if differential is not None:
        with headline(f"cement/{string.index}/bump"):
            bump = float(bump_pressure(differential, well.policy.pipe.bump_psi))
    return {
        "greatest_emw_ppg": greatest,
        "fracture_ppg": fracture,
        "greatest_emw_md_ft": path.md(tvd),
        "float_differential_psi": differential,
        "bump_psi": bump,
    }, findings
