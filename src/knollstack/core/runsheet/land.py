"""The family of a site on land: cellar, conductor, rig, and what is ready before the spud."""

from __future__ import annotations

from knollstack.core.base.findings import Amount, Words, depth, volume
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.runsheet.times import conductor_hole_hours, wait_hours


def _cellar(at: At) -> Words:
    site, asked = at.plan.equipped.design.site, at.plan.wellhead.cellar_needed_ft
    needs: Words = ("; the wellhead asks for ", depth(asked)) if asked is not None else ()
    return ("Dig and line the cellar, ", depth(site.cellar_depth_ft), " deep", *needs)


def _driven(at: At) -> Words:
    return (
        "Drive the ",
        *at.string.words,
        " conductor to ",
        depth(at.string.shoe_md_ft),
        " or refusal; record the blows of each foot",
    )


def _drilled(at: At) -> Words:
    return (
        "Drill ",
        *at.string.hole_words,
        " to ",
        depth(at.string.shoe_md_ft),
        " and run the ",
        *at.string.words,
        " conductor",
    )


def conductor_cement(at: At, to: str) -> Words:
    row = at.cement
    if row.slurry_bbl is None or row.sacks is None:
        return (f"Cement the conductor to {to}",)
    return (
        f"Cement the conductor to {to}: ",
        volume(row.slurry_bbl),
        " of slurry, ",
        Amount(value=row.sacks + (row.lead_sacks or 0.0), quantity="sacks"),
    )


def _drilled_hours(at: At) -> float | None:
    """Its hole beside policy's time to set it."""
    hole = conductor_hole_hours(at)
    return None if hole is None else hole + at.policy.conductor_hours


def _is_hammered(at: At) -> bool:
    return at.string.role == "conductor" and not at.string.drilled


def is_drilled(at: At) -> bool:
    return at.string.role == "conductor" and at.string.drilled


def has_diverter(at: At) -> bool:
    return at.string.role == "conductor" and bool(at.plan.preventers.strings[at.string.index].elements)


def flame(at: At) -> Words:
    where = "the cellar" if at.plan.well.site.setting == "land" else "the deck and the annuli"
    return (f"Test {where} for gas before any flame.",)


CONDUCTOR: tuple[Rule, ...] = (
    Rule(
        "conductor",
        "preparation",
        _driven,
        "It keeps the loose ground back and carries the first returns.",
        "sea",
        "site supervisor",
        when=_is_hammered,
        hours=lambda at: at.policy.conductor_hours,
        does=lambda at: (Does("conductor", at.string.id),),
        place=lambda at: f"{at.path}/shoe_md_ft",
        beside="rig",
    ),
    Rule(
        "conductor-hole",
        "preparation",
        _drilled,
        "It keeps the loose ground back and carries the first returns.",
        "depths",
        "site supervisor",
        when=is_drilled,
        hours=_drilled_hours,
        does=lambda at: (Does("conductor", at.string.id),),
        place=lambda at: f"{at.path}/shoe_md_ft",
        beside="rig",
    ),
    Rule(
        "conductor-cement",
        "preparation",
        lambda at: conductor_cement(at, "surface"),
        "Returns are not to come up around it.",
        "cement",
        "site supervisor",
        when=is_drilled,
        hours=wait_hours,
        does=lambda at: (Does("cemented", at.string.id), Does("set", at.string.id)),
        place=lambda at: f"{at.path}/cement",
        beside="rig",
    ),
)
SITE: tuple[Rule, ...] = (
    Rule(
        "cellar",
        "preparation",
        _cellar,
        "The tree is to stand at ground level, its valves in reach.",
        "wellhead",
        "site supervisor",
        when=lambda at: at.plan.well.site.cellar_depth_ft > 0,
        hours=lambda at: at.policy.cellar_hours,
        caution="Gas collects in a cellar: test before entry.",
        place=lambda at: "/site/cellar_depth_ft",
        beside="rig",
    ),
    *CONDUCTOR,
)
RIG = Rule(
    "rig",
    "preparation",
    lambda at: (
        "Move in and rig up, rotary centred over the well, floor ",
        depth(at.plan.well.site.rig_floor_ft),
        " over ground",
    ),
    "Cellar and conductor are done before the rig stands over them.",
    "ground",
    "toolpusher",
    hours=lambda at: at.policy.rig_up_hours,
    place=lambda at: "/site/rig_floor_ft",
)
FLANGE = Rule(
    "flange",
    "preparation",
    lambda at: ("Cut the ", *at.string.words, " conductor level and weld the diverter's flange to it"),
    "It carries the diverter.",
    "preventers",
    "toolpusher",
    when=has_diverter,
    hours=lambda at: at.policy.flange_hours,
    caution=flame,
    place=lambda at: at.plan.preventers.strings[at.string.index].place,
)
MEETING = Rule(
    "meeting",
    "preparation",
    lambda at: ("Pre-spud meeting: this sheet read by crew and services, kick and fire drill held",),
    "Everybody knows who stops the work, and when.",
    "runsheet",
    "drilling supervisor, toolpusher",
    hold=True,
    place=lambda at: "/runsheet/spud",
)
