"""What is wrong with what the wellhead carries: bowls, casing, conductor, and growth in production."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Change, Finding, Remedy, depth, find, force, height, pressure, remedy
from knollstack.core.program.laid import LaidString
from knollstack.core.wellhead.loads import COLUMN
from knollstack.core.wellhead.pieces import HeadPiece
from knollstack.core.wellhead.results import SupportRow

_find = partial(find, "wellhead")


def bowl_findings(piece: HeadPiece, string: LaidString, load_lbf: float | None) -> Iterator[Finding]:
    place = f"{piece.place}/bowl_lbf" if piece.decided else piece.place
    subject = (*string.words, " hanger")
    if load_lbf is None:
        yield _find("unknown", place, subject, "What hangs in its bowl is unknown: its pipe or its mud is.")
    elif piece.bowl_lbf is not None and load_lbf > piece.bowl_lbf:
        yield _find(
            "stop",
            place,
            subject,
            "It hangs ",
            force(load_lbf),
            f" in the {piece.name}, whose bowl carries ",
            force(piece.bowl_lbf),
            ".",
            value=force(load_lbf),
            limit=force(piece.bowl_lbf),
            working=f"wellhead/hung/{string.index}",
        )


def lift_finding(string: LaidString, load_lbf: float, growth_lbf: float) -> Finding:
    """A string that production pushes up by more than hangs on it."""
    return _find(
        "caution",
        "/wellhead/pieces",
        (*string.words, " hanger"),
        "Warmed in production the casing pushes up by ",
        force(-growth_lbf),
        "; it hangs with ",
        force(load_lbf),
        ". It lifts off its bowl: lock the hanger down, or hang it with more tension.",
        value=force(-growth_lbf),
        limit=force(load_lbf),
        working="wellhead/growth",
    )


def growth_unknown() -> Finding:
    text = (
        "What production's heat does to hangers and wellhead is unknown: a temperature, a pipe or a top of cement is."
    )
    return _find("unknown", "/site/surface_temperature_f", ("Wellhead growth",), text)


def growth_finding(growth_in: float, most_in: float) -> Finding:
    return _find(
        "caution",
        "/wellhead/pieces",
        ("Wellhead growth",),
        "It rises by ",
        height(growth_in),
        " in production; policy tells over ",
        height(most_in),
        ". Flow lines and base plate must let it.",
        value=height(growth_in),
        limit=height(most_in),
        working="wellhead/growth",
    )


def load_findings(row: SupportRow, free_ft: float | None) -> Iterator[Finding]:
    """A load on casing or conductor against the factor that is asked."""
    if row.what == COLUMN and row.rating is None:
        text = "Its free length is not given: neither the deck nor what holds it sideways is."
        yield _find("unknown", "/wellhead/free_conductor_ft", (row.what,), text)
    if row.asked is None:
        return
    place = "/wellhead/free_conductor_ft" if "column" in row.what else "/wellhead/base_plate_in"
    if row.load is None:
        yield _find("unknown", place, (row.what,), "Its load is unknown: a pipe, a mud or a pressure is.")
        return
    # the casing that carries the wellhead is judged with its pipe
    if row.factor is None or row.factor >= row.asked or row.what.endswith("top"):
        return
    amount = pressure if row.quantity == "pressure" else force
    assert row.rating is not None
    yield _find(
        "caution" if row.quantity == "pressure" else "stop",
        place,
        (row.what,),
        amount(row.load),
        " against ",
        amount(row.rating),
        f": the factor is {row.factor:.2f}; {row.asked:g} is asked.",
        value=amount(row.load),
        limit=amount(row.rating),
        remedies=_support(row, free_ft),
        working=row.working,
    )


def _support(row: SupportRow, free_ft: float | None) -> tuple[Remedy, ...]:
    """A column is as strong as it is short: the free length that is left between supports."""
    if "column" not in row.what or not free_ft or row.factor is None or row.asked is None:
        return ()
    most = math.floor(free_ft * math.sqrt(row.factor / row.asked))
    change = Change(path="/wellhead/free_conductor_ft", value=float(most))
    return (remedy(change, "Hold it sideways every ", depth(most)),)
