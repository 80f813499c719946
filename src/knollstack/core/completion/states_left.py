"""States of a well that is handed over: completed and producing, suspended, plugged and abandoned; at sea, riser off."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from knollstack.core.base.findings import Words, depth
from knollstack.core.completion.elements import Site, casing, cement, element, shoe_track
from knollstack.core.completion.elements_left import (
    back_pressure_valve,
    completion_fluid,
    packer,
    plug,
    tree,
    tubing,
    tubing_hanger,
)
from knollstack.core.completion.elements_top import hanger_seal, stack
from knollstack.core.completion.leaving import Left, flowing, pay_behind
from knollstack.core.completion.plugs import EVEN_FT, Judged, casing_of
from knollstack.core.completion.producing import packer_md_ft
from knollstack.core.completion.results import ElementRow, StateRow
from knollstack.core.completion.states import NOTHING_FLOWS, Elements, around, stands_on, state
from knollstack.core.program.equipped import EquippedString
from knollstack.core.sea.results import BarrierRow

RISER = ("Unlatch the riser and recover the stack",)


def _take_off(site: Site, on: EquippedString) -> Words:
    return RISER if site.well.site.setting == "subsea" else ("Nipple down the BOPs on ", *on.words)


def completion_states(site: Site) -> Iterator[StateRow]:
    """The completion under the BOPs, the BOPs off before the tree is on, and producing."""
    last = site.equipped.producing
    if last is None:
        return
    own, wall = site.equipped.design.completion, around(site, last)
    above = around(site, last, packer_md_ft(site.equipped, last)[0])
    on, count, put = stands_on(site, last), last.index + 1, "complete"
    before = own.perforated == "before the tubing"
    shut = (
        (completion_fluid(site, last),) if before else (shoe_track(site, last), casing(site, last), cement(site, last))
    )
    closed = (stack(site, on, "tubing", ("completion",)), hanger_seal(site, on))
    open_to = ("Completing, perforated",) if before else ("Completing, not perforated",)
    yield state(site, "completing", open_to, last, count, shut, (*closed, *wall) if before else closed, alternative=put)
    hung = (tubing_hanger(site), back_pressure_valve(site), *above)
    bottom = (completion_fluid(site, last, riser_off=True),) if before else (shoe_track(site, last),)
    words: Words = ("BOPs off, tree not yet on",)
    yield state(
        site,
        "tree off",
        words,
        last,
        count,
        (*bottom, packer(site, last), tubing(site, last)),
        hung,
        removal=_take_off(site, on),
        alternative=put,
        stack_on=False,
    )
    inside = (cement(site, last), packer(site, last), tubing(site, last), tree(site, "safety valve"))
    outside = (*above, tubing_hanger(site), tree(site, "valves"))
    yield state(site, "producing", ("Producing",), last, count, inside, outside, alternative=put, stack_on=False)


def left_states(site: Site, left: Left, plugs: tuple[Judged, ...]) -> Iterator[StateRow]:
    """BOPs off over the plugs; abandoned, with the casing cut."""
    alternative = "suspend" if left.way == "suspension" else "plug and abandon"
    string = left.open_hole or left.innermost
    primary, secondary, needed = _over(site, left, plugs)
    on, cased = stands_on(site, left.innermost), left.standing
    zones_known = bool(site.well.ground.model.zones) and site.well.ground.pore.known
    note = NOTHING_FLOWS if needed == 1 and zones_known else ""
    asked = None if not zones_known else min(needed, site.well.policy.completion.barriers)
    off = "riser off" if site.well.site.setting == "subsea" else "BOPs off"
    words: Words = ("Suspended",) if left.way == "suspension" else (f"Plugged, {off}",)
    key = "suspended" if left.way == "suspension" else "plugged"
    more = {"needed": asked, "note": note, "alternative": alternative, "stack_on": False}
    yield state(site, key, words, string, cased, primary, secondary, removal=_take_off(site, on), **more)  # type: ignore[arg-type]
    if left.way == "abandonment":
        cut: Words = ("Cut the casing and remove the wellhead",)
        yield state(site, "abandoned", ("Abandoned",), string, cased, primary, secondary, removal=cut, **more)  # type: ignore[arg-type]


def _over(site: Site, left: Left, plugs: tuple[Judged, ...]) -> tuple[Elements, Elements, int]:
    """The two deepest plugs that stand over all that can flow; behind casing that is not perforated, its cement first."""
    sources, behind = [span for _, span in flowing(left)], pay_behind(left)
    above = left.well.policy.completion.above_ft
    shut = not sources and bool(behind)
    top = min((span[0] for span in sources), default=None)
    order = sorted(plugs, key=lambda p: -p.own.top_md_ft)
    if top is not None:
        order = [p for p in order if p.own.top_md_ft <= top - above + EVEN_FT]
    order = [p for p in order if p.counts == "stands"] or order
    rest = [p for p in sorted(plugs, key=lambda p: -p.own.top_md_ft) if p not in order]
    low: Words = ("it does not stand ", depth(above), " over what can flow")
    failing = [replace(p, counts="fails", why=low) if p.counts == "stands" else p for p in rest]
    rows = [_with_casing(site, left, p) for p in [*order, *failing]]
    if shut:
        last = left.innermost
        first: Elements = (shoe_track(site, last), casing(site, last), cement(site, last))
        return first, rows[0] if rows else (), 2
    two = (*rows, (), ())
    return two[0], two[1], 2 if sources else 1


def _with_casing(site: Site, left: Left, judged: Judged) -> Elements:
    """The plug, and where it stands in casing that casing with what closes its annulus."""
    own = judged.own
    rows: list[ElementRow] = [plug(site, left, judged)]
    held = casing_of(left, own)
    if held is not None:
        closed = left.way == "suspension" and (held.run != "liner" or held.own.tie_back)
        rows += [casing(site, held), hanger_seal(site, held) if closed else cement(site, held)]
    return tuple(rows)


def riser_states(site: Site, rows: tuple[BarrierRow, ...]) -> Iterator[StateRow]:
    """What the step at sea counted with the riser off, as envelopes."""
    for row in rows:
        string, top = site.equipped.strings[row.string], site.well.ground_md_ft
        found: list[Elements] = []
        for name, held in [*((n, "stands") for n in row.stands), *((n, "unknown") for n in row.unknown)]:
            column = name == "mud column"
            span = (top, string.shoe_md_ft) if column else (top, top)
            why: Words = () if held == "stands" else ("whether it holds is not known",)
            key = f"{row.moment} {string.id} {name}"
            where = "bore" if column else "top"
            verify = "riser margin" if column else "pressure test"
            place = f"{string.path}/mud_ppg" if column else "/sea/disconnect"
            one = element(site, key, (name,), (held, why), verify, place, where, span, string.index)  # type: ignore[arg-type]
            found.append((one,))
        two = (*found, (), ())
        title: Words = ("Riser off, ", *row.section, f" hole: {row.moment}")
        storm = row.moment == "leaving before a storm"
        removal: Words = ("Unlatch the riser before the storm",) if storm else ()
        yield state(
            site,
            f"{row.moment} {string.id}",
            title,
            string,
            string.index,
            two[0],
            two[1],
            removal=removal,
            needed=min(row.needed, 2),
        )
