"""Every state of the well with its two envelopes: while each hole is drilled, tripped in and cased, and once BOPs are off.

Fluid counts once. An envelope stands where all its elements do, and is unknown where one of them is.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from knollstack.core.base.findings import Words
from knollstack.core.completion.elements import Site, casing, cement, mud, shoe_track
from knollstack.core.completion.elements_top import hanger_seal, stack
from knollstack.core.completion.leaving import Way, is_run
from knollstack.core.completion.results import ElementRow, EnvelopeRow, Stands, StateRow
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.preventers.moments import head_under
from knollstack.core.program.equipped import EquippedString

Elements = tuple[ElementRow, ...]
NO_SHUT_IN = "No shut-in on this string: a kick is led away, and one barrier is what there is."
NOTHING_FLOWS = "Nothing that can flow is known in the open hole: one barrier is asked."


def envelope(name: Literal["primary", "secondary"], elements: Elements) -> EnvelopeRow:
    stands: Stands = "stands"
    if not elements or any(e.stands == "fails" for e in elements):
        stands = "fails"
    elif any(e.stands == "unknown" for e in elements):
        stands = "unknown"
    return EnvelopeRow(name=name, elements=elements, stands=stands)


def state(
    site: Site,
    key: str,
    title: Words,
    string: EquippedString,
    cased: int,
    primary: Elements,
    secondary: Elements,
    *,
    removal: Words = (),
    needed: int | None = None,
    note: str = "",
    alternative: str = "",
    stack_on: bool = True,
) -> StateRow:
    """A state with its count; what is unknown leaves it open whether that is enough."""
    both = (envelope("primary", primary), envelope("secondary", secondary))
    count = sum(e.stands == "stands" for e in both)
    open_too = count + sum(e.stands == "unknown" for e in both)
    asked = site.well.policy.completion.barriers if needed is None else needed
    return StateRow(
        key=key,
        title=title,
        string=string.index,
        depth_md_ft=string.shoe_md_ft,
        cased=cased,
        removal=removal,
        alternative=alternative,
        envelopes=both,
        count=count,
        most=open_too,
        needed=asked,
        verified=sum(e.stands == "stands" and all(row.state == "verified" for row in e.elements) for e in both),
        allowed="allowed" if count >= asked else "unknown" if open_too >= asked else "forbidden",
        note=note,
        stack_on=stack_on,
        shared=tuple(e.title for e in primary if any(o.key == e.key for o in secondary)),
    )


def stands_on(site: Site, string: EquippedString) -> EquippedString:
    """The string whose stack stands while the hole below a string is drilled: a liner has none of its own."""
    above = reversed(site.equipped.strings[: string.index + 1])
    return next((s for s in above if s.run != "liner"), string)


def around(site: Site, string: EquippedString, packer_md_ft: float | None = None) -> Elements:
    """The casings open to a hole drilled from a string, or to the annulus over a packer, with their cement and hangers."""
    rows: list[ElementRow] = [casing(site, string, packer_md_ft), cement(site, string, packer_md_ft)]
    if string.run == "liner" and not string.own.tie_back:
        above = stands_on(site, string)
        return (*rows, casing(site, above, string.top_md_ft), hanger_seal(site, above))
    return (*rows, hanger_seal(site, string))


def drilling_states(site: Site) -> Iterator[StateRow]:
    """Of each hole that is drilled, and of what is done between it and the next."""
    for string in site.equipped.strings:
        previous = site.equipped.previous(string)
        if previous is None or not string.drilled:
            continue
        on = stands_on(site, previous)
        if is_riserless(site.well, string.index) or on.role == "conductor":
            yield _on_diverter(site, string)
        else:
            yield from _shut_in(site, string, previous, on)
        if _is_cased(site, string) and _comes_off(site, on, string):
            yield bops_off(site, string, on)


def _on_diverter(site: Site, string: EquippedString) -> StateRow:
    riserless = is_riserless(site.well, string.index)
    how = "riserless" if riserless else "on the diverter"
    title: Words = ("Drilling ", *string.hole_words, f", {how}")
    held = (mud(site, string),)
    return state(site, f"drilling {string.id}", title, string, string.index, held, (), needed=1, note=NO_SHUT_IN)


def _shut_in(site: Site, string: EquippedString, previous: EquippedString, on: EquippedString) -> Iterator[StateRow]:
    """Drilling, tripping, and casing across the stack."""
    wall, held = around(site, previous), (mud(site, string),)
    kind = " liner" if string.run == "liner" else " casing"
    running: Words = ("running ", *string.words, kind)
    moments: tuple[tuple[str, Words, str, Words], ...] = (
        ("drilling", ("Drilling ", *string.hole_words), "drill pipe", string.hole_words),
        ("tripping", ("Out of the ", *string.hole_words), "nothing", string.hole_words),
        ("running", ("Running ", *string.words, kind), "casing", running),
    )
    for word, title, across, when in moments:
        closed = (stack(site, on, across, when), *wall)
        yield state(site, f"{word} {string.id}", title, string, string.index, held, closed)


def _is_cased(site: Site, string: EquippedString) -> bool:
    """The string of a hole is run: not the last where the well is left without it."""
    ways: dict[str | None, Way] = {"suspend": "suspension", "plug and abandon": "abandonment"}
    way = ways.get(site.equipped.design.completion.decision)
    return string.index < len(site.equipped.strings) - 1 or way is None or is_run(site.equipped, way)


def _comes_off(site: Site, on: EquippedString, string: EquippedString) -> bool:
    """The stack is taken off to hang a string: not on the sea floor, not for a liner, nor where one head holds both."""
    if site.well.site.setting == "subsea" or string.run == "liner":
        return False
    heads = head_under(site.pieces, on), head_under(site.pieces, string)
    return on.role == "conductor" or heads[0] is None or heads[0] is not heads[1]


def bops_off(site: Site, string: EquippedString, on: EquippedString) -> StateRow:
    """Cement inside and out, set, is one; the fluid over it in bore and annulus is the other, once."""
    device = "diverter" if on.role == "conductor" else "BOPs"
    inside = string.displacement_ppg if string.displacement_ppg is not None else string.mud_ppg
    primary = (shoe_track(site, string), casing(site, string), cement(site, string))
    return state(
        site,
        f"off {string.id}",
        (f"{device[:1].upper()}{device[1:]} off, ", *string.words, " cemented"),
        string,
        string.index + 1,
        primary,
        (mud(site, string, inside, "fluid inside and outside"),),
        removal=(f"Nipple down the {device} on ", *on.words),
        stack_on=False,
    )
