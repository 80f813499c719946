"""The ground step: zones along the well, what is not given, and down to where it is known."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Assumption, Finding, assume, depth, find
from knollstack.core.base.remember import remembered
from knollstack.core.ground.results import GroundResult, ZoneBand
from knollstack.core.ground.well import Well

_find = partial(find, "ground")


@remembered(16)
def judge(well: Well) -> tuple[GroundResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Of the well alone, so it is not worked again while only strings change."""
    return GroundResult(zones=tuple(_zones(well))), tuple(_missing(well)), (*_assumed(well), *_held(well))


def _assumed(well: Well) -> Iterator[Assumption]:
    """What of the basis nobody has given: a new well begins with it, and it counts until it is typed."""
    site = well.site
    said = {
        "rig_floor_ft": ("Rig floor ", depth(site.rig_floor_ft), " above the ground."),
        "cellar_depth_ft": ("Cellar ", depth(site.cellar_depth_ft), " deep."),
        "flowline_height_ft": ("Flow line ", depth(site.flowline_height_ft), " above the ground."),
    }
    for name in site.assumed:
        if name == "total_depth":
            place = f"/trajectory/stations/{len(well.path.md_ft) - 1}/md_ft"
            yield assume("ground", place, "Total depth ", depth(well.path.total_md_ft), ", not given yet.")
        else:
            yield assume("ground", f"/site/{name}", *said[name])


def _held(well: Well) -> Iterator[Assumption]:
    """Profiles that end a hair above total depth, said once."""
    held = well.ground.held
    if held:
        words = " and ".join(_TITLES[name] for name, _ in held)
        ends = min(end for _, end in held)
        text = f"{words[:1].upper()}{words[1:]} held to total depth, from the last point at "
        yield assume("ground", f"/ground/{held[0][0]}", text, depth(ends), " TVD, less than a foot above it.")


_TITLES = {"pore": "pore pressure", "fracture": "fracture pressure", "stability": "hole stability"}


def _zones(well: Well) -> Iterator[ZoneBand]:
    deepest = well.path.deepest_tvd_ft
    for i, zone in enumerate(well.ground.model.zones):
        if zone.top_tvd_ft < deepest:
            base = min(zone.base_tvd_ft, deepest)
            yield ZoneBand(
                index=i,
                name=zone.name,
                top_md_ft=well.path.md(zone.top_tvd_ft),
                base_md_ft=well.path.md(base),
                top_tvd_ft=zone.top_tvd_ft,
                base_tvd_ft=base,
                rock=zone.rock,
                fluid=zone.fluid,
                hazards=zone.hazards,
            )


def _missing(well: Well) -> Iterator[Finding]:
    total = well.path.total_tvd_ft
    for name, profile in (("pore", well.ground.pore), ("fracture", well.ground.fracture)):
        place, subject = f"/ground/{name}", (f"{name.capitalize()} profile",)
        if not profile.known:
            text = "At least two points are needed. Nothing is judged without them."
            yield _find("unknown", place, subject, text)
        elif profile.tvd_ft[-1] < total - 1e-6:
            yield _find(
                "unknown",
                place,
                subject,
                "The profile ends at ",
                depth(float(profile.tvd_ft[-1])),
                " TVD; total depth is ",
                depth(total),
                ". Below it nothing is known.",
            )
    if not well.ground.model.zones:
        text = "No zone is given: fresh water, losses and shoe rules cannot be judged."
        yield _find("unknown", "/ground/zones", ("Zones",), text)
