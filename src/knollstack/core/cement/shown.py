"""Headline numbers of a job worked by the registered formulas: fluid by fluid and stretch by stretch at one moment."""

from __future__ import annotations

import numpy as np

from knollstack.core.base.constants import GAL_PER_BBL
from knollstack.core.base.formulas import equivalent_mud_weight, hydrostatic_pressure
from knollstack.core.base.working import headline
from knollstack.core.cement.checks import Nearest, Worked, at_rest_psi, hanging_lbf
from knollstack.core.cement.conduit import Stretch
from knollstack.core.cement.formulas import annulus_pressure, compressed_displacement, hanging_weight, pump_pressure
from knollstack.core.cement.pressures import Side
from knollstack.core.ground.well import Well
from knollstack.core.mud.formulas import annular_velocity
from knollstack.core.mud.pipe_flow import bore_velocity
from knollstack.core.program.equipped import EquippedString


def _column_psi(held: Worked, side: Side, moment: int, to_md_ft: float) -> float:
    """The columns of one side as far as a depth."""
    path, found = held.balance.conduit.path, 0.0
    tops, fluids = side.md_ft[moment].tolist(), side.fluid.tolist()
    for k, fluid in enumerate(fluids):
        upper, lower = tops[k], min(tops[k + 1], to_md_ft)
        height = path.tvd(lower) - path.tvd(upper)
        if lower > upper + 1e-6:
            lower_psi = hydrostatic_pressure(float(held.balance.density[fluid]), abs(height))
            found += float(lower_psi) if height >= 0 else -float(lower_psi)
    return found


def _friction_psi(held: Worked, side: Side, moment: int, to_md_ft: float) -> float:
    """Friction of one side as far as a depth: length by length of one fluid in one stretch."""
    flow, found = float(held.course.out_bpm[moment]) * GAL_PER_BBL, 0.0
    if flow <= 0:
        return 0.0
    tops = side.md_ft[moment].tolist()
    for k, fluid in enumerate(side.fluid.tolist()):
        for stretch in side.stretches:
            upper, lower = max(tops[k], stretch.top_md_ft), min(tops[k + 1], to_md_ft, stretch.base_md_ft)
            if lower > upper + 1e-6:
                found += (lower - upper) * _gradient(held, fluid, stretch, flow)
    return found


def _gradient(held: Worked, fluid: int, stretch: Stretch, flow_gpm: float) -> float:
    law, density = held.balance.laws[fluid], float(held.balance.density[fluid])
    if stretch.inner_in:
        speed = annular_velocity(flow_gpm, stretch.outer_in, stretch.inner_in)
        return float(law.annulus_psi_ft(speed, density, stretch.outer_in, stretch.inner_in))
    return float(law.bore_psi_ft(bore_velocity(flow_gpm, stretch.outer_in), density, stretch.outer_in))


def shown_pump_psi(key: str, held: Worked, moment: int) -> float:
    """The pump's pressure at one moment at which the pipe is full."""
    end = held.stage.conduit.end_md_ft
    with headline(key):
        columns = [_column_psi(held, side, moment, end) for side in (held.annulus, held.pipe)]
        lost = [_friction_psi(held, side, moment, end) for side in (held.annulus, held.pipe)]
        return float(pump_pressure(columns[0] + held.stage.conduit.back_psi, columns[1], lost[0], lost[1]))


def shown_emw_ppg(key: str, held: Worked, near: Nearest) -> float:
    """The equivalent weight of the annulus where it is nearest to the rock."""
    with headline(key):
        column = _column_psi(held, held.annulus, near.moment, near.md_ft)
        lost = _friction_psi(held, held.annulus, near.moment, near.md_ft)
        pressure = annulus_pressure(held.stage.conduit.back_psi, column, lost)
        return float(equivalent_mud_weight(pressure, held.stage.conduit.path.tvd(near.md_ft)))


def shown_hanging_lbf(key: str, well: Well, string: EquippedString, held: Worked) -> float:
    """What the string weighs at rest once the plug has landed: section by section, by the mean fluids of both sides."""
    top, end = string.top_md_ft, held.stage.conduit.end_md_ft
    length = well.path.tvd(end) - well.path.tvd(top)
    if length <= 0:
        return hanging_lbf(well, string, held)
    with headline(key):
        columns = [float(psi[1] - psi[0]) for psi in at_rest_psi(held, np.array([top, end]))]
        means = [float(equivalent_mud_weight(psi, length)) for psi in columns]
        return sum(
            float(
                hanging_weight(
                    well.path.tvd(min(s.bottom_md_ft, end)) - well.path.tvd(s.top_md_ft),
                    s.pipe.weight_ppf,
                    s.pipe.od_in,
                    s.pipe.id_in,
                    *means,
                )
            )
            for s in string.sections
            if s.top_md_ft < end
        )


def shown_displacement_bbl(key: str, well: Well, held: Worked) -> float:
    """The displacement as it is measured at surface, by the mean pressure inside the pipe at the end."""
    pumped = sum(f.volume_bbl for f in held.stage.fluids if f.kind == "displacement")
    mean = float(held.pipe.psi[-1, 0] + held.pipe.psi[-1, -1]) / 2
    with headline(key):
        return float(compressed_displacement(pumped, mean, well.policy.cement.compressibility_1_psi))
