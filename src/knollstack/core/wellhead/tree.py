"""The tree: its valves from the tubing head up, their class, and which of them shut by themselves."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.pipe.exposure import exposure_of
from knollstack.core.pipe.surface import closed_in_psi
from knollstack.core.program.equipped import Equipped
from knollstack.core.wellhead.pieces import HeadPiece
from knollstack.core.wellhead.results import TreeRow, ValveRow
from knollstack.core.wellhead.subsea import class_of

RUN = (
    ("lower master valve", 0.22),
    ("upper master valve", 0.22),
    ("cross", 0.2),
    ("swab valve", 0.22),
    ("tree cap", 0.14),
)
"""Parts of the run, bottom to top, with their share of the tree's height, as drawn."""
WINGS = ("production wing valve", "kill wing valve")


@dataclass(frozen=True)
class TreeInForce:
    """A tree with its class [psi], that of the head under it, and the most that it sees; None is not known."""

    class_psi: float
    head_psi: float
    needed_psi: float | None
    flange: str | None
    bore_in: float | None
    height_in: float


def needed_psi(equipped: Equipped) -> float | None:
    """Shut-in and treating pressure at the wellhead."""
    string = equipped.producing
    if string is None:
        return None
    exposed = exposure_of(equipped.laid, string)
    closed = closed_in_psi(equipped.well, exposed)
    treating = equipped.design.completion.treating_psi
    return None if closed is None else max(closed, treating or 0.0)


def tree_of(equipped: Equipped, pieces: tuple[HeadPiece, ...]) -> TreeInForce | None:
    """On the last piece of the wellhead or on the housing on the sea floor; None where that is not known."""
    own, flange = equipped.design.completion.tree, None
    if equipped.well.site.setting == "subsea":
        carrier = equipped.carrier
        head = None if carrier is None else class_of(equipped, carrier)
    else:
        counted = [p for p in pieces if not p.above_reference]
        decided = next((p for p in reversed(pieces) if p.kind == "tree"), None)
        head = counted[-1].top_psi if counted else None
        if decided is not None and own.class_psi is None:
            own = own.model_copy(update={"class_psi": decided.top_psi})
        face = equipped.catalogue.face(counted[-1].bore_in, counted[-1].top_psi) if counted else None
        flange = None if face is None else face.words
    if head is None:
        return None
    class_psi = own.class_psi if own.class_psi is not None else head
    usual = equipped.catalogue.piece("tree", class_psi)
    bore = own.bore_in if own.bore_in is not None else equipped.well.policy.sizes.tubing_od_in
    return TreeInForce(class_psi, head, needed_psi(equipped), flange, bore, usual.height_in)


def tree_row(equipped: Equipped, found: TreeInForce) -> TreeRow:
    own = equipped.design.completion.tree
    bore = found.bore_in if found.bore_in is not None else 3.0
    valves, at = [], 0.0
    for name, share in RUN:
        title = "tee" if name == "cross" and own.wings == 1 else name
        top = at + share * found.height_in
        safe = name == "upper master valve" and own.safety_valves > 0
        valves.append(_valve(found, title, bore, safe, "run", (at, top)))
        if name == "cross":
            for side in range(own.wings):
                safe = own.safety_valves > side + 1
                valves.append(_valve(found, WINGS[side], bore, safe, "wing", (at, top)))
            valves.append(_valve(found, "choke", bore, False, "wing", (at, top)))
        at = top
    return TreeRow(class_psi=found.class_psi, needed_psi=found.needed_psi, flange=found.flange, valves=tuple(valves))


def _valve(found: TreeInForce, name: str, bore: float, safe: bool, side: str, span: tuple[float, float]) -> ValveRow:
    return ValveRow(
        name=name,
        class_psi=found.class_psi,
        bore_in=bore,
        safety=safe,
        test_psi=found.class_psi,
        side="wing" if side == "wing" else "run",
        bottom_in=span[0],
        top_in=span[1],
    )
