"""Elements of barriers on top of the well: BOPs closed on what is across them, hangers with their seals."""

from __future__ import annotations

from knollstack.core.base.findings import Words, pressure
from knollstack.core.completion.elements import Site, element
from knollstack.core.completion.results import ElementRow, Stands
from knollstack.core.preventers.moments import head_under
from knollstack.core.program.equipped import EquippedString
from knollstack.core.wellhead.subsea import class_of, needed_psi


def stack(site: Site, on: EquippedString, kind: str, when: Words) -> ElementRow:
    """The BOPs on a string, closed on what is across them then."""
    row = site.stacks.strings[(_carrier(site, on) or on).index]
    across = [c for c in row.coverage if c.kind == kind and (not when or c.when == when)]
    held: tuple[Stands, Words] = ("stands", ())
    if not row.elements:
        held = "unknown", ("no stack is known",)
    elif row.class_psi is None or row.pressure_psi is None:
        held = "unknown", ("its class, or the pressure on it, is not known",)
    elif row.class_psi < row.pressure_psi - 1e-6:
        held = "fails", ("its class is under ", pressure(row.pressure_psi))
    elif not across:
        held = "unknown", (f"whether it closes on {kind} is not known",)
    elif not across[0].backs:
        held = "fails", (f"no element seals on {kind}",)
    top = site.well.ground_md_ft
    title: Words = ("BOPs closed on ", "open hole" if kind == "nothing" else kind)
    place = row.place or on.path
    return element(
        site, f"bops {on.id}", title, held, "pressure test", place, "top", (top, top), on.index, row.pressure_psi
    )


def _carrier(site: Site, on: EquippedString) -> EquippedString | None:
    """At sea the row of the section stands on its own string; a liner's stack is that of the string above."""
    if on.run != "liner":
        return on
    return next((s for s in reversed(site.equipped.strings[: on.index]) if s.run != "liner"), None)


def hanger_seal(site: Site, string: EquippedString) -> ElementRow:
    """The seal around a hung string: its face against the pressure on it."""
    well, equipped = site.well, site.equipped
    held: tuple[Stands, Words] = ("stands", ())
    class_psi: float | None
    if well.site.setting == "subsea":
        carrier = equipped.carrier
        class_psi = None if carrier is None else class_of(equipped, carrier)
        asked = needed_psi(equipped, string)
    else:
        piece = head_under(site.pieces, string)
        class_psi, asked = (None, None) if piece is None else (piece.top_psi, piece.needed_psi)
    if class_psi is None or asked is None:
        held = "unknown", ("the wellhead, or the pressure on it, is not known",)
    elif class_psi < asked - 1e-6:
        held = "fails", ("its class of ", pressure(class_psi), " is under ", pressure(asked))
    top = well.ground_md_ft
    title: Words = (*string.words, " hanger and seals")
    return element(
        site,
        f"hanger {string.id}",
        title,
        held,
        "pressure test from above",
        "/wellhead",
        "top",
        (top, top),
        string.index,
        asked,
    )
