"""The pieces of a wellhead in force: the document's, else one for each string from the catalogue."""

from __future__ import annotations

from dataclasses import dataclass, replace

from knollstack.core.base.findings import Finding
from knollstack.core.catalogue.rows import Flange, Piece
from knollstack.core.document.wellhead import WellheadPiece
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.findings import no_flange, stands_on_nothing
from knollstack.core.wellhead.stages import StagePressure, greatest_psi, stage_pressures

ABOVE_REFERENCE = ("adapter", "tree")
"""Pieces that stand on the reference face, once the well is completed."""


@dataclass(frozen=True)
class HeadPiece:
    """One piece with every value filled in. `holds` are the strings that hang in its bowls, from the outside in."""

    index: int
    place: str
    decided: bool
    name: str
    kind: str
    string: EquippedString | None
    holds: tuple[EquippedString, ...]
    height_in: float
    gap_in: float
    bore_in: float
    bottom_bore_in: float | None
    bottom_psi: float | None
    top_psi: float
    bowls: int
    bowl_depth_in: float
    bowl_lbf: float | None
    seal_in: float
    outlets: int
    weight_lbf: float
    wear_bushing_in: float | None
    needed_psi: float | None = None
    stages: tuple[StagePressure, ...] = ()

    @property
    def above_reference(self) -> bool:
        return self.kind in ABOVE_REFERENCE


def carriers(equipped: Equipped) -> list[EquippedString]:
    """Strings with a piece of wellhead on top: all that reach surface, but the conductor."""
    return [s for s in equipped.strings if s.role != "conductor" and (s.run != "liner" or s.own.tie_back)]


def kind_at(position: int, count: int) -> str:
    if position == 0:
        return "casing head housing"
    return "tubing spool" if position == count - 1 else "casing spool"


def pieces_of(equipped: Equipped) -> tuple[tuple[HeadPiece, ...], list[Finding]]:
    """Pieces bottom to top, and what is wrong with how they stand."""
    found, findings = _decided(equipped) if equipped.design.wellhead.pieces else _proposed(equipped)
    standing = {p.string.index for p in found if p.string is not None and not p.above_reference}
    held = [replace(p, holds=_held(equipped, p, standing)) for p in found]
    return tuple(_pressed(equipped, p, standing) for p in held), findings


def _held(equipped: Equipped, piece: HeadPiece, standing: set[int]) -> tuple[EquippedString, ...]:
    """What hangs in the bowls: the strings after its own, up to the first on which another piece stands."""
    held: list[EquippedString] = []
    if piece.string is None or piece.above_reference:
        return ()
    for string in carriers(equipped):
        if string.index > piece.string.index and len(held) < piece.bowls:
            held.append(string)
            if string.index in standing:
                break
    return tuple(held)


def _pressed(equipped: Equipped, piece: HeadPiece, standing: set[int]) -> HeadPiece:
    """With the greatest pressure of its own string and of those in its bowls that carry no piece of their own."""
    inside = [s for s in (piece.string, *piece.holds) if s is not None]
    alone = [s for s in inside if s is piece.string or s.index not in standing]
    if piece.above_reference:
        found = [p for s in alone for p in stage_pressures(equipped, s) if p.stage in ("production", "treatment")]
    else:
        found = [p for s in alone for p in stage_pressures(equipped, s)]
    return replace(piece, stages=tuple(found), needed_psi=greatest_psi(tuple(found)))


def _decided(equipped: Equipped) -> tuple[list[HeadPiece], list[Finding]]:
    strings, by_id = carriers(equipped), {s.id: s for s in equipped.strings}
    rows, findings = equipped.design.wellhead.pieces, []
    count = sum(1 for row in rows if row.kind not in ABOVE_REFERENCE)
    found: list[HeadPiece] = []
    for i, row in enumerate(rows):
        string = strings[min(i, len(strings) - 1)] if strings else None
        if row.string is not None:
            string = by_id.get(row.string)
            if string is None:
                findings.append(stands_on_nothing(i, row, rows))
        kind = row.kind or kind_at(i, count)
        usual = equipped.catalogue.piece(kind, row.top_psi)
        found.append(_filled(i, row, kind, string, usual, found[-1] if found else None))
    return found, findings


def _filled(
    i: int, row: WellheadPiece, kind: str, string: EquippedString | None, usual: Piece, under: HeadPiece | None
) -> HeadPiece:
    """A decided piece; what is empty is the catalogue's, a bottom face that of the face under it."""

    def or_else(value: float | None, otherwise: float) -> float:
        return otherwise if value is None else value

    return HeadPiece(
        index=i,
        place=f"/wellhead/pieces/{i}",
        decided=True,
        name=row.name or kind,
        kind=kind,
        string=string,
        holds=(),
        height_in=row.height_in,
        gap_in=row.gap_in,
        bore_in=row.bore_in,
        bottom_bore_in=row.bottom_bore_in if row.bottom_bore_in is not None or under is None else under.bore_in,
        bottom_psi=row.bottom_psi if row.bottom_psi is not None or under is None else under.top_psi,
        top_psi=row.top_psi,
        bowls=row.bowls if kind not in ABOVE_REFERENCE else 0,
        bowl_depth_in=or_else(row.bowl_depth_in, min(usual.bowl_depth_in, row.height_in)),
        bowl_lbf=row.bowl_lbf if row.bowl_lbf is not None else usual.bowl_lbf,
        seal_in=or_else(row.seal_in, usual.seal_in),
        outlets=row.outlets,
        weight_lbf=or_else(row.weight_lbf, usual.weight_lbf),
        wear_bushing_in=row.wear_bushing_in,
    )


def gap_of(flange: Flange | None, usual: Piece) -> float:
    """Made-up gap of a joint: the ring's stand-off where the standard's is held, else a planning value."""
    return usual.gap_in if flange is None or flange.gap_in is None else flange.gap_in


def _proposed(equipped: Equipped) -> tuple[list[HeadPiece], list[Finding]]:
    """One piece a string: the smallest API 6A bore over the casing and the lowest class over the pressure."""
    strings, found = carriers(equipped), []
    under: Flange | None = None
    together = equipped.well.policy.wellhead.arrangement == "multi-bowl head" and len(strings) > 2
    stands = (strings[0], strings[-1]) if together else tuple(strings)
    for position, string in enumerate(stands):
        kind = "multi-bowl head" if together and position == 0 else kind_at(position, len(stands))
        inside = strings[:-1] if kind == "multi-bowl head" else [string]
        needs = [greatest_psi(stage_pressures(equipped, s)) for s in inside]
        if string.od_in is None or any(n is None for n in needs):
            return [], []
        needed = max(n for n in needs if n is not None)
        flange = equipped.catalogue.flange(string.od_in, needed)
        if flange is None:
            return [], [no_flange(string, needed)]
        usual = equipped.catalogue.piece(kind, flange.class_psi)
        found.append(
            HeadPiece(
                index=position,
                place="/wellhead/pieces",
                decided=False,
                name=kind,
                kind=kind,
                string=string,
                holds=(),
                height_in=usual.height_in,
                gap_in=gap_of(under, usual) if position else 0.0,
                bore_in=flange.bore_in,
                bottom_bore_in=under.bore_in if under else None,
                bottom_psi=under.class_psi if under else None,
                top_psi=flange.class_psi,
                bowls=len(strings) - 1 if kind == "multi-bowl head" else int(usual.bowls),
                bowl_depth_in=usual.bowl_depth_in,
                bowl_lbf=usual.bowl_lbf,
                seal_in=usual.seal_in,
                outlets=int(usual.outlets),
                weight_lbf=usual.weight_lbf,
                wear_bushing_in=None,
            )
        )
        under = flange
    return found, []
