"""The depths step for the program in force: kick tolerance at each shoe, the rules, and what would mend a miss."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from knollstack.core.basics import hydrostatic_pressure
from knollstack.core.conductor import conductor_md_ft
from knollstack.core.constants import PSI_PER_PPG_FT
from knollstack.core.depths import Shoe, bands, fresh_water_shoe_tvd_ft
from knollstack.core.findings import Change, Finding, Remedy, Words
from knollstack.core.kick import formation_pressure, full_gas_shoe_pressure, maasp
from knollstack.core.program import Planned, Program, roles
from knollstack.core.results_well import DepthsResult, KickResult, ProposedShoe, ShoeRow
from knollstack.core.tolerance import (
    Section,
    greatest_intensity_ppg,
    kick_depths_md,
    least_at,
    least_bbl,
    section_of,
    tolerance_at,
    tolerances,
)
from knollstack.core.well import Well, depth, emw, pressure, shoe_words, volume
from knollstack.core.working import headline

Floats = NDArray[np.float64]
CURVE_STEP_FT = 100.0
SHOE_STEP_FT = 10.0
MUD_STEP_PPG = 0.1


def kick_curve(
    well: Well, section: Section, shoe_md: float, mud: float, bottom_md: float
) -> tuple[list[float], list[float]]:
    """Depths [ft MD] and tolerance [bbl] for a kick at each: on a grid and at every pore point, where the rock limits it."""
    steps = np.arange(shoe_md + CURVE_STEP_FT, bottom_md, CURVE_STEP_FT)
    depths = np.unique(np.concatenate([steps, kick_depths_md(well, shoe_md, bottom_md)]))
    found = tolerances(well, section, np.array([shoe_md]), np.array([mud]), depths)
    known = np.isfinite(found.volume_bbl[0]) & found.limited[0]
    return depths[known].tolist(), found.volume_bbl[0][known].tolist()


def kick_at_shoe(program: Program, string: Planned) -> KickResult | None:
    """Kick tolerance at a string's shoe while the next section is drilled; None where there is no such section."""
    below = program.next(string)
    if below is None or string.role == "conductor" or below.bit_in is None or below.mud_ppg is None:
        return None
    well = program.well
    section = section_of(well, below.bit_in)
    least = least_at(well, section, string.shoe_md_ft, below.mud_ppg, below.shoe_md_ft)
    if least is not None:
        with headline(f"depths/{string.index}/kick_tolerance"):
            again = tolerance_at(well, section, string.shoe_md_ft, below.mud_ppg, least.kick_md_ft)
        least = again
    fracture = well.ground.fracture.one(well.path.tvd(string.shoe_md_ft))
    surface = None
    if fracture is not None:
        with headline(f"depths/{string.index}/maasp"):
            surface = maasp(fracture, below.mud_ppg, well.path.tvd(string.shoe_md_ft))
    curve = kick_curve(well, section, string.shoe_md_ft, below.mud_ppg, below.shoe_md_ft)
    return KickResult(
        tolerance_bbl=least.volume_bbl if least else None,
        limited=least is None or least.limited,
        at_md_ft=least.kick_md_ft if least else None,
        required_bbl=well.kick_minimum_bbl(below.bit_in),
        height_ft=least.height_ft if least else None,
        weak_md_ft=well.path.md(least.weak_tvd_ft) if least else None,
        weak_is_shoe=least is not None and abs(least.weak_tvd_ft - well.path.tvd(string.shoe_md_ft)) < 0.01,
        maasp_psi=surface,
        greatest_intensity_ppg=greatest_intensity_ppg(
            well, section, string.shoe_md_ft, below.mud_ppg, below.shoe_md_ft, well.kick_minimum_bbl(below.bit_in)
        ),
        full_gas_margin_psi=_full_gas_margin(well, string, below),
        curve_md_ft=tuple(curve[0]),
        curve_bbl=tuple(curve[1]),
    )


def _full_gas_margin(well: Well, string: Planned, below: Planned) -> float | None:
    """What the shoe stands over the pressure of a hole full of gas [psi], at the worst kick depth; None if unknown."""
    shoe_tvd = well.path.tvd(string.shoe_md_ft)
    fracture = well.ground.fracture.one(shoe_tvd)
    kicks = well.path.tvd_at(kick_depths_md(well, string.shoe_md_ft, below.shoe_md_ft))
    pore = well.ground.pore.at(kicks)
    if fracture is None or np.any(np.isnan(pore)):
        return None
    worst = int(np.argmax(pore * kicks * PSI_PER_PPG_FT - well.policy.influx_psi_ft * kicks))
    with headline(f"depths/{string.index}/full_gas"):
        formation = formation_pressure(float(pore[worst]), well.policy.kick_intensity_ppg, float(kicks[worst]))
        at_shoe = full_gas_shoe_pressure(formation, float(kicks[worst]), shoe_tvd, well.policy.influx_psi_ft)
        stands = hydrostatic_pressure(fracture, shoe_tvd)
    return float(stands - at_shoe)


def _mud_fits(well: Well, top_md: float, bottom_md: float, mud: float) -> bool:
    lower, upper = well.window.bounds(well.path.tvd(top_md), well.path.tvd(bottom_md))
    return lower is not None and upper is not None and lower.mud_ppg <= mud + 1e-9 <= upper.mud_ppg + 2e-9


def _may_stand(well: Well, mds: Floats) -> NDArray[np.bool_]:
    """Depths [ft MD] that lie in no zone where no shoe is allowed."""
    tvd = well.path.tvd_at(mds)
    allowed = np.ones(mds.shape, dtype=bool)
    for zone in well.ground.model.zones:
        if not zone.shoe_allowed:
            allowed &= (tvd <= zone.top_tvd_ft) | (tvd >= zone.base_tvd_ft)
    return allowed


def _deeper_shoe(program: Program, string: Planned, below: Planned, asked: float) -> Remedy | None:
    """The nearest deeper shoe, in tens of feet, that gives the tolerance and leaves both sections drillable."""
    well = program.well
    if below.bit_in is None or below.mud_ppg is None:
        return None
    first = np.floor(string.shoe_md_ft / SHOE_STEP_FT) * SHOE_STEP_FT + SHOE_STEP_FT
    depths = np.arange(first, below.shoe_md_ft, SHOE_STEP_FT)
    depths = depths[_may_stand(well, depths)]
    if not len(depths):
        return None
    mud = np.full(depths.shape, below.mud_ppg)
    enough = depths[least_bbl(well, section_of(well, below.bit_in), depths, mud, below.shoe_md_ft) >= asked]
    if not len(enough):
        return None
    md = float(enough[0])
    # a deeper bottom never widens the window of the section above, so the nearest depth decides
    if string.mud_ppg is not None and not _mud_fits(well, string.previous_shoe_md_ft, md, string.mud_ppg):
        return None
    label: Words = ("Move the shoe ", depth(md - string.shoe_md_ft), " deeper, to ", depth(md))
    return Remedy(label=label, changes=program.change(string, "shoe_md_ft", md))


def _other_mud(program: Program, string: Planned, below: Planned, asked: float) -> Remedy | None:
    """The nearest other mud of the section below, in tenths, that gives the tolerance and holds the window."""
    well = program.well
    if below.bit_in is None or below.mud_ppg is None:
        return None
    section = section_of(well, below.bit_in)
    for sign, word in ((1, " more mud, "), (-1, " less mud, ")):
        mud = below.mud_ppg
        while _mud_fits(well, string.shoe_md_ft, below.shoe_md_ft, mud := round(mud + sign * MUD_STEP_PPG, 2)):
            least = least_at(well, section, string.shoe_md_ft, mud, below.shoe_md_ft)
            if least is not None and (not least.limited or least.volume_bbl >= asked):
                label: Words = ("Drill with ", emw(round(abs(mud - below.mud_ppg), 2)), word, emw(mud))
                return Remedy(label=label, changes=program.change(below, "mud_ppg", mud))
    return None


def _kick_findings(program: Program, string: Planned, kick: KickResult | None) -> None:
    below = program.next(string)
    if below is None or string.role == "conductor":
        return
    place, subject = f"{string.path}/shoe_md_ft", shoe_words(string.od_in, string.role)
    if kick is None or kick.tolerance_bbl is None:
        message: Words = ("Kick tolerance is unknown: pore, fracture, mud or hole size is missing below this shoe.",)
        program.findings.append(
            Finding(severity="unknown", step="depths", place=place, subject=subject, message=message)
        )
        return
    if program.well.policy.kick_school == "full gas":
        _full_gas_finding(program, string, kick)
        return
    if not kick.limited or kick.tolerance_bbl >= kick.required_bbl or kick.at_md_ft is None:
        return
    remedies = [
        remedy
        for remedy in (
            _deeper_shoe(program, string, below, kick.required_bbl),
            _other_mud(program, string, below, kick.required_bbl),
        )
        if remedy
    ]
    message = (
        "Kick tolerance drilling to ", depth(below.shoe_md_ft), " is ", volume(kick.tolerance_bbl),
        *(() if kick.at_md_ft == below.shoe_md_ft else (" for a kick at ", depth(kick.at_md_ft))),
        "; policy asks ", volume(kick.required_bbl), ".",
        *(() if remedies else (" No deeper shoe or other mud alone gives it.",)),
    )  # fmt: skip
    program.findings.append(
        Finding(
            severity="stop",
            step="depths",
            place=place,
            subject=subject,
            message=message,
            value=volume(kick.tolerance_bbl),
            limit=volume(kick.required_bbl),
            remedies=tuple(remedies),
            working=f"depths/{string.index}/kick_tolerance",
        )
    )


def _full_gas_finding(program: Program, string: Planned, kick: KickResult) -> None:
    """The other school: the shoe must stand a hole full of gas, whatever the volume."""
    margin = kick.full_gas_margin_psi
    if margin is None or margin >= 0:
        return
    message: Words = ("With the hole full of gas the shoe is short of strength by ", pressure(-margin), ".")
    program.findings.append(
        Finding(
            severity="stop", step="depths", place=f"{string.path}/shoe_md_ft",
            subject=shoe_words(string.od_in, string.role), message=message, value=pressure(margin), limit=pressure(0.0),
            working=f"depths/{string.index}/full_gas",
        )
    )  # fmt: skip


def _is_first_below_conductor(program: Program, string: Planned) -> bool:
    above = program.previous(string)
    return above is None or above.role == "conductor"


def _rule_findings(program: Program, string: Planned) -> None:
    """Fresh water, no-shoe zones and zones to be cased, for one string."""
    well, tvd = program.well, program.well.path.tvd(string.shoe_md_ft)
    place, subject = f"{string.path}/shoe_md_ft", shoe_words(string.od_in, string.role)

    def stop(message: Words, target_tvd: float, limit: float) -> None:
        remedies = []
        if 0 < target_tvd <= well.path.total_tvd_ft:
            md = float(np.ceil(well.path.md(target_tvd)))
            remedies = [
                Remedy(label=("Move the shoe to ", depth(md)), changes=program.change(string, "shoe_md_ft", md))
            ]
        program.findings.append(
            Finding(
                severity="stop", step="depths", place=place, subject=subject, message=message,
                value=depth(string.shoe_md_ft), limit=depth(limit), remedies=tuple(remedies),
            )
        )  # fmt: skip

    fresh = fresh_water_shoe_tvd_ft(well)
    if string.role != "conductor" and _is_first_below_conductor(program, string) and tvd < fresh - 1e-6:
        covered = max(z.base_tvd_ft for z in well.ground.model.zones if z.fluid == "fresh water")
        stop(("Fresh water down to ", depth(covered), " is not behind this shoe with ",
              depth(well.policy.fresh_water_cover_ft), " of cover."), fresh, fresh)  # fmt: skip
    for zone in well.ground.model.zones:
        if string.role != "conductor" and not zone.shoe_allowed and zone.top_tvd_ft < tvd < zone.base_tvd_ft:
            target = zone.base_tvd_ft + well.policy.zone_cover_ft
            stop((f"The shoe stands in {zone.name}, where no shoe is allowed.",), target, target)
    top_tvd = well.path.tvd(string.previous_shoe_md_ft)
    for zone, shallow, deep in bands(well):
        if string.index and top_tvd < shallow and tvd > deep:
            place_above = f"/strings/{string.index - 1}/shoe_md_ft"
            message: Words = (
                f"{zone.name} is left open while drilling to ", depth(string.shoe_md_ft),
                ". A shoe belongs between ", depth(shallow), " and ", depth(deep), " TVD.",
            )  # fmt: skip
            above = program.strings[string.index - 1]
            md = float(np.ceil(well.path.md(shallow)))
            fits = above.role not in ("conductor", "surface")
            remedy = Remedy(
                label=("Move the shoe above to ", depth(md)), changes=program.change(above, "shoe_md_ft", md)
            )
            program.findings.append(
                Finding(severity="stop", step="depths", place=place_above, subject=(zone.name,), message=message,
                        remedies=(remedy,) if fits else ())
            )  # fmt: skip


def _conductor_findings(program: Program, string: Planned) -> None:
    """A decided conductor against its own rule, and jetting where no sea floor is soft enough for it."""
    if string.role != "conductor" or string.proposed:
        return
    place, subject = f"{string.path}/shoe_md_ft", shoe_words(string.od_in, string.role)
    least, why = conductor_md_ft(program.well)
    if string.shoe_md_ft < least - 1e-6:
        remedy = Remedy(label=("Set it at ", depth(least)), changes=program.change(string, "shoe_md_ft", least))
        program.findings.append(
            Finding(
                severity="stop", step="depths", place=place, subject=subject, remedies=(remedy,),
                message=("The conductor stands at ", depth(string.shoe_md_ft), ". ", *why),
                value=depth(string.shoe_md_ft), limit=depth(least),
            )
        )  # fmt: skip
    if string.run == "jetted" and program.well.site.setting != "subsea":
        text = "Jetting a conductor in is for a soft sea floor; on land and from a platform it is driven or drilled."
        program.findings.append(
            Finding(severity="caution", step="depths", place=place, subject=subject, message=(text,))
        )


def _length_finding(program: Program, string: Planned) -> None:
    limit = program.well.policy.open_hole_limit_ft
    length = string.shoe_md_ft - string.previous_shoe_md_ft
    if string.drilled and length > limit:
        message: Words = ("Open hole is ", depth(length), " long; policy allows ", depth(limit), ".")
        program.findings.append(
            Finding(severity="caution", step="depths", place=f"{string.path}/shoe_md_ft",
                    subject=shoe_words(string.od_in, string.role), message=message,
                    value=depth(length), limit=depth(limit))
        )  # fmt: skip


def _total_depth_finding(program: Program) -> None:
    last, total = program.strings[-1], program.well.path.total_md_ft
    if last.shoe_md_ft < total - 1e-6:
        message: Words = ("The last shoe stands ", depth(total - last.shoe_md_ft), " above total depth.")
        change = Change(path=f"{last.path}/shoe_md_ft", value=total)
        program.findings.append(
            Finding(severity="caution", step="depths", place=f"{last.path}/shoe_md_ft",
                    subject=shoe_words(last.od_in, last.role), message=message,
                    remedies=(Remedy(label=("Set it at total depth, ", depth(total)), changes=(change,)),))
        )  # fmt: skip


def judge_depths(program: Program) -> DepthsResult:
    """Judge every shoe of the program by the rules that also propose."""
    rows = []
    for string in program.strings:
        kick = kick_at_shoe(program, string)
        _conductor_findings(program, string)
        _rule_findings(program, string)
        _length_finding(program, string)
        _kick_findings(program, string, kick)
        rows.append(ShoeRow(kick=kick, rule=string.shoe_rule, reason=string.shoe_reason))
    if program.strings:
        _total_depth_finding(program)
    return DepthsResult(proposal=listed(program.proposal.shoes), failure=program.proposal.failure, strings=tuple(rows))


def listed(shoes: tuple[Shoe, ...]) -> tuple[ProposedShoe, ...]:
    """Proposed shoes with the roles of their strings."""
    return tuple(
        ProposedShoe(role=role, md_ft=s.md_ft, rule=s.rule, reason=s.reason)
        for role, s in zip(roles(len(shoes)), shoes, strict=True)
    )
