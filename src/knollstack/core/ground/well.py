"""The well as the rules use it: path, ground, window and policy of one design.

Wells are cached and compared by identity, so that what follows from the well alone (the proposal of depths) is
not worked again while only strings change.
"""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.fields import Part
from knollstack.core.base.remember import remembered
from knollstack.core.document.design import Design, GroundModel, Site, Trajectory
from knollstack.core.document.policy import DrillString, Policy
from knollstack.core.ground.profiles import Ground, build_ground
from knollstack.core.ground.window import Window, build_window
from knollstack.core.path.trajectory import Path, path_of


@dataclass(frozen=True, eq=False)
class Well:
    site: Site
    policy: Policy
    path: Path
    ground: Ground
    window: Window

    @property
    def ground_md_ft(self) -> float:
        """Depth of the ground, or of the mudline at sea, below the rig floor."""
        return self.site.rig_floor_ft + self.site.water_depth_ft

    @property
    def wellhead_tvd_ft(self) -> float:
        """TVD at which pressure at the wellhead is told: the sea floor's under the sea, else that of the surface, 0."""
        return self.ground_md_ft if self.site.setting == "subsea" else 0.0

    @property
    def top_words(self) -> str:
        """What the greatest pressure on a string is called, with its level."""
        under = self.site.setting == "subsea"
        return "Pressure at the wellhead on the sea floor" if under else "Surface pressure"

    @property
    def rig_words(self) -> str:
        """The level of a pressure that the rig's gauge reads, where that is not the wellhead's."""
        return " at the rig floor" if self.site.setting == "subsea" else ""

    @property
    def temperatures(self) -> list[tuple[float, float]]:
        """TVD [ft] and temperature [°F]: the profile, else a line from the ground to total depth; empty is unknown."""
        points = [(p.tvd_ft, p.temperature_f) for p in self.ground.model.temperature]
        if points:
            return points
        top, bottom = self.site.surface_temperature_f, self.site.bottom_temperature_f
        if top is None or bottom is None:
            return []
        return [(self.ground_md_ft, top), (self.path.total_tvd_ft, bottom)]

    @property
    def knows_pressures(self) -> bool:
        return self.ground.pore.known and self.ground.fracture.known

    def drill_string(self, hole_in: float) -> DrillString:
        """Drill pipe and collars for a hole size: the entry with the largest `from_hole_in` not above it."""
        rows = sorted(self.policy.mud.drill_strings, key=lambda d: d.from_hole_in)
        fits = [d for d in rows if d.from_hole_in <= hole_in] or rows[:1]
        return fits[-1]

    def kick_minimum_bbl(self, hole_in: float) -> float:
        """Least kick tolerance that policy asks in a hole size."""
        rows = sorted(self.policy.depths.kick_minimums, key=lambda k: k.from_hole_in)
        fits = [k for k in rows if k.from_hole_in <= hole_in]
        return fits[-1].volume_bbl if fits else 0.0


@remembered(32)
def _build(site: Site, groups: tuple[Part, ...], trajectory: Trajectory, ground_model: GroundModel) -> Well:
    policy = Policy.model_validate(dict(zip(Policy.model_fields, groups, strict=True)))
    path = path_of(trajectory)
    ground = build_ground(ground_model, policy.pipe.gas_psi_ft).held_to(path.deepest_tvd_ft)
    return Well(site, policy, path, ground, build_window(ground, policy.mud, path.deepest_tvd_ft))


def build_well(design: Design) -> Well:
    """The well of a design; parts that did not change since the last evaluation are not built again."""
    groups = tuple(getattr(design.policy, name) for name in Policy.model_fields)
    return _build(design.site, groups, design.trajectory, design.ground)
