"""Complete, suspend, plug and abandon side by side: what each needs, its rig time and cost, and its barriers."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from knollstack.core.base.findings import Words, depth, pressure, size, volume
from knollstack.core.completion.leaving import Left
from knollstack.core.completion.results import AlternativeRow, CompletionRow, LeavingRow, StateRow, WorkRow
from knollstack.core.program.equipped import Equipped

DAY_HOURS, STRING_HOURS = 24.0, 12.0
"""Rigging up, landing and hanging of a string, beside its run and its wait."""
Allowed = Literal["allowed", "forbidden", "unknown"]
Decided = Literal["complete", "suspend", "plug and abandon"]


class Planner:
    """Works of an alternative with rig time and cost by policy."""

    def __init__(self, equipped: Equipped) -> None:
        self.equipped = equipped
        self.policy = equipped.well.policy.completion

    def work(self, what: str, hours: float, material: float = 0.0) -> WorkRow:
        return WorkRow(what=what, hours=hours, cost=hours / DAY_HOURS * self.policy.rig_day + material)

    def string(self) -> Iterator[WorkRow]:
        """The production string, where it is run: one way, and the wait for its cement."""
        last = self.equipped.producing
        if last is None:
            return
        hours = last.shoe_md_ft / self.policy.trip_ft_hour + STRING_HOURS + self.equipped.well.policy.cement.wait_hours
        pipes = [(s.length_ft, s.pipe.price_per_ft) for s in last.sections]
        priced = sum(length * price for length, price in pipes if price is not None)
        yield self.work("Run and cement the production string", hours, priced)

    def complete(self, row: CompletionRow) -> Iterator[WorkRow]:
        policy, tubing = self.policy, row.tubing
        yield from self.string()
        end = self.equipped.strings[-1].shoe_md_ft
        yield self.work("Drill out, scrape, clean up", policy.clean_hours + 2 * end / policy.trip_ft_hour)
        yield self.work("Perforate", policy.perforate_hours)
        length = 0.0 if tubing is None else tubing.length_ft
        hours, material = STRING_HOURS + length / policy.trip_ft_hour, policy.packer + length * policy.tubing_ft
        yield self.work("Packer and tubing", hours, material)
        yield self.work("BOPs off, tree on and tested", policy.tree_hours, policy.tree)

    def leave(self, left: Left, row: LeavingRow) -> Iterator[WorkRow]:
        policy = self.policy
        if left.open_hole is None:
            yield from self.string()
        deepest = max((p.bottom_md_ft for p in row.plugs), default=0.0)
        if deepest:
            yield self.work("Pipe to the deepest plug and out", 2 * deepest / policy.trip_ft_hour)
        for plug in row.plugs:
            wait = self.equipped.well.policy.cement.wait_hours if "tag" in plug.verify else 0.0
            sacks = 0.0 if plug.volumes is None else plug.volumes.sacks
            material = sacks * policy.sack + (policy.mechanical if plug.base == "mechanical plug" else 0.0)
            yield self.work(f"{plug.name}: set, wait, verify", policy.plug_hours + wait, material)
        if left.way == "abandonment":
            yield self.work("Cut and recover casing and wellhead", policy.cut_hours)
        else:
            yield self.work("BOPs off, cap on", policy.tree_hours / 2)


def alternative(
    decision: Decided,
    works: tuple[WorkRow, ...],
    needs: tuple[Words, ...],
    states: tuple[StateRow, ...],
    left: LeavingRow | None,
) -> AlternativeRow:
    own = [s for s in states if s.alternative == decision]
    verdicts = {s.allowed for s in own}
    short = left is not None and not all(n.covered for n in left.needs)
    allowed: Allowed = (
        "forbidden" if "forbidden" in verdicts or short else "unknown" if "unknown" in verdicts else "allowed"
    )
    plugs = () if left is None else left.plugs
    return AlternativeRow(
        decision=decision,
        works=works,
        hours=sum(w.hours for w in works),
        cost=sum(w.cost for w in works),
        needs=needs,
        barriers=tuple((*s.title, f": {s.count} of {s.needed}") for s in own),
        allowed=allowed if own else "unknown",
        plugs=len(plugs),
        cement_bbl=sum(p.volumes.slurry_bbl for p in plugs if p.volumes is not None),
    )


def completion_needs(row: CompletionRow) -> tuple[Words, ...]:
    found: list[Words] = []
    if row.packer_md_ft is not None:
        found.append(("packer at ", depth(row.packer_md_ft)))
    if row.tubing is not None:
        t = row.tubing
        found.append(
            (depth(t.length_ft), " of ", size(t.od_in), f" {t.weight_ppf:g} lb/ft {t.grade} {t.connection} tubing")
        )
    if row.tree is not None:
        found.append(("tree of ", pressure(row.tree.class_psi)))
    return tuple(found)


def leaving_needs(row: LeavingRow, cut: bool) -> tuple[Words, ...]:
    total = sum(p.volumes.slurry_bbl for p in row.plugs if p.volumes is not None)
    many = "plug" if len(row.plugs) == 1 else "plugs"
    plugs: Words = (f"{len(row.plugs)} {many}, ", volume(total), " of slurry")
    return (plugs, ("casing cut at ", depth(row.cut_md_ft))) if cut else (plugs, ("cap on the wellhead",))
