"""What is wrong with the conductor in its soil: what it cannot carry, and what nobody has given."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.fields import MOST_LBF
from knollstack.core.base.findings import (
    Amount,
    Change,
    Finding,
    Remedy,
    Severity,
    depth,
    factor,
    find,
    force,
    height,
    remedy,
)
from knollstack.core.base.findings import hours as hours_of
from knollstack.core.document.sea import MOST_HOURS
from knollstack.core.program.equipped import Equipped
from knollstack.core.sea.conductor import LANDED, Standing, bit_out_in, loads_of, standing_of
from knollstack.core.sea.results import CarryRow

WHERE = "/sea/conductor"
SOAK_STEP_H = 1.0
DEEPER_FT = 10.0
MOST_DEEPER_FT = 400.0
HELD_STEP_LBF = 5_000.0
REFUSED = 0.5


def said(severity: Severity, place: str, *text: str | Amount, **more: object) -> Finding:
    """A finding of the conductor."""
    return find("sea", severity, place, ("Conductor",), *text, **more)  # type: ignore[arg-type]


def conductor_findings(equipped: Equipped, standing: Standing, rows: tuple[CarryRow, ...]) -> Iterator[Finding]:
    yield from _unknown(equipped, standing)
    for k, row in enumerate(rows):
        yield from _carries(equipped, standing, k, row)
    yield from _as_set(equipped, standing)


def _unknown(equipped: Equipped, standing: Standing) -> Iterator[Finding]:
    string, soil = standing.string, standing.soil
    if string.od_in is None or not string.sections:
        yield said("unknown", f"{string.path}/pipe", "Its pipe is not known: what it weighs and bears is unknown.")
    if soil is None:
        yield said("unknown", "/sea/soil", "No strength of the soil is given: what it bears is unknown.")
    elif standing.penetration_ft > soil.deepest_ft:
        text = (
            "Strength of the soil is given down to ",
            depth(soil.deepest_ft),
            " below the mudline; its shoe stands at ",
        )
        yield said("unknown", "/sea/soil", *text, depth(standing.penetration_ft), ".")
    if standing.jetted and standing.own.last_bit_weight_lbf is None:
        yield said(
            "unknown",
            f"{WHERE}/last_bit_weight_lbf",
            "The last weight on bit of the jetting is not given: what the conductor bears at once is unknown.",
        )
    if standing.jetted and bit_out_in(equipped, standing) is None:
        text_ = "How far the jetting bit stands out of the shoe is not given."
        yield said("unknown", f"{WHERE}/bit_out_in", text_)


def _carries(equipped: Equipped, standing: Standing, k: int, row: CarryRow) -> Iterator[Finding]:
    wanted = equipped.well.policy.sea.conductor_factor
    if row.factor is None or row.capacity_lbf is None or row.load_lbf is None or row.hours is None:
        return
    if row.factor >= wanted - 1e-9:
        return
    sinks = row.factor < 1
    head = "It sinks: " if sinks else "Little to spare: "
    moment = row.moment[0].lower() + row.moment[1:]
    yield said(
        "stop" if sinks else "caution",
        f"{WHERE}/{'second_hours' if row.moment == LANDED else 'soak_hours'}",
        head,
        f"{moment}, it carries ",
        force(row.load_lbf),
        "; after ",
        hours_of(row.hours),
        " the soil bears ",
        force(row.capacity_lbf),
        ".",
        value=factor(row.factor),
        limit=factor(wanted),
        remedies=tuple(_ways(equipped, standing, k, row)),
        working=row.working,
    )


def _ways(equipped: Equipped, standing: Standing, k: int, row: CarryRow) -> Iterator[Remedy]:
    """Wait, hold a share, go deeper: each was tried on the same functions."""
    wanted, load = equipped.well.policy.sea.conductor_factor, row.load_lbf or 0.0
    landed = row.moment == LANDED
    needed = standing.hours_for(load * wanted)
    longer = None if needed is None else -(-needed // SOAK_STEP_H) * SOAK_STEP_H
    if longer is not None and longer <= MOST_HOURS and not standing.cemented:
        key, words = ("second_hours", "Land the second string after ") if landed else ("soak_hours", "Soak for ")
        yield remedy(Change(path=f"{WHERE}/{key}", value=longer), words, hours_of(longer))
    if landed and row.capacity_lbf is not None:
        more = load - row.capacity_lbf / wanted + standing.own.held_lbf
        held = -(-more // HELD_STEP_LBF) * HELD_STEP_LBF
        other = loads_of(equipped, standing)[k][2]
        alone = loads_of(equipped, standing)[0][2]
        if (
            other is not None
            and alone is not None
            and other - (held - standing.own.held_lbf) >= alone
            and held <= MOST_LBF
        ):
            yield remedy(
                Change(path=f"{WHERE}/held_lbf", value=held),
                "Hold ",
                force(held),
                " by the landing string until it is set",
            )
    deeper = _deeper_ft(equipped, standing, k)
    if deeper is not None:
        yield remedy(standing.string.change("shoe_md_ft", deeper), "Set the shoe at ", depth(deeper))


def _deeper_ft(equipped: Equipped, standing: Standing, k: int) -> float | None:
    """The first depth of the shoe, some feet at a time, at which the moment is carried with policy's factor."""
    wanted, string = equipped.well.policy.sea.conductor_factor, standing.string
    if standing.soil is None:
        return None
    following = equipped.strings[1].shoe_md_ft if len(equipped.strings) > 1 else equipped.well.path.total_md_ft
    deepest = min(standing.soil.deepest_ft + equipped.well.ground_md_ft, following - DEEPER_FT)
    weight = string.sections[-1].pipe.weight_ppf if string.sections else 0.0
    _, hours, load = loads_of(equipped, standing)[k]
    shoe = string.shoe_md_ft
    while load is not None and shoe + DEEPER_FT <= min(deepest, string.shoe_md_ft + MOST_DEEPER_FT):
        shoe += DEEPER_FT
        capacity = standing_of(equipped, string, shoe).capacity_lbf(hours)
        if capacity is not None and capacity >= wanted * (load + weight * (shoe - string.shoe_md_ft)):
            return shoe
    return None


def _as_set(equipped: Equipped, standing: Standing) -> Iterator[Finding]:
    """How it was jetted or hammered, and how it stands."""
    own, policy = standing.own, equipped.well.policy.sea
    out = bit_out_in(equipped, standing) if standing.jetted else None
    if out is not None and out > policy.bit_out_most_in + 1e-9:
        yield said(
            "caution",
            f"{WHERE}/bit_out_in",
            "The jetting bit stands ",
            height(out),
            " out of the shoe: it washes the soil that is to bear the conductor.",
            value=height(out),
            limit=height(policy.bit_out_most_in),
            remedies=(
                remedy(
                    Change(path=f"{WHERE}/bit_out_in", value=policy.bit_out_most_in),
                    "Space it out to ",
                    height(policy.bit_out_most_in),
                ),
            ),
        )
    if own.inclination_deg is not None and own.inclination_deg > policy.inclination_deg:
        lean, most = (Amount(value=v, quantity="angle") for v in (own.inclination_deg, policy.inclination_deg))
        text = (
            ": wear in the wellhead and a bent riser foot follow. Pull it and set it again beside, or have it allowed."
        )
        yield said("caution", f"{WHERE}/inclination_deg", "The housing leans by ", lean, text, value=lean, limit=most)
    if standing.string.run == "driven" and own.blows_ft is not None and own.blows_ft >= policy.refusal_blows_ft:
        blows = f"{own.blows_ft} blows a foot"
        text = f"Refusal at {blows}: drive no further; give the shoe where it stopped."
        yield said("note", f"{WHERE}/blows_ft", text)
