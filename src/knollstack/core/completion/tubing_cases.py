"""What a tubing goes through: tested, produced through, shut in, treated, emptied; pressures and heat of each case."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.completion.producing import Producing
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import exposure_of, gas_below
from knollstack.core.pipe.heat import flowing_wellhead_f, ground_f
from knollstack.core.pipe.surface import closed_in_psi

MEAN_OF = 41
COOLED_SHARE = 0.5


@dataclass(frozen=True)
class TubingCase:
    """A case by its pressures [psi] at wellhead and packer, in fluid of a density [ppg], and its mean heat [°F].

    `below_psi` is under the packer; None: the tubing is open to what stands there.
    """

    name: str
    inside_psi: tuple[float, float]
    outside_psi: tuple[float, float]
    inside_ppg: float
    outside_ppg: float
    heat_f: float | None
    below_psi: float | None = None
    pull_lbf: float = 0.0

    @property
    def under_psi(self) -> float:
        return self.inside_psi[1] if self.below_psi is None else self.below_psi


def column_ft(found: Producing) -> float:
    """Height of fluid from the wellhead to the packer."""
    return found.packer_tvd_ft - found.well.wellhead_tvd_ft


def _fluid(found: Producing, top_psi: float, ppg: float) -> tuple[float, float]:
    return top_psi, top_psi + PSI_PER_PPG_FT * ppg * column_ft(found)


def _gas(found: Producing, top_psi: float) -> tuple[float, float, float]:
    """Pressures at both ends of gas, and its mean density."""
    well = found.well
    at = gas_below(well, 1_000.0, found.packer_tvd_ft)
    share = float(at(found.packer_tvd_ft)) - float(at(well.wellhead_tvd_ft))
    if well.policy.pipe.gas_model != "gradient":
        share *= top_psi / float(at(well.wellhead_tvd_ft))
    height = max(column_ft(found), 1e-9)
    return top_psi, top_psi + share, share / height / PSI_PER_PPG_FT


def _mean(found: Producing, at_top_f: float, at_bottom_f: float) -> float | None:
    """Mean heat of the tubing when it is so warm at the wellhead and at the packer, straight between."""
    well = found.well
    depths = np.linspace(well.path.tvd(found.hanger_md_ft), found.packer_tvd_ft, MEAN_OF)
    usual = [ground_f(well, float(z)) for z in depths]
    known = [t for t in usual if t is not None]
    if len(known) < MEAN_OF:
        return None
    return float(np.mean(np.linspace(at_top_f, at_bottom_f, MEAN_OF) - np.array(known)))


def warmed_f(found: Producing) -> float | None:
    """Mean heat while the well flows: straight from the producing depth to the wellhead."""
    well = found.well
    top, deepest = flowing_wellhead_f(well, found.string), well.path.tvd(found.string.shoe_md_ft)
    bottom = ground_f(well, deepest)
    if top is None or bottom is None:
        return None
    at_packer = float(np.interp(found.packer_tvd_ft, [well.ground_md_ft, deepest], [top, bottom]))
    return _mean(found, top, at_packer)


def cooled_f(found: Producing) -> float | None:
    """Mean heat, below zero, while a treatment is pumped: as cold as the fluid on top, half of that at the packer."""
    well, own = found.well, found.equipped.design.completion
    fluid = own.treating_fluid_f if own.treating_fluid_f is not None else ground_f(well, well.ground_md_ft)
    bottom = ground_f(well, found.packer_tvd_ft)
    if fluid is None or bottom is None:
        return None
    return _mean(found, fluid, bottom + COOLED_SHARE * (fluid - bottom))


def shut_in_psi(well: Well, found: Producing) -> float | None:
    return closed_in_psi(well, exposure_of(found.equipped.laid, found.string))


def cases_of(found: Producing) -> Iterator[TubingCase]:
    """Every case, the tubing as spaced out first: what changes are counted from."""
    own, policy, well = found.equipped.design.completion, found.well.policy.completion, found.well
    ppg = found.fluid_ppg
    still = _fluid(found, 0.0, ppg)

    def case(
        name: str, inside: tuple[float, float], inside_ppg: float, heat: float | None, **more: float
    ) -> TubingCase:
        return TubingCase(name, inside, still, inside_ppg, ppg, heat, **more)

    yield case("spaced out", still, ppg, 0.0)
    test = _fluid(found, policy.tubing_test_psi, ppg)
    yield case("tubing test", test, ppg, 0.0, below_psi=still[1])
    warm, closed, flowing = warmed_f(found), shut_in_psi(well, found), own.flowing_psi or 0.0
    *drawn, light = _gas(found, flowing)
    yield case("producing", (drawn[0], drawn[1]), light, warm)
    if closed is not None:
        *ends, heavy = _gas(found, closed)
        yield case("shut in, warm", (ends[0], ends[1]), heavy, warm)
        yield case("shut in, cooled", (ends[0], ends[1]), heavy, 0.0)
    yield case("tubing empty", (0.0, 0.0), 0.0, 0.0)
    if own.treating_psi is not None:
        fluid = own.treating_ppg if own.treating_ppg is not None else ppg
        inside, outside = _fluid(found, own.treating_psi, fluid), _fluid(found, own.annulus_psi, ppg)
        yield TubingCase("treatment", inside, outside, fluid, ppg, cooled_f(found))
    yield case("pulled to release", still, ppg, 0.0, pull_lbf=policy.overpull_lbf)
