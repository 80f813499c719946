"""What must pass a wellhead: bits, casing with its couplings, and on top a packer as wide as the casing drifts."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Finding, Words, size
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.findings import passing_finding
from knollstack.core.wellhead.pieces import HeadPiece
from knollstack.core.wellhead.results import PassRow

EPSILON_IN = 1e-9


def _through(equipped: Equipped, piece: HeadPiece) -> tuple[EquippedString, ...]:
    """Strings drilled and run through a piece: all those below its own, until a piece with another string stands over it."""
    if piece.string is None:
        return ()
    held = {s.index for s in piece.holds}
    found: list[EquippedString] = []
    for below in equipped.strings[piece.string.index + 1 :]:
        found.append(below)
        if held and below.index == max(held):
            break
    return tuple(found)


def passing_rows(equipped: Equipped, piece: HeadPiece) -> Iterator[PassRow]:
    """Each bit and casing through a piece against its bore; bits against its wear bushing too."""

    def row(what: Words, od_in: float, bore_in: float) -> PassRow:
        fits = od_in <= bore_in + EPSILON_IN
        return PassRow(piece=piece.index, what=what, od_in=od_in, bore_in=bore_in, passes=fits)

    if piece.above_reference:
        return
    for below in _through(equipped, piece):
        if below.bit_in is not None and below.drilled:
            bit = (size(below.bit_in), " bit")
            yield row(bit, below.bit_in, piece.bore_in)
            if piece.wear_bushing_in is not None:
                yield row((*bit, " in the wear bushing"), below.bit_in, piece.wear_bushing_in)
        wide = max((s.pipe.coupling_od_in for s in below.sections), default=None)
        if wide is not None:
            yield row((*below.words, " casing over its coupling"), wide, piece.bore_in)
    string = piece.string
    if not piece.holds and string is not None and string.pipe is not None:
        yield row(("packer for the ", *string.words, " casing"), string.pipe.drift_in, piece.bore_in)


def passing_findings(pieces: tuple[HeadPiece, ...], rows: tuple[PassRow, ...]) -> Iterator[Finding]:
    for row in rows:
        if not row.passes:
            what = row.what if isinstance(row.what[0], str) else ("The ", *row.what)
            yield passing_finding(pieces[row.piece], _capital(what), row.bore_in)


def _capital(words: Words) -> Words:
    first = words[0]
    return (first[:1].upper() + first[1:], *words[1:]) if isinstance(first, str) else words
