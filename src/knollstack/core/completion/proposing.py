"""The plugs in force of a way of leaving the well: decided, or proposed until two barriers stand over what can flow."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from knollstack.core.base.remember import remembered
from knollstack.core.completion.leaving import JOINED_FT, Left, Need, Way, flowing, is_run, needs_of
from knollstack.core.completion.plugs import EVEN_FT, counts
from knollstack.core.document.completion import Leaving, WellPlug
from knollstack.core.program.column import landing_md_ft
from knollstack.core.program.equipped import Equipped

ON_BOTTOM_FT, APART_FT, LEAST_FT = 20.0, 50.0, 1.0
Base = Literal["none", "viscous pill", "mechanical plug"]


def left_of(equipped: Equipped, way: Way) -> Left | None:
    """None where no string is in the program."""
    if not equipped.strings:
        return None
    own: Leaving = getattr(equipped.design.completion, way)
    if not own.plugs:
        return proposal_of(equipped, way)
    bare = Left(equipped, way, own, _standing(equipped, way), (), own.plugs, proposed=False)
    return replace(bare, needs=needs_of(bare))


def _standing(equipped: Equipped, way: Way) -> int:
    return len(equipped.strings) - (0 if is_run(equipped, way) else 1)


@remembered(8, traced=True)
def proposal_of(equipped: Equipped, way: Way) -> Left:
    """The plugs that policy asks for, whatever is decided."""
    own: Leaving = getattr(equipped.design.completion, way)
    bare = Left(equipped, way, own, _standing(equipped, way), (), (), proposed=True)
    with_needs = replace(bare, needs=needs_of(bare))
    left = replace(with_needs, plugs=tuple(_proposed(with_needs)))
    more = _second(left)
    if more is None:
        return left
    ordered = sorted((*left.plugs, more), key=lambda p: -p.bottom_md_ft)
    return replace(left, plugs=tuple(p.model_copy(update={"id": f"k{n}"}) for n, p in enumerate(ordered, start=1)))


def _proposed(left: Left) -> Iterator[WellPlug]:
    """One plug for each need, near ones as one; a plug that is too long in parts of equal length, from the bottom up."""
    policy, merged = left.well.policy.completion, list[list[Need]]()
    for need in left.needs:
        if merged and need.kind not in ("surface", "shallow") and _near(left, merged[-1], need):
            merged[-1].append(need)
        else:
            merged.append([need])
    number = 0
    for group in merged:
        top, bottom = min(n.top_md_ft for n in group), max(n.bottom_md_ft for n in group)
        parts = max(int(-(-(bottom - top) // policy.longest_ft)), 1)
        edges = [round(bottom - (bottom - top) * k / parts, 1) for k in range(parts + 1)]
        for low, high in zip(edges[1:], edges[:-1], strict=True):
            if high - low < LEAST_FT:
                continue
            number += 1
            yield _plug(left, group, number, low, high)


def _near(left: Left, group: list[Need], need: Need) -> bool:
    top, bottom = min(n.top_md_ft for n in group), max(n.bottom_md_ft for n in group)
    whole = bottom - need.top_md_ft <= left.well.policy.completion.longest_ft
    return need.bottom_md_ft >= top - JOINED_FT and (whole or need.bottom_md_ft >= top)


def _plug(left: Left, group: list[Need], number: int, top: float, bottom: float) -> WellPlug:
    """Across a shoe as in open hole; near the surface on a mechanical plug, elsewhere on the bottom or on a pill."""
    kinds = {n.kind for n in group}
    inside: Literal["open hole", "casing"] = "open hole" if bottom > left.innermost.shoe_md_ft + EVEN_FT else "casing"
    tested = inside == "casing" or "shoe" in kinds
    base: Base = "mechanical plug" if kinds & {"shallow", "surface"} else _base(left, bottom)
    return WellPlug(
        id=f"k{number}",
        name=" and ".join(dict.fromkeys(n.name for n in group)),
        inside=inside,
        bottom_md_ft=bottom,
        top_md_ft=top,
        base=base,
        verify="tag and pressure test" if tested else "tag",
        mud_ppg=left.own.mud_ppg,
        spacer_bbl=0.0 if kinds & {"shallow", "surface"} else WellPlug.model_fields["spacer_bbl"].default,
    )


def _base(left: Left, bottom_md_ft: float) -> Base:
    end = left.open_hole.shoe_md_ft if left.open_hole is not None else landing_md_ft(left.innermost)
    return "none" if bottom_md_ft >= end - ON_BOTTOM_FT else "viscous pill"


def _second(left: Left) -> WellPlug | None:
    """Right over the deepest plug, where no other that counts stands over what flows from below."""
    policy, sources = left.well.policy.completion, flowing(left)
    if left.way != "abandonment" or policy.barriers < 2 or not sources:
        return None
    top = min(span[0] for _, span in sources)
    over = [p for p in left.plugs if p.top_md_ft <= top - policy.above_ft + EVEN_FT and counts(left, p)[0] == "stands"]
    if len(over) != 1:
        return None
    bottom = over[0].top_md_ft - APART_FT
    length = max(policy.above_ft, policy.mechanical_ft)
    if length < LEAST_FT or bottom < left.innermost.shoe_md_ft + length:
        return None
    plug = over[0].model_copy(
        update={
            "name": "Second plug",
            "bottom_md_ft": bottom,
            "top_md_ft": bottom - length,
            "base": "viscous pill",
            "verify": "tag",
        }
    )
    return plug if counts(left, plug)[0] == "stands" else None
