"""What is wrong with the wellhead: how its pieces stand and mate, their classes and bores, heights and hangers."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial
from typing import TYPE_CHECKING

from knollstack.core.base.constants import CLASSES_PSI
from knollstack.core.base.findings import Change, Finding, Words, find, height, length, pressure, remedy, size
from knollstack.core.document.design import DEEPEST_CELLAR_FT
from knollstack.core.document.wellhead import WellheadPiece
from knollstack.core.program.laid import LaidString
from knollstack.core.wellhead.classes import lowest_class_psi

if TYPE_CHECKING:
    from knollstack.core.wellhead.pieces import HeadPiece

_find = partial(find, "wellhead")
LANDS_WITHIN_FT = 0.5
"""How far a mandrel's decided depth may be from its bowl."""


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


def _face(piece: HeadPiece, key: str) -> str:
    """The place of one value of a piece; of a proposed one the pieces as a whole."""
    return f"{piece.place}/{key}" if piece.decided else piece.place


def class_findings(piece: HeadPiece) -> Iterator[Finding]:
    """The top face against the greatest pressure of every stage, and whether such a class exists."""
    place, subject, needed = _face(piece, "top_psi"), _words(piece), piece.needed_psi
    if piece.decided and piece.top_psi not in CLASSES_PSI:
        yield _no_class(place, subject, piece.top_psi)
    if needed is None:
        yield _find("unknown", place, subject, "The pressure that this piece will see is unknown.")
    elif needed > piece.top_psi:
        better = lowest_class_psi(needed)
        usable = better is not None and piece.decided
        use = (remedy(Change(path=place, value=better), "Use class ", pressure(better)),) if usable and better else ()
        yield _find(
            "stop",
            place,
            subject,
            "Surface pressure reaches ",
            pressure(needed),
            f" ({_stage(piece)}); this face is rated ",
            pressure(piece.top_psi),
            ".",
            value=pressure(needed),
            limit=pressure(piece.top_psi),
            remedies=use,
        )


def _no_class(place: str, subject: Words, class_psi: float) -> Finding:
    nearest = lowest_class_psi(class_psi) or CLASSES_PSI[-1]
    use = remedy(Change(path=place, value=nearest), "Use class ", pressure(nearest))
    text = "API 6A has no class of "
    return _find("caution", place, subject, text, pressure(class_psi), ".", remedies=(use,))


def _stage(piece: HeadPiece) -> str:
    return next(stage for stage, psi in piece.stages if psi == piece.needed_psi)


def _words(piece: HeadPiece) -> Words:
    return (piece.name[:1].upper() + piece.name[1:],)


def height_findings(piece: HeadPiece) -> Iterator[Finding]:
    if piece.height_in <= 0:
        place = _face(piece, "height_in")
        yield _find("stop", place, _words(piece), "It has no height, so that no cut follows.")
    elif piece.bowls and piece.bowl_depth_in > piece.height_in:
        place, deep = _face(piece, "bowl_depth_in"), height(piece.bowl_depth_in)
        text = " below its top face is deeper than the piece is high ("
        yield _find("stop", place, _words(piece), "A bowl ", deep, text, height(piece.height_in), ").")


def mating_findings(under: HeadPiece, piece: HeadPiece) -> Iterator[Finding]:
    """Two faces that meet are of one bore and one class."""
    if piece.bottom_bore_in is not None and piece.bottom_bore_in != under.bore_in:
        place = _face(piece, "bottom_bore_in")
        fit = remedy(Change(path=place, value=under.bore_in), "Make its bottom face ", size(under.bore_in))
        text = " face stands on a face of "
        yield _find(
            "stop",
            place,
            _words(piece),
            "Its bottom ",
            size(piece.bottom_bore_in),
            text,
            size(under.bore_in),
            ": they do not mate.",
            remedies=(fit,),
        )
    if piece.bottom_psi is not None and piece.bottom_psi != under.top_psi:
        place = _face(piece, "bottom_psi")
        fit = remedy(Change(path=place, value=under.top_psi), "Make its bottom face ", pressure(under.top_psi))
        yield _find(
            "stop",
            place,
            _words(piece),
            "Its bottom face of ",
            pressure(piece.bottom_psi),
            " stands on one of ",
            pressure(under.top_psi),
            ": they do not mate.",
            remedies=(fit,),
        )


def twice_findings(pieces: tuple[HeadPiece, ...]) -> Iterator[Finding]:
    """One piece stands on a string: two of them are in one place."""
    seen: dict[int, HeadPiece] = {}
    for piece in pieces:
        if piece.string is None or piece.above_reference:
            continue
        before = seen.setdefault(piece.string.index, piece)
        if before is not piece:
            text = f" casing is where the {before.name} stands already; two pieces are in one place."
            place = _face(piece, "string")
            yield _find("stop", place, _words(piece), "The ", *piece.string.words, text)


def not_held(pieces: tuple[HeadPiece, ...], string: LaidString) -> Finding:
    text = "No bowl of the wellhead is left for it: every string that reaches surface hangs in one."
    return _find("stop", pieces[-1].place, (*string.words, " casing"), text)


def passing_finding(piece: HeadPiece, what: Words, bore_in: float) -> Finding:
    place = _face(piece, "bore_in")
    return _find("stop", place, _words(piece), *what, " does not pass the bore of ", size(bore_in), ".")


def cellar_findings(cellar_ft: float, lowest_in: float, reference_in: float, on_land: bool) -> Iterator[Finding]:
    """The conductor's cut against the cellar floor, or against the deck."""
    if lowest_in >= 0:
        return
    if not on_land:
        text = "The tubing head stands too low: the conductor would be cut "
        by = height(-lowest_in)
        change = Change(path="/wellhead/reference_in", value=round(reference_in - lowest_in, 2))
        lift = remedy(change, "Raise it by ", by)
        place = "/wellhead/reference_in"
        more: Words = (by, " below the wellhead deck.")
        yield _find("stop", place, ("Wellhead",), text, *more, remedies=(lift,), working="wellhead/cut_off")
        return
    asked = math.ceil((cellar_ft - lowest_in / 12) * 2) / 2
    dug = (remedy(Change(path="/site/cellar_depth_ft", value=asked), "Dig the cellar to ", length(asked)),)
    yield _find(
        "stop",
        "/site/cellar_depth_ft",
        ("Cellar",),
        "With the tubing head's top flange ",
        *_above(reference_in - cellar_ft * 12),
        " the conductor would be cut ",
        height(-lowest_in),
        " below the cellar floor. The cellar is too shallow; left so, that flange and the tree stand proud by as much.",
        remedies=dug if asked <= DEEPEST_CELLAR_FT else (),
        working="wellhead/cut_off",
    )


def _above(reference_in: float) -> Words:
    if abs(reference_in) < 0.005:
        return ("at ground level",)
    return height(abs(reference_in)), " above ground" if reference_in > 0 else " below ground"


def landing_finding(string: LaidString, decided_ft: float | None, ground_ft: float, bowl_ft: float) -> Finding | None:
    """A mandrel's depth in the tally against that of its bowl."""
    lands = ground_ft if decided_ft is None else decided_ft
    if abs(lands - bowl_ft) <= LANDS_WITHIN_FT:
        return None
    change = Change(path=f"{string.path}/running/landing_md_ft", value=round(bowl_ft, 2))
    return _find(
        "caution",
        f"{string.path}/running/landing_md_ft",
        (*string.words, " hanger"),
        "The tally lands it at ",
        length(lands),
        "; its bowl stands at ",
        length(bowl_ft),
        ".",
        value=length(lands),
        limit=length(bowl_ft),
        remedies=(remedy(change, "Land it at ", length(bowl_ft)),) if 0 <= bowl_ft < string.shoe_md_ft else (),
        working=f"wellhead/landing/{string.index}",
    )
