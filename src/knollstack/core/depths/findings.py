"""What is wrong with a shoe: by kick tolerance, by the rules of its place, by the hole below it."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

import numpy as np

from knollstack.core.base.findings import Change, Finding, Remedy, Words, depth, find, pressure, remedy, volume
from knollstack.core.depths.conductor import conductor_md_ft
from knollstack.core.depths.remedies import deeper_shoe, other_mud
from knollstack.core.depths.results import KickResult
from knollstack.core.depths.rules import depth_rules
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString

_find = partial(find, "depths")


def kick_findings(
    well: Well, string: LaidString, below: LaidString | None, kick: KickResult | None
) -> Iterator[Finding]:
    """Kick tolerance under what policy asks, with the nearest shoe or mud that gives it."""
    if below is None or string.role == "conductor":
        return
    place, subject = f"{string.path}/shoe_md_ft", string.shoe_words
    if kick is None or kick.limited is None:
        text = "Kick tolerance is unknown: pore, fracture, mud or hole size is missing below this shoe."
        yield _find("unknown", place, subject, text)
        return
    if well.policy.depths.kick_criterion == "full gas":
        yield from _full_gas(string, kick)
        return
    if kick.tolerance_bbl is None or kick.at_md_ft is None or kick.tolerance_bbl >= kick.required_bbl:
        return
    offered = (deeper_shoe(well, string, below, kick.required_bbl), other_mud(well, string, below, kick.required_bbl))
    remedies = tuple(r for r in offered if r is not None)
    yield _find(
        "stop",
        place,
        subject,
        "Kick tolerance drilling to ",
        depth(below.shoe_md_ft),
        " is ",
        volume(kick.tolerance_bbl),
        *(() if kick.at_md_ft == below.shoe_md_ft else (" for a kick at ", depth(kick.at_md_ft))),
        *(() if kick.weak_is_shoe or kick.weak_md_ft is None else (", weakest at ", depth(kick.weak_md_ft))),
        "; policy asks ",
        volume(kick.required_bbl),
        ".",
        *(() if remedies else (" No deeper shoe or other mud alone gives it.",)),
        value=volume(kick.tolerance_bbl),
        limit=volume(kick.required_bbl),
        remedies=remedies,
        working=f"depths/{string.index}/kick_tolerance",
    )


def _full_gas(string: LaidString, kick: KickResult) -> Iterator[Finding]:
    """The other criterion: the shoe must stand a hole full of gas, whatever the volume."""
    margin, at = kick.full_gas_margin_psi, kick.full_gas_md_ft
    if margin is not None and at is not None and margin < 0:
        where: Words = ("Full evacuation to gas: deficit at the shoe ",)
        if at > string.shoe_md_ft + 0.5:
            where = ("Full evacuation to gas: deficit at ", depth(at), ", ")
        yield _find(
            "stop",
            f"{string.path}/shoe_md_ft",
            string.shoe_words,
            *where,
            pressure(-margin),
            ".",
            value=pressure(margin),
            limit=pressure(0.0),
            working=f"depths/{string.index}/full_gas",
        )


def _moved(well: Well, string: LaidString, target_tvd_ft: float, words: str) -> tuple[Remedy, ...]:
    """The shoe moved to a TVD, where the well reaches it."""
    if not 0 < target_tvd_ft <= well.path.total_tvd_ft:
        return ()
    md = float(np.ceil(well.path.md(target_tvd_ft)))
    return (remedy(string.change("shoe_md_ft", md), words, depth(md)),)


def fresh_water_findings(
    well: Well, string: LaidString, above: LaidString | None, below: LaidString | None
) -> Iterator[Finding]:
    """Fresh water: behind the first casing with cover, and that casing a surface casing, not the last of the well."""
    fresh, place, stands = depth_rules(well).fresh_water, f"{string.path}/shoe_md_ft", depth(string.shoe_md_ft)
    first = string.role != "conductor" and (above is None or above.role == "conductor")
    if not first or fresh.base_tvd_ft is None or fresh.keeps(string.previous_shoe_md_ft, string.shoe_md_ft):
        return
    water: Words = "Fresh water down to ", depth(fresh.base_tvd_ft)
    if not fresh.keeps(string.shoe_md_ft, string.shoe_md_ft):
        yield _find(
            "stop",
            place,
            string.shoe_words,
            *water,
            " is not behind this shoe with ",
            depth(well.policy.depths.fresh_water_cover_ft),
            " of cover.",
            value=stands,
            limit=depth(fresh.least_tvd_ft),
            remedies=_moved(well, string, fresh.least_tvd_ft, "Move the shoe to "),
        )
    elif below is None:
        yield _find(
            "stop",
            place,
            string.shoe_words,
            *water,
            " is left open while drilling to ",
            stands,
            ". A surface shoe belongs at ",
            depth(fresh.least_tvd_ft),
            " TVD or deeper first.",
        )


def rule_findings(well: Well, string: LaidString, above: LaidString | None) -> Iterator[Finding]:
    """No-shoe zones and zones to be cased off, for one string."""
    rules, place, subject = depth_rules(well), f"{string.path}/shoe_md_ft", string.shoe_words
    tvd, stands = well.path.tvd(string.shoe_md_ft), depth(string.shoe_md_ft)
    barred = rules.no_shoe.span_at(string.shoe_md_ft) if string.role != "conductor" else None
    if barred is not None:
        inside = tvd < barred.zone.base_tvd_ft
        words = "in" if inside else "too close below"
        yield _find(
            "stop",
            place,
            subject,
            f"The shoe is set {words} {barred.zone.name}, where no shoe is allowed.",
            value=stands,
            limit=depth(barred.base_tvd_ft),
            remedies=_moved(well, string, barred.base_tvd_ft, "Move the shoe to "),
        )
    if above is not None:
        yield from _left_open(well, string, above)


def _left_open(well: Well, string: LaidString, above: LaidString) -> Iterator[Finding]:
    for band in depth_rules(well).case_off.passed_by(string.previous_shoe_md_ft, string.shoe_md_ft):
        fits = above.role not in ("conductor", "surface")
        yield _find(
            "stop",
            f"{above.path}/shoe_md_ft",
            (band.zone.name,),
            f"{band.zone.name} is left open while drilling to ",
            depth(string.shoe_md_ft),
            ". A shoe belongs between ",
            depth(band.shallow_tvd_ft),
            " and ",
            depth(band.deep_tvd_ft),
            " TVD.",
            remedies=_moved(well, above, band.shallow_tvd_ft, "Move the shoe above to ") if fits else (),
        )


def conductor_findings(well: Well, string: LaidString) -> Iterator[Finding]:
    """A decided conductor against its own rule, and jetting where no sea floor is soft enough for it."""
    if string.role != "conductor" or string.proposed:
        return
    place, subject = f"{string.path}/shoe_md_ft", string.shoe_words
    least, why = conductor_md_ft(well)
    if string.shoe_md_ft < least - 1e-6:
        stands = depth(string.shoe_md_ft)
        yield _find(
            "stop",
            place,
            subject,
            "The conductor is set at ",
            stands,
            ". ",
            *why,
            value=stands,
            limit=depth(least),
            remedies=(remedy(string.change("shoe_md_ft", least), "Set it at ", depth(least)),),
        )
    if string.run == "jetted" and well.site.setting != "subsea":
        text = "Jetting a conductor in is for a soft sea floor; on land and from a platform it is driven or drilled."
        yield _find("caution", place, subject, text)


def diverter_findings(well: Well, string: LaidString, above: LaidString | None) -> Iterator[Finding]:
    """A hole drilled on the conductor, where no kick can be shut in: too deep, or through marked oil or gas."""
    if not string.drilled or string.role == "conductor" or (above is not None and above.role != "conductor"):
        return
    rule, place, subject = depth_rules(well).diverter, f"{string.path}/shoe_md_ft", string.shoe_words
    deepest = well.ground_md_ft + rule.limit_ft
    how = "without a riser" if is_riserless(well, string.index) else "on the diverter"
    if not rule.keeps(string.previous_shoe_md_ft, string.shoe_md_ft):
        reachable = deepest > string.previous_shoe_md_ft
        yield _find(
            "stop",
            place,
            subject,
            f"The hole is drilled {how} to ",
            depth(string.shoe_md_ft),
            "; policy allows ",
            depth(deepest),
            ".",
            value=depth(string.shoe_md_ft),
            limit=depth(deepest),
            remedies=(remedy(string.change("shoe_md_ft", deepest), "Move the shoe to ", depth(deepest)),)
            if reachable
            else (),
        )
    top = well.path.span(string.previous_shoe_md_ft, string.shoe_md_ft)[0]
    for zone in depth_rules(well).hydrocarbons.drilled(string.previous_shoe_md_ft, string.shoe_md_ft):
        yield _find(
            "stop",
            place,
            subject,
            f"{zone.name}, marked {zone.fluid}, is drilled {how} from ",
            depth(well.path.md(max(top, zone.top_tvd_ft))),
            ": a kick there cannot be shut in. A shoe with preventers belongs above it.",
        )


def length_findings(well: Well, string: LaidString) -> Iterator[Finding]:
    rule, length = depth_rules(well).open_hole, string.shoe_md_ft - string.previous_shoe_md_ft
    if string.drilled and not rule.keeps(string.previous_shoe_md_ft, string.shoe_md_ft):
        yield _find(
            "caution",
            f"{string.path}/shoe_md_ft",
            string.shoe_words,
            "Open hole is ",
            depth(length),
            " long; policy allows ",
            depth(rule.limit_ft),
            ".",
            value=depth(length),
            limit=depth(rule.limit_ft),
        )


def total_depth_findings(well: Well, last: LaidString) -> Iterator[Finding]:
    total = well.path.total_md_ft
    if last.shoe_md_ft < total - 1e-6:
        place = f"{last.path}/shoe_md_ft"
        yield _find(
            "caution",
            place,
            last.shoe_words,
            "The last shoe is ",
            depth(total - last.shoe_md_ft),
            " above total depth.",
            remedies=(remedy(Change(path=place, value=total), "Set it at total depth, ", depth(total)),),
        )
