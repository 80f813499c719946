"""The well of a rehearsal as the design has it: hole, string, pumps, rock, stack; the formation still in balance."""

from __future__ import annotations

import math

from knollstack.core.base.constants import GAL_PER_BBL, PSI_PER_PPG_FT
from knollstack.core.drills.elements import elements_of
from knollstack.core.drills.formulas import radial_inflow
from knollstack.core.drills.geometry import Line
from knollstack.core.drills.hole import (
    JOINT_FT,
    Slow,
    annulus_friction,
    bores_of,
    friction_parts,
    law,
    slow_of,
    tubes_of,
)
from knollstack.core.drills.scene import Scene
from knollstack.core.drills.scenes import only_diverter
from knollstack.core.drills.setup import Pumps, Rock, Setup
from knollstack.core.drills.volumes import CHOKE_LINE_IN
from knollstack.core.ground.well import Well
from knollstack.core.preventers.results import StackRow
from knollstack.core.program.equipped import Equipped, EquippedString

GAS_VISCOSITY_CP, DRAINAGE_FT = 0.025, 660.0
"""Of the kicking reservoir: planning values."""
MOST_ROCK = 8
LINE_STEPS = 60
PUMPS_OVER_SLOW = 3.0
MOST_OVER_SLOW = 4.0
RELIEF_PSI, RELIEF_SHARE = 5_000.0, 1.2
"""The pumps' relief valve: no lower than the pressure of drilling with a share over it."""
FLOWS = {"basic": 0.6, "standard": 1.0, "demanding": 1.6}
"""Share of the inflow of policy's rock."""


def setup_of(equipped: Equipped, stack: StackRow, below: EquippedString, scene: Scene) -> Setup:
    well, mud = equipped.well, below.mud_ppg
    assert mud is not None
    slow, tubes, bores = slow_of(equipped, below), tubes_of(equipped, below), bores_of(equipped, below, scene.md_ft)
    assert bores is not None
    assert slow.psi is not None
    at_sea = well.site.setting == "subsea"
    stack_md = well.ground_md_ft if at_sea else max(2.0, well.site.rig_floor_ft - (stack.reach_ft or 0.0) / 2)
    bores = tuple((max(top, stack_md), bottom, size) for top, bottom, size in bores if bottom > stack_md)
    friction = annulus_friction(law(equipped, below), mud, slow.gpm, tubes, {bore for *_, bore in bores})
    tvd = well.path.tvd(scene.md_ft)
    return Setup(
        depths=_line(well, scene.md_ft),
        heat=_heat(well),
        bores=bores,
        over_in=well.policy.mud.riser_id_in if at_sea else bores[0][2],
        stack_md_ft=stack_md,
        hole_md_ft=scene.md_ft,
        string=tubes,
        bit_md_ft=scene.md_ft,
        joint_ft=JOINT_FT,
        mud_ppg=mud,
        friction=friction,
        choke_line_in=CHOKE_LINE_IN,
        choke_line_psi=(well.site.choke_line_psi or 0.0) if at_sea else 0.0,
        pumps=_pumps(equipped, slow, below),
        rock=_rock(well, below, scene.md_ft),
        shoe_md_ft=below.previous_shoe_md_ft,
        pore_psi=PSI_PER_PPG_FT * mud * tvd,
        inflow_bpm_psi=float(
            radial_inflow(
                well.policy.drills.permeability_md,
                well.policy.drills.exposed_ft,
                1.0,
                GAS_VISCOSITY_CP,
                DRAINAGE_FT,
                bores[-1][2],
            )
        )
        * FLOWS[scene.difficulty],
        gas_sg=min(max(well.policy.pipe.gas_sg, 0.55), 1.2),
        slip_ft_min=well.policy.drills.slip_ft_min,
        elements=elements_of(well, stack, below, stack_md, tubes),
        choke_at=stack.choke,
        pit_bbl=well.policy.mud.active_volume_bbl,
        class_psi=stack.class_psi,
        at_sea=at_sea,
        diverter=only_diverter(stack),
    )


def _line(well: Well, md_ft: float) -> Line:
    """The path, straight between points that stand dense where it turns."""
    marks = [float(m) for m in well.path.marks_md_ft if 0 < m < md_ft]
    if not well.path.is_straight:
        marks += [md_ft * k / LINE_STEPS for k in range(1, LINE_STEPS)]
    points = sorted({0.0, *marks, md_ft})
    return Line(tuple(points), tuple(well.path.tvd(p) for p in points))


def _heat(well: Well) -> Line:
    rows = well.temperatures or [(0.0, 70.0), (10_000.0, 220.0)]
    return Line(tuple(tvd for tvd, _ in rows), tuple(f for _, f in rows))


def _pumps(equipped: Equipped, slow: Slow, below: EquippedString) -> Pumps:
    """Pumps at the rate of the hole, or three times the slow rate; friction grows as the hole's mud has it between both."""
    assert slow.psi is not None
    drilling = slow.spm * PUMPS_OVER_SLOW
    if below.own.flow_gpm:
        drilling = max(below.own.flow_gpm / slow.bbl_stroke / GAL_PER_BBL, slow.spm)
    powers, psi = (2.0, 1.0), slow.psi * (drilling / slow.spm) ** 2
    found, gpm = law(equipped, below), drilling * slow.bbl_stroke * GAL_PER_BBL
    if found is not None and drilling > slow.spm:
        whole = [friction_parts(equipped, below, rate) for rate in (slow.gpm, gpm)]
        (string, annulus), (fast_string, fast_annulus) = whole
        span = math.log(drilling / slow.spm)
        powers = (
            min(max(math.log(fast_string / string) / span, 1.0), 2.0),
            min(max(math.log(fast_annulus / annulus) / span, 0.1), 2.0) if annulus > 0 else 1.0,
        )
        psi = slow.psi * (drilling / slow.spm) ** powers[0]
    return Pumps(
        slow.bbl_stroke,
        slow.spm,
        drilling,
        max(drilling, slow.spm * MOST_OVER_SLOW),
        slow.psi,
        powers[0],
        powers[1],
        max(RELIEF_PSI, RELIEF_SHARE * psi),
    )


def _rock(well: Well, below: EquippedString, md_ft: float) -> tuple[Rock, ...]:
    """The shoe, and the weakest of the depths below it where fracture pressure turns."""
    shoe = below.previous_shoe_md_ft
    marks = [float(m) for m in well.path.md_at(well.window.depths_ft) if shoe < m < md_ft]
    found = []
    for md in (shoe, *marks, md_ft):
        tvd = well.path.tvd(md)
        fracture = well.ground.fracture.lower_at(tvd)
        found.append(Rock(md, tvd, float(fracture) * PSI_PER_PPG_FT * tvd))
    mud = below.mud_ppg or 0.0
    spare = sorted(found[1:], key=lambda r: r.fracture_psi - PSI_PER_PPG_FT * mud * r.tvd_ft)
    return (found[0], *sorted(spare[: MOST_ROCK - 1], key=lambda r: r.md_ft))
