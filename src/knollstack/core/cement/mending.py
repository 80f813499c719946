"""What mends a job: slower pumping, heavier fluids, and the ways out of a column that breaks the rock; each tried on the job."""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Callable, Iterator

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import Remedy, emw, percent, pressure, remedy
from knollstack.core.cement.checks import Worked, float_psi, hanging_lbf, pipe_nearest
from knollstack.core.cement.closing import closed
from knollstack.core.cement.conduit import Bores
from knollstack.core.cement.job import HELD, Followed, Verdict, fastest_share, job_of
from knollstack.core.cement.train import Missing, rows_of, usual_rates
from knollstack.core.cement.trying import changed, tried
from knollstack.core.cement.ways import ways_out
from knollstack.core.document.cementing import FluidKind
from knollstack.core.ground.well import Well
from knollstack.core.program.column import Column, bump_over_psi, column_of
from knollstack.core.program.equipped import EquippedString

DENSITY_STEP_PPG = 0.5
MOST_DENSITIES, MOST_PPG = 16, 30.0
LEAST_BPM = 0.1
BUMP_STEP_PSI = 50.0


def _heavier_than(light: list[float]) -> list[float]:
    """Densities to try over the lightest of some, as far as a fluid may have them."""
    tried = [round(min(light) + k * DENSITY_STEP_PPG, 2) for k in range(1, MOST_DENSITIES + 1)] if light else []
    return [density for density in tried if density <= MOST_PPG]


class Mending:
    """Remedies for one string's job."""

    def __init__(self, well: Well, string: EquippedString, bores: Bores) -> None:
        self.well, self.string, self.bores = well, string, bores

    def tried(self, offered: Remedy) -> Verdict:
        return tried(self.well, self.string, self.bores, offered)

    def ways(self, *, at_rest: bool = True) -> Iterator[Remedy]:
        """Ways out of rock that breaks: under the column at rest already, or only while it is pumped."""
        column = column_of(self.well, self.string)
        if column is not None:
            yield from ways_out(self.well, self.string, column, self.tried, self.friction_ppg(column), at_rest=at_rest)

    def friction_ppg(self, column: Column) -> float:
        """What the job as it is adds to the column at rest where it is nearest to breaking the rock."""
        job = job_of(self.well, self.string, self.bores)
        near = [] if isinstance(job, Missing) else [f.fracture for f in job if f.fracture is not None]
        added = [0.0]
        for at in near:
            tvd = self.well.path.tvd(at.md_ft)
            added.append(at.value / (PSI_PER_PPG_FT * tvd) - float(column.emw_ppg(tvd)))
        return max(added)

    def slower(self, stage: Followed) -> Iterator[Remedy]:
        """A share of the rates decided, in the document's own rows."""
        share = None if usual_rates(self.string) else fastest_share(self.well, self.string, stage.worked.stage)
        if share is None:
            return
        own = self.string.own.cement
        changes = tuple(
            self.string.change(f"cement/{rows}/{i}/rate_bpm", round(row.rate_bpm * share, 3))
            for rows in ("fluids", "steps")
            for i, row in enumerate(getattr(own, rows))
            if row.rate_bpm is not None and row.stage == stage.worked.stage.number
        )
        if all(change.value >= LEAST_BPM for change in changes):
            yield remedy(changes, "Pump at ", percent(100 * share), " of these rates")

    def softer(self, stage: Followed) -> Iterator[Remedy]:
        """A lower bump over the final pressure, in steps, as far as nothing."""
        most = bump_over_psi(self.well, self.string.laid)
        for k in range(math.ceil(most / BUMP_STEP_PSI) - 1, -1, -1):
            psi = k * BUMP_STEP_PSI
            burst = pipe_nearest(self.well, self.string, closed(stage.worked, psi).worked, "burst")
            if burst is not None and burst.left >= HELD:
                words = ("Bump the plug with ", pressure(psi), " over the final pressure")
                yield remedy(self.string.change("cement/bump_psi", psi), *words)
                return

    def heavier(self, stage: Followed, kinds: tuple[FluidKind, ...]) -> Iterator[Remedy]:
        """Flushes and spacers, or the displacement, as heavy as is needed."""
        light = [fluid.density_ppg for fluid in stage.worked.stage.fluids if fluid.kind in kinds]
        densities = _heavier_than(light)
        if not densities or self.tried(self._at_least(stage, densities[-1], kinds)).light:
            return
        least = bisect_left(
            densities[:-1], True, key=lambda ppg: not self.tried(self._at_least(stage, ppg, kinds)).light
        )
        offered = self._at_least(stage, densities[least], kinds)
        if self.tried(offered).stands:
            yield offered

    def sunk(self, stage: Followed) -> Iterator[Remedy]:
        """A displacement so heavy that the string no longer floats."""
        return self._displaced(stage, lambda string, held: hanging_lbf(self.well, string, held) >= 0)

    def held_by_float(self, stage: Followed) -> Iterator[Remedy]:
        """A displacement so heavy that the float holds what is left."""
        return self._displaced(stage, lambda _, held: float_psi(held) <= self.well.policy.cement.float_psi)

    def _displaced(self, stage: Followed, enough: Callable[[EquippedString, Worked], bool]) -> Iterator[Remedy]:
        """The least heavier displacement that is enough, and with which the job stands."""
        light = [fluid.density_ppg for fluid in stage.worked.stage.fluids if fluid.kind == "displacement"]
        for density in _heavier_than(light):
            offered = self._at_least(stage, density, ("displacement",))
            heavier = changed(self.well, self.string, offered)
            job = job_of(self.well, heavier, self.bores)
            if isinstance(job, Missing):
                return
            if enough(heavier, job[stage.worked.stage.number - 1].worked):
                if all(found.held() for found in job):
                    yield offered
                return

    def _at_least(self, stage: Followed, density_ppg: float, kinds: tuple[FluidKind, ...]) -> Remedy:
        number, held = stage.worked.stage.number, stage.worked.stage.fluids
        rows, at = [], 0
        for row in rows_of(self.string):
            if row.stage == number:
                if row.kind in kinds and held[at].density_ppg < density_ppg:
                    row = row.model_copy(update={"density_ppg": density_ppg})
                at += 1
            rows.append(row.model_dump())
        what = "displacement" if kinds == ("displacement",) else "spacer"
        return remedy(self.string.change("cement/fluids", rows), "Use a ", emw(density_ppg), f" {what}")
