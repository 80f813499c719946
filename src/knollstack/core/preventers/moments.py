"""The stack-up at every moment of the well, to scale: from the cellar floor or the deck up to the rotary."""

from __future__ import annotations

from knollstack.core.base.findings import Words, pressure
from knollstack.core.preventers.results import Moment, StackItem, StackRow
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.running.tally import hung_by
from knollstack.core.wellhead.heights import CUTS, Heights, cuts_of, floor_to_rotary_ft, shoulder_in
from knollstack.core.wellhead.pieces import HeadPiece
from knollstack.core.wellhead.results import TreeRow
from knollstack.core.wellhead.tree import tree_of, tree_row

Pieces = tuple[HeadPiece, ...]
DIVERTER_AT_IN = 0.0
"""The diverter's flange on the conductor, over the ground or the deck: it is cut later."""
TREE_WIDTH = 0.8
"""Width of the run of a tree, over the flange that it stands on, as drawn."""
HANGER_IN = 5.0
"""Height of a hanger, as drawn."""
TREE_BORE_SHARE = 0.35
"""Bore of a tree over that of its tubing head, as drawn where no tubing is decided."""
WITHOUT_FLANGE = 1.35
"""OD over bore of what is drawn where its flange is not held."""
BODY = {"ram": 2.2, "annular": 2.6, "diverter": 2.0}
"""Width of an element over its bore, as drawn."""


def stack_base_in(equipped: Equipped, string: EquippedString, pieces: Pieces, heights: Heights | None) -> float | None:
    """Height of the face that the stack on a string stands on, over the cellar floor or the deck."""
    if heights is None:
        return None
    if string.role == "conductor":
        return _ground_in(equipped) + DIVERTER_AT_IN
    head = head_under(pieces, string)
    return heights.tops_in[head.index] if head is not None else None


def head_under(pieces: Pieces, string: EquippedString) -> HeadPiece | None:
    """The piece that a stack on a string stands on: its own, else the one in whose bowl it hangs."""
    below = [p for p in pieces if not p.above_reference]
    own = next((p for p in below if p.string is not None and p.string.index == string.index), None)
    return own or next((p for p in below if any(s.index == string.index for s in p.holds)), None)


def _ground_in(equipped: Equipped) -> float:
    site = equipped.design.site
    return site.cellar_depth_ft * 12 if site.setting == "land" else 0.0


def moments_of(
    equipped: Equipped, pieces: Pieces, heights: Heights | None, stacks: tuple[StackRow, ...]
) -> tuple[Moment, ...]:
    """One for each stack, and the well as completed."""
    if heights is None:
        return ()
    found = []
    for string, stack in zip(equipped.strings, stacks, strict=True):
        if not stack.elements or stack.base_in is None:
            continue
        items = [
            *_casings(equipped, heights, string.index),
            *_set(equipped, pieces, heights, string),
            *stack_items(stack),
        ]
        through = equipped.next(string)
        what: Words = (*through.hole_words,) if through is not None else ("completion",)
        found.append(_moment(equipped, ("BOPs on ", *string.words, ": ", *what), string.index, items, stack.choke))
    last = max((s.index for s, row in zip(equipped.strings, stacks, strict=True) if row.elements), default=0)
    items = [
        *_casings(equipped, heights, len(equipped.strings)),
        *_pieces(equipped, pieces, heights, len(equipped.strings)),
    ]
    found.append(_moment(equipped, ("Completed",), last, [*items, *_tree(equipped, pieces, heights)], None))
    return tuple(found)


def _moment(equipped: Equipped, title: Words, index: int, items: list[StackItem], choke: int | None) -> Moment:
    site, rotary, ground = equipped.design.site, floor_to_rotary_ft(equipped), _ground_in(equipped)
    on_land = site.setting == "land"
    return Moment(
        title=title,
        string=index,
        items=tuple(items),
        ground_in=ground,
        rotary_in=None if rotary is None else rotary * 12,
        beams_in=None if site.rotary_room_ft is None else ground + site.rotary_room_ft * 12,
        flow_line_in=ground + site.flowline_height_ft * 12 if on_land else None,
    )


def _item(
    kind: str, title: str, step: str, place: str, bottom: float, top: float, bore: float | None, od: float
) -> StackItem:
    return StackItem(
        kind=kind, title=title, step=step, place=place, bottom_in=bottom, top_in=top, bore_in=bore, od_in=od
    )


def _casings(equipped: Equipped, heights: Heights, most: int) -> list[StackItem]:
    """Conductor and casings as they stand in the cellar, each up to its cut."""
    items: list[StackItem] = []
    for string in equipped.strings[: most + 1]:
        if string.run == "liner" or string.od_in is None:
            continue
        bore = string.pipe.id_in if string.pipe is not None else None
        if string.role == "conductor":
            set_yet = most > 0
            top = heights.conductor_in if set_yet else _ground_in(equipped)
        elif not any(i.kind == "casing" for i in items):
            top = heights.surface_in
        else:
            continue
        kind = "conductor" if string.role == "conductor" else "casing"
        item = _item(
            kind, f"{string.role} casing" if kind == "casing" else kind, "wellhead", CUTS, 0.0, top, bore, string.od_in
        )
        items.append(item.model_copy(update={"working": CUTS, "place": f"{string.path}/od_in"}))
    return items


def _pieces(equipped: Equipped, pieces: Pieces, heights: Heights, most: int) -> list[StackItem]:
    """Base plate and pieces, and in their bowls the strings that hang there up to the one in hand."""
    items: list[StackItem] = []
    plate = equipped.design.wellhead.base_plate_in
    if plate and pieces and heights.conductor_in > 0 and equipped.strings and equipped.strings[0].od_in is not None:
        od = equipped.strings[0].od_in * 1.15
        bottom = heights.conductor_in
        items.append(
            _item("base plate", "base plate", "wellhead", "/wellhead/base_plate_in", bottom, bottom + plate, None, od)
        )
    for piece in pieces:
        face = equipped.catalogue.face(piece.bore_in, piece.top_psi)
        od = face.od_in if face is not None else WITHOUT_FLANGE * piece.bore_in + 4
        bottom, top = heights.bottoms_in[piece.index], heights.tops_in[piece.index]
        item = _item(piece.kind, piece.name, "wellhead", piece.place, bottom, top, piece.bore_in, od)
        items.append(item.model_copy(update={"working": f"wellhead/face/{piece.index}", "outlets": piece.outlets}))
    return items + _hung(equipped, pieces, heights, most)


def _hung(equipped: Equipped, pieces: Pieces, heights: Heights, most: int) -> list[StackItem]:
    """Each string that hangs: its hanger on the shoulder, and its wall up to the cut, or to the top of a mandrel."""
    items: list[StackItem] = []
    shown = [p for p in pieces if not p.above_reference]
    cuts = {row.string: row for row in cuts_of(equipped, pieces, heights)} if pieces else {}
    for piece in pieces:
        for n, string in enumerate(piece.holds):
            if string.index > most or string.od_in is None:
                continue
            shoulder, place = shoulder_in(piece, n, heights), f"{string.path}/od_in"
            cut, bore = cuts.get(string.index), string.pipe.id_in if string.pipe is not None else None
            by = hung_by(equipped.well, string)
            title = f"hanger, {by}"
            hanger = _item(
                "hanger", title, "wellhead", place, shoulder, shoulder + HANGER_IN, string.od_in, piece.bore_in
            )
            items.append(hanger.model_copy(update={"working": f"wellhead/landing/{string.index}"}))
            top = cut.final_in if cut is not None else shoulder + HANGER_IN
            wall = _item("casing", f"{string.role} casing", "wellhead", place, 0.0, top, bore, string.od_in)
            items.append(wall.model_copy(update={"working": cut.working if cut is not None else hanger.working}))
            over = next((p for p in shown if p.string is not None and p.string.index == string.index), None)
            if over is not None and cut is not None and over.seal_in:
                at = heights.bottoms_in[over.index]
                place = f"{over.place}/seal_in" if over.decided else over.place
                seal = _item(
                    "seal",
                    f"secondary seal in the {over.name}",
                    "wellhead",
                    place,
                    at,
                    at + over.seal_in,
                    string.od_in,
                    over.bore_in,
                )
                items.append(seal.model_copy(update={"working": f"wellhead/proof/{over.index}"}))
    return items


def _set(equipped: Equipped, pieces: Pieces, heights: Heights, string: EquippedString) -> list[StackItem]:
    """Pieces that are on by the time a stack stands on this string."""
    if string.role == "conductor":
        return []
    on = head_under(pieces, string)
    return _pieces(equipped, pieces[: on.index + 1] if on is not None else (), heights, string.index)


def _tree(equipped: Equipped, pieces: Pieces, heights: Heights) -> list[StackItem]:
    """Adapter and tree on the reference face: those of the document, else the catalogue's for their class."""
    if not pieces or any(p.above_reference for p in pieces):
        return []
    at, class_psi = heights.reference_in, pieces[-1].top_psi
    items: list[StackItem] = []
    bore = equipped.well.policy.sizes.tubing_od_in or TREE_BORE_SHARE * pieces[-1].bore_in
    face = equipped.catalogue.face(pieces[-1].bore_in, class_psi)
    wide = face.od_in if face is not None else WITHOUT_FLANGE * pieces[-1].bore_in + 4
    usual = equipped.catalogue.piece("adapter", class_psi)
    bottom = at + usual.gap_in
    at = bottom + usual.height_in
    items.append(_item("adapter", "adapter", "wellhead", "/wellhead/pieces", bottom, at, bore, wide))
    found = tree_of(equipped, pieces)
    if found is None:
        return items
    at += equipped.catalogue.piece("tree", found.class_psi).gap_in
    return [*items, *tree_items(tree_row(equipped, found), at, bore, wide)]


def tree_items(row: TreeRow, foot_in: float, bore_in: float, wide_in: float) -> list[StackItem]:
    """The run of the tree on its adapter, every valve with its class; wings are outlets of the cross."""
    items, wings = [], [v for v in row.valves if v.side == "wing"]
    for valve in row.valves:
        if valve.side == "wing":
            continue
        cross = valve.name in ("cross", "tee")
        kind = "tree cap" if valve.name == "tree cap" else "tree cross" if cross else "tree valve"
        count = sum(1 for w in wings if w.name != "choke") if cross else 0
        shuts = (", with wings",) if cross else (", shuts by itself",) if valve.safety else ()
        note: Words = (pressure(valve.class_psi), *shuts)
        span = foot_in + valve.bottom_in, foot_in + valve.top_in
        item = _item(kind, valve.name, "wellhead", "/completion/tree/class_psi", *span, bore_in, TREE_WIDTH * wide_in)
        items.append(item.model_copy(update={"outlets": count, "note": note}))
    return items


def stack_items(stack: StackRow) -> list[StackItem]:
    items: list[StackItem] = []
    assert stack.base_in is not None
    for element in stack.elements:
        if element.bottom_in is None or element.top_in is None:
            break
        bore = element.bore_in or 20.0
        od = bore * BODY.get(element.kind, 1.5)
        bottom, top = stack.base_in + element.bottom_in, stack.base_in + element.top_in
        item = _item(element.element, element.title, "preventers", element.place, bottom, top, element.bore_in, od)
        items.append(item.model_copy(update={"element": len(items), "outlets": element.outlets}))
    return items
