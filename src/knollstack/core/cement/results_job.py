"""One string's job moment by moment: what its view draws and reads."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words
from knollstack.core.document.cementing import FluidKind


class DrawnFluid(Result):
    """A fluid as it is drawn; the first of a stage is the mud that was there."""

    kind: FluidKind | Literal["mud"]
    name: str
    density_ppg: float


class DrawnStretch(Result):
    """A length of one size: of pipe, or of annulus around it."""

    top_md_ft: float
    base_md_ft: float
    outer_in: float
    inner_in: float


class RockTrack(Result):
    """Of every depth of the open hole, the most and the least that the annulus has there during the job, beside the rock."""

    md_ft: tuple[float, ...]
    now_ppg: tuple[tuple[float, ...], ...]
    """By moment."""
    greatest_ppg: tuple[float, ...]
    least_ppg: tuple[float, ...]
    fracture_ppg: tuple[float | None, ...]
    pore_ppg: tuple[float | None, ...]


class JobEvent(Result):
    """Something that happens: when, and what it is called."""

    moment: int
    words: Words


class StageDetail(Result):
    """One stage by moments. Boundaries run down the pipe and down the annulus: fluids from the last pumped, and from the mud.

    Pressures stand at the boundaries and at fixed depths: between two of both they are straight.
    """

    number: int
    inner: bool
    returns_md_ft: float
    end_md_ft: float
    seat_md_ft: float
    plugs_md_ft: float
    """Where the plugs wait; 0 is the cementing head."""
    bottom_plug: bool
    fluids: tuple[DrawnFluid, ...]
    pipe: tuple[DrawnStretch, ...]
    annulus: tuple[DrawnStretch, ...]
    first_slurry: int
    """Place of the first slurry among the fluids: the bottom plug goes ahead of it."""
    last_slurry: int
    closing: int
    """The first moment of the closed stage: the plug bumped, where it lands, a test on green cement, the pressure bled back."""
    minutes: tuple[float, ...]
    pumped_bbl: tuple[float, ...]
    in_bpm: tuple[float, ...]
    out_bpm: tuple[float, ...]
    pump_psi: tuple[float, ...]
    level_md_ft: tuple[float, ...]
    shoe_ppg: tuple[float, ...]
    weakest_ppg: tuple[float, ...]
    weakest_md_ft: float | None
    weakest_fracture_ppg: float | None
    pipe_md_ft: tuple[tuple[float, ...], ...]
    pipe_psi: tuple[tuple[float, ...], ...]
    annulus_md_ft: tuple[tuple[float, ...], ...]
    annulus_psi: tuple[tuple[float, ...], ...]
    nodes_md_ft: tuple[float, ...]
    node_pipe_psi: tuple[tuple[float, ...], ...]
    node_annulus_psi: tuple[tuple[float, ...], ...]
    rock: RockTrack | None
    events: tuple[JobEvent, ...]


class JobDetail(Result):
    """`missing` says why a job cannot be followed; it has no stages then."""

    stages: tuple[StageDetail, ...]
    missing: str | None
    place: str | None
