"""Pressure in the annulus and in the pipe at any depth and moment of a stage: columns and the friction on their way."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.cement.balance import Balance
from knollstack.core.cement.conduit import Stretch
from knollstack.core.cement.simulate import Course

Floats = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Side:
    """One side of the pipe by moment: boundaries of its fluids from the top down, and what each fluid and stretch loses.

    `fluid` names the fluid under each boundary; the first boundary is the top, or the level of a pipe that runs empty.
    """

    md_ft: Floats
    tvd_ft: Floats
    fluid: NDArray[np.intp]
    psi: Floats
    """At each boundary."""
    lost_psi_ft: Floats
    """Friction per foot on the way down: moment × boundary × stretch; in the pipe it takes pressure away."""
    stretches: tuple[Stretch, ...]

    def only(self, moment: int) -> Side:
        """The same side at one moment."""
        one = slice(moment, moment + 1)
        md, tvd, psi, lost = self.md_ft[one], self.tvd_ft[one], self.psi[one], self.lost_psi_ft[one]
        return Side(md, tvd, self.fluid, psi, lost, self.stretches)


def _side(
    balance: Balance,
    md: Floats,
    fluid: NDArray[np.intp],
    top_psi: Floats,
    gradients: Floats,
    stretches: tuple[Stretch, ...],
) -> Side:
    tvd = balance.conduit.path.tvd_at(md)
    lost = np.take(gradients, fluid, axis=1)
    lengths = balance.lengths(md[:, :-1], md[:, 1:], stretches)
    step = PSI_PER_PPG_FT * balance.density[fluid] * np.diff(tvd, axis=1) + np.sum(lengths * lost, axis=2)
    psi = top_psi[:, None] + np.concatenate([np.zeros((len(md), 1)), np.cumsum(step, axis=1)], axis=1)
    return Side(md, tvd, fluid, psi, lost, stretches)


def annulus_of(balance: Balance, course: Course) -> Side:
    md = balance.in_annulus_md_ft(course.moved_bbl)
    top = np.full(len(md), balance.conduit.back_psi)
    rates = balance.gradients(balance.annulus_table, course.out_bpm)
    return _side(balance, md, np.arange(md.shape[1] - 1), top, rates, balance.conduit.annulus)


def pipe_of(balance: Balance, course: Course) -> Side:
    md = balance.in_pipe_md_ft(course.moved_bbl, course.empty_bbl)[:, ::-1]
    rates = -balance.gradients(balance.pipe_table, course.out_bpm)
    fluids = np.arange(md.shape[1] - 1)[::-1]
    return _side(balance, md, fluids, course.pump_psi, rates, balance.conduit.pipe)


def at_depths(balance: Balance, side: Side, md_ft: Floats) -> Floats:
    """Pressure at depths: moment × depth; none over the level of a pipe that runs empty."""
    inner = side.md_ft[:, 1:-1]
    which = np.sum(inner[:, :, None] <= md_ft[None, None, :], axis=1)
    tvd = balance.conduit.path.tvd_at(md_ft)
    upper_md, upper_tvd, upper_psi = (np.take_along_axis(a, which, axis=1) for a in (side.md_ft, side.tvd_ft, side.psi))
    column = PSI_PER_PPG_FT * balance.density[side.fluid][which] * (tvd[None, :] - upper_tvd)
    found = upper_psi + column
    row = np.arange(len(which))[:, None]
    for k, stretch in enumerate(side.stretches):
        reach = np.minimum(md_ft[None, :], stretch.base_md_ft) - np.maximum(upper_md, stretch.top_md_ft)
        found += side.lost_psi_ft[row, which, k] * np.maximum(reach, 0.0)
    return np.where(md_ft[None, :] < side.md_ft[:, :1] - 1e-9, 0.0, found)
