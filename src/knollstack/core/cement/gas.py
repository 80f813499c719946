"""How easily gas may flow into the cement while it gels, zone by zone."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.working import headline
from knollstack.core.cement.formulas import gas_flow_potential
from knollstack.core.ground.extremes import nodes_between
from knollstack.core.ground.well import Well
from knollstack.core.program.column import Column
from knollstack.core.program.equipped import EquippedString

MINOR, SEVERE = 3.0, 8.0
Grade = Literal["minor", "moderate", "severe", "unknown"]


@dataclass(frozen=True)
class GasFlow:
    """One gas zone behind the cement; no potential where pore pressure is unknown or nothing holds the gas back."""

    zone: str
    md_ft: float
    cement_ft: float
    overbalance_psi: float | None
    potential: float | None
    grade: Grade


def gas_flows(well: Well, string: EquippedString, column: Column | None) -> tuple[GasFlow, ...]:
    """Of every gas zone in the cemented open hole, at its depth of least overbalance with all cement fluid."""
    top, found = string.cement_top_md_ft, list[GasFlow]()
    if top is None or string.bit_in is None or string.od_in is None:
        return ()
    low, high = well.path.span(max(top, string.previous_shoe_md_ft), string.shoe_md_ft)
    for index, zone in enumerate(well.ground.model.zones):
        upper, lower = max(zone.top_tvd_ft, low), min(zone.base_tvd_ft, high)
        if zone.fluid == "gas" and upper < lower:
            found.append(_flow(well, string, column, index, (upper, lower), top))
    return tuple(found)


def _flow(
    well: Well, string: EquippedString, column: Column | None, index: int, tvd: tuple[float, float], top_md_ft: float
) -> GasFlow:
    name = well.ground.model.zones[index].name
    nodes = nodes_between(well, *tvd)
    pore = PSI_PER_PPG_FT * well.ground.pore.at(nodes) * nodes
    md = well.path.md(float(nodes[0]))
    if column is None or np.any(np.isnan(pore)):
        return GasFlow(name, md, max(md - top_md_ft, 0.0), None, None, "unknown")
    over = np.asarray(column.wet_psi(nodes)) - pore
    k = int(np.argmin(over))
    md = well.path.md(float(nodes[k]))
    begin = max((c for c, _ in column.collars if md > c > top_md_ft), default=top_md_ft)
    length = max(md - begin, 0.0)
    if over[k] <= 0:
        return GasFlow(name, md, length, float(over[k]), None, "severe")
    bit, od = string.bit_in or 0.0, string.od_in or 0.0
    if bit <= od:  # the casing does not go into this hole, as the sizes tell
        return GasFlow(name, md, length, float(over[k]), None, "unknown")
    with headline(f"cement/{string.index}/gas{index}"):
        value = float(gas_flow_potential(length, float(over[k]), bit, od))
    grade: Grade = "minor" if value < MINOR else "moderate" if value <= SEVERE else "severe"
    return GasFlow(name, md, length, float(over[k]), value, grade)
