"""The wellhead on land: pieces from head to tubing spool, their bores and classes, and the cut-off heights.

Sources: API 6A nominal bores and classes; geometry of the stack-up.
"""

from __future__ import annotations

import math

from knollstack.core.findings import Amount, Assumption, Change, Finding, Remedy, Words
from knollstack.core.heights import cut_off_height
from knollstack.core.pipe.exposure import surface_psi
from knollstack.core.program import Planned, Program
from knollstack.core.results import PieceResult, WellheadResult
from knollstack.core.well import pressure, size
from knollstack.core.working import headline

CLASSES_PSI = (2_000.0, 3_000.0, 5_000.0, 10_000.0, 15_000.0, 20_000.0)


def carriers(program: Program) -> list[Planned]:
    """Strings with a piece of wellhead on top: all that reach surface, but the conductor."""
    return [s for s in program.strings if s.role != "conductor" and s.run != "liner"]


def surface_pressures(program: Program) -> list[float | None]:
    """Greatest surface pressure on each string, with its working."""
    values = []
    for string in program.strings:
        with headline(f"wellhead/{string.index}/surface_pressure"):
            values.append(surface_psi(program, string))
    return values


def _kind(position: int, count: int) -> str:
    if position == 0:
        return "head"
    return "tubing spool" if position == count - 1 else "spool"


def _title_of(string: Planned, words: str) -> str:
    return f"{words} on {string.role} casing"


def _proposed(program: Program, pressures: list[float | None]) -> list[PieceResult]:
    """One piece a string: the smallest API 6A bore over the casing and the lowest class over the pressure."""
    pieces: list[PieceResult] = []
    strings = carriers(program)
    for position, string in enumerate(strings):
        needed = pressures[string.index]
        if string.od_in is None or needed is None:
            return []
        flange = program.catalogue.flange(string.od_in, needed)
        if flange is None:
            _no_flange(program, string, needed)
            return []
        row = program.catalogue.piece(_kind(position, len(strings)), flange.class_psi)
        pieces.append(
            PieceResult(
                name=row.title, string=_title_of(string, row.title), height_in=row.height_in,
                gap_in=row.gap_in if position else 0.0, bore_in=flange.bore_in,
                bottom_psi=pieces[-1].top_psi if pieces else None, top_psi=flange.class_psi,
                flange=f"{flange.nominal} in {flange.type} {flange.ring}", needed_psi=needed,
            )
        )  # fmt: skip
    text = "Wellhead heights and made-up gaps are planning values; replace them with the supplier's drawing."
    program.assumptions.append(Assumption(step="wellhead", place="/wellhead/pieces", text=(text,)))
    return pieces


def _no_flange(program: Program, string: Planned, needed: float) -> None:
    message: Words = (
        "No API 6A flange in the catalogue has this bore and a class over ",
        pressure(needed),
        ".",
    )
    program.findings.append(
        Finding(
            severity="stop",
            step="wellhead",
            place="/wellhead/pieces",
            subject=(*string.words, " casing"),
            message=message,
        )
    )


def _decided(program: Program, pressures: list[float | None]) -> list[PieceResult]:
    """The document's pieces, each beside the pressure of the string that it stands on."""
    strings = carriers(program)
    results = []
    for i, piece in enumerate(program.design.wellhead.pieces):
        string = strings[min(i, len(strings) - 1)] if strings else None
        needed = pressures[string.index] if string else None
        match = program.catalogue.flange(piece.bore_in, piece.top_psi)
        exact = match is not None and (match.bore_in, match.class_psi) == (piece.bore_in, piece.top_psi)
        results.append(
            PieceResult(
                name=piece.name, string=_title_of(string, piece.name) if string else piece.name,
                height_in=piece.height_in, gap_in=piece.gap_in, bore_in=piece.bore_in, bottom_psi=piece.bottom_psi,
                top_psi=piece.top_psi, flange=f"{match.nominal} in {match.type} {match.ring}" if match and exact else None,
                needed_psi=needed,
            )
        )  # fmt: skip
        _judge_piece(program, i, string, needed)
    return results


def _judge_piece(program: Program, i: int, string: Planned | None, needed: float | None) -> None:
    piece = program.design.wellhead.pieces[i]
    subject: Words = (piece.name or f"Piece {i + 1}",)
    place = f"/wellhead/pieces/{i}/top_psi"
    if needed is None:
        message: Words = ("The pressure that this piece will see is unknown.",)
        program.findings.append(
            Finding(severity="unknown", step="wellhead", place=place, subject=subject, message=message)
        )
        return
    if needed > piece.top_psi:
        better = next((c for c in CLASSES_PSI if c >= needed), None)
        remedies: tuple[Remedy, ...] = ()
        if better is not None:
            remedies = (Remedy(label=("Use class ", pressure(better)), changes=(Change(path=place, value=better),)),)
        message = (
            "Surface pressure reaches ",
            pressure(needed),
            "; this face stands ",
            pressure(piece.top_psi),
            ".",
        )
        program.findings.append(
            Finding(severity="stop", step="wellhead", place=place, subject=subject, message=message,
                    value=pressure(needed), limit=pressure(piece.top_psi), remedies=remedies)
        )  # fmt: skip
    below = program.next(string) if string else None
    if below is not None and below.bit_in is not None and below.bit_in > piece.bore_in:
        message = ("The ", size(below.bit_in), " bit does not pass the bore of ", size(piece.bore_in), ".")
        program.findings.append(
            Finding(
                severity="stop",
                step="wellhead",
                place=f"/wellhead/pieces/{i}/bore_in",
                subject=subject,
                message=message,
            )
        )


def _cuts(program: Program, pieces: list[PieceResult]) -> dict[str, float] | None:
    site, head = program.design.site, program.design.wellhead
    if site.setting != "land" or not pieces:
        return None
    with headline("wellhead/cut_off"):
        cuts = cut_off_height(
            site.cellar_depth_ft * 12,
            [p.height_in for p in pieces],
            [p.gap_in for p in pieces],
            head.socket_depth_in,
            head.base_plate_in,
        )
    lowest = cuts["conductor_in"]
    if lowest < 0:
        asked = math.ceil((site.cellar_depth_ft - lowest / 12) * 2) / 2
        message: Words = (
            "With the reference face at ground level the conductor would be cut ",
            Amount(value=-lowest, quantity="height"), " below the cellar floor. The cellar is too shallow.",
        )  # fmt: skip
        label: Words = ("Dig the cellar to ", Amount(value=asked, quantity="depth"))
        program.findings.append(
            Finding(severity="stop", step="wellhead", place="/site/cellar_depth_ft", subject=("Cellar",), message=message,
                    remedies=(Remedy(label=label, changes=(Change(path="/site/cellar_depth_ft", value=asked),)),),
                    working="wellhead/cut_off")
        )  # fmt: skip
    return cuts


def judge_wellhead(program: Program) -> WellheadResult:
    """Pieces, classes and cut-off heights."""
    pressures = surface_pressures(program)
    applies = program.design.site.setting == "land"
    pieces: list[PieceResult] = []
    if program.design.wellhead.pieces:
        pieces = _decided(program, pressures)
    elif applies and program.strings:
        pieces = _proposed(program, pressures)
    if program.strings and not pieces and applies:
        message: Words = ("No wellhead can be proposed: a surface pressure or a casing size is unknown.",)
        program.findings.append(
            Finding(
                severity="unknown",
                step="wellhead",
                place="/wellhead/pieces",
                subject=("Wellhead",),
                message=message,
            )
        )
    cuts = _cuts(program, pieces)
    return WellheadResult(
        applies=applies,
        pieces=tuple(pieces),
        reference_height_in=program.design.site.cellar_depth_ft * 12 if cuts else None,
        surface_cut_in=cuts["surface_casing_in"] if cuts else None,
        conductor_cut_in=cuts["conductor_in"] if cuts else None,
        surface_pressure_psi=tuple(pressures),
    )
