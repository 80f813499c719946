"""Load cases of a string in service: kicks and losses while drilling through it, leaks and drawdown in production."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import Value
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.ground.well import Well
from knollstack.core.pipe.cases import LoadCase, Pressure, backup, mud_behind, mud_column, under_wellhead, with_salt
from knollstack.core.pipe.exposure import Beside, Exposure, gas_at_surface, gas_below, lowest_level_tvd_ft
from knollstack.core.pipe.heat import NO_HEAT, produced, treated
from knollstack.core.pipe.surface import closed_in_psi, drilling_surface_psi, gas_over_mud_turn_psi, worst_kick
from knollstack.core.program.laid import LaidString

Missing = Literal["annuli", "burst", "collapse", "derating", "liner", "salt", "temperature"]
Found = LoadCase | Missing
"""A case, or what keeps one unknown."""


def _gas_to_surface(well: Well, string: LaidString, exposed: Exposure) -> Found:
    surface = drilling_surface_psi(well, exposed.through)
    if surface is None:
        return "burst"
    deepest = well.path.tvd(string.shoe_md_ft)
    inside = gas_below(well, surface, deepest)
    return LoadCase("gas to surface", "burst", "drilling", inside, backup(well, string))


def _gas_over_mud(well: Well, string: LaidString, below: LaidString) -> Found:
    """Gas above and mud below in the casing, the shoe at its fracture pressure or what the formation feeds."""
    top, mud = well.wellhead_tvd_ft, below.mud_ppg
    turn = top + well.policy.pipe.gas_share * (well.path.tvd(string.shoe_md_ft) - top)
    at_turn = gas_over_mud_turn_psi(well, below, turn)
    surface = None if at_turn is None else gas_at_surface(well, at_turn, turn)
    if surface is None or mud is None:
        return "burst"
    gas, mud_psi_ft = gas_below(well, max(0.0, surface), max(turn, 1.0)), PSI_PER_PPG_FT * mud

    def inside(z: Value) -> Value:
        depth = np.asarray(z)
        under = np.maximum(depth - turn, 0.0)
        return np.asarray(gas(np.minimum(depth, turn))) + mud_psi_ft * under

    return LoadCase("gas over mud", "burst", "drilling", inside, backup(well, string), marks_tvd_ft=(turn,))


def _kick(well: Well, string: LaidString, below: LaidString) -> Found:
    """A kick of the design volume circulated out: at each depth, the pressure when its top is there."""
    kick = worst_kick(well, below)
    if kick is None:
        return "burst"
    return LoadCase("kick circulated out", "burst", "drilling", kick.at_psi, backup(well, string))


def heated_case(well: Well, string: LaidString, exposed: Exposure) -> Iterator[Found]:
    """What production's heat builds up in the annuli on either side, with their columns; nobody bleeds them under the sea."""
    if exposed.heated is None:
        return
    sides = exposed.heated.inside, exposed.heated.outside
    built = [side.built_psi for side in sides if side.built_psi is not None]
    if len(built) < len(sides):
        yield "annuli"
        return
    marks = [well.path.tvd(min(side.to_md_ft, well.path.total_md_ft)) for side in sides]

    def beside(side: Beside, built_psi: float, to_tvd_ft: float) -> Pressure:
        return lambda z: hydrostatic_pressure(side.fluid_ppg, z) + np.where(np.asarray(z) <= to_tvd_ft, built_psi, 0.0)

    inside, outside = (beside(*parts) for parts in zip(sides, built, marks, strict=True))
    last = exposed.produced_from or next(reversed(exposed.through), None)
    heat = None if last is None else produced(well, string, last)
    kind: Literal["burst", "collapse"] = "burst" if built[0] > built[1] else "collapse"
    yield LoadCase(
        "annular pressure build-up",
        kind,
        "production",
        inside,
        outside,
        marks_tvd_ft=(*marks, *(mark + 0.01 for mark in marks)),
        heat=NO_HEAT if heat is None else heat.shared(exposed.heated.heat_share),
    )


def drilling_cases(well: Well, string: LaidString, exposed: Exposure, mud_ppg: float) -> Iterator[Found]:
    """What drilling through a string does to it, by the methods of policy."""
    policy = well.policy.pipe
    outside = with_salt(well, string, mud_behind(well, string, mud_ppg))
    if not exposed.through:
        return
    if policy.burst_method == "gas to surface":
        yield _gas_to_surface(well, string, exposed)
    # under the sea a casing that loses its mud is filled by what stands in the riser or by the sea itself
    dry = string.role in ("conductor", "surface") and well.site.setting != "subsea"
    evacuated = policy.collapse_method == "evacuated" or (policy.collapse_method == "by role" and dry)
    if evacuated:
        yield LoadCase("evacuation", "collapse", "drilling", mud_column(0.0), outside)
    for below in exposed.through:
        if policy.burst_method == "gas over mud":
            yield _gas_over_mud(well, string, below)
        elif policy.burst_method == "kick volume":
            yield _kick(well, string, below)
        if not evacuated:
            yield _lost_returns(well, below, outside)


def _lost_returns(well: Well, below: LaidString, outside: Pressure) -> Found:
    level, mud = lowest_level_tvd_ft(well, below), below.mud_ppg
    if level is None or mud is None:
        return "collapse"
    return LoadCase(
        "lost returns",
        "collapse",
        "drilling",
        lambda z: hydrostatic_pressure(mud, np.maximum(np.asarray(z) - level, 0.0)),
        outside,
        marks_tvd_ft=(level,),
    )


def production_cases(well: Well, string: LaidString, exposed: Exposure, mud_ppg: float) -> Iterator[Found]:
    """What producing through a string does to it; with a packer, above it and below it."""
    service = exposed.service
    if exposed.produced_from is None or service is None:
        return
    outside = with_salt(well, string, mud_behind(well, string, mud_ppg))
    packer = service.packer_md_ft
    at = well.path.tvd(packer) if packer is not None else None
    heat = produced(well, string, exposed.produced_from)
    if heat is None:
        yield "temperature"
        heat = NO_HEAT
    shut_in, fluid = closed_in_psi(well, exposed), service.fluid_ppg
    standing = under_wellhead(well, 0.0, fluid)
    yield (
        LoadCase("evacuation", "collapse", "production", mud_column(0.0), outside)
        if at is None
        else LoadCase(
            "evacuated above the packer",
            "collapse",
            "production",
            lambda z: np.where(np.asarray(z) <= at, 0.0, standing(z)),
            outside,
            marks_tvd_ft=(at,),
        )
    )
    if at is not None:
        yield LoadCase(
            "drawn down below the packer",
            "collapse",
            "production",
            lambda z: np.where(np.asarray(z) <= at, standing(z), 0.0),
            outside,
            marks_tvd_ft=(at, at + 0.01),
            heat=heat,
        )
    if shut_in is None:
        yield "burst"
        return
    yield LoadCase(
        "tubing leak", "burst", "production", under_wellhead(well, shut_in, fluid), backup(well, string), heat=heat
    )
    treating, cooled = service.treating_psi, treated(well, string, service) or NO_HEAT
    if treating is not None:
        yield LoadCase(
            "stimulation",
            "burst",
            "production",
            under_wellhead(well, treating, fluid),
            backup(well, string),
            heat=cooled,
        )
