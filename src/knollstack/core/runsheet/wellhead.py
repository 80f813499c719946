"""The family of the wellhead: casing hung and cut, head and spools set, welds, seals and flanges tested.

`string` is the string that was cemented last, `at.on` what the stack over it stands on.
"""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Words, height, pressure
from knollstack.core.runsheet import land
from knollstack.core.runsheet.barriers import refused
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.wellhead.results import CutRow, HeadProof, PieceResult


def cut_of(at: At, index: int) -> CutRow | None:
    return next((c for c in at.plan.wellhead.cuts if c.string == index), None)


def _datum(at: At) -> str:
    return at.plan.wellhead.datum


def _piece(at: At) -> PieceResult:
    found = at.plan.piece_on(at.string)
    assert found is not None
    return found


def has_piece(at: At) -> bool:
    return at.plan.piece_on(at.string) is not None


def heights_words(at: At, row: CutRow | None, rough: bool) -> Words:
    if row is None:
        return (": its height is not known",)
    over: Words = ("",)
    if not rough and row.above_flange_in is not None:
        over = (", ", height(row.above_flange_in), " above the flange")
    return (" ", height(row.rough_in if rough else row.final_in), f" over the {_datum(at)}", *over)


def cut_working(at: At) -> str | None:
    row = cut_of(at, at.string.index)
    return None if row is None else row.working


def final_cut(why: str) -> Rule:
    """Of the string that is set: on the bare casing and over a hanger alike."""
    return Rule(
        "final-cut",
        "wellhead",
        lambda at: ("Final cut and bevel of the ", *at.casing, *heights_words(at, cut_of(at, at.string.index), False)),
        why,
        "wellhead",
        "wellhead technician, drilling supervisor",
        when=has_piece,
        hours=lambda at: at.policy.cut_hours,
        hold=True,
        place=lambda at: "/wellhead",
        working=cut_working,
    )


def _off_words(at: At) -> Words:
    device = "diverter" if at.diverter else "BOPs"
    return (f"Drain and nipple down the {device}",)


OFF_CONDUCTOR: tuple[Rule, ...] = (
    Rule(
        "off",
        "BOPs",
        _off_words,
        "Cement is set inside and outside, and the barriers are counted.",
        "preventers",
        "toolpusher",
        hours=lambda at: at.policy.nipple_down_hours,
        does=lambda at: (Does("off", at.item),),
        place=lambda at: at.stack.place if at.stack else "",
        held=refused,
    ),
    Rule(
        "cut-conductor",
        "wellhead",
        lambda at: (
            "Cut the adapter flange and the ",
            *(at.on.words if at.on else ()),
            " conductor",
            *heights_words(at, cut_of(at, at.on.index if at.on else 0), False),
        ),
        "The head is to stand on the casing, with the conductor out of its way.",
        "wellhead",
        "wellhead technician",
        when=lambda at: at.diverter,
        hours=lambda at: at.policy.cut_hours,
        caution=land.flame,
        place=lambda at: "/wellhead",
        working=lambda at: "wellhead/cut_off",
    ),
    Rule(
        "rough-cut",
        "wellhead",
        lambda at: ("Rough cut of the ", *at.casing, *heights_words(at, cut_of(at, at.string.index), True)),
        "The stub is taken down to where it can be measured.",
        "wellhead",
        "wellhead technician",
        when=has_piece,
        hours=lambda at: at.policy.cut_hours / 2,
        place=lambda at: "/wellhead",
        working=cut_working,
    ),
    final_cut("It is measured twice: this cut sets the height of all that follows."),
)


def _head(at: At) -> Words:
    piece, mounting = _piece(at), at.plan.wellhead.mounting
    plate = at.plan.equipped.design.wellhead.base_plate_in
    under: Words = ("Base plate over the conductor; ",) if plate and at.diverter else ()
    how = {
        "slip-on weld": "weld inside and outside with preheat",
        "threaded": "make it up to its torque",
        "slip-on grips": "set its grips",
    }[mounting]
    return (*under, f"set the {piece.name} on the ", *at.casing, f", level, outlets in their direction; {how}")


def _first_up(words: Words) -> Words:
    """A sentence begins with a capital."""
    head, *rest = words
    return (head[:1].upper() + head[1:], *rest) if isinstance(head, str) else words


def _spool(at: At) -> Words:
    piece = _piece(at)
    ring = f"; new ring gasket, {piece.bottom_flange}" if piece.bottom_flange is not None else ""
    studs = f", {piece.studs}" if piece.studs is not None else ""
    return (f"Set the {piece.name} over the stub of the ", *at.casing, f"{ring}{studs}; secondary seal over the stub")


def _proofs(at: At) -> Iterator[tuple[str, HeadProof]]:
    if has_piece(at):
        for k, proof in enumerate(at.plan.proofs(_piece(at))):
            yield str(k + 1), proof


def _proof_words(at: At) -> Words:
    proof: HeadProof = at.item
    psi: Words = (pressure(proof.psi), f" ({proof.by})") if proof.psi is not None else ("a pressure not known",)
    return (f"{proof.title} to ", *psi, f": it proves {proof.proves}")


def _proof_caution(at: At) -> Words:
    proof: HeadProof = at.item
    return (f"Behind it stands {proof.behind}. Spared: {proof.spared}.",)


def _opened(at: At) -> tuple[Does, ...]:
    """A joint that has a test of its own."""
    return (Does("joint broken", at.string.id),) if at.plan.proofs(_piece(at)) else ()


SET_HEAD: tuple[Rule, ...] = (
    Rule(
        "head",
        "wellhead",
        lambda at: _first_up(_head(at)),
        "All later strings hang from it.",
        "wellhead",
        "wellhead technician",
        when=has_piece,
        hours=lambda at: at.policy.head_hours,
        caution="Hot work by permit; cool slowly.",
        does=_opened,
        place=lambda at: _piece(at).place,
    ),
)
SET_SPOOL: tuple[Rule, ...] = (
    Rule(
        "spool",
        "wellhead",
        _spool,
        "The annulus is closed above the hanger by a second seal.",
        "wellhead",
        "wellhead technician",
        when=has_piece,
        hours=lambda at: at.policy.spool_hours,
        does=_opened,
        place=lambda at: _piece(at).place,
    ),
)
PROVE: tuple[Rule, ...] = (
    Rule(
        "prove",
        "testing",
        _proof_words,
        "Each joint is proved by its own test before pressure of the well stands on it.",
        "wellhead",
        "wellhead technician, drilling supervisor",
        each=_proofs,
        hours=lambda at: at.policy.head_test_hours,
        caution=_proof_caution,
        hold=True,
        does=lambda at: (Does("joint tested", at.string.id),),
        place=lambda at: _piece(at).place,
        working=lambda at: at.item.working,
    ),
)
