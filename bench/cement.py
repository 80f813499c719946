"""A cement job of eight fluids in a well of 12,000 ft followed in time, against a plain loop moment by moment."""

from __future__ import annotations

import numpy as np

from bench.ground import best_ms, once_ms
from knollstack.core.base.constants import GAL_PER_BBL, PSI_PER_PPG_FT
from knollstack.core.cement.balance import Balance
from knollstack.core.cement.checks import Worked, worked
from knollstack.core.cement.conduit import Conduit, Stretch
from knollstack.core.cement.rheology import Law
from knollstack.core.cement.simulate import PIECES, follow
from knollstack.core.cement.stage import Pumped, Stage
from knollstack.core.document.cementing import FluidKind, JobStep
from knollstack.core.document.design import Station, Trajectory
from knollstack.core.mud.formulas import annular_velocity
from knollstack.core.mud.pipe_flow import bore_velocity
from knollstack.core.path.trajectory import path_of

FLUIDS: tuple[tuple[FluidKind, float, float, float, float], ...] = (
    ("flush", 8.6, 30.0, 2.0, 1.0),
    ("spacer", 10.6, 60.0, 14.0, 10.0),
    ("spacer", 11.2, 40.0, 16.0, 12.0),
    ("lead", 12.6, 220.0, 20.0, 12.0),
    ("lead", 13.4, 120.0, 24.0, 12.0),
    ("tail", 15.8, 160.0, 44.0, 8.0),
    ("displacement", 9.4, 300.0, 12.0, 8.0),
    ("displacement", 9.4, 542.1, 12.0, 8.0),
)
"""Kind, density, volume, plastic viscosity and yield point."""


def job() -> Stage:
    path = path_of(Trajectory(stations=(Station(md_ft=0.0), Station(md_ft=12_000.0))))
    annulus = (Stretch(0.0, 4000.0, 12.415, 9.625), Stretch(4000.0, 12_000.0, 12.25, 9.625, 0.2))
    way = Conduit(path, (Stretch(0.0, 12_000.0, 8.535),), annulus, 1.5, 11_920.0, False, 0.0)
    fluids = tuple(Pumped(k, k, d, Law("Bingham", (p, y)), v, 6.0, None, False) for k, d, v, p, y in FLUIDS)
    steps = ((630.0, 6.0, 5.0), (800.0, 8.0, 0.0), (42.1, 2.0, 0.0))
    made = tuple(JobStep(volume_bbl=v, rate_bpm=r, stop_minutes=s) for v, r, s in steps)
    return Stage(1, way, 9.4, Law("Bingham", (12.0, 8.0)), fluids, made)


class Plain:
    """One number at a time: columns by boundary, friction by the formulas, and the return rate by halving."""

    def __init__(self, stage: Stage) -> None:
        self.stage, self.edges = stage, stage.edges_bbl
        self.density = [stage.mud_ppg, *(f.density_ppg for f in stage.fluids)]
        self.laws = [stage.mud_law, *(f.law for f in stage.fluids)]

    def left_psi(self, moved: float, empty: float, out: float) -> float:
        """Inside less outside less friction, fluid by fluid and stretch by stretch."""
        way, total = self.stage.conduit, 0.0
        ends = [way.whole_bbl, *(moved - e for e in self.edges[:-1]), 0.0]
        start = way.pipe_bbl + way.rathole_bbl
        for k, law in enumerate(self.laws):
            low, high = (min(max(e, empty), way.pipe_bbl) for e in (ends[k + 1], ends[k]))
            if high > low:
                total += self._part(law, self.density[k], way.pipe, *way.pipe_md_ft(np.array([low, high])), out, 1)
            low, high = (min(max(e, start), way.whole_bbl) for e in (ends[k + 1], ends[k]))
            if high > low:
                total += self._part(
                    law, self.density[k], way.annulus, *way.annulus_md_ft(np.array([high, low])), out, -1
                )
        return total - way.back_psi

    def _part(
        self, law: Law, density: float, stretches: tuple[Stretch, ...], top: float, base: float, out: float, side: int
    ) -> float:
        found = side * PSI_PER_PPG_FT * density * (base - top)
        for s in stretches:
            length = min(base, s.base_md_ft) - max(top, s.top_md_ft)
            if length > 0 and out > 0:
                found -= length * self._gradient(law, density, s, out * GAL_PER_BBL)
        return found

    def _gradient(self, law: Law, density: float, s: Stretch, flow: float) -> float:
        if s.inner_in:
            speed = annular_velocity(flow, s.outer_in, s.inner_in)
            return float(law.annulus_psi_ft(speed, density, s.outer_in, s.inner_in))
        return float(law.bore_psi_ft(bore_velocity(flow, s.outer_in), density, s.outer_in))

    def follow(self, times: list[float], pumped: list[float], rates: list[float]) -> list[float]:
        """Pump pressure at given moments; the pipe may run empty between two of them."""
        void, found = 0.0, [0.0]
        for k in range(1, len(times)):
            minutes, moved = times[k] - times[k - 1], pumped[k - 1] + void
            if not void and (full := -self.left_psi(pumped[k], 0.0, rates[k])) >= 0:
                found.append(full)
                continue
            low, high = max(0.0, rates[k] - void / minutes), 40.0
            for _ in range(30):
                out = (low + high) / 2
                after = max(void + (out - rates[k]) * minutes, 0.0)
                low, high = (out, high) if self.left_psi(moved + out * minutes, after, out) > 0 else (low, out)
            void = max(void + (low - rates[k]) * minutes, 0.0)
            void = void if void > 1e-4 else 0.0
            found.append(0.0 if void else max(-self.left_psi(pumped[k], 0.0, rates[k]), 0.0))
        return found


def _error_psi(held: Worked, exact: list[float]) -> float:
    """How far pump pressure lies from the plain loop's, whose friction is not tabled, where the pump has hold of the fluids."""
    course = held.course
    firm = (course.pump_psi > 0) & (np.array(exact) > 0)
    return float(np.max(np.abs(course.pump_psi - exact)[firm]))


def main() -> None:
    stage = job()
    held = worked(stage)
    course = held.course
    plain = Plain(stage)
    moments = course.minutes.tolist(), course.pumped_bbl.tolist(), course.in_bpm.tolist()
    ours, loop, exact = best_ms(lambda: worked(stage)), once_ms(lambda: plain.follow(*moments)), plain.follow(*moments)
    fine = follow(stage, Balance(stage), 16 * PIECES)
    print("cement job, 12,000 ft, 8 fluids")
    print(f"  followed, with both sides' pressures  {ours:8.1f} ms  {len(course.minutes)} moments")
    print(f"  plain loop, pump pressure alone       {loop:8.1f} ms  {loop / ours:.0f} times as long")
    print(f"  pump pressure off by                  {_error_psi(held, exact):8.3f} psi where the pump has hold")
    print(
        f"  level of free fall off by             {abs(course.empty_bbl.max() / fine.empty_bbl.max() - 1) * 100:8.3f} %"
    )


if __name__ == "__main__":
    main()
