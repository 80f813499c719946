"""Volumes of a cement job: the annulus interval by interval, shoe track and rathole; lead and tail, and both stages."""

from __future__ import annotations

from itertools import pairwise

from knollstack.core.base.formulas import annular_capacity, circle_capacity, interval_volume
from knollstack.core.base.working import headline
from knollstack.core.cement.formulas import landing_displacement, slurry_volume
from knollstack.core.cement.hole import Hole, hole_of
from knollstack.core.document.cementing import stage_collars_md_ft
from knollstack.core.ground.well import Well
from knollstack.core.program.column import by_inner_string, landing_md_ft, over_hanger_ft
from knollstack.core.program.equipped import EquippedString

Span = tuple[float, float, float | None]
"""Top, base and the ID of the casing outside; None in open hole."""


def _outer_spans(string: EquippedString, earlier: tuple[EquippedString, ...]) -> list[Span]:
    """Spans of the cemented annulus, one after another; none where a bore is unknown."""
    top, shoe = string.cement_top_md_ft, string.shoe_md_ft
    assert top is not None
    edges = [m for m in (string.tail_top_md_ft, *stage_collars_md_ft(string.own.cement)) if m is not None]
    edges += [m for s in earlier for m in (s.top_md_ft, s.shoe_md_ft, *(part.bottom_md_ft for part in s.sections))]
    depths = sorted({top, shoe, *(m for m in edges if top < m < shoe)})
    spans: list[Span] = []
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


def _annulus(spans: list[Span], hole: Hole, od_in: float) -> tuple[float, float]:
    """Volumes [bbl] of the annulus in casing and in open hole, by its caliper or with its excess."""
    cased = opened = 0.0
    for top, base, outer in spans:
        if outer is not None:
            cased += interval_volume(annular_capacity(outer, od_in), base - top)
        else:
            opened += hole.annulus_bbl(top, base, od_in)
    return cased, opened


def job_volumes(
    well: Well, string: EquippedString, earlier: tuple[EquippedString, ...]
) -> dict[str, float | None] | None:
    """Volumes [bbl] of the job by the registered formulas; None where a size is unknown."""
    pipe, bit, policy, at = string.pipe, string.bit_in, well.policy.cement, f"cement/{string.index}"
    spans, hole = _outer_spans(string, earlier), hole_of(well, string)
    if pipe is None or bit is None or hole is None or not spans or any((d or bit) < pipe.od_in for _, _, d in spans):
        return None
    with headline(f"{at}/slurry"):
        cased, opened = _annulus(spans, hole, pipe.od_in)
        collar_ft = landing_md_ft(string)
        track = _bore_bbl(string, collar_ft, string.shoe_md_ft)
        rathole = interval_volume(circle_capacity(bit), policy.rathole_ft)
        over = _over_bbl(well, string, earlier)
        whole = slurry_volume(cased + over, opened, track, rathole)
    found = {
        "cased_annulus_bbl": cased,
        "open_annulus_bbl": opened,
        "shoe_track_bbl": track,
        "rathole_bbl": rathole,
        "over_hanger_bbl": over or None,
        "slurry_bbl": whole,
        "landing_string_bbl": _landing_string_bbl(well, string, bit),
        "displacement_bbl": _displacement_bbl(well, string, bit, collar_ft, f"{at}/displacement"),
    }
    tail_top, collars = string.tail_top_md_ft, stage_collars_md_ft(string.own.cement)
    if string.lead is not None and tail_top is not None:
        with headline(f"{at}/lead"):
            cased, opened = _annulus([s for s in spans if s[1] <= tail_top], hole, pipe.od_in)
            found["lead_bbl"] = slurry_volume(cased + over, opened, 0.0, 0.0)
        with headline(f"{at}/tail"):
            under = _annulus([s for s in spans if s[1] > tail_top], hole, pipe.od_in)
            found["tail_bbl"] = slurry_volume(*under, track, rathole)
    for name, stage, ends in zip(("second", "third"), collars, (*collars[1:], 0.0), strict=False):
        with headline(f"{at}/{name}_stage"):
            above = _annulus([s for s in spans if ends <= s[0] and s[1] <= stage], hole, pipe.od_in)
            found[f"{name}_stage_bbl"] = slurry_volume(*above, 0.0, 0.0)
        stage_ft = min(max(stage, string.top_md_ft), string.shoe_md_ft)
        found[f"{name}_displacement_bbl"] = _displacement_bbl(well, string, bit, stage_ft, f"{at}/{name}_displacement")
    return found


def _over_bbl(well: Well, string: EquippedString, earlier: tuple[EquippedString, ...]) -> float:
    """Volume [bbl] over a liner's top, around what it is landed on."""
    over = over_hanger_ft(well, string.laid)
    around = [s for s in earlier if s.top_md_ft <= string.top_md_ft - over and s.shoe_md_ft >= string.top_md_ft]
    if over <= 0 or not around:
        return 0.0
    od = well.drill_string(string.bit_in or 0.0).pipe_od_in
    bores = around[-1].bores(string.top_md_ft - over, string.top_md_ft)
    return sum(float(interval_volume(annular_capacity(bore, od), length)) for length, bore in bores)


def _displacement_bbl(well: Well, string: EquippedString, bit_in: float, to_md_ft: float, at: str) -> float | None:
    """Volume [bbl] inside the string and what it is landed on, down to a collar; None where a bore is not given."""
    with headline(at):
        if by_inner_string(string):
            bore = well.drill_string(bit_in).pipe_id_in
            return None if bore is None else interval_volume(circle_capacity(bore), to_md_ft)
        inside, landing = _bore_bbl(string, string.top_md_ft, to_md_ft), _landing_string_bbl(well, string, bit_in)
        return None if landing is None else landing_displacement(inside, landing)


def _landing_string_bbl(well: Well, string: EquippedString, bit_in: float) -> float | None:
    """Volume inside the drill pipe that a string is landed on; None where its bore is not given."""
    if string.top_md_ft <= 0:
        return 0.0
    bore = well.drill_string(bit_in).pipe_id_in
    return None if bore is None else interval_volume(circle_capacity(bore), string.top_md_ft)
