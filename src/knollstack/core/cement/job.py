"""The cement of each string: where it stands, its volumes, and what its column does to the rock.

Annular volume is length × capacity by interval, open hole with excess, cased hole without; shoe track and
rathole are added. The column at the end of displacement is compared with fracture at every profile point.
"""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

from knollstack.core.basics import (
    annular_capacity,
    circle_capacity,
    hydrostatic_pressure,
    interval_volume,
    sacks,
)
from knollstack.core.cement.column import Column, breakdown, fill_recipe, weakest
from knollstack.core.cement.slurry import slurry
from knollstack.core.findings import Assumption, Finding, Remedy, Words
from knollstack.core.program import Planned, Program
from knollstack.core.results import CementResult, CementRow
from knollstack.core.riserless import is_riserless
from knollstack.core.well import depth
from knollstack.core.working import headline


def fill_tops(program: Program) -> None:
    """The top of cement in force: as decided, else to the ground for shallow strings, else into the string above."""
    ground = program.well.ground_md_ft
    for string in program.strings:
        if not string.drilled:
            continue
        decided = string.own.cement.top_md_ft
        if decided is not None:
            string.cement_top_md_ft = max(decided, ground, string.top_md_ft)
        elif string.role in ("conductor", "surface"):
            string.cement_top_md_ft = ground
        elif string.run == "liner":
            string.cement_top_md_ft = string.top_md_ft
        else:
            top = string.previous_shoe_md_ft - program.well.policy.cement_overlap_ft
            string.cement_top_md_ft = max(ground, top)
        if decided is None and not string.proposed:
            text: Words = (
                *string.words,
                " casing: top of cement at ",
                depth(string.cement_top_md_ft),
                " by policy.",
            )
            program.assumptions.append(Assumption(step="cement", place=f"{string.path}/cement/top_md_ft", text=text))
        fill_recipe(program, string)


def _outer_spans(program: Program, string: Planned) -> list[tuple[float, float, float | None]]:
    """Spans (top, base, ID of the casing outside) of the cemented annulus; ID None is open hole."""
    top, shoe = string.cement_top_md_ft, string.shoe_md_ft
    assert top is not None
    earlier = program.strings[: string.index]
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


def _bore_bbl(string: Planned, top_md_ft: float, bottom_md_ft: float) -> float:
    """Volume [bbl] inside a string between two depths."""
    return sum(interval_volume(circle_capacity(bore), length) for length, bore in string.bores(top_md_ft, bottom_md_ft))


def _volumes(program: Program, string: Planned, excess: float) -> dict[str, float] | None:
    """Volumes [bbl] of the job by the registered formulas; None where a size is unknown."""
    pipe, bit, policy = string.pipe, string.bit_in, program.well.policy
    spans = _outer_spans(program, string)
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
        track = _bore_bbl(string, string.shoe_md_ft - track_ft, string.shoe_md_ft)
        rathole = interval_volume(circle_capacity(bit), policy.rathole_ft)
    with headline(f"cement/{string.index}/displacement"):
        displacement = _bore_bbl(string, string.top_md_ft, string.shoe_md_ft - track_ft)
    return {
        "cased_annulus_bbl": cased,
        "open_annulus_bbl": opened,
        "shoe_track_bbl": track,
        "rathole_bbl": rathole,
        "slurry_bbl": cased + opened + track + rathole,
        "displacement_bbl": displacement,
    }


def _bond(program: Program, string: Planned) -> None:
    """Surface casing not cemented to the ground, or no cement into the string above: no bond there."""
    top, shoe, ground = string.cement_top_md_ft, string.previous_shoe_md_ft, program.well.ground_md_ft
    if top is None or string.index == 0:
        return
    message: Words = (
        "The top of cement, ",
        depth(top),
        ", is below the shoe above, ",
        depth(shoe),
        ": no bond into it.",
    )
    wanted = max(ground, shoe - program.well.policy.cement_overlap_ft)
    if string.role == "surface" and top > ground + 1:
        message = ("The top of cement is at ", depth(top), ". Surface casing is cemented back to the ground.")
        wanted = ground
    elif top <= shoe:
        return
    label: Words = ("Set the top of cement at ", depth(wanted))
    program.findings.append(
        Finding(
            severity="caution", step="cement", place=f"{string.path}/cement/top_md_ft",
            subject=(*string.words, " cement"), message=message, value=depth(top), limit=depth(shoe),
            remedies=(Remedy(label=label, changes=program.change(string, "cement/top_md_ft", wanted)),),
        )
    )  # fmt: skip


def _row(program: Program, string: Planned) -> CementRow:
    if not string.drilled or string.cement_top_md_ft is None:
        return CementRow(applies=False)
    policy = program.well.policy
    bentonite, water = string.recipe
    excess = string.own.cement.excess if string.own.cement.excess is not None else policy.cement_excess
    with headline(f"cement/{string.index}/density"):
        mixed = slurry(water, bentonite_percent=bentonite)
    volumes = _volumes(program, string, excess)
    row: dict[str, float | None] = {
        "top_md_ft": string.cement_top_md_ft, "slurry_ppg": mixed["density_ppg"],
        "yield_ft3_sk": mixed["yield_ft3_sk"], "water_gal_sk": water, "bentonite_percent": bentonite,
        "excess": excess,
    }  # fmt: skip
    if volumes is None:
        message: Words = (
            "Cement volumes are unknown: a hole or pipe size of this string or the one outside is missing.",
        )
        program.findings.append(
            Finding(
                severity="unknown",
                step="cement",
                place=string.path,
                subject=(*string.words, " cement"),
                message=message,
            )
        )
    else:
        with headline(f"cement/{string.index}/sacks"):
            count = sacks(volumes["slurry_bbl"], mixed["yield_ft3_sk"])
        row |= volumes | {"sacks": count, "mix_water_bbl": count * water / 42}
    return CementRow(applies=True, **row, **_column_values(program, string, mixed["density_ppg"]))


def _column_values(program: Program, string: Planned, slurry_ppg: float) -> dict[str, float]:
    """The column against fracture, and what the float holds; nothing where mud or fracture is unknown."""
    path = program.well.path
    if string.mud_ppg is None or string.cement_top_md_ft is None:
        return {}
    column = Column(string.mud_ppg, slurry_ppg, path.tvd(string.cement_top_md_ft))
    if is_riserless(program.well, string.index):
        column = replace(
            column, mudline_tvd_ft=program.well.ground_md_ft, water_depth_ft=program.well.site.water_depth_ft
        )
    worst = weakest(program, string, column)
    if worst is None:
        message: Words = (
            "Whether the rock stands the cement is unknown: fracture is not given over the whole open hole.",
        )
        program.findings.append(
            Finding(
                severity="unknown",
                step="cement",
                place=string.path,
                subject=(*string.words, " cement"),
                message=message,
            )
        )
        return {}
    tvd, fracture = worst
    with headline(f"cement/{string.index}/column"):
        greatest = column.emw_ppg(tvd)
    if greatest > fracture + 1e-9:
        breakdown(program, string, column, tvd, fracture)
    shoe = path.tvd(string.shoe_md_ft)
    collar = path.tvd(max(string.top_md_ft, string.shoe_md_ft - program.well.policy.shoe_track_ft))
    with headline(f"cement/{string.index}/float"):
        # collar and shoe as whole columns: past the horizontal the shoe stands above the collar
        track = hydrostatic_pressure(slurry_ppg, shoe) - hydrostatic_pressure(slurry_ppg, collar)
        inside = hydrostatic_pressure(string.mud_ppg, collar) + track
        differential = column.psi(shoe) - inside
    return {
        "greatest_emw_ppg": greatest, "fracture_ppg": fracture, "greatest_emw_md_ft": path.md(tvd),
        "float_differential_psi": differential,
    }  # fmt: skip


def judge_cement(program: Program) -> CementResult:
    """Cement of every string."""
    rows = []
    for string in program.strings:
        rows.append(_row(program, string))
        _bond(program, string)
    return CementResult(strings=tuple(rows))
