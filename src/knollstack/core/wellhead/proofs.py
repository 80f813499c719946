"""Tests of a wellhead: of the welds, between the seals, of the flanges; with what is behind each and what is spared."""

from __future__ import annotations

from knollstack.core.base.working import headline
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.formulas import outside_test_pressure
from knollstack.core.wellhead.pieces import HeadPiece
from knollstack.core.wellhead.results import HeadProof


def proofs_of(equipped: Equipped, pieces: tuple[HeadPiece, ...]) -> tuple[HeadProof, ...]:
    """One weld test where the head is welded on; a seal and a flange test at each joint above."""
    rows: list[HeadProof] = []
    for under, piece in zip((None, *pieces), pieces, strict=False):
        if piece.above_reference:
            continue
        if under is None:
            rows += _mounted(equipped, piece)
        else:
            rows += _joint(equipped, under, piece)
    return tuple(rows)


def _pressure(equipped: Equipped, rated_psi: float, string: EquippedString | None, key: str) -> float | None:
    """The lesser of the face's class and policy's share of the casing's collapse; None where its pipe is unknown."""
    if string is None or not string.sections:
        return None
    with headline(key):
        share = equipped.well.policy.wellhead.collapse_share
        return float(outside_test_pressure(rated_psi, string.sections[0].pipe.collapse_psi, share))


def _by(psi: float | None, rated_psi: float) -> str:
    if psi is None:
        return "unknown: no pipe is known"
    return "class of the face" if psi >= rated_psi else "share of the casing's collapse"


def _mounted(equipped: Equipped, head: HeadPiece) -> list[HeadProof]:
    mounting = equipped.design.wellhead.mounting
    if mounting == "threaded":
        return []
    key, welded = "wellhead/proof/0", mounting == "slip-on weld"
    psi = _pressure(equipped, head.top_psi, head.string, key)
    return [
        HeadProof(
            title="Weld test" if welded else "Test of grips and seal",
            piece=head.index,
            proves="the inside and outside welds, through the test port; not the housing"
            if welded
            else "the seal between casing and head, through the test port; not the housing",
            psi=psi,
            by=_by(psi, head.top_psi),
            behind="the casing, pressed from outside",
            spared="bore, bowl and outlets: they see nothing of it",
            working=key if psi is not None else None,
        )
    ]


def _joint(equipped: Equipped, under: HeadPiece, piece: HeadPiece) -> list[HeadProof]:
    rated = min(under.top_psi, piece.bottom_psi or piece.top_psi)
    key = f"wellhead/proof/{piece.index}"
    psi = _pressure(equipped, rated, piece.string, key)
    spared = "the bore of the casing and the annulus below its hanger: their valves stand open"
    parts = {"piece": piece.index, "psi": psi, "by": _by(psi, rated), "working": key if psi is not None else None}
    return [
        HeadProof(
            title="Seal test",
            proves="the secondary seal on the casing, from between the seals",
            behind="the casing's stub, pressed from outside, and the hanger's seal",
            spared=spared,
            **parts,
        ),
        HeadProof(
            title="Flange test",
            proves="ring gasket and studs of the joint",
            behind="the cavity between ring and secondary seal",
            spared=spared,
            **parts,
        ),
    ]
