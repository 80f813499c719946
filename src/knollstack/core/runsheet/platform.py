"""The family of a platform or jack-up: the deck for the cellar, a conductor that stands free through the water."""

from __future__ import annotations

from knollstack.core.base.findings import Words, depth
from knollstack.core.runsheet.land import CONDUCTOR
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule


def _through_water(at: At) -> Words:
    free = at.plan.wellhead.free_conductor_ft
    stands: Words = ("; free-standing over ", depth(free), " until cemented") if free is not None else ()
    return (
        "Drive the ",
        *at.string.words,
        " conductor through ",
        depth(at.plan.well.site.water_depth_ft),
        " of water to ",
        depth(at.string.shoe_md_ft),
        " or refusal; record the blows of each foot",
        *stands,
    )


def _on_deck(at: At) -> Words:
    deck = at.plan.equipped.design.wellhead.deck_md_ft
    where: Words = (", wellhead deck ", depth(deck), " below it") if deck is not None else ()
    return ("Skid or move the rig over the slot, rotary centred over the conductor", *where)


SITE: tuple[Rule, ...] = (
    Rule(
        "conductor",
        "preparation",
        _through_water,
        "It keeps the sea out of the well and carries the first returns to the deck.",
        "sea",
        "site supervisor",
        when=lambda at: at.string.role == "conductor" and not at.string.drilled,
        hours=lambda at: at.policy.conductor_hours,
        caution="Weather limits of the crane and the hammer hold.",
        does=lambda at: (Does("conductor", at.string.id),),
        place=lambda at: f"{at.path}/shoe_md_ft",
        beside="rig",
    ),
    *CONDUCTOR[1:],
)
RIG = Rule(
    "rig",
    "preparation",
    _on_deck,
    "The conductor stands before the rig is over it.",
    "ground",
    "toolpusher",
    hours=lambda at: at.policy.rig_up_hours,
    place=lambda at: "/wellhead/deck_md_ft",
)
MUDLINE = Rule(
    "mudline",
    "wellhead",
    lambda at: (
        "Land the ",
        *at.casing,
        " in its mudline hanger, ",
        depth(at.plan.equipped.design.wellhead.seabed_hanger_ft),
        " below the mudline; wash out above it",
    ),
    "What hangs below the mudline is not carried by the platform.",
    "wellhead",
    "wellhead technician",
    when=lambda at: at.plan.equipped.design.wellhead.mudline_hangers != "none" and at.string.run == "cased",
    place=lambda at: "/wellhead/mudline_hangers",
)
