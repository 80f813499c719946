"""Checks of what is learnt, perforated, packed off and plugged against the well that it stands in."""

from __future__ import annotations

from collections.abc import Iterable

from knollstack.core.document.completion import Completion
from knollstack.core.document.design import Design
from knollstack.core.document.faults import Fault
from knollstack.core.document.plugs import BalancedPlug

LEAST_PLUG_FT, LEAST_FT = 1.0, 0.5


def _deep(path: str, md_ft: float, total_md_ft: float) -> Iterable[Fault]:
    if md_ft > total_md_ft + 1e-6:
        expected = f"a depth no deeper than the end of the well ({total_md_ft:g} ft)"
        yield Fault(path=path, value=f"{md_ft:g}", expected=expected)


def plug_faults(path: str, plugs: tuple[BalancedPlug, ...], total_md_ft: float) -> Iterable[Fault]:
    """A plug ends in the well and has a length."""
    for i, plug in enumerate(plugs):
        yield from _deep(f"{path}/{i}/bottom_md_ft", plug.bottom_md_ft, total_md_ft)
        if plug.top_md_ft > plug.bottom_md_ft - LEAST_PLUG_FT:
            expected = f"a depth {LEAST_PLUG_FT:g} ft or more above the bottom ({plug.bottom_md_ft:g} ft)"
            yield Fault(path=f"{path}/{i}/top_md_ft", value=f"{plug.top_md_ft:g}", expected=expected)


def _interval_faults(path: str, top: float, base: float, keys: tuple[str, str], total: float) -> Iterable[Fault]:
    yield from _deep(f"{path}/{keys[1]}", base, total)
    if base < top + LEAST_FT:
        expected = f"a depth below where it begins ({top:g} ft)"
        yield Fault(path=f"{path}/{keys[1]}", value=f"{base:g}", expected=expected)


def completion_faults(design: Design, total_md_ft: float, ground_md_ft: float) -> Iterable[Fault]:
    own, place = design.completion, "/completion"
    for i, row in enumerate(own.evaluation):
        if row.kind == "leak-off test":  # made at a depth
            yield from _deep(f"{place}/evaluation/{i}/to_md_ft", row.to_md_ft, total_md_ft)
            continue
        keys = ("from_md_ft", "to_md_ft")
        yield from _interval_faults(f"{place}/evaluation/{i}", row.from_md_ft, row.to_md_ft, keys, total_md_ft)
    for i, shot in enumerate(own.perforations):
        keys = ("top_md_ft", "bottom_md_ft")
        yield from _interval_faults(f"{place}/perforations/{i}", shot.top_md_ft, shot.bottom_md_ft, keys, total_md_ft)
    for i, point in enumerate(own.pressure_points):
        yield from _deep(f"{place}/pressure_points/{i}/md_ft", point.md_ft, total_md_ft)
        if point.md_ft <= ground_md_ft:
            expected = f"a depth below the ground ({ground_md_ft:g} ft from the rig floor)"
            yield Fault(path=f"{place}/pressure_points/{i}/md_ft", value=f"{point.md_ft:g}", expected=expected)
    if own.packer_md_ft is not None:
        yield from _packer_faults(own, total_md_ft, ground_md_ft)
    for way in ("suspension", "abandonment"):
        yield from plug_faults(f"{place}/{way}/plugs", getattr(own, way).plugs, total_md_ft)


def _packer_faults(own: Completion, total_md_ft: float, ground_md_ft: float) -> Iterable[Fault]:
    path, at = "/completion/packer_md_ft", own.packer_md_ft or 0.0
    yield from _deep(path, at, total_md_ft)
    if at <= ground_md_ft:
        expected = f"a depth below the ground ({ground_md_ft:g} ft from the rig floor)"
        yield Fault(path=path, value=f"{at:g}", expected=expected)
