"""The weight with which a string is landed: hung in its mud by the pressure-area method."""

from __future__ import annotations

from knollstack.core.pipe.forces import hanging_force, weight_below
from knollstack.core.program import Planned, Program


def landed_weight_lbf(program: Program, string: Planned) -> float | None:
    """Force at the top of a string hung in its mud; None where its pipe or mud is unknown."""
    if not string.sections or string.mud_ppg is None:
        return None
    tvd, total = program.well.path.tvd, 0.0
    for section in string.sections:
        pipe = section.pipe
        height = tvd(section.bottom_md_ft) - tvd(section.top_md_ft)
        total += float(weight_below(pipe.weight_ppf, height, string.mud_ppg, pipe.od_in, pipe.wall_in))
    top, shoe = tvd(string.sections[0].top_md_ft), tvd(string.shoe_md_ft)
    mud_psi_ft, pipe = 12 / 231 * string.mud_ppg, string.sections[0].pipe
    return float(hanging_force(total, mud_psi_ft * top, mud_psi_ft * shoe, pipe.od_in, pipe.wall_in))
