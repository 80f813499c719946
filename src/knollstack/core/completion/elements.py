"""The elements that barriers are made of: whether each stands, why not, how it is verified, and where it is drawn.

An element stands where what the design knows of it holds; what is not known is unknown, and no barrier. What was recorded of
it comes before all: an element that leaks stands no longer.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import Finding, Words, depth, emw, pressure
from knollstack.core.base.formula import sweeping
from knollstack.core.completion.producing import PAY, zone_md_ft
from knollstack.core.completion.results import ElementRow, Stands, Verified
from knollstack.core.document.completion import Verification
from knollstack.core.ground.extremes import open_nodes, spans_of
from knollstack.core.ground.riserless import column_psi, is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.pipe.judge import judge as judge_pipe
from knollstack.core.pipe.results import PipeResult
from knollstack.core.preventers.judge import judge as judge_preventers
from knollstack.core.preventers.results import PreventersResult
from knollstack.core.program.column import by_inner_string
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.pieces import HeadPiece, pieces_of

Where = Literal["bore", "wall", "annulus", "hole", "top"]
Span = tuple[float, float]
LEAST_TRACK_FT = 20.0
"""Cement left inside that counts: less is no joint between collar and shoe."""


@dataclass(frozen=True, eq=False)
class Site:
    """What elements are judged by: the results of other steps, and what was recorded."""

    equipped: Equipped

    @property
    def well(self) -> Well:
        return self.equipped.well

    @cached_property
    def stacks(self) -> PreventersResult:
        return judge_preventers(self.equipped)[0]

    @cached_property
    def _pipe(self) -> tuple[PipeResult, tuple[Finding, ...]]:
        result, findings, _ = judge_pipe(self.equipped)
        return result, findings

    @property
    def pipe(self) -> PipeResult:
        return self._pipe[0]

    @cached_property
    def pieces(self) -> tuple[HeadPiece, ...]:
        return () if self.well.site.setting == "subsea" else pieces_of(self.equipped)[0]

    @cached_property
    def recorded(self) -> dict[str, Verification]:
        """The last record of each element."""
        return {v.element: v for v in self.equipped.design.completion.verified}

    def pipe_unknown(self, string: EquippedString) -> bool:
        mine = len(string.words)
        told = (f for f in self._pipe[1] if f.severity == "unknown")
        return any(f.subject[:mine] == string.words or f"{f.place}/".startswith(f"{string.path}/") for f in told)


def element(
    site: Site,
    key: str,
    title: Words,
    held: tuple[Stands, Words],
    verify: str,
    place: str,
    where: Where,
    span: Span,
    string: int | None = None,
    psi: float | None = None,
) -> ElementRow:
    """A row, with what was recorded of it."""
    (stands, why), said = held, site.recorded.get(key)
    state: Verified = "planned"
    words: Words = ()
    if said is not None:
        state = "verified" if said.result == "holds" else "failed"
        at: Words = (" at ", pressure(said.psi)) if said.psi is not None else ()
        words = (
            said.how,
            *at,
            f", {said.date}" if said.date else "",
            f": {said.result}" if said.result == "leaks" else "",
        )
        if state == "failed":
            stands, why = "fails", ("recorded as leaking",)
    return ElementRow(
        key=key,
        title=title,
        stands=stands,
        why=why,
        verify=verify,
        pressure_psi=psi,
        state=state,
        said=words,
        place=place,
        where=where,
        from_md_ft=span[0],
        to_md_ft=span[1],
        string=string,
    )


def overbalance_psi(
    well: Well, ppg: float, top_md_ft: float, bottom_md_ft: float, *, under_sea: bool = False
) -> float | None:
    """The least of a column over the pore pressure in an open hole; None where that is not known.

    Under the sea water stands over the mudline in place of a riser.
    """
    with sweeping():
        nodes, pore = open_nodes(well, top_md_ft, bottom_md_ft), well.ground.pore

        def under(z: NDArray[np.float64]) -> NDArray[np.float64]:
            column = column_psi(well, ppg, z) if under_sea else PSI_PER_PPG_FT * ppg * z
            return np.asarray(PSI_PER_PPG_FT * pore.at(z) * z - column)

        worst = spans_of(under, nodes).worst()
    return None if worst is None else -worst.value


def held_by(over_psi: float | None, of: str = "pore pressure") -> tuple[Stands, Words]:
    """Whether a column that is so much over it stands."""
    if over_psi is None:
        return "unknown", (f"the {of} is not known",)
    return ("fails", (pressure(-over_psi), f" under the {of}")) if over_psi < -1e-6 else ("stands", ())


def column_held(site: Site, string: EquippedString, ppg: float | None, *, stepped: bool) -> tuple[Stands, Words]:
    """Whether a fluid holds all that stands open in a hole; while it is drilled each weight down to its own depth."""
    if ppg is None:
        return "unknown", ("its weight is not decided",)
    wet, top = is_riserless(site.well, string.index), string.previous_shoe_md_ft
    spans = [(ppg, string.shoe_md_ft)]
    spans += [(step.mud_ppg, step.to_md_ft) for step in string.own.mud_steps] if stepped else []
    over = [overbalance_psi(site.well, weight, top, to, under_sea=wet) for weight, to in spans]
    known = [psi for psi in over if psi is not None]
    return held_by(min(known) if len(known) == len(over) else None)


def mud(site: Site, string: EquippedString, ppg: float | None = None, what: str = "mud column") -> ElementRow:
    weight = string.mud_ppg if ppg is None else ppg
    held = column_held(site, string, weight, stepped=ppg is None)
    title: Words = (what,) if weight is None else (emw(weight), f" {what}")
    span = site.well.ground_md_ft, string.shoe_md_ft
    place = f"{string.path}/mud_ppg"
    return element(
        site, f"mud {string.id}", title, held, "weight in and out, flow check", place, "bore", span, string.index
    )


def casing(site: Site, string: EquippedString, to_md_ft: float | None = None) -> ElementRow:
    """Its pipe against all its loads."""
    row = site.pipe.strings[string.index]
    short = [load for load in row.loads if load.factor < load.required - 1e-9]
    held: tuple[Stands, Words] = ("stands", ())
    if not string.sections:
        held = "unknown", ("its pipe is not known",)
    elif short:
        worst = min(short, key=lambda load: load.factor / load.required)
        held = "fails", (f"{worst.kind} factor {worst.factor:.2f}; {worst.required:.3g} are asked",)
    elif site.pipe_unknown(string) or not row.loads:
        held = "unknown", ("not all its loads are known",)
    span = string.hung_md_ft, string.shoe_md_ft if to_md_ft is None else to_md_ft
    kind = " liner" if string.run == "liner" else " casing"
    title: Words = (*string.words, kind)
    return element(
        site, f"casing {string.id}", title, held, "pressure test", string.path, "wall", span, string.index, row.test_psi
    )


def _pay_over(site: Site, string: EquippedString, top_md_ft: float) -> tuple[str, float] | None:
    """Pay in the hole of a string that cement does not cover by enough: its name, and how much stands over it."""
    least = site.well.policy.completion.barrier_cement_ft
    for zone in site.well.ground.model.zones:
        span = zone_md_ft(site.well, zone.top_tvd_ft, zone.base_tvd_ft) if zone.fluid in PAY else None
        if span is None or span[1] <= string.previous_shoe_md_ft or span[0] >= string.shoe_md_ft:
            continue
        begins = max(span[0], string.previous_shoe_md_ft)
        if begins - top_md_ft < least - 0.5:
            return zone.name, begins - top_md_ft
    return None


def cement(site: Site, string: EquippedString, over_md_ft: float | None = None) -> ElementRow:
    """Set in the annulus, so much of it over the shoe and over pay; or over a packer, apart from what stands below."""
    least, top = site.well.policy.completion.barrier_cement_ft, string.cement_top_md_ft
    foot = string.shoe_md_ft if over_md_ft is None else min(over_md_ft, string.shoe_md_ft)
    held: tuple[Stands, Words] = ("stands", ())
    if not string.drilled:
        held = "fails", ("it is not cemented",)
    elif top is None:
        held = "unknown", ("its top is not known",)
    elif foot - top < least - 0.5:
        held = "fails", ("only ", depth(max(foot - top, 0.0)), " of it; ", depth(least), " are asked")
    elif over_md_ft is None and (over := _pay_over(site, string, top)) is not None:
        held = "fails", ("only ", depth(max(over[1], 0.0)), f" of it over {over[0]}; ", depth(least), " are asked")
    span = (foot if top is None else min(top, foot)), foot
    where = "" if over_md_ft is None else " above the packer"
    title: Words = (*string.words, f" cement{where}, set")
    place, key = f"{string.path}/cement", f"cement {string.id}{where}"
    verify = "strength by time, job record, log"
    return element(site, key, title, held, verify, place, "annulus", span, string.index)


def shoe_track(site: Site, string: EquippedString) -> ElementRow:
    """The cement left inside, and the float that holds it."""
    held: tuple[Stands, Words] = ("stands", ())
    collar = string.collar_md_ft
    if by_inner_string(string):
        held = "fails", ("cemented by an inner string: no cement is left in it",)
    elif collar is None:
        held = "unknown", ("where its plug lands is not known",)
    elif string.shoe_md_ft - collar < LEAST_TRACK_FT:
        held = "fails", ("only ", depth(max(string.shoe_md_ft - collar, 0.0)), " of cement is left inside")
    span = (string.shoe_md_ft if collar is None else collar), string.shoe_md_ft
    title: Words = (*string.words, " shoe track and float")
    return element(
        site,
        f"track {string.id}",
        title,
        held,
        "float check, then pressure test",
        string.path,
        "bore",
        span,
        string.index,
    )
