"""Heights of the stack-up: where every face stands, where each string is cut, and where its hanger lands."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.working import headline
from knollstack.core.program.equipped import Equipped
from knollstack.core.running.tally import hung_by
from knollstack.core.wellhead.formulas import cut_above_flange, cut_off_height, face_height, landing_depth, rough_cut
from knollstack.core.wellhead.pieces import HeadPiece
from knollstack.core.wellhead.results import CutRow

PLATFORM_STUB_IN = 12.0
"""Conductor left over a wellhead deck where the height of the wellhead is not decided."""
CUTS = "wellhead/cut_off"


@dataclass(frozen=True)
class Heights:
    """Heights [in] above the cellar floor or the wellhead deck: of the reference face, the cuts and every piece."""

    reference_in: float
    assumed: bool
    surface_in: float
    conductor_in: float
    bottoms_in: tuple[float, ...]
    tops_in: tuple[float, ...]


def below_reference(pieces: tuple[HeadPiece, ...]) -> tuple[HeadPiece, ...]:
    return tuple(p for p in pieces if not p.above_reference)


def heights_of(equipped: Equipped, pieces: tuple[HeadPiece, ...]) -> Heights | None:
    """None under the sea, and where no piece is known."""
    site, head = equipped.design.site, equipped.design.wellhead
    counted = below_reference(pieces)
    if site.setting == "subsea" or not counted:
        return None
    sizes = [p.height_in for p in counted], [p.gap_in for p in counted]
    floor_in = site.cellar_depth_ft * 12 if site.setting == "land" else 0.0
    assumed = head.reference_in is None and site.setting == "platform"
    if head.reference_in is not None:
        reference = floor_in + head.reference_in
    elif assumed:
        reference = PLATFORM_STUB_IN + head.base_plate_in + sum(sizes[0]) + sum(sizes[1])
    else:
        reference = floor_in
    with headline(CUTS):
        cuts = cut_off_height(reference, *sizes, head.socket_depth_in, head.base_plate_in)
    lower_in = cuts["surface_casing_in"] - head.socket_depth_in
    tops: list[float] = []
    for n in range(1, len(pieces) + 1):
        with headline(f"wellhead/face/{n - 1}"):
            tops.append(face_height(lower_in, [p.height_in for p in pieces[:n]], [p.gap_in for p in pieces[:n]]))
    bottoms = tuple(top - p.height_in for top, p in zip(tops, pieces, strict=True))
    return Heights(reference, assumed, cuts["surface_casing_in"], cuts["conductor_in"], bottoms, tuple(tops))


def shoulder_in(piece: HeadPiece, bowl: int, heights: Heights) -> float:
    """Height of the landing shoulder of one bowl of a piece, the lowest first."""
    share = (len(piece.holds) - bowl) / len(piece.holds)
    return heights.tops_in[piece.index] - piece.bowl_depth_in * share


def floor_to_rotary_ft(equipped: Equipped) -> float | None:
    """From the cellar floor, the wellhead deck or the mudline up to the rotary; None on a platform whose deck is not given."""
    site = equipped.design.site
    if site.setting == "subsea":
        return equipped.well.ground_md_ft
    if site.setting == "platform":
        return equipped.design.wellhead.deck_md_ft
    return site.rig_floor_ft + site.cellar_depth_ft


def landing_md_ft(equipped: Equipped, index: int, shoulder_in: float) -> float | None:
    """Depth from the rotary at which a hanger lands."""
    height = floor_to_rotary_ft(equipped)
    if height is None:
        return None
    cellar = equipped.design.site.cellar_depth_ft if equipped.design.site.setting == "land" else 0.0
    with headline(f"wellhead/landing/{index}"):
        return float(landing_depth(height - cellar, cellar, shoulder_in))


def cuts_of(equipped: Equipped, pieces: tuple[HeadPiece, ...], heights: Heights) -> tuple[CutRow, ...]:
    """Conductor and surface casing, then each string that stands up into the seal of the piece over it."""
    spare, strings = equipped.well.policy.wellhead.rough_cut_in, equipped.strings
    rows: list[CutRow] = []

    def row(index: int, final_in: float, above_in: float | None, when: str, working: str) -> None:
        with headline(f"wellhead/rough/{index}"):
            rough = float(rough_cut(final_in, spare))
        rows.append(
            CutRow(
                string=index,
                role=strings[index].role,
                final_in=final_in,
                above_flange_in=above_in,
                rough_in=rough,
                when=when,
                working=working,
            )
        )

    stood_on = pieces[0].string
    if strings and strings[0].role == "conductor":
        row(0, heights.conductor_in, None, "once the diverter is nippled down", CUTS)
    if stood_on is not None:
        row(stood_on.index, heights.surface_in, None, "with the conductor, before the head is set on it", CUTS)
    standing = {p.string.index: p for p in pieces if p.string is not None and not p.above_reference}
    for piece in below_reference(pieces):
        for string in piece.holds:
            over = standing.get(string.index)
            if over is None or hung_by(equipped.well, string) == "mandrel":
                continue
            key = f"wellhead/cut/{string.index}"
            with headline(key):
                above = float(cut_above_flange(over.gap_in, over.seal_in))
            when = "rough with the stack lifted, final once it is laid aside"
            row(string.index, heights.tops_in[piece.index] + above, above, when, key)
    return tuple(rows)
