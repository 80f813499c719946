"""What follows for the wellhead: its pieces, their classes and the cut-off heights."""

from __future__ import annotations

from knollstack.core.base.findings import Result


class PieceResult(Result):
    name: str
    string: str
    string_id: str | None
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
    surface_cut_in: float | None
    conductor_cut_in: float | None
