"""What follows for the wellhead: its pieces and faces, heights and cuts, loads, growth and tests."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words

Found = Literal["stands", "fails", "unknown"]


class LifeStage(Result):
    """The pressure at the top of a string in one stage of its life."""

    stage: str
    psi: float | None


class PieceResult(Result):
    """A piece in force. Heights are above the cellar floor or the wellhead deck."""

    name: str
    kind: str
    place: str
    string: str
    string_id: str | None
    holds: tuple[str, ...]
    height_in: float
    gap_in: float
    bore_in: float
    bottom_bore_in: float | None
    bottom_psi: float | None
    top_psi: float
    flange: str | None
    studs: str | None
    bottom_flange: str | None
    needed_psi: float | None
    stages: tuple[LifeStage, ...]
    bowls: int
    bowl_depth_in: float
    seal_in: float
    outlets: int
    weight_lbf: float
    above_reference: bool
    bottom_in: float | None
    top_in: float | None


class CutRow(Result):
    """Where a string is cut, above the cellar floor and above the flange that it hangs in; after which operation."""

    string: int
    role: str
    final_in: float
    above_flange_in: float | None
    rough_in: float
    when: str
    working: str


class BowlRow(Result):
    """A string in its bowl: where its hanger lands, its load, and what the bowl carries."""

    string: int
    piece: int
    place: str
    hanger: str
    shoulder_in: float | None
    landing_md_ft: float | None
    load_lbf: float | None
    capacity_lbf: float | None
    growth_lbf: float | None
    lifts: bool
    working: str


class PassRow(Result):
    """What must pass or land in a piece, against its bore."""

    piece: int
    what: Words
    od_in: float
    bore_in: float
    passes: bool


class SupportRow(Result):
    """A load on casing or conductor, what it stands, and the factor asked; None is not known."""

    what: str
    load: float | None
    rating: float | None
    quantity: Literal["force", "pressure"]
    factor: float | None
    asked: float | None
    working: str | None


class HeadProof(Result):
    """One test of the wellhead: what it proves, its pressure, what is behind it, and what must not see it."""

    title: str
    piece: int
    proves: str
    psi: float | None
    by: str
    behind: str
    spared: str
    working: str | None


class SeatRow(Result):
    """A string on its seat in the housing on the sea floor; heights over the mudline, None where it has no seat."""

    string: int
    what: Words
    place: str
    seat_in: float | None
    top_in: float | None
    load_lbf: float | None
    needed_psi: float | None
    test_psi: float | None
    left: str
    """What still holds the annulus when the seal is lost."""
    working: str


class SeaPass(Result):
    """What must pass in the housing, and what it must pass."""

    what: Words
    od_in: float
    through: str
    bore_in: float
    passes: bool
    place: str


class SubseaHead(Result):
    """The high-pressure housing on the sea floor with all that lands in it."""

    carrier: int
    bore_in: float
    class_psi: float | None
    class_given: bool
    needed_psi: float | None
    top_in: float
    seat_lbf: float
    protector_in: float
    seats: tuple[SeatRow, ...]
    passing: tuple[SeaPass, ...]


class ValveRow(Result):
    """A part of the tree, bottom to top; wings stand beside the cross."""

    name: str
    class_psi: float
    bore_in: float
    safety: bool
    test_psi: float
    side: Literal["run", "wing"]
    bottom_in: float
    top_in: float


class TreeRow(Result):
    class_psi: float
    needed_psi: float | None
    flange: str | None
    valves: tuple[ValveRow, ...]


class WellheadResult(Result):
    applies: bool
    decided: bool = False
    mounting: str = "slip-on weld"
    pieces: tuple[PieceResult, ...] = ()
    surface_cut_in: float | None = None
    conductor_cut_in: float | None = None
    reference_in: float | None = None
    reference_above_in: float | None = None
    """The same over the ground, or over the deck."""
    cellar_needed_ft: float | None = None
    datum: Literal["cellar floor", "wellhead deck"] = "cellar floor"
    cuts: tuple[CutRow, ...] = ()
    hung: tuple[BowlRow, ...] = ()
    passing: tuple[PassRow, ...] = ()
    loads: tuple[SupportRow, ...] = ()
    growth_in: float | None = None
    free_conductor_ft: float | None = None
    proofs: tuple[HeadProof, ...] = ()
    sea: SubseaHead | None = None
