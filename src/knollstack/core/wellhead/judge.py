"""The wellhead step on land and on a platform: pieces and faces, heights and cuts, loads, what passes, tests.

Sources: API 6A bores, classes and ring gaskets; geometry of the stack-up; textbook strength of columns.
"""

from __future__ import annotations

from knollstack.core.base.findings import Assumption, Finding, assume
from knollstack.core.program.equipped import Equipped
from knollstack.core.running.tally import hung_by
from knollstack.core.wellhead.findings import (
    cellar_findings,
    class_findings,
    height_findings,
    landing_finding,
    mating_findings,
    none_proposed,
    not_held,
    twice_findings,
)
from knollstack.core.wellhead.findings_load import (
    bowl_findings,
    growth_finding,
    growth_unknown,
    lift_finding,
    load_findings,
)
from knollstack.core.wellhead.heights import Heights, below_reference, cuts_of, heights_of, landing_md_ft, shoulder_in
from knollstack.core.wellhead.loads import borne_of, growth_of, hung_lbf, load_rows
from knollstack.core.wellhead.passing import passing_findings, passing_rows
from knollstack.core.wellhead.pieces import HeadPiece, carriers, pieces_of
from knollstack.core.wellhead.proofs import proofs_of
from knollstack.core.wellhead.results import BowlRow, LifeStage, PieceResult, WellheadResult
from knollstack.core.wellhead.stages import greatest_psi, stage_pressures
from knollstack.core.wellhead.subsea import head_findings, head_of

Pressures = tuple[float | None, ...]
Pieces = tuple[HeadPiece, ...]


def judge(equipped: Equipped) -> tuple[WellheadResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Pieces, heights, loads and tests of the wellhead."""
    site = equipped.design.site
    applies = site.setting != "subsea"
    if not applies:
        return _on_sea_floor(equipped)
    findings: list[Finding] = []
    decided = bool(equipped.design.wellhead.pieces)
    pieces: Pieces = ()
    if decided or (applies and equipped.strings):
        pieces, found = pieces_of(equipped)
        findings += found
    if equipped.strings and not pieces and applies:
        findings.append(none_proposed())
    findings += _piece_findings(equipped, pieces)
    heights = heights_of(equipped, pieces)
    if heights is None:
        rows = tuple(_row(equipped, p, None) for p in pieces)
        return WellheadResult(applies=applies, decided=decided, pieces=rows), tuple(findings), ()
    hung, found = _hung(equipped, pieces, heights)
    borne = borne_of(equipped, pieces, heights, tuple(row.load_lbf for row in hung))
    loads = load_rows(equipped, pieces, borne)
    growth = growth_of(equipped, pieces)
    passing = tuple(row for piece in pieces for row in passing_rows(equipped, piece))
    on_land, cellar_ft = site.setting == "land", site.cellar_depth_ft if site.setting == "land" else 0.0
    findings += [*found, *passing_findings(pieces, passing)]
    findings += [f for row in loads for f in load_findings(row, borne.free_ft)]
    findings += cellar_findings(cellar_ft, heights.conductor_in, heights.reference_in, on_land)
    result = WellheadResult(
        applies=applies,
        decided=decided,
        mounting=equipped.design.wellhead.mounting,
        pieces=tuple(_row(equipped, piece, heights) for piece in pieces),
        surface_cut_in=heights.surface_in,
        conductor_cut_in=heights.conductor_in,
        reference_in=heights.reference_in,
        reference_above_in=heights.reference_in - cellar_ft * 12,
        cellar_needed_ft=max(0.0, cellar_ft - heights.conductor_in / 12) if on_land else None,
        datum="cellar floor" if on_land else "wellhead deck",
        cuts=cuts_of(equipped, pieces, heights),
        hung=hung,
        passing=passing,
        loads=loads,
        growth_in=growth.growth_in if growth else None,
        free_conductor_ft=None if borne.free_ft is None else round(borne.free_ft, 2),
        proofs=proofs_of(equipped, pieces),
    )
    return result, tuple(findings), _assumptions(equipped, pieces, heights)


def _on_sea_floor(equipped: Equipped) -> tuple[WellheadResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Under the sea the housing and its hangers take the place of pieces."""
    carrier = equipped.carrier
    if carrier is None:
        return WellheadResult(applies=False), (), ()
    head = head_of(equipped, carrier)
    text = "Housing on the sea floor: seats, hangers and load shoulder that are not given are planning values."
    said = assume("wellhead", "/sea/housing/seat_lbf", text)
    return WellheadResult(applies=False, sea=head), tuple(head_findings(equipped, head)), (said,)


def _assumptions(equipped: Equipped, pieces: Pieces, heights: Heights) -> tuple[Assumption, ...]:
    found = []
    if not equipped.design.wellhead.pieces:
        text = "Wellhead heights and made-up gaps are planning values; replace them with the supplier's drawing."
        found.append(assume("wellhead", "/wellhead/pieces", text))
    if any(p.bowl_lbf is not None for p in pieces) and not all(
        row.bowl_lbf is not None for row in equipped.design.wellhead.pieces
    ):
        text = "Hanging capacities that are not typed are planning values of the catalogue."
        found.append(assume("wellhead", "/wellhead/pieces", text))
    if heights.assumed:
        text = "The conductor is cut 12 in over the wellhead deck: the height of the tubing head is not given."
        found.append(assume("wellhead", "/wellhead/reference_in", text))
    return tuple(found)


def surface_pressures(equipped: Equipped) -> Pressures:
    """Greatest surface pressure on each string while preventers stand on it, with its working."""
    return tuple(greatest_psi(stage_pressures(equipped, s), treated=False) for s in equipped.strings)


def _piece_findings(equipped: Equipped, pieces: Pieces) -> list[Finding]:
    """How pieces stand, mate and hold; and a string that hangs in none."""
    findings: list[Finding] = []
    for under, piece in zip((None, *pieces), pieces, strict=False):
        findings += [*height_findings(piece), *class_findings(piece)]
        if under is not None:
            findings += mating_findings(under, piece)
    if pieces:
        findings += twice_findings(pieces)
        held = {s.index for p in pieces for s in p.holds} | {p.string.index for p in pieces if p.string is not None}
        findings += [not_held(pieces, s) for s in carriers(equipped) if s.index not in held]
    return findings


def _hung(equipped: Equipped, pieces: Pieces, heights: Heights) -> tuple[tuple[BowlRow, ...], list[Finding]]:
    """Each string in its bowl, and what is wrong with it."""
    rows: list[BowlRow] = []
    findings: list[Finding] = []
    growth = growth_of(equipped, pieces)
    if growth is None:
        findings.append(growth_unknown())
    elif growth.growth_in > equipped.well.policy.wellhead.growth_in:
        findings.append(growth_finding(growth.growth_in, equipped.well.policy.wellhead.growth_in))
    for piece in below_reference(pieces):
        for n, string in enumerate(piece.holds):
            load = hung_lbf(equipped, string)
            by, pushed = hung_by(equipped.well, string), growth.force_lbf.get(string.index) if growth else None
            lifts = load is not None and pushed is not None and load + pushed < 0
            shoulder = shoulder_in(piece, n, heights)
            lands = landing_md_ft(equipped, string.index, shoulder)
            findings += bowl_findings(piece, string, load)
            if lifts and load is not None and pushed is not None:
                findings.append(lift_finding(string, load, pushed))
            if by == "mandrel" and lands is not None and equipped.design.strings:
                told = landing_finding(string, string.own.running.landing_md_ft, equipped.well.ground_md_ft, lands)
                findings += [told] if told is not None else []
            rows.append(
                BowlRow(
                    string=string.index,
                    piece=piece.index,
                    place=f"{piece.place}/bowl_lbf" if piece.decided else piece.place,
                    hanger=by,
                    shoulder_in=shoulder,
                    landing_md_ft=lands,
                    load_lbf=load,
                    capacity_lbf=piece.bowl_lbf,
                    growth_lbf=pushed,
                    lifts=lifts,
                    working=f"wellhead/hung/{string.index}",
                )
            )
    return tuple(rows), findings


def _row(equipped: Equipped, piece: HeadPiece, heights: Heights | None) -> PieceResult:
    face = equipped.catalogue.face(piece.bore_in, piece.top_psi)
    bottom = equipped.catalogue.face(piece.bottom_bore_in, piece.bottom_psi)
    on = f"{piece.name} on {piece.string.role} casing" if piece.string is not None else piece.name
    if piece.above_reference or (piece.decided and "casing" in piece.name):
        on = piece.name
    return PieceResult(
        name=piece.name,
        kind=piece.kind,
        place=piece.place,
        string=on,
        string_id=piece.string.id if piece.string else None,
        holds=tuple(s.id for s in piece.holds),
        height_in=piece.height_in,
        gap_in=piece.gap_in,
        bore_in=piece.bore_in,
        bottom_bore_in=piece.bottom_bore_in,
        bottom_psi=piece.bottom_psi,
        top_psi=piece.top_psi,
        flange=face.words if face else None,
        studs=f"{face.studs:g} studs of {stud_words(face.stud_in)}" if face else None,
        bottom_flange=bottom.words if bottom else None,
        needed_psi=piece.needed_psi,
        stages=tuple(LifeStage(stage=stage, psi=psi) for stage, psi in piece.stages),
        bowls=piece.bowls,
        bowl_depth_in=piece.bowl_depth_in,
        seal_in=piece.seal_in,
        outlets=piece.outlets,
        weight_lbf=piece.weight_lbf,
        above_reference=piece.above_reference,
        bottom_in=heights.bottoms_in[piece.index] if heights else None,
        top_in=heights.tops_in[piece.index] if heights else None,
    )


def stud_words(inches: float) -> str:
    """A stud's size as it is said: 1 5/8 in."""
    whole, eighths = divmod(round(inches * 8), 8)
    if not eighths:
        return f"{whole} in"
    for over in (2, 4):
        if eighths % (8 // over) == 0:
            return f"{whole} {eighths * over // 8}/{over} in"
    return f"{whole} {eighths}/8 in"
