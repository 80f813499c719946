"""What is wrong with the wellhead: faces under their pressure, bores too small, a cellar too shallow."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Change, Finding, Words, depth, find, height, pressure, remedy, size
from knollstack.core.document.design import DEEPEST_CELLAR_FT, WellheadPiece
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString
from knollstack.core.wellhead.classes import lowest_class_psi

_find = partial(find, "wellhead")


def setting_findings(well: Well) -> Iterator[Finding]:
    """What the setting leaves unworked: the step is not good on it."""
    if well.site.setting != "land":
        text = "The wellhead at sea is not worked: housings, mudline hangers and their cut-off are not in it."
        yield _find("unknown", "/site/setting", ("Setting",), text)


def no_flange(string: LaidString, needed_psi: float) -> Finding:
    text = "No API 6A flange in the catalogue has this bore and a class over "
    return _find("stop", "/wellhead/pieces", (*string.words, " casing"), text, pressure(needed_psi), ".")


def none_proposed() -> Finding:
    text = "No wellhead can be proposed: a surface pressure or a casing size is unknown."
    return _find("unknown", "/wellhead/pieces", ("Wellhead",), text)


def stands_on_nothing(i: int, piece: WellheadPiece, pieces: tuple[WellheadPiece, ...]) -> Finding:
    """A piece whose string is gone."""
    kept = [p.model_dump(mode="json") for p in pieces if p.id != piece.id]
    return _find(
        "caution",
        f"/wellhead/pieces/{i}/string",
        (piece.name or f"Piece {i + 1}",),
        "The string that it is installed on is no longer in the design.",
        remedies=(
            remedy(Change(path=f"/wellhead/pieces/{i}/string", value=None), "Let it go by its place"),
            remedy(Change(path="/wellhead/pieces", value=kept), "Remove it"),
        ),
    )


def piece_findings(i: int, piece: WellheadPiece, below: LaidString | None, needed: float | None) -> Iterator[Finding]:
    subject: Words = (piece.name or f"Piece {i + 1}",)
    place = f"/wellhead/pieces/{i}/top_psi"
    if needed is None:
        yield _find("unknown", place, subject, "The pressure that this piece will see is unknown.")
        return
    if needed > piece.top_psi:
        better = lowest_class_psi(needed)
        use = (remedy(Change(path=place, value=better), "Use class ", pressure(better)),) if better is not None else ()
        yield _find(
            "stop",
            place,
            subject,
            "Surface pressure reaches ",
            pressure(needed),
            "; this face is rated ",
            pressure(piece.top_psi),
            ".",
            value=pressure(needed),
            limit=pressure(piece.top_psi),
            remedies=use,
        )
    if below is not None and below.bit_in is not None and below.bit_in > piece.bore_in:
        yield _find(
            "stop",
            f"/wellhead/pieces/{i}/bore_in",
            subject,
            "The ",
            size(below.bit_in),
            " bit does not pass the bore of ",
            size(piece.bore_in),
            ".",
        )


def cellar_findings(cellar_ft: float, lowest_in: float) -> Iterator[Finding]:
    if lowest_in >= 0:
        return
    asked = math.ceil((cellar_ft - lowest_in / 12) * 2) / 2
    dug = (remedy(Change(path="/site/cellar_depth_ft", value=asked), "Dig the cellar to ", depth(asked)),)
    yield _find(
        "stop",
        "/site/cellar_depth_ft",
        ("Cellar",),
        "With the reference face at ground level the conductor would be cut ",
        height(-lowest_in),
        " below the cellar floor. The cellar is too shallow.",
        remedies=dug if asked <= DEEPEST_CELLAR_FT else (),
        working="wellhead/cut_off",
    )
