"""The shape of an evaluation: every number that follows from a design, step by step.

A step's word is its key here, its room in the core, its folder in the front end and its address. Rows of `strings`
and of each step's `strings` stand in the same order, conductor first. None is unknown.
"""

from __future__ import annotations

from knollstack.core.base.findings import Assumption, Finding, Result, State, Step
from knollstack.core.cement.results import CementResult
from knollstack.core.completion.results import CompletionResult
from knollstack.core.depths.results import DepthsResult
from knollstack.core.drills.results import DrillsResult
from knollstack.core.ground.results import GroundResult
from knollstack.core.logbook.results import LogbookResult
from knollstack.core.mud.results import MudResult
from knollstack.core.pipe.results import PipeResult
from knollstack.core.preventers.results import PreventersResult
from knollstack.core.proposal.results import LinersResult
from knollstack.core.running.results import RunningResult
from knollstack.core.runsheet.results import RunsheetResult
from knollstack.core.sea.results import SeaResult
from knollstack.core.sizes.results import SizesResult
from knollstack.core.wellhead.results import WellheadResult


class Basis(Result):
    total_md_ft: float
    total_tvd_ft: float
    ground_md_ft: float
    at_sea: bool
    sea_level_md_ft: float
    """Depth of the sea's surface below the rotary; the ground's on land."""
    temperature_tvd_ft: tuple[float, ...]
    temperature_f: tuple[float, ...]
    axis_md_ft: tuple[float, ...]
    axis_tvd_ft: tuple[float, ...]
    axis_departure_ft: tuple[float, ...]
    axis_north_ft: tuple[float, ...]
    axis_east_ft: tuple[float, ...]
    section_azimuth_deg: float


class StringResult(Result):
    """One string as drawn: where it stands and its sizes. `index` is its place in the document, or proposed."""

    id: str
    name: str
    role: str
    run: str
    proposed: bool
    top_md_ft: float
    shoe_md_ft: float
    previous_shoe_md_ft: float
    bit_in: float | None
    od_in: float | None
    id_in: float | None
    cement_top_md_ft: float | None
    mud_ppg: float | None
    tail_top_md_ft: float | None = None
    stage_collar_md_ft: float | None = None
    upper_collar_md_ft: float | None = None
    tied_back: bool = False
    collar_md_ft: float | None = None


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
    running: RunningResult
    cement: CementResult
    wellhead: WellheadResult
    preventers: PreventersResult
    sea: SeaResult
    completion: CompletionResult
    runsheet: RunsheetResult
    logbook: LogbookResult
    drills: DrillsResult
    findings: tuple[Finding, ...]
    assumptions: tuple[Assumption, ...]
