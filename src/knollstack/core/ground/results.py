"""What follows for the ground: its zones as they stand along the well; and what only its drawing needs."""

from __future__ import annotations

from knollstack.core.base.findings import Result
from knollstack.core.document.design import Rock


class TrackPoint(Result):
    md_ft: float
    tvd_ft: float
    emw_ppg: float


class ZoneBand(Result):
    index: int
    name: str
    top_md_ft: float
    base_md_ft: float
    top_tvd_ft: float
    base_tvd_ft: float
    rock: Rock
    fluid: str
    hazards: tuple[str, ...]


class WindowPoint(Result):
    md_ft: float
    lower_ppg: float | None
    upper_ppg: float | None


class PressurePoint(Result):
    """The same ground as pressures, for drawing: None is unknown."""

    md_ft: float
    pore_psi: float | None
    fracture_psi: float | None


class GroundResult(Result):
    zones: tuple[ZoneBand, ...]


class GroundDrawing(Result):
    """Profiles, window and pressures as points along the well: of the well alone, asked by the views that draw them."""

    pore: tuple[TrackPoint, ...]
    fracture: tuple[TrackPoint, ...]
    stability: tuple[TrackPoint, ...]
    window: tuple[WindowPoint, ...]
    pressures: tuple[PressurePoint, ...]
