"""The weight with which a string is landed: hung in its mud by the pressure-area method."""

from __future__ import annotations

from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.ground.well import Well
from knollstack.core.pipe.formulas import hanging_force, weight_below
from knollstack.core.program.equipped import EquippedString


def landed_weight_lbf(well: Well, string: EquippedString) -> float | None:
    """Force at the top of a string hung in its mud; None where its pipe or mud is unknown."""
    if not string.sections or string.mud_ppg is None:
        return None
    tvd, total = well.path.tvd, 0.0
    for section in string.sections:
        pipe = section.pipe
        height = tvd(section.bottom_md_ft) - tvd(section.top_md_ft)
        total += float(weight_below(pipe.weight_ppf, height, string.mud_ppg, pipe.od_in, pipe.wall_in))
    top, shoe = tvd(string.sections[0].top_md_ft), tvd(string.shoe_md_ft)
    inside, outside = hydrostatic_pressure(string.mud_ppg, top), hydrostatic_pressure(string.mud_ppg, shoe)
    pipe = string.sections[0].pipe
    return float(hanging_force(total, inside, outside, pipe.od_in, pipe.wall_in))
