"""Cement over a liner's top, and its reversing out once the liner is released: volume, pressure, and what the rock then bears."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial

import numpy as np

from knollstack.core.base.constants import GAL_PER_BBL, PSI_PER_PPG_FT
from knollstack.core.base.findings import Finding, depth, emw, find, remedy
from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.base.working import headline
from knollstack.core.cement.checks import Worked, at_rest_psi, rock_md_ft
from knollstack.core.cement.formulas import reversing_pressure
from knollstack.core.cement.rheology import Law
from knollstack.core.document.cementing import SLURRIES
from knollstack.core.ground.well import Well
from knollstack.core.mud.formulas import annular_velocity
from knollstack.core.mud.pipe_flow import bore_velocity
from knollstack.core.program.column import over_hanger_ft
from knollstack.core.program.equipped import EquippedString

_find = partial(find, "cement")
USUAL_FT, TRIED_FT = 200.0, (200.0, 100.0, 50.0)


@dataclass(frozen=True)
class Reversing:
    """The greatest pressure comes when all of the cement stands in the drill pipe, just over the liner's top."""

    over_ft: float
    over_bbl: float
    volume_bbl: float
    """Pumped down the annulus until the last of it is back."""
    rate_bpm: float
    pump_psi: float
    hanger_psi: float
    """In the annulus at the liner's top."""


@dataclass(frozen=True)
class Breaking:
    """Where the rock is nearest to breaking while the cement is reversed out."""

    md_ft: float
    reached_ppg: float
    fracture_ppg: float


@sweeping()
def reversing_of(well: Well, string: EquippedString, held: Worked) -> Reversing | None:
    """None of a string that is no liner, or over which no cement is pumped; worked with the mud in the annulus."""
    over, stage = over_hanger_ft(well, string.laid), held.stage
    fluid = next((f for f in stage.fluids if f.kind in SLURRIES and f.volume_bbl > 0), None)
    if over <= 0 or fluid is None or string.top_md_ft <= 0:
        return None
    way, rate = stage.conduit, well.policy.cement.spacer_rate_bpm
    bbl = way.over_md_bbl(string.top_md_ft - over) - way.over_md_bbl(string.top_md_ft)
    inside = way.to_md_bbl(string.top_md_ft)
    reach = string.top_md_ft * (1 - min(bbl / inside, 1.0))  # up to here the cement stands in the drill pipe
    height = abs(well.path.tvd(string.top_md_ft) - well.path.tvd(reach))
    pipe = well.drill_string(string.bit_in or 0.0)
    bore, flow = pipe.pipe_id_in or 0.0, rate * GAL_PER_BBL
    lost = (string.top_md_ft - reach) * _bore_psi_ft(fluid.law, fluid.density_ppg, flow, bore)
    lost += reach * _bore_psi_ft(stage.mud_law, stage.mud_ppg, flow, bore)
    around = sum(
        _annulus_psi_ft(stage.mud_law, stage.mud_ppg, flow, s.outer_in, s.inner_in) * length
        for s in way.annulus
        if (length := min(s.base_md_ft, string.top_md_ft) - s.top_md_ft) > 0
    )
    with headline(f"cement/{string.index}/reversing"):
        psi = float(reversing_pressure(fluid.density_ppg, stage.mud_ppg, height, lost + around))
    column = float(hydrostatic_pressure(stage.mud_ppg, well.path.tvd(string.top_md_ft)))
    return Reversing(over, bbl, inside + bbl, rate, psi, column + psi - around)


def _bore_psi_ft(law: Law, density_ppg: float, flow_gpm: float, bore_in: float) -> float:
    return float(law.bore_psi_ft(bore_velocity(flow_gpm, bore_in), density_ppg, bore_in))


def _annulus_psi_ft(law: Law, density_ppg: float, flow_gpm: float, outer_in: float, inner_in: float) -> float:
    return float(law.annulus_psi_ft(annular_velocity(flow_gpm, outer_in, inner_in), density_ppg, outer_in, inner_in))


def nearest(well: Well, string: EquippedString, held: Worked, reverse: Reversing) -> Breaking | None:
    """The open hole under the pressure at the liner's top and the wet cement below it; None where the rock is unknown."""
    top, end = string.previous_shoe_md_ft, string.shoe_md_ft
    if end <= top:
        return None
    md = rock_md_ft(well, max(top, string.top_md_ft), end)
    tvd = well.path.tvd_at(md)
    fracture = well.ground.fracture.at(tvd)
    if np.any(np.isnan(fracture)):
        return None
    outside = at_rest_psi(held, np.append(md, string.top_md_ft))[1]
    reached = (outside[:-1] - outside[-1] + reverse.hanger_psi) / (PSI_PER_PPG_FT * tvd)
    k = int(np.argmax(reached - fracture))
    return Breaking(float(md[k]), float(reached[k]), float(fracture[k]))


def reversing_findings(well: Well, string: EquippedString, held: Worked) -> Iterator[Finding]:
    """A liner's top that is left without cement over it, or rock that does not stand the reversing."""
    place, subject = f"{string.path}/cement/over_hanger_ft", (*string.words, " liner top")
    if string.run != "liner":
        return
    reverse = reversing_of(well, string, held)
    if reverse is None:
        if string.top_md_ft >= USUAL_FT:
            mend = remedy(string.change("cement/over_hanger_ft", USUAL_FT), "Pump ", depth(USUAL_FT), " over it")
            text = "No cement is pumped over it: what reaches it first is thinned by mud and spacer."
            yield _find("note", place, subject, text, remedies=(mend,))
        return
    found = nearest(well, string, held, reverse)
    if found is None or found.reached_ppg <= found.fracture_ppg + 1e-9:
        return
    reached, rock = emw(found.reached_ppg), emw(found.fracture_ppg)
    words = ("Reversing out, the open hole at ", depth(found.md_ft), " bears ", reached, "; the rock breaks at ", rock)
    mends = "Circulate out the usual way, slower, or pump less over the top."
    yield _find("caution", place, subject, *words, f". {mends}", value=reached, limit=rock)
