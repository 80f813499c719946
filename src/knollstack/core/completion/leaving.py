"""A well that is left, suspended or abandoned: what plugs are asked for, and the plugs in force, decided or proposed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from knollstack.core.base.findings import Words
from knollstack.core.completion.producing import PAY, Span, inside_pay, zone_md_ft
from knollstack.core.document.completion import Leaving, Perforation, WellPlug
from knollstack.core.document.design import Zone
from knollstack.core.ground.well import Well
from knollstack.core.program.column import landing_md_ft
from knollstack.core.program.equipped import Equipped, EquippedString

Way = Literal["suspension", "abandonment"]
WAYS: tuple[Way, ...] = ("suspension", "abandonment")
JOINED_FT = 100.0
"""Plugs nearer to one another than this are set as one."""
SHALLOW_FT = 300.0
"""Below the ground: the shallow plug of a suspension."""


@dataclass(frozen=True)
class Need:
    """What is to be isolated, and from where to where cement is asked for."""

    kind: Literal["zone", "shoe", "liner top", "perforations", "surface", "shallow"]
    what: Words
    name: str
    top_md_ft: float
    bottom_md_ft: float
    at: Span
    """What it isolates itself."""


@dataclass(frozen=True, eq=False)
class Left:
    """A way of leaving the well: which strings stand, its needs, and the plugs in force from the bottom up."""

    equipped: Equipped
    way: Way
    own: Leaving
    standing: int
    needs: tuple[Need, ...]
    plugs: tuple[WellPlug, ...]
    proposed: bool

    @property
    def well(self) -> Well:
        return self.equipped.well

    @property
    def path(self) -> str:
        return f"/completion/{self.way}/plugs"

    @property
    def innermost(self) -> EquippedString:
        return self.equipped.strings[self.standing - 1]

    @property
    def open_hole(self) -> EquippedString | None:
        """The string whose hole stays open: the last, where it is not run."""
        strings = self.equipped.strings
        return strings[self.standing] if self.standing < len(strings) else None

    @property
    def cut_below_ft(self) -> float:
        policy, at_sea = self.well.policy.completion, self.well.site.setting != "land"
        return self.own.cut_ft if self.own.cut_ft is not None else policy.cut_sea_ft if at_sea else policy.cut_land_ft


def is_run(equipped: Equipped, way: Way) -> bool:
    """Whether the production string is run before the well is left; without one, all stand that are drilled."""
    own: Leaving = getattr(equipped.design.completion, way)
    if equipped.producing is None:
        return True
    usual = way == "suspension" or own.perforated
    return own.production == "run" or (own.production == "as usual" and usual)


def needs_isolation(well: Well, zone: Zone) -> bool | None:
    """Oil, gas and fresh water always; salt water where it is over normal pressure; None where that is not known."""
    if zone.fluid in (*PAY, "fresh water"):
        return True
    if zone.fluid != "salt water":
        return False
    pore = well.ground.pore.one(min(zone.top_tvd_ft, well.path.deepest_tvd_ft))
    return None if pore is None else pore > well.policy.mud.normal_pore_ppg + 1e-9


def needs_of(left: Left) -> tuple[Need, ...]:
    """From the bottom up; no cement is asked for over the ground."""
    ground = left.well.ground_md_ft
    under = (replace(n, top_md_ft=max(n.top_md_ft, ground)) for n in _needs(left) if n.bottom_md_ft > ground)
    return tuple(sorted(under, key=lambda n: -n.bottom_md_ft))


def _needs(left: Left) -> Iterator[Need]:
    yield from _open_needs(left)
    yield from _cased_needs(left)
    ground, policy = left.well.ground_md_ft, left.well.policy.completion
    if left.way == "suspension":
        bottom = min(ground + SHALLOW_FT, left.innermost.shoe_md_ft)
        yield Need(
            "shallow", ("shallow plug",), "Shallow plug", bottom - policy.mechanical_ft, bottom, (bottom, bottom)
        )
    else:
        top = ground + max(policy.surface_below_ft, left.cut_below_ft)
        bottom = min(top + policy.surface_ft, left.innermost.shoe_md_ft)
        yield Need("surface", ("surface plug",), "Surface plug", top, bottom, (top, bottom))


def _open_needs(left: Left) -> Iterator[Need]:
    """Zones of the open hole that need it, and the shoe over it."""
    hole, well = left.open_hole, left.well
    if hole is None:
        return
    policy, shoe, end = well.policy.completion, left.innermost.shoe_md_ft, hole.shoe_md_ft
    for zone in well.ground.model.zones:
        span = zone_md_ft(well, zone.top_tvd_ft, zone.base_tvd_ft)
        if span is None or span[1] <= shoe or span[0] >= end or not needs_isolation(well, zone):
            continue
        at = max(span[0], shoe), min(span[1], end)
        yield Need("zone", (zone.name,), zone.name, at[0] - policy.above_ft, min(at[1] + policy.below_ft, end), at)
    bottom = min(shoe + policy.below_ft, end)
    words: Words = left.innermost.shoe_words
    yield Need("shoe", words, "Shoe plug", shoe - policy.above_ft, bottom, (shoe, shoe))


def perforated(left: Left) -> tuple[Perforation, ...]:
    """Perforations that stand open when the well is left."""
    return left.equipped.design.completion.perforations if left.own.perforated else ()


def _cased_needs(left: Left) -> Iterator[Need]:
    """Perforations, and tops of liners that are not tied back."""
    policy, last = left.well.policy.completion, left.innermost
    if left.open_hole is None:
        floor = landing_md_ft(last)
        for own in perforated(left):
            at = own.top_md_ft, own.bottom_md_ft
            bottom = max(min(at[1] + policy.below_ft, floor), at[1])
            yield Need("perforations", ("perforations",), "Perforations", at[0] - policy.above_ft, bottom, at)
    if left.way == "abandonment":
        for string in left.equipped.strings[: left.standing]:
            if string.run == "liner" and not string.own.tie_back:
                top = string.top_md_ft
                words: Words = (*string.words, " liner top")
                yield Need("liner top", words, "Liner top", top - policy.above_ft, top + policy.below_ft, (top, top))


def flowing(left: Left) -> list[tuple[str, Span]]:
    """What can flow into the well as it is left: zones of the open hole with pay, perforations; none where it is shut off."""
    hole = left.open_hole
    if hole is None:
        return [("perforations", (p.top_md_ft, p.bottom_md_ft)) for p in perforated(left)]
    found = []
    for need in left.needs:
        if need.kind == "zone":
            found.append((need.name, need.at))
    return found


def pay_behind(left: Left) -> list[Span]:
    """Pay behind the production casing, not perforated."""
    last = left.equipped.producing
    return inside_pay(left.equipped, last) if last is not None and left.open_hole is None else []
