"""The working of a string's governing numbers: the same formulas again, alone, at the governing point."""

from __future__ import annotations

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formulas import safety_factor
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.ratings import (
    derated_yield,
    equivalent_external_pressure,
    pipe_body_yield,
    pipe_collapse,
    pipe_internal_yield,
    von_mises,
    worn_wall,
)
from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.cases import LoadCase
from knollstack.core.pipe.formulas import (
    areas_in2,
    ballooning_force,
    bending_force,
    burst_load,
    closed_end_force,
    hanging_force,
    running_tension,
    shock_load,
    thermal_force,
    weight_with_other_fluid,
)
from knollstack.core.pipe.judged import Judged, Point
from knollstack.core.pipe.results import LoadKind
from knollstack.core.pipe.strength import MINIMUM_WALL, worn_body_lbf

SAME_PSI = 1e-6


class Explained:
    """One governing point worked again with plain numbers, so that the working is the calculation."""

    def __init__(self, policy: PipePolicy, judged: Judged, point: Point) -> None:
        frame = judged.frame
        self.policy, self.judged, self.frame, self.point = policy, judged, frame, point
        self.pipe: Pipe = judged.sections[point.section].pipe
        self.case: LoadCase = frame.cases[point.case]
        self.tvd = float(frame.tvd_ft[point.node])
        self.dogleg = float(frame.dogleg_deg_100ft[point.node])
        self.wear = frame.string.own.wear_percent

    def yield_psi(self) -> float:
        if self.frame.hottest_f is None or not self.policy.derate_per_f:
            return self.pipe.grade.yield_psi
        hottest = float(self.frame.hottest_f[self.point.node])
        return float(derated_yield(self.pipe.grade.yield_psi, self.policy.derate_per_f, hottest))

    def wall_in(self) -> float:
        return float(worn_wall(self.pipe.wall_in, self.wear)) if self.wear else self.pipe.wall_in

    def pressures(self) -> tuple[float, float]:
        return float(self.case.internal_psi(self.tvd)), float(self.case.external_psi(self.tvd))

    def axial_lbf(self) -> float:
        """Real axial force in the case, bending apart."""
        frame, size = self.frame, (self.pipe.od_in, self.pipe.wall_in)
        c, m = self.point.case, self.point.node
        below = float(self.judged.below_lbf[m])
        if self.case.free:
            inside, shoe = float(self.case.internal_psi(self.tvd)), float(frame.shoe_outside_psi[c])
            below = self._with_fluid(below, float(frame.shoe_inside_psi[c]), inside)
            force = float(hanging_force(below, inside, shoe, *size))
            if frame.added_lbf[c, m]:
                force = float(running_tension(force, float(frame.added_lbf[c, m])))
            if self.case.shock_ft_s:
                force += float(shock_load(self.case.shock_ft_s, float(areas_in2(*size)[2])))
            return force
        at_set = float(frame.set_inside_psi[m])
        below = self._with_fluid(below, float(frame.set_inside_psi[-1]), at_set)
        force = float(hanging_force(below, at_set, float(frame.set_outside_psi[-1]), *size))
        if frame.free_top[c, m]:
            force += float(closed_end_force(*size, float(frame.inside_psi[c, m]) - at_set))
        else:
            changes = float(frame.inside_change_psi[c, m]), float(frame.outside_change_psi[c, m])
            force += float(ballooning_force(*size, *changes))
        if frame.added_lbf[c, m]:
            force = float(running_tension(force, float(frame.added_lbf[c, m])))
        if frame.heat_f[c, m]:
            force += float(thermal_force(*size, float(frame.heat_f[c, m])))
        return force

    def _with_fluid(self, below_lbf: float, shoe_psi: float, inside_psi: float) -> float:
        """The weight below with what stands inside; as it is where that is the mud."""
        height, mud = float(self.frame.below_tvd_ft[self.point.node]), self.frame.mud_ppg
        if abs(shoe_psi - inside_psi - PSI_PER_PPG_FT * mud * height) < SAME_PSI:
            return below_lbf
        size = self.pipe.od_in, self.pipe.wall_in
        return float(weight_with_other_fluid(below_lbf, shoe_psi, inside_psi, mud, height, *size))

    def bent_lbf(self) -> float:
        if not self.dogleg:
            return 0.0
        steel = float(areas_in2(self.pipe.od_in, self.pipe.wall_in)[2])
        return float(bending_force(self.pipe.od_in, self.dogleg, steel))

    def internal_rating_psi(self) -> float:
        """The least of body, coupling and leak resistance."""
        pipe, share = self.pipe, float(self.frame.yield_share[self.point.node])
        least = min(pipe.coupling_psi or 0.0, pipe.leak_psi or 0.0)
        body = pipe.own.burst_psi or float(pipe_internal_yield(pipe.od_in, self.wall_in(), self.yield_psi()))
        return min(body, least * share)

    def required(self, kind: LoadKind) -> float:
        """The factor that policy asks of a kind here."""
        if kind == "collapse":
            return float(self.frame.collapse_required[self.point.case, self.point.node])
        return float(getattr(self.policy.factors, kind))

    def work(self, kind: LoadKind) -> tuple[float, float, float]:
        """Load, rating and safety factor of a kind at this point."""
        load, rating = getattr(self, f"_{kind}")()
        return load, rating, float(safety_factor(rating, load))

    def _burst(self) -> tuple[float, float]:
        return float(burst_load(*self.pressures())), self.internal_rating_psi()

    def _collapse(self) -> tuple[float, float]:
        inside, outside = self.pressures()
        pipe, wall = self.pipe, self.wall_in()
        load = float(equivalent_external_pressure(outside, inside, pipe.od_in, wall))
        stress = self.axial_lbf() / float(areas_in2(pipe.od_in, pipe.wall_in)[2])
        scale = float(self.judged.side.collapse_scale[self.point.section, 0, 0])
        return load, float(pipe_collapse(pipe.od_in, wall, self.yield_psi(), stress)) * scale

    def _tension(self) -> tuple[float, float]:
        load = self.axial_lbf() + self.bent_lbf()
        return load, self._held_lbf(self.pipe.joint_lbf)

    def _compression(self) -> tuple[float, float]:
        return self.bent_lbf() - self.axial_lbf(), self._held_lbf(self.pipe.push_lbf)

    def _held_lbf(self, joint_lbf: float | None) -> float:
        """The lesser of body, as worn, and joint."""
        pipe, share = self.pipe, float(self.frame.yield_share[self.point.node])
        if pipe.own.body_lbf is None:
            body = float(pipe_body_yield(pipe.od_in, self.wall_in(), self.yield_psi()))
        else:
            body = worn_body_lbf(pipe, self.wear) * share
        return min(body, (joint_lbf or 0.0) * share)

    def _triaxial(self) -> tuple[float, float]:
        wall = self.wall_in() * (MINIMUM_WALL if self.policy.triaxial_wall == "minimum" else 1.0)
        stress = von_mises(self.pipe.od_in, wall, *self.pressures(), self.axial_lbf(), self.dogleg)
        return float(stress), self.yield_psi()
