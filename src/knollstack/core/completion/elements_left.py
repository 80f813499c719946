"""Elements of barriers once the well is completed, suspended or plugged: plugs, completion fluid, packer, tubing, tree."""

from __future__ import annotations

from typing import Literal

import numpy as np

from knollstack.core.base.findings import Words, depth, emw, pressure, size
from knollstack.core.completion.elements import Site, Where, element, held_by, overbalance_psi
from knollstack.core.completion.leaving import Left
from knollstack.core.completion.plugs import Judged, test_psi
from knollstack.core.completion.producing import hanger_md_ft, packer_md_ft, perforations, producing_of
from knollstack.core.completion.results import ElementRow, Stands
from knollstack.core.completion.tubing import spaced_of
from knollstack.core.pipe.exposure import completion_fluid_ppg
from knollstack.core.program.equipped import EquippedString
from knollstack.core.wellhead.tree import tree_of

FLOW_CHECK = "weight in and out, flow check"


def plug(site: Site, left: Left, judged: Judged) -> ElementRow:
    own = judged.own
    title: Words = (own.name or f"Plug {judged.index + 1}", ", ", depth(own.top_md_ft), " to ", depth(own.bottom_md_ft))
    place = left.path if left.proposed else f"{left.path}/{judged.index}"
    where: Where = "hole" if own.inside == "open hole" else "bore"
    held, span = (judged.counts, judged.why), (own.top_md_ft, own.bottom_md_ft)
    verify = own.verify if own.verify != "none" else "not verified"
    key = f"{left.way} {own.id}"
    inside = left.innermost.index
    return element(site, key, title, held, verify, place, where, span, inside, test_psi(left, own))


def completion_fluid(site: Site, string: EquippedString, *, riser_off: bool = False) -> ElementRow:
    """Over the formation at the perforations; at sea the riser's part of it is lost with the riser."""
    spans, _ = perforations(site.equipped, string)
    ppg, well = completion_fluid_ppg(site.equipped.design, site.well), site.well
    under_sea = riser_off and well.site.setting == "subsea"
    ends = [(top, min(base, well.path.total_md_ft)) for top, base in spans]
    over = [overbalance_psi(well, ppg, *span, under_sea=under_sea) for span in ends]
    known = [psi for psi in over if psi is not None]
    held = held_by(min(known) if known and len(known) == len(over) else None, "formation pressure")
    title: Words = (emw(ppg), " completion fluid")
    span = well.ground_md_ft, spans[0][0] if spans else string.shoe_md_ft
    place = "/completion/fluid_ppg"
    return element(site, "completion fluid", title, held, FLOW_CHECK, place, "bore", span, string.index)


def packer(site: Site, string: EquippedString) -> ElementRow:
    at, proposed = packer_md_ft(site.equipped, string)
    held: tuple[Stands, Words] = ("stands", ())
    top = string.cement_top_md_ft
    if at is None:
        held = "unknown", ("its depth is not known",)
    elif at > string.shoe_md_ft:
        held = "fails", ("it stands below the casing",)
    elif top is None:
        held = "unknown", ("whether cement stands behind the casing there is not known",)
    elif string.top_md_ft <= at < top:
        held = "fails", ("no cement stands behind the casing there",)
    depth_ft = string.shoe_md_ft if at is None else at
    title: Words = ("packer", " (proposed)") if proposed else ("packer",)
    return element(
        site,
        "packer",
        title,
        held,
        "pressure test of the annulus",
        "/completion/packer_md_ft",
        "bore",
        (depth_ft, depth_ft),
        string.index,
    )


def tubing(site: Site, string: EquippedString) -> ElementRow:
    """Its strength in every case."""
    found = producing_of(site.equipped)
    held: tuple[Stands, Words] = ("unknown", (found,)) if isinstance(found, str) else ("stands", ())
    title: Words = ("tubing",)
    span = hanger_md_ft(site.equipped), string.shoe_md_ft
    psi: float | None = None
    if not isinstance(found, str):
        span = span[0], found.packer_md_ft
        spaced, psi = spaced_of(found), site.well.policy.completion.tubing_test_psi
        if spaced is None:
            held = "unknown", ("the tubing is not known",)
        else:
            title = (size(spaced.pipe.od_in), " tubing")
            if np.isnan(spaced.share):
                held = "unknown", ("the strength of its connection is not known",)
            elif spaced.share < 1 - 1e-9:
                held = "fails", (f"{spaced.share:.2f} of the factor that is asked",)
            elif spaced.pipe.coupling_od_in > found.narrowest.drift_in + 1e-9:
                held = "fails", ("its couplings do not pass the casing",)
    return element(site, "tubing", title, held, "pressure test", "/completion/tubing", "wall", span, None, psi)


def tubing_hanger(site: Site) -> ElementRow:
    at, asked = _tubing_head(site)
    held: tuple[Stands, Words] = ("stands", ())
    if at is None or asked is None:
        held = "unknown", ("the tubing head, or the pressure on it, is not known",)
    elif at < asked - 1e-6:
        held = "fails", ("the class of the tubing head is under ", pressure(asked))
    top = hanger_md_ft(site.equipped)
    title: Words = ("tubing hanger and seals",)
    return element(site, "tubing hanger", title, held, "pressure test", "/wellhead", "top", (top, top), None, asked)


def _tubing_head(site: Site) -> tuple[float | None, float | None]:
    tree = tree_of(site.equipped, site.pieces)
    return (None, None) if tree is None else (tree.head_psi, tree.needed_psi)


def back_pressure_valve(site: Site) -> ElementRow:
    own = site.equipped.design.completion
    held: tuple[Stands, Words] = ("stands", ()) if own.back_pressure_valve else ("fails", ("it is not set",))
    top, place = hanger_md_ft(site.equipped), "/completion/back_pressure_valve"
    return element(
        site,
        "back-pressure valve",
        ("back-pressure valve",),
        held,
        "pressure test from below",
        place,
        "top",
        (top, top),
    )


def tree(site: Site, what: Literal["safety valve", "valves"]) -> ElementRow:
    """The valve that shuts by itself, or the whole body with its valves."""
    found, under_sea = tree_of(site.equipped, site.pieces), site.well.site.setting == "subsea"
    titles = {"safety valve": "fail-safe valve of the tree" if under_sea else "surface safety valve"}
    held: tuple[Stands, Words] = ("stands", ())
    if found is None or found.needed_psi is None:
        held = "unknown", ("the tree, or the pressure on it, is not known",)
    elif found.class_psi < found.needed_psi - 1e-6:
        held = "fails", ("its class of ", pressure(found.class_psi), " is under ", pressure(found.needed_psi))
    elif what == "safety valve" and site.equipped.design.completion.tree.safety_valves < 1:
        held = "fails", ("there is none",)
    top, psi = hanger_md_ft(site.equipped), None if found is None else found.class_psi
    title = titles.get(what, "tree with its master and wing valves")
    verify = "pressure test, function test" if what == "safety valve" else "pressure test"
    return element(site, f"tree {what}", (title,), held, verify, "/completion/tree", "top", (top, top), None, psi)
