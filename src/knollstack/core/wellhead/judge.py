"""The wellhead step, on land: pieces from head to tubing spool, their bores and classes, and the cut-off heights.

Sources: API 6A nominal bores and classes; geometry of the stack-up.
"""

from __future__ import annotations

from knollstack.core.base.findings import Assumption, Finding, assume
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.catalogue.rows import Flange
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import Exposure
from knollstack.core.pipe.judge import exposed_of
from knollstack.core.pipe.surface import surface_psi
from knollstack.core.program.equipped import Equipped
from knollstack.core.program.laid import LaidString
from knollstack.core.wellhead.findings import (
    cellar_findings,
    no_flange,
    none_proposed,
    piece_findings,
    setting_findings,
    stands_on_nothing,
)
from knollstack.core.wellhead.formulas import cut_off_height
from knollstack.core.wellhead.results import PieceResult, WellheadResult

Pressures = tuple[float | None, ...]


def judge(equipped: Equipped) -> tuple[WellheadResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Pieces, classes and cut-off heights."""
    site = equipped.design.site
    pressures = surface_pressures(equipped)
    applies = site.setting == "land"
    pieces: list[PieceResult] = []
    findings = list(setting_findings(equipped.well))
    assumptions: list[Assumption] = []
    if equipped.design.wellhead.pieces:
        pieces, found = _decided(equipped, pressures)
        findings += found
    elif applies and equipped.strings:
        pieces, found = _proposed(equipped, pressures)
        findings += found
        if pieces:
            text = "Wellhead heights and made-up gaps are planning values; replace them with the supplier's drawing."
            assumptions.append(assume("wellhead", "/wellhead/pieces", text))
    if equipped.strings and not pieces and applies:
        findings.append(none_proposed())
    cuts = _cuts(equipped, pieces)
    if cuts is not None:
        findings += cellar_findings(site.cellar_depth_ft, cuts["conductor_in"])
    result = WellheadResult(
        applies=applies,
        pieces=tuple(pieces),
        surface_cut_in=cuts["surface_casing_in"] if cuts else None,
        conductor_cut_in=cuts["conductor_in"] if cuts else None,
    )
    return result, tuple(findings), tuple(assumptions)


def surface_pressures(equipped: Equipped) -> Pressures:
    """Greatest surface pressure on each string, with its working."""
    well = equipped.well
    return tuple(_surface_psi(well, string.index, exposed_of(equipped, string)) for string in equipped.strings)


@remembered(128, traced=True)
def _surface_psi(well: Well, index: int, exposed: Exposure) -> float | None:
    with headline(f"wellhead/{index}/surface_pressure"):
        return surface_psi(well, exposed)


def carriers(equipped: Equipped) -> list[LaidString]:
    """Strings with a piece of wellhead on top: all that reach surface, but the conductor."""
    return [s for s in equipped.laid.strings if s.role != "conductor" and s.run != "liner"]


def _kind(position: int, count: int) -> str:
    if position == 0:
        return "head"
    return "tubing spool" if position == count - 1 else "spool"


def _flange_words(flange: Flange) -> str:
    return f"{flange.nominal} in {flange.type} {flange.ring}"


def _proposed(equipped: Equipped, pressures: Pressures) -> tuple[list[PieceResult], list[Finding]]:
    """One piece a string: the smallest API 6A bore over the casing and the lowest class over the pressure."""
    pieces: list[PieceResult] = []
    strings = carriers(equipped)
    for position, string in enumerate(strings):
        needed = pressures[string.index]
        if string.od_in is None or needed is None:
            return [], []
        flange = equipped.catalogue.flange(string.od_in, needed)
        if flange is None:
            return [], [no_flange(string, needed)]
        row = equipped.catalogue.piece(_kind(position, len(strings)), flange.class_psi)
        pieces.append(
            PieceResult(
                name=row.title,
                string=f"{row.title} on {string.role} casing",
                string_id=string.id,
                height_in=row.height_in,
                gap_in=row.gap_in if position else 0.0,
                bore_in=flange.bore_in,
                bottom_psi=pieces[-1].top_psi if pieces else None,
                top_psi=flange.class_psi,
                flange=_flange_words(flange),
                needed_psi=needed,
            )
        )
    return pieces, []


def _decided(equipped: Equipped, pressures: Pressures) -> tuple[list[PieceResult], list[Finding]]:
    """The document's pieces, each beside the pressure of the string that it stands on."""
    strings, by_id = carriers(equipped), {s.id: s for s in equipped.laid.strings}
    results: list[PieceResult] = []
    findings: list[Finding] = []
    pieces = equipped.design.wellhead.pieces
    for i, piece in enumerate(pieces):
        string = strings[min(i, len(strings) - 1)] if strings else None
        if piece.string is not None:
            string = by_id.get(piece.string)
            if string is None:
                findings.append(stands_on_nothing(i, piece, pieces))
        needed = pressures[string.index] if string else None
        match = equipped.catalogue.flange(piece.bore_in, piece.top_psi)
        exact = match is not None and (match.bore_in, match.class_psi) == (piece.bore_in, piece.top_psi)
        results.append(
            PieceResult(
                name=piece.name,
                string=f"{piece.name} on {string.role} casing" if string else piece.name,
                string_id=string.id if string else None,
                height_in=piece.height_in,
                gap_in=piece.gap_in,
                bore_in=piece.bore_in,
                bottom_psi=piece.bottom_psi,
                top_psi=piece.top_psi,
                flange=_flange_words(match) if match and exact else None,
                needed_psi=needed,
            )
        )
        findings += piece_findings(i, piece, equipped.laid.next(string) if string else None, needed)
    return results, findings


def _cuts(equipped: Equipped, pieces: list[PieceResult]) -> dict[str, float] | None:
    site, head = equipped.design.site, equipped.design.wellhead
    if site.setting != "land" or not pieces:
        return None
    with headline("wellhead/cut_off"):
        return cut_off_height(
            site.cellar_depth_ft * 12,
            [p.height_in for p in pieces],
            [p.gap_in for p in pieces],
            head.socket_depth_in,
            head.base_plate_in,
        )
