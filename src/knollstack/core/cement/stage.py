"""One stage of a job: the way its fluids take, what is pumped in which order, and where its plugs are."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from knollstack.core.cement.conduit import Conduit
from knollstack.core.cement.rheology import Law
from knollstack.core.document.cementing import SLURRIES, FluidKind, JobStep


@dataclass(frozen=True)
class Pumped:
    """One fluid of a stage as it is pumped; `row` is its place in the document's fluids, None where it is proposed."""

    kind: FluidKind
    name: str
    density_ppg: float
    law: Law
    volume_bbl: float
    rate_bpm: float
    row: int | None
    assumed: bool
    """Its rheology is that of policy."""


@dataclass(frozen=True, eq=False)
class Stage:
    """One stage of a job: its way, the mud in it before, what is pumped, and the steps of pumping."""

    number: int
    conduit: Conduit
    mud_ppg: float
    mud_law: Law
    fluids: tuple[Pumped, ...]
    steps: tuple[JobStep, ...]
    plugs_md_ft: float = 0.0
    """Where the plugs wait: 0 at the cementing head, else under the landing string, to be released by darts."""
    bottom_plug: bool = True
    """A liner's wiper plug has none ahead of the slurry."""

    @cached_property
    def edges_bbl(self) -> tuple[float, ...]:
        """Volumes pumped before each fluid, and after the last."""
        found = [0.0]
        for fluid in self.fluids:
            found.append(found[-1] + fluid.volume_bbl)
        return tuple(found)

    @cached_property
    def plug_bbl(self) -> float:
        """What is pumped before the top plug: all as far as the last slurry."""
        slurries = [i for i, fluid in enumerate(self.fluids) if fluid.kind in SLURRIES]
        return self.edges_bbl[slurries[-1] + 1] if slurries else 0.0

    @cached_property
    def bottom_dart_bbl(self) -> float:
        """What has moved when the dart ahead of the first slurry latches."""
        return self._first_bbl + self.conduit.to_md_bbl(self.plugs_md_ft)

    @cached_property
    def top_dart_bbl(self) -> float:
        """What has moved when the dart behind the last slurry latches."""
        return self.plug_bbl + self.conduit.to_md_bbl(self.plugs_md_ft)

    @cached_property
    def _first_bbl(self) -> float:
        """What is pumped before the first slurry."""
        return self.edges_bbl[next((i for i, fluid in enumerate(self.fluids) if fluid.kind in SLURRIES), 0)]

    @cached_property
    def bottom_plug_bbl(self) -> float:
        """What has moved when the bottom plug, ahead of the first slurry, lands."""
        return self._first_bbl + self.conduit.to_md_bbl(self.conduit.seat_md_ft)

    @cached_property
    def bump_bbl(self) -> float:
        """What is pumped when the top plug lands."""
        return self.plug_bbl + self.conduit.to_md_bbl(self.conduit.seat_md_ft)

    @property
    def track_bbl(self) -> float:
        """Between the seat of the plug and where the fluids come out."""
        return self.conduit.pipe_bbl - self.conduit.to_md_bbl(self.conduit.seat_md_ft)

    @property
    def short_bbl(self) -> float:
        """Displacement that is wanting when the schedule ends; below 0 it is more than is needed."""
        return self.bump_bbl - self.edges_bbl[-1]
