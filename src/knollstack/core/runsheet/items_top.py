"""What stands on top, and what completes or closes the well: wellhead, rings, parts of the BOPs, tubing, plugs."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Words, emw, pressure, size
from knollstack.core.completion.running_order import pups_words
from knollstack.core.runsheet.items import LB_SACK, Item, whole
from knollstack.core.runsheet.plan import At, Plan


def of_wellhead(plan: Plan) -> Iterator[Item]:
    """Pieces with their rings and studs, hangers and seals; under the sea the housing with what lands in it."""
    if plan.subsea:
        yield from _housing(plan)
        return
    for k, piece in enumerate(plan.wellhead.pieces):
        if piece.above_reference:
            continue
        index = next((s.index for s in plan.standing if s.id == piece.string_id), None)
        if index is None:
            continue
        used: tuple[str, ...] = (f"{piece.string_id}/head", f"{piece.string_id}/spool")
        what: Words = (f"{piece.name[:1].upper()}{piece.name[1:]}, ", pressure(piece.top_psi))
        yield Item(f"piece/{k}", "wellhead", what, "each", 1.0, 0.0, used, index, piece.weight_lbf)
        if piece.bottom_flange is not None:
            yield from _joint(plan, f"piece/{k}", piece.bottom_flange, piece.studs, used, index)
            seal: Words = (*plan.equipped.strings[index].words, " secondary seal")
            yield Item(f"piece/{k}/seal", "hangers and seals", seal, "each", 1.0, 1.0, used, index)
        if piece.bowls:
            yield Item(
                f"piece/{k}/bushing",
                "wellhead",
                (f"Wear bushing of the {piece.name}",),
                "each",
                1.0,
                0.0,
                (f"{piece.string_id}/bushing-in", *used),
                index,
            )
    for string in plan.standing:
        row = plan.hung(string)
        if row is not None:
            kind = "slip hanger" if row.hanger == "slips" else "mandrel hanger with pack-off"
            used = (f"{string.id}/slips", f"{string.id}/pack-off", f"{string.id}/land")
            yield Item(
                f"{string.id}/hanger",
                "hangers and seals",
                (*string.words, f" {kind}"),
                "each",
                1.0,
                1.0,
                used,
                string.index,
            )


def _joint(plan: Plan, key: str, flange: str, studs: str | None, used: tuple[str, ...], index: int) -> Iterator[Item]:
    spare = float(plan.policy.spare_rings)
    yield Item(f"{key}/ring", "ring gaskets and studs", (f"Ring gasket, {flange}",), "each", 1.0, spare, used, index)
    if studs is not None:
        yield Item(f"{key}/studs", "ring gaskets and studs", (f"{studs} with nuts",), "set", 1.0, 0.0, used, index)


def _housing(plan: Plan) -> Iterator[Item]:
    first, carrier = plan.equipped.strings[0], plan.equipped.carrier
    if first.role == "conductor":
        used = (f"{first.id}/conductor",)
        yield Item(
            "low-housing", "wellhead", (*first.words, " low-pressure housing"), "each", 1.0, 0.0, used, first.index
        )
        yield Item("guide-base", "wellhead", ("Guide base",), "each", 1.0, 0.0, used, first.index)
    if carrier is None or plan.wellhead.sea is None:
        return
    bore = size(plan.wellhead.sea.bore_in)
    used = (f"{carrier.id}/housing",)
    yield Item(
        "housing",
        "wellhead",
        (bore, " high-pressure housing"),
        "each",
        1.0,
        0.0,
        used,
        carrier.index,
        plan.equipped.housing_lbf,
    )
    yield Item(
        "protector", "wellhead", ("Bore protector",), "each", 1.0, 1.0, (f"{carrier.id}/bushing-in",), carrier.index
    )
    yield Item(
        "latch-ring",
        "ring gaskets and studs",
        ("Connector gasket",),
        "each",
        1.0,
        float(plan.policy.spare_rings),
        (f"{carrier.id}/latch",),
        carrier.index,
    )
    for string in plan.standing[carrier.index + 1 :]:
        if string.run != "liner":
            what: Words = (*string.words, " casing hanger with seal assembly")
            yield Item(
                f"{string.id}/hanger", "hangers and seals", what, "each", 1.0, 1.0, (f"{string.id}/land",), string.index
            )


def of_bops(plan: Plan) -> Iterator[Item]:
    """Rings under the stacks, casing rams, spare packers."""
    for string in plan.standing:
        row = plan.preventers.strings[string.index]
        if not row.elements or string.role == "conductor":
            continue
        used = (f"{string.id}/nipple-up", f"{string.id}/latch")
        if row.flange is not None and not plan.subsea:
            what: Words = (f"Ring gasket under the stack, {row.flange}",)
            yield Item(
                f"{string.id}/stack-ring",
                "ring gaskets and studs",
                what,
                "each",
                1.0,
                float(plan.policy.spare_rings),
                used,
                string.index,
            )
        if plan.subsea and plan.equipped.carrier is not string:
            continue
        for element in row.elements:
            if element.kind in ("ram", "rams", "annular") or "rams" in element.element or element.element == "annular":
                part: Words = (
                    "Packing element of the " if "annular" in element.element else "Packers of the ",
                    *_named(element.title, element.size_in),
                )
                yield Item(f"{string.id}/packer/{element.id}", "BOP parts", part, "set", 0.0, 1.0, used, string.index)
    for string in plan.standing:
        at = At(plan, string)
        if at.ram is not None and string.od_in is not None:
            rams: Words = (size(string.od_in), f" casing rams for the {at.ram.title}, with bonnet seals")
            yield Item(
                f"{string.id}/casing-rams", "BOP parts", rams, "set", 1.0, 0.0, (f"{string.id}/rams",), string.index
            )


def _named(title: str, fits_in: float | None) -> Words:
    return (title, ", ", size(fits_in)) if fits_in is not None else (title,)


def of_end(plan: Plan) -> Iterator[Item]:
    """What completes the well, or what it is left with."""
    if plan.completion.decision == "complete" and plan.completion.completion is not None:
        yield from _completion(plan)
    if plan.leaving is not None:
        yield from _left(plan)


def _completion(plan: Plan) -> Iterator[Item]:
    row, own = plan.completion.completion, plan.equipped.design.completion
    assert row is not None
    if row.tubing is not None:
        t = row.tubing
        joint = t.length_ft / max(t.joints, 1)
        spare = whole(max(plan.well.policy.running.spare_share * t.joints, 1.0))
        what: Words = (
            size(t.od_in),
            " ",
            Amount(value=t.weight_ppf, quantity="linear_weight"),
            f" {t.grade} {t.connection} tubing",
        )
        yield Item(
            "tubing", "tubing", what, "joints", float(t.joints), spare, ("end/tubing",), weight_lb=t.weight_ppf * joint
        )
        if t.pups_ft:
            pups: Words = (size(t.od_in), " tubing pups: ", *pups_words(t.pups_ft))
            yield Item("tubing-pups", "tubing", pups, "each", float(len(t.pups_ft)), 0.0, ("end/tubing",))
        yield Item("tubing-hanger", "completion", ("Tubing hanger with seals",), "each", 1.0, 0.0, ("end/land",))
    if row.packer_md_ft is not None:
        yield Item(
            "packer", "completion", (f"Packer, {own.packer}, with its seals",), "each", 1.0, 0.0, ("end/packer",)
        )
    if own.back_pressure_valve:
        yield Item("bpv", "completion", ("Back-pressure valve",), "each", 1.0, 1.0, ("end/bpv",))
    if row.tree is not None:
        tree: Words = ("Tree, ", pressure(row.tree.class_psi))
        yield Item("tree", "completion", tree, "each", 1.0, 0.0, ("end/tree",))
        if row.tree.flange is not None:
            ring: Words = (f"Ring gasket under the tree, {row.tree.flange}",)
            yield Item(
                "tree-ring", "ring gaskets and studs", ring, "each", 1.0, float(plan.policy.spare_rings), ("end/tree",)
            )
    clean = row.clean
    if clean is not None and clean.shots is not None:
        yield Item(
            "guns",
            "completion",
            ("Perforating guns, shots",),
            "each",
            clean.shots,
            0.0,
            ("end/guns-before", "end/guns-through"),
        )
    if clean is not None and clean.pumped_bbl is not None:
        fluid: Words = (emw(row.fluid_ppg), " completion fluid")
        yield Item("completion-fluid", "mud", fluid, "bbl", clean.pumped_bbl, 0.0, ("end/fluid",))


def _left(plan: Plan) -> Iterator[Item]:
    left = plan.leaving
    assert left is not None
    used, spare = ("end/plug",), plan.policy.spare_cement
    sacks = sum(p.volumes.sacks for p in left.plugs if p.volumes is not None)
    if sacks:
        yield Item(
            "plug-cement", "cement", ("Cement for the plugs",), "sk", sacks, spare * sacks, used, weight_lb=LB_SACK
        )
    mechanical = sum(p.base == "mechanical plug" for p in left.plugs)
    if mechanical:
        yield Item("mechanical-plugs", "plugs", ("Mechanical plug",), "each", float(mechanical), 1.0, used)
    if plan.completion.decision == "suspend":
        yield Item("cap", "plugs", ("Cap with gauge and bleed valve",), "each", 1.0, 0.0, ("end/cap",))
