"""What follows for setting depths: the row of each shoe, and the proposal."""

from __future__ import annotations

from knollstack.core.base.findings import Result, Words


class ZoneNote(Result):
    """A rule that a zone brings into the design."""

    index: int
    text: Words


class KickResult(Result):
    """Kick tolerance at a shoe: the least volume over every weak point and every kick in the hole below.

    `limited` is false where no kick breaks any rock, and then there is no volume; None where that is unknown.
    `at_shoe_bbl` is what the shoe alone would stand, where another depth is weaker and some kick breaks the shoe.
    """

    tolerance_bbl: float | None
    limited: bool | None
    at_md_ft: float | None
    required_bbl: float
    height_ft: float | None
    weak_md_ft: float | None
    weak_is_shoe: bool
    at_shoe_bbl: float | None
    maasp_psi: float | None
    full_gas_margin_psi: float | None
    full_gas_md_ft: float | None


class KickDrawing(Result):
    """Kick tolerance against the depth of the kick, where the rock limits it, and the greatest intensity at which the
    volume that policy asks is still tolerated.
    """

    curve_md_ft: tuple[float, ...]
    curve_bbl: tuple[float, ...]
    greatest_intensity_ppg: float | None


class ProposedShoe(Result):
    """A shoe of the bottom-up program: its depth and the rule that set it there."""

    role: str
    md_ft: float
    rule: str
    reason: Words


class ShoeRow(Result):
    kick: KickResult | None
    rule: str | None
    reason: Words


class DepthsResult(Result):
    """`strings[i].kick` is the tolerance at this string's shoe while drilling the next section.

    `failure` is why no program is proposed, `failure_place` the place of the document that mends it.
    """

    proposal: tuple[ProposedShoe, ...]
    failure: Words
    failure_place: str
    strings: tuple[ShoeRow, ...]
    zone_notes: tuple[ZoneNote, ...]
