"""The pressure at the top of a string in every stage of its life: drilled through, tested, treated, produced through."""

from __future__ import annotations

from typing import Literal, NamedTuple

from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import Exposure
from knollstack.core.pipe.formulas import casing_test_pressure
from knollstack.core.pipe.judge import exposed_of
from knollstack.core.pipe.surface import closed_in_psi, drilling_surface_psi
from knollstack.core.program.equipped import Equipped, EquippedString

Stage = Literal["drilling", "casing test", "treatment", "production"]


class StagePressure(NamedTuple):
    stage: Stage
    psi: float | None


def method_of(well: Well) -> str | None:
    """The method of wellhead and preventers, where it is not the pipe's."""
    method = well.policy.preventers.surface_method
    return None if method == "as for pipe" else method


def stage_pressures(equipped: Equipped, string: EquippedString) -> tuple[StagePressure, ...]:
    """Each stage that the top of a string goes through; a pressure is None where it is unknown."""
    return _stages(equipped.well, string, exposed_of(equipped, string))


@remembered(128, traced=True)
def _stages(well: Well, string: EquippedString, exposed: Exposure) -> tuple[StagePressure, ...]:
    found: list[StagePressure] = []
    top = well.wellhead_tvd_ft
    with headline(f"wellhead/{string.index}/surface_pressure"):
        if exposed.through:
            found.append(StagePressure("drilling", drilling_surface_psi(well, exposed.through, method_of(well), top)))
        if exposed.produced_from is not None:
            found.append(StagePressure("production", closed_in_psi(well, exposed)))
        test = string.own.test_psi
        known = [psi for _, psi in found if psi is not None]
        if test is None and known and len(known) == len(found) and string.role != "conductor":
            test = float(casing_test_pressure(max(known), well.policy.pipe.test_share))
    if test is not None:
        found.append(StagePressure("casing test", test))
    if exposed.service is not None and exposed.service.treating_psi is not None:
        found.append(StagePressure("treatment", exposed.service.treating_psi))
    return tuple(found)


def at_rig_psi(equipped: Equipped, string: EquippedString) -> float | None:
    """What the choke manifold sees with gas up to the rig while holes are drilled through a string; None where none is,
    on land, where that is the pressure at the wellhead, or where it is unknown."""
    well, through = equipped.well, exposed_of(equipped, string).through
    if not well.wellhead_tvd_ft or not through:
        return None
    with headline(f"preventers/{string.index}/rig_pressure"):
        return drilling_surface_psi(well, through, method_of(well))


def greatest_psi(stages: tuple[StagePressure, ...], *, treated: bool = True) -> float | None:
    """The greatest of a string's stages; None where one is unknown. Preventers are off when a well is treated."""
    found = [psi for stage, psi in stages if treated or stage != "treatment"]
    known = [psi for psi in found if psi is not None]
    return max(known) if known and len(known) == len(found) else None
