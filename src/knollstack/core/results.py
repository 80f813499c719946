"""The shape of an evaluation: every number that follows from a design, step by step.

A step's word is its key here, its core module, its folder in the front end and its address. Rows of `strings`
and of each step's `strings` stand in the same order, conductor first. None is unknown.
"""

from __future__ import annotations

from knollstack.core.findings import Assumption, Finding, Result, State, Step
from knollstack.core.results_pipe import LinersResult, PipeResult
from knollstack.core.results_sizes import SizesResult
from knollstack.core.results_well import Basis, DepthsResult, GroundResult, MudResult, StringResult


class CementRow(Result):
    applies: bool
    top_md_ft: float | None = None
    slurry_ppg: float | None = None
    yield_ft3_sk: float | None = None
    water_gal_sk: float | None = None
    bentonite_percent: float | None = None
    excess: float | None = None
    cased_annulus_bbl: float | None = None
    open_annulus_bbl: float | None = None
    shoe_track_bbl: float | None = None
    rathole_bbl: float | None = None
    slurry_bbl: float | None = None
    sacks: float | None = None
    mix_water_bbl: float | None = None
    displacement_bbl: float | None = None
    greatest_emw_ppg: float | None = None
    fracture_ppg: float | None = None
    greatest_emw_md_ft: float | None = None
    float_differential_psi: float | None = None


class CementResult(Result):
    strings: tuple[CementRow, ...]


class PieceResult(Result):
    name: str
    string: str
    height_in: float
    gap_in: float
    bore_in: float
    bottom_psi: float | None
    top_psi: float
    flange: str | None
    needed_psi: float | None


class WellheadResult(Result):
    applies: bool
    pieces: tuple[PieceResult, ...]
    reference_height_in: float | None
    surface_cut_in: float | None
    conductor_cut_in: float | None
    surface_pressure_psi: tuple[float | None, ...]


class ElementResult(Result):
    element: str
    title: str
    height_in: float | None


class StackRow(Result):
    """The stack on this string while the next section is drilled; no elements when none is carried."""

    decided: bool
    pressure_psi: float | None
    class_psi: float | None
    bore_in: float | None
    flange: str | None
    elements: tuple[ElementResult, ...]
    height_in: float | None


class PreventersResult(Result):
    strings: tuple[StackRow, ...]


class StepState(Result):
    step: Step
    state: State


class Evaluation(Result):
    basis: Basis
    path: tuple[StepState, ...]
    strings: tuple[StringResult, ...]
    ground: GroundResult
    depths: DepthsResult
    sizes: SizesResult
    mud: MudResult
    pipe: PipeResult
    liners: LinersResult
    cement: CementResult
    wellhead: WellheadResult
    preventers: PreventersResult
    findings: tuple[Finding, ...]
    assumptions: tuple[Assumption, ...]
