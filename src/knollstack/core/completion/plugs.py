"""Plugs that are left in a well: volumes and displacement, tests, and whether each counts as a barrier."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import Words, depth
from knollstack.core.cement.plugs import Placed, placed, plug_row
from knollstack.core.cement.results import PlugRow
from knollstack.core.completion.leaving import Left, Need, flowing
from knollstack.core.completion.producing import Span
from knollstack.core.completion.results import LeavingRow, LeftPlug, NeedRow, Stands
from knollstack.core.document.completion import WellPlug
from knollstack.core.program.equipped import EquippedString

EVEN_FT = 0.5
"""Depths that are the same."""


@dataclass(frozen=True)
class Judged:
    """A plug with its volumes, and whether it counts as a barrier."""

    index: int
    own: WellPlug
    at: Placed | tuple[str, str]
    row: PlugRow | None
    counts: Stands
    why: Words


def covered(left: Left, need: Need) -> bool:
    """Whether cement stands all along what is asked for, or on a mechanical plug right over what is isolated."""
    own, reached = left.well.policy.completion, need.bottom_md_ft
    for plug in sorted(left.plugs, key=lambda p: -p.bottom_md_ft):
        if plug.bottom_md_ft >= reached - EVEN_FT and plug.top_md_ft < reached:
            reached = plug.top_md_ft
    if reached <= need.top_md_ft + EVEN_FT:
        return True
    if need.kind not in ("shoe", "perforations", "shallow", "surface"):
        return False
    return any(
        p.base == "mechanical plug"
        and p.inside == "casing"
        and p.bottom_md_ft - p.top_md_ft >= own.mechanical_ft - EVEN_FT
        and need.at[0] - own.above_ft - EVEN_FT <= p.bottom_md_ft <= need.at[0] + EVEN_FT
        for p in left.plugs
    )


def judged(left: Left) -> tuple[Judged, ...]:
    found = []
    for index, own in enumerate(left.plugs):
        key = f"completion/{left.way}/plug"
        at = placed(left.equipped, index, own, standing=left.standing, path=left.path, working=key)
        row = plug_row(left.well, at) if isinstance(at, Placed) else None
        held = counts(left, own) if row is not None else ("unknown", (str(at[1]),) if isinstance(at, tuple) else ())
        found.append(Judged(index, own, at, row, *held))
    return tuple(found)


def counts(left: Left, plug: WellPlug) -> tuple[Stands, Words]:
    """A barrier is verified, long enough in one piece, sealed to rock or to cemented casing, where the rock holds."""
    policy = left.well.policy.completion
    length = plug.bottom_md_ft - plug.top_md_ft
    least = policy.mechanical_ft if plug.base == "mechanical plug" else policy.above_ft
    if plug.verify == "none":
        return "fails", ("it is not verified",)
    if length < least - EVEN_FT:
        return "fails", ("only ", depth(length), " of cement; ", depth(least), " are asked")
    shoe = left.innermost.shoe_md_ft
    over = shoe - plug.top_md_ft
    if plug.bottom_md_ft > shoe + EVEN_FT and EVEN_FT < over < policy.above_ft - EVEN_FT:
        return "fails", ("only ", depth(over), " of it over the shoe; ", depth(policy.above_ft), " are asked")
    return _holds(left, plug)


def casing_of(left: Left, plug: WellPlug) -> EquippedString | None:
    """The casing that the plug's top stands in."""
    inside = [s for s in left.equipped.strings[: left.standing] if s.hung_md_ft <= plug.top_md_ft < s.shoe_md_ft]
    return inside[-1] if inside else None


def _holds(left: Left, plug: WellPlug) -> tuple[Stands, Words]:
    """The rock at its lower end stands what comes from below: formation pressure less a column of gas."""
    sources = [span for _, span in flowing(left) if span[0] >= plug.top_md_ft]
    casing = casing_of(left, plug)
    sealed = left.way == "suspension" or casing is None or plug.bottom_md_ft > casing.shoe_md_ft
    if casing is not None and not sealed:  # a suspended well keeps its wellhead, which closes the annuli
        top = casing.cement_top_md_ft
        if top is None:
            return "unknown", ("whether cement stands behind the casing there is not known",)
        if plug.bottom_md_ft < top:
            return "fails", ("no cement stands behind the casing there",)
    rock_bears = casing is None or plug.bottom_md_ft > casing.shoe_md_ft
    for span in sources if rock_bears else ():
        pressure = _under(left, plug, span)
        if pressure is None:
            return "unknown", ("pore or fracture pressure is not known",)
        reached, rock = pressure
        if reached > rock:
            words: Words = (
                "the rock at ",
                depth(min(plug.bottom_md_ft, span[0])),
                " does not hold what comes from below",
            )
            return "fails", words
    return "stands", ()


def _under(left: Left, plug: WellPlug, span: Span) -> tuple[float, float] | None:
    """Pressure under a plug with gas up to it from a zone, and that at which the rock breaks there [psi]."""
    well = left.well
    source, at = well.path.tvd(span[0]), well.path.tvd(min(plug.bottom_md_ft, span[0]))
    pore, fracture = well.ground.pore.one(source), well.ground.fracture.one(at)
    if pore is None or fracture is None:
        return None
    gas = well.policy.pipe.gas_psi_ft * (source - at)
    return PSI_PER_PPG_FT * pore * source - gas, PSI_PER_PPG_FT * fracture * at


def test_psi(left: Left, plug: WellPlug) -> float | None:
    return left.well.policy.completion.plug_test_psi if "pressure" in plug.verify else None


def leaving_row(left: Left, plugs: tuple[Judged, ...], proposal: tuple[WellPlug, ...]) -> LeavingRow:
    policy = left.well.policy.completion
    rows = tuple(
        LeftPlug(
            id=p.own.id,
            name=p.own.name or f"Plug {p.index + 1}",
            place=f"{left.path}/{p.index}" if not left.proposed else left.path,
            decided=not left.proposed,
            inside=p.own.inside,
            base=p.own.base,
            top_md_ft=p.own.top_md_ft,
            bottom_md_ft=p.own.bottom_md_ft,
            verify=p.own.verify,
            test_psi=test_psi(left, p.own),
            tag_lbf=policy.tag_lbf if "tag" in p.own.verify else None,
            counts=p.counts,
            why=p.why,
            volumes=p.row,
        )
        for p in plugs
    )
    needs = tuple(
        NeedRow(what=n.what, top_md_ft=n.top_md_ft, bottom_md_ft=n.bottom_md_ft, covered=covered(left, n))
        for n in left.needs
    )
    return LeavingRow(
        production_run=left.open_hole is None,
        proposed=left.proposed,
        plugs=rows,
        needs=needs,
        cut_md_ft=left.well.ground_md_ft + left.cut_below_ft,
        cut_below_ft=left.cut_below_ft,
        mud_ppg=left.own.mud_ppg if left.own.mud_ppg is not None else left.equipped.strings[-1].mud_ppg,
        proposal=proposal,
    )
